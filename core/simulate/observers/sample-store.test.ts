import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { SampleStore } from './sample-store'

describe('a store of samples', () => {
  it('grows without a limit, and forgets what lies after an instant', () => {
    const store = new SampleStore()
    store.addColumn()
    for (let i = 0; i < 1000; i++) store.append(i, [i * i])
    expect([store.count, store.times[999], store.columns[0][31]]).toEqual([1000, 999, 961])
    store.truncate(500)
    expect([store.count, store.times[store.count - 1]]).toEqual([500, 499])
    store.addColumn()
    store.append(500, [7, 8])
    expect(store.copy(500, [0, 0]).columns.map((c) => c[500])).toEqual([7, 8])
    expect(store.copy(501, [3, 3]).columns.map((c) => c[501])).toEqual([3, 3])
  })
  it('has in its columns what was appended, whenever these are looked at', () => {
    const act = fc.oneof(
      fc.record({ kind: fc.constant('append'), value: fc.integer({ min: -100, max: 100 }) }),
      fc.record({ kind: fc.constantFrom('look', 'column', 'remove'), value: fc.constant(0) }),
      fc.record({ kind: fc.constant('truncate'), value: fc.integer({ min: 0, max: 40 }) }),
    )
    fc.assert(
      fc.property(fc.array(act, { minLength: 50, maxLength: 300 }), (acts) => {
        const store = new SampleStore()
        const WIDTH = 5
        // of each signal its place in the rows, and its values
        const expected: { place: number; values: number[] }[] = []
        let count = 0
        const same = () =>
          expect(store.columns.map((column) => [...column.subarray(0, store.count)])).toEqual(
            expected.map(({ values }) => values),
          )
        for (const { kind, value } of acts)
          if (kind === 'append') {
            store.append(
              count++,
              Array.from({ length: WIDTH }, (_, i) => value + i),
            )
            for (const { place, values } of expected) values.push(value + place)
          } else if (kind === 'column') {
            const place = (3 * expected.length + 1) % WIDTH
            store.addColumn(place)
            expected.push({ place, values: Array<number>(count).fill(0) })
          } else if (kind === 'remove' && expected.length) {
            store.removeColumn()
            expected.pop()
          } else if (kind === 'truncate') {
            count = Math.max(0, count - value)
            store.truncate(count)
            for (const { values } of expected) values.length = count
          } else same()
        same()
      }),
      { numRuns: 100 },
    )
  })
  it('keeps a few samples however little room there is, and fewer the more signals', () => {
    for (const [room, signals, most] of [
      [1, 1, 64],
      [1000, 1, 1000],
      [1000, 5, 200],
    ]) {
      const store = new SampleStore(room)
      for (let i = 0; i < signals; i++) store.addColumn()
      for (let i = 0; i < 3000; i++) store.append(i, Array(signals).fill(i))
      expect(store.count).toBeLessThanOrEqual(most)
      expect(store.count).toBeGreaterThan(most / 2)
    }
  })
  it('stays within its limit and keeps the least and the greatest, in order of time', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 64, max: 300 }),
        fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 400, maxLength: 3000 }),
        (capacity, values) => {
          const store = new SampleStore(capacity)
          store.addColumn()
          values.forEach((v, i) => store.append(i * 0.01, [v]))
          expect(store.count).toBeLessThanOrEqual(capacity)
          const kept = [...store.columns[0].subarray(0, store.count)]
          expect(Math.max(...kept)).toBe(Math.max(...values))
          expect(Math.min(...kept)).toBe(Math.min(...values))
          const times = [...store.times.subarray(0, store.count)]
          expect(times.every((t, i) => i === 0 || t > times[i - 1])).toBe(true)
          // the recent ones are there as they were
          expect(kept.slice(-16)).toEqual(values.slice(-16))
        },
      ),
      { numRuns: 60 },
    )
  })
  it('thins what is old evenly', () => {
    const store = new SampleStore(1000)
    for (let i = 0; i < 100_000; i++) store.append(i, [])
    const gaps = Array.from({ length: store.count - 1 }, (_, i) => store.times[i + 1] - store.times[i])
    expect(Math.max(...gaps.slice(0, store.count / 2))).toBeLessThan(600)
    expect(gaps.at(-1)).toBe(1)
  })
})
