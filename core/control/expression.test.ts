import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contactsOf, expressionText, parseExpression, type Expression } from './expression'
import { passes } from './testing'

const read = (text: string): Expression => {
  const parsed = parseExpression(text)
  if (!parsed.ok) throw new Error(parsed.error.message)
  return parsed.expression!
}
const error = (text: string) => {
  const parsed = parseExpression(text)
  return parsed.ok ? '' : `${parsed.error.at}: ${parsed.error.message}`
}

describe('contacts as text', () => {
  it('are read with their signs and with words', () => {
    expect(expressionText(read('/S0*(S1+K1)'))).toBe('/S0 · (S1 + K1)')
    expect(expressionText(read('not S0 and (S1 or K1)'))).toBe('/S0 · (S1 + K1)')
    expect(expressionText(read('1-1S2 · S5.1'))).toBe('1-1S2 · S5.1')
    expect(expressionText(read('G1.X3 for 1500 ms'))).toBe('G1.X3 for 1.5 s')
    expect(expressionText(read('G1.X3 for 2s · S1'))).toBe('G1.X3 for 2 s · S1')
  })
  it('negate a bracket by its contacts', () => {
    expect(expressionText(read('/(B2 · B3)'))).toBe('/B2 + /B3')
    expect(expressionText(read('not (/A + B · C)'))).toBe('A · (/B + /C)')
  })
  it('say what is wrong, and where', () => {
    expect(error('S1 S2')).toBe(
      '3: Between two contacts stands "·" (in series) or "+" (parallel), before "S2".',
    )
    expect(error('S1 · ')).toBe('5: A contact is missing at the end.')
    expect(error('(S1 + S2')).toBe('0: A bracket is not closed.')
    expect(error('S1 & S2')).toBe('3: "&" has no meaning here.')
    expect(error('X1 for ever')).toMatch(/^7: After "for" comes a time/)
    expect(error('S1 + + S2')).toBe('5: A contact is expected before "+".')
    expect(error('S1)')).toBe('2: ")" is not expected here.')
    expect(error('('.repeat(100) + 'S1')).toMatch(/too many brackets/)
  })
  it('that are none are a path that is always closed', () => {
    expect(parseExpression('  ')).toEqual({ ok: true, expression: undefined })
    expect(passes(undefined, () => false)).toBe(true)
  })
  it('pass current by their truth table', () => {
    const path = read('/S0 · (S1 + K1)')
    const rows = [0, 1, 2, 3, 4, 5, 6, 7].map((n) =>
      passes(path, (name) => [n & 4, n & 2, n & 1][['S0', 'S1', 'K1'].indexOf(name)] > 0),
    )
    expect(rows).toEqual([false, true, true, true, false, false, false, false])
  })

  const name = fc.constantFrom('S1', 'S2', 'K1', '1-1B3', 'S5.1')
  const tree: fc.Arbitrary<string> = fc.letrec<{ any: string }>((tie) => ({
    any: fc.oneof(
      { maxDepth: 4 },
      name,
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => `(${a} + ${b})`),
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => `(${a} · ${b})`),
      tie('any').map((a) => `/(${a})`),
    ),
  })).any
  it('mean the same after they were written and read again', () => {
    fc.assert(
      fc.property(tree, fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }), (text, states) => {
        const names = ['S1', 'S2', 'K1', '1-1B3', 'S5.1']
        const contact = (n: string) => states[names.indexOf(n)]
        // the same text, as the language of the tests reads it
        const meaning = new Function(
          'c',
          `return ${text
            .replace(/[A-Z0-9][A-Z0-9.-]*/g, (n) => `c("${n}")`)
            .replaceAll('·', '&&')
            .replaceAll('+', '||')
            .replaceAll('/', '!')}`,
        )(contact) as boolean
        const once = read(text)
        expect(passes(once, contact)).toBe(meaning)
        expect(passes(read(expressionText(once)), contact)).toBe(meaning)
        expect(contactsOf(once).length).toBeGreaterThan(0)
      }),
    )
  })
})
