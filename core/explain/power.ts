/** Where the power goes at an instant: what is put in and what becomes heat. */
import { Power } from '../catalogue/kind'
import type { Network } from '../simulate/circuit/network'
import { partOf } from './stack'

export interface PowerShare {
  readonly part: string
  /** W */
  readonly value: number
}
/** All in W. */
export interface PowerNow {
  readonly input: number
  readonly heat: number
  /** The largest first. */
  readonly heatBy: readonly PowerShare[]
}

/** @param network stands observed */
export function powerNow({ elements }: Network): PowerNow {
  const sum = (index: number) => elements.reduce((all, { local }) => all + local.power[index], 0)
  const heatBy = elements
    .map((element) => ({ part: partOf(element), value: element.local.power[Power.heat] }))
    .filter(({ value }) => value !== 0)
    .sort((a, b) => Math.abs(b.value) - Math.abs(a.value))
  return { input: sum(Power.input), heat: sum(Power.heat), heatBy }
}
