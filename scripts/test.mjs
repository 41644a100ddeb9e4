/** npm test: installs what is missing and runs everything. Ends with "N passed, N failed". */
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { build, installTools, installPackages, tool } from './prepare.mjs'

installPackages()
installTools()

let passed = 0
let failed = 0
/** What failed, told once more at the end. */
const failures = []
const started = Date.now()
function check(name, code) {
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
if (tool('nuxt', ['prepare'])) process.exit(1)
check('lint', tool('eslint', ['.']))
check('format', tool('prettier', ['--check', '--log-level', 'warn', '.']))
check('types of the core', tool('tsc', ['-p', 'core']))
check('types of tests, demo, bench', tool('tsc', ['-p', 'tsconfig.tests.json']))
check('types of the application', tool('nuxt', ['typecheck']))

const unit = 'test-results/unit.json'
count(
  'unit tests',
  tool('vitest', ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`]),
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
build()
const browser = 'test-results/browser.json'
count(
  'browser tests',
  tool('playwright', ['test'], { PLAYWRIGHT_JSON_OUTPUT_NAME: browser }),
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
