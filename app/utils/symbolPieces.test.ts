import { describe, expect, it } from 'vitest'
import { arrow, circle, dashed, line, partOf, polygon, rectangle } from '@oar-bench/core/catalogue/symbol'
import { symbolPieces } from './symbolPieces'

const drawing = (...shapes: Parameters<typeof symbolPieces>[0]['shapes'][number][]) => ({
  shapes,
  ports: {},
  box: { x: 0, y: 0, w: 1, h: 1 },
})

describe('symbolPieces', () => {
  it('joins neighbouring outlines of one look', () => {
    const pieces = symbolPieces(
      drawing(line([0, 0], [1, 0]), circle(2, 0, 0.5, 'none'), line([3, 0], [4, 0])),
    )
    expect(pieces).toHaveLength(1)
    expect(pieces[0]).toMatchObject({ as: 'path', classes: '' })
    expect((pieces[0] as { d: string }).d.match(/M/g)).toHaveLength(3)
  })
  it('keeps apart what is dashed, what moves, and what hides something', () => {
    expect(symbolPieces(drawing(line([0, 0], [1, 0]), dashed([1, 0], [2, 0])))).toHaveLength(2)
    expect(
      symbolPieces(drawing(line([0, 0], [1, 0]), ...partOf('rod', [line([1, 0], [2, 0])]))),
    ).toHaveLength(2)
    expect(
      symbolPieces(drawing(rectangle(0, 0, 2, 2, 'paper'), rectangle(1, 1, 2, 2, 'paper'))),
    ).toHaveLength(2)
  })
  it('fills an arrow head and closes it', () => {
    const [shaft, head] = symbolPieces(drawing(...arrow([0, 0], [4, 0]))) as { d: string; classes: string }[]
    expect(shaft.classes).toBe('')
    expect(head.classes).toBe('fill-shape-ink')
    expect(head.d.endsWith('Z')).toBe(true)
    expect(symbolPieces(drawing(polygon('ink', [0, 0], [1, 0], [0, 1])))).toHaveLength(1)
  })
})
