/** npm test: installs what is missing and runs everything. Ends with "N passed, N failed". */
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { build, installTools, installPackages, tool } from './prepare.mjs'

installPackages()
installTools()

let passed = 0
let failed = 0
const started = Date.now()
function check(name, code) {
  console.log(`${code ? 'FAILED' : 'passed'}: ${name} (${((Date.now() - started) / 1000).toFixed(0)} s)`)
  if (code) failed++
  else passed++
}
/** Adds the counts of a runner that wrote JSON; a runner that fell over counts as one failure. */
function count(name, code, file, read) {
  const found = existsSync(file) ? read(JSON.parse(readFileSync(file, 'utf8'))) : { passed: 0, failed: 0 }
  passed += found.passed
  failed += found.failed
  if ((code && !found.failed) || !(found.passed + found.failed)) failed++
  console.log(
    `${name}: ${found.passed} passed, ${found.failed} failed (${((Date.now() - started) / 1000).toFixed(0)} s)`,
  )
}

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
  (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests }),
)
build()
const browser = 'test-results/browser.json'
count(
  'browser tests',
  tool('playwright', ['test'], { PLAYWRIGHT_JSON_OUTPUT_NAME: browser }),
  browser,
  (r) => ({ passed: r.stats.expected, failed: r.stats.unexpected + r.stats.flaky }),
)
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)
