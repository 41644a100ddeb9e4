/** Which values on a sheet take the results of sizing, and whether they agree with them. */
import { findKind } from '../catalogue'
import type { QuantityParameter } from '../catalogue/kind'
import { setParameter } from '../sheet/edit'
import { readParameter } from '../sheet/resolve'
import type { Sheet, SheetComponent } from '../sheet/schema'
import { shownUnit } from '../units/quantities'
import { quantityText } from '../units/text'
import { resolveBrief, type Brief } from './brief'
import type { Card } from './card'
import { sizingCards } from './cards'

export type Result = Card['gives'][number]
/** A value on the sheet that can take a result. */
export interface Target {
  readonly component: SheetComponent
  readonly parameter: string
  readonly definition: QuantityParameter
  /** SI; none where it cannot be read. */
  readonly value: number | undefined
}

/** The values of a sheet that can take a result. */
export const targetsOf = (sheet: Sheet, result: Result): Target[] =>
  sheet.components.flatMap((component) => {
    const kind = findKind(component.kind)
    const parameter = kind?.traits?.sizingTargets?.[result.sized]
    if (!kind || !parameter) return []
    const definition = kind.parameters[parameter] as QuantityParameter
    const read = readParameter(definition, component.parameters[parameter])
    return [{ component, parameter, definition, value: 'value' in read ? (read.value as number) : undefined }]
  })

/** Whether a value is the result, but for rounding in the last place that is written. */
export const agrees = ({ value }: Target, result: Result): boolean =>
  value !== undefined &&
  Math.abs(value - result.value) <= 1e-6 * Math.max(Math.abs(value), Math.abs(result.value))

/** The sheet with a result in a value, written in metric units. */
export const applyResult = (sheet: Sheet, target: Target, result: Result): Sheet =>
  setParameter(
    sheet,
    target.component.id,
    target.parameter,
    quantityText(result.value, result.quantity, shownUnit(result.quantity, 'metric').symbol),
  )

/** The sheet with every result that has exactly one value to take it. */
export function applyAll(sheet: Sheet, cards: readonly Card[]): Sheet {
  let applied = sheet
  for (const result of cards.flatMap((card) => card.gives)) {
    const targets = targetsOf(applied, result)
    if (targets.length === 1) applied = applyResult(applied, targets[0], result)
  }
  return applied
}

/** How many values of a sheet take results of a brief, and how many of them agree; none where the brief has no valid values. */
export function agreement(sheet: Sheet, brief: Brief): { sized: number; agreeing: number } {
  const { values } = resolveBrief(brief)
  const pairs = (values ? sizingCards(values) : [])
    .flatMap((card) => card.gives)
    .flatMap((result) => targetsOf(sheet, result).map((target) => agrees(target, result)))
  return { sized: pairs.length, agreeing: pairs.filter(Boolean).length }
}
