/** Where the power goes at an instant: what is put in, what does work, what becomes heat, what is stored. */
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
  readonly useful: number
  readonly heat: number
  readonly stored: number
  /** The largest first. */
  readonly inputBy: readonly PowerShare[]
  readonly usefulBy: readonly PowerShare[]
  readonly heatBy: readonly PowerShare[]
  readonly storedBy: readonly PowerShare[]
}

/** @param network stands observed */
export function powerNow({ elements }: Network): PowerNow {
  const by = (index: number) =>
    elements
      .map((element) => ({ part: partOf(element), value: element.local.power[index] }))
      .filter(({ value }) => value !== 0)
      .sort((a, b) => Math.abs(b.value) - Math.abs(a.value))
  const sum = (shares: readonly PowerShare[]) => shares.reduce((all, { value }) => all + value, 0)
  const [inputBy, usefulBy, heatBy, storedBy] = [
    by(Power.input),
    by(Power.useful),
    by(Power.heat),
    by(Power.stored),
  ]
  return {
    input: sum(inputBy),
    useful: sum(usefulBy),
    heat: sum(heatBy),
    stored: sum(storedBy),
    inputBy,
    usefulBy,
    heatBy,
    storedBy,
  }
}
