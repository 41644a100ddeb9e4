/**
 * The inside of a part as a section that moves: chambers filled with their pressures, what moves by the states of the model, springs between.
 * A drawing is data of its kind; `drawSection` puts the values of an instant into it. Coordinates in units of the drawing, y down.
 */
import type { Local, Show } from './kind'

type XY = readonly [x: number, y: number]

export interface SectionShape {
  readonly points: readonly XY[]
  /** metal: body of the part, hatched; part: what moves; line: an outline only. */
  readonly fill: 'metal' | 'part' | 'line'
}
export interface SectionOil {
  readonly points: readonly XY[] | ((l: Local) => readonly XY[])
  /** Pa */
  pressure(l: Local): number
  /** Index of the moving part with which it goes. */
  readonly goesWith?: number
}
export interface SectionPart {
  readonly shapes: readonly SectionShape[]
  /** Where it is: shifted, or turned about a point, radians. @param t s */
  place(
    l: Local,
    t: number,
  ): { readonly dx?: number; readonly dy?: number; readonly angle?: number; readonly about?: XY }
}
export interface SectionSpring {
  readonly fixed: XY
  /** End that goes with a moving part, where that part is unmoved. */
  readonly moving: XY
  readonly part: number
}
export interface SectionLabel {
  readonly at: XY
  readonly anchor: 'start' | 'middle' | 'end'
  readonly text: string | ((l: Local, show: Show) => string)
}
export interface SectionDrawing {
  readonly width: number
  readonly height: number
  /** What it is drawn from, where the model knows less than the drawing could show. */
  readonly note?: string
  readonly body: readonly SectionShape[]
  readonly oil: readonly SectionOil[]
  readonly parts: readonly SectionPart[]
  readonly springs: readonly SectionSpring[]
  readonly labels: readonly SectionLabel[]
}

/** A section at an instant: all places and pressures are numbers. */
export interface DrawnSection {
  readonly width: number
  readonly height: number
  readonly note?: string
  readonly body: readonly SectionShape[]
  readonly oil: readonly { readonly points: readonly XY[]; readonly pressure: number }[]
  readonly parts: readonly SectionShape[]
  readonly springs: readonly (readonly XY[])[]
  readonly labels: readonly {
    readonly at: XY
    readonly anchor: SectionLabel['anchor']
    readonly text: string
  }[]
}

/** Turns of a spring, and its half width. */
const [TURNS, HALF_WIDTH] = [7, 1.6]

/** @param l values of the part at the instant @param t s */
export function drawSection(section: SectionDrawing, l: Local, t: number, show: Show): DrawnSection {
  const places = section.parts.map((part) => part.place(l, t))
  const put = (points: readonly XY[], index: number | undefined): XY[] => {
    const { dx = 0, dy = 0, angle = 0, about = [0, 0] } = index === undefined ? {} : places[index]
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
    const [cx, cy] = about
    return points.map(([x, y]): XY => [
      cx + cos * (x - cx) - sin * (y - cy) + dx,
      cy + sin * (x - cx) + cos * (y - cy) + dy,
    ])
  }
  const { width, height, note, body } = section
  return {
    width,
    height,
    ...(note === undefined ? {} : { note }),
    body,
    oil: section.oil.map(({ points, pressure, goesWith }) => ({
      points: put(typeof points === 'function' ? points(l) : points, goesWith),
      pressure: pressure(l),
    })),
    parts: section.parts.flatMap(({ shapes }, i) =>
      shapes.map(({ points, fill }) => ({ fill, points: put(points, i) })),
    ),
    springs: section.springs.map(({ fixed, moving, part }) => coil(fixed, put([moving], part)[0])),
    labels: section.labels.map(({ at, anchor, text }) => ({
      at,
      anchor,
      text: typeof text === 'function' ? text(l, show) : text,
    })),
  }
}

/** A zigzag from one end to the other. */
function coil([x0, y0]: XY, [x1, y1]: XY): XY[] {
  const length = Math.hypot(x1 - x0, y1 - y0) || 1
  const [ux, uy] = [(x1 - x0) / length, (y1 - y0) / length]
  const points: XY[] = [[x0, y0]]
  for (let i = 0; i < TURNS; i++) {
    const along = (length * (i + 0.5)) / TURNS
    const side = i % 2 ? HALF_WIDTH : -HALF_WIDTH
    points.push([x0 + ux * along - uy * side, y0 + uy * along + ux * side])
  }
  points.push([x1, y1])
  return points
}
