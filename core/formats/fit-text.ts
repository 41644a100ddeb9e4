/** Text in a field: at the largest of some sizes that takes all of it, in as many lines as there is room for. */
import { textWidth } from '../catalogue/text-width'

/** Distance from line to line as a share of the size. */
export const LINE = 1.25

export interface FittedText {
  readonly size: number
  readonly lines: readonly string[]
  /** Not all of it has room. */
  readonly cut: boolean
}

/** A text in lines no wider than a width; a word that is wider is parted. */
export function wrapped(text: string, width: number, size: number): string[] {
  const lines: string[] = []
  let line = ''
  const fits = (words: string) => textWidth(words, size) <= width
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const longer = line ? `${line} ${word}` : word
    if (fits(longer)) {
      line = longer
      continue
    }
    if (line) lines.push(line)
    line = ''
    for (const letter of word) {
      if (line && !fits(line + letter)) {
        lines.push(line)
        line = ''
      }
      line += letter
    }
  }
  if (line) lines.push(line)
  return lines
}

/** @param sizes from the largest to the least @param width and height of the field, in the unit of the sizes */
export function fitText(text: string, width: number, height: number, sizes: readonly number[]): FittedText {
  for (const size of sizes) {
    const lines = wrapped(text, width, size)
    if (lines.length * LINE * size <= height + 1e-9) return { size, lines, cut: false }
  }
  const size = sizes[sizes.length - 1]
  const room = Math.max(1, Math.floor(height / (LINE * size)))
  const lines = wrapped(text, width, size).slice(0, room)
  let last = lines[room - 1]
  while (last && textWidth(`${last}…`, size) > width) last = last.slice(0, -1)
  lines[room - 1] = `${last}…`
  return { size, lines, cut: true }
}
