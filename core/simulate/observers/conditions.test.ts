/** What is reported with a condition, and what starts anew with a run. */
import { describe, expect, it } from 'vitest'
import { bar, circuit, idOf, least, runSheet, timed, track } from '../../testing'

describe('the worst value of a condition', () => {
  it('is the lowest pressure where oil cavitates, not that at which it begins', () => {
    // a source draws on a line that nothing fills
    const bare = circuit(
      { end: ['plug'], source: ['flow-source', { flow: '0 L/min' }], tank: ['reservoir'] },
      ['end.A source.A', 'source.B tank.T'],
    )
    const id = idOf(bare, 'flow-source')
    const r = runSheet(timed(bare, 2, [track(id, 'flow', [0, '0 L/min'], [0.2, '0.5 L/min'])]))
    const found = r.conditions.find((c) => c.name === 'cavitation')!
    const line = `pressure(${r.lines[found.node!]})`
    expect(found.worst!.value).toBeLessThan(-0.75 * bar)
    expect(found.worst!.value).toBeCloseTo(least(r, line), 3)
    expect(found.worst!.at).toBeGreaterThan(found.start)
  })
  it('is the highest of an output where that counts', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '10 L/min' }],
        relief: ['relief-valve-direct', { setting: '100 bar' }],
        back: ['reservoir'],
      },
      ['tank.T source.A', 'source.B relief.P', 'relief.T back.T'],
    )
    const r = runSheet(timed(sheet, 0.5, []))
    for (const c of r.conditions.filter((c) => c.worst && c.end > c.start))
      expect(c.worst!.value).toBeGreaterThan(0)
    expect(r.conditions.some((c) => c.component === idOf(sheet, 'relief-valve-direct'))).toBe(true)
  })
})

describe('a run from the steady state', () => {
  it('starts what only counts anew: an angle turned before it began does not stand there', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '10 L/min' }],
        motor: ['hydraulic-motor'],
        load: ['rotating-load'],
        back: ['reservoir'],
        drain: ['reservoir'],
      },
      ['tank.T source.A', 'source.B motor.A', 'motor.B back.T', 'motor.L drain.T', 'motor.W load.W'],
    )
    const run = timed(sheet, 0.5, [])
    const r = runSheet({ ...run, schedules: [{ ...run.schedules[0], start: 'steadyState' }] })
    const angle = r.signals.findIndex((s) => s.id === `${idOf(sheet, 'hydraulic-motor')}.angle`)
    const speed = r.signals.findIndex((s) => s.id === `${idOf(sheet, 'hydraulic-motor')}.speed`)
    // it turns at its steady speed from the first instant on
    expect(r.columns[speed][0]).toBeGreaterThan(1)
    expect(r.columns[angle][0]).toBe(0)
    expect(r.extremes[angle].end).toBeCloseTo(r.columns[speed][0] * 0.5, 1)
  })
})
