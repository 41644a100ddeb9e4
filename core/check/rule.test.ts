import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canReach, OPENED, onEveryPath, type Edge } from './rule'

describe('what is passed on every way', () => {
  const open = (to: number, by?: string): Edge => ({ to, type: 'open', component: by })
  it('is what stands in series, and not what stands beside another', () => {
    // 0 –A→ 1, from there by B or by C to 2, –D→ 3
    const edges = [[open(1, 'A')], [open(2, 'B'), open(2, 'C')], [open(3, 'D')], []]
    expect([...onEveryPath(edges, 0, new Set([3]), OPENED)].sort()).toEqual(['A', 'D'])
  })
  it('is nothing where no way leads, or where one is there already', () => {
    const edges = [[open(1, 'A')], [], []]
    expect(onEveryPath(edges, 0, new Set([2]), OPENED).size).toBe(0)
    expect(onEveryPath(edges, 0, new Set([0]), OPENED).size).toBe(0)
  })
  it('is, in any circuit, what cannot be left out', () => {
    const names = ['A', 'B', 'C', 'D', 'E']
    const edge = fc.record({
      to: fc.nat(5),
      type: fc.constantFrom('open', 'relief'),
      component: fc.constantFrom(...names),
    })
    const circuits = fc.array(fc.array(edge, { maxLength: 3 }), { minLength: 6, maxLength: 6 })
    fc.assert(
      fc.property(circuits, (edges) => {
        const to = new Set([5])
        const passed = onEveryPath(edges as Edge[][], 0, to, OPENED)
        const leads = canReach(edges as Edge[][], 0, to, OPENED)
        for (const by of names)
          expect(passed.has(by)).toBe(leads && !canReach(edges as Edge[][], 0, to, OPENED, by))
      }),
    )
  })
})
