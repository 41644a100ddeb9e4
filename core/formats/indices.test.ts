import { describe, expect, it } from 'vitest'
import { cards } from '../size/cards'
import { plainText, withIndices } from './indices'

const written = (text: string) =>
  withIndices(text)
    .map((p) => (p.lowered ? `<${p.text}>` : p.text))
    .join('')

describe('symbols with an index', () => {
  it.each([
    ['T_s = p₁ · V₂₀', 'T<s> = p<1> · V<20>'],
    ['Qᵣ', 'Q<r>'],
    ['√(2 · x)', 'sqrt(2 · x)'],
    ['a plain text', 'a plain text'],
    ['', ''],
  ])('%s is divided', (text, pieces) => {
    expect(written(text)).toBe(pieces)
    expect(plainText(text)).toEqual([{ text, lowered: false }])
  })
  it('leave no lowered letter of any card as it is', () => {
    for (const { id, variables } of cards)
      for (const { symbol } of Object.values(variables))
        expect(written(symbol), id).not.toMatch(/[\u2080-\u209c\u1d62-\u1d6a]/)
  })
})
