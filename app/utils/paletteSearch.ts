/** Finds what can be placed or drawn by plain words. */
export interface PaletteEntry {
  readonly key: string
  readonly label: string
  /** Other words that people type for it. */
  readonly terms: readonly string[]
  readonly pick: () => void
}

export const sentenceCase = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .split(/[\s,()]+/)
    .filter(Boolean)

/**
 * Entries that have, for each word that was typed, a word that begins with it; all of them where nothing was typed. Those with a
 * term that is just what was typed come first, then those whose name begins so.
 */
export function searchPalette<T extends PaletteEntry>(entries: readonly T[], search: string): T[] {
  const typed = search.trim().toLowerCase()
  const words = wordsOf(typed)
  if (!words.length) return [...entries]
  const rank = ({ label, terms }: T): number => {
    const all = [label, ...terms].map((text) => text.toLowerCase())
    const parts = all.flatMap(wordsOf)
    if (!words.every((word) => parts.some((part) => part.startsWith(word)))) return 0
    return 1 + (all.includes(typed) ? 2 : 0) + (label.toLowerCase().startsWith(words[0]) ? 1 : 0)
  }
  return entries
    .map((entry) => ({ entry, rank: rank(entry) }))
    .filter(({ rank: r }) => r > 0)
    .sort((a, b) => b.rank - a.rank)
    .map(({ entry }) => entry)
}
