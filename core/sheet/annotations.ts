/** What a sheet has written and drawn beside its symbols by choice: port and coil letters, rotation, pipe sizes, fluid. */
import { findKind } from '../catalogue'
import type { Show } from '../catalogue/kind'
import type { Arc, Polygon } from '../catalogue/symbol'
import { rotationArrow } from '../catalogue/symbol-elements'
import { textWidth } from '../catalogue/text-width'
import type { Quantity } from '../units/quantities'
import { parseQuantity } from '../units/text'
import { extent, longestPart, placedPorts, polyline, symbolOf, transformPoint, type Rect } from './geometry'
import { hoseOf } from './hose'
import { lineDomain } from './netlist'
import type { Sheet, SheetComponent } from './schema'

/** Height of port and coil letters, modules. */
export const SMALL_LETTERS = 0.9
/** Height of the lettering, modules. */
export const LETTERING = 1.2

export interface Annotation {
  readonly key: string
  /** Component or pipe that it belongs to; none for what belongs to the sheet. */
  readonly of?: string
  readonly text: string
  /** Start, middle or end of the baseline. */
  readonly x: number
  readonly y: number
  readonly size: number
  readonly anchor: 'start' | 'middle' | 'end'
}

/** A written value in the units in force; as it is written where it does not read. */
function shown(show: Show, written: string, quantity: Quantity): string {
  const read = parseQuantity(written, quantity)
  return read.ok ? show(read.si, quantity) : written
}

/** The rectangle that it covers. */
export function annotationBox({ text, x, y, size, anchor }: Omit<Annotation, 'key'>): Rect {
  const w = textWidth(text, size)
  return {
    x: x - (anchor === 'start' ? 0 : anchor === 'middle' ? w / 2 : w),
    y: y - 0.75 * size,
    w,
    h: size,
  }
}

function portLetters(component: SheetComponent): Annotation[] {
  const kind = findKind(component.kind)
  const oil = new Set(kind?.ports.filter((p) => p.domain === 'oil').map((p) => p.name))
  // a single port, and the lines of a tank, need no letter
  if (!kind || oil.size < 2 || kind.traits?.tankPorts) return []
  return placedPorts(component)
    .filter(({ port }) => oil.has(port))
    .map(({ port, at: [x, y], side }) => ({
      key: `port:${component.id}.${port}`,
      of: component.id,
      text: port,
      size: SMALL_LETTERS,
      ...{
        // outside the symbol, beside the line that begins there
        up: { x: x + 0.3, y: y - 0.25, anchor: 'start' as const },
        down: { x: x + 0.3, y: y + 0.25 + 0.7 * SMALL_LETTERS, anchor: 'start' as const },
        left: { x: x - 0.2, y: y - 0.25, anchor: 'end' as const },
        right: { x: x + 0.2, y: y - 0.25, anchor: 'start' as const },
      }[side],
    }))
}

const coilLetters = (component: SheetComponent): Annotation[] =>
  Object.entries(symbolOf(component)?.coils ?? {}).map(([coil, { x, y }]) => {
    const at = transformPoint([x, y], component)
    return {
      key: `coil:${component.id}.${coil}`,
      of: component.id,
      text: coil,
      x: at[0],
      y: at[1] + 0.35 * SMALL_LETTERS,
      size: SMALL_LETTERS,
      anchor: 'middle',
    }
  })

/** Arrows of the positive direction of rotation round the shafts of machines. */
export function rotationArrows(sheet: Sheet): { of: string; shapes: readonly (Arc | Polygon)[] }[] {
  if (!sheet.annotations.rotation) return []
  return sheet.components.flatMap((component) => {
    const kind = findKind(component.kind)
    if (!kind?.ports.some((p) => p.domain === 'oil')) return []
    const shafts = new Set(kind.ports.filter((p) => p.domain === 'shaft').map((p) => p.name))
    return placedPorts(component)
      .filter(({ port }) => shafts.has(port))
      .map(({ at: [x, y], side }) => {
        const [from, to] = { left: [120, 240], right: [120, 240], up: [210, 330], down: [210, 330] }[side]
        const [dx, dy] = { left: [0.6, 0], right: [-0.6, 0], up: [0, 0.6], down: [0, -0.6] }[side]
        return { of: component.id, shapes: rotationArrow(x + dx, y + dy, 1, from, to) as (Arc | Polygon)[] }
      })
  })
}

/** The pipe of each run of pipes with one bore that shows it: that with the longest straight part. */
function sizedPipes(sheet: Sheet): ReadonlySet<string> {
  if (!sheet.annotations.pipes) return new Set()
  const oil = sheet.pipes.filter((p) => lineDomain(p.lineType) === 'oil')
  const group = new Map(oil.map((p) => [p.id, p.id]))
  const rootOf = (id: string): string => {
    const next = group.get(id)!
    return next === id ? id : rootOf(next)
  }
  const first = new Map<string, string>()
  for (const pipe of oil)
    for (const end of [pipe.from, pipe.to]) {
      if (!('junction' in end)) continue
      const key = `${end.junction} ${pipe.bore} ${pipe.lineType}`
      const other = first.get(key)
      if (other) group.set(rootOf(pipe.id), rootOf(other))
      else first.set(key, pipe.id)
    }
  const longest = new Map<string, { id: string; length: number }>()
  for (const pipe of oil) {
    const { id } = pipe
    const part = longestPart(polyline(sheet, pipe))
    const length = part ? Math.hypot(part.b[0] - part.a[0], part.b[1] - part.a[1]) : 0
    const root = rootOf(id)
    if (length > (longest.get(root)?.length ?? -1)) longest.set(root, { id, length })
  }
  return new Set([...longest.values()].map(({ id }) => id))
}

/** Shares of a straight part at which a text may stand. */
const SHARES = [0.5, 0.3, 0.7, 0.15, 0.85]

/**
 * Names and sizes of lines: each over or beside the longest straight part of its pipe, or where else it is free.
 * @param names whether names are written @param covered how much of a rectangle is taken
 */
export function lineTexts(
  sheet: Sheet,
  show: Show,
  names: boolean,
  covered: (rect: Rect) => number = () => 0,
  take: (rect: Rect) => void = () => undefined,
): Annotation[] {
  const sized = sizedPipes(sheet)
  return sheet.pipes.flatMap((pipe) => {
    const size = sized.has(pipe.id) ? `⌀ ${shown(show, pipe.bore, 'length')}` : ''
    const text = [names ? (pipe.name ?? '') : '', size].filter(Boolean).join(', ')
    if (!text) return []
    const points = polyline(sheet, pipe)
    const parts = points
      .slice(1)
      .map((b, i) => ({ a: points[i], b, length: Math.hypot(b[0] - points[i][0], b[1] - points[i][1]) }))
      .filter(({ length }) => length > 0)
      .sort((p, q) => q.length - p.length)
    const hose = pipe.lineType === 'hose' ? hoseOf(points) : undefined
    const places = parts.flatMap(({ a, b }) =>
      SHARES.flatMap((share): Pick<Annotation, 'x' | 'y' | 'anchor'>[] => {
        const [x, y] = [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]
        if (a[1] === b[1])
          return [
            { x, y: y - 0.4, anchor: 'middle' },
            { x, y: y + 0.4 + 0.75 * LETTERING, anchor: 'middle' },
          ]
        // a hose hangs out to the right there
        const right = hose ? hose.lowest[0] : x
        return [
          { x: right + 0.5, y: y + 0.35 * LETTERING, anchor: 'start' },
          { x: x - 0.5, y: y + 0.35 * LETTERING, anchor: 'end' },
        ]
      }),
    )
    let best: { place: (typeof places)[number]; cost: number } | undefined
    for (const place of places) {
      const cost = covered(annotationBox({ ...place, text, size: LETTERING }))
      if (!best || cost < best.cost) best = { place, cost }
      if (cost === 0) break
    }
    if (!best) return []
    take(annotationBox({ ...best.place, text, size: LETTERING }))
    return [{ key: `line:${pipe.id}`, of: pipe.id, text, size: LETTERING, ...best.place }]
  })
}

/** Letters at ports and coils. */
export const smallLetters = (sheet: Sheet): Annotation[] =>
  sheet.components.flatMap((component) => [
    ...(sheet.annotations.ports ? portLetters(component) : []),
    ...(sheet.annotations.coils ? coilLetters(component) : []),
  ])

/** Fluid and tank, under the drawing. */
export function fluidText(sheet: Sheet, show: Show): Annotation[] {
  if (!sheet.annotations.fluid || !sheet.components.length) return []
  const { x, y, h } = extent(sheet)
  const lines = [
    `Fluid: ${sheet.fluid.name}`,
    `Viscosity at 40 °C: ${shown(show, sheet.fluid.viscosity40, 'viscosity')}. Oil in the tank: ${shown(show, sheet.tank.oil, 'volume')}`,
  ]
  return lines.map((text, i) => ({
    key: `fluid:${i}`,
    text,
    x,
    y: y + h + 3 + i * 1.6,
    size: LETTERING,
    anchor: 'start',
  }))
}
