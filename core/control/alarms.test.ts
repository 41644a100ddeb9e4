import { describe, expect, it } from 'vitest'
import { alarmsAt } from './alarms'
import { Bench, controlSheet } from './testing'

const sheet = controlSheet(
  {
    S1: ['push-button', { latching: true }],
    S2: ['push-button', { latching: true }],
    P1: ['alarm'],
    P2: ['alarm', { severity: 'trip' }],
    P3: ['horn'],
  },
  ['S1 -> P1', 'S2 -> P2', 'P1 + P2 -> P3'],
)
describe('an alarm', () => {
  const state = (bench: Bench, id: string) =>
    bench.state.devices[bench.logic.program.devices.findIndex((d) => d.device.id === id)].count
  it('stands until it is acknowledged and gone, in whichever order', () => {
    const bench = new Bench(sheet).press('S1')
    expect([state(bench, 'P1'), bench.is('P3')]).toEqual([1, true])
    bench.set('P1', 'acknowledge', 1).set('P1', 'acknowledge', 0)
    expect([state(bench, 'P1'), bench.is('P3')]).toEqual([2, false])
    expect(state(bench.release('S1'), 'P1')).toBe(0)
    bench.press('S1').release('S1')
    expect([state(bench, 'P1'), bench.is('P3')]).toEqual([3, true])
    expect(state(bench.set('P1', 'acknowledge', 1), 'P1')).toBe(0)
  })
  it('that came first is at the top of the panel', () => {
    const signals = ['P1.state', 'P2.state'].map((id) => ({
      id,
      label: '',
      quantity: 'ratio' as const,
      role: 'output' as const,
    }))
    const result = {
      times: Float64Array.of(0, 1, 2, 3),
      signals,
      columns: [Float32Array.of(0, 0, 1, 1), Float32Array.of(0, 1, 1, 2)],
    }
    expect(alarmsAt(sheet, result, 0)).toEqual([])
    expect(alarmsAt(sheet, result, 1).map((a) => [a.id, a.first])).toEqual([['P2', false]])
    expect(alarmsAt(sheet, result, 3)).toMatchObject([
      { id: 'P2', severity: 'trip', state: 'acknowledged', since: 1, first: true },
      { id: 'P1', severity: 'early', state: 'unacknowledged', since: 2, first: false },
    ])
  })
})
