import { describe, expect, it } from 'vitest'
import { circuit, messages, powerUnit, powerUnitPipes } from '../testing'

const press = (limit: string, set: string) =>
  circuit(
    {
      ...powerUnit,
      ram: ['cylinder-double-acting', { stroke: '300 mm' }],
      valve: ['directional-valve-4-3'],
      back2: ['reservoir'],
      limit: ['limit-switch', { at: limit }],
      pressure: ['pressure-switch', { set, reset: '10 bar' }],
    },
    [
      ...powerUnitPipes,
      'pump.P valve.P',
      'valve.T back2.T',
      'valve.A ram.A',
      'valve.B ram.B',
      'ram.R limit.R',
      'pressure.P pump.P',
    ],
  )
const found = (limit: string, set: string) =>
  messages(press(limit, set)).filter((m) => m.includes('switch-never-trips'))

describe('a switch that nothing can trip', () => {
  it('lies beyond the stroke, or above every setting of its line', () => {
    expect(found('290 mm', '100 bar')).toEqual([])
    expect(found('320 mm', '100 bar')).toEqual([
      'warning switch-never-trips: 1-1S1 lies beyond the stroke of 1-1A1, 300 mm: it is never on.',
    ])
    expect(found('-40 mm', '100 bar')).toHaveLength(1)
    expect(found('290 mm', '250 bar')[0]).toMatch(
      /1-1S2 switches at 250 bar, and nothing sets its line above/,
    )
  })
})
