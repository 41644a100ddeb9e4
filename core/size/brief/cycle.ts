/** The cycle of a machine over time: where each motion stands, what it meets, and the flow and power that it asks for. */
import { GRAVITY } from '../../units/quantities'
import { parseQuantity } from '../../units/text'
import {
  familyOf,
  loadTableOf,
  machineValue,
  motionValue,
  movementOf,
  type Brief,
  type CycleStep,
  type Motion,
} from './brief'

/** Points at which the load is looked at along a movement. */
const POINTS = 24

/** A step of the cycle with its times, s. */
export interface PlacedStep {
  readonly step: CycleStep
  readonly motion?: Motion
  readonly start: number
  readonly end: number
}

/** The steps of a cycle in time; a step whose motion has no time takes none. */
export function placeSteps(brief: Brief): PlacedStep[] {
  const seconds = (text: string | undefined) => {
    const read = text ? parseQuantity(text, 'time') : undefined
    return read?.ok ? Math.max(0, read.si) : undefined
  }
  const placed: PlacedStep[] = []
  let latest = 0
  let before = 0
  for (const step of brief.cycle) {
    const motion = step.way === 'wait' ? undefined : brief.motions.find((m) => m.id === step.motion)
    const movement = motion ? movementOf(motion) : {}
    const own =
      step.way === 'out' ? movement.out : step.way === 'back' ? (movement.back ?? movement.out) : undefined
    const start = (step.start === 'with' ? before : latest) + (seconds(step.delay) ?? 0)
    const end = start + (seconds(step.duration) ?? own ?? 0)
    placed.push({ step, motion, start, end })
    before = start
    latest = Math.max(latest, end)
  }
  return placed
}

/** Load against a motion at a place of its travel, N or N·m; a weight and a load that drives count with their sign. */
export function loadAt(motion: Motion, x: number, way: 'out' | 'back'): number {
  const value = (name: Parameters<typeof motionValue>[1]) => motionValue(motion, name) ?? 0
  if (familyOf(motion) === 'flow') return 1
  if (familyOf(motion) === 'rotary')
    return value(way === 'out' ? 'torqueOut' : 'torqueBack') + value('frictionTorque')
  const weight = value('mass') * GRAVITY * Math.sin(value('slope'))
  const table = loadTableOf(motion)
  const work = value('workForce')
  const { travel = 0 } = movementOf(motion)
  const over = motionValue(motion, 'workStroke') ?? travel
  const isWorkWay = way === motion.workWay
  // from where the workpiece is met: the last part of the way on which it is
  const before = (way === 'out' ? travel - x : x) - over
  const met = isWorkWay && work > 0 && over > 0 ? work * Math.max(0, Math.min(1, -before / over)) : 0
  const along = isWorkWay ? interpolate(table, x) : 0
  const constant = way === 'out' ? value('forceOut') + weight : value('forceBack') - weight
  return constant + value('friction') + met + along
}

/** Along straight lines between points, constant beyond them; 0 without points. */
function interpolate(points: readonly (readonly [number, number])[], x: number): number {
  if (!points.length) return 0
  const next = points.findIndex(([px]) => px >= x)
  if (next === 0) return points[0][1]
  if (next < 0) return points[points.length - 1][1]
  const [[x0, y0], [x1, y1]] = [points[next - 1], points[next]]
  return x1 === x0 ? y1 : y0 + ((x - x0) / (x1 - x0)) * (y1 - y0)
}

/** What a motion asks for: flow at its port, m³/s, and the pressure there at a load, Pa. */
export interface Demand {
  flow(way: 'out' | 'back', speed: number): number | undefined
  pressure(way: 'out' | 'back', load: number): number | undefined
}

export interface CycleSample {
  readonly time: number
  readonly flow: number
  /** The highest of the pressures of what moves. */
  readonly pressure: number
  /** Flow at that pressure. */
  readonly power: number
}
export interface CycleTrack {
  readonly motion: Motion
  /** Time and place, s and m or rad. */
  readonly positions: readonly (readonly [time: number, place: number])[]
  /** Time and load, s and N or N·m; nothing is drawn where it does not move. */
  readonly loads: readonly (readonly [time: number, load: number])[]
}
export interface Cycle {
  readonly steps: readonly PlacedStep[]
  /** Including the pause up to the cycle time, s. */
  readonly duration: number
  readonly tracks: readonly CycleTrack[]
  /** By rising time; two samples of one time where something starts or stops. Empty where no demand is known. */
  readonly samples: readonly CycleSample[]
  /** Peak, mean and root mean square over the cycle. */
  readonly flow: Figures
  readonly power: Figures
  /** The highest pressure, and the volume of oil of one cycle, m³. */
  readonly pressure: number
  readonly volume: number
}
interface Figures {
  readonly peak: number
  readonly mean: number
  readonly rms: number
}

/** @param demandOf what the motion asks for, as far as it is sized */
export function cycleOf(brief: Brief, demandOf: (motion: Motion) => Demand | undefined): Cycle {
  const steps = placeSteps(brief)
  const end = steps.reduce((t, s) => Math.max(t, s.end), 0)
  const duration = Math.max(end, machineValue(brief, 'cycleTime') ?? 0)
  const tracks = brief.motions.map((motion) => trackOf(motion, steps, duration))

  const times = new Set([0, duration])
  for (const s of steps)
    for (let i = 0; i <= POINTS; i++) times.add(s.start + ((s.end - s.start) * i) / POINTS)
  const sorted = [...times].sort((a, b) => a - b)
  const samples: CycleSample[] = []
  for (let i = 0; i + 1 < sorted.length; i++) {
    const [from, to] = [sorted[i], sorted[i + 1]]
    const active = steps.filter((s) => s.motion && s.end > s.start && s.start <= from && s.end >= to)
    for (const time of [from, to]) samples.push(sampleAt(time, active, demandOf))
  }
  const figures = (of: (s: CycleSample) => number): Figures => {
    let [sum, squares, peak] = [0, 0, 0]
    for (let i = 0; i + 1 < samples.length; i += 2) {
      const [a, b, dt] = [of(samples[i]), of(samples[i + 1]), samples[i + 1].time - samples[i].time]
      sum += ((a + b) / 2) * dt
      // of a straight line between the two
      squares += ((a * a + a * b + b * b) / 3) * dt
      peak = Math.max(peak, a, b)
    }
    return duration > 0
      ? { peak, mean: sum / duration, rms: Math.sqrt(squares / duration) }
      : { peak, mean: 0, rms: 0 }
  }
  const flow = figures((s) => s.flow)
  return {
    steps,
    duration,
    tracks,
    samples,
    flow,
    power: figures((s) => s.power),
    pressure: samples.reduce((p, s) => Math.max(p, s.pressure), 0),
    volume: flow.mean * duration,
  }
}

function trackOf(motion: Motion, steps: readonly PlacedStep[], duration: number): CycleTrack {
  const { travel = 0 } = movementOf(motion)
  const own = steps.filter((s) => s.motion?.id === motion.id).sort((a, b) => a.start - b.start)
  // a motion whose first step goes back starts at its end
  let place = own[0]?.step.way === 'back' ? travel : 0
  const positions: [number, number][] = [[0, place]]
  const loads: [number, number][] = []
  for (const { step, start, end } of own) {
    const to = step.way === 'out' ? travel : 0
    positions.push([start, place], [end, to])
    for (let i = 0; i <= POINTS; i++) {
      const s = i / POINTS
      loads.push([
        start + (end - start) * s,
        loadAt(motion, place + (to - place) * s, step.way as 'out' | 'back'),
      ])
    }
    place = to
  }
  positions.push([duration, place])
  return { motion, positions, loads }
}

function sampleAt(
  time: number,
  active: readonly PlacedStep[],
  demandOf: (motion: Motion) => Demand | undefined,
): CycleSample {
  let [flow, pressure] = [0, 0]
  for (const { motion, step, start, end } of active) {
    const demand = demandOf(motion!)
    const { travel } = movementOf(motion!)
    if (!demand || travel === undefined) continue
    const way = step.way as 'out' | 'back'
    const share = Math.min(1, (time - start) / (end - start))
    const place = travel * (way === 'out' ? share : 1 - share)
    flow += demand.flow(way, travel / (end - start)) ?? 0
    pressure = Math.max(pressure, demand.pressure(way, loadAt(motion!, place, way)) ?? 0)
  }
  return { time, flow, pressure, power: flow * pressure }
}
