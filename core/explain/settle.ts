/** The operating point of a state: commands stay as they are and rods go on, until pressures, speeds and openings no longer change. */
import { Chattering } from '../simulate/circuit/event-functions'
import type { Network } from '../simulate/circuit/network'
import { countingStates, isAtRest, REST } from '../simulate/steady-state'
import { StepFailure, Stepper } from '../simulate/stepper'

export interface Settled {
  /**
   * steady: nothing changes any more but the places of what moves. stop: something ran to its stop or met its work-piece before. hunts: it
   * goes to and fro. changes: it still changed at the end. fails: it could not be solved.
   */
  readonly outcome: 'steady' | 'stop' | 'hunts' | 'changes' | 'fails'
  /** s that were solved. */
  readonly time: number
  /** The part that ran to its stop. */
  readonly part?: string
}

/** s that are solved at most. */
export const LONGEST = 3
const MOST_STEPS = 4000
/** Shares of the time over which a range is taken; not while something is braked at its stop. */
const LATE = [0.5, 1]
const BEFORE_STOP = [0.25, 0.75]
const TOLERANCE = 1e-3
const FIRST_STEP = 1e-4
/** Two readings count as one below this share of the range of a figure, and it turns round so often where it hunts. */
const TURN_SHARE = 0.05
const MOST_TURNS = 6

/**
 * Solves on with all inputs as they stand.
 * @param network shows the instant; afterwards it stands observed at the end @param y its state there; afterwards that at the end
 * @param figures how many values `read` gives @param read reads the figures from the observed network into an array
 * @param longest s
 * @returns with the least and greatest of each figure over the later part of the time
 */
export function settle(
  network: Network,
  y: Float64Array,
  start: number,
  figures: number,
  read: (into: Float64Array) => void,
  longest = LONGEST,
): Settled & { readonly least: Float64Array; readonly most: Float64Array } {
  const free = freeStates(network)
  const stepper = new Stepper(network, TOLERANCE, false)
  const { integrator, events } = stepper
  const values = new Float64Array(figures)
  const history: { t: number; values: Float64Array }[] = []
  let t = start
  const keep = () => {
    network.observe(t, y)
    read(values)
    history.push({ t, values: values.slice() })
  }
  const finish = (outcome: Settled['outcome'], part?: string) => {
    network.invalidate()
    keep()
    const [from, to] = outcome === 'stop' ? BEFORE_STOP : LATE
    const late =
      outcome === 'steady'
        ? history.slice(-1)
        : history.filter((h) => h.t >= start + from * (t - start) && h.t <= start + to * (t - start))
    if (!late.length) late.push(history[0])
    const least = values.map((_, i) => Math.min(...late.map((h) => h.values[i])))
    const most = values.map((_, i) => Math.max(...late.map((h) => h.values[i])))
    return { outcome, time: t - start, least, most, ...(part === undefined ? {} : { part }) }
  }
  try {
    events.initialise(t, y)
    integrator.restart(t, y, FIRST_STEP)
    for (let steps = 0; t < start + longest && steps < MOST_STEPS; steps++) {
      keep()
      if (isAtRest(network, t, y, free, REST)) return finish('steady')
      const share = stepper.step(start + longest)
      t = stepper.timeAt(share)
      y.set(stepper.y)
      if (share === 1) continue
      const stopped = partsAtStop(network)
      events.switchAll(t, y)
      integrator.restart(t, y, FIRST_STEP)
      const now = partsAtStop(network)
      const arrived = [...now].find((part) => !stopped.has(part))
      if (arrived !== undefined) return finish('stop', arrived.split('#')[0])
    }
  } catch (error) {
    if (!(error instanceof StepFailure || error instanceof Chattering)) throw error
    return finish(error instanceof Chattering ? 'hunts' : 'fails')
  }
  return finish(isHunting(history, figures) ? 'hunts' : 'changes')
}

/** States that need not come to rest: what counts, and the places of what moves. */
function freeStates(network: Network): Uint8Array {
  const free = countingStates(network)
  for (const { resolved, states, firstState } of network.elements) {
    const place = resolved?.kind.traits?.movement?.position
    const index = states.findIndex((s) => s.name === place)
    if (place !== undefined && index >= 0) free[firstState + index] = 1
  }
  network.nodes.forEach(({ domain }, node) => {
    if (domain === 'rod' && network.nodeState[node] >= 0) free[network.nodeState[node]] = 1
  })
  return free
}

/** Parts that move and whose modes are other than at the beginning: at a stop, or on a work-piece. */
const partsAtStop = (network: Network): Set<string> =>
  new Set(
    network.elements.flatMap(({ id, resolved, local }) =>
      resolved?.kind.traits?.movement
        ? [...local.mode].flatMap((mode, i) => (mode ? [`${id}#${i}`] : []))
        : [],
    ),
  )

/** Whether a figure turns round again and again. */
function isHunting(history: readonly { readonly values: Float64Array }[], figures: number): boolean {
  for (let i = 0; i < figures; i++) {
    const column = history.map((h) => h.values[i])
    const range = Math.max(...column) - Math.min(...column)
    if (!(range > 0)) continue
    let turns = 0
    let direction = 0
    let extreme = column[0]
    for (const value of column) {
      if (Math.abs(value - extreme) < TURN_SHARE * range) continue
      const now = Math.sign(value - extreme)
      if (direction && now !== direction) turns++
      direction = now
      extreme = value
    }
    if (turns >= MOST_TURNS) return true
  }
  return false
}
