/** How wide a text is in the lettering of drawings, without a font at hand. */

/** Advance widths of Barlow Semi Condensed from the space to the tilde, in hundredths of the size of the letters. */
const WIDTHS = [
  20, 28, 25, 62, 49, 82, 60, 13, 24, 24, 38, 47, 22, 35, 23, 37, 50, 30, 47, 46, 48, 46, 46, 42, 47, 46, 28,
  25, 47, 47, 47, 42, 79, 51, 54, 53, 54, 52, 49, 53, 56, 24, 50, 53, 48, 62, 59, 54, 52, 51, 53, 50, 50, 56,
  51, 75, 51, 50, 47, 34, 37, 34, 42, 43, 19, 46, 48, 46, 48, 47, 32, 47, 48, 23, 22, 45, 21, 74, 48, 48, 49,
  49, 33, 43, 32, 48, 43, 64, 43, 41, 40, 29, 16, 29, 48,
]
const FIRST = 32
/** Of a letter that is not among them: as an M of the Cyrillic letters at most. */
const OTHER = 60
const BASE = /\p{M}/gu

/** Width of a text, in the unit of its size. @param size of the letters: ascender to descender, not the capitals */
export function textWidth(text: string, size: number): number {
  let sum = 0
  // a letter with a mark is as wide as without it
  for (const letter of text.normalize('NFD').replace(BASE, ''))
    sum += WIDTHS[letter.charCodeAt(0) - FIRST] ?? OTHER
  return (sum * size) / 100
}

/** Height of the capitals as a share of the size of letters. */
export const CAPITALS = 0.7
