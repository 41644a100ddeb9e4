/** Powers and oil flows of a whole circuit at one instant: what oil state and balances are integrated from. */
import { Power, POWERS } from '../../catalogue/kind'
import type { Network } from './network'

/** The numbers of an instant; plain data. */
export interface RatesData {
  /** Powers of all elements, W (see `Power`), with what lines and free shafts store. */
  readonly power: Float64Array
  /** Heat of each element, W. */
  readonly heatBy: Float64Array
  /**
   * What each element takes in at its ports and from outside, less its useful work and its heat, W: the rate at which the energy in its
   * states should grow; and that energy, J, of the states.
   */
  readonly kept: Float64Array
  readonly stores: Float64Array
  /** Energy of motion of each free shaft, J. */
  readonly kinetic: Float64Array
  /** Oil into each tank, m³/s. */
  readonly returned: Float64Array
  /**
   * Of each oil node: pressure, Pa; oil volume, m³, and ln(1 + g) of its air; dV/dp of oil and walls beside that air, m³/Pa. Volume
   * and compliance are 0 where the pressure is imposed.
   */
  readonly pressure: Float64Array
  readonly volume: Float64Array
  readonly swelling: Float64Array
  readonly compliance: Float64Array
  /** Oil out of tanks less oil back, and oil moved at ports, m³/s; power that goes to what holds a pressure, W: to tanks and sources. */
  readonly flows: Float64Array
}
const [SUPPLIED, MOVED, HELD] = [0, 1, 2]

export class InstantRates implements RatesData {
  readonly power = new Float64Array(POWERS)
  readonly flows = new Float64Array(3)
  readonly returned: Float64Array
  readonly heatBy: Float64Array
  readonly kept: Float64Array
  readonly stores: Float64Array
  readonly kinetic: Float64Array
  readonly pressure: Float64Array
  readonly volume: Float64Array
  readonly swelling: Float64Array
  readonly compliance: Float64Array
  /** By node: ln(1 + g), and its slope. */
  private readonly nodeSwelling: Float64Array
  private readonly nodeSlope: Float64Array
  private readonly tankPorts: Int32Array
  private readonly tankOf: Int32Array
  private readonly oilNodes: Int32Array
  private readonly freeShafts: Int32Array
  private readonly oilPorts: Int32Array
  /** Ports through which energy comes into an element, and that element: not those of a rod, nor what holds a pressure. */
  private readonly workPorts: Int32Array
  private readonly workElements: Int32Array

  constructor(private readonly network: Network) {
    this.returned = new Float64Array(network.fluid.tanks.length)
    const tanks = network.elements
      .flatMap(({ imposes, model }) => imposes.map((port) => ({ imposes: port, tank: model.tank })))
      .flatMap(({ imposes, tank }, port) => (imposes && tank !== undefined ? [{ port, tank }] : []))
    this.tankPorts = Int32Array.from(tanks, (t) => t.port)
    this.tankOf = Int32Array.from(tanks, (t) => t.tank)
    this.heatBy = new Float64Array(network.elements.length)
    const nodes = Int32Array.from(network.nodes.keys())
    this.oilNodes = nodes.filter((i) => network.isOil[i] === 1)
    this.freeShafts = nodes.filter((i) => network.nodes[i].domain === 'shaft' && network.nodeState[i] >= 0)
    this.oilPorts = Int32Array.from(network.portNode.keys()).filter(
      (port) => network.isOil[network.portNode[port]],
    )
    this.kept = new Float64Array(network.elements.length)
    this.stores = new Float64Array(network.elements.length)
    this.kinetic = new Float64Array(this.freeShafts.length)
    const work = network.elements
      .flatMap(({ nodes: at, imposes }, element) =>
        Array.from(at, (node, i) => ({
          element,
          port: network.arrays.offsets[element].ports + i,
          node,
          imposed: imposes[i],
        })),
      )
      .filter(({ node, imposed }) => {
        const { domain } = network.nodes[node]
        return domain === 'shaft' || (domain === 'oil' && !imposed)
      })
    this.workPorts = Int32Array.from(work, ({ port }) => port)
    this.workElements = Int32Array.from(work, ({ element }) => element)
    this.pressure = new Float64Array(this.oilNodes.length)
    this.volume = new Float64Array(this.oilNodes.length)
    this.swelling = new Float64Array(this.oilNodes.length)
    this.compliance = new Float64Array(this.oilNodes.length)
    this.nodeSwelling = new Float64Array(network.nodes.length)
    this.nodeSlope = new Float64Array(network.nodes.length)
  }

  get supplied(): number {
    return this.flows[SUPPLIED]
  }
  get moved(): number {
    return this.flows[MOVED]
  }
  get toHeld(): number {
    return this.flows[HELD]
  }
  /** Heat that the oil keeps, W: coolers take some of it out. */
  get warming(): number {
    return this.power[Power.heat] - this.power[Power.cooled]
  }

  /** Reads the network where it was last observed. */
  store(): void {
    const { network, oilNodes, freeShafts, oilPorts, heatBy, power } = this
    const { potential, inflow, nodeState, capacity, arrays } = network
    let stored = 0
    let supplied = 0
    let moved = 0
    let toHeld = 0
    const { expansionRate } = network.fluid
    const { nodeSwelling, nodeSlope } = this
    network.compliances(oilNodes, this.compliance)
    network.fluid.airSwelling(potential, oilNodes, nodeSwelling, nodeSlope)
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      this.pressure[k] = potential[i]
      this.volume[k] = nodeState[i] < 0 ? 0 : capacity[i]
      this.swelling[k] = nodeSwelling[i]
      this.compliance[k] += this.volume[k] * nodeSlope[i]
      // oil that gathers in a line takes its pressure energy there; a tank gives and takes it
      stored += potential[i] * inflow[i]
      if (nodeState[i] >= 0) {
        // what warming adds comes from nowhere, and its work from the heat
        supplied += capacity[i] * expansionRate
        toHeld -= potential[i] * capacity[i] * expansionRate
        continue
      }
      supplied -= inflow[i]
      toHeld += potential[i] * inflow[i]
    }
    // torque that speeds a free shaft up
    for (let k = 0; k < freeShafts.length; k++) {
      const i = freeShafts[k]
      stored += potential[i] * inflow[i]
      this.kinetic[k] = 0.5 * capacity[i] * potential[i] * potential[i]
    }
    this.flows[HELD] = toHeld
    const { kept, stores, workPorts, workElements } = this
    kept.fill(0)
    for (let k = 0; k < workPorts.length; k++)
      kept[workElements[k]] += arrays.p[workPorts[k]] * arrays.q[workPorts[k]]
    for (let e = 0, at = 0; e < kept.length; e++, at += POWERS)
      kept[e] +=
        arrays.power[at + Power.input] - arrays.power[at + Power.useful] - arrays.power[at + Power.heat]
    const { elements } = network
    for (let e = 0; e < stores.length; e++) {
      const { model, local } = elements[e]
      stores[e] = model.stores ? model.stores(local) : 0
    }
    const { q, e: lost } = arrays
    for (let i = 0; i < lost.length; i++) supplied -= lost[i]
    for (let k = 0; k < oilPorts.length; k++) moved += Math.abs(q[oilPorts[k]])
    this.flows[SUPPLIED] = supplied
    this.flows[MOVED] = moved / 2
    const all = arrays.power
    for (let e = 0, at = Power.heat; e < heatBy.length; e++, at += POWERS) heatBy[e] = all[at]
    for (let kind = 0; kind < POWERS; kind++) {
      let sum = 0
      for (let at = kind; at < all.length; at += POWERS) sum += all[at]
      power[kind] = sum
    }
    power[Power.stored] += stored
    this.returned.fill(0)
    for (let k = 0; k < this.tankPorts.length; k++) this.returned[this.tankOf[k]] += q[this.tankPorts[k]]
  }

  save(): RatesData {
    const { power, heatBy, returned, pressure, volume, swelling, compliance, flows } = this
    return {
      kept: this.kept.slice(),
      stores: this.stores.slice(),
      kinetic: this.kinetic.slice(),
      power: power.slice(),
      heatBy: heatBy.slice(),
      returned: returned.slice(),
      pressure: pressure.slice(),
      volume: volume.slice(),
      swelling: swelling.slice(),
      compliance: compliance.slice(),
      flows: flows.slice(),
    }
  }
  load(saved: RatesData): void {
    for (const name of [
      'power',
      'heatBy',
      'kept',
      'stores',
      'kinetic',
      'returned',
      'pressure',
      'volume',
      'swelling',
      'compliance',
      'flows',
    ] as const)
      this[name].set(saved[name])
  }
}
