/** The body of a pressure valve as drawn: a box with its arrow, its spring, pilot and drain lines. */
import { drifted, springBroken, stuck } from '../faults'
import { arrow, dashed, line, polygon, rectangle, type Point, type Shape, drained } from '../symbol'
import { adjustable, checkInLine, dot, spring } from '../symbol-elements'
import { indices, inputSpecs } from '../kind'

/**
 * A check beside the valve at (x, y): its free flow goes from the top line to the bottom line, or up.
 * @param spring whether a spring holds it shut
 * @param size 1, or less where room is short
 */
export function checkBeside(
  x: number,
  y = 0,
  flow: 'down' | 'up' = 'down',
  spring = false,
  size = 1,
): Shape[] {
  const [top, bottom]: [Point, Point] = [
    [x, y - 2 * size],
    [x, y + 2 * size],
  ]
  return [
    line([0, -3.4], [x, -3.4], top),
    ...(flow === 'down'
      ? checkInLine(top, bottom, { spring, size })
      : checkInLine(bottom, top, { spring, size })),
    line(bottom, [x, 3.4], [0, 3.4]),
    dot(0, -3.4),
    dot(0, 3.4),
  ]
}

/** The knob of a pressure valve: a schedule may turn it. */
export const INPUT = indices('setting')
export const settingInput = inputSpecs(INPUT, {
  setting: { label: 'setting', quantity: 'pressure', rest: 'setting', min: 0, max: 700e5 },
})
/** The state of a pressure valve with one moving part; it comes first where there are others. */
const STATE = indices('opening')
/** How a pressure valve with a knob and one moving part fails. */
export const settingFaults = [
  drifted(INPUT.setting),
  springBroken(INPUT.setting),
  stuck(STATE.opening),
] as const

export interface BodyOptions {
  /** Normally open: the arrow lies in the line. */
  readonly open?: boolean
  /** Which way the arrow points. */
  readonly flow: 'up' | 'down'
  /** Where the pilot comes from: the bottom line, the top line, or a port at the left. */
  readonly pilot: 'bottom' | 'top' | 'left'
  /** Where the spring chamber is drained: to a line, to a port at the right, or to the open air. */
  readonly drain?: 'bottom' | 'top' | 'right' | 'vented'
  /** The setting is that of a knob. */
  readonly adjustable?: boolean
}

/** A pressure valve with lines at (0, ±4) whose box lies around the origin. */
export function pressureBody(o: BodyOptions): Shape[] {
  const x = o.open ? 0 : -0.7
  const shapes: Shape[] = [
    rectangle(-2, -2, 4, 4),
    ...(o.flow === 'up' ? arrow([x, 2], [x, -2]) : arrow([x, -2], [x, 2])),
    line([0, 4], [0, 2]),
    line([0, -2], [0, -4]),
    spring(2, 0, 2, 1.4),
    ...(o.adjustable === false ? [] : adjustable(3, 0, 1)),
  ]
  if (o.pilot === 'left') shapes.push(dashed([-4, 0], [-2, 0]))
  else {
    const y = o.pilot === 'bottom' ? 2.6 : -2.6
    shapes.push(dashed([0, y], [-3, y], [-3, 0], [-2, 0]))
  }
  if (o.drain === 'right') shapes.push(drained([4, 0], [5, 0]))
  else if (o.drain === 'vented')
    // open to the air: a hollow triangle
    shapes.push(drained([4, 0], [4.6, 0]), polygon('paper', [4.6, -0.5], [4.6, 0.5], [5.5, 0]))
  else if (o.drain) {
    const y = o.drain === 'bottom' ? 2.6 : -2.6
    shapes.push(drained([4, 0], [4.4, 0], [4.4, y], [0, y]))
  }
  return shapes
}
