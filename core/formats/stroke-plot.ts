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
import { THIN, type Letters, type Plot, type Stroke } from './plot'
import { strokeLayout } from './stroke-layout'
import type { WalkthroughHeading } from './walkthrough-text'

/** In modules: room for names, width of the time axis, height of a row, space between rows, size of letters. */
const [LEFT, WIDTH, ROW, GAP, SIZE] = [14, 64, 8, 3, 1.2]
/** Width of a letter, and least distance of two step numbers, modules. */
const [LETTER, APART] = [0.7, 2]
const SIMULATED = { colour: '#0f5c66', width: 0.25 }
/** Height of the diagram on a page, points. */
const PAGE_HEIGHT = 420

export function plotStrokes(title: string, steps: StrokeSteps, show: Show): Plot {
  const read = withoutNoise(show)
  const layout = strokeLayout(steps, {
    left: LEFT,
    width: WIDTH,
    top: 0,
    row: ROW,
    pitch: ROW + GAP,
    letter: LETTER,
    apart: APART,
  })
  const strokes: Stroke[] = []
  const height = steps.rows.length * (ROW + GAP)
  const line = (points: readonly XY[], dash?: 'pilot' | 'drain', look: Partial<Stroke> = {}) =>
    strokes.push({
      layer: 'working',
      width: THIN,
      ...look,
      ink: { shape: 'line', points, ...(dash ? { dash } : {}) },
    })
  const upright = (x: number, from: number, to: number, dash?: 'drain') =>
    line(
      [
        [x, from],
        [x, to],
      ],
      dash,
    )
  const write = (at: XY, text: string, anchor: Letters['anchor']) =>
    strokes.push({
      layer: 'lettering',
      width: THIN,
      ink: { shape: 'letters', at, text, size: SIZE, anchor, on: 'baseline' },
    })

  for (const { x, text } of layout.steps) {
    upright(x, -0.6, height - GAP)
    if (text) write([x, -1], text, 'middle')
  }
  for (const { row, top, simulated, intended } of layout.rows) {
    const [least, most] = row.range
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
    if (intended.length) line(intended, 'pilot')
    line(simulated, undefined, SIMULATED)
  }
  for (const { x, text } of layout.signals) {
    upright(x, 0, height, 'drain')
    if (text) write([x, height + SIZE], text, 'middle')
  }
  write([LEFT, height + 3 * SIZE], '0 s', 'start')
  write([LEFT + WIDTH, height + 3 * SIZE], show(steps.duration, 'time', 3), 'end')
  write([LEFT + WIDTH / 2, height + 3 * SIZE], 'thick: simulated; dashed: intended by the brief', 'middle')
  const bounds = { x: 0, y: -2.5, w: LEFT + WIDTH + 2, h: height + 3 * SIZE + 3 }
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
