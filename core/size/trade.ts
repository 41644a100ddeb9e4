/** A step in the constants of the trade: the same result by numbers in fixed units. */
import { findUnit, fromSI, toSI } from '../units/quantities'
import { formatNumber } from '../units/text'
import type { Card, StepVariable } from './card'

export interface TradeResult {
  /** In symbols: "V · n · η_v / 231". */
  readonly formula: string
  /** With the numbers put in, in the units of the formula. */
  readonly numbers: string
  /** In the unit of the formula. */
  readonly value: number
  readonly unit: string
  /** SI. */
  readonly si: number
}

/** @returns nothing where a value is missing or the step has no such formula @throws Error on a unit that the quantity does not have */
export function inTradeUnits(
  card: Card,
  step: StepVariable,
  values: Readonly<Record<string, number>>,
): TradeResult | undefined {
  const { trade } = step
  if (!trade || !trade.formula.names.every((name) => name in values)) return undefined
  const unit = (name: string) => {
    const { quantity } = card.variables[name]
    const found = findUnit(quantity, trade.units[name] ?? '')
    if (!found) throw new Error(`${card.id}: no unit "${trade.units[name]}" for ${name}`)
    return found
  }
  const inUnits: Record<string, number> = {}
  for (const name of trade.formula.names) inUnits[name] = fromSI(values[name], unit(name))
  const result = findUnit(step.quantity, trade.unit)
  if (!result) throw new Error(`${card.id}: no unit "${trade.unit}" for ${step.label}`)
  const value = trade.formula.evaluate(inUnits)
  return {
    formula: trade.formula.printActive((name) => card.variables[name].symbol || name, inUnits),
    numbers: trade.formula.printActive((name) => formatNumber(inUnits[name]), inUnits),
    value,
    unit: trade.unit,
    si: toSI(value, result),
  }
}
