/** The fonts of drawings: one file for each script, of which only those are loaded whose letters are used. */

export interface LetteringFont {
  readonly family: string
  /** Letters that it has, as a CSS unicode-range: "U+0000-00FF,U+0131". */
  readonly range: string
  /** Bytes as WOFF, and as WOFF2. */
  plain(): Promise<Uint8Array>
  packed(): Promise<Uint8Array>
}

/** Mathematical signs and arrows of Noto Sans Math, whose package tells another range than its file has. */
const MATHEMATICS = 'U+2032-2033,U+2190-21FF,U+2200-22FF,U+2300'

/**
 * Where each script is found: packages of fonts and the names of their files, the first that has a letter is taken. What letters a file
 * has is told by its package, or by a third entry.
 */
export const letteringScripts = [
  ['barlow-semi-condensed', 'latin'],
  ['barlow-semi-condensed', 'latin-ext'],
  ['barlow-semi-condensed', 'vietnamese'],
  ['source-sans-3', 'greek'],
  ['source-sans-3', 'greek-ext'],
  ['source-sans-3', 'cyrillic'],
  ['source-sans-3', 'cyrillic-ext'],
  ['noto-sans-math', 'latin', MATHEMATICS],
] as const
export const fontFamilies = {
  'barlow-semi-condensed': 'Barlow Semi Condensed',
  'source-sans-3': 'Source Sans 3',
  'noto-sans-math': 'Noto Sans Math',
} as const

/** Reads a CSS unicode-range. @returns whether a code point is in it */
function inRange(range: string): (code: number) => boolean {
  const parts = range.split(',').map((part) => {
    const [from, to] = part
      .trim()
      .replace(/^U\+/i, '')
      .split('-')
      .map((hex) => Number.parseInt(hex, 16))
    return [from, to ?? from] as const
  })
  return (code) => parts.some(([from, to]) => code >= from && code <= to)
}

/** The sign of a diameter is in no usual font; the letter Ø stands for it. */
export const withDiameter = (text: string) => text.replace(/[⌀∅]/g, 'Ø')

/** The fonts that a text needs, in their order, and the letters that none of them has. */
export function fontsFor(
  text: string,
  fonts: readonly LetteringFont[],
): { used: LetteringFont[]; missing: string[] } {
  const letters = new Set(withDiameter(text).replace(/\s/g, ''))
  const used = new Set<LetteringFont>(fonts.slice(0, 1))
  const missing: string[] = []
  const has = new Map(fonts.map((font) => [font, inRange(font.range)]))
  for (const letter of letters) {
    const font = fonts.find((f) => has.get(f)!(letter.codePointAt(0)!))
    if (font) used.add(font)
    else missing.push(letter)
  }
  return { used: fonts.filter((f) => used.has(f)), missing }
}
