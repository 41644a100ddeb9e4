/** Energy and oil kept account of over a run, as a check on the solution. */
import { Power, POWERS } from '../catalogue/kind'
import { SPECIFIC_HEAT } from '../fluid/fluid'
import type { TankData } from '../sheet/resolve'
import type { Network } from './network'
import type { EnergyBalance, OilBalance } from './result'

/** Share of a tank's oil, and kelvins, that may move within a step; and the longest step while the oil warms, s. */
const MOST_OF_A_TANK = 0.02
/** The same where the air over the oil is shut in and follows its level. */
const MOST_UNDER_SHUT_AIR = 0.001
const MOST_WARMING = 0.5
const LONGEST_WARMING = 10

/** Powers whose size tells how much energy goes round. */
const TURNED_OVER = [Power.input, Power.stored] as const

/** What the oil keeps of the heat, W: coolers take some of it out. */
const warming = ({ power }: Snapshot) => power[Power.heat] - power[Power.cooled]

/** Rates and volumes at one instant. */
class Snapshot {
  /** Powers of all elements, W (see `Power`), with what lines and free shafts store. */
  readonly power = new Float64Array(POWERS)
  /** Oil out of tanks less oil back, and oil moved at ports, m³/s. */
  supplied = 0
  moved = 0
  /** Oil into each tank, m³/s. */
  readonly returned: Float64Array
  /** Ports that are a tank, and which. */
  private readonly tankPorts: Int32Array
  private readonly tankOf: Int32Array
  readonly heatBy: Float64Array
  private readonly oilNodes: Int32Array
  /** Shafts that turn freely. */
  private readonly shafts: Int32Array
  private readonly oilPorts: Int32Array
  /** Of each oil node. */
  readonly pressure: Float64Array
  readonly compliance: Float64Array
  constructor(network: Network) {
    this.returned = new Float64Array(network.fluid.tanks.length)
    const ports = network.elements.flatMap((e) =>
      e.imposes.map((imposes) => ({ imposes, tank: e.model.tank })),
    )
    const tanks = ports.flatMap(({ imposes, tank }, port) =>
      imposes && tank !== undefined ? [{ port, tank }] : [],
    )
    this.tankPorts = Int32Array.from(tanks, (t) => t.port)
    this.tankOf = Int32Array.from(tanks, (t) => t.tank)
    this.heatBy = new Float64Array(network.elements.length)
    const indices = Int32Array.from(network.nodes.keys())
    this.oilNodes = indices.filter((i) => network.isOil[i] === 1)
    this.shafts = indices.filter((i) => network.nodes[i].domain === 'shaft' && network.nodeState[i] >= 0)
    this.oilPorts = Int32Array.from(network.portNode.keys()).filter(
      (port) => network.isOil[network.portNode[port]],
    )
    this.pressure = new Float64Array(this.oilNodes.length)
    this.compliance = new Float64Array(this.oilNodes.length)
  }

  take(network: Network): void {
    const { potential, inflow, nodeState, board } = network
    const { oilNodes, shafts, oilPorts, heatBy, power } = this
    let stored = 0
    let supplied = 0
    let moved = 0
    network.compliances(oilNodes, this.compliance)
    for (let k = 0; k < oilNodes.length; k++) {
      const i = oilNodes[k]
      this.pressure[k] = potential[i]
      // oil that gathers in a line takes its pressure energy there; a tank gives and takes it
      stored += potential[i] * inflow[i]
      if (nodeState[i] < 0) supplied -= inflow[i]
    }
    // torque that speeds a free shaft up
    for (let k = 0; k < shafts.length; k++) stored += potential[shafts[k]] * inflow[shafts[k]]
    const { q } = board
    for (let k = 0; k < oilPorts.length; k++) moved += Math.abs(q[oilPorts[k]])
    this.supplied = supplied
    this.moved = moved / 2
    const all = board.power
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
}

export class Balance {
  private before: Snapshot
  private readonly middle: Snapshot
  private after: Snapshot
  /** Energies, J, in the order of the powers. */
  private readonly work = new Float64Array(POWERS)
  private turnover = 0
  private supplied = 0
  private moved = 0
  private compressed = 0
  private readonly heatBy: Float64Array
  /** Tanks that a line leads to. */
  private readonly used: Uint8Array
  private readonly firstVolume: number

  /** @param tank whose oil is warmed and moved by what the run does */
  constructor(
    private readonly network: Network,
    private readonly tank: TankData,
  ) {
    this.before = new Snapshot(network)
    this.middle = new Snapshot(network)
    this.after = new Snapshot(network)
    this.heatBy = new Float64Array(network.elements.length)
    this.used = new Uint8Array(network.fluid.tanks.length)
    for (const { model } of network.elements) if (model.tank !== undefined) this.used[model.tank] = 1
    this.before.take(network)
    this.firstVolume = this.volume()
  }

  private volume(): number {
    let sum = 0
    for (let i = 0; i < this.network.nodes.length; i++)
      // a chamber on a line to tank fills from the tank as well
      if (this.network.nodes[i].domain === 'oil') sum += this.network.capacity[i]
    for (const { states, local } of this.network.elements)
      for (let i = 0; i < states.length; i++) if (states[i].holdsOil) sum += local.x[i]
    return sum
  }

  /** The equations changed at an instant (a command jumped): account anew from here. */
  restart(): void {
    this.before.take(this.network)
  }
  takeMiddle(): void {
    this.middle.take(this.network)
  }
  takeEnd(): void {
    this.after.take(this.network)
  }
  /** Adds up an interval of length h whose middle and end were taken, by Simpson's rule, and moves what is slow. */
  close(h: number): void {
    const { before: a, middle: m, after: b } = this
    const w = h / 6
    for (let i = 0; i < POWERS; i++) this.work[i] += w * (a.power[i] + 4 * m.power[i] + b.power[i])
    for (const kind of TURNED_OVER)
      this.turnover += w * (Math.abs(a.power[kind]) + 4 * Math.abs(m.power[kind]) + Math.abs(b.power[kind]))
    this.supplied += w * (a.supplied + 4 * m.supplied + b.supplied)
    this.moved += w * (a.moved + 4 * m.moved + b.moved)
    for (let e = 0; e < this.heatBy.length; e++)
      this.heatBy[e] += w * (a.heatBy[e] + 4 * m.heatBy[e] + b.heatBy[e])
    for (let i = 0; i < a.pressure.length; i++) {
      // ∫ C(p) dp along the parabola through the three states
      const p0 = a.pressure[i]
      const p1 = m.pressure[i]
      const p2 = b.pressure[i]
      this.compressed +=
        (a.compliance[i] * (-3 * p0 + 4 * p1 - p2) +
          4 * m.compliance[i] * (p2 - p0) +
          b.compliance[i] * (p0 - 4 * p1 + 3 * p2)) /
        6
    }
    this.moveTanks(w)
    this.before = b
    this.after = a
  }

  /**
   * The longest step over which tank and temperature may be held, s: one that moves a fiftieth of a tank's oil or half a
   * kelvin at the rates of now.
   */
  longestStep(): number {
    const { fluid } = this.network
    let longest = Infinity
    let volume = 0
    for (let i = 0; i < fluid.tanks.length; i++) {
      const flow = Math.abs(this.before.returned[i])
      const share = fluid.overTank[i] === 0 ? MOST_OF_A_TANK : MOST_UNDER_SHUT_AIR
      if (flow > 0) longest = Math.min(longest, (share * Math.max(fluid.tanks[i], 1e-4)) / flow)
      if (this.used[i]) volume += fluid.tanks[i]
    }
    if (this.tank.warming && volume > 0) {
      const lost = this.tank.heatLoss * (fluid.temperature - this.tank.ambient)
      const power = Math.abs(warming(this.before) - lost)
      const capacity = fluid.density * volume * SPECIFIC_HEAT
      longest = Math.min(longest, LONGEST_WARMING, (MOST_WARMING * capacity) / Math.max(power, 1e-9))
    }
    return longest
  }

  /**
   * V̇ = ΣQ_return − ΣQ_suction for each tank; ρ·V·c·dT/dt = P_loss − UA·(T − T_a) − P_cooler for all their oil as one lump.
   * Both change slowly against a step (see `longestStep`) and are held during it.
   */
  private moveTanks(w: number): void {
    const { before: a, middle: m, after: b } = this
    const { fluid } = this.network
    let volume = 0
    for (let i = 0; i < fluid.tanks.length; i++) {
      const into = w * (a.returned[i] + 4 * m.returned[i] + b.returned[i])
      fluid.tanks[i] = Math.max(0, fluid.tanks[i] + into)
      if (this.used[i]) volume += fluid.tanks[i]
    }
    if (!this.tank.warming || volume === 0) return
    const lost = this.tank.heatLoss * (fluid.temperature - this.tank.ambient) * 6 * w
    const heat = w * (warming(a) + 4 * warming(m) + warming(b)) - lost
    fluid.warmTo(fluid.temperature + heat / (fluid.density * volume * SPECIFIC_HEAT))
  }

  energy(): EnergyBalance {
    const [input, useful, heat, stored] = [Power.input, Power.useful, Power.heat, Power.stored].map(
      (kind) => this.work[kind],
    )
    const error = Math.abs(input - useful - heat - stored) / Math.max(this.turnover, 1)
    const heatBy = this.network.elements
      .map((e, i) => ({ id: e.pipe ?? e.id, heat: this.heatBy[i] }))
      .filter((h) => h.heat !== 0)
      .sort((a, b) => b.heat - a.heat)
    return { input, useful, heat, stored, error, heatBy }
  }

  /** The network must have been evaluated at the end of the run. */
  oil(): OilBalance {
    const stored = this.volume() - this.firstVolume + this.compressed
    const error = Math.abs(this.supplied - stored) / Math.max(this.moved, 1e-9)
    return { supplied: this.supplied, stored, error }
  }
}
