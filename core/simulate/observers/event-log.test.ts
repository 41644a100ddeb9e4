import { describe, expect, it } from 'vitest'
import { EventLog } from './event-log'

describe('the list of events', () => {
  it('is in order of time, and at one instant from the cause to what follows', () => {
    const log = new EventLog()
    log.add({ at: 1, source: 'circuit', what: 'stop' })
    log.add({ at: 1, source: 'user', what: 'command = 1' })
    log.add({ at: 2, source: 'control', what: 'coil = 1' })
    expect(log.list().map((e) => e.source)).toEqual(['user', 'circuit', 'control'])
    expect(log.list(2).map((e) => e.what)).toEqual(['coil = 1'])
    log.truncate(1)
    expect([log.count, log.last?.what, log.warning]).toEqual([1, 'stop', undefined])
  })
  it('ends where there are too many, and says from when', () => {
    const log = new EventLog()
    for (let i = 0; i < 20_003; i++) log.add({ at: i / 1000, source: 'circuit', what: 'opens' })
    expect(log.count).toBe(20_000)
    expect(log.warning).toContain('those after 20.000 s')
    log.truncate(5)
    expect(log.warning).toBeUndefined()
  })
})
