/** What a line pilots: valves that its pressure opens, shifts or holds shut at a pilot port, and the pressure that each needs there. */
import { netOf } from '../catalogue/answers'
import type { Show } from '../catalogue/kind'
import type { Sheet } from '../sheet/schema'
import type { Element } from '../simulate/circuit/elements'
import { partOf, type LinePorts } from './stack'
import { partName } from './words'

export interface Piloted {
  readonly part: string
  /** Name of the pilot port. */
  readonly port: string
  /** What happens where what pushes exceeds what opposes: "opens". */
  readonly name: string
  /** Pressure at the port at which that changes, and as it is now, Pa. */
  readonly needed: number
  readonly pressure: number
  /** Whether more pressure there makes it happen; else it keeps it from happening. */
  readonly pushes: boolean
}

/** Pa at which a pilot is looked at: what it pushes on is a straight line there, whatever shuts it off below. */
const HIGH = 400e5
const STEP = 1e5

/** @param ports of a network that stands observed @param line its index */
export function pilotedBy(ports: LinePorts, line: number): Piloted[] {
  return ports.at(line).flatMap(({ element, port }): Piloted[] => {
    const name = element.portNames[port]
    if (!element.resolved?.kind.traits?.pilotPorts?.includes(name)) return []
    return thresholdsAt(element, port).map(({ does, needed, pushes }) => ({
      part: partOf(element),
      port: name,
      name: does,
      needed,
      pressure: element.local.p[port],
      pushes,
    }))
  })
}

/** Balances of an element that the pressure at a port changes, with the pressure at which each changes its sign. */
function thresholdsAt({ model, local }: Element, port: number) {
  const pressure = local.p[port]
  const balancesWith = (value: number) => {
    local.p[port] = value
    const balances = model.balances?.(local) ?? []
    local.p[port] = pressure
    return balances
  }
  const [now, none] = [pressure, 0].map((value) => balancesWith(value).map(netOf))
  const high = balancesWith(HIGH)
  const higher = balancesWith(HIGH + STEP).map(netOf)
  return high.flatMap((balance, i) => {
    const net = netOf(balance)
    const slope = (higher[i] - net) / STEP
    const pushes = slope > 0
    // the pressure before a seat may open it without its pilot
    const needed = pushes && none[i] > 0 ? 0 : HIGH - net / slope
    const agrees = now[i] > 0 === (pushes ? needed === 0 || pressure > needed : pressure < needed)
    return balance.quantity === 'pressure' && slope !== 0 && agrees
      ? [{ does: balance.name, needed, pushes }]
      : []
  })
}

/** In sentences: "It pilots 1-1V2 at X, which opens from 34 bar on: 12 bar to go." */
export function pilotText(sheet: Sheet, piloted: readonly Piloted[], show: Show): string[] {
  return piloted.map(({ part, port, name, needed, pressure, pushes }) => {
    const valve = `${partName(sheet, part)} at ${port}`
    const at = show(Math.max(0, needed), 'pressure', 3)
    const apart = show(Math.abs(pressure - needed), 'pressure', 3)
    if (pushes)
      return needed <= 0
        ? `It pilots ${valve}, which ${name} without it.`
        : `It pilots ${valve}, which ${name} from ${at} on: ${pressure < needed ? `${apart} to go` : `it has ${apart} more`}.`
    return `It acts on ${valve}, which ${name} only below ${at} there: ${pressure > needed ? `it has ${apart} more` : `${apart} below`}.`
  })
}
