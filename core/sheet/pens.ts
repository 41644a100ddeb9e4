/** Strokes of pens on the sheet: the way of the oil in a state, as somebody would draw it along the lines with a coloured pen. */
import { findKind } from '../catalogue'
import { polyline, type XY } from './geometry'
import { nameOf, type Pen, type PenColour, type Sheet } from './schema'

/** Inks, dark enough on white and light enough on black. */
export const PEN_INKS: Readonly<Record<PenColour, string>> = {
  red: '#c8372d',
  blue: '#2f6fc4',
  green: '#3c8f4a',
  orange: '#d07a1c',
  violet: '#8a4fb5',
  brown: '#8b5e3c',
}

/** Widths of a stroke that takes none and all of the oil, and distance of pens that lie side by side, modules. */
const [NARROW, WIDE] = [0.25, 0.55]
const BESIDE = 0.5
/** Size of the number on a stroke and of a row of the legend, modules. */
export const BADGE = 0.9
export const LEGEND_ROW = 2.4

export interface PenStrokes {
  readonly pen: Pen
  /** As it is numbered on the sheet and in the legend. */
  readonly number: number
  readonly ink: string
  readonly lines: readonly { readonly pipe: string; readonly points: readonly XY[]; readonly width: number }[]
  /** Where its number stands. */
  readonly badge?: XY
  /** Chambers of actuators that it touches: "1-1A1 A". */
  readonly chambers: readonly string[]
}

/** The pens that are shown, side by side. */
export function penStrokes(sheet: Sheet): PenStrokes[] {
  const pipes = new Map(sheet.pipes.map((pipe) => [pipe.id, pipe]))
  const shown = sheet.pens.map((pen, i) => ({ pen, number: i + 1 })).filter(({ pen }) => pen.shown)
  return shown.map(({ pen, number }, k): PenStrokes => {
    const aside = (k - (shown.length - 1) / 2) * BESIDE
    const lines = pen.pipes.flatMap(({ pipe, share }) => {
      const drawn = pipes.get(pipe)
      const points = drawn ? polyline(sheet, drawn) : []
      if (points.length < 2) return []
      const moved = points.map(([x, y]): XY => [x + aside, y + aside])
      return [{ pipe, points: moved, width: NARROW + share * (WIDE - NARROW) }]
    })
    const badge = alongLongest(
      lines.map((l) => l.points),
      (k + 1) / (shown.length + 1),
    )
    return {
      pen,
      number,
      ink: PEN_INKS[pen.colour],
      lines,
      ...(badge ? { badge } : {}),
      chambers: chambersOf(sheet, pen),
    }
  })
}

/** A place on the longest straight part; numbers of pens on one line stand apart. */
function alongLongest(lines: readonly (readonly XY[])[], share: number): XY | undefined {
  let best: { at: XY; length: number } | undefined
  for (const points of lines)
    for (let i = 0; i + 1 < points.length; i++) {
      const [[ax, ay], [bx, by]] = [points[i], points[i + 1]]
      const length = Math.hypot(bx - ax, by - ay)
      if (length > (best?.length ?? 0))
        best = { at: [ax + share * (bx - ax), ay + share * (by - ay)], length }
    }
  return best?.at
}

function chambersOf(sheet: Sheet, pen: Pen): string[] {
  const own = new Set(pen.pipes.map(({ pipe }) => pipe))
  const found = new Set<string>()
  for (const pipe of sheet.pipes) {
    if (!own.has(pipe.id)) continue
    for (const end of [pipe.from, pipe.to]) {
      if (!('component' in end)) continue
      const component = sheet.components.find((c) => c.id === end.component)
      if (component && findKind(component.kind)?.traits?.movement)
        found.add(`${nameOf(component)} ${end.port}`)
    }
  }
  return [...found].sort()
}

/** A row of the legend: number, what the oil does, the chambers that it goes to and comes from. */
export const legendText = ({ number, pen, chambers }: PenStrokes): string =>
  `${number}  ${pen.name}${chambers.length ? ` (${chambers.join(', ')})` : ''}`

/** Adds a pen in the first colour that no other one has. @param shares of the oil by pipe, 0 to 1 */
export function addPen(sheet: Sheet, name: string, shares: ReadonlyMap<string, number>): Sheet {
  const used = new Set(sheet.pens.map((p) => p.colour))
  const colours = Object.keys(PEN_INKS) as PenColour[]
  const colour = colours.find((c) => !used.has(c)) ?? colours[sheet.pens.length % colours.length]
  const ids = new Set(sheet.pens.map((p) => p.id))
  let n = sheet.pens.length + 1
  while (ids.has(`pen${n}`)) n++
  const pipes = [...shares].map(([pipe, share]) => ({ pipe, share: Math.min(1, Math.max(0, share)) }))
  return { ...sheet, pens: [...sheet.pens, { id: `pen${n}`, name, colour, pipes, shown: true }] }
}
export const changePen = (sheet: Sheet, id: string, change: Partial<Omit<Pen, 'id'>>): Sheet => ({
  ...sheet,
  pens: sheet.pens.map((p) => (p.id === id ? { ...p, ...change } : p)),
})
export const removePen = (sheet: Sheet, id: string): Sheet => ({
  ...sheet,
  pens: sheet.pens.filter((p) => p.id !== id),
})
