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
   * states should grow; and that energy, J.
   */
  readonly kept: Float64Array
  readonly energy: Float64Array
  /** Energy of motion of each free shaft, J. */
  readonly kinetic: Float64Array
  /** Oil into each tank, m³/s. */
  readonly returned: Float64Array
  /**
   * Of each oil node with a state: pressure, Pa; oil volume, m³, and ln(1 + g) of its air; dV/dp of oil and walls beside that air, m³/Pa.
   */
  readonly pressure: Float64Array
  readonly volume: Float64Array
  readonly swelling: Float64Array
  readonly compliance: Float64Array
  /**
   * Oil out of tanks less oil back, and oil moved at ports, m³/s; power that goes to what holds a pressure, W: to tanks and sources; and
   * power that gathers in lines and shafts, W.
   */
  readonly flows: Float64Array
}
/** Indices into `flows`. */
export const FLOWS = { supplied: 0, moved: 1, held: 2, gathered: 3 } as const

/** Where the rates are read. */
interface Places {
  readonly tankPorts: Int32Array
  readonly tankOf: Int32Array
  readonly oilNodes: Int32Array
  /** Nodes of oil whose pressure is imposed. */
  readonly imposedNodes: Int32Array
  readonly freeShafts: Int32Array
  readonly oilPorts: Int32Array
  /** Ports through which energy comes into an element, and that element: not those of a rod, nor what holds a pressure. */
  readonly workPorts: Int32Array
  readonly workElements: Int32Array
}
function placesOf({ elements, nodes, isOil, nodeState, portNode, arrays }: Network): Places {
  const tanks = elements
    .flatMap(({ imposes, model }) => imposes.map((port) => ({ imposes: port, tank: model.tank })))
    .flatMap(({ imposes, tank }, port) => (imposes && tank !== undefined ? [{ port, tank }] : []))
  const work = elements
    .flatMap(({ nodes: at, imposes }, element) =>
      Array.from(at, (node, i) => ({
        element,
        port: arrays.offsets[element].ports + i,
        node,
        imposed: imposes[i],
      })),
    )
    .filter(({ node, imposed }) => {
      const { domain } = nodes[node]
      return domain === 'shaft' || (domain === 'oil' && !imposed)
    })
  const all = Int32Array.from(nodes.keys())
  return {
    tankPorts: Int32Array.from(tanks, (t) => t.port),
    tankOf: Int32Array.from(tanks, (t) => t.tank),
    oilNodes: all.filter((i) => isOil[i] === 1 && nodeState[i] >= 0),
    imposedNodes: all.filter((i) => isOil[i] === 1 && nodeState[i] < 0),
    freeShafts: all.filter((i) => nodes[i].domain === 'shaft' && nodeState[i] >= 0),
    oilPorts: Int32Array.from(portNode.keys()).filter((port) => isOil[portNode[port]]),
    workPorts: Int32Array.from(work, ({ port }) => port),
    workElements: Int32Array.from(work, ({ element }) => element),
  }
}

export class InstantRates implements RatesData {
  readonly power = new Float64Array(POWERS)
  readonly flows = new Float64Array(4)
  readonly returned: Float64Array
  readonly heatBy: Float64Array
  readonly kept: Float64Array
  readonly energy: Float64Array
  readonly kinetic: Float64Array
  readonly pressure: Float64Array
  readonly volume: Float64Array
  readonly swelling: Float64Array
  readonly compliance: Float64Array
  /** By node: ln(1 + g), and its slope. */
  private readonly nodeSwelling: Float64Array
  private readonly nodeSlope: Float64Array
  readonly places: Places

  /** @param like others of the same network, whose lists of places it shares */
  constructor(
    private readonly network: Network,
    like?: InstantRates,
  ) {
    this.places = like?.places ?? placesOf(network)
    const { freeShafts, oilNodes } = this.places
    const { length } = network.elements
    this.returned = new Float64Array(network.fluid.tanks.length)
    this.heatBy = new Float64Array(length)
    this.kept = new Float64Array(length)
    this.energy = new Float64Array(length)
    this.kinetic = new Float64Array(freeShafts.length)
    this.pressure = new Float64Array(oilNodes.length)
    this.volume = new Float64Array(oilNodes.length)
    this.swelling = new Float64Array(oilNodes.length)
    this.compliance = new Float64Array(oilNodes.length)
    this.nodeSwelling = new Float64Array(network.nodes.length)
    this.nodeSlope = new Float64Array(network.nodes.length)
  }

  /** Heat that the oil keeps, W: coolers take some of it out. */
  get warming(): number {
    return this.power[Power.heat] - this.power[Power.cooled]
  }

  /** Reads the network where it was last observed. */
  store(): void {
    const { network, flows, power } = this
    const { q } = network.arrays
    flows.fill(0)
    this.readElements()
    this.readOilNodes()
    this.readShafts()
    const { returned } = this
    const { oilPorts, tankPorts, tankOf } = this.places
    let moved = 0
    for (let k = 0; k < oilPorts.length; k++) {
      const flow = q[oilPorts[k]]
      moved += flow < 0 ? -flow : flow
    }
    flows[FLOWS.moved] = 0.5 * moved
    returned.fill(0)
    for (let k = 0; k < tankPorts.length; k++) returned[tankOf[k]] += q[tankPorts[k]]
    const lost = network.arrays.e
    let leaving = 0
    for (let i = 0; i < lost.length; i++) leaving += lost[i]
    flows[FLOWS.supplied] -= leaving
    power[Power.stored] += flows[FLOWS.gathered]
  }

  private readElements(): void {
    const { kept, heatBy, power } = this
    const { workPorts, workElements } = this.places
    const { arrays } = this.network
    const { p, q, power: all } = arrays
    // read once: imports are looked up in every turn of a loop
    const [powers, { input, useful, heat, stored, cooled }] = [POWERS, Power]
    let inputs = 0
    let usefuls = 0
    let heats = 0
    let storeds = 0
    let cooleds = 0
    for (let e = 0, at = 0; e < kept.length; e++, at += powers) {
      const taken = all[at + input]
      const given = all[at + useful]
      const lost = all[at + heat]
      inputs += taken
      usefuls += given
      heats += lost
      storeds += all[at + stored]
      cooleds += all[at + cooled]
      heatBy[e] = lost
      kept[e] = taken - given - lost
    }
    power[input] = inputs
    power[useful] = usefuls
    power[heat] = heats
    power[stored] = storeds
    power[cooled] = cooleds
    for (let k = 0; k < workPorts.length; k++) kept[workElements[k]] += p[workPorts[k]] * q[workPorts[k]]
    this.energy.set(arrays.energy)
  }

  private readOilNodes(): void {
    const { network, nodeSwelling, nodeSlope, flows } = this
    const { oilNodes, imposedNodes } = this.places
    const { pressure, volume, swelling, compliance } = this
    const { potential, inflow, capacity, stiffness, fluid } = network
    const { expansionRate } = fluid
    let gathered = 0
    let supplied = 0
    let held = 0
    fluid.airSwelling(potential, oilNodes, nodeSwelling, nodeSlope)
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      pressure[k] = potential[i]
      volume[k] = capacity[i]
      swelling[k] = nodeSwelling[i]
      compliance[k] = 1 / stiffness[i] + capacity[i] * nodeSlope[i]
      // oil that gathers in a line takes its pressure energy there
      gathered += potential[i] * inflow[i]
      // what warming adds comes from nowhere, and its work from the heat
      const added = capacity[i] * expansionRate
      supplied += added
      held -= potential[i] * added
    }
    // a tank gives and takes it
    for (let k = 0; k < imposedNodes.length; k++) {
      const i = imposedNodes[k]
      const energy = potential[i] * inflow[i]
      gathered += energy
      held += energy
      supplied -= inflow[i]
    }
    flows[FLOWS.gathered] = gathered
    flows[FLOWS.supplied] = supplied
    flows[FLOWS.held] = held
  }

  private readShafts(): void {
    const { kinetic, flows } = this
    const { freeShafts } = this.places
    const { potential, inflow, capacity } = this.network
    let sum = flows[FLOWS.gathered]
    for (let k = 0; k < freeShafts.length; k++) {
      const i = freeShafts[k]
      // torque that speeds a free shaft up
      sum += potential[i] * inflow[i]
      kinetic[k] = 0.5 * capacity[i] * potential[i] * potential[i]
    }
    flows[FLOWS.gathered] = sum
  }

  save(): RatesData {
    const { power, heatBy, returned, pressure, volume, swelling, compliance, flows } = this
    return {
      kept: this.kept.slice(),
      energy: this.energy.slice(),
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
      'energy',
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
