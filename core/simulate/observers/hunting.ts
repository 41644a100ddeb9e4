/**
 * Motions and valves that swing on and on: turning points of every state are followed, and where twelve half swings in a row come
 * within a quarter of a second each and do not die away, the swinging is reported with its frequency and size.
 */
import type { Quantity } from '../../units/quantities'
import type { Network } from '../circuit/network'
import type { Condition } from '../result'
import type { Observer } from './observer'

/** A swing counts from this share of the size that matters to the state. */
const LEAST_SWING = 0.05
/** Half swings that are looked back over, and the share of the swing that must be left after them. */
const HALF_SWINGS = 12
const LEFT_OVER = 0.7
/** A half swing that takes longer is no hunting, s. */
const LONGEST_HALF_SWING = 0.25
/** No more than this many are listed. */
const MOST_LISTED = 200

/** Fields of a signal in the flat state. */
const DIRECTION = 0
const EXTREME = 1
const EXTREME_AT = 2
const TURN = 3
const TURN_AT = 4
const COUNT = 5
const FIRST_AT = 6
/** Index into the list of conditions + 1 while it hunts, 0 where it does not. */
const OPEN = 7
const SWINGS = 8
const FIELDS = SWINGS + HALF_SWINGS

interface Watched {
  /** Place among what is recorded. */
  readonly place: number
  readonly threshold: number
  readonly component?: string
  readonly label: string
  readonly quantity: Quantity
}
/** What is known of one that hunts or hunted. */
interface Hunt {
  readonly signal: number
  readonly start: number
  readonly end: number
  readonly halfSwings: number
  readonly swing: number
  readonly at: number
}
/** Plain data. */
export interface HuntingState {
  readonly fields: Float64Array
  readonly hunts: readonly Hunt[]
}

export class Hunting implements Observer<HuntingState> {
  private readonly watched: readonly Watched[]
  private readonly recorded: Float64Array
  private readonly places: Int32Array
  private readonly thresholds: Float64Array
  private readonly fields: Float64Array
  private hunts: Hunt[] = []

  constructor(network: Network) {
    const { elements, arrays, nodes, nodeState, potential, scale } = network
    const states = elements.flatMap((e, i) =>
      e.states.flatMap((state, k): Watched[] =>
        // a position swings with its velocity
        state.isCounter || state.storesOil || state.quantity === 'length' || state.quantity === 'angle'
          ? []
          : [
              {
                place: arrays.recordedAt(arrays.x, arrays.offsets[i].states + k),
                threshold: LEAST_SWING * state.scale,
                component: e.pipe ? undefined : e.id,
                label: state.label,
                quantity: state.quantity,
              },
            ],
      ),
    )
    const shafts = [...nodes.entries()].flatMap(([i, node]): Watched[] =>
      node.domain !== 'shaft' || nodeState[i] < 0
        ? []
        : [
            {
              place: arrays.recordedAt(potential, i),
              threshold: LEAST_SWING * scale[nodeState[i]],
              component: node.ports[0]?.component,
              label: 'speed',
              quantity: 'rotationalSpeed',
            },
          ],
    )
    this.watched = [...states, ...shafts].filter((w) => w.component !== undefined)
    this.recorded = arrays.recorded
    this.places = Int32Array.from(this.watched, ({ place }) => place)
    this.thresholds = Float64Array.from(this.watched, ({ threshold }) => threshold)
    this.fields = new Float64Array(this.watched.length * FIELDS)
    this.watched.forEach(({ place }, k) => {
      this.fields[k * FIELDS + EXTREME] = arrays.recorded[place]
      this.fields[k * FIELDS + TURN_AT] = -Infinity
    })
  }

  observe(t: number): void {
    const { recorded, places, thresholds, fields } = this
    for (let k = 0, f = 0; k < places.length; k++, f += FIELDS) {
      const value = recorded[places[k]]
      const threshold = thresholds[k]
      const beyond = value - fields[f + EXTREME]
      const direction = fields[f + DIRECTION]
      if (direction === 0) {
        // it has not moved yet: the way it first goes
        if (beyond > threshold || -beyond > threshold) {
          fields[f + TURN] = fields[f + EXTREME]
          fields[f + DIRECTION] = beyond > 0 ? 1 : -1
          fields[f + EXTREME] = value
          fields[f + EXTREME_AT] = t
        }
      } else if (beyond * direction >= 0) {
        fields[f + EXTREME] = value
        fields[f + EXTREME_AT] = t
      } else if (-beyond * direction > threshold) {
        this.addTurningPoint(k, f)
        fields[f + DIRECTION] = -direction
        fields[f + EXTREME] = value
        fields[f + EXTREME_AT] = t
      }
      if (fields[f + OPEN] !== 0 && t - fields[f + TURN_AT] > 2 * LONGEST_HALF_SWING) fields[f + OPEN] = 0
    }
  }

  /** The signal has turned at its last extreme. */
  private addTurningPoint(signal: number, f: number): void {
    const { fields } = this
    const at = fields[f + EXTREME_AT]
    const swing = Math.abs(fields[f + EXTREME] - fields[f + TURN])
    const inTime = at - fields[f + TURN_AT] <= LONGEST_HALF_SWING
    if (!inTime) {
      fields[f + COUNT] = 0
      fields[f + FIRST_AT] = at
      fields[f + OPEN] = 0
    }
    fields[f + TURN] = fields[f + EXTREME]
    fields[f + TURN_AT] = at
    if (!inTime) return
    const count = fields[f + COUNT]++
    const place = f + SWINGS + (count % HALF_SWINGS)
    const before = fields[place]
    fields[place] = swing
    if (count < HALF_SWINGS) return
    const goesOn = swing >= LEFT_OVER * before
    const open = fields[f + OPEN]
    if (open !== 0) {
      const hunt = this.hunts[open - 1]
      if (!goesOn) fields[f + OPEN] = 0
      else
        this.hunts[open - 1] = {
          ...hunt,
          end: at,
          halfSwings: hunt.halfSwings + 1,
          ...(swing > hunt.swing ? { swing, at } : {}),
        }
    } else if (goesOn && this.hunts.length < MOST_LISTED) {
      this.hunts.push({ signal, start: fields[f + FIRST_AT], end: at, halfSwings: count + 1, swing, at })
      fields[f + OPEN] = this.hunts.length
    }
  }

  list(): Condition[] {
    return this.hunts.map(({ signal, start, end, halfSwings, swing, at }) => {
      const { component, label, quantity } = this.watched[signal]
      const frequency = halfSwings / 2 / (end - start)
      return {
        name: 'hunts',
        label: `hunts: ${label} swings at ${frequency.toPrecision(3)} Hz`,
        severity: 'warning',
        component,
        start,
        end,
        worst: { label: 'swing', quantity, value: swing, at },
      }
    })
  }

  save(): HuntingState {
    return { fields: this.fields.slice(), hunts: [...this.hunts] }
  }
  load({ fields, hunts }: HuntingState): void {
    this.fields.set(fields)
    this.hunts = [...hunts]
  }
}
