/** Where the energy of a run goes, as rows: kilojoules and shares by component. */
import { totalOf, type EnergyAccount, type EnergyShare } from '../explain/energy'
import { partName } from '../explain/words'
import type { Sheet } from '../sheet/schema'
import type { Rows } from './csv'

const kJ = (energy: number) => Number((energy / 1000).toPrecision(6))

export function energyRows(sheet: Sheet, account: EnergyAccount): Rows {
  const whole = totalOf(account.input) + totalOf(account.given)
  const of = (label: string, shares: readonly EnergyShare[]) =>
    shares.map(({ part, energy }) => [
      label,
      partName(sheet, part),
      kJ(energy),
      whole > 0 ? Number(((100 * energy) / whole).toPrecision(4)) : 0,
    ])
  return [
    ['Where', 'Part', 'kJ', '% of what is put in'],
    ...of('put in', account.input),
    ...of('given back by loads and stores', account.given),
    ...of('work on loads', account.work),
    ...of('heat', account.heat),
    ...of('kept', account.kept),
    ['oil under pressure, and what lies between the samples', '', kJ(account.rest), ''],
  ]
}
