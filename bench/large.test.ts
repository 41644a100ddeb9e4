import { expect, it } from 'vitest'
import { compile } from '../core/simulate/compile'
import { largeSheet } from './large'

it('the large sheet of the benchmarks can be run', () => {
  const { compiled, findings } = compile(largeSheet(60))
  expect(findings.filter((f) => f.severity === 'error')).toEqual([])
  expect(compiled!.netlist.components.length).toBeGreaterThanOrEqual(60)
})
