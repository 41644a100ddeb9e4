/** The body of a pressure valve as drawn: a box with its arrow, its spring, pilot and drain lines. */
import { drifted, springBroken, stuck } from '../faults'
import { adjustable, arrow, circle, dashed, line, rectangle, spring, type Shape } from '../symbol'
import { indices, inputSpecs } from '../kind'

/** A check beside the valve at (x, y); its free flow goes from the top line to the bottom line, or up. */
export function checkBeside(x: number, y = 0, flow: 'down' | 'up' = 'down'): Shape[] {
  const d = flow === 'down' ? 1 : -1
  return [
    line([0, -3.4], [x, -3.4], [x, y - 0.75]),
    // the seat lies on the side the free flow comes from
    line([x - 1.05, y + 0.05 * d], [x, y - 1.1 * d], [x + 1.05, y + 0.05 * d]),
    circle(x, y, 0.75),
    line([x, y + 0.75], [x, 3.4], [0, 3.4]),
    circle(0, -3.4, 0.25, 'ink'),
    circle(0, 3.4, 0.25, 'ink'),
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
  /** Where the spring chamber is drained: to a line, or to a port at the right. */
  readonly drain?: 'bottom' | 'top' | 'right'
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
  if (o.drain === 'right') shapes.push(dashed([4, 0], [5, 0]))
  else if (o.drain) {
    const y = o.drain === 'bottom' ? 2.6 : -2.6
    shapes.push(dashed([4, 0], [4.4, 0], [4.4, y], [0, y]))
  }
  return shapes
}
