/**
 * The equations of a drawn circuit. Nodes carry a potential (pressure, shaft speed) and a
 * capacity (oil volume, inertia); elements take flow from nodes and have states of their own.
 *   oil: dp/dt = K_e(p)/V · ΣQ      shaft: dω/dt = ΣT/J      rod: dx/dt = v
 */
import type { Local, Model } from '../catalogue/kind'
import { Fluid, type FluidData } from '../fluid/fluid'
import type { Netlist, NetNode } from '../sheet/netlist'
import { Board } from './board'
import { heldNodes, partsOf, type Element, type Input } from './elements'
import type { InputSignal } from './inputs'
import { LocalDifferences } from './jacobian'
import type { Pattern } from './linear'
import type { Problem } from './rosenbrock'

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

/** A port that holds its node; where several hold one, the first takes its flow. */
interface Imposer {
  readonly element: Element
  readonly port: number
  readonly node: number
  readonly first: boolean
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
  /** Node of every port of the board. */
  readonly portNode: Int32Array
  readonly isOil: Uint8Array
  /** Time of the last evaluation, s. */
  time = 0
  /** Nodes of oil that have a state; bulk modulus at each node, and its slope. */
  private readonly oilNodes: Int32Array
  private readonly modulus: Float64Array
  private readonly modulusSlope: Float64Array
  /** What a flow does to the potential of a node with a state, K/V or 1/J. */
  private readonly stiffness: Float64Array
  /** Nodes with a state, in the order of the states. */
  private readonly stateNodes: Int32Array
  /** Ports that take from each node (not those that hold it): those of node i lie between starts i and i + 1. */
  private readonly takerStart: Int32Array
  private readonly takers: Int32Array
  /** Compliance of hoses and of trapped air at each node, m³/Pa; read only where there are any. */
  private readonly nodeGive: Float64Array
  private readonly giving: boolean
  private readonly hoseCompliance: Float64Array
  private readonly firstElementState: number
  private readonly signals: readonly InputSignal[]
  private readonly locals: readonly Local[]
  private readonly evaluators: readonly Model['evaluate'][]
  private readonly observers: readonly Model['evaluate'][]
  private readonly observed: readonly Local[]
  private readonly baseVolume: Float64Array
  private readonly leastCapacity: Float64Array
  private readonly imposers: readonly Imposer[]
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
    this.locals = this.board.locals
    this.elements = parts.map((part, i): Element => ({
      ...part,
      local: this.locals[i],
      firstState: this.firstElementState + this.board.starts[i].states,
      states: part.model.states ?? [],
    }))
    this.evaluators = parts.map(({ model }) => model.evaluate)
    this.observers = parts.flatMap(({ model }) => model.observe ?? [])
    this.observed = this.locals.filter((_, i) => parts[i].model.observe)
    this.signals = parts.flatMap((part) => part.inputs.map((input) => input.signal))
    this.movingSignals = new Int32Array(this.signals.length)
    this.n = this.firstElementState + this.board.x.length
    this.stateName = [
      ...Array.from(this.stateNodes, (node) => nodes[node].name),
      ...this.elements.flatMap((e) => e.states.map((s) => `${e.id} ${s.label}`)),
    ]

    this.portNode = Int32Array.from(parts.flatMap((part) => [...part.nodes]))
    const holds = parts.flatMap((part) => part.imposes)
    const takersOf = nodes.map((): number[] => [])
    this.portNode.forEach((node, port) => {
      if (!holds[port]) takersOf[node].push(port)
    })
    this.takers = Int32Array.from(takersOf.flat())
    this.takerStart = new Int32Array(nodes.length + 1)
    takersOf.forEach((list, i) => (this.takerStart[i + 1] = this.takerStart[i] + list.length))
    const imposers: Imposer[] = []
    for (const element of this.elements)
      element.imposes.forEach((holds, port) => {
        if (!holds) return
        const node = element.nodes[port]
        imposers.push({ element, port, node, first: !imposers.some((i) => i.node === node) })
      })
    this.imposers = imposers
    this.rods = rodsOf(this.elements)

    this.isOil = Uint8Array.from(nodes, (node) => (node.domain === 'oil' ? 1 : 0))
    this.hoseCompliance = Float64Array.from(nodes, (node) => node.hoseVolume / HOSE_MODULUS)
    this.giving =
      nodes.some((node) => node.hoseVolume > 0) ||
      inputs.some((i) => 'form' in i.spec && i.spec.form === 'air')
    this.nodeGive = new Float64Array(nodes.length)
    this.baseVolume = Float64Array.from(nodes, (node) => (node.domain === 'oil' ? node.volume : 0))
    this.leastCapacity = Float64Array.from(nodes, (node) =>
      node.domain === 'oil' ? SMALLEST_VOLUME : SMALLEST_INERTIA,
    )
    this.potential = new Float64Array(nodes.length)
    this.capacity = new Float64Array(nodes.length)
    this.inflow = new Float64Array(nodes.length)
    this.stiffness = new Float64Array(nodes.length)
    this.oilNodes = this.stateNodes.filter((node) => this.isOil[node])
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
  }

  get pattern(): Pattern {
    return this.differences.pattern
  }
  get diagonal(): Int32Array {
    return this.differences.diagonal
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

  /** All elements, nodes and sums at (t, y). */
  evaluate(t: number, y: Float64Array): void {
    const { potential, stateNodes, firstElementState, portNode, imposers, locals, evaluators, inflow } = this
    const { p, x, u } = this.board
    this.time = t
    // what stands still keeps the value it had where its segment began
    for (let k = 0; k < this.movingCount; k++) {
      const i = this.movingSignals[k]
      u[i] = this.signals[i].value(t)
    }
    for (let k = 0; k < stateNodes.length; k++) potential[stateNodes[k]] = y[k]
    for (let k = 0; k < imposers.length; k++) {
      const { element, port, node, first } = imposers[k]
      element.model.impose!(element.local)
      if (first) potential[node] = element.local.p[port]
    }
    for (let k = 0; k < portNode.length; k++) p[k] = potential[portNode[k]]
    for (let i = 0; i < x.length; i++) x[i] = y[firstElementState + i]
    for (let e = 0; e < evaluators.length; e++) evaluators[e](locals[e])
    this.sum()
    // an imposing port takes what is left over
    for (let k = 0; k < imposers.length; k++) {
      const { element, port, node, first } = imposers[k]
      element.local.q[port] = first ? inflow[node] : 0
    }
  }

  /** Inflow, capacity and stiffness of every node from its ports: K_e/V of oil, with hoses and trapped air 1/(V/K_e + C); 1/J. */
  private sum(): void {
    const { takerStart, takers, baseVolume, capacity, inflow, nodeState, isOil, stiffness, potential } = this
    const { giving, nodeGive, modulus, leastCapacity } = this
    const { q, v } = this.board
    if (giving) this.addGive()
    this.fluid.bulkModuli(potential, this.oilNodes, modulus)
    for (let i = 0, k = 0; i < inflow.length; i++) {
      let flow = 0
      let volume = baseVolume[i]
      for (const end = takerStart[i + 1]; k < end; k++) {
        const port = takers[k]
        flow -= q[port]
        volume += v[port]
      }
      inflow[i] = flow
      if (nodeState[i] >= 0) {
        if (volume < leastCapacity[i]) volume = leastCapacity[i]
        if (!isOil[i]) stiffness[i] = 1 / volume
        else stiffness[i] = giving ? 1 / (volume / modulus[i] + nodeGive[i]) : modulus[i] / volume
      }
      capacity[i] = volume
    }
  }

  private addGive(): void {
    const { portNode, nodeGive } = this
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
    const { stateNodes, oilNodes, nodeState, potential, capacity, inflow, isOil, diagonal, fluid, giving } =
      this
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
    const { observers, observed } = this
    for (let e = 0; e < observers.length; e++) observers[e](observed[e])
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
