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
        up: { x: x + 0.3, y: y + 0.95, anchor: 'start' as const },
        down: { x: x + 0.3, y: y - 0.3, anchor: 'start' as const },
        left: { x: x + 0.15, y: y - 0.25, anchor: 'start' as const },
        right: { x: x - 0.15, y: y - 0.25, anchor: 'end' as const },
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

/** Names and sizes of lines, each over or beside the longest straight part of its pipe. @param names whether names are written */
export function lineTexts(sheet: Sheet, names: boolean): Annotation[] {
  return sheet.pipes.flatMap((pipe) => {
    const size = sheet.annotations.pipes && lineDomain(pipe.lineType) === 'oil' ? `⌀ ${pipe.bore}` : ''
    const text = [names ? (pipe.name ?? '') : '', size].filter(Boolean).join(', ')
    const points = polyline(sheet, pipe)
    const best = text ? longestPart(points) : undefined
    if (!best) return []
    const [[ax, ay], [bx, by]] = [best.a, best.b]
    const [x, y] = [(ax + bx) / 2, (ay + by) / 2]
    // a hose hangs out to the right there
    const right = pipe.lineType === 'hose' ? hoseOf(points)!.lowest[0] : x
    return [
      {
        key: `line:${pipe.id}`,
        of: pipe.id,
        text,
        size: LETTERING,
        ...(ay === by
          ? { x, y: y - 0.4, anchor: 'middle' as const }
          : { x: right + 0.5, y: y + 0.35 * LETTERING, anchor: 'start' as const }),
      },
    ]
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
  const shown = (written: string, quantity: Quantity) => {
    const read = parseQuantity(written, quantity)
    return read.ok ? show(read.si, quantity) : written
  }
  const lines = [
    `Fluid: ${sheet.fluid.name}`,
    `Viscosity at 40 °C: ${shown(sheet.fluid.viscosity40, 'viscosity')}. Oil in the tank: ${shown(sheet.tank.oil, 'volume')}`,
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
