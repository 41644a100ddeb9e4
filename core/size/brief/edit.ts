/** Edits of a brief: pure functions from a brief to a brief. */
import { textOf } from '../text'
import {
  familyOf,
  fieldsOf,
  motionSchema,
  movementOf,
  type ActuatorName,
  type Brief,
  type CycleStep,
  type Motion,
  type MotionFieldName,
} from './brief'
import { placeSteps } from './cycle'

/** A name that none of these have: "m1", "m2", … */
function freeId(taken: readonly { readonly id: string }[], letter: string): string {
  let n = taken.length + 1
  while (taken.some(({ id }) => id === `${letter}${n}`)) n++
  return `${letter}${n}`
}

/** Adds a motion, and its way out and back to the cycle. @returns the brief and the id of the motion */
export function addMotion(brief: Brief, actuator: ActuatorName, name?: string): { brief: Brief; id: string } {
  const id = freeId(brief.motions, 'm')
  const motion = motionSchema.parse({ id, name: name ?? `Motion ${brief.motions.length + 1}`, actuator })
  const cycle = [...brief.cycle]
  const ways = familyOf(motion) === 'flow' ? (['out'] as const) : (['out', 'back'] as const)
  for (const way of ways)
    cycle.push({ id: freeId(cycle, 's'), motion: id, way, start: 'after', condition: '' })
  return { brief: { ...brief, motions: [...brief.motions, motion], cycle }, id }
}
/** Takes a motion away, with its steps in the cycle. */
export const removeMotion = (brief: Brief, id: string): Brief => ({
  ...brief,
  motions: brief.motions.filter((m) => m.id !== id),
  cycle: brief.cycle.filter((s) => s.motion !== id),
})
export const changeMotion = (brief: Brief, id: string, change: Partial<Omit<Motion, 'id'>>): Brief => ({
  ...brief,
  motions: brief.motions.map((m) => (m.id === id ? { ...m, ...change } : m)),
})
/** Sets a value of a motion, or takes it back where the text is empty. */
export function setMotionValue(brief: Brief, id: string, name: MotionFieldName, text: string): Brief {
  const motion = brief.motions.find((m) => m.id === id)
  if (!motion) return brief
  const values = { ...motion.values }
  if (text.trim()) values[name] = text.trim()
  else delete values[name]
  return changeMotion(brief, id, { values })
}
/** Another actuator: values that it does not have go. */
export function setActuator(brief: Brief, id: string, actuator: ActuatorName): Brief {
  const motion = brief.motions.find((m) => m.id === id)
  if (!motion) return brief
  const kept = new Set<string>(fieldsOf({ actuator }))
  return changeMotion(brief, id, {
    actuator,
    values: Object.fromEntries(Object.entries(motion.values).filter(([name]) => kept.has(name))),
  })
}

/** Adds a step at the end: of a motion, or a wait where none is named. */
export const addStep = (brief: Brief, motion?: string): Brief => ({
  ...brief,
  cycle: [
    ...brief.cycle,
    {
      id: freeId(brief.cycle, 's'),
      motion,
      way: motion ? 'out' : 'wait',
      start: 'after',
      duration: motion ? undefined : '1 s',
      condition: '',
    },
  ],
})
export const changeStep = (brief: Brief, id: string, change: Partial<Omit<CycleStep, 'id'>>): Brief => ({
  ...brief,
  cycle: brief.cycle.map((s) => (s.id === id ? { ...s, ...change } : s)),
})
export const removeStep = (brief: Brief, id: string): Brief => ({
  ...brief,
  cycle: brief.cycle.filter((s) => s.id !== id),
})
/** Moves a step by so many places; stays within the cycle. */
export function moveStep(brief: Brief, id: string, by: number): Brief {
  const from = brief.cycle.findIndex((s) => s.id === id)
  const to = Math.max(0, Math.min(brief.cycle.length - 1, from + by))
  if (from < 0 || to === from) return brief
  const cycle = [...brief.cycle]
  cycle.splice(to, 0, ...cycle.splice(from, 1))
  return { ...brief, cycle }
}

const written = (si: number, quantity: 'time' | 'length' | 'angle') =>
  textOf(Number(si.toPrecision(3)), quantity)
/** Least time of a step and least part of a travel that a corner can be dragged to, s. */
const SHORTEST = 0.05

/**
 * Drags the end of a step to another time: its motion takes that long, or the step alone where it has a time of its own.
 * @param duration of the step, s
 */
export function setStepDuration(brief: Brief, id: string, duration: number): Brief {
  const step = brief.cycle.find((s) => s.id === id)
  if (!step) return brief
  const text = written(Math.max(SHORTEST, duration), 'time')
  const motion = brief.motions.find((m) => m.id === step.motion)
  if (!motion || step.duration) return changeStep(brief, id, { duration: text })
  const [time, speeds] =
    step.way === 'out'
      ? (['outTime', ['outSpeed', 'outRotation']] as const)
      : (['backTime', ['backSpeed', 'backRotation']] as const)
  // the time replaces a speed
  const cleared = speeds.reduce((b, name) => setMotionValue(b, motion.id, name, ''), brief)
  return setMotionValue(cleared, motion.id, time, text)
}
/** Drags the end of a travel to another place. @param travel m or rad */
export function setTravel(brief: Brief, id: string, travel: number): Brief {
  const motion = brief.motions.find((m) => m.id === id)
  const before = motion && movementOf(motion).travel
  if (!motion || before === undefined || familyOf(motion) === 'flow') return brief
  const turning = familyOf(motion) === 'rotary'
  const text = written(Math.max(before / 100, travel), turning ? 'angle' : 'length')
  return setMotionValue(brief, id, turning ? 'angle' : 'stroke', text)
}

// ---- the axis of the diagram -----------------------------------------------------------------------------

/** A piece of the time axis: long pauses are drawn shorter than they are. */
export interface AxisPiece {
  readonly from: number
  readonly to: number
  /** Share of the width. */
  readonly start: number
  readonly end: number
  readonly shortened: boolean
}
/** Part of the time of all motions that a pause takes at most. */
const LONGEST_PAUSE = 0.12

/** The time axis of a cycle in pieces between which the scale changes. @param duration s */
export function cycleAxis(brief: Brief, duration: number): readonly AxisPiece[] {
  const steps = placeSteps(brief).filter((s) => s.end > s.start)
  const moving = steps.filter((s) => s.motion)
  const ends = [...new Set([0, duration, ...steps.flatMap((s) => [s.start, s.end])])].sort((a, b) => a - b)
  const isMoving = (from: number, to: number) => moving.some((s) => s.start <= from && s.end >= to)
  const total = ends.slice(1).reduce((sum, to, i) => sum + (isMoving(ends[i], to) ? to - ends[i] : 0), 0)
  const longest = total > 0 ? total * LONGEST_PAUSE : duration
  const widths = ends.slice(1).map((to, i) => {
    const length = to - ends[i]
    return isMoving(ends[i], to) ? length : Math.min(length, longest)
  })
  const whole = widths.reduce((a, b) => a + b, 0) || 1
  let at = 0
  return ends.slice(1).map((to, i) => {
    const start = at / whole
    at += widths[i]
    const length = to - ends[i]
    return { from: ends[i], to, start, end: at / whole, shortened: widths[i] < length * 0.999 }
  })
}
/** Where a time lies on the axis, as a share of its width. */
export function alongAxis(pieces: readonly AxisPiece[], time: number): number {
  const piece = pieces.find((p) => time <= p.to) ?? pieces.at(-1)
  if (!piece) return 0
  const share = piece.to > piece.from ? (time - piece.from) / (piece.to - piece.from) : 0
  return piece.start + Math.max(0, Math.min(1, share)) * (piece.end - piece.start)
}
/** Seconds for a share of the width, near a time. */
export function secondsPerWidth(pieces: readonly AxisPiece[], time: number): number {
  const piece = pieces.find((p) => time <= p.to) ?? pieces.at(-1)
  return piece && piece.end > piece.start ? (piece.to - piece.from) / (piece.end - piece.start) : 0
}
