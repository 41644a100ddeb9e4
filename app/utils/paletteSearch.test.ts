import { describe, expect, it } from 'vitest'
import { kinds } from '@oar-bench/core/catalogue'
import { searchPalette } from './paletteSearch'

const entries = [...kinds.values()].map(({ name, label, searchTerms }) => ({
  key: name,
  label,
  terms: searchTerms,
  pick: () => undefined,
}))
const first = (search: string) => searchPalette(entries, search)[0]?.key
const all = (search: string) => searchPalette(entries, search).map((e) => e.key)

describe('the search for components', () => {
  it.each([
    ['fp', 'fixed-pump'],
    ['cbv', 'counterbalance-valve'],
    ['overcentre', 'over-centre-pump'],
    ['overcentre', 'counterbalance-valve'],
    ['Over-centre', 'counterbalance-valve'],
    ['relief', 'relief-valve-direct'],
    ['pump variable', 'over-centre-pump'],
  ])('%s finds %s', (search, kind) => expect(all(search)).toContain(kind))
  it('puts what is called just so first', () => {
    expect(first('fp')).toBe('fixed-pump')
    expect(first('em')).toBe('electric-motor')
    expect(first('pg')).toBe('pressure-gauge')
  })
  it('looks at the beginnings of words, not inside them', () => {
    expect(all('tee')).toEqual([])
    expect(all('hose')).not.toContain('burst')
    expect(all('xyz')).toEqual([])
  })
  it('has everything where nothing is typed', () => expect(all('  ')).toHaveLength(kinds.size))
})
