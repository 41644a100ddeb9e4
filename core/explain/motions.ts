/** The motions of a run: when each mover goes which way, how far and how fast. */
import { sampleAt, type RunResult } from '../simulate/result'
import { stretchesOf, type Direction, type Mover } from './movers'

export interface Motion {
  readonly mover: Mover
  readonly direction: Direction
  /** s */
  readonly start: number
  readonly end: number
  /** Way in its direction, m or rad; over its time the mean speed. */
  readonly way: number
  /** Where it stands still on its way, s. */
  readonly pauses: readonly (readonly [from: number, to: number])[]
}

/** s: shorter motions are swings. */
export const SWING = 0.08
/** Share of the longest motion of a mover below which another is a swing. */
const LEAST_WAY = 0.02
/** s: an input that changes so long before a motion is its command. */
const COMMANDED = 0.6

/** Motions of a mover; one that goes on in the same direction after a stop, with nothing commanded, is one motion with a pause. */
export function motionsOf(mover: Mover, result: RunResult): Motion[] {
  const { times } = result
  const column = result.columns[mover.speed]
  const found = stretchesOf(mover, result, SWING).flatMap(({ from, to, direction }): Motion[] => {
    if (direction === 0) return []
    let way = 0
    for (let i = from; i < to; i++) way += 0.5 * (column[i] + column[i + 1]) * (times[i + 1] - times[i])
    const end = times[Math.min(to + 1, times.length - 1)]
    return [{ mover, direction, start: times[from], end, way: Math.abs(way), pauses: [] }]
  })
  const longest = Math.max(0, ...found.map(({ way }) => way))
  const motions: Motion[] = []
  for (const motion of found) {
    if (motion.way < LEAST_WAY * longest) continue
    const last = motions.at(-1)
    if (last?.direction === motion.direction && !isCommanded(result, last.end, motion.start, 0))
      motions[motions.length - 1] = {
        ...last,
        end: motion.end,
        way: last.way + motion.way,
        pauses: [...last.pauses, [last.end, motion.start]],
      }
    else motions.push(motion)
  }
  return motions
}

/** Whether an input changes between two instants. @param lead s before the first that count as well */
export function isCommanded(result: RunResult, from: number, to: number, lead = COMMANDED): boolean {
  const first = sampleAt(result.times, from - lead).index
  const last = sampleAt(result.times, to).index
  return result.signals.some(({ role }, signal) => {
    if (role !== 'input') return false
    const column = result.columns[signal]
    for (let i = first + 1; i <= last; i++) if (column[i] !== column[i - 1]) return true
    return false
  })
}
