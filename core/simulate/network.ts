/**
 * The equations of a drawn circuit. Nodes carry a potential (pressure, shaft speed) and a
 * capacity (oil volume, inertia); elements take flow from nodes and have states of their own.
 *   oil: dp/dt = K_e(p)/V · ΣQ      shaft: dω/dt = ΣT/J      rod: dx/dt = v
 * The Jacobian is assembled from local differences, one small block an element.
 */
import { POWERS, type InputSpec, type Local, type Model, type StateSpec } from '../catalogue/kind'
import { withFaults, type Fault } from './faults'
import type { ResolvedComponent } from '../sheet/resolve'
import { pipeModel } from '../catalogue/lines/pipe'
import { Fluid, type FluidData } from '../fluid/fluid'
import { portKey, type Netlist, type NetNode } from '../sheet/netlist'
import type { InputSignal } from './inputs'
import { patternOf, positionIn, type Pattern } from './linear'
import type { Problem } from './rosenbrock'

/** Smallest oil volume of a node, m³. */
const SMALLEST_VOLUME = 1e-6
/** Smallest inertia of a free shaft, kg·m². */
const SMALLEST_INERTIA = 1e-4
/** Sizes of a pressure, a shaft speed and a rod position that matter: 10 bar, 10 rad/s, 10 mm. */
const POTENTIAL_SCALE = { oil: 10e5, shaft: 10, rod: 10e-3 } as const
const DIFFERENCE = 1e-7
/** Derivatives are kept while nothing moves by more than this share of its scale. */
const QUIET = 1e-5
/** A high-pressure hose swells as if its oil had this bulk modulus beside its own, Pa: about 5 % of its volume at 300 bar. */
const HOSE_MODULUS = 6e8

export interface Element {
  /** Component id, or `pipe:<id>`. */
  readonly id: string
  readonly resolved?: ResolvedComponent
  readonly pipe?: string
  readonly portNames: readonly string[]
  readonly model: Model
  readonly local: Local
  readonly nodes: Int32Array
  readonly firstState: number
  readonly states: readonly StateSpec[]
  readonly inputs: readonly InputSignal[]
  readonly inputSpecs: readonly Omit<InputSpec, 'rest'>[]
  /** Whether each port holds its node's potential. */
  readonly imposes: readonly boolean[]
}

interface Block {
  readonly element: Element
  /** Size of the step for each local variable (ports, then states). */
  readonly floors: Float64Array
  /** Row of each target (port nodes, then states), −1 where it has none. */
  readonly rows: Int32Array
  /** Positions in the matrix: [variable · targets + target], −1 where none. */
  readonly at: Int32Array
  /** Whether any of its variables is a state. */
  readonly any: boolean
  /** Variables, inputs and modes where its derivatives were last taken, and how far each variable may go before they are taken anew. */
  readonly from: Float64Array
  readonly fromInput: Float64Array
  readonly fromMode: Int32Array
  readonly reach: Float64Array
  /** Derivatives of every target's flow (or rate) and volume: [variable · targets + target]. */
  readonly dFlow: Float64Array
  readonly dVolume: Float64Array
  readonly q0: Float64Array
  readonly v0: Float64Array
  readonly dx0: Float64Array
}

interface Rod {
  readonly driver: Element
  readonly port: number
  readonly readers: readonly { readonly element: Element; readonly port: number }[]
}

interface Imposer {
  readonly element: Element
  readonly port: number
  readonly node: number
  readonly first: boolean
}

/** An input of a component that a schedule may drive; or, where it is set, one of its faults. */
export interface Input {
  readonly component: string
  readonly spec: Omit<InputSpec, 'rest'>
  readonly signal: InputSignal
}

export class Network implements Problem {
  readonly n: number
  readonly elements: readonly Element[]
  readonly fluid: Fluid
  readonly nodes: readonly NetNode[]
  /** State index of each node, −1 where an element imposes its potential. */
  readonly nodeState: Int32Array
  readonly potential: Float64Array
  readonly capacity: Float64Array
  readonly inflow: Float64Array
  readonly initial: Float64Array
  readonly scale: Float64Array
  readonly pattern: Pattern
  readonly diagonal: Int32Array
  readonly entries: number
  /** Time of the last evaluation, s. */
  time = 0
  private readonly modulus: Float64Array
  readonly isOil: Uint8Array
  /** Flat lists for the hot loop: nodes with a state by kind, ports, states, inputs of all elements. */
  private readonly oilNodes: Int32Array
  private readonly mechanicalNodes: Int32Array
  private readonly portPotential: Float64Array
  /** Flow into every port of every element, and its node. */
  readonly portFlow: Float64Array
  private readonly portVolume: Float64Array
  /** Powers of every element, one after the other, W: see `Power`. */
  readonly powers: Float64Array
  private readonly portAir: Float64Array
  /** Compliance of hoses and of trapped air at each node, m³/Pa; read only where there are any. */
  private readonly nodeGive: Float64Array
  private readonly giving: boolean
  private readonly hoseCompliance: Float64Array
  readonly portNode: Int32Array
  /** Ports that take from their node (those that do not hold it). */
  private readonly takingPorts: Int32Array
  private readonly states: Float64Array
  private readonly stateRates: Float64Array
  private readonly firstElementState: number
  private readonly inputValues: Float64Array
  private readonly signals: readonly InputSignal[]
  private readonly models: readonly Model[]
  private readonly locals: readonly Local[]
  private readonly baseVolume: Float64Array
  /** Ports that hold their node; where several hold one, the first takes its flow. */
  private readonly imposers: readonly Imposer[]
  private readonly blocks: readonly Block[]
  /** Rods that are driven, and the ports that measure their force. */
  private readonly rods: readonly Rod[]
  private readonly stateName: string[] = []
  private readonly ft0: Float64Array
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
    const elements: Element[] = []
    const imposed = new Set<number>()
    const imposers: Imposer[] = []
    const drafts: {
      id: string
      resolved?: ResolvedComponent
      pipe?: string
      portNames: string[]
      nodes: number[]
      imposes: boolean[]
      model: Model
      inputs: Input[]
    }[] = []
    for (const resolved of netlist.components) {
      const { component, kind, values } = resolved
      const own = inputs.filter((i) => i.component === component.id)
      const commands = (kind.inputs ?? []).map((spec) => own.find((i) => i.spec === spec)!)
      const faults = (kind.faults ?? []).flatMap((fault): Fault[] => {
        const input = own.find((i) => i.spec === fault)
        if (!input) return []
        commands.push(input)
        return [{ spec: fault, input: commands.length - 1 }]
      })
      drafts.push({
        id: component.id,
        resolved,
        portNames: kind.ports.map((p) => p.name),
        nodes: kind.ports.map((p) => netlist.nodeOf.get(portKey(component.id, p.name))!),
        imposes: kind.ports.map((p) => p.imposes ?? false),
        model: withFaults(kind.model(values, this.fluid), faults, this.fluid, values),
        inputs: commands,
      })
    }
    for (const pipe of netlist.pipes)
      drafts.push({
        id: `pipe:${pipe.pipe.id}`,
        pipe: pipe.pipe.id,
        portNames: ['1', '2'],
        nodes: [pipe.from, pipe.to],
        imposes: [false, false],
        model: pipeModel(pipe, this.fluid),
        inputs: [],
      })
    for (const d of drafts)
      d.imposes.forEach((holds, i) => {
        // an idle port with nothing on it needs no pressure of its own: it stays at 0
        const node = nodes[d.nodes[i]]
        const idle = d.model.idlePorts?.includes(i) && node.ports.length === 1 && !node.pipes.length
        if (holds || idle) imposed.add(d.nodes[i])
      })
    const count = (size: (d: (typeof drafts)[number]) => number) =>
      drafts.reduce((sum, d) => sum + size(d), 0)
    const portCount = count((d) => d.nodes.length)
    this.portPotential = new Float64Array(portCount)
    this.portFlow = new Float64Array(portCount)
    this.portVolume = new Float64Array(portCount)
    this.portAir = new Float64Array(portCount)
    this.nodeGive = new Float64Array(nodes.length)
    this.hoseCompliance = new Float64Array(nodes.length)
    this.powers = new Float64Array(drafts.length * POWERS)
    this.giving =
      nodes.some((node) => node.hoseVolume > 0) ||
      inputs.some((i) => 'form' in i.spec && i.spec.form === 'air')
    this.portNode = Int32Array.from(drafts.flatMap((d) => d.nodes))
    this.takingPorts = Int32Array.from(
      drafts.flatMap((d) => d.imposes).flatMap((holds, port) => (holds ? [] : [port])),
    )
    this.states = new Float64Array(count((d) => d.model.states?.length ?? 0))
    this.stateRates = new Float64Array(this.states.length)
    this.inputValues = new Float64Array(count((d) => d.inputs.length))
    this.signals = drafts.flatMap((d) => d.inputs.map((i) => i.signal))
    this.movingSignals = new Int32Array(this.signals.length)
    this.nodeState = new Int32Array(nodes.length).fill(-1)
    let n = 0
    let [portAt, stateAt, inputAt] = [0, 0, 0]
    nodes.forEach((node, i) => {
      if (imposed.has(i)) return
      this.nodeState[i] = n++
      this.stateName.push(node.name)
    })
    this.firstElementState = n
    for (const d of drafts) {
      const states = d.model.states ?? []
      const ports = d.portNames.length
      // views into the flat arrays: gathering and scattering are plain loops
      const local: Local = {
        p: this.portPotential.subarray(portAt, portAt + ports),
        x: this.states.subarray(stateAt, stateAt + states.length),
        u: this.inputValues.subarray(inputAt, inputAt + d.inputs.length),
        mode: Int32Array.from(d.model.modes ?? []),
        q: this.portFlow.subarray(portAt, portAt + ports),
        v: this.portVolume.subarray(portAt, portAt + ports),
        a: this.portAir.subarray(portAt, portAt + ports),
        f: new Float64Array(ports),
        dx: this.stateRates.subarray(stateAt, stateAt + states.length),
        g: new Float64Array(d.model.guards?.length ?? 0),
        o: new Float64Array(d.model.outputs?.length ?? 0),
        c: new Float64Array(d.model.conditions?.length ?? 0),
        power: this.powers.subarray(elements.length * POWERS, (elements.length + 1) * POWERS),
      }
      const element: Element = {
        id: d.id,
        resolved: d.resolved,
        pipe: d.pipe,
        portNames: d.portNames,
        model: d.model,
        local,
        nodes: Int32Array.from(d.nodes),
        firstState: n,
        states,
        inputs: d.inputs.map((i) => i.signal),
        inputSpecs: d.inputs.map((i) => i.spec),
        imposes: d.imposes,
      }
      elements.push(element)
      n += states.length
      portAt += ports
      stateAt += states.length
      inputAt += d.inputs.length
      for (const s of states) this.stateName.push(`${d.id} ${s.label}`)
      d.imposes.forEach((holds, port) => {
        if (!holds) return
        const node = d.nodes[port]
        imposers.push({ element, port, node, first: !imposers.some((i) => i.node === node) })
      })
    }
    this.elements = elements
    const portsOf = (e: Element) => e.resolved?.kind.ports ?? []
    const rodEnds = elements.flatMap((element) =>
      portsOf(element).flatMap((spec, port) => (spec.domain === 'rod' ? [{ element, port, spec }] : [])),
    )
    this.rods = rodEnds
      .filter((end) => end.spec.drives)
      .map(({ element: driver, port }) => ({
        driver,
        port,
        readers: rodEnds.filter(
          (end) => !end.spec.drives && end.element.nodes[end.port] === driver.nodes[port],
        ),
      }))
      .filter((rod) => rod.readers.length > 0)
    this.models = elements.map((e) => e.model)
    this.locals = elements.map((e) => e.local)
    this.imposers = imposers
    this.n = n
    this.initial = new Float64Array(n)
    this.scale = new Float64Array(n)
    this.ft0 = new Float64Array(n)
    this.isOil = Uint8Array.from(nodes, (node) => (node.domain === 'oil' ? 1 : 0))
    const withState = (domain: NetNode['domain']) =>
      Int32Array.from(
        nodes.flatMap((node, i) => (node.domain === domain && this.nodeState[i] >= 0 ? [i] : [])),
      )
    this.oilNodes = withState('oil')
    this.mechanicalNodes = Int32Array.from([...withState('shaft'), ...withState('rod')])
    nodes.forEach((node, i) => {
      this.hoseCompliance[i] = node.hoseVolume / HOSE_MODULUS
    })
    this.baseVolume = Float64Array.from(nodes, (node) => (node.domain === 'oil' ? node.volume : 0))
    this.potential = new Float64Array(nodes.length)
    this.capacity = new Float64Array(nodes.length)
    this.inflow = new Float64Array(nodes.length)
    this.modulus = new Float64Array(nodes.length)
    nodes.forEach((node, i) => {
      const s = this.nodeState[i]
      if (s < 0) return
      this.scale[s] = POTENTIAL_SCALE[node.domain]
      this.initial[s] = initialPressure.get(i) ?? 0
    })
    for (const e of elements) {
      for (const { port, value } of e.model.initialPotentials ?? []) {
        const s = this.nodeState[e.nodes[port]]
        if (s >= 0 && !initialPressure.has(e.nodes[port])) this.initial[s] = value
      }
      e.states.forEach((s, i) => {
        this.initial[e.firstState + i] = s.initial
        this.scale[e.firstState + i] = s.scale
      })
    }

    const rowsOf = (e: Element) => [
      ...Array.from(e.nodes, (node) => this.nodeState[node]),
      ...e.states.map((_, i) => e.firstState + i),
    ]
    const pairs: [number, number][] = []
    for (const e of elements) {
      const rows = rowsOf(e)
      for (const i of rows) for (const j of rows) if (i >= 0 && j >= 0) pairs.push([i, j])
    }
    this.pattern = patternOf(n, pairs)
    this.entries = this.pattern.columns.length
    this.diagonal = Int32Array.from({ length: n }, (_, i) => positionIn(this.pattern, i, i))
    this.blocks = elements.map((element) => {
      const rows = Int32Array.from(rowsOf(element))
      const count = rows.length
      const at = new Int32Array(count * count).fill(-1)
      rows.forEach((column, variable) =>
        rows.forEach((row, target) => {
          if (row >= 0 && column >= 0) at[variable * count + target] = positionIn(this.pattern, row, column)
        }),
      )
      const floors = Float64Array.from(rows, (row) => (row >= 0 ? this.scale[row] : 1))
      const { local } = element
      return {
        element,
        rows,
        at,
        floors,
        any: rows.some((row) => row >= 0),
        from: new Float64Array(count).fill(Number.NaN),
        fromInput: new Float64Array(local.u.length),
        fromMode: new Int32Array(local.mode.length),
        reach: floors.map((floor) => QUIET * floor),
        dFlow: new Float64Array(count * count),
        dVolume: new Float64Array(count * count),
        q0: new Float64Array(local.q.length),
        v0: new Float64Array(local.v.length),
        dx0: new Float64Array(local.dx.length),
      }
    })
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
      this.inputValues[i] = signal.value(t)
      if (signal.slope !== 0) this.movingSignals[this.movingCount++] = i
    }
  }

  /** All elements, nodes and sums at (t, y). */
  evaluate(t: number, y: Float64Array): void {
    const { models, locals, potential, capacity, inflow, nodeState, baseVolume, portNode, oilNodes } = this
    this.time = t
    // what stands still keeps the value it had where its segment began
    for (let k = 0; k < this.movingCount; k++) {
      const i = this.movingSignals[k]
      this.inputValues[i] = this.signals[i].value(t)
    }
    for (let i = 0; i < potential.length; i++) {
      const s = nodeState[i]
      if (s >= 0) potential[i] = y[s]
      capacity[i] = baseVolume[i]
      inflow[i] = 0
    }
    for (let k = 0; k < this.imposers.length; k++) {
      const { element, port, node, first } = this.imposers[k]
      element.model.impose!(element.local)
      if (first) potential[node] = element.local.p[port]
    }
    for (let k = 0; k < portNode.length; k++) this.portPotential[k] = potential[portNode[k]]
    for (let i = 0; i < this.states.length; i++) this.states[i] = y[this.firstElementState + i]
    for (let e = 0; e < models.length; e++) models[e].evaluate(locals[e])
    for (let i = 0; i < this.takingPorts.length; i++) {
      const k = this.takingPorts[i]
      const node = portNode[k]
      inflow[node] -= this.portFlow[k]
      capacity[node] += this.portVolume[k]
    }
    // an imposing port takes what is left over
    for (let k = 0; k < this.imposers.length; k++) {
      const { element, port, node, first } = this.imposers[k]
      element.local.q[port] = first ? inflow[node] : 0
    }
    if (this.giving) {
      this.nodeGive.set(this.hoseCompliance)
      for (let k = 0; k < portNode.length; k++) this.nodeGive[portNode[k]] += this.portAir[k]
    }
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      if (capacity[i] < SMALLEST_VOLUME) capacity[i] = SMALLEST_VOLUME
      this.modulus[i] = this.modulusAt(i, potential[i])
    }
    for (let k = 0; k < this.mechanicalNodes.length; k++) {
      const i = this.mechanicalNodes[k]
      if (capacity[i] < SMALLEST_INERTIA) capacity[i] = SMALLEST_INERTIA
    }
  }

  rate(t: number, y: Float64Array, rate: Float64Array): void {
    this.evaluate(t, y)
    this.rateHere(rate)
  }

  /** Rates from the last evaluation. */
  rateHere(rate: Float64Array): void {
    const { nodeState, inflow, capacity, oilNodes, mechanicalNodes } = this
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      rate[nodeState[i]] = (this.modulus[i] / capacity[i]) * inflow[i]
    }
    for (let k = 0; k < mechanicalNodes.length; k++) {
      const i = mechanicalNodes[k]
      rate[nodeState[i]] = inflow[i] / capacity[i]
    }
    for (let i = 0; i < this.stateRates.length; i++) rate[this.firstElementState + i] = this.stateRates[i]
  }

  /** Bulk modulus of a node's oil at a pressure; with hoses and trapped air, that of all: 1/K = 1/K_e + C/V. */
  private modulusAt(node: number, pressure: number): number {
    const modulus = this.fluid.bulkModulus(pressure)
    return this.giving ? 1 / (1 / modulus + this.nodeGive[node] / this.capacity[node]) : modulus
  }

  /** dK/dp there: with hoses and air, K²/K_e²·dK_e/dp. */
  private modulusSlopeAt(node: number, pressure: number): number {
    const slope = this.fluid.bulkModulusSlope(pressure)
    if (!this.giving) return slope
    const share = this.modulus[node] / this.fluid.bulkModulus(pressure)
    return slope * share * share
  }

  /** dV_node/dp of stored oil: V/K_e, m³/Pa; 0 for a shaft or an imposed node. */
  compliance(node: number): number {
    return this.isOil[node] && this.nodeState[node] >= 0 ? this.capacity[node] / this.modulus[node] : 0
  }

  /** At the point of the last `rate`. */
  jacobian(values: Float64Array): void {
    values.fill(0)
    const { nodeState, potential, capacity, inflow, modulus, isOil } = this
    for (let i = 0; i < potential.length; i++) {
      const s = nodeState[i]
      if (s < 0 || !isOil[i]) continue
      values[this.diagonal[s]] += (this.modulusSlopeAt(i, potential[i]) / capacity[i]) * inflow[i]
    }
    for (let b = 0; b < this.blocks.length; b++) {
      const block = this.blocks[b]
      if (!block.any) continue
      if (!this.quiet(block)) this.differentiate(block)
      const { rows, at, dFlow, dVolume } = block
      const { nodes } = block.element
      const ports = nodes.length
      const count = rows.length
      for (let target = 0; target < count; target++) {
        if (rows[target] < 0) continue
        if (target >= ports) {
          for (let k = target; k < at.length; k += count) if (at[k] >= 0) values[at[k]] += dFlow[k]
          continue
        }
        const node = nodes[target]
        const stiffness = isOil[node] ? modulus[node] / capacity[node] : 1 / capacity[node]
        const swelling = isOil[node] ? inflow[node] / capacity[node] : 0
        for (let k = target; k < at.length; k += count)
          if (at[k] >= 0) values[at[k]] -= stiffness * (dFlow[k] + dVolume[k] * swelling)
      }
    }
  }

  /** Whether the derivatives of a block still hold: nothing has moved since by more than does not matter. */
  private quiet(block: Block): boolean {
    const { from, fromInput, fromMode, reach, element } = block
    const { p, x, u, mode } = element.local
    const ports = p.length
    for (let i = 0; i < fromMode.length; i++) if (mode[i] !== fromMode[i]) return false
    for (let i = 0; i < fromInput.length; i++) if (u[i] !== fromInput[i]) return false
    for (let i = 0; i < from.length; i++) {
      const moved = (i < ports ? p[i] : x[i - ports]) - from[i]
      if (!(moved <= reach[i] && -moved <= reach[i])) return false
    }
    return true
  }

  private differentiate(block: Block): void {
    const { element, rows, floors, from, fromInput, fromMode, dFlow, dVolume, q0, v0, dx0 } = block
    const { local, model } = element
    const { p, x, u, q, v, dx, mode } = local
    const ports = p.length
    const count = rows.length
    for (let i = 0; i < fromMode.length; i++) fromMode[i] = mode[i]
    for (let i = 0; i < fromInput.length; i++) fromInput[i] = u[i]
    for (let i = 0; i < ports; i++) {
      from[i] = p[i]
      q0[i] = q[i]
      v0[i] = v[i]
    }
    for (let i = 0; i < dx.length; i++) {
      from[ports + i] = x[i]
      dx0[i] = dx[i]
    }
    for (let variable = 0; variable < count; variable++) {
      if (rows[variable] < 0) continue
      const array = variable < ports ? p : x
      const index = variable < ports ? variable : variable - ports
      const base = array[index]
      const size = Math.abs(base)
      const step = DIFFERENCE * (size > floors[variable] ? size : floors[variable])
      array[index] = base + step
      model.evaluate(local)
      array[index] = base
      const inverse = 1 / step
      const k = variable * count
      for (let i = 0; i < ports; i++) {
        dFlow[k + i] = (q[i] - q0[i]) * inverse
        dVolume[k + i] = (v[i] - v0[i]) * inverse
      }
      for (let i = 0; i < dx.length; i++) dFlow[k + ports + i] = (dx[i] - dx0[i]) * inverse
    }
    for (let i = 0; i < ports; i++) {
      q[i] = q0[i]
      v[i] = v0[i]
    }
    for (let i = 0; i < dx.length; i++) dx[i] = dx0[i]
  }

  timeDerivative(t: number, y: Float64Array, rate: Float64Array): boolean {
    if (this.movingCount === 0) return false
    const step = 1e-7
    this.rate(t, y, this.ft0)
    this.rate(t + step, y, rate)
    for (let i = 0; i < rate.length; i++) rate[i] = (rate[i] - this.ft0[i]) / step
    return true
  }

  /** Outputs, condition measures and powers of every element, after `evaluate`. */
  observe(): void {
    for (let e = 0; e < this.elements.length; e++) {
      const { model, local } = this.elements[e]
      model.observe?.(local)
    }
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
    const node = this.nodes[this.nodeState.indexOf(index)]
    return {
      component: node?.ports[0]?.component,
      pipe: node?.pipes[0],
      label: `pressure at ${this.stateName[index]}`,
    }
  }
}
