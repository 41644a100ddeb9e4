/** npm test: installs what is missing and runs everything. Ends with "N passed, N failed". */
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { build, installTools, installPackages, tool } from './prepare.mjs'

await installPackages()
await installTools()

let passed = 0
let failed = 0
/** What failed, told once more at the end. */
const failures = []
const started = Date.now()
async function check(name, ...command) {
  const code = await tool(...command)
  console.log(`${code ? 'FAILED' : 'passed'}: ${name} (${((Date.now() - started) / 1000).toFixed(0)} s)`)
  if (code) {
    failed++
    failures.push(name)
  } else passed++
}
/** Adds the counts of a runner that wrote JSON; a runner that fell over counts as one failure. */
function count(name, code, file, read) {
  const found = existsSync(file)
    ? read(JSON.parse(readFileSync(file, 'utf8')))
    : { passed: 0, failed: 0, names: [] }
  passed += found.passed
  failed += found.failed
  failures.push(...found.names)
  if ((code && !found.failed) || !(found.passed + found.failed)) {
    failed++
    failures.push(`${name}: the runner ended with ${code}`)
  }
  console.log(
    `${name}: ${found.passed} passed, ${found.failed} failed (${((Date.now() - started) / 1000).toFixed(0)} s)`,
  )
}

/** All tests of a suite in a report of the browser tests, and of the suites in it. */
const specsOf = ({ specs = [], suites = [] }) => [...specs, ...suites.flatMap(specsOf)]

rmSync('test-results', { recursive: true, force: true })
if (await tool('nuxt', ['prepare'])) process.exit(1)
// two sequences at the same time; what writes or reads .nuxt stays in one of them
await Promise.all([
  (async () => {
    await check('types of tests, demo, bench', 'tsc', ['-p', 'tsconfig.tests.json'])
    await check('types of the application', 'nuxt', ['typecheck'])
    await build()
  })(),
  (async () => {
    await check('lint', 'eslint', ['.'])
    await check('format', 'prettier', ['--check', '--log-level', 'warn', '.'])
    await check('types of the core', 'tsc', ['-p', 'core'])
  })(),
])

const unit = 'test-results/unit.json'
count(
  'unit tests',
  await tool('vitest', ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`]),
  unit,
  (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests,
    names: r.testResults.flatMap(({ name, assertionResults }) =>
      assertionResults
        .filter(({ status }) => status === 'failed')
        .map(
          ({ fullName, failureMessages }) =>
            `${name}: ${fullName}\n${failureMessages.join('\n').slice(0, 600)}`,
        ),
    ),
  }),
)
const browser = 'test-results/browser.json'
count(
  'browser tests',
  await tool('playwright', ['test'], { PLAYWRIGHT_JSON_OUTPUT_NAME: browser }),
  browser,
  (r) => ({
    passed: r.stats.expected,
    failed: r.stats.unexpected + r.stats.flaky,
    names: specsOf(r)
      .filter(({ ok, tests }) => !ok || tests.some(({ status }) => status === 'flaky'))
      .map(({ file, title }) => `${file}: ${title}`),
  }),
)
for (const name of failures) console.log(`FAILED: ${name}`)
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
