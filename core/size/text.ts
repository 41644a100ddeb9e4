/** Values as a sheet or a brief keeps them. */
import { fromSI, shownUnit, toSI, type Quantity } from '../units/quantities'
import { quantityText } from '../units/text'

/** Text of a value in the usual metric unit. @param value SI */
export const textOf = (value: number, quantity: Quantity): string =>
  quantityText(value, quantity, shownUnit(quantity, 'metric').symbol)

/** The same as a person would write it: four digits of the unit that is written. @param value SI */
export const roundedText = (value: number, quantity: Quantity): string => {
  const unit = shownUnit(quantity, 'metric')
  const written = Number(fromSI(value, unit).toPrecision(4))
  return quantityText(toSI(written, unit), quantity, unit.symbol)
}

/** A label as it stands within a sentence: "viscosity at 40 °C", but "ISO class". */
export const inSentence = (label: string): string =>
  label.replace(/^\p{Lu}(?=\p{Ll}|\s)/u, (l) => l.toLowerCase())
