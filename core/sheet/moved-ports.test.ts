import { describe, expect, it } from 'vitest'
import { endAt, polyline } from './geometry'
import { readSheet } from './read'
import type { Sheet } from './schema'

/** A filter between two junctions, with the pipe to its inlet as an older file has it. */
const older = (version: number, rotation: 0 | 1 = 0) => ({
  format: 'oar-bench-sheet',
  version,
  components: [
    { id: 'F', kind: 'filter', x: 20, y: 10, rotation },
    { id: 'R', kind: 'relief-valve-pilot-operated', form: 'detailed', x: 60, y: 20 },
  ],
  junctions: [
    { id: 'J', x: 4, y: 30 },
    { id: 'K', x: 60, y: 5 },
    { id: 'N', x: 23, y: 10 },
  ],
  pipes: [
    rotation
      ? {
          id: 'in',
          from: { junction: 'J' },
          to: { component: 'F', port: 'A' },
          route: [
            [4, 2],
            [20, 2],
          ],
        }
      : { id: 'in', from: { junction: 'J' }, to: { component: 'F', port: 'A' }, route: [[4, 10]] },
    { id: 'relief', from: { junction: 'K' }, to: { component: 'R', port: 'P' }, route: [] },
    { id: 'out', from: { component: 'F', port: 'B' }, to: { junction: 'N' }, route: [] },
  ],
})
const read = (data: unknown): Sheet => {
  const result = readSheet(data)
  if (!result.ok) throw new Error(result.problems.map((p) => p.message).join())
  return result.sheet
}
const isStraight = (sheet: Sheet) =>
  sheet.pipes.every((pipe) => {
    const points = polyline(sheet, pipe)
    return points.every((p, i) => i === 0 || p[0] === points[i - 1][0] || p[1] === points[i - 1][1])
  })

describe('pipes of a file from before the symbols were redrawn', () => {
  it.each([0, 1] as const)(
    'end at the ports where they lie now, without slanting parts (turned %s)',
    (rotation) => {
      const sheet = read(older(5, rotation))
      expect(isStraight(sheet)).toBe(true)
      expect(endAt(sheet, { component: 'F', port: 'A' })!.at).toEqual(rotation ? [20, 6] : [16, 10])
      // its shape is kept where that can be
      const inlet = sheet.pipes.find((p) => p.id === 'in')!
      expect(inlet.route).toEqual(
        rotation
          ? [
              [4, 2],
              [20, 2],
            ]
          : [[4, 10]],
      )
    },
  )
  it('are left alone in a file of this version', () => {
    const now = read({ ...older(6), pipes: [] })
    expect(now.pipes).toEqual([])
    const kept = read(older(6))
    expect(kept.pipes.map((p) => p.route)).toEqual(older(6).pipes.map((p) => p.route))
  })
})
