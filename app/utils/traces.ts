/** What the tape plots, and how a long column of samples is thinned for it. */
import type { RunResult, SignalRole } from '@oar-bench/core/simulate/result'
import { fromSI, type Quantity, type Unit } from '@oar-bench/core/units/quantities'

/** Charts of the tape by the quantity they show. */
export const chartQuantities = [
  'length',
  'speed',
  'rotationalSpeed',
  'pressure',
  'flow',
] as const satisfies readonly Quantity[]
export type ChartQuantity = (typeof chartQuantities)[number]
export const chartLabels: Record<ChartQuantity, string> = {
  length: 'Stroke',
  speed: 'Speed',
  rotationalSpeed: 'Rotation',
  pressure: 'Pressure',
  flow: 'Flow',
}
/** Distinct in hue and in lightness, on light and on dark paper. */
export const traceColours = (dark: boolean) =>
  dark
    ? ['#6ac6cd', '#f0b35c', '#c9a7ee', '#9bd17d', '#ff9d93', '#9db4ff']
    : ['#0e5f6c', '#a35200', '#6a3d9a', '#3f7d2c', '#b3263a', '#2f4fa8']
/** Traces in one chart at most. */
export const MOST_TRACES = 6
const FIRST_TRACES = 4

/** Signals that can be drawn in a chart. */
export const chartSignals = (result: RunResult, quantity: ChartQuantity) =>
  result.signals.flatMap((s, index) => (s.quantity === quantity ? [{ signal: s, index }] : []))

/** The signals shown before anyone chooses: what moves, and not twice the same. */
export function firstSignals(result: RunResult, quantity: ChartQuantity): string[] {
  const lively = chartSignals(result, quantity).filter(({ index }) => {
    const e = result.extremes[index]
    return e.max - e.min > 1e-9 * Math.max(1, Math.abs(e.max))
  })
  const roles: Record<ChartQuantity, readonly SignalRole[]> = {
    length: ['state'],
    speed: ['state'],
    rotationalSpeed: ['state', 'output'],
    pressure: ['pressure'],
    flow: ['output'],
  }
  const own = lively.filter(({ signal }) => roles[quantity].includes(signal.role))
  const size = ({ index }: { index: number }) =>
    Math.max(Math.abs(result.extremes[index].max), Math.abs(result.extremes[index].min))
  // an unnamed line has the name of one of its ports: usually a section of a named one
  const isNamed = ({ signal }: { signal: { id: string } }) => (/\.\w+\)$/.test(signal.id) ? 0 : 1)
  return [...own]
    .sort((a, b) => (quantity === 'pressure' ? isNamed(b) - isNamed(a) : 0) || size(b) - size(a))
    .slice(0, FIRST_TRACES)
    .map(({ signal }) => signal.id)
}
/**
 * Samples in a unit, thinned to about `most` points: the least and the greatest of each bucket
 * stay, so that no peak is lost.
 */
export function thinned(result: RunResult, signal: number, unit: Unit, most = 900): [number, number][] {
  const { times } = result
  const column = result.columns[signal]
  const point = (k: number): [number, number] => [times[k], fromSI(column[k], unit)]
  if (times.length <= most) return Array.from(times, (_, k) => point(k))
  const points: [number, number][] = []
  const bucket = Math.ceil((2 * times.length) / most)
  for (let start = 0; start < times.length; start += bucket) {
    let low = start
    let high = start
    for (let k = start; k < Math.min(start + bucket, times.length); k++) {
      if (column[k] < column[low]) low = k
      if (column[k] > column[high]) high = k
    }
    for (const k of low < high ? [low, high] : [high, low]) points.push(point(k))
  }
  return points
}
