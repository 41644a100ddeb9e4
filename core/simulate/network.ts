/**
 * The equations of a drawn circuit. Nodes carry a potential (pressure, shaft speed) and a
 * capacity (oil volume, inertia); elements take flow from nodes and have states of their own.
 *   oil: dp/dt = K_e(p)/V · ΣQ      shaft: dω/dt = ΣT/J      rod: dx/dt = v
 */
import type { Local } from '../catalogue/kind'
import { Fluid, type FluidData } from '../fluid/fluid'
import type { Netlist, NetNode } from '../sheet/netlist'
import { Board } from './board'
import { heldNodes, partsOf, type Element, type Input } from './elements'
import type { InputSignal } from './inputs'
import { LocalDifferences } from './jacobian'
import type { Pattern } from './linear'
import type { Problem } from './rosenbrock'
import { wiringOf, type Wiring } from './wiring'

/** Smallest oil volume of a node, m³. */
const SMALLEST_VOLUME = 1e-6
/** Smallest inertia of a free shaft, kg·m². */
const SMALLEST_INERTIA = 1e-4
/** Sizes of a pressure, a shaft speed and a rod position that matter: 10 bar, 10 rad/s, 10 mm. */
const POTENTIAL_SCALE = { oil: 10e5, shaft: 10, rod: 10e-3 } as const
/** A high-pressure hose swells as if its oil had this bulk modulus beside its own, Pa: about 5 % of its volume at 300 bar. */
const HOSE_MODULUS = 6e8

/** A rod that is driven, and the ports that measure its force. */
interface Rod {
  readonly driver: Element
  readonly port: number
  readonly readers: readonly { readonly element: Element; readonly port: number }[]
}

/** One method of all models that have it, each with what it works on. */
class Calls {
  private readonly methods: readonly ((l: Local) => void)[]
  private readonly locals: readonly Local[]

  constructor(elements: readonly Element[], name: 'impose' | 'evaluate' | 'observe') {
    this.methods = elements.flatMap(({ model }) => model[name] ?? [])
    this.locals = elements.filter(({ model }) => model[name]).map(({ local }) => local)
  }

  all(): void {
    const { methods, locals } = this
    for (let i = 0; i < methods.length; i++) methods[i](locals[i])
  }
}

export class Network implements Problem {
  readonly n: number
  readonly elements: readonly Element[]
  readonly fluid: Fluid
  readonly nodes: readonly NetNode[]
  /** State index of each node, −1 where an element imposes its potential; they come before the states of elements. */
  readonly nodeState: Int32Array
  readonly potential: Float64Array
  readonly capacity: Float64Array
  readonly inflow: Float64Array
  readonly initial: Float64Array
  readonly scale: Float64Array
  /** What the elements read and write. */
  readonly board: Board
  readonly isOil: Uint8Array
  /** Time of the last evaluation, s. */
  time = 0
  /** Nodes with a state, in the order of the states; those of oil, and the others. */
  private readonly stateNodes: Int32Array
  private readonly oilNodes: Int32Array
  private readonly otherNodes: Int32Array
  /** Bulk modulus at each node, and its slope. */
  private readonly modulus: Float64Array
  private readonly modulusSlope: Float64Array
  /** What a flow does to the potential of a node with a state, K/V or 1/J. */
  private readonly stiffness: Float64Array
  private readonly wiring: Wiring
  /** Compliance of hoses and of trapped air at each node, m³/Pa; read only where there are any. */
  private readonly nodeGive: Float64Array
  private readonly giving: boolean
  private readonly hoseCompliance: Float64Array
  private readonly firstElementState: number
  private readonly signals: readonly InputSignal[]
  private readonly imposing: Calls
  private readonly evaluating: Calls
  private readonly observing: Calls
  /** Capacity of each node without what swells there, and the least that it may have. */
  private readonly firmCapacity: Float64Array
  private readonly leastCapacity: Float64Array
  private readonly rods: readonly Rod[]
  private readonly stateName: readonly string[]
  private readonly differences: LocalDifferences
  private readonly rowStiffness: Float64Array
  private readonly rowSwelling: Float64Array
  /** Inputs whose segment slopes. */
  private readonly movingSignals: Int32Array
  private movingCount = 0
  /** Commands stay as they are at the start, whatever the time. */
  private held = false

  constructor(
    netlist: Netlist,
    fluidData: FluidData,
    inputs: readonly Input[],
    initialPressure: ReadonlyMap<number, number>,
    tankVolume?: number,
  ) {
    this.fluid = new Fluid(fluidData, tankVolume)
    const nodes = netlist.nodes
    this.nodes = nodes
    const parts = partsOf(netlist, this.fluid, inputs)
    const held = heldNodes(parts, netlist)
    this.stateNodes = Int32Array.from(nodes.keys()).filter((node) => !held.has(node))
    this.nodeState = new Int32Array(nodes.length).fill(-1)
    this.stateNodes.forEach((node, state) => (this.nodeState[node] = state))
    this.firstElementState = this.stateNodes.length
    this.board = new Board(
      parts.map(({ model, nodes, inputs }) => ({ model, ports: nodes.length, inputs: inputs.length })),
    )
    const { locals } = this.board
    this.elements = parts.map((part, i): Element => ({
      ...part,
      local: locals[i],
      firstState: this.firstElementState + this.board.starts[i].states,
      states: part.model.states ?? [],
    }))
    this.imposing = new Calls(this.elements, 'impose')
    this.evaluating = new Calls(this.elements, 'evaluate')
    this.observing = new Calls(this.elements, 'observe')
    this.signals = parts.flatMap((part) => part.inputs.map((input) => input.signal))
    this.movingSignals = new Int32Array(this.signals.length)
    this.n = this.firstElementState + this.board.x.length
    this.stateName = [
      ...Array.from(this.stateNodes, (node) => nodes[node].name),
      ...this.elements.flatMap((e) => e.states.map((s) => `${e.id} ${s.label}`)),
    ]

    this.wiring = wiringOf(parts, this.stateNodes, this.nodeState)
    this.rods = rodsOf(this.elements)

    this.isOil = Uint8Array.from(nodes, (node) => (node.domain === 'oil' ? 1 : 0))
    this.hoseCompliance = Float64Array.from(nodes, (node) => node.hoseVolume / HOSE_MODULUS)
    this.giving =
      nodes.some((node) => node.hoseVolume > 0) ||
      inputs.some((i) => 'form' in i.spec && i.spec.form === 'air')
    this.nodeGive = new Float64Array(nodes.length)
    this.firmCapacity = Float64Array.from(nodes, (node) => (node.domain === 'oil' ? node.volume : 0))
    this.leastCapacity = Float64Array.from(nodes, (node, i) => {
      if (this.nodeState[i] < 0) return 0
      return node.domain === 'oil' ? SMALLEST_VOLUME : SMALLEST_INERTIA
    })
    this.potential = new Float64Array(nodes.length)
    this.capacity = new Float64Array(nodes.length)
    this.inflow = new Float64Array(nodes.length)
    this.stiffness = new Float64Array(nodes.length)
    this.oilNodes = this.stateNodes.filter((node) => this.isOil[node])
    this.otherNodes = this.stateNodes.filter((node) => !this.isOil[node])
    this.modulus = new Float64Array(nodes.length)
    this.modulusSlope = new Float64Array(nodes.length)

    this.initial = new Float64Array(this.n)
    this.scale = new Float64Array(this.n)
    this.stateNodes.forEach((node, state) => {
      this.scale[state] = POTENTIAL_SCALE[nodes[node].domain]
      this.initial[state] = initialPressure.get(node) ?? 0
    })
    for (const e of this.elements) {
      for (const { port, value } of e.model.initialPotentials ?? []) {
        const s = this.nodeState[e.nodes[port]]
        if (s >= 0 && !initialPressure.has(e.nodes[port])) this.initial[s] = value
      }
      e.states.forEach((s, i) => {
        this.initial[e.firstState + i] = s.initial
        this.scale[e.firstState + i] = s.scale
      })
    }
    this.rowStiffness = new Float64Array(this.firstElementState)
    this.rowSwelling = new Float64Array(this.firstElementState)
    this.differences = new LocalDifferences(
      this.elements,
      this.board,
      this.nodeState,
      this.scale,
      this.firstElementState,
    )
    this.weigh()
  }

  get portNode(): Int32Array {
    return this.wiring.portNode
  }
  get pattern(): Pattern {
    return this.differences.pattern
  }
  get entries(): number {
    return this.pattern.columns.length
  }

  /** Holds the commands that stand at an instant, for as long as wanted. */
  hold(t: number): void {
    this.enter(t)
    this.movingCount = 0
    this.held = true
  }
  release(): void {
    this.held = false
  }

  /** Chooses the schedule's segments that begin at or before t. */
  enter(t: number): void {
    if (this.held) return
    this.movingCount = 0
    this.fluid.overTank.fill(0)
    for (let i = 0; i < this.signals.length; i++) {
      const signal = this.signals[i]
      signal.enter(t)
      this.board.u[i] = signal.value(t)
      if (signal.slope !== 0) this.movingSignals[this.movingCount++] = i
    }
  }

  /** Finds what the elements add to the capacity of their nodes at all times. */
  private weigh(): void {
    const { firmCapacity, leastCapacity, capacity, wiring } = this
    this.enter(0)
    this.consult(0, this.initial)
    for (const port of wiring.constant) firmCapacity[wiring.portNode[port]] += this.board.v[port]
    for (let i = 0; i < capacity.length; i++) capacity[i] = Math.max(firmCapacity[i], leastCapacity[i])
  }

  /** All elements, nodes and sums at (t, y). */
  evaluate(t: number, y: Float64Array): void {
    this.consult(t, y)
    this.sum()
  }

  /** Gives the elements their potentials, states and inputs, and lets each find its flows and rates. */
  private consult(t: number, y: Float64Array): void {
    const { potential, stateNodes, firstElementState } = this
    const { freePorts, freeStates, holders, heldNodes, followers, followed } = this.wiring
    const { p, x, u } = this.board
    this.time = t
    // what stands still keeps the value it had where its segment began
    for (let k = 0; k < this.movingCount; k++) {
      const i = this.movingSignals[k]
      u[i] = this.signals[i].value(t)
    }
    for (let k = 0; k < stateNodes.length; k++) potential[stateNodes[k]] = y[k]
    for (let k = 0; k < freePorts.length; k++) p[freePorts[k]] = y[freeStates[k]]
    this.imposing.all()
    for (let k = 0; k < holders.length; k++) potential[heldNodes[k]] = p[holders[k]]
    for (let k = 0; k < followers.length; k++) p[followers[k]] = potential[followed[k]]
    for (let i = 0; i < x.length; i++) x[i] = y[firstElementState + i]
    this.evaluating.all()
  }

  /** Inflow, capacity and stiffness of every node from its ports: K_e/V of oil, with hoses and trapped air 1/(V/K_e + C); 1/J. */
  private sum(): void {
    const { capacity, inflow, stiffness, potential, oilNodes, otherNodes, firmCapacity, leastCapacity } = this
    const { giving, nodeGive, modulus } = this
    const { takers, swelling, holders, heldNodes, otherHolders } = this.wiring
    const { q, v } = this.board
    const { nodes, ports, starts } = takers
    for (let n = 0, k = 0; n < nodes.length; n++) {
      let flow = 0
      for (const end = starts[n + 1]; k < end; k++) flow -= q[ports[k]]
      inflow[nodes[n]] = flow
    }
    for (let n = 0, k = 0; n < swelling.nodes.length; n++) {
      const node = swelling.nodes[n]
      let sum = firmCapacity[node]
      for (const end = swelling.starts[n + 1]; k < end; k++) sum += v[swelling.ports[k]]
      capacity[node] = sum > leastCapacity[node] ? sum : leastCapacity[node]
    }
    if (giving) this.addGive()
    this.fluid.bulkModuli(potential, oilNodes, modulus)
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      stiffness[i] = giving ? 1 / (capacity[i] / modulus[i] + nodeGive[i]) : modulus[i] / capacity[i]
    }
    for (let k = 0; k < otherNodes.length; k++) stiffness[otherNodes[k]] = 1 / capacity[otherNodes[k]]
    // what holds a node takes what is left over
    for (let k = 0; k < holders.length; k++) q[holders[k]] = inflow[heldNodes[k]]
    for (let k = 0; k < otherHolders.length; k++) q[otherHolders[k]] = 0
  }

  private addGive(): void {
    const { portNode } = this.wiring
    const { nodeGive } = this
    const { a } = this.board
    nodeGive.set(this.hoseCompliance)
    for (let k = 0; k < portNode.length; k++) nodeGive[portNode[k]] += a[k]
  }

  rate(t: number, y: Float64Array, rate: Float64Array): void {
    this.evaluate(t, y)
    this.rateHere(rate)
  }

  /** Rates from the last evaluation. */
  rateHere(rate: Float64Array): void {
    const { stateNodes, firstElementState, inflow, stiffness } = this
    const { dx } = this.board
    for (let k = 0; k < stateNodes.length; k++) {
      const i = stateNodes[k]
      rate[k] = stiffness[i] * inflow[i]
    }
    for (let i = 0; i < dx.length; i++) rate[firstElementState + i] = dx[i]
  }

  /** dV/dp of the oil stored at some nodes: V/K_e, m³/Pa; 0 at a node that is held. */
  compliances(nodes: Int32Array, into: Float64Array): void {
    const { nodeState, stiffness } = this
    for (let k = 0; k < nodes.length; k++) into[k] = nodeState[nodes[k]] < 0 ? 0 : 1 / stiffness[nodes[k]]
  }

  /**
   * At the point of the last `rate`. The stiffness of oil s = 1/(V/K_e + C), without hoses and trapped air K_e/V, falls with its
   * volume, ∂s/∂V = −s²/K_e, and changes with its pressure, ∂s/∂p = s²·V/K_e²·dK_e/dp.
   */
  jacobian(values: Float64Array): void {
    const { stateNodes, oilNodes, nodeState, potential, capacity, inflow, isOil, fluid, giving } = this
    const { diagonal } = this.differences
    const { stiffness, rowStiffness, rowSwelling, modulus, modulusSlope } = this
    for (let k = 0; k < stateNodes.length; k++) {
      const i = stateNodes[k]
      rowStiffness[k] = stiffness[i]
      rowSwelling[k] = isOil[i] ? inflow[i] * (giving ? stiffness[i] / modulus[i] : 1 / capacity[i]) : 0
    }
    this.differences.assemble(values, rowStiffness, rowSwelling)
    fluid.bulkModuli(potential, oilNodes, modulus, modulusSlope)
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      const row = nodeState[i]
      const share = giving ? (stiffness[i] * capacity[i]) / modulus[i] : 1
      values[diagonal[row]] += modulusSlope[i] * share * rowSwelling[row]
    }
  }

  timeDerivative(t: number, y: Float64Array, here: Float64Array, derivative: Float64Array): boolean {
    if (this.movingCount === 0) return false
    const step = 1e-7
    this.rate(t + step, y, derivative)
    for (let i = 0; i < derivative.length; i++) derivative[i] = (derivative[i] - here[i]) / step
    return true
  }

  /** Outputs, condition measures and powers of every element, after `evaluate`. */
  observe(): void {
    this.observing.all()
    // what measures a rod reads the force that its driver has just found
    for (const { driver, port, readers } of this.rods)
      for (const reader of readers) {
        reader.element.local.f[reader.port] = driver.local.f[port]
        reader.element.model.observe?.(reader.element.local)
      }
  }

  /** Sets every mode from the side of its guard on which the state lies. */
  settleModes(t: number, y: Float64Array): void {
    this.evaluate(t, y)
    for (const { model, local } of this.elements)
      for (let i = 0; i < local.g.length; i++) model.switch?.(local, i, local.g[i] >= 0 ? 1 : -1)
  }

  /** The element and words of a state, for messages. */
  describeState(index: number): { component?: string; pipe?: string; label: string } {
    for (const e of this.elements)
      if (index >= e.firstState && index < e.firstState + e.states.length)
        return { component: e.pipe ? undefined : e.id, pipe: e.pipe, label: this.stateName[index] }
    const node = this.nodes[this.stateNodes[index]]
    return {
      component: node?.ports[0]?.component,
      pipe: node?.pipes[0],
      label: `pressure at ${this.stateName[index]}`,
    }
  }
}

/** Rods that are driven, with the ports that measure their force. */
function rodsOf(elements: readonly Element[]): Rod[] {
  const ends = elements.flatMap((element) =>
    (element.resolved?.kind.ports ?? []).flatMap((spec, port) =>
      spec.domain === 'rod' ? [{ element, port, drives: spec.drives }] : [],
    ),
  )
  return ends
    .filter((end) => end.drives)
    .map(({ element: driver, port }) => ({
      driver,
      port,
      readers: ends.filter((end) => !end.drives && end.element.nodes[end.port] === driver.nodes[port]),
    }))
    .filter((rod) => rod.readers.length > 0)
}
