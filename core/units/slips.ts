/** The usual slips with units, and what a value is in all units of its quantity. */
import { findUnit, fromSI, quantities, toSI, type Quantity, type Unit } from './quantities'
import { formatNumber, parseQuantity } from './text'

export interface Conversion {
  readonly unit: string
  readonly value: number
  /** One of the written unit in this one; an offset is said in words. */
  readonly factor: string
}

/** A number as exactly as a double holds it, without a tail of rounding. */
const exact = (value: number) => String(Number(value.toPrecision(13)))

/** A value in every unit of its quantity. @param unit in which it is written */
export function conversions(value: number, unit: Unit, quantity: Quantity): Conversion[] {
  const si = toSI(value, unit)
  return quantities[quantity].units.map((u) => ({
    unit: u.symbol || '1',
    value: fromSI(si, u),
    factor:
      u.offset || unit.offset
        ? `× ${exact(unit.factor / u.factor)}, then ${formatNumber(((unit.offset ?? 0) - (u.offset ?? 0)) / u.factor, 8)}`
        : `× ${exact(unit.factor / u.factor)}`,
  }))
}

const near = (a: number, b: number, within = 0.004) => Math.abs(a / b - 1) < within
const PSI_PER_BAR = 14.503773773
/** Imperial over US gallon. */
const GALLONS = 4.54609 / 3.785411784

/**
 * What may have gone wrong with a value as it was written: a number without unit, a factor that is usually mistaken.
 * @param text as it was typed @param before the value that it replaces, SI
 */
export function slipsOf(text: string, quantity: Quantity, before?: number): string[] {
  const slips: string[] = []
  const bare = /^[+-]?[\d.,]+(?:e[+-]?\d+)?$/i.test(text.trim())
  const number = Number(text.trim().replace(',', '.'))
  if (bare && text.trim() !== '') {
    const readings = quantities[quantity].units
      .filter((u) => u.symbol)
      .slice(0, 4)
      .map((u) => `${text.trim()} ${u.symbol}`)
    if (readings.length > 1)
      slips.push(
        `A number without a unit, as it may be stamped on a part, can be ${readings.join(', ')}: find out which.`,
      )
  }
  const read = parseQuantity(text, quantity, bare ? quantities[quantity].units[0] : undefined)
  const si = read.ok ? read.si : NaN
  if (quantity === 'pressure') {
    if (before && Number.isFinite(si) && near(si / before, 14.7 / PSI_PER_BAR, 0.0005))
      slips.push('This is off by 14.7 to 14.504: a bar is 14.504 psi; 14.7 psi is the atmosphere.')
    if (before !== undefined && Number.isFinite(si) && Math.abs(Math.abs(si - before) - 101325) < 1500)
      slips.push(
        'This differs by one atmosphere: gauge pressure or absolute? Values here are gauge, unless they say so.',
      )
    if (/abs|\(a\)|bara|psia/i.test(text))
      slips.push('Absolute pressures are 1.013 bar (14.7 psi) above gauge.')
    if (/bara|barg|psia|psig/i.test(text))
      slips.push('Write bar or psi: values are gauge, unless they say so.')
  }
  if (quantity === 'flow' || quantity === 'volume') {
    if (/imp|uk/i.test(text))
      slips.push(`An imperial gallon is ${GALLONS.toFixed(4)} US gallons; "gal" is the US gallon of 231 in³.`)
    if (before && Number.isFinite(si) && [GALLONS, 1 / GALLONS].some((k) => near(si / before, k)))
      slips.push('This is off by the ratio of imperial to US gallons (1.2009).')
  }
  if (quantity === 'displacement' && bare && number > 0) {
    const cubicInches = toSI(number, findUnit('displacement', 'in³/rev')!) * 1e6
    slips.push(`${text.trim()} in³/rev would be ${formatNumber(cubicInches)} cm³/rev: sixteen times as much.`)
  }
  if (
    quantity === 'power' &&
    before &&
    Number.isFinite(si) &&
    near(si / before, 735.49875 / 745.69987158227, 0.002)
  )
    slips.push('This is off by the ratio of metric to mechanical horsepower (0.986).')
  return slips
}
