import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'

/**
 * Bytes a step for six consumers on one power unit. What is left are single numbers that pass between functions which are not inlined; an
 * array or object for each element in every evaluation would be several times as much.
 */
const LIMIT = 1500

it('takes no more from the heap in a step than some numbers', () => {
  const probe = fileURLToPath(new URL('./allocation-probe.ts', import.meta.url))
  // the young generation holds a whole stretch of steps: nothing is collected in it
  const flags = ['--import', 'tsx', '--expose-gc', '--min-semi-space-size=64', '--max-semi-space-size=64']
  const bytes = Number(execFileSync(process.execPath, [...flags, probe], { encoding: 'utf8' }))
  expect(bytes).toBeGreaterThanOrEqual(0)
  expect(bytes).toBeLessThan(LIMIT)
}, 180_000)
