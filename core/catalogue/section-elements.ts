/** Sections that several kinds share: a poppet on its seat, a spool in its bore, wheels, a swash plate, vanes. */
import type { Local, Show } from './kind'
import type {
  SectionDrawing,
  SectionLabel,
  SectionOil,
  SectionPart,
  SectionShape,
  SectionSpring,
} from './section'

type XY = readonly [x: number, y: number]
type Read = (l: Local) => number

const box = (x: number, y: number, w: number, h: number): XY[] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
]
const metal = (points: readonly XY[]): SectionShape => ({ points, fill: 'metal' })
const part = (points: readonly XY[]): SectionShape => ({ points, fill: 'part' })
const ring = (x: number, y: number, r: number, from = 0, to = 2 * Math.PI, steps = 24): XY[] =>
  Array.from({ length: steps + 1 }, (_, i): XY => {
    const a = from + ((to - from) * i) / steps
    return [x + r * Math.cos(a), y + r * Math.sin(a)]
  })
const named = (at: XY, name: string, read: Read, anchor: SectionLabel['anchor']): SectionLabel => ({
  at,
  anchor,
  text: (l: Local, show: Show) => `${name} ${show(read(l), 'pressure', 3)}`,
})
const percent =
  (name: string, read: Read) =>
  (l: Local): string =>
    `${name} ${Math.round(100 * read(l))} %`

/** How far a poppet lifts and a spool goes, in units of the drawing. */
const LIFT = 4
const STROKE = 5

export interface PoppetSection {
  /** Port below the seat, and the one behind it. */
  readonly inlet: { readonly name: string; readonly pressure: Read }
  readonly outlet: { readonly name: string; readonly pressure: Read }
  /** 0 shut, 1 wide open. */
  readonly opening: Read
  /** Pressure over the poppet: in its spring chamber. */
  readonly above: { readonly name: string; readonly pressure: Read }
  /** A pilot stage beside it: it is open while the main stage is. */
  readonly pilotStage?: true
  /** A piston below the seat that pushes the poppet open. */
  readonly piston?: { readonly name: string; readonly pressure: Read; readonly pushes: (l: Local) => boolean }
  /** More to be read: the pilot flow, for example. */
  readonly more?: (l: Local, show: Show) => string
  readonly note?: string
}

/** A cone on its seat under a spring. */
export function poppetSection({
  inlet,
  outlet,
  opening,
  above,
  pilotStage,
  piston,
  more,
  note,
}: PoppetSection): SectionDrawing {
  const [left, right] = [16, 26]
  const seat = 28
  const bottom = piston ? 46 : 40
  const lift = (l: Local) => ({ dy: -LIFT * Math.min(1, Math.max(0, opening(l))) })
  const oil: SectionOil[] = [
    { points: box(left, 6, right - left, 12), pressure: above.pressure },
    { points: box(left, 18, right - left, seat - 18), pressure: outlet.pressure },
    { points: box(right, 22, 16, 5), pressure: outlet.pressure },
    { points: box(18.5, seat, 5, piston ? 8 : bottom - seat), pressure: inlet.pressure },
    ...(piston
      ? [
          { points: box(4, 31, 14.5, 4), pressure: inlet.pressure },
          { points: box(left, 38, right - left, bottom - 38), pressure: piston.pressure },
        ]
      : []),
  ]
  const cone: SectionPart = {
    shapes: [
      part([
        [left + 0.3, 16],
        [right - 0.3, 16],
        [right - 0.3, 22],
        [23.3, seat],
        [18.7, seat],
        [left + 0.3, 22],
      ]),
      // the hole through which the oil over it is fed
      ...(pilotStage ? [{ points: [[21, 16] as XY, [21, seat] as XY], fill: 'line' as const }] : []),
    ],
    place: lift,
  }
  const parts: SectionPart[] = [cone]
  if (pilotStage)
    parts.push({
      shapes: [
        part([
          [31, 10],
          [34, 8.3],
          [38, 8.3],
          [38, 11.7],
          [34, 11.7],
        ]),
      ],
      place: (l) => ({ dx: opening(l) > 0.005 ? 1.5 : 0 }),
    })
  if (piston)
    parts.push({
      shapes: [part(box(left + 0.3, 40, right - left - 0.6, 3)), part(box(20.3, seat + 1, 1.4, 11))],
      place: (l) => (piston.pushes(l) ? lift(l) : { dy: 2 }),
    })
  const springs: SectionSpring[] = [{ fixed: [21, 6], moving: [21, 16], part: 0 }]
  if (pilotStage) springs.push({ fixed: [48, 10], moving: [38, 10], part: 1 })
  return {
    width: 84,
    height: bottom + 2,
    ...(note === undefined ? {} : { note }),
    body: [metal(box(4, 2, pilotStage ? 46 : 38, bottom - 2))],
    oil: [
      ...oil,
      ...(pilotStage
        ? [
            { points: box(right, 9, 5, 2), pressure: above.pressure },
            { points: box(31, 7.5, 17, 5), pressure: outlet.pressure },
          ]
        : []),
    ],
    parts,
    springs,
    labels: [
      named([53, 25], outlet.name, outlet.pressure, 'start'),
      piston
        ? named([53, 38], inlet.name, inlet.pressure, 'start')
        : named([53, bottom - 1], inlet.name, inlet.pressure, 'start'),
      ...(piston ? [named([53, 44], piston.name, piston.pressure, 'start')] : []),
      named([53, 8], above.name, above.pressure, 'start'),
      { at: [53, 31], anchor: 'start', text: percent('lift', opening) },
      ...(more ? [{ at: [53, 17] as XY, anchor: 'start' as const, text: more }] : []),
    ],
  }
}

export interface SpoolSection {
  readonly pressure: Readonly<Record<'P' | 'T' | 'A' | 'B', Read>>
  /** −1 to 1; at 1 P is joined to A and B to T. */
  readonly position: Read
  /** Which edges stand open in the middle, and whether P and T are joined through the spool. */
  readonly open: Readonly<Record<'PA' | 'PB' | 'AT' | 'BT' | 'PT', boolean>>
  /** Grooves that open little by little at its edges. */
  readonly notches?: true
  /** A compensator before P: it throttles what comes from its inlet, against its spring and the pressure over that. */
  readonly compensator?: {
    readonly inlet: Read
    readonly overSpring: Read
    /** 1 wide open, 0 shut. */
    readonly opening: Read
  }
  /** A compensator behind the edge: the oil after the edge pushes it open, its spring and the load signal shut. */
  readonly sharing?: SharingCompensator
  readonly note?: string
}

interface SharingCompensator {
  readonly afterEdge: Read
  readonly overSpring: Read
  /** The working line that is fed. */
  readonly load: { readonly name: (l: Local) => string; readonly pressure: Read }
  /** 1 wide open, 0 shut. */
  readonly opening: Read
}

/** Pressures of a spool valve by the indices of its ports. */
export const fourPorts = (P: number, T: number, A: number, B: number): SpoolSection['pressure'] => ({
  P: (l) => l.p[P],
  T: (l) => l.p[T],
  A: (l) => l.p[A],
  B: (l) => l.p[B],
})
/** Edges that are all shut in the middle. */
export const SHUT_IN_MIDDLE: SpoolSection['open'] = { PA: false, PB: false, AT: false, BT: false, PT: false }

/** A spool with two lands between the chambers T, A, P, B, T. */
export function spoolSection({
  pressure,
  position,
  open,
  notches,
  compensator,
  sharing,
  note,
}: SpoolSection): SectionDrawing {
  const [top, bottom] = [14, 22]
  const at = { T1: 18, A: 30, P: 42, B: 54, T2: 66 } as const
  const half = 4
  /** Width by which an edge that stands open in the middle is short of its port. */
  const short = 5
  const land = (x: number, left: boolean, right: boolean): XY[] => [
    [x - half + (left ? short : 0), top],
    [x + half - (right ? short : 0), top],
    [x + half - (right ? short : 0), bottom],
    [x - half + (left ? short : 0), bottom],
  ]
  const spool: SectionPart = {
    shapes: [
      part(box(9, 16.5, 66, 3)),
      part(box(9, top, 4, bottom - top)),
      part(box(71, top, 4, bottom - top)),
      part(land(at.A, open.AT, open.PA)),
      part(land(at.B, open.PB, open.BT)),
      ...(notches
        ? [at.A - half, at.A + half, at.B - half, at.B + half].map((x, i): SectionShape => ({
            fill: 'line',
            points: [
              [x, top + 1],
              [x + (i % 2 ? -2 : 2), top],
            ],
          }))
        : []),
      ...(open.PT ? [{ fill: 'line' as const, points: [[at.P, 18] as XY, [at.T1 + 2, 18] as XY] }] : []),
    ],
    place: (l) => ({ dx: -STROKE * Math.min(1, Math.max(-1, position(l))) }),
  }
  const passage = (x: number, up: boolean, read: Read): SectionOil => ({
    points: up ? box(x - 2, 4, 4, top - 4) : box(x - 2, bottom, 4, 10),
    pressure: read,
  })
  const below =
    (compensator && compensatorBelow(at.P, pressure.P, compensator)) ??
    (sharing && compensatorBehind(at.P, sharing))
  return {
    width: 84,
    height: below ? 64 : 40,
    ...(note === undefined ? {} : { note }),
    body: [metal(box(2, 4, 80, 28)), ...(below?.body ?? [])],
    oil: [
      { points: box(4, top, at.A - 4, bottom - top), pressure: pressure.T },
      { points: box(at.A, top, at.B - at.A, bottom - top), pressure: pressure.P },
      { points: box(at.B, top, 80 - at.B, bottom - top), pressure: pressure.T },
      passage(at.T1, false, pressure.T),
      passage(at.P, false, pressure.P),
      passage(at.T2, false, pressure.T),
      passage(at.A, true, pressure.A),
      passage(at.B, true, pressure.B),
      ...(below?.oil ?? []),
    ],
    parts: [spool, ...(below?.parts ?? [])],
    springs: below?.springs ?? [],
    labels: [
      named([at.A, 3], 'A', pressure.A, 'middle'),
      named([at.B, 3], 'B', pressure.B, 'middle'),
      ...(compensator ? [] : [named([at.P, 36], 'P', pressure.P, 'middle')]),
      ...(below?.labels ?? []),
      named([at.T1, 36], 'T', pressure.T, 'middle'),
      { at: [at.T2, 36], anchor: 'middle', text: percent('spool', position) },
    ],
  }
}

type CompensatorDrawing = Pick<SectionDrawing, 'body' | 'oil' | 'parts' | 'springs' | 'labels'>

/** The compensator below the middle passage of a spool: its spring pushes it open, the pressure behind it shut. @param x of the passage */
function compensatorBelow(
  x: number,
  behind: Read,
  { inlet, overSpring, opening }: NonNullable<SpoolSection['compensator']>,
): CompensatorDrawing {
  const [top, bottom, left, right] = [38, 44, x - 20, x + 20]
  return {
    body: [metal(box(left - 2, 32, right - left + 4, 20))],
    oil: [
      { points: box(x - 2, 32, 4, top - 32), pressure: behind },
      { points: box(left, top, 12, bottom - top), pressure: overSpring },
      { points: box(left + 12, top, x + 7 - left - 12, bottom - top), pressure: behind },
      { points: box(x + 3, bottom, 4, 8), pressure: inlet },
      { points: box(x + 7, top, right - x - 7, bottom - top), pressure: behind },
    ],
    parts: [
      {
        shapes: [
          part(box(left + 10, top, 4, bottom - top)),
          part(box(left + 14, 40.2, x + 7 - left - 14, 1.6)),
          part(box(x + 7, top, 6, bottom - top)),
        ],
        // wide open its land leaves the inlet free
        place: (l) => ({ dx: -4 * (1 - Math.min(1, Math.max(0, opening(l)))) }),
      },
    ],
    springs: [{ fixed: [left, 41], moving: [left + 10, 41], part: 1 }],
    labels: [
      named([x + 5, 58], 'P', inlet, 'middle'),
      named([x - 26, 40], 'load', overSpring, 'end'),
      named([x + 24, 50], 'after it', behind, 'start'),
      { at: [x + 24, 44], anchor: 'start', text: percent('open', opening) },
    ],
  }
}

/** The compensator behind the edge of a spool, in a second bore below it. @param x of the centre of that bore */
function compensatorBehind(
  x: number,
  { afterEdge, overSpring, load, opening }: SharingCompensator,
): CompensatorDrawing {
  const [top, bottom, left, right] = [46, 52, x - 20, x + 20]
  return {
    body: [metal(box(left - 2, 40, right - left + 4, 17))],
    oil: [
      { points: box(left, top, x + 8 - left, bottom - top), pressure: overSpring },
      { points: box(x + 8, top, right - x - 8, bottom - top), pressure: afterEdge },
      { points: box(x + 9, 40, 4, top - 40), pressure: load.pressure },
      { points: box(x + 15, bottom, 4, 5), pressure: afterEdge },
    ],
    parts: [
      {
        shapes: [part(box(x + 7, top, 6, bottom - top)), part(box(x - 4, 48.2, 11, 1.6))],
        // shut its land covers the way to the load
        place: (l) => ({ dx: -4 * Math.min(1, Math.max(0, opening(l))) }),
      },
    ],
    springs: [{ fixed: [left, 49], moving: [x - 4, 49], part: 1 }],
    labels: [
      named([x - 24, 48], 'signal', overSpring, 'end'),
      named([x + 17, 61], 'after edge', afterEdge, 'middle'),
      {
        at: [x + 24, 45],
        anchor: 'start',
        text: (l, show) => `to ${load.name(l)} ${show(load.pressure(l), 'pressure', 3)}`,
      },
      { at: [x + 24, 51], anchor: 'start', text: percent('open', opening) },
    ],
  }
}

/** A spool that throttles from an inlet to an outlet, whose pressure pushes against its spring. */
export function throttlingSpoolSection(ports: {
  readonly inlet: { readonly name: string; readonly pressure: Read }
  readonly outlet: { readonly name: string; readonly pressure: Read }
  readonly drain: { readonly name: string; readonly pressure: Read }
  /** 1 wide open, 0 shut. */
  readonly opening: Read
}): SectionDrawing {
  const { inlet, outlet, drain, opening } = ports
  return {
    width: 76,
    height: 40,
    body: [metal(box(6, 6, 62, 26))],
    oil: [
      { points: box(9, 14, 13, 8), pressure: outlet.pressure },
      { points: box(22, 14, 22, 8), pressure: outlet.pressure },
      { points: box(50, 14, 15, 8), pressure: drain.pressure },
      { points: box(24, 6, 4, 8), pressure: outlet.pressure },
      { points: box(40, 22, 4, 10), pressure: inlet.pressure },
      { points: box(12, 22, 3, 5), pressure: outlet.pressure },
      { points: box(12, 25, 14, 2), pressure: outlet.pressure },
      { points: box(24, 22, 2, 5), pressure: outlet.pressure },
    ],
    parts: [
      {
        shapes: [part(box(16, 14, 6, 8)), part(box(22, 16.5, 24, 3)), part(box(44.5, 14, 7, 8))],
        // wide open its edge leaves the inlet free
        place: (l) => ({ dx: -5 * (1 - Math.min(1, Math.max(0, opening(l)))) }),
      },
    ],
    springs: [{ fixed: [65, 18], moving: [51.5, 18], part: 0 }],
    labels: [
      named([26, 4], outlet.name, outlet.pressure, 'middle'),
      named([42, 36], inlet.name, inlet.pressure, 'middle'),
      named([60, 4], drain.name, drain.pressure, 'middle'),
      { at: [14, 36], anchor: 'middle', text: percent('open', opening) },
    ],
  }
}

/** Teeth of a wheel, and its radii. */
const [TEETH, ROOT, TIP] = [10, 7, 10]
const wheel = (x: number, y: number): XY[] =>
  Array.from({ length: 4 * TEETH }, (_, i): XY => {
    const a = (2 * Math.PI * i) / (4 * TEETH)
    const r = i % 4 < 2 ? TIP : ROOT
    return [x + r * Math.cos(a), y + r * Math.sin(a)]
  })

/** Two wheels that mesh; oil goes round on the outside, and leaks back over the tips. */
export function gearSection(ports: {
  readonly suction: Read
  readonly pressure: Read
  /** rad/s */
  readonly speed: Read
  readonly leakage: (l: Local, show: Show) => string
}): SectionDrawing {
  const { suction, pressure, speed, leakage } = ports
  const [x, above, below] = [30, 15, 32]
  // the drawing is slowed down: a tenth of the speed is what an eye can follow
  const turn = (l: Local, t: number) => (speed(l) * t) / 10
  return {
    width: 76,
    height: 48,
    note: 'The wheels are drawn a tenth as fast as they turn.',
    body: [metal(box(8, 2, 44, 43))],
    oil: [
      { points: box(8, 18, 22, 11), pressure: suction },
      { points: box(30, 18, 22, 11), pressure: pressure },
      { points: ring(x, above, TIP + 0.6, Math.PI / 2, (3 * Math.PI) / 2), pressure: suction },
      { points: ring(x, above, TIP + 0.6, -Math.PI / 2, Math.PI / 2), pressure: pressure },
      { points: ring(x, below, TIP + 0.6, Math.PI / 2, (3 * Math.PI) / 2), pressure: suction },
      { points: ring(x, below, TIP + 0.6, -Math.PI / 2, Math.PI / 2), pressure: pressure },
    ],
    parts: [
      { shapes: [part(wheel(x, above))], place: (l, t) => ({ angle: turn(l, t), about: [x, above] }) },
      {
        shapes: [part(wheel(x, below))],
        place: (l, t) => ({ angle: -turn(l, t) + Math.PI / TEETH, about: [x, below] }),
      },
    ],
    springs: [],
    labels: [
      named([6, 14], 'S', suction, 'start'),
      named([54, 22], 'P', pressure, 'start'),
      { at: [54, 34], anchor: 'start', text: leakage },
    ],
  }
}

/** Pistons on a swash plate that tilts with the stroke; the case takes what leaks past them. */
export function pistonSection(ports: {
  readonly suction: { readonly name: string; readonly pressure: Read }
  readonly pressure: { readonly name: string; readonly pressure: Read }
  readonly drain: { readonly name: string; readonly pressure: Read }
  /** −1 to 1 */
  readonly stroke: Read
  /** What leaves at the case, m³/s. */
  readonly leaks: Read
}): SectionDrawing {
  const { suction, pressure, drain, stroke, leaks } = ports
  const pivot: XY = [18, 22]
  /** Half distance of the pistons, and tilt of the plate at full stroke, radians. */
  const [apart, tilt] = [8, 0.36]
  const reach = (l: Local) => apart * Math.tan(tilt * stroke(l))
  const piston = (y: number, sign: 1 | -1): SectionPart => ({
    shapes: [part(box(20, y - 2, 16, 4))],
    place: (l) => ({ dx: sign * reach(l) }),
  })
  return {
    width: 80,
    height: 46,
    body: [metal(box(4, 3, 56, 38))],
    oil: [
      { points: box(8, 6, 22, 32), pressure: drain.pressure },
      { points: box(30, 12, 24, 4), pressure: suction.pressure },
      { points: box(30, 28, 24, 4), pressure: pressure.pressure },
      { points: box(54, 10, 6, 8), pressure: suction.pressure },
      { points: box(54, 26, 6, 8), pressure: pressure.pressure },
    ],
    parts: [
      {
        shapes: [part(box(16.5, 8, 3, 28))],
        place: (l) => ({ angle: tilt * stroke(l), about: pivot }),
      },
      piston(14, -1),
      piston(30, 1),
    ],
    springs: [],
    labels: [
      named([62, 15], suction.name, suction.pressure, 'start'),
      named([62, 31], pressure.name, pressure.pressure, 'start'),
      named([62, 7], drain.name, drain.pressure, 'start'),
      { at: [62, 40], anchor: 'start', text: percent('stroke', stroke) },
      {
        at: [62, 22],
        anchor: 'start',
        text: (l, show) => `leaks ${show(Math.max(0, leaks(l)), 'flow', 2)}`,
      },
    ],
  }
}

/** A vane that turns between two chambers. */
export function vaneSection(ports: {
  readonly pressureA: Read
  readonly pressureB: Read
  /** Share of its range, 0 to 1. */
  readonly share: Read
}): SectionDrawing {
  const { pressureA, pressureB, share } = ports
  const [x, y, r] = [26, 24, 17]
  /** Angles of the wall between the chambers, half of it, and of the vane. */
  const [wall, halfWall, halfVane] = [Math.PI / 2, 0.3, 0.14]
  const [from, to] = [wall + halfWall + halfVane, wall + 2 * Math.PI - halfWall - halfVane]
  const angle = (l: Local) => from + (to - from) * Math.min(1, Math.max(0, share(l)))
  const sector = (a: number, b: number): XY[] => [[x, y], ...ring(x, y, r, a, b)]
  return {
    width: 76,
    height: 48,
    body: [metal(ring(x, y, r + 4, 0, 2 * Math.PI, 48))],
    oil: [
      { points: (l) => sector(wall + halfWall, angle(l)), pressure: pressureA },
      { points: (l) => sector(angle(l), wall + 2 * Math.PI - halfWall), pressure: pressureB },
    ],
    parts: [
      { shapes: [metal(sector(wall - halfWall, wall + halfWall))], place: () => ({}) },
      {
        shapes: [
          part([
            [x, y - 1.8],
            [x + r - 0.4, y - 1.8],
            [x + r - 0.4, y + 1.8],
            [x, y + 1.8],
          ]),
        ],
        place: (l) => ({ angle: angle(l), about: [x, y] }),
      },
      { shapes: [part(ring(x, y, 6))], place: () => ({}) },
    ],
    springs: [],
    labels: [
      named([50, 14], 'A', pressureA, 'start'),
      named([50, 22], 'B', pressureB, 'start'),
      { at: [50, 34], anchor: 'start', text: percent('turned', share) },
    ],
  }
}
