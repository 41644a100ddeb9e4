import { describe, expect, it } from 'vitest'
import { circuit, powerUnit, powerUnitPipes, runSheet } from '@oar-bench/core/testing'
import { move, remove } from '@oar-bench/core/sheet/edit'
import { shownUnit } from '@oar-bench/core/units/quantities'
import { RAMP_STEPS, rampColours, rampStep, roundUp } from './ramp'
import { changesSince, sheetWith } from './sheetChanges'
import { firstSignals, thinned } from './traces'

const lightness = (colour: string) => {
  const [r, g, b] = colour.match(/\d+/g)!.map(Number)
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

describe('pressure ramp', () => {
  it.each([false, true])('changes steadily in lightness (dark paper: %s)', (dark) => {
    const values = rampColours(dark).map(lightness)
    for (let i = 1; i < values.length; i++)
      expect(dark ? values[i] - values[i - 1] : values[i - 1] - values[i]).toBeGreaterThan(0)
  })
  it('stays on its table', () => {
    expect([rampStep(-1e5, 1e7), rampStep(0, 1e7), rampStep(5e6, 1e7), rampStep(9e9, 1e7)]).toEqual([
      0,
      0,
      RAMP_STEPS / 2,
      RAMP_STEPS,
    ])
  })
  it('rounds its end up', () =>
    expect([0, 0.9, 1.4, 183, 201, 260].map((v) => roundUp(v))).toEqual([1, 1, 2, 200, 250, 500]))
})

describe('traces', () => {
  const sheet = circuit(powerUnit, powerUnitPipes)
  const result = runSheet({
    ...sheet,
    schedules: [{ ...sheet.schedules[0], duration: '2 s', every: '0.5 ms' }],
  })
  it('keeps the peak of a long column', () => {
    const index = result.signals.findIndex((s) => s.id === 'pressure(P1.P)')
    const points = thinned(result, index, shownUnit('pressure', 'metric'), 100)
    expect(points.length).toBeLessThanOrEqual(102)
    const peak = Math.max(...result.columns[index]) / 1e5
    expect(Math.max(...points.map((p) => p[1]))).toBeCloseTo(peak, 6)
    for (let i = 1; i < points.length; i++) expect(points[i][0]).toBeGreaterThanOrEqual(points[i - 1][0])
  })
  it('first shows what changes', () => {
    expect(firstSignals(result, 'pressure')).toEqual(['pressure(P1.P)'])
    expect(firstSignals(result, 'length')).toEqual([])
  })
})

describe('a sheet on its way to a worker', () => {
  const first = circuit(powerUnit, powerUnitPipes)
  const sent = <T>(thing: T): T => structuredClone(thing)
  it('arrives whole, and what has not changed is the same object there', () => {
    const there = sheetWith(sent(changesSince(undefined, first)), undefined)
    expect(there).toEqual(first)
    const moved = move(first, ['P1'], 2, 0)
    const changes = changesSince(first, moved)
    expect(changes.components.filter((part) => typeof part === 'object')).toEqual([
      moved.components.find((c) => c.id === 'P1'),
    ])
    const after = sheetWith(sent(changes), there)
    expect(after).toEqual(moved)
    after.components.forEach((c, i) => expect(c === there.components[i]).toBe(c.id !== 'P1'))
  })
  it('loses what was taken out, and takes it in again', () => {
    const less = remove(first, ['P1'])
    const there = sheetWith(sent(changesSince(first, less)), first)
    expect(there).toEqual(less)
    expect(sheetWith(sent(changesSince(less, first)), there)).toEqual(first)
  })
})
