import { describe, expect, it } from 'vitest'
import { bar, circuit, idOf, powerUnit, powerUnitPipes } from '../testing'
import { buildNetlist, portKey } from '../sheet/netlist'
import { highestPressures, pumpLimits } from './pressure'

const netlistOf = (...args: Parameters<typeof circuit>) => {
  const sheet = circuit(...args)
  const { netlist } = buildNetlist(sheet)
  const node = (kind: string, port: string, n = 0) => netlist.nodeOf.get(portKey(idOf(sheet, kind, n), port))!
  return { netlist, node }
}

describe('the highest pressure that a pump can set a line to', () => {
  it('is the setting of its relief valve, and does not come out of that', () => {
    const { netlist, node } = netlistOf(
      {
        ...powerUnit,
        relief: ['relief-valve-direct', { setting: '120 bar' }],
        cylinder: ['cylinder-single-acting'],
        gauge: ['pressure-gauge'],
      },
      [...powerUnitPipes.filter((p) => !p.startsWith('relief.T')), 'pump.P cylinder.A', 'relief.T gauge.P'],
    )
    const highest = highestPressures(netlist)
    expect(highest[node('cylinder-single-acting', 'A')]).toBeCloseTo(120 * bar)
    // oil that a relief lets go has spent its pressure
    expect(highest[node('relief-valve-direct', 'T')]).toBe(-Infinity)
  })
  it('goes through valves, but not beyond a reducing valve, nor into a tank', () => {
    const { netlist, node } = netlistOf(
      {
        ...powerUnit,
        relief: ['relief-valve-direct', { setting: '120 bar' }],
        check: ['check-valve'],
        reducing: ['reducing-valve', { setting: '40 bar' }],
        low: ['cylinder-single-acting'],
        drain: ['reservoir'],
      },
      [...powerUnitPipes, 'pump.P check.A', 'check.B reducing.P', 'reducing.A low.A', 'reducing.Y drain.T'],
    )
    const highest = highestPressures(netlist)
    expect(highest[node('check-valve', 'B')]).toBeCloseTo(120 * bar)
    expect(highest[node('cylinder-single-acting', 'A')]).toBeCloseTo(40 * bar)
    expect(highest[node('reservoir', 'T', 1)]).toBe(-Infinity)
  })
  it('is that of the lowest limit that nothing shuts off', () => {
    const { netlist } = netlistOf(
      {
        ...powerUnit,
        relief: ['relief-valve-direct', { setting: '120 bar' }],
        valve: ['ball-valve'],
        lower: ['relief-valve-direct', { setting: '60 bar' }],
        lower2: ['relief-valve-direct', { setting: '90 bar' }],
        t2: ['reservoir'],
        t3: ['reservoir'],
      },
      [
        ...powerUnitPipes,
        'pump.P valve.A',
        'valve.B lower.P',
        'lower.T t2.T',
        'pump.P lower2.P',
        'lower2.T t3.T',
      ],
    )
    expect(pumpLimits(netlist).map(({ limit }) => limit.pressure / bar)).toEqual([90])
  })
})
