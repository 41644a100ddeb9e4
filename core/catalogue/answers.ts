/** What a component reports about itself at an instant: ways of the oil, what holds a pressure, what is about to open or move. */
import type { Quantity } from '../units/quantities'

/** What makes the pressure difference along a way. */
export type WayElement =
  | 'edge'
  | 'seat'
  | 'check'
  | 'spring'
  | 'restriction'
  | 'filter'
  | 'line'
  | 'open'
  | 'leak'
  | 'pump'
  | 'motor'

/** A way of the oil through a component now. */
export interface Way {
  /** Ports. */
  readonly from: number
  readonly to: number
  /** m³/s, positive along it. */
  readonly flow: number
  readonly element: WayElement
  /** A compensator keeps its flow now, whatever the pressure before it: what is beyond does not set that pressure. */
  readonly keepsFlow?: boolean
}

/** What fixes a pressure. */
export type HoldBy = 'load' | 'valve' | 'pumpControl' | 'gas' | 'spring' | 'weight'

/** An addend of a pressure, Pa. */
export interface Term {
  readonly label: string
  readonly value: number
  /** What it is beside its words: the setting of a valve or a control, what its pilot needs to hold it open, or what speeds something up. */
  readonly role?: 'setting' | 'pilot' | 'acceleration'
  /** What hangs on the shaft at a port makes it, and what speeds that up: Pa for 1 N·m of torque that the shaft takes. */
  readonly shaft?: { readonly port: number; readonly perTorque: number }
}

/**
 * A pressure that a component holds at one of its ports, as a sum: Σ terms + Σ factor · p(port). It equals the pressure at the port
 * where the component is evaluated.
 */
export interface Hold {
  readonly port: number
  readonly by: HoldBy
  /** It fixes the pressure now: a valve at its setting, a load that moves. Else the pressure only balances what else there is. */
  readonly leads: boolean
  /** It only passes on the pressure at the first port behind it: what fixes that one fixes this one. */
  readonly passesOn?: true
  readonly terms: readonly Term[]
  /** Pressures elsewhere that it adds to. The first is that of the oil on the other side. */
  readonly behind: readonly {
    readonly port: number
    readonly factor: number
    readonly label: string
    /** What a factor other than 1 comes from, where it is no ratio of areas. */
    readonly ratio?: string
  }[]
}

/** What opposes each other in a part that opens, shuts, strokes or moves, in one unit. */
export interface Balance {
  /** What happens where `pushing` exceeds `opposing`: "opens", "reduces", "extends". */
  readonly name: string
  readonly quantity: Extract<Quantity, 'pressure' | 'force' | 'torque'>
  readonly pushing: readonly { readonly label: string; readonly value: number }[]
  readonly opposing: readonly { readonly label: string; readonly value: number }[]
}

const asTerms = (values: Readonly<Record<string, number>>) =>
  Object.entries(values).map(([label, value]) => ({ label, value }))
/** A balance of pressures, Pa, by what each is called. @param name what happens where those that push exceed those that oppose */
export const pressureBalance = (
  name: string,
  pushing: Readonly<Record<string, number>>,
  opposing: Readonly<Record<string, number>>,
): Balance => ({ name, quantity: 'pressure', pushing: asTerms(pushing), opposing: asTerms(opposing) })

/** Sum of what pushes less what opposes: above zero it happens. */
export const netOf = ({ pushing, opposing }: Balance): number =>
  pushing.reduce((sum, { value }) => sum + value, 0) - opposing.reduce((sum, { value }) => sum + value, 0)

/** Share of its setting by which a valve may stay below it and hold a pressure: the override of a small relief, and less at a small flow. */
const FAR_BELOW = 0.5

/**
 * What a valve at its setting holds: p = setting + what is behind it + the rest, which is what the flow needs more or less than at the
 * flow for which the setting is given. @param p pressure at each port, Pa @param name what the setting is called
 */
export function heldAtSetting(
  p: Float64Array,
  port: number,
  setting: number,
  behind: Hold['behind'],
  leads: boolean,
  name = 'setting',
): Hold {
  const rest = behind.reduce((sum, b) => sum - b.factor * p[b.port], p[port] - setting)
  return {
    port,
    by: 'valve',
    // one that is late to shut holds nothing far below its setting
    leads: leads && rest > -FAR_BELOW * setting,
    terms: [
      { label: name, value: setting, role: 'setting' },
      { label: rest < 0 ? 'less at this flow' : 'more at this flow', value: rest },
    ],
    behind,
  }
}

/** What a hold leaves of the pressure at its port, Pa: 0 where it is the whole of it. @param p pressure at each port, Pa */
export const restOf = ({ port, terms, behind }: Hold, p: Float64Array): number =>
  behind.reduce(
    (rest, b) => rest - b.factor * p[b.port],
    terms.reduce((rest, { value }) => rest - value, p[port]),
  )

/**
 * What turns a shaft and what is against it, N·m, in the sense in which the oil turns it; the rest is what hangs on the shaft: its load and
 * acceleration. @param torque of the oil @param load of the component itself @param friction @param stops of its end stops
 */
export function torqueBalance(torque: number, load: number, friction: number, stops: number): Balance {
  const sign = torque < 0 ? -1 : 1
  const others = [
    { label: 'load', value: sign * load },
    { label: 'friction', value: sign * friction },
    { label: 'end stop', value: sign * stops },
    { label: 'shaft: its load and acceleration', value: sign * (torque - load - friction - stops) },
  ].filter(({ value }) => value !== 0)
  return {
    name: sign > 0 ? 'turns forward' : 'turns back',
    quantity: 'torque',
    pushing: [
      { label: 'oil', value: sign * torque },
      ...others.filter(({ value }) => value < 0).map(({ label, value }) => ({ label, value: -value })),
    ],
    opposing: others.filter(({ value }) => value > 0),
  }
}

/**
 * What the pressure on either side of a rotary drive balances: p_A − p_B = (T_load + T_f + T_shaft) · Δp/T.
 * @param ports those of the oil, and the shaft @param drop p_A − p_B, Pa @param torque of the oil, N·m, not 0
 * @param behind what the other side is called
 */
export function heldByTorque(
  ports: { readonly A: number; readonly B: number; readonly W: number },
  drop: number,
  torque: number,
  resisting: { readonly load: number; readonly friction: number },
  behind: string,
): Hold[] {
  const perTorque = drop / torque
  const { load, friction } = resisting
  const side = (port: number, other: number, sign: 1 | -1): Hold => {
    const term = (label: string, value: number): Term => ({ label, value: sign * value * perTorque })
    return {
      port,
      by: 'load',
      leads: sign * drop > 0,
      terms: [
        term('load', load),
        term('friction', friction),
        {
          ...term('load on its shaft', torque - load - friction),
          shaft: { port: ports.W, perTorque: sign * perTorque },
        },
      ].filter(({ value }) => value !== 0),
      behind: [{ port: other, factor: 1, label: behind }],
    }
  }
  return [side(ports.A, ports.B, 1), side(ports.B, ports.A, -1)]
}
