import { describe, expect, it } from 'vitest'
import { circuit, idOf, powerUnit, powerUnitPipes, runSheet, track } from '../testing'
import { dutyOf } from './duty'

describe('duty of a run', () => {
  it('counts starts of a motor, the time it runs, and how long it is loaded', () => {
    const bare = circuit({ ...powerUnit, motor: ['electric-motor', { ratedPower: '1 kW' }] }, powerUnitPipes)
    const motor = idOf(bare, 'electric-motor')
    const sheet = {
      ...bare,
      schedules: [
        {
          ...bare.schedules[0],
          duration: '10 s',
          tracks: [track(motor, 'speed', [0, '0 rpm'], [2, '1500 rpm'], [4, '0 rpm'], [6, '1500 rpm'])],
        },
      ],
    }
    const { motors, switches } = dutyOf(sheet, runSheet(sheet))
    expect(motors).toHaveLength(1)
    const [{ starts, startsPerHour, running, loadedShare }] = motors
    expect([starts, startsPerHour]).toEqual([2, 720])
    expect(running).toBeCloseTo(6, 1)
    // all goes over the relief: several kW all the time
    expect(loadedShare).toBeGreaterThan(0.9)
    expect(switches).toEqual([])
  })
})
