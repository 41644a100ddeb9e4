import { describe, expect, it } from 'vitest'
import type { XY } from './geometry'
import { hoseOf } from './hose'

const on = (at: readonly [number, number], r: number, degrees: number) => [
  at[0] + r * Math.cos((degrees * Math.PI) / 180),
  at[1] + r * Math.sin((degrees * Math.PI) / 180),
]

describe('a hose', () => {
  it.each<[string, XY[], XY]>([
    [
      'hangs down, laid to the right',
      [
        [0, 0],
        [10, 0],
      ],
      [0, 1],
    ],
    [
      'hangs down, laid to the left',
      [
        [10, 0],
        [0, 0],
      ],
      [0, 1],
    ],
    [
      'hangs out to the right, laid downwards',
      [
        [0, 0],
        [0, 10],
      ],
      [1, 0],
    ],
    [
      'hangs out to the right, laid upwards',
      [
        [0, 10],
        [0, 0],
      ],
      [1, 0],
    ],
  ])('%s', (_, points, [dx, dy]) => {
    const { lowest } = hoseOf(points)!
    const middle = [(points[0][0] + points[1][0]) / 2, (points[0][1] + points[1][1]) / 2]
    // a third of a circle over a chord of 3: it sags by r/2 with r = 3/√3
    const sag = Math.sqrt(3) / 2
    expect(lowest[0]).toBeCloseTo(middle[0] + dx * sag, 9)
    expect(lowest[1]).toBeCloseTo(middle[1] + dy * sag, 9)
  })
  it('is one line from end to end, bent where the pipe is', () => {
    const points: XY[] = [
      [0, 0],
      [2, 0],
      [2, 9],
      [5, 9],
    ]
    const [first, arc, last] = hoseOf(points)!.shapes
    if (first.shape !== 'line' || arc.shape !== 'arc' || last.shape !== 'line') throw new Error('not a hose')
    expect(first.points.slice(0, 2)).toEqual(points.slice(0, 2))
    expect(last.points.slice(-2)).toEqual(points.slice(2))
    const ends = [on(arc.at, arc.r, arc.from), on(arc.at, arc.r, arc.to)]
    for (const at of [first.points[first.points.length - 1], last.points[0]])
      expect(ends.some(([x, y]) => Math.hypot(x - at[0], y - at[1]) < 1e-9)).toBe(true)
  })
  it('sags less where it is short, and not at all without a length', () => {
    const short: XY[] = [
      [0, 0],
      [1, 0],
    ]
    expect(hoseOf(short)!.lowest[1]).toBeCloseTo(0.2 * (Math.sqrt(3) / 2), 9)
    expect(
      hoseOf([
        [4, 4],
        [4, 4],
      ]),
    ).toBeUndefined()
  })
})
