/** The corner of a movement on the cycle diagram: dragged by the pointer or moved by keys, as functions of the brief. */
import { movementOf, type Brief } from '@oar-bench/core/size/brief/brief'
import type { PlacedStep } from '@oar-bench/core/size/brief/cycle'
import { setStepDuration, setTravel } from '@oar-bench/core/size/brief/edit'

/** What a drag starts from. */
export interface CornerDrag {
  readonly placed: PlacedStep
  /** m or rad. */
  readonly travel: number
  /** Of the pointer, px. */
  readonly x: number
  readonly y: number
  /** Along the axis as it was: its scale follows the brief while it is dragged. */
  readonly secondsPerPixel: number
}
/** Part of the height by which a corner is lifted before its travel changes: a drag in time alone is not quite level. */
const LEVEL = 0.08
/** Part by which a key moves a corner; five times as far with Shift. */
const NUDGE = 0.02

const travelOf = ({ motion }: PlacedStep) => (motion ? (movementOf(motion).travel ?? 0) : 0)

export const startCornerDrag = (
  placed: PlacedStep,
  x: number,
  y: number,
  secondsPerPixel: number,
): CornerDrag => ({
  placed,
  travel: travelOf(placed),
  x,
  y,
  secondsPerPixel,
})

/** @param height of the row, px */
export function dragCorner(
  brief: Brief,
  { placed, travel, x, y, secondsPerPixel }: CornerDrag,
  to: { readonly x: number; readonly y: number },
  height: number,
): Brief {
  const duration = placed.end - placed.start + (to.x - x) * secondsPerPixel
  const timed = setStepDuration(brief, placed.step.id, duration)
  const lift = (y - to.y) / height
  return placed.step.way === 'out' && placed.motion && Math.abs(lift) > LEVEL
    ? setTravel(timed, placed.motion.id, travel * (1 + lift))
    : timed
}

/** Left and right change the time, up and down the travel; nothing for another key. */
export function nudgeCorner(brief: Brief, placed: PlacedStep, key: string, far: boolean): Brief | undefined {
  const part = NUDGE * (far ? 5 : 1)
  const duration = placed.end - placed.start
  switch (key) {
    case 'ArrowRight':
      return setStepDuration(brief, placed.step.id, duration * (1 + part))
    case 'ArrowLeft':
      return setStepDuration(brief, placed.step.id, duration * (1 - part))
    case 'ArrowUp':
      return placed.motion && setTravel(brief, placed.motion.id, travelOf(placed) * (1 + part))
    case 'ArrowDown':
      return placed.motion && setTravel(brief, placed.motion.id, travelOf(placed) * (1 - part))
    default:
      return undefined
  }
}
