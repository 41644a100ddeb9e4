/** States of a run that come again, as in a machine that cycles. */
import type { WalkthroughState } from './walkthrough'

/** Most states that come again together, and least times that make a repetition. */
const LONGEST_CYCLE = 12
const LEAST_TIMES = 3
/** States that come again many times are listed once. */
export function withoutRepetitions(states: readonly WalkthroughState[]): WalkthroughState[] {
  const listed: WalkthroughState[] = []
  for (let i = 0; i < states.length;) {
    let best: { length: number; times: number } | undefined
    for (let length = 1; length <= LONGEST_CYCLE && i + length * LEAST_TIMES <= states.length; length++) {
      let times = 1
      const same = (k: number) => {
        const [a, b] = [states[i + k], states[i + times * length + k]]
        return (
          b !== undefined &&
          a.cause === b.cause &&
          a.moving.length === b.moving.length &&
          a.moving.every((m, j) => m.part === b.moving[j].part && m.direction === b.moving[j].direction)
        )
      }
      while (Array.from({ length }, (_, k) => k).every(same)) times++
      if (times >= LEAST_TIMES && length * times > (best ? best.length * best.times : 0))
        best = { length, times }
    }
    if (!best) {
      listed.push(states[i++])
      continue
    }
    const { length, times } = best
    listed.push(...states.slice(i, i + length - 1))
    const until = states[i + length * times - 1].end
    listed.push({ ...states[i + length - 1], repeats: { states: length, times, until } })
    i += length * times
  }
  return listed
}
