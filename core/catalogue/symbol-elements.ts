/**
 * Recurring elements of symbols with the proportions of ISO 1219-1, in modules: one place for each dimension, so that all
 * symbols agree. Directions are unit vectors along an axis, y downwards.
 */
import {
  arrow,
  arrowHead,
  circle,
  dashed,
  line,
  polygon,
  rectangle,
  type Arc,
  type Circle,
  type Point,
  type Polygon,
  type Polyline,
  type Shape,
} from './symbol'

/** Radius of the dot where lines are connected: 0.75 M across. */
export const DOT_RADIUS = 0.375
/** Side of the equilateral energy triangle of pumps and motors. */
const TRIANGLE_SIDE = 2
const TRIANGLE_HEIGHT = (TRIANGLE_SIDE * Math.sqrt(3)) / 2
/** A solenoid: length along the spool, and height. */
export const SOLENOID_LENGTH = 3
const SOLENOID_HEIGHT = 2

/** The dot where lines inside a symbol are connected. */
export const dot = (x: number, y: number): Circle => circle(x, y, DOT_RADIUS, 'ink')

/** The energy triangle of a pump, its tip at (x, y) pointing along (dx, dy); filled for oil. */
export function flowTriangle(x: number, y: number, dx: number, dy: number): Polygon {
  const half = TRIANGLE_SIDE / 2
  const [bx, by] = [x - dx * TRIANGLE_HEIGHT, y - dy * TRIANGLE_HEIGHT]
  return polygon('ink', [x, y], [bx - dy * half, by + dx * half], [bx + dy * half, by - dx * half])
}
/** The energy triangle of a motor: its base is a chord of the circle of radius r round (x, y), it points inwards along (dx, dy). */
export function inwardTriangle(x: number, y: number, r: number, dx: number, dy: number): Polygon {
  const half = TRIANGLE_SIDE / 2
  const tip = -Math.sqrt(r * r - half * half) + TRIANGLE_HEIGHT
  return flowTriangle(x + dx * tip, y + dy * tip, dx, dy)
}

/** The sloping arrow across a symbol that marks it as adjustable: from lower left to upper right, however the symbol is turned. */
export const adjustable = (x: number, y: number, reach: number): Shape[] =>
  arrow([x - reach, y + reach], [x + reach, y - reach]).map((shape) => ({ ...shape, upright: [x, y] }))

/** A shaft stub from (x1, y) to (x2, y): two parallel lines. */
export const shaftStub = (x1: number, x2: number, y = 0): Shape[] => [
  line([x1, y - 0.25], [x2, y - 0.25]),
  line([x1, y + 0.25], [x2, y + 0.25]),
]

/** A compression spring as a zigzag from one point to another. */
export function springBetween([x1, y1]: Point, [x2, y2]: Point, height = 1): Polyline {
  const n = 5
  const length = Math.hypot(x2 - x1, y2 - y1)
  const [ux, uy] = [(x2 - x1) / length, (y2 - y1) / length]
  const points: Point[] = [[x1, y1]]
  for (let i = 0; i < n; i++) {
    const along = (length * (i + 0.5)) / n
    const aside = (i % 2 ? height : -height) / 2
    points.push([x1 + ux * along - uy * aside, y1 + uy * along + ux * aside])
  }
  points.push([x2, y2])
  return line(...points)
}
/** A compression spring from (x, y) along +x. */
export const spring = (x: number, y: number, length: number, height = 1): Polyline =>
  springBetween([x, y], [x + length, y], height)

/** Radius of the ball of a check valve. */
const BALL = 0.75
/**
 * A check valve in a straight line: free flow goes from the first point to the second, the ball lies midway on its seat.
 * @param options.spring a spring holds the ball on its seat
 * @param options.size 1 for a separate valve, less inside other symbols
 */
export function checkInLine(
  from: Point,
  to: Point,
  options: { readonly spring?: boolean; readonly size?: number } = {},
): Shape[] {
  const size = options.size ?? 1
  const length = Math.hypot(to[0] - from[0], to[1] - from[1])
  const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length]
  /** A point so far along the flow and aside of it, measured from the ball in sizes. */
  const at = (along: number, aside = 0): Point => [
    (from[0] + to[0]) / 2 + size * (ux * along - uy * aside),
    (from[1] + to[1]) / 2 + size * (uy * along + ux * aside),
  ]
  // the seat: two lines at a right angle that touch the ball
  const apex = -BALL * Math.SQRT2
  const end = BALL + 1.35
  return [
    line(from, at(apex)),
    line(at(0.05, -1.1), at(apex), at(0.05, 1.1)),
    circle(...at(0), BALL * size),
    ...(options.spring
      ? [springBetween(at(BALL), at(end), 0.8 * size), line(at(end), to)]
      : [line(at(BALL), to)]),
  ]
}

/**
 * A narrow place in a line through (x, y).
 * @param flow "viscous": a long gap, whose flow depends on viscosity, drawn as arcs; "sharp": an edge, drawn as angles
 * @param along whether the line is horizontal or vertical
 */
export function restriction(
  x: number,
  y: number,
  flow: 'viscous' | 'sharp',
  along: 'horizontal' | 'vertical' = 'vertical',
  size = 1,
): Shape[] {
  const put = (aside: number, ahead: number): Point =>
    along === 'vertical' ? [x + aside * size, y + ahead * size] : [x + ahead * size, y + aside * size]
  if (flow === 'sharp')
    return [-1, 1].map((side) => line(put(side * 0.9, -0.6), put(side * 0.3, 0), put(side * 0.9, 0.6)))
  const turn = along === 'vertical' ? 0 : 90
  return [-1, 1].map((side): Arc => ({
    shape: 'arc',
    at: put(side * 1.3, 0),
    r: size,
    from: (side < 0 ? 0 : 180) + turn - 50,
    to: (side < 0 ? 0 : 180) + turn + 50,
  }))
}

/** A direction of rotation: an arc round (x, y) with an arrow head at its end, degrees clockwise from the right. */
export function rotationArrow(x: number, y: number, r: number, from: number, to: number): Shape[] {
  const end = (to * Math.PI) / 180
  const turn = to > from ? 1 : -1
  // the head is a chord of the arc: it points along the tangent half a head back
  const aim = end - (turn * 0.3) / r
  return [
    { shape: 'arc', at: [x, y], r, from: Math.min(from, to), to: Math.max(from, to) },
    arrowHead(x + r * Math.cos(end), y + r * Math.sin(end), -turn * Math.sin(aim), turn * Math.cos(aim), 0.8),
  ]
}

/** A solenoid at the end x of a row of boxes: a box with its slanted winding, pushing along `toward`. */
export function solenoid(x: number, toward: 1 | -1, top = -SOLENOID_HEIGHT): Shape[] {
  const left = Math.min(x, x - toward * SOLENOID_LENGTH)
  const middle = left + SOLENOID_LENGTH / 2
  const bottom = top + SOLENOID_HEIGHT
  return [
    rectangle(left, top, SOLENOID_LENGTH, SOLENOID_HEIGHT),
    line([middle - toward * 0.7, bottom], [middle + toward * 0.7, top]),
  ]
}

/** The filled triangle that marks actuation by oil pressure, its tip at (x, y) pointing along `toward`. */
export const pilotTriangle = (x: number, y: number, toward: 1 | -1 = 1): Shape =>
  polygon('ink', [x - toward * 0.9, y - 0.5], [x - toward * 0.9, y + 0.5], [x, y])

/** The outline of several components in one body. */
export const enclosureLine = (x: number, y: number, w: number, h: number): Polygon => ({
  ...rectangle(x, y, w, h, 'none'),
  dash: 'chain',
})

/**
 * A small relief valve in a vertical line at x, as an element of a larger symbol: from y1 to y2, its spring to the right (1) or left (−1).
 * @param size side of its box
 */
export function reliefInLine(x: number, y1: number, y2: number, spring: 1 | -1 = 1, size = 3): Shape[] {
  const half = size / 2
  const flow = Math.sign(y2 - y1)
  const [top, middle] = [(y1 + y2) / 2 - flow * half, (y1 + y2) / 2]
  const pilot = (y1 + top) / 2
  return [
    line([x, y1], [x, top]),
    rectangle(x - half, middle - half, size, size),
    // the flow arrow stands beside the line: normally closed
    ...arrow([x - spring * 0.2 * size, top], [x - spring * 0.2 * size, top + flow * size]),
    line([x, top + flow * size], [x, y2]),
    dashed(
      [x, pilot],
      [x - spring * (half + 0.6), pilot],
      [x - spring * (half + 0.6), middle],
      [x - spring * half, middle],
    ),
    springBetween([x + spring * half, middle], [x + spring * (half + 0.45 * size), middle], 0.32 * size),
  ]
}

/** Half the diagonal of the square of 4 M sides on its corner, in which conditioning components are drawn. */
export const DIAMOND = 2 * Math.SQRT2
/** That square round (0, 0), with its leads to (±4, 0). */
export const conditioningBody = (): Shape[] => [
  line([-4, 0], [-DIAMOND, 0]),
  line([DIAMOND, 0], [4, 0]),
  polygon('paper', [-DIAMOND, 0], [0, -DIAMOND], [DIAMOND, 0], [0, DIAMOND]),
]
