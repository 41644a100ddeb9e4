import { execFileSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'

/** Bytes a step, whatever the size of the circuit: single numbers, 16 bytes each, that pass between functions which are not inlined. */
const LIMIT = 640
/** Bytes a step for one more consumer: three such numbers. An array or object in each evaluation of one element is ten times as much. */
const LIMIT_PER_CONSUMER = 48
const CONSUMERS = 6

/** Bytes that a step takes from the heap, for so many sets of consumers on one power unit. */
function bytesPerStep(sets: number): number {
  const probe = fileURLToPath(new URL('./allocation-probe.ts', import.meta.url))
  // the young generation holds a whole stretch of steps: nothing is collected in it; optimised at once, whatever else the machine does
  const young = ['--min-semi-space-size=64', '--max-semi-space-size=64']
  const flags = ['--import', 'tsx', '--expose-gc', '--no-concurrent-recompilation', ...young]
  const bytes = Number(execFileSync(process.execPath, [...flags, probe, String(sets)], { encoding: 'utf8' }))
  expect(bytes).toBeGreaterThanOrEqual(0)
  return bytes
}

it('takes some numbers from the heap in a step, and no object for a component', () => {
  const [one, four] = [bytesPerStep(1), bytesPerStep(4)]
  expect(one).toBeLessThan(LIMIT)
  expect((four - one) / (3 * CONSUMERS)).toBeLessThan(LIMIT_PER_CONSUMER)
}, 180_000)
