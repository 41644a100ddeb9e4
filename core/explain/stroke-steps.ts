/**
 * Stroke–step diagram of a run (as VDI 3260 draws the motions of a machine): where each actuator stands over time, as the brief intends it
 * and as the run has it, the signals between them, and what differs.
 */
import { findKind } from '../catalogue'
import type { Show } from '../catalogue/kind'
import { nameOf, type Sheet } from '../sheet/schema'
import { portKey } from '../sheet/netlist'
import { sampleAt, type RunResult } from '../simulate/result'
import { movementOf, type Brief } from '../size/brief/brief'
import { placeSteps, type PlacedStep } from '../size/brief/cycle'
import type { Quantity } from '../units/quantities'
import { isCommanded, motionsOf, SWING, type Motion } from './motions'
import { moversOf, verbOf, type Direction, type Mover } from './movers'
import { instantText } from './words'

type Points = readonly (readonly [time: number, place: number])[]

export interface StrokeRow {
  readonly component: string
  readonly name: string
  readonly quantity: Quantity
  /** Least and greatest place that is drawn, SI. */
  readonly range: readonly [number, number]
  /** s and m or rad. */
  readonly simulated: Points
  /** Of the brief, moved to where the run begins to move; empty where the brief has nothing of it. */
  readonly intended: Points
}
/** A switch that goes on, between motions. */
export interface StrokeSignal {
  readonly at: number
  readonly part: string
  readonly name: string
}
export interface StrokeDifference {
  readonly kind: 'order' | 'overlap' | 'time' | 'interrupted' | 'missing' | 'extra' | 'confirmation' | 'force'
  readonly text: string
  readonly at: number
  readonly part: string
}
export interface StrokeSteps {
  readonly duration: number
  readonly rows: readonly StrokeRow[]
  /** Instants at which a motion begins or ends: the steps. */
  readonly steps: readonly number[]
  readonly signals: readonly StrokeSignal[]
  readonly differences: readonly StrokeDifference[]
}

/** Steps that lie nearer are one, as a share of the duration. */
const SAME_STEP = 0.01
/** Share of the range of a row below which a place is none. */
const NOTHING = 5e-3
/** Points of a row. */
const MOST_POINTS = 400
/** A motion takes too long beyond this factor, and one overlaps another by more than so many seconds. */
const TOO_LONG = 1.1
const OVERLAP = 0.05
/** A held part has lost its force where its pressure falls below this share, from a pressure worth holding, Pa. */
const LOST_SHARE = 0.5
const WORTH_HOLDING = 10e5
/** Pressure of a part that presses, over that with which it came. */
const PRESSES = 1.2
/** s: a motion that stands still for longer on its way is interrupted. */
const INTERRUPTED = 0.3

export function strokeSteps(sheet: Sheet, result: RunResult, brief: Brief, show: Show): StrokeSteps {
  const movers = moversOf(sheet, result).filter((m) => m.position >= 0)
  const motions = movers.flatMap((mover) => motionsOf(mover, result)).sort((a, b) => a.start - b.start)
  const placed = placeSteps(brief).filter((s) => s.motion && s.end > s.start)
  const matches = (mover: Mover, designation: string) =>
    designation !== '' && (mover.name === designation || driverNames(sheet, mover).includes(designation))
  const known = placed.filter((s) => movers.some((m) => matches(m, s.motion!.designation)))
  const offset = known.length && motions.length ? motions[0].start - known[0].start : 0
  const intendedOf = (mover: Mover): Points => {
    const own = known.filter((s) => matches(mover, s.motion!.designation))
    if (!own.length) return []
    const travel = movementOf(own[0].motion!).travel ?? 0
    const start = result.columns[mover.position][0]
    const points: [number, number][] = [[0, start]]
    for (const { step, start: from, end: to } of own) {
      const begins = points.at(-1)![1]
      const aim = step.way === 'out' ? start + travel : start
      points.push([from + offset, begins], [to + offset, aim])
    }
    return clipped(points, result.duration)
  }
  const rows = movers.map((mover): StrokeRow => {
    const simulated = thinned(result, mover.position)
    const intended = intendedOf(mover)
    const places = [...simulated, ...intended].map(([, place]) => place)
    return {
      component: mover.component,
      name: mover.name,
      quantity: result.signals[mover.position].quantity,
      range: rangeOf(places),
      simulated,
      intended,
    }
  })
  const signals = signalsOf(sheet, result)
  return {
    duration: result.duration,
    rows,
    steps: stepsOf(motions, result.duration),
    signals,
    differences: known.length ? differencesOf({ sheet, result, known, motions, signals, matches, show }) : [],
  }
}

/** Least and greatest place; an end within the elastic give of a stop counts as zero. */
function rangeOf(places: readonly number[]): [number, number] {
  const [least, most] = [Math.min(...places), Math.max(...places)]
  const atZero = (end: number) => (Math.abs(end) < NOTHING * (most - least) ? 0 : end)
  return [atZero(least), atZero(most)]
}

/** Points up to an instant, with the place there; held after the last. */
function clipped(points: readonly (readonly [number, number])[], end: number): Points {
  const inside = points.filter(([t]) => t >= 0 && t <= end)
  const next = points.find(([t]) => t > end)
  const last = inside.at(-1)
  if (!last) return []
  const [t0, y0] = last
  return [...inside, [end, next ? y0 + ((end - t0) / (next[0] - t0)) * (next[1] - y0) : y0]]
}

const driverNames = (sheet: Sheet, mover: Mover) =>
  mover.driven.flatMap((id) => sheet.components.filter((c) => c.id === id).map(nameOf))

/** So many points of a column, with its corners where samples are many. */
function thinned({ times, columns }: RunResult, signal: number): Points {
  const column = columns[signal]
  const stride = Math.max(1, Math.ceil(times.length / MOST_POINTS))
  const points: [number, number][] = []
  for (let i = 0; i < times.length; i += stride) points.push([times[i], column[i]])
  const last = times.length - 1
  if (last >= 0 && points.at(-1)![0] !== times[last]) points.push([times[last], column[last]])
  return points
}

function stepsOf(motions: readonly Motion[], duration: number): number[] {
  const instants = motions.flatMap(({ start, end }) => [start, end]).sort((a, b) => a - b)
  return instants.filter((t, i) => i === 0 || t - instants[i - 1] > SAME_STEP * duration)
}

/** Switches that go on. */
const signalsOf = (sheet: Sheet, result: RunResult): StrokeSignal[] =>
  sheet.components
    .flatMap((component) => {
      if (!findKind(component.kind)?.traits?.isOn) return []
      return result.conditions.flatMap((c) =>
        c.component === component.id && c.name === 'tripped' && c.start > 0
          ? [{ at: c.start, part: component.id, name: nameOf(component) }]
          : [],
      )
    })
    .sort((a, b) => a.at - b.at)

interface Compared {
  readonly sheet: Sheet
  readonly result: RunResult
  readonly known: readonly PlacedStep[]
  readonly motions: readonly Motion[]
  readonly signals: readonly StrokeSignal[]
  readonly matches: (mover: Mover, designation: string) => boolean
  readonly show: Show
}

function differencesOf({
  sheet,
  result,
  known,
  motions,
  signals,
  matches,
  show,
}: Compared): StrokeDifference[] {
  const differences: StrokeDifference[] = []
  const left = [...motions]
  const time = (t: number) => instantText(t, show)
  const pairs = known.map((step) => {
    const direction = step.step.way === 'out' ? 1 : -1
    const index = left.findIndex(
      (m) => m.direction === direction && matches(m.mover, step.motion!.designation),
    )
    const motion = index < 0 ? undefined : left.splice(index, 1)[0]
    return { step, direction: direction as Direction, motion }
  })
  pairs.forEach(({ step, direction, motion }, i) => {
    const name = step.motion!.designation
    const owner = motions.find((m) => matches(m.mover, name))?.mover
    const what = owner ? `${owner.name} ${verbOf(owner, direction)}` : `${name} ${step.step.way}`
    if (!motion) {
      differences.push({
        kind: 'missing',
        text: `${what}: intended, but it does not happen in this run.`,
        at: 0,
        part: owner?.component ?? '',
      })
      return
    }
    const { component } = motion.mover
    const lasts = motion.end - motion.start
    const meant = step.end - step.start
    if (lasts > TOO_LONG * meant)
      differences.push({
        kind: 'time',
        text: `${what} in ${show(lasts, 'time', 3)}; intended are ${show(meant, 'time', 3)}.`,
        at: motion.start,
        part: component,
      })
    for (const [from, to] of motion.pauses)
      if (to - from > INTERRUPTED)
        differences.push({
          kind: 'interrupted',
          text: `${motion.mover.name} stands still on its way, from ${time(from)} to ${time(to)}.`,
          at: from,
          part: component,
        })
    if (step.step.start === 'with') return
    // it comes after all that is intended before it
    for (const earlier of pairs.slice(0, i)) {
      if (!earlier.motion || earlier.motion.mover === motion.mover) continue
      const before = `${earlier.motion.mover.name} ${verbOf(earlier.motion.mover, earlier.direction)}`
      if (motion.start < earlier.motion.start - OVERLAP)
        differences.push({
          kind: 'order',
          text: `Wrong order: ${what} from ${time(motion.start)}, before ${before} (from ${time(earlier.motion.start)}).`,
          at: motion.start,
          part: component,
        })
      else if (motion.start < earlier.motion.end - OVERLAP)
        differences.push({
          kind: 'overlap',
          text: `Overlap: ${what} from ${time(motion.start)}, while ${before} until ${time(earlier.motion.end)}.`,
          at: motion.start,
          part: component,
        })
    }
    const previous = pairs[i - 1]?.motion
    if (!previous || previous.mover === motion.mover) return
    const confirmed = signals.some((s) => s.at >= previous.start && s.at <= motion.start + OVERLAP)
    if (!confirmed && !isCommanded(result, previous.end, motion.start))
      differences.push({
        kind: 'confirmation',
        text: `${what} without a switch that confirms ${previous.mover.name} before it.`,
        at: motion.start,
        part: component,
      })
  })
  for (const { mover, direction, start } of left)
    if (known.some((s) => matches(mover, s.motion!.designation)))
      differences.push({
        kind: 'extra',
        text: `${mover.name} ${verbOf(mover, direction)} at ${time(start)}; the brief does not intend it.`,
        at: start,
        part: mover.component,
      })
  differences.push(...lostForces(sheet, result, motions, show))
  return differences.sort((a, b) => a.at - b.at)
}

/** Parts that press at the end of a motion and lose their pressure while something else moves. */
function lostForces(
  sheet: Sheet,
  result: RunResult,
  motions: readonly Motion[],
  show: Show,
): StrokeDifference[] {
  const kindOf = new Map(sheet.components.map(({ id, kind }) => [id, kind]))
  return motions.flatMap((motion): StrokeDifference[] => {
    const { mover, direction, end } = motion
    const [driven] = mover.driven
    const port = findKind(kindOf.get(driven) ?? '')?.ports.filter((p) => p.domain === 'oil')[
      direction > 0 ? 0 : 1
    ]
    const line = port && result.lineOfPort[portKey(driven, port.name)]
    if (line === undefined) return []
    const atStop = result.events.some(
      (e) => e.source === 'circuit' && e.component === driven && Math.abs(e.at - end) < 2 * SWING,
    )
    if (!atStop) return []
    const until = motions.find((m) => m.mover === mover && m.start > end - 1e-9)?.start ?? result.duration
    const column = result.columns[line]
    // it presses where its pressure rises once it stands
    const moving = column[sampleAt(result.times, end - SWING).index]
    let most = PRESSES * moving
    for (let i = sampleAt(result.times, end).index; i < column.length && result.times[i] < until; i++) {
      most = Math.max(most, column[i])
      const t = result.times[i]
      if (most < WORTH_HOLDING || column[i] > LOST_SHARE * most) continue
      const other = motions.find((m) => m.mover !== mover && m.start <= t + SWING && m.end > t)
      // it was released before anything else moved
      if (!other) return []
      return [
        {
          kind: 'force',
          text: `${mover.name} loses its force: from ${show(most, 'pressure', 3)} to ${show(column[i], 'pressure', 3)} at ${instantText(t, show)}, while ${other.mover.name} ${verbOf(other.mover, other.direction)}.`,
          at: t,
          part: mover.component,
        },
      ]
    }
    return []
  })
}
