import { describe, expect, it } from 'vitest'
import { circuit, powerUnit, powerUnitPipes } from '../testing'
import { branchingJunctions, branches } from './branches'
import { changePipe, connect } from './edit'
import type { XY } from './geometry'
import { emptySheet, type Sheet } from './schema'

/** A sheet of pipes that leave one junction along given corners, each to a junction of its own. */
function from(start: XY, ...ways: XY[][]): Sheet {
  const junction = (id: string, [x, y]: XY) => ({ id, x, y })
  return {
    ...emptySheet('Ways'),
    junctions: [junction('S', start), ...ways.map((way, i) => junction(`E${i}`, way[way.length - 1]))],
    pipes: ways.map((way, i) => ({
      id: `L${i}`,
      lineType: 'working',
      from: { junction: 'S' },
      to: { junction: `E${i}` },
      route: way.slice(0, -1).map(([x, y]): [number, number] => [x, y]),
      bore: '10 mm',
      length: '0 m',
      lineModel: 'automatic',
    })),
  }
}
const found = (sheet: Sheet) => branches(sheet).map(({ at, pipes }) => [at.join(), pipes.join()])

describe('pipes from one place', () => {
  it('have a dot where they part, though one turns and the other goes on', () => {
    expect(
      found(
        from(
          [0, 0],
          [
            [0, 9],
            [5, 9],
          ],
          [
            [0, 4],
            [5, 4],
          ],
        ),
      ),
    ).toEqual([['0,4', 'L0,L1']])
  })
  it('have one dot for three', () => {
    expect(
      found(
        from(
          [0, 0],
          [
            [0, 4],
            [5, 4],
          ],
          [
            [0, 4],
            [-5, 4],
          ],
          [[0, 9]],
        ),
      ),
    ).toEqual([['0,4', 'L0,L1,L2']])
  })
  it('have none where one lies wholly on the other, or where a junction has its dot', () => {
    expect(found(from([0, 0], [[0, 4]], [[0, 9]]))).toEqual([])
    expect(found(from([0, 0], [[0, 4]], [[4, 0]]))).toEqual([])
  })
  it('have a dot at junctions of three lines or more, of oil', () => {
    const ways: XY[][] = [[[0, 4]], [[4, 0]], [[0, -4]]]
    const dots = (n: number, lineType?: 'shaft') => {
      const sheet = from([0, 0], ...ways.slice(0, n))
      const typed = lineType ? { ...sheet, pipes: sheet.pipes.map((p) => ({ ...p, lineType })) } : sheet
      return branchingJunctions(typed).map(({ x, y }) => [x, y].join())
    }
    expect(dots(2)).toEqual([])
    expect(dots(3)).toEqual(['0,0'])
    expect(dots(3, 'shaft')).toEqual([])
  })
  it('part where they start, if one goes aslant', () => {
    expect(
      found(
        from(
          [0, 0],
          [
            [0, 5],
            [4, 9],
            [6, 9],
          ],
          [
            [0, 5],
            [8, 13],
            [8, 20],
          ],
        ),
      ),
    ).toEqual([['0,5', 'L0,L1']])
  })
  it('are told by ports as well, and shafts are not', () => {
    const unit = circuit(powerUnit, powerUnitPipes)
    expect(found(unit)).toEqual([])
    const pump = { component: 'P1', port: 'P' }
    const laid = connect(unit, pump, { component: 'V1', port: 'T' })
    if ('problem' in laid) throw new Error(laid.problem)
    // at the pump and at the relief two pipes begin
    expect(branches(laid.sheet)).toHaveLength(2)
    for (const { pipes } of branches(laid.sheet)) expect(pipes).toContain(laid.id)
    const shafts = laid.sheet.pipes.reduce((s, p) => changePipe(s, p.id, { lineType: 'shaft' }), laid.sheet)
    expect(branches(shafts)).toEqual([])
  })
})
