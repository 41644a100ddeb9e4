import { readNumber } from './numbers'
import {
  findUnit,
  fromSI,
  quantities,
  quantitiesWithUnit,
  shownUnit,
  toSI,
  type Quantity,
  type Unit,
  type UnitSystem,
} from './quantities'

export type Parsed =
  | { ok: true; si: number; value: number; unit: Unit; text: string }
  /** `readings`: two ways to read a number that is not clear, each as it would be written clearly. */
  | { ok: false; message: string; readings?: readonly [string, string] }

/** Longest text that is read as a number with a unit. */
const LONGEST = 120

/**
 * Reads "2.5 gpm", "2,5 bar", "1 1/2 in" or "160bar" as a quantity in SI. A comma before exactly three digits is asked about.
 * @param assumed unit taken for a bare number; without it a bare number is refused.
 */
export function parseQuantity(text: string, quantity: Quantity, assumed?: Unit): Parsed {
  const { label, shown } = quantities[quantity]
  const example = shown.metric ? `"10 ${shown.metric}"` : '"0.5" or "50 %"'
  const written = text.trim()
  const read = written.length <= LONGEST ? readNumber(written) : undefined
  if (!read)
    return { ok: false, message: `Not a ${label}: "${text.slice(0, LONGEST)}". Write it like ${example}.` }
  const spelled = read.rest.trim()
  if ('readings' in read) {
    const [thousands, decimal] = read.readings.map((number) => `${number} ${spelled}`.trim())
    const number = written.slice(0, written.length - read.rest.length)
    return {
      ok: false,
      message: `"${number}" can be ${thousands} or ${decimal}: write which.`,
      readings: [thousands, decimal],
    }
  }
  const { value } = read
  const unit = spelled === '' ? (assumed ?? findUnit(quantity, '')) : findUnit(quantity, spelled)
  if (!unit) {
    if (spelled === '') return { ok: false, message: `Give a unit with ${written}, for example ${example}.` }
    const others = quantitiesWithUnit(spelled).map((name) => quantities[name].label)
    const hint = others.length ? ` It is a unit of ${others.join(' or ')}.` : ''
    const known = quantities[quantity].units.map((u) => u.symbol).filter(Boolean)
    return {
      ok: false,
      message: `Unknown unit "${spelled}" for ${label}.${hint} Use ${known.join(', ')}.`,
    }
  }
  const si = toSI(value, unit)
  if (!Number.isFinite(si)) return { ok: false, message: `"${text}" is not a finite ${label}.` }
  return { ok: true, si, value, unit, text: writeQuantity(value, unit) }
}

const writeQuantity = (value: number, unit: Unit) => (unit.symbol ? `${value} ${unit.symbol}` : `${value}`)

/** Rounds to significant digits without exponents for everyday sizes: 146.13, 0.0125, 1 250 000. */
export function formatNumber(value: number, digits = 4): string {
  if (!Number.isFinite(value)) return '–'
  if (value === 0) return '0'
  const size = Math.floor(Math.log10(Math.abs(value)))
  // a trace left by the arithmetic is nothing to read
  if (size < -digits - 2) return '0'
  if (size > 9) return value.toExponential(digits - 1)
  const decimals = Math.max(0, digits - 1 - size)
  const text = value.toFixed(Math.min(decimals, 12))
  let end = text.length
  if (text.includes('.')) {
    while (text[end - 1] === '0') end--
    if (text[end - 1] === '.') end--
  }
  const trimmed = text.slice(0, end)
  return trimmed === '-0' ? '0' : trimmed
}

/** An SI value in the unit that a unit system shows for its quantity, without the unit. */
export function showNumber(si: number, quantity: Quantity, system: UnitSystem, digits = 4): string {
  return formatNumber(fromSI(si, shownUnit(quantity, system)), digits)
}

/** An SI value with its unit in a unit system: "146.1 bar" or "2119 psi". */
export function showQuantity(si: number, quantity: Quantity, system: UnitSystem, digits = 4): string {
  const { small, large } = quantities[quantity]
  const size = Math.abs(si)
  const other =
    small && size > 0 && size < small.below
      ? small.symbol
      : large && size >= large.from * (1 - 1e-9)
        ? large.symbol[system]
        : undefined
  const unit = other === undefined ? shownUnit(quantity, system) : findUnit(quantity, other)!
  const number = formatNumber(fromSI(si, unit), digits)
  return unit.symbol ? `${number} ${unit.symbol}` : number
}

/** `showQuantity` for one unit system. */
export const showIn =
  (system: UnitSystem) =>
  (si: number, quantity: Quantity, digits = 4): string =>
    showQuantity(si, quantity, system, digits)

/** Writes an SI value the way the sheet file keeps it, in the given unit spelling. */
export function quantityText(si: number, quantity: Quantity, symbol: string): string {
  const unit = findUnit(quantity, symbol)
  if (!unit) throw new Error(`No unit "${symbol}" for ${quantity}`)
  return writeQuantity(Number(fromSI(si, unit).toPrecision(10)), unit)
}
