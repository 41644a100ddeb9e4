/** Numbers as people write them: with a decimal point or comma, in groups of thousands, as fractions of an inch. */

/** A number at the start of a text, and what follows it. */
export type ReadNumber =
  | { readonly value: number; readonly rest: string }
  /** A comma before exactly three digits: thousands in one country, decimals in another. */
  | { readonly readings: readonly [thousands: string, decimal: string]; readonly rest: string }

const SIGN = '([+-]?)'
const EXPONENT = '(?:[eE]([+-]?\\d{1,4}))?'
/** No digit and no further group may follow a number. */
const END = '(?![\\d.,]*\\d)'
const FRACTION = new RegExp(`^${SIGN}(?:(\\d{1,6})[ -]+)?(\\d{1,4})/(\\d{1,4})(?![\\d.,/])`)
const SPACED = new RegExp(
  `^${SIGN}(\\d{1,3}(?:[ '\\u00a0\\u2009\\u202f]\\d{3})+)(?:[.,](\\d+))?${EXPONENT}${END}`,
)
const COMMAS = new RegExp(
  `^${SIGN}(\\d{1,3}(?:,\\d{3})+)\\.(\\d*)${EXPONENT}${END}|^${SIGN}(\\d{1,3}(?:,\\d{3}){2,})${EXPONENT}${END}`,
)
const DOTS = new RegExp(
  `^${SIGN}(\\d{1,3}(?:\\.\\d{3})+),(\\d*)${EXPONENT}${END}|^${SIGN}(\\d{1,3}(?:\\.\\d{3}){2,})${EXPONENT}${END}`,
)
const UNCLEAR = new RegExp(`^${SIGN}([1-9]\\d{0,2}),(\\d{3})${EXPONENT}${END}`)
const PLAIN = new RegExp(`^${SIGN}(\\d+(?:[.,]\\d*)?|[.,]\\d+)${EXPONENT}`)

const power = (exponent: string | undefined) => (exponent ? `e${exponent}` : '')
const digits = (groups: string) => groups.replace(/\D/g, '')

/** Reads the number at the start of a text; nothing where there is none. */
export function readNumber(text: string): ReadNumber | undefined {
  const at = (match: RegExpExecArray) => text.slice(match[0].length)
  const fraction = FRACTION.exec(text)
  if (fraction) {
    const [, sign, whole = '0', top, bottom] = fraction
    const value = Number(whole) + Number(top) / Number(bottom)
    return { value: sign === '-' ? -value : value, rest: at(fraction) }
  }
  const spaced = SPACED.exec(text)
  if (spaced) {
    const [, sign, groups, decimals = '0', exponent] = spaced
    return { value: Number(`${sign}${digits(groups)}.${decimals}${power(exponent)}`), rest: at(spaced) }
  }
  for (const pattern of [COMMAS, DOTS]) {
    const grouped = pattern.exec(text)
    if (!grouped) continue
    const [sign = '', groups, decimals, exponent] = grouped[2]
      ? [grouped[1], grouped[2], grouped[3] || '0', grouped[4]]
      : [grouped[5], grouped[6], '0', grouped[7]]
    return { value: Number(`${sign}${digits(groups)}.${decimals}${power(exponent)}`), rest: at(grouped) }
  }
  const unclear = UNCLEAR.exec(text)
  if (unclear) {
    const [, sign, before, after, exponent] = unclear
    return {
      readings: [
        `${sign}${before}${after}${power(exponent)}`,
        // written so that it is not asked again
        `${sign}${before}.${after}${power(exponent)}`,
      ],
      rest: at(unclear),
    }
  }
  const plain = PLAIN.exec(text)
  return plain
    ? { value: Number(`${plain[1]}${plain[2].replace(',', '.')}${power(plain[3])}`), rest: at(plain) }
    : undefined
}
