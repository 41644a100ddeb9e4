/**
 * Dry friction that holds. Each moving part with dry friction, a shaft or what an element moves itself, sticks or slides; these are modes.
 *   held:    v = 0 exactly, friction equals the driving force F, as long as |F| ≤ what friction can hold at rest
 *   sliding: friction is against the direction of motion, until v has passed through 0 by more than the error that is allowed in it
 * Source: D. Karnopp, Computer simulation of stick-slip friction in mechanical dynamic systems, J. Dyn. Sys. Meas. Control 107 (1985),
 * with located events in the place of a band of speeds.
 */
import type { Model } from '../../catalogue/kind'
import type { CircuitArrays } from './arrays'
import type { Part } from './elements'

/** Force beyond what friction holds that sets a part in motion, N or N·m: more than rounding leaves. */
const LEAST_DRIVE = 1e-6

/** A moving part with dry friction. */
interface Body {
  /** State that is its speed, and its node where that is a shaft, −1 where it belongs to an element. */
  readonly state: number
  readonly node: number
  /** Its places in the arrays of friction, and the ports by which these act on the shaft, −1 where it is none. */
  readonly places: readonly number[]
  readonly ports: readonly number[]
  /** Indices of the elements whose friction acts on it. */
  readonly elements: readonly number[]
}

/** A dry friction on a body: the element, and its index among the frictions of that. */
interface Member {
  readonly element: number
  readonly index: number
  /** Port of a shaft, −1 for what the element moves itself. */
  readonly port: number
}
/** A body as the parts say it, before states are numbered. */
export interface BodyParts {
  /** Node of a shaft, −1 for what one element moves itself by this state of it. */
  readonly node: number
  readonly velocity: number
  readonly members: Member[]
}

/** The shafts with a state and the moving parts on which dry friction acts. */
export function frictionBodies(
  parts: readonly Part[],
  isImposed: (node: number) => boolean,
): readonly BodyParts[] {
  const shafts = new Map<number, BodyParts>()
  const own: BodyParts[] = []
  parts.forEach(({ model, nodes }, element) =>
    model.dryFriction?.forEach((at, index) => {
      if ('velocity' in at) {
        own.push({ node: -1, velocity: at.velocity, members: [{ element, index, port: -1 }] })
        return
      }
      const node = nodes[at.port]
      if (isImposed(node)) return
      const shaft = shafts.get(node) ?? { node, velocity: -1, members: [] }
      shafts.set(node, shaft)
      shaft.members.push({ element, index, port: at.port })
    }),
  )
  return [...own, ...shafts.values()]
}

/** Where the numbers of a circuit lie. */
export interface FrictionPlaces {
  readonly parts: readonly Part[]
  readonly arrays: CircuitArrays
  /** State of each node, −1 where it is imposed. */
  readonly nodeState: Int32Array
  /** First state of each element. */
  readonly firstState: readonly number[]
}
const placed = (
  { node, velocity, members }: BodyParts,
  { arrays, nodeState, firstState }: FrictionPlaces,
): Body => ({
  node,
  state: node < 0 ? firstState[members[0].element] + velocity : nodeState[node],
  places: members.map(({ element, index }) => arrays.offsets[element].frictions + index),
  ports: members.map(({ element, port }) => (node < 0 ? -1 : arrays.offsets[element].ports + port)),
  elements: members.map(({ element }) => element),
})

/** Id of the element that has the modes and event functions of friction. */
export const FRICTION = 'friction:bodies'
/** Of each body its mode, the direction in which it slides, and two event functions: for forward and for backward. */
export const frictionShape = (bodies: number): Model => ({
  modes: Array.from({ length: bodies }, () => 0),
  eventFunctions: Array.from({ length: 2 * bodies }, (_, i) => ({
    name: `body${i >> 1}:${i % 2 ? 'backward' : 'forward'}`,
    label: i % 2 ? 'moves backward' : 'moves forward',
    report: 0 as const,
    onlyForces: true as const,
  })),
})

export class DryFriction {
  private readonly bodies: readonly Body[]
  /** State and node of each body; its places, and the ports by which these act on a shaft, lie between starts b and b + 1. */
  private readonly states: Int32Array
  private readonly nodes: Int32Array
  private readonly starts: Int32Array
  private readonly places: Int32Array
  private readonly ports: Int32Array
  /** Nodes of shafts that are held: 1 for each. */
  readonly heldNode: Uint8Array
  /** Places on shafts whose speed is imposed, and the ports where they find it. */
  private readonly imposedPlaces: Int32Array
  private readonly imposedPorts: Int32Array
  /** Error allowed in the speed of each body, m/s or rad/s: within it a step does not know which way it moves. */
  private readonly uncertainty: Float64Array
  private readonly firstMode: number
  private readonly firstEvent: number
  /** Bodies that have just come to stand, and whose last speed is still to be taken. */
  private readonly stopping: number[] = []

  /** @param element index of the element with its modes @param changed called with the elements whose direction has changed */
  constructor(
    bodies: readonly BodyParts[],
    where: FrictionPlaces,
    element: number,
    private readonly network: {
      readonly arrays: CircuitArrays
      readonly inflow: Float64Array
      readonly firstElementState: number
      readonly potential: Float64Array
    },
    private readonly changed: (elements: readonly number[]) => void,
  ) {
    const { parts, arrays, nodeState } = where
    this.bodies = bodies.map((body) => placed(body, where))
    this.states = Int32Array.from(this.bodies, ({ state }) => state)
    this.nodes = Int32Array.from(this.bodies, ({ node }) => node)
    this.places = Int32Array.from(this.bodies.flatMap((body) => body.places))
    this.ports = Int32Array.from(this.bodies.flatMap((body) => body.ports))
    this.starts = new Int32Array(this.bodies.length + 1)
    this.bodies.forEach((body, b) => (this.starts[b + 1] = this.starts[b] + body.places.length))
    this.heldNode = new Uint8Array(nodeState.length)
    this.uncertainty = new Float64Array(this.bodies.length)
    this.firstMode = arrays.offsets[element].modes
    this.firstEvent = arrays.offsets[element].eventFunctions
    const imposed = parts.flatMap(({ model, nodes }, i) =>
      (model.dryFriction ?? []).flatMap((at, k) =>
        'port' in at && nodeState[nodes[at.port]] < 0
          ? [{ place: arrays.offsets[i].frictions + k, port: arrays.offsets[i].ports + at.port }]
          : [],
      ),
    )
    this.imposedPlaces = Int32Array.from(imposed, ({ place }) => place)
    this.imposedPorts = Int32Array.from(imposed, ({ port }) => port)
    this.readModes()
  }

  /** @param scale size of each state that matters @param tolerance relative, of the integrator */
  setTolerance(scale: Float64Array, tolerance: number): void {
    this.bodies.forEach(({ state }, b) => (this.uncertainty[b] = tolerance * scale[state]))
  }

  /** Shafts that are driven at a given speed slide as they turn: to be called when the potentials are at the ports. */
  followImposed(): void {
    const { imposedPlaces, imposedPorts } = this
    const { slide, p } = this.network.arrays
    for (let i = 0; i < imposedPlaces.length; i++) {
      const speed = p[imposedPorts[i]]
      slide[imposedPlaces[i]] = speed > 0 ? 1 : speed < 0 ? -1 : 0
    }
  }

  /**
   * Event functions where the elements and sums of flows stand evaluated; and on shafts that are held, what each element takes of the
   * torque, in proportion to what it can hold.
   */
  update(): void {
    const { states, nodes, starts, places, ports, firstMode, firstEvent, uncertainty } = this
    const { arrays, inflow, firstElementState, potential } = this.network
    const { mode, g, x, held, holdForward, holdBack, q } = arrays
    for (let b = 0, event = firstEvent; b < states.length; b++, event += 2) {
      const node = nodes[b]
      const speed = node < 0 ? x[states[b] - firstElementState] : potential[node]
      const direction = mode[firstMode + b]
      if (direction !== 0) {
        g[event] = direction > 0 ? speed + uncertainty[b] : -1
        g[event + 1] = direction > 0 ? -1 : uncertainty[b] - speed
        continue
      }
      const end = starts[b + 1]
      let forward = 0
      let back = 0
      for (let i = starts[b]; i < end; i++) {
        forward += holdForward[places[i]]
        back += holdBack[places[i]]
      }
      const drive = node < 0 ? held[places[starts[b]]] : inflow[node]
      // one that is to be held, and still moves, slides on
      g[event] = speed !== 0 ? speed : drive - forward - LEAST_DRIVE
      g[event + 1] = speed !== 0 ? -speed : -drive - back - LEAST_DRIVE
      if (node < 0) continue
      const hold = drive > 0 ? forward : back
      for (let i = starts[b]; i < end; i++) {
        const share = drive > 0 ? holdForward[places[i]] : holdBack[places[i]]
        held[places[i]] = hold > 0 ? (drive * share) / hold : 0
        q[ports[i]] += held[places[i]]
      }
      if (hold > 0) inflow[node] = 0
    }
  }

  /** Sticks or lets slide: the answer to a change of sign of an event function. */
  switch(index: number, direction: 1 | -1): void {
    const { mode } = this.network.arrays
    const body = index >> 1
    const sense = index % 2 ? -1 : 1
    const before = mode[this.firstMode + body]
    const now = direction > 0 ? sense : before === sense ? 0 : before
    if (now === before) return
    mode[this.firstMode + body] = now
    if (now === 0) this.stopping.push(body)
    this.applyMode(body)
    this.changed(this.bodies[body].elements)
  }

  /** Sets the speed of what has come to a stop to 0: what is left of it is within the error of the integrator. @param y present state, is changed */
  settle(y: Float64Array): void {
    for (const body of this.stopping) y[this.bodies[body].state] = 0
    this.stopping.length = 0
  }

  /** Has everything slide as it moves at a state, and held what does not. @param y present state */
  slideAsMoving(y: Float64Array): void {
    const { mode } = this.network.arrays
    this.bodies.forEach(({ state }, b) => (mode[this.firstMode + b] = Math.sign(y[state])))
    this.readModes()
  }
  /** Lets slide what stands and is driven by more than friction holds, where the network is evaluated. */
  breakAway(): void {
    const { g, mode } = this.network.arrays
    for (let b = 0; b < this.bodies.length; b++) {
      if (mode[this.firstMode + b] !== 0) continue
      if (g[this.firstEvent + 2 * b] >= 0) this.switch(2 * b, 1)
      else if (g[this.firstEvent + 2 * b + 1] >= 0) this.switch(2 * b + 1, 1)
    }
  }
  /** Applies the modes after they were loaded. */
  readModes(): void {
    this.stopping.length = 0
    for (let body = 0; body < this.bodies.length; body++) this.applyMode(body)
  }

  private applyMode(body: number): void {
    const { arrays } = this.network
    const { places, node } = this.bodies[body]
    const direction = arrays.mode[this.firstMode + body]
    for (const place of places) arrays.slide[place] = direction
    if (node >= 0) this.heldNode[node] = direction === 0 ? 1 : 0
  }
}
