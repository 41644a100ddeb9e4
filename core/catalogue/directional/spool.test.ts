import { describe, expect, it } from 'vitest'
import { THROTTLED, pairsOf, pathOpening, spoolPaths } from './spool'

const names = (box: string[]) =>
  pairsOf(box)
    .map((p) => p.join(''))
    .sort()
    .join(' ')

describe('boxes of a directional valve', () => {
  it('join across lands only', () => {
    expect(names(['P>A', 'B>T'])).toBe('PA TB')
    expect(names(['A-B-T'])).toBe('TA TB')
    expect(names(['P-A-B'])).toBe('PA PB')
    expect(names(['P-A-B-T'])).toBe('PA PB TA TB')
    expect(names(['P-T'])).toBe('PT')
    expect(names(['A-B'])).toBe('AB')
    expect(names([])).toBe('')
    expect(names(['A~T', 'B~T'])).toBe('TA TB')
  })
  const [path] = spoolPaths([[], ['P>A'], ['P>A']], ['P', 'T', 'A', 'B'])
  it('open from halfway with a closed crossover, and all the way with an open one', () => {
    expect([0, 0.5, 0.75, 1, 1.5, 2].map((y) => pathOpening(path, y, false))).toEqual([0, 0, 0.5, 1, 1, 1])
    expect([0, 0.5, 1, 1.5].map((y) => pathOpening(path, y, true))).toEqual([0, 0.5, 1, 1])
    expect(pathOpening(path, -1, false)).toBe(0)
    expect(pathOpening(path, 9, false)).toBe(1)
  })
  it('throttle a way by the same share wherever it is drawn so', () => {
    const [way] = spoolPaths([['A>T'], ['A~T'], []], ['P', 'T', 'A', 'B'])
    expect([0, 1, 2].map((y) => pathOpening(way, y, false))).toEqual([1, THROTTLED, 0])
    expect(pathOpening(way, 0.5, false)).toBeCloseTo((1 + THROTTLED) / 2)
  })
})
