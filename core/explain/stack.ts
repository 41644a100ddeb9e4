/**
 * What sets a pressure: the addends from what fixes it to the place asked about, along the way the oil goes. They are differences of
 * the solved state and balances of forces reported by the components, so their sum is the pressure itself.
 */
import type { Hold, HoldBy, Term, Way } from '../catalogue/answers'
import type { Element } from '../simulate/circuit/elements'
import type { Network } from '../simulate/circuit/network'
import { keptAt, waysOf } from './ways'

/** One addend of a pressure. */
export interface Addend {
  /** Component or pipe that makes it. */
  readonly part?: string
  /** What it is: "setting", "load", "A to T". */
  readonly label: string
  /** Pa */
  readonly value: number
  /** Line on the side of the place asked about. */
  readonly line: number
  /** What it is beside its words: where the sum begins, a pipe, or as its component says. */
  readonly role?: Term['role'] | 'tank' | 'source' | 'trapped' | 'void' | 'pipe'
}
export type FixedBy =
  | 'load'
  | 'valve'
  | 'pumpControl'
  | 'gas'
  | 'spring'
  | 'weight'
  | 'source'
  | 'tank'
  | 'restriction'
  | 'returnLine'
  | 'trapped'
  | 'void'

export interface Stack {
  /** Index of the line, and its pressure, Pa. */
  readonly line: number
  readonly pressure: number
  /** From what fixes it to the place. */
  readonly addends: readonly Addend[]
  readonly fixedBy: { readonly kind: FixedBy; readonly part?: string }
  /** Pressure less the sum of the addends, Pa. */
  readonly error: number
  /** Share of the pressure that speeds something up or slows it down: above a tenth of it a steady answer would mislead. */
  readonly dynamicShare: number
  /** Lines along the way, from the place to its end. */
  readonly lines: readonly number[]
  /** Parts along the way. */
  readonly parts: readonly string[]
}

/** m³/s: less counts as no flow. */
const NO_FLOW = 1e-8
/** Share of what flows through a line from which a way out counts. */
const LEAST_SHARE = 1e-3
/** Below this, gauge, a line is void: 0.3 bar absolute, Pa. */
export const VOID = -0.7e5
/** Nothing need set a pressure below this, Pa. */
export const NO_PRESSURE = 0.5e5
/** A way without flow whose ends lie this near each other is open, Pa. */
const SAME = 0.2e5
/** A shut check valve is about to open with so much less before it than it needs, Pa. */
const JUST_SHUT = 2e5
/** A way that loses less than this share of what the way out loses is wide beside it. */
const WIDE = 0.2
/** Share of what passes a line that a way must take to set its pressure beside one whose flow a compensator keeps. */
const FREE_SHARE = 0.05
/** Where less than this share of what leaks from a line follows, its pressure falls. */
const FALLING = 0.5
/** Oil that is drawn into a line may lose so much, times `WIDE`, on its way, Pa. */
const FEED = 5e5
/** Ways that are looked along for what fixes a pressure. */
const MOST_STEPS = 4
/** Pa: what hangs on a shaft loads nothing below this. */
const NO_LOAD = 1e-3
/** Share of a pressure that a load must be to set it. */
const LOAD_SHARE = 0.1
/** From this much and this share of a pressure on, what throttles fixes it. */
const RESTRICTED = 2e5
const RESTRICTED_SHARE = 0.6

const RANK: Readonly<Record<HoldBy, number>> = {
  valve: 1,
  pumpControl: 1,
  gas: 2,
  spring: 2,
  weight: 2,
  load: 3,
}

/** What a supply line may have between it and its pump, and what of a pressure it may lose there. */
const SUPPLIES: ReadonlySet<string> = new Set(['check', 'filter', 'restriction', 'line', 'open'])
const SUPPLY_SHARE = 0.1

export interface PortAt {
  readonly element: Element
  readonly port: number
}

/** Which ports lie on each line, and what flows there. */
export class LinePorts {
  private readonly ports: readonly (readonly PortAt[])[]
  private readonly ways = new Map<Element, readonly Way[]>()
  private readonly kept = new Map<Element, Float64Array>()

  /** @param network stands observed */
  constructor(readonly network: Network) {
    const ports: PortAt[][] = network.nodes.map(() => [])
    for (const element of network.elements)
      element.nodes.forEach((node, port) => {
        if (!element.model.idlePorts?.includes(port)) ports[node]?.push({ element, port })
      })
    this.ports = ports
  }
  at(line: number): readonly PortAt[] {
    return this.ports[line]
  }
  waysOf(element: Element): readonly Way[] {
    let ways = this.ways.get(element)
    if (!ways) this.ways.set(element, (ways = waysOf(element)))
    return ways
  }
  /** What flows into a port and stays behind it, m³/s. */
  keptAt({ element, port }: PortAt): number {
    let kept = this.kept.get(element)
    if (!kept) this.kept.set(element, (kept = keptAt(element, this.waysOf(element))))
    return kept[port]
  }
  /** Whether a node is the port of a component to which nothing is connected. */
  private isPlugged(node: number): boolean {
    return (
      this.network.nodeState[node] < 0 && !this.ports[node].some(({ element, port }) => element.imposes[port])
    )
  }
  /** Ways away from a port to where something is connected, with what flows along them, m³/s; negative towards it. */
  from({ element, port }: PortAt): { readonly to: number; readonly flow: number; readonly way: Way }[] {
    const ways = this.waysOf(element).flatMap((way) =>
      way.from === port
        ? [{ to: way.to, flow: way.flow, way }]
        : way.to === port
          ? [{ to: way.from, flow: -way.flow, way }]
          : [],
    )
    return ways.filter(({ to }) => !this.isPlugged(element.nodes[to]))
  }
}

export const partOf = ({ id, pipe }: Element): string => pipe ?? id

/** Whether a load is a good part of the pressure: one that helps, or that is hardly there, sets nothing on this side. */
const loads = ({ terms }: Hold, pressure: number) =>
  terms.reduce((sum, { value }) => sum + value, 0) > LOAD_SHARE * Math.abs(pressure)

interface PlacedHold {
  readonly hold: Hold
  readonly element: Element
  /** m³/s through its port */
  readonly flow: number
}

/** Where oil may go from a line: along a way to another port, or into what holds it. */
interface Outward {
  readonly element: Element
  /** m³/s, negative into the line. */
  readonly flow: number
  /** Port; below 0 for a hold. */
  readonly to: number
  readonly way?: Way
  readonly hold?: Hold
}
const leastOf = (through: number) => Math.max(NO_FLOW, LEAST_SHARE * through)

class Walk {
  readonly addends: Addend[] = []
  readonly lines: number[] = []
  readonly parts: string[] = []
  /** Addends that ways through components lose. */
  private readonly drops: Addend[] = []
  private isBehindLoad = false
  private fixedBy: Stack['fixedBy'] | undefined
  private held: Stack['fixedBy'] | undefined
  private end: Stack['fixedBy'] = { kind: 'tank' }

  constructor(private readonly ports: LinePorts) {}

  private get p(): Float64Array {
    return this.ports.network.potential
  }

  result(pressure: number): Stack['fixedBy'] {
    if (pressure < VOID) return { kind: 'void' }
    if (this.fixedBy) return this.fixedBy
    if (this.end.kind === 'trapped' || this.end.kind === 'void') return this.end
    if (this.held) return this.held
    const [most] = this.drops.toSorted((a, b) => b.value - a.value)
    // beyond a load that only passes on the pressure, all that throttle count together
    const throttled = this.isBehindLoad ? this.drops.reduce((sum, { value }) => sum + value, 0) : most?.value
    if (
      most &&
      pressure > NO_PRESSURE &&
      most.value > RESTRICTED &&
      throttled > RESTRICTED_SHARE * pressure &&
      this.end.kind === 'tank'
    )
      return { kind: 'restriction', part: most.part }
    return this.end.kind === 'tank' && this.addends.length > 1
      ? { kind: 'returnLine', part: this.end.part }
      : this.end
  }

  from(start: number): void {
    for (let line: number | undefined = start; line !== undefined;) {
      this.lines.push(line)
      line = this.step(line)
    }
  }

  /** @returns the next line; none where the way ends */
  private step(line: number): number | undefined {
    const { network } = this.ports
    const at = this.ports.at(line)
    const pressure = this.p[line]
    if (network.nodeState[line] < 0) {
      const holder = at.find(({ element, port }) => element.imposes[port])?.element
      const isTank = holder?.model.tank !== undefined
      const end = { kind: isTank ? 'tank' : 'source', part: holder && partOf(holder) } as const
      if (!isTank) this.fixedBy ??= end
      return this.ends(line, isTank ? 'tank' : 'source', end)
    }
    if (pressure < VOID) return this.ends(line, 'void', { kind: 'void' })
    const all = this.holdsAt(line)
    const holds = all.filter((placed) => !this.returns(line, placed))
    const through = this.throughOf(line)
    const least = leastOf(through)
    const outward = this.outwardOf(line, holds)
    const [first] = this.leading(line, holds)
    if (first) {
      // a pump that can only push what is in its way sets the speed, and what throttles the oil on this side its pressure
      const out = first.hold.by === 'load' && this.isPushed(first) ? this.wayOut(line) : undefined
      return out
        ? this.along(line, out.element, out.to, out.way!)
        : this.apply(line, first.hold, first.element)
    }

    // a supply line behind a check valve or a filter stands at what a valve at its setting holds before it
    const supply = outward.find(
      (o) =>
        o.to >= 0 &&
        o.flow < -least &&
        SUPPLIES.has(o.way!.element) &&
        this.isSupply(o.element.nodes[o.to], pressure),
    )
    if (supply) return this.along(line, supply.element, supply.to, supply.way!)
    // a leak sets nothing beside a load that sets the other side from this one, or where no oil follows: the pressure only falls by it
    const isOther = holds.length < all.length
    const leaks = (o: Outward) =>
      o.flow > 0 &&
      o.way?.element === 'leak' &&
      (isOther || (pressure > NO_PRESSURE && this.inflowOf(line) < FALLING * o.flow))
    const leaving = outward.filter((o) => o.flow > least && !leaks(o)).sort((a, b) => b.flow - a.flow)
    // what a compensator keeps does not set the pressure before it, where more than a leak goes another way
    const freely = leaving.find(
      (o) => !this.keepsFlow(line, o) && o.way?.element !== 'leak' && o.flow > FREE_SHARE * through,
    )
    const best = freely ?? leaving[0]
    const feed =
      best && !best.hold
        ? this.feedOf(line, outward, pressure - this.p[best.element.nodes[best.to]])
        : (best?.hold ? best.hold.by === 'load' && !loads(best.hold, pressure) : isOther)
          ? this.feedOf(line, outward, Math.max(pressure, FEED))
          : undefined
    if (feed) return this.along(line, feed.element, feed.to, feed.way!)
    if (best) {
      if (best.hold) return this.apply(line, best.hold, best.element)
      return this.along(line, best.element, best.to, best.way!)
    }
    // nothing leaves it: it stands in balance with where its oil comes from, or with what an open way leads to
    const moved = (flow: number) => (Math.abs(flow) > NO_FLOW ? Math.abs(flow) : 0)
    const opened = outward
      .filter((o) => o.to >= 0 && !leaks(o) && this.isOpen(line, o.element, o.to, o.flow, o.way!))
      .sort((a, b) => moved(b.flow) - moved(a.flow) || this.rank(b.way!) - this.rank(a.way!))
    const open = opened.find((o) => this.isFixedBehind(o.element.nodes[o.to], [...this.lines])) ?? opened[0]
    if (open) return this.along(line, open.element, open.to, open.way!)
    return this.ends(line, 'trapped', { kind: 'trapped' })
  }

  /** Whether a compensator keeps the flow of a way; of a pipe, that of all ways by which it goes on. */
  private keepsFlow(line: number, { element, to, way }: Outward, passed: readonly number[] = []): boolean {
    if (element.pipe === undefined || to < 0) return way?.keepsFlow ?? false
    const next = element.nodes[to]
    if (passed.includes(next)) return false
    const on = this.outwardOf(next, []).filter(
      (o) => o.to >= 0 && o.element.nodes[o.to] !== line && o.flow > leastOf(this.throughOf(next)),
    )
    return on.length > 0 && on.every((o) => this.keepsFlow(next, o, [...passed, line]))
  }

  private holdsAt(line: number): PlacedHold[] {
    return this.ports
      .at(line)
      .flatMap(({ element, port }) =>
        (element.model.holds?.(element.local) ?? [])
          .filter((hold) => hold.port === port)
          .map((hold) => ({ hold, element, flow: Math.abs(element.local.q[port]) })),
      )
  }
  /** Those that fix the pressure of a line now, the first one before the others. */
  private leading(line: number, holds: readonly PlacedHold[]): PlacedHold[] {
    return holds
      .filter(({ hold }) => this.leads(hold, this.p[line]))
      .sort((a, b) => RANK[a.hold.by] - RANK[b.hold.by] || b.flow - a.flow)
  }
  /** Whether the other side, from which a load would set this one, is itself set from this one. */
  private returns(line: number, { hold, element }: PlacedHold): boolean {
    if (hold.by !== 'load' || !hold.behind.length) return false
    const other = element.nodes[hold.behind[0].port]
    if (other === line) return false
    if (this.lines.includes(other)) return true
    if (this.leads(hold, this.p[line])) return false
    const [first] = this.leading(other, this.holdsAt(other))
    if (first?.element !== element || element.nodes[first.hold.behind[0]?.port] !== line) return false
    return !this.wayOut(other, line)
  }
  /** Whether what is behind a load is set by nothing but the load: oil that is shut in, or pushed in. */
  private isPushed({ hold, element }: PlacedHold): boolean {
    if (!hold.behind.length) return false
    const other = element.nodes[hold.behind[0].port]
    return !this.lines.includes(other) && this.endFrom(other).kind === 'trapped'
  }
  /** Where the walk ends from another line on, without those that it has passed. */
  private endFrom(line: number, ...passed: readonly number[]): Stack['fixedBy'] {
    const walk = new Walk(this.ports)
    walk.lines.push(...this.lines, ...passed)
    walk.from(line)
    return walk.end
  }
  /** The way by which most of its oil leaves a line to where something fixes the pressure. @param except a line that it may not lead to */
  private wayOut(line: number, except = line): Outward | undefined {
    const least = leastOf(this.throughOf(line))
    const [most] = this.outwardOf(line, [])
      .filter(({ element, to, flow, way }) => {
        const next = element.nodes[to]
        return flow > least && way!.element !== 'leak' && next !== except && next !== line
      })
      .sort((a, b) => b.flow - a.flow)
    return most && this.endFrom(most.element.nodes[most.to], line, except).kind !== 'trapped'
      ? most
      : undefined
  }

  /** m³/s */
  private throughOf(line: number): number {
    return (
      this.ports.at(line).reduce((sum, { element, port }) => sum + Math.abs(element.local.q[port]), 0) / 2
    )
  }
  /** m³/s */
  private inflowOf(line: number): number {
    return this.ports
      .at(line)
      .reduce((sum, { element, port }) => sum + Math.max(0, -element.local.q[port]), 0)
  }
  private outwardOf(line: number, holds: readonly PlacedHold[]): Outward[] {
    return this.ports
      .at(line)
      .flatMap((place): Outward[] => {
        const { element, port } = place
        // a valve or a control that does not hold its setting is a way for the oil, no more
        const hold = holds.find(
          (h) =>
            h.element === element && h.hold.port === port && (h.hold.leads || RANK[h.hold.by] !== RANK.valve),
        )
        return [
          ...this.ports
            .from(place)
            .filter(({ way }) => way.element !== 'pump' && way.element !== 'motor')
            .map(({ to, flow, way }) => ({ element, flow, to, way })),
          ...(hold ? [{ element, flow: element.local.q[port], to: -1, hold: hold.hold }] : []),
        ]
      })
      .filter(({ element, to }) => to < 0 || !this.lines.includes(element.nodes[to]))
  }

  /** A wide way by which oil comes from a line whose pressure something fixes, where what takes it away is narrow: a signal line. */
  private feedOf(line: number, outward: readonly Outward[], lost: number): Outward | undefined {
    return outward
      .filter(({ element, to, flow }) => {
        if (to < 0 || flow >= 0) return false
        const drop = this.p[element.nodes[to]] - this.p[line]
        const isHeld =
          this.ports.network.nodeState[element.nodes[to]] < 0 || this.isFixed(element.nodes[to], WIDE * lost)
        return drop >= 0 && drop < WIDE * lost && isHeld
      })
      .sort((a, b) => a.flow - b.flow)[0]
  }
  /** Whether something fixes the pressure of a line, or of one a few wide ways downstream of it. @param most Pa that these may lose */
  private isFixed(line: number, most: number, steps = MOST_STEPS): boolean {
    const at = this.ports.at(line)
    const isHeld = at.some(({ element, port }) =>
      element.model.holds?.(element.local).some((h) => h.port === port && this.leads(h, this.p[line])),
    )
    if (isHeld) return true
    if (steps === 0) return false
    return at.some((place) =>
      this.ports.from(place).some(({ to, flow, way }) => {
        const next = place.element.nodes[to]
        const drop = this.p[line] - this.p[next]
        const passes = flow > NO_FLOW && drop < most && way.element !== 'pump' && way.element !== 'motor'
        return passes && !this.lines.includes(next) && this.isFixed(next, most - drop, steps - 1)
      }),
    )
  }

  /** Whether a valve at its setting, or the control of a pump, holds a line near a pressure, or one from which it is supplied. */
  private isSupply(line: number, pressure: number, steps = MOST_STEPS): boolean {
    if (this.lines.includes(line) || this.p[line] - pressure > SUPPLY_SHARE * pressure) return false
    const at = this.ports.at(line)
    const isHeld = at.some(({ element, port }) =>
      element.model
        .holds?.(element.local)
        .some((h) => h.port === port && h.leads && RANK[h.by] === RANK.valve),
    )
    if (isHeld || steps === 0) return isHeld
    return at.some((place) =>
      this.ports
        .from(place)
        .some(
          ({ to, flow, way }) =>
            flow < -NO_FLOW &&
            SUPPLIES.has(way.element) &&
            this.isSupply(place.element.nodes[to], pressure, steps - 1),
        ),
    )
  }
  private leads(hold: Hold, pressure: number): boolean {
    return hold.leads && (hold.passesOn === true || hold.by !== 'load' || loads(hold, pressure))
  }

  /** Whether something fixes the pressure of a line, or of one that stands open to it without a drop. */
  private isFixedBehind(line: number, visited: number[], steps = MOST_STEPS): boolean {
    if (this.ports.network.nodeState[line] < 0 || this.isFixed(line, 0, 0)) return true
    if (steps === 0) return false
    visited.push(line)
    return this.ports.at(line).some((place) =>
      this.ports.from(place).some(({ to, flow, way }) => {
        const next = place.element.nodes[to]
        return (
          !visited.includes(next) &&
          this.isOpen(line, place.element, to, flow, way) &&
          this.isFixedBehind(next, visited, steps - 1)
        )
      }),
    )
  }

  /** Whether a pressure passes along a way: oil flows, or both ends stand alike. */
  private isOpen(line: number, element: Element, to: number, flow: number, way: Way): boolean {
    const drop = Math.abs(this.p[line] - this.p[element.nodes[to]])
    // a check valve that stands just shut opens as soon as this line falls
    if (way.element === 'check' && element.nodes[way.to] === line) {
      const waiting = this.p[element.nodes[way.from]] - this.p[line]
      if (waiting >= 0 && waiting < JUST_SHUT) return true
    }
    return drop < SAME || (Math.abs(flow) > NO_FLOW && this.ports.network.nodeState[element.nodes[to]] >= 0)
  }
  private rank(way: Way): number {
    return { line: 3, open: 3, edge: 2, filter: 2, restriction: 1 }[way.element as 'line'] ?? 0
  }

  private along(line: number, element: Element, to: number, way: Way): number {
    const next = element.nodes[to]
    const [from, end] = way.to === to ? [way.from, way.to] : [way.to, way.from]
    const drop = this.p[line] - this.p[next]
    if (element.pipe === undefined)
      this.drops.push(
        this.add(line, element, `${element.portNames[from]} to ${element.portNames[end]}`, drop),
      )
    else this.add(line, element, 'pipe', drop, 'pipe')
    return next
  }

  /** Torque that speeds a shaft up, J·dω/dt = −ΣT, N·m; 0 where something imposes its speed. */
  private speedingUp(shaft: number): number {
    if (this.ports.network.nodeState[shaft] < 0) return 0
    return this.ports.at(shaft).reduce((net, { element, port }) => net - element.local.q[port], 0)
  }

  private apply(line: number, hold: Hold, element: Element): number | undefined {
    const by = { kind: hold.by, part: partOf(element) }
    const pressure = this.p[line]
    if (hold.by === 'load') this.isBehindLoad = true
    if (!hold.passesOn) {
      if (hold.by !== 'load' || loads(hold, pressure)) this.held ??= by
      if (this.leads(hold, pressure)) this.fixedBy ??= by
    }
    for (const { label, value, role, shaft } of hold.terms) {
      const rate = shaft ? shaft.perTorque * this.speedingUp(element.nodes[shaft.port]) : 0
      if (rate !== 0) this.add(line, element, 'acceleration', rate, 'acceleration')
      if (!shaft || Math.abs(value - rate) > NO_LOAD) this.add(line, element, label, value - rate, role)
    }
    const [first, ...others] = hold.behind
    for (const { label, port, factor } of others)
      this.add(line, element, label, factor * this.p[element.nodes[port]])
    if (!first) {
      this.end = by
      return undefined
    }
    const next = element.nodes[first.port]
    if (this.lines.includes(next)) {
      this.add(line, element, first.label, first.factor * this.p[next])
      this.end = { kind: 'trapped', part: partOf(element) }
      return undefined
    }
    if (first.factor !== 1)
      this.add(line, element, first.ratio ?? 'area ratio', (first.factor - 1) * this.p[next])
    return next
  }

  private add(line: number, element: Element, label: string, value: number, role?: Addend['role']): Addend {
    const part = partOf(element)
    if (!this.parts.includes(part)) this.parts.push(part)
    const addend = { part, label, value, line, ...(role ? { role } : {}) }
    this.addends.push(addend)
    return addend
  }
  private ends(line: number, role: 'tank' | 'source' | 'trapped' | 'void', end: Stack['fixedBy']): undefined {
    this.addends.push({ part: end.part, label: role, role, value: this.p[line], line })
    this.end = end
  }
}

/** The pressure of a line as a sum. @param ports of a network that stands observed @param line its index */
export function pressureStack(ports: LinePorts, line: number): Stack {
  const pressure = ports.network.potential[line]
  const walk = new Walk(ports)
  walk.from(line)
  const addends = walk.addends.reverse()
  const sum = addends.reduce((total, { value }) => total + value, 0)
  const dynamic = addends
    .filter(({ role }) => role === 'acceleration')
    .reduce((total, { value }) => total + Math.abs(value), 0)
  return {
    line,
    pressure,
    addends,
    fixedBy: walk.result(pressure),
    error: pressure - sum,
    dynamicShare: dynamic / Math.max(Math.abs(pressure), 1e5),
    lines: walk.lines,
    parts: walk.parts,
  }
}
