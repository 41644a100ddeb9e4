/** The stroke–step diagram of a run as strokes and letters, as pages and as rows. */
import type { Show } from '../catalogue/kind'
import type { StrokeRow, StrokeSteps } from '../explain/stroke-steps'
import { instantText, withoutNoise } from '../explain/words'
import type { XY } from '../sheet/geometry'
import { fromSI, shownUnit } from '../units/quantities'
import type { Rows } from './csv'
import type { PdfFile } from './faces'
import type { LetteringFont } from './lettering-fonts'
import { PageWriter, textDocument } from './pdf-pages'
import { around, THIN, type Letters, type Plot, type Stroke } from './plot'
import type { WalkthroughHeading } from './walkthrough-text'

/** In modules: room for names, width of the time axis, height of a row, space between rows, size of letters. */
const [LEFT, WIDTH, ROW, GAP, SIZE] = [14, 64, 8, 3, 1.2]
/** Steps and signals that lie nearer share one label, modules. */
const [NEXT_STEP, NEXT_LETTER] = [2, 0.7]
const SIMULATED = { colour: '#0f5c66', width: 0.25 }
/** Height of the diagram on a page, points. */
const PAGE_HEIGHT = 420

export function plotStrokes(title: string, steps: StrokeSteps, show: Show): Plot {
  const read = withoutNoise(show)
  const strokes: Stroke[] = []
  const xAt = (t: number) => LEFT + (WIDTH * t) / (steps.duration || 1)
  const height = steps.rows.length * (ROW + GAP)
  const line = (points: readonly XY[], dash?: 'pilot' | 'drain', look: Partial<Stroke> = {}) =>
    strokes.push({
      layer: 'working',
      width: THIN,
      ...look,
      ink: { shape: 'line', points, ...(dash ? { dash } : {}) },
    })
  const write = (at: XY, text: string, anchor: Letters['anchor']) =>
    strokes.push({
      layer: 'lettering',
      width: THIN,
      ink: { shape: 'letters', at, text, size: SIZE, anchor, on: 'baseline' },
    })

  let last = -Infinity
  steps.steps.forEach((t, i) => {
    const x = xAt(t)
    line([
      [x, -0.6],
      [x, height - GAP],
    ])
    if (x - last < NEXT_STEP) return
    write([x, -1], String(i + 1), 'middle')
    last = x
  })
  steps.rows.forEach((row, i) => {
    const top = i * (ROW + GAP)
    const [least, most] = row.range
    const points = (list: StrokeRow['simulated']) =>
      list.map(([t, place]): XY => [xAt(t), top + ROW - (ROW * (place - least)) / (most - least || 1)])
    line([
      [LEFT, top],
      [LEFT + WIDTH, top],
      [LEFT + WIDTH, top + ROW],
      [LEFT, top + ROW],
      [LEFT, top],
    ])
    write([0, top + ROW / 2 + SIZE / 2], row.name, 'start')
    write([LEFT - 0.5, top + SIZE], read(most, row.quantity), 'end')
    write([LEFT - 0.5, top + ROW], read(least, row.quantity), 'end')
    if (row.intended.length) line(points(row.intended), 'pilot')
    line(points(row.simulated), undefined, SIMULATED)
  })
  last = -Infinity
  for (const { at, name } of steps.signals) {
    const x = xAt(at)
    line(
      [
        [x, 0],
        [x, height],
      ],
      'drain',
    )
    if (x - last < NEXT_LETTER * name.length) continue
    write([x, height + SIZE], name, 'middle')
    last = x + (NEXT_LETTER * name.length) / 2
  }
  write([LEFT, height + 3 * SIZE], '0 s', 'start')
  write([LEFT + WIDTH, height + 3 * SIZE], show(steps.duration, 'time', 3), 'end')
  write([LEFT + WIDTH / 2, height + 3 * SIZE], 'thick: simulated; dashed: intended by the brief', 'middle')
  const bounds = around([{ x: 0, y: -2.5, w: LEFT + WIDTH + 2, h: height + 3 * SIZE + 3 }])
  return { title, blocks: new Map(), symbols: [], strokes, boxes: [bounds], bounds }
}

/** The diagram with what differs. @param fonts those that its letters may need */
export async function strokesToPdf(
  steps: StrokeSteps,
  { title, line }: WalkthroughHeading,
  fonts: readonly LetteringFont[],
  show: Show,
): Promise<PdfFile> {
  const { document, faces } = await textDocument(title, fonts, JSON.stringify([title, line, steps]))
  const writer = new PageWriter(document, faces)
  writer.text(title, 18)
  writer.text(line)
  writer.drawing(plotStrokes(title, steps, show), PAGE_HEIGHT)
  if (steps.rows.some(({ intended }) => intended.length)) {
    writer.heading('What differs')
    if (steps.differences.length)
      writer.table(
        [0.15, 0.85],
        steps.differences.map(({ at, text }) => [instantText(at, show), text]),
      )
    else writer.text('Order, overlap and times are as the brief intends them.')
  }
  if (steps.signals.length) {
    writer.heading('Signals')
    writer.table(
      [0.15, 0.85],
      steps.signals.map(({ at, name }) => [instantText(at, show), name]),
    )
  }
  writer.numberPages()
  return { bytes: await document.save(), missing: [...faces.missing] }
}

/** Places over time, as intended and as simulated, with signals and what differs. */
export function strokeRows({ rows, signals, differences }: StrokeSteps): Rows {
  const names = new Map(rows.map(({ component, name }) => [component, name]))
  const places = (what: string, { name, quantity }: StrokeRow, points: StrokeRow['simulated']) => {
    const unit = shownUnit(quantity, 'metric')
    return points.map(([t, place]) => [
      what,
      name,
      Number(t.toPrecision(6)),
      Number(fromSI(place, unit).toPrecision(6)),
      unit.symbol,
      '',
    ])
  }
  return [
    ['What', 'Part', 'Time s', 'Place', 'Unit', 'Words'],
    ...rows.flatMap((row) => [
      ...places('intended', row, row.intended),
      ...places('simulated', row, row.simulated),
    ]),
    ...signals.map(({ at, name }) => ['signal', name, Number(at.toPrecision(6)), '', '', '']),
    ...differences.map(({ at, part, text }) => [
      'differs',
      names.get(part) ?? part,
      Number(at.toPrecision(6)),
      '',
      '',
      text,
    ]),
  ]
}
