/** Symbols with an index: "T_s" and "p₁", for documents whose fonts have no lowered letters. */

/** A piece of a text, on the line or lowered. */
export interface TextPiece {
  readonly text: string
  readonly lowered: boolean
}

const LOWERED: Readonly<Record<string, string>> = Object.fromEntries(
  [...'₀0₁1₂2₃3₄4₅5₆6₇7₈8₉9ₐaₑeₕhᵢiₖkₗlₘmₙnₒoₚpᵣrₛsₜtᵤuᵥvₓx'].flatMap((letter, i, all) =>
    i % 2 === 0 ? [[letter, all[i + 1]]] : [],
  ),
)
const INDEX = new RegExp(`_([\\p{L}\\p{N}]+)|([${Object.keys(LOWERED).join('')}]+)`, 'u')

/** The text in pieces: what stands behind an underscore and what is written in lowered letters is an index. */
export const withIndices = (text: string): TextPiece[] =>
  text
    .replaceAll('√', 'sqrt')
    .split(INDEX)
    .flatMap((part: string | undefined, i) =>
      part
        ? [
            {
              text: i % 3 ? part.replace(/./gu, (letter) => LOWERED[letter] ?? letter) : part,
              lowered: i % 3 > 0,
            },
          ]
        : [],
    )
/** The text as one piece. */
export const plainText = (text: string): TextPiece[] => [{ text, lowered: false }]
