/** The control as strokes and letters: paths first, then each step sequence below them. */
import type { Shape } from '../catalogue/symbol'
import { drawControl } from '../control/drawing'
import { drawSequence } from '../control/sequence-drawing'
import type { Rect, XY } from '../sheet/geometry'
import type { Sheet } from '../sheet/schema'
import { annotationBox } from '../sheet/annotations'
import { around, THIN, type DrawnShape, type Letters, type Plot, type Stroke } from './plot'

/** Modules between the parts of the drawing. */
const GAP = 6
const RAIL = 0.24

export function plotControl(sheet: Sheet): Plot {
  const strokes: Stroke[] = []
  let down = 0
  const put = (shape: Shape): DrawnShape[] => {
    const move = ([x, y]: readonly [number, number]): XY => [x, y + down]
    switch (shape.shape) {
      case 'line':
      case 'polygon':
        return [{ ...shape, points: shape.points.map(move) }]
      case 'circle':
      case 'arc':
        return [{ ...shape, at: move(shape.at) }]
      case 'text':
        return [
          {
            shape: 'letters',
            at: move(shape.at),
            text: shape.text,
            size: shape.size,
            anchor: 'middle',
            on: 'middle',
          },
        ]
      case 'oil':
        return []
    }
  }
  const draw = (shapes: readonly Shape[]) => {
    for (const ink of shapes.flatMap(put))
      strokes.push({ layer: ink.shape === 'letters' ? 'lettering' : 'symbols', width: THIN, ink })
  }
  const line = (points: readonly (readonly [number, number])[], width = THIN) =>
    strokes.push({
      layer: 'working',
      width,
      ink: { shape: 'line', points: points.map(([x, y]): XY => [x, y + down]) },
    })
  const write = (at: readonly [number, number], text: string, size: number, anchor: Letters['anchor']) =>
    strokes.push({
      layer: 'lettering',
      width: THIN,
      ink: { shape: 'letters', at: [at[0], at[1] + down], text, size, anchor, on: 'baseline' },
    })

  if (sheet.control.rungs.length) {
    const drawing = drawControl(sheet)
    for (const rail of drawing.rails) line(rail.points, RAIL)
    for (const wire of drawing.wires) line(wire.points)
    draw(drawing.dots.map((at) => ({ shape: 'circle', at, r: 0.28, fill: 'ink' })))
    for (const { shapes, labelAt, name, anchor } of [...drawing.contacts, ...drawing.coils]) {
      draw(shapes)
      write(labelAt, name, 1.5, anchor)
    }
    for (const { at, open, closed } of drawing.tables) {
      open.forEach((place, i) => write([at[0] - 1.6, at[1] + 1.6 * i], String(place), 1.2, 'middle'))
      closed.forEach((place, i) => write([at[0] + 1.6, at[1] + 1.6 * i], `/${place}`, 1.2, 'middle'))
    }
    for (const { at, text, size, anchor } of drawing.texts) write(at, text, size, anchor)
    down += drawing.bounds.y + drawing.bounds.h + GAP
  }
  for (const sequence of sheet.control.sequences) {
    const drawing = drawSequence(sheet, sequence)
    write([-2, -4], sequence.name || sequence.id, 1.5, 'start')
    draw(drawing.links)
    for (const { shapes, lines } of drawing.steps) {
      draw(shapes)
      for (const { at, text } of lines) write(at, text, 1.4, 'start')
    }
    for (const { shapes, textAt, text } of drawing.transitions) {
      draw(shapes)
      write(textAt, text, 1.4, 'start')
    }
    down += drawing.bounds.y + drawing.bounds.h + GAP
  }
  const boxes = strokes.flatMap(({ ink }): Rect[] => {
    if (ink.shape === 'letters') return [annotationBox({ ...ink, x: ink.at[0], y: ink.at[1] })]
    if (ink.shape === 'line' || ink.shape === 'polygon')
      return [around(ink.points.map(([x, y]) => ({ x, y, w: 0, h: 0 })))]
    return [{ x: ink.at[0] - ink.r, y: ink.at[1] - ink.r, w: 2 * ink.r, h: 2 * ink.r }]
  })
  const all = boxes.length ? boxes : [{ x: 0, y: 0, w: 10, h: 10 }]
  return { title: sheet.title, blocks: new Map(), symbols: [], strokes, boxes: all, bounds: around(all) }
}
