/**
 * The equations of a drawn circuit. Nodes carry a potential (pressure, shaft speed) and a
 * capacity (oil volume, inertia); elements take flow from nodes and have states of their own.
 *   oil: dp/dt = K_e(p)/V · ΣQ      shaft: dω/dt = ΣT/J      rod: dx/dt = v
 */
import type { Local } from '../../catalogue/kind'
import { Fluid } from '../../fluid/fluid'
import type { NetNode } from '../../sheet/netlist'
import type { ResolvedComponent } from '../../sheet/resolve'
import { ATMOSPHERE } from '../../units/quantities'
import { linearSolver, type LinearSolver, type Pattern } from '../numerics/linear'
import type { Problem } from '../numerics/rosenbrock'
import { CircuitArrays } from './arrays'
import { burstPressures } from './bursting'
import { connectivityOf, type Connectivity } from './connectivity'
import type { CircuitDefinition } from './definition'
import { DryFriction, FRICTION, frictionBodies, frictionShape } from './dry-friction'
import { imposedNodes, modelOf, NO_PORTS, partsOf, type Element, type Part, WATCH } from './elements'
import { SignalWatch } from './signal-watch'
import { InputBank } from './input-bank'
import { LocalDifferences, type DerivativesData } from './jacobian'
import { oilLines, type OilLine } from './oil-lines'

/** Smallest oil volume of a node, m³. */
const SMALLEST_VOLUME = 1e-6
/** Smallest inertia of a free shaft, kg·m². */
const SMALLEST_INERTIA = 1e-4
/** Sizes of a pressure, a shaft speed and a rod position that matter: 10 bar, 10 rad/s, 10 mm. */
const POTENTIAL_SCALE = { oil: 10e5, shaft: 10, rod: 10e-3 } as const
/** A step may end this far below zero absolute pressure, Pa: what the error control leaves of a void. */
const BELOW_ZERO = 50
/**
 * Error allowed in the oil of a node, in shares of its volume, or of a large volume, m³, if it has more: K_e times that in its pressure,
 * times the relative tolerance.
 */
const VOLUME_SCALE = 0.1
const LARGE_VOLUME = 0.01

/** A rod that is driven, and the ports that measure its force. */
interface Rod {
  readonly driver: Element
  readonly port: number
  readonly readers: readonly { readonly element: Element; readonly port: number }[]
  /** What can hold it. */
  readonly holders: readonly Element[]
}

/** One method of all models that have it, each with what it works on. */
class Calls {
  private readonly methods: readonly ((l: Local) => void)[]
  private readonly locals: readonly Local[]

  constructor(elements: readonly Element[], name: 'impose' | 'evaluate' | 'observe') {
    const those = elements.filter(({ model }) => model[name])
    // equal kinds one after the other: the processor then knows where the next call goes
    const kinds = [...new Set(those.map(({ resolved }) => resolved?.kind))]
    const sorted = kinds.flatMap((kind) => those.filter(({ resolved }) => resolved?.kind === kind))
    this.methods = sorted.map(({ model }) => model[name]!)
    this.locals = sorted.map(({ local }) => local)
  }

  all(): void {
    const { methods, locals } = this
    for (let i = 0; i < methods.length; i++) methods[i](locals[i])
  }
}

export class Network implements Problem {
  readonly n: number
  readonly elements: Element[]
  readonly fluid: Fluid
  readonly inputs: InputBank
  /** Pressure at which each node's line would burst, Pa. */
  readonly burstPressure: Float64Array
  /** Nodes whose bursting ends the run. */
  readonly endsWhereBursts: Int32Array
  readonly nodes: readonly NetNode[]
  /** State index of each node, −1 where an element imposes its potential; they come before the states of elements. */
  readonly nodeState: Int32Array
  readonly potential: Float64Array
  readonly capacity: Float64Array
  readonly inflow: Float64Array
  readonly initial: Float64Array
  readonly scale: Float64Array
  /** What the elements read and write. */
  readonly arrays: CircuitArrays
  readonly isOil: Uint8Array
  /** Time of the last evaluation, s. */
  time = 0
  /** Where the elements stand evaluated, with the inputs, modes and oil of now; NaN where they do not. */
  private evaluatedTime = Number.NaN
  private readonly evaluatedState: Float64Array
  /** Oil level or temperature change the equations within a step. */
  private oilFollows = false
  /** What is imposed stands in the arrays, as inputs, modes and oil are now. */
  private imposed = false
  /** Nodes with a state, in the order of the states; those of oil, and the others. */
  private readonly stateNodes: Int32Array
  private readonly oilNodes: Int32Array
  private readonly otherNodes: Int32Array
  /** Bulk modulus at each node, and its slope. */
  private readonly modulus: Float64Array
  private readonly modulusSlope: Float64Array
  /** What a flow does to the potential of a node with a state, K/V or 1/J. */
  readonly stiffness: Float64Array
  private connectivity: Connectivity
  /** Compliance of hoses and of trapped air at each node, m³/Pa; read only where there are any. */
  private readonly extraCompliance: Float64Array
  private hasExtraCompliance = false
  /** Whether an element has a fault that may trap air. */
  private mayTrapAir = false
  private readonly wallCompliance: Float64Array
  readonly firstElementState: number
  private imposing: Calls
  private evaluating: Calls
  private observing: Calls
  /** Capacity of each node without what has a variable volume there, and the least that it may have. */
  private readonly constantCapacity: Float64Array
  private readonly leastCapacity: Float64Array
  private rods: readonly Rod[]
  private readonly stateName: readonly string[]
  private readonly differences: LocalDifferences
  /** Signals that somebody outside watches. */
  readonly watch?: SignalWatch
  private readonly friction?: DryFriction
  private linear?: LinearSolver
  /** All pipes of oil whose flow is determined. */
  readonly oilLines: readonly OilLine[]
  private readonly rowStiffness: Float64Array
  private readonly rowSwelling: Float64Array
  constructor(definition: CircuitDefinition) {
    const { netlist, initialPressure } = definition
    this.fluid = new Fluid(definition.fluid, definition.tank.oil)
    const nodes = netlist.nodes
    this.nodes = nodes
    this.burstPressure = burstPressures(netlist)
    const watched = definition.control?.watched ?? []
    this.watch = watched.length ? new SignalWatch(watched) : undefined
    const parts = partsOf(definition, this.fluid, this.watch)
    const imposed = imposedNodes(parts, netlist)
    const bodies = frictionBodies(parts, (node) => imposed.has(node))
    if (parts.some(({ model }) => model.dryFriction))
      parts.push({
        ...NO_PORTS,
        id: FRICTION,
        model: {
          ...frictionShape(bodies.length),
          switch: (_l, index, direction) => this.friction!.switch(index, direction),
        },
        inputs: [],
        inputsRead: 0,
        internal: true,
      })
    this.stateNodes = Int32Array.from(nodes.keys()).filter((node) => !imposed.has(node))
    this.nodeState = new Int32Array(nodes.length).fill(-1)
    this.stateNodes.forEach((node, state) => (this.nodeState[node] = state))
    this.firstElementState = this.stateNodes.length
    this.arrays = new CircuitArrays(
      parts.map(({ model, nodes, inputs }) => ({ model, ports: nodes.length, inputs: inputs.length })),
      nodes.length,
    )
    const { locals } = this.arrays
    this.elements = parts.map((part, i): Element => ({
      ...part,
      local: locals[i],
      firstState: this.firstElementState + this.arrays.offsets[i].states,
      firstInput: this.arrays.offsets[i].inputs,
      states: part.model.states ?? [],
    }))
    this.imposing = new Calls(this.elements, 'impose')
    this.evaluating = new Calls(this.elements, 'evaluate')
    this.observing = new Calls(this.elements, 'observe')
    this.inputs = new InputBank(
      parts.flatMap((part) => part.inputs),
      this.arrays.u,
    )
    this.n = this.firstElementState + this.arrays.x.length
    this.evaluatedState = new Float64Array(this.n)
    this.stateName = [
      ...Array.from(this.stateNodes, (node) => nodes[node].name),
      ...this.elements.flatMap((e) => e.states.map((s) => `${e.id} ${s.label}`)),
    ]

    this.connectivity = connectivityOf(parts, this.stateNodes, this.nodeState)
    this.rods = rodsOf(this.elements)

    this.isOil = Uint8Array.from(nodes, (node) => (node.domain === 'oil' ? 1 : 0))
    this.wallCompliance = Float64Array.from(nodes, (node) => node.wallCompliance)
    this.extraCompliance = new Float64Array(nodes.length)
    this.findExtraCompliance()
    this.constantCapacity = new Float64Array(nodes.length)
    this.leastCapacity = Float64Array.from(nodes, (node, i) => {
      if (this.nodeState[i] < 0) return 0
      return node.domain === 'oil' ? SMALLEST_VOLUME : SMALLEST_INERTIA
    })
    this.potential = this.arrays.potential
    this.capacity = new Float64Array(nodes.length)
    this.inflow = new Float64Array(nodes.length)
    this.stiffness = new Float64Array(nodes.length)
    this.oilNodes = this.stateNodes.filter((node) => this.isOil[node])
    this.otherNodes = this.stateNodes.filter((node) => !this.isOil[node])
    this.endsWhereBursts = this.oilNodes.filter(
      (node) => definition.onBurst === 'stop' && this.burstPressure[node] < Infinity,
    )
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
      this.arrays,
      this.nodeState,
      this.scale,
      this.firstElementState,
    )
    this.oilLines = oilLines(netlist, definition.speedClasses, this.elements, this.arrays, this.fluid)
    const friction = this.elements.findIndex((e) => e.id === FRICTION)
    if (friction >= 0)
      this.friction = new DryFriction(
        bodies,
        {
          parts,
          arrays: this.arrays,
          nodeState: this.nodeState,
          firstState: this.elements.map((e) => e.firstState),
        },
        friction,
        this,
        (elements) => this.differences.forget(elements),
      )
    this.watch?.bind(
      this.elements,
      this.elements.find((e) => e.id === WATCH)!,
    )
    this.inputs.activateSegments(0)
    this.evaluateElements(0, this.initial)
    if (this.startAlike()) this.evaluateElements(0, this.initial)
    this.computeConstantCapacities()
  }

  /** Gives free shafts the speed of those that they are coupled to. @returns whether it changed anything */
  private startAlike(): boolean {
    const coupled = this.elements.filter(({ model }) => model.alikeAtStart)
    let changed = false
    // along a chain of couplings, one after the other
    for (let i = 0; i < coupled.length; i++)
      for (const { model, nodes } of coupled) {
        const [a, b] = model.alikeAtStart!.map((port) => nodes[port])
        for (const [from, to] of [
          [a, b],
          [b, a],
        ]) {
          const state = this.nodeState[to]
          const speed = this.nodeState[from] < 0 ? this.potential[from] : this.initial[this.nodeState[from]]
          if (state < 0 || speed === 0 || this.initial[state] !== 0) continue
          this.initial[state] = speed
          changed = true
        }
      }
    return changed
  }

  /** Finds whether hoses, or air that a fault may trap, give beside the oil. */
  private findExtraCompliance(): void {
    this.mayTrapAir = this.elements.some(
      ({ resolved, inputs, inputsRead }) =>
        inputs.length > 0 &&
        inputsRead === inputs.length &&
        (resolved?.kind.faults ?? []).some((fault) => fault.form === 'air'),
    )
    this.hasExtraCompliance = this.mayTrapAir || this.wallCompliance.some((c) => c > 0)
    this.extraCompliance.set(this.wallCompliance)
  }

  get portNode(): Int32Array {
    return this.connectivity.portNode
  }
  get pattern(): Pattern {
    return this.differences.pattern
  }
  /** Solver of its linear systems, made once: its analysis takes as long as many steps. */
  get solver(): LinearSolver {
    return (this.linear ??= linearSolver(this.pattern))
  }
  get entries(): number {
    return this.pattern.columns.length
  }

  /** How exactly the integrator follows it: speeds within that error are none. @param tolerance relative */
  setTolerance(tolerance: number): void {
    this.friction?.setTolerance(this.scale, tolerance)
  }
  /** Modes have been switched at a state: what has come to stand loses its last speed there. @param y is changed */
  settle(y: Float64Array): void {
    this.friction?.settle(y)
    this.invalidate()
  }
  /** Sets the modes of dry friction from the speeds at y, where the modes before are not known. */
  slideAsMoving(t: number, y: Float64Array): void {
    this.invalidate()
    if (!this.friction) return
    this.friction.slideAsMoving(y)
    this.evaluate(t, y)
    this.friction.breakAway()
    this.invalidate()
  }
  /** Modes have been loaded. */
  modesLoaded(): void {
    this.friction?.readModes()
    this.invalidate()
  }
  /** The last evaluation is no longer valid: an input, a mode, a parameter or the oil has changed. */
  invalidate(): void {
    this.evaluatedTime = Number.NaN
    this.imposed = false
  }
  /** Takes up the inputs that hold from t on. */
  activateInputs(t: number): void {
    this.inputs.activateSegments(t)
    this.invalidate()
  }
  /** Holds the inputs of one time until they are released. */
  freezeInputs(t: number): void {
    this.inputs.freeze(t)
    this.invalidate()
  }
  unfreezeInputs(): void {
    this.inputs.unfreeze()
    this.invalidate()
  }
  /** Says whether oil level or temperature change the equations from now on; their values may have changed. */
  setOilTimeDependent(follows: boolean): void {
    if (follows || this.oilFollows) this.invalidate()
    this.oilFollows = follows
  }

  /** Capacities that no state changes, from the last evaluation of the elements. */
  private computeConstantCapacities(): void {
    const { constantCapacity, leastCapacity, capacity, connectivity, nodes } = this
    for (let i = 0; i < nodes.length; i++)
      constantCapacity[i] = nodes[i].domain === 'oil' ? nodes[i].volume : 0
    for (const port of connectivity.constant)
      constantCapacity[connectivity.portNode[port]] += this.arrays.v[port]
    for (let i = 0; i < capacity.length; i++) capacity[i] = Math.max(constantCapacity[i], leastCapacity[i])
  }

  /**
   * Puts an element with other values, or with its faults, in the place of the present one; its states and modes go on.
   * The network must stand evaluated at (t, y); afterwards that evaluation is no longer valid.
   * @throws Error in plain words where ports, states, modes or guards would be others
   */
  replace(index: number, resolved: ResolvedComponent, faulty: boolean, t: number, y: Float64Array): void {
    const old = this.elements[index]
    const part: Part = { ...old, resolved, ...modelOf(resolved, this.fluid, old.inputs, faulty) }
    const different = differenceOfShape(old, part)
    if (different)
      throw new Error(
        `${resolved.kind.label} ${old.id}: this cannot be changed while it runs, since ${different} would be others.`,
      )
    const refused = part.model.refuses?.(old.local)
    if (refused) throw new Error(`${resolved.kind.label} ${old.id}: ${refused}`)
    this.elements[index] = { ...old, ...part, states: part.model.states ?? [] }
    this.imposing = new Calls(this.elements, 'impose')
    this.evaluating = new Calls(this.elements, 'evaluate')
    this.observing = new Calls(this.elements, 'observe')
    this.connectivity = connectivityOf(this.elements, this.stateNodes, this.nodeState)
    this.rods = rodsOf(this.elements)
    this.differences.replace(index, this.elements[index])
    this.findExtraCompliance()
    // only a model with faults writes these
    old.local.a.fill(0)
    old.local.e.fill(0)
    this.invalidate()
    this.evaluateElements(t, y)
    this.computeConstantCapacities()
  }

  /** All elements, nodes and sums at (t, y); nothing where they stand there already. */
  evaluate(t: number, y: Float64Array): void {
    if (this.isEvaluatedAt(t, y)) return
    this.evaluateElements(t, y)
    this.assembleNodes()
    this.assembleImposedNodes()
    this.friction?.update()
    this.evaluatedTime = t
    this.evaluatedState.set(y)
  }

  private isEvaluatedAt(t: number, y: Float64Array): boolean {
    if (t !== this.evaluatedTime) return false
    const { evaluatedState } = this
    for (let i = 0; i < y.length; i++) if (y[i] !== evaluatedState[i]) return false
    return true
  }

  /** Gives the elements their potentials, states and inputs, and lets each find its flows and rates. */
  private evaluateElements(t: number, y: Float64Array): void {
    const { potential, stateNodes, firstElementState } = this
    const { freePorts, freeStates, imposingPorts, imposedNodes, followingPorts, followedNodes } =
      this.connectivity
    const { p, x } = this.arrays
    this.time = t
    this.evaluatedTime = Number.NaN
    this.inputs.evaluateAt(t)
    this.fluid.setTime(t)
    for (let k = 0; k < stateNodes.length; k++) potential[stateNodes[k]] = y[k]
    for (let k = 0; k < freePorts.length; k++) p[freePorts[k]] = y[freeStates[k]]
    if (!this.imposed || this.inputs.movingCount > 0 || this.oilFollows) {
      this.imposing.all()
      for (let k = 0; k < imposingPorts.length; k++) potential[imposedNodes[k]] = p[imposingPorts[k]]
      for (let k = 0; k < followingPorts.length; k++) p[followingPorts[k]] = potential[followedNodes[k]]
      this.friction?.followImposed()
      this.imposed = true
    }
    for (let i = 0; i < x.length; i++) x[i] = y[firstElementState + i]
    for (const { driver, port, holders } of this.rods) {
      let force = 0
      for (const { model, local } of holders) force += model.lockForce!(local)
      driver.local.h[port] = force
    }
    this.evaluating.all()
  }

  /** Inflow of some nodes from their ports. @param from the first in the list of nodes @param to after the last */
  private addFlows(from: number, to: number): void {
    const { inflow } = this
    const { q } = this.arrays
    const { nodes, ports, starts } = this.connectivity.flowPorts
    for (let n = from, k = starts[from]; n < to; n++) {
      let flow = 0
      for (const end = starts[n + 1]; k < end; k++) flow -= q[ports[k]]
      inflow[nodes[n]] = flow
    }
  }

  /**
   * Inflow, capacity and stiffness of every node with a state from its ports: K_e/V of oil, with hoses and trapped air 1/(V/K_e + C); 1/J.
   */
  private assembleNodes(): void {
    const { capacity, inflow, stiffness, potential, stateNodes, oilNodes, otherNodes } = this
    const { constantCapacity, leastCapacity, hasExtraCompliance, extraCompliance, modulus } = this
    const { variableVolume } = this.connectivity
    const { v } = this.arrays
    this.addFlows(0, stateNodes.length)
    for (let n = 0, k = 0; n < variableVolume.nodes.length; n++) {
      const node = variableVolume.nodes[n]
      let sum = constantCapacity[node]
      for (const end = variableVolume.starts[n + 1]; k < end; k++) sum += v[variableVolume.ports[k]]
      capacity[node] = sum > leastCapacity[node] ? sum : leastCapacity[node]
    }
    if (this.mayTrapAir) this.addTrappedAir()
    this.fluid.bulkModuli(potential, oilNodes, modulus)
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      const given = hasExtraCompliance ? modulus[i] * extraCompliance[i] : 0
      stiffness[i] = modulus[i] / (capacity[i] + given)
    }
    const held = this.friction?.heldNode
    for (let k = 0; k < otherNodes.length; k++) {
      const i = otherNodes[k]
      stiffness[i] = held && held[i] === 1 ? 0 : 1 / capacity[i]
    }
    // oil that warms needs more room
    const { expansionRate } = this.fluid
    if (expansionRate !== 0)
      for (let k = 0; k < oilNodes.length; k++) inflow[oilNodes[k]] += capacity[oilNodes[k]] * expansionRate
  }

  /** The same of the other nodes, on which no rate depends: what imposes the potential of a node takes what is left over there. */
  private assembleImposedNodes(): void {
    const { inflow, stateNodes } = this
    const { flowPorts, imposingPorts, imposedNodes, otherImposing } = this.connectivity
    const { q } = this.arrays
    this.addFlows(stateNodes.length, flowPorts.nodes.length)
    for (let k = 0; k < imposingPorts.length; k++) q[imposingPorts[k]] = inflow[imposedNodes[k]]
    for (let k = 0; k < otherImposing.length; k++) q[otherImposing[k]] = 0
  }

  private addTrappedAir(): void {
    const { portNode } = this.connectivity
    const { extraCompliance } = this
    const { a } = this.arrays
    extraCompliance.set(this.wallCompliance)
    for (let k = 0; k < a.length; k++) if (a[k] !== 0) extraCompliance[portNode[k]] += a[k]
  }

  rate(t: number, y: Float64Array, rate: Float64Array): void {
    // what the integrator tries is not asked for again: nothing is evaluated that no rate depends on
    if (!this.isEvaluatedAt(t, y)) {
      this.evaluateElements(t, y)
      this.assembleNodes()
    }
    const { stateNodes, firstElementState, inflow, stiffness } = this
    const { dx } = this.arrays
    for (let k = 0; k < stateNodes.length; k++) {
      const i = stateNodes[k]
      rate[k] = stiffness[i] * inflow[i]
    }
    for (let i = 0; i < dx.length; i++) rate[firstElementState + i] = dx[i]
  }

  /**
   * The greatest net inflow of an oil node with a state, where last evaluated: in units of a small flow, or of a small share of
   * what flows through it if that is more. @param flow m³/s
   */
  greatestImbalance(flow: number, share: number): number {
    const { inflow, nodeState } = this
    const { nodes, ports, starts } = this.connectivity.flowPorts
    const { q } = this.arrays
    let greatest = 0
    for (let n = 0, k = 0; n < nodes.length; n++) {
      let through = 0
      for (const end = starts[n + 1]; k < end; k++) through += Math.abs(q[ports[k]])
      const node = nodes[n]
      if (!this.isOil[node] || nodeState[node] < 0) continue
      const small = Math.max(flow, 0.5 * share * through)
      greatest = Math.max(greatest, Math.abs(inflow[node]) / small)
    }
    return greatest
  }

  /**
   * At the point of the last `rate`. The stiffness of oil s = 1/(V/K_e + C), without hoses and trapped air K_e/V, falls with its
   * volume, ∂s/∂V = −s²/K_e, and changes with its pressure, ∂s/∂p = s²·V/K_e²·dK_e/dp.
   */
  jacobian(values: Float64Array): void {
    const { stateNodes, oilNodes, nodeState, potential, capacity, inflow, isOil, fluid, hasExtraCompliance } =
      this
    const { diagonal } = this.differences
    const { stiffness, rowStiffness, rowSwelling, modulus, modulusSlope } = this
    for (let k = 0; k < stateNodes.length; k++) {
      const i = stateNodes[k]
      rowStiffness[k] = stiffness[i]
      rowSwelling[k] = isOil[i]
        ? inflow[i] * (hasExtraCompliance ? stiffness[i] / modulus[i] : 1 / capacity[i])
        : 0
    }
    this.differences.assemble(values, rowStiffness, rowSwelling)
    this.evaluatedTime = Number.NaN
    fluid.bulkModuli(potential, oilNodes, modulus, modulusSlope)
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      const row = nodeState[i]
      const share = hasExtraCompliance ? (stiffness[i] * capacity[i]) / modulus[i] : 1
      values[diagonal[row]] += modulusSlope[i] * share * rowSwelling[row]
    }
  }

  timeDerivative(t: number, y: Float64Array, here: Float64Array, derivative: Float64Array): boolean {
    if (this.inputs.movingCount === 0 && !this.oilFollows) return false
    const step = 1e-7
    this.rate(t + step, y, derivative)
    for (let i = 0; i < derivative.length; i++) derivative[i] = (derivative[i] - here[i]) / step
    return true
  }

  /** Error allowed in each state: a share of its scale, and in a void a share of the oil volume of its node. */
  absoluteTolerance(relative: number, absolute: Float64Array): void {
    const { scale, oilNodes, nodeState, modulus, capacity } = this
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      const state = nodeState[i]
      const volume = capacity[i]
      const of = (VOLUME_SCALE * modulus[i] * Math.min(volume, LARGE_VOLUME)) / volume
      absolute[state] = relative * Math.min(of, scale[state])
    }
  }
  /** No line is below zero absolute pressure. */
  isAdmissible(y: Float64Array): boolean {
    const { oilNodes, nodeState } = this
    for (let k = 0; k < oilNodes.length; k++)
      if (!(y[nodeState[oilNodes[k]]] > -ATMOSPHERE - BELOW_ZERO)) return false
    return true
  }

  /** Puts pressures that an interpolation within a step has left below zero absolute back to where a step may end. */
  clampPressures(y: Float64Array): void {
    const { oilNodes, nodeState } = this
    for (let k = 0; k < oilNodes.length; k++) {
      const state = nodeState[oilNodes[k]]
      if (y[state] < -ATMOSPHERE - BELOW_ZERO) y[state] = -ATMOSPHERE - BELOW_ZERO
    }
  }

  /** Outputs, condition measures and powers of every element at (t, y). */
  observe(t: number, y: Float64Array): void {
    this.evaluate(t, y)
    this.observing.all()
    // what measures a rod reads the force that its driver has just found
    for (const { driver, port, readers } of this.rods)
      for (const reader of readers) {
        reader.element.local.f[reader.port] = driver.local.f[port]
        reader.element.model.observe?.(reader.element.local)
      }
    this.watch?.update()
  }
  /** What event functions depend on at (t, y): with outputs only where somebody watches them. */
  evaluateEvents(t: number, y: Float64Array): void {
    if (this.watch) this.observe(t, y)
    else this.evaluate(t, y)
  }

  /** What the next Jacobian depends on beside the point of evaluation. */
  saveDerivatives(): DerivativesData {
    return this.differences.save()
  }
  loadDerivatives(saved: DerivativesData): void {
    this.differences.load(saved)
    this.invalidate()
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

/** What of two elements differs that a change in flight cannot carry over; undefined where nothing does. */
function differenceOfShape(a: Part, b: Part): string | undefined {
  const names = (list: readonly { readonly name: string }[] | undefined) =>
    (list ?? []).map((item) => item.name).join()
  if (names(a.model.states) !== names(b.model.states)) return 'its states'
  if (names(a.model.eventFunctions) !== names(b.model.eventFunctions)) return 'its events'
  if (names(a.model.outputs) !== names(b.model.outputs)) return 'its outputs'
  if (names(a.model.conditions) !== names(b.model.conditions)) return 'its conditions'
  if ((a.model.dryFriction?.length ?? 0) !== (b.model.dryFriction?.length ?? 0)) return 'its dry friction'
  if ((a.model.modes?.length ?? 0) !== (b.model.modes?.length ?? 0)) return 'its modes'
  if ((a.model.idlePorts ?? []).join() !== (b.model.idlePorts ?? []).join()) return 'the ports it uses'
  if (a.model.tank !== b.model.tank || a.model.breathing?.tank !== b.model.breathing?.tank) return 'its tank'
  return undefined
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
    .map(({ element: driver, port }) => {
      const readers = ends.filter((end) => !end.drives && end.element.nodes[end.port] === driver.nodes[port])
      return {
        driver,
        port,
        readers,
        holders: readers.map(({ element }) => element).filter(({ model }) => model.lockForce),
      }
    })
    .filter((rod) => rod.readers.length > 0)
}
