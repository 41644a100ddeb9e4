import { describe, expect, it } from 'vitest'
import { swapPorts, setParameter } from '../sheet/edit'
import { circuit, messages, powerUnit, powerUnitPipes } from '../testing'
import { emptySheet } from '../sheet/schema'

const errors = (list: string[]) => list.filter((m) => m.startsWith('error'))

describe('design rules', () => {
  it('finds nothing in a power unit with its relief', () => {
    expect(messages(circuit(powerUnit, powerUnitPipes))).toEqual([])
  })
  it('teaches on an empty sheet', () => {
    expect(messages(emptySheet('New'))).toEqual([expect.stringContaining('nothing on the sheet')])
  })
  it('names an open port and where to close it', () => {
    const sheet = circuit({ ...powerUnit, gauge: ['pressure-gauge'] }, powerUnitPipes)
    expect(errors(messages(sheet))).toEqual([expect.stringMatching(/open-port: Port P of .* is open/)])
  })
  it('names a shaft without a drive', () => {
    const sheet = circuit(
      powerUnit,
      powerUnitPipes.filter((p) => !p.startsWith('motor')),
    )
    expect(errors(messages(sheet))).toEqual([expect.stringContaining('shaft of 1-1P1 is not connected')])
  })
  it('asks for a tank', () => {
    const sheet = circuit(
      { motor: ['electric-motor'], pump: ['fixed-pump'], relief: ['relief-valve-direct'] },
      ['motor.W pump.W', 'pump.P relief.P', 'relief.T pump.S'],
    )
    expect(errors(messages(sheet))).toContainEqual(expect.stringContaining('no tank on the sheet'))
  })
  it('sees a suction line shut by a check the wrong way round', () => {
    const right = circuit({ ...powerUnit, foot: ['check-valve'] }, [
      'tank.T foot.A',
      'foot.B pump.S',
      ...powerUnitPipes.slice(1),
    ])
    expect(messages(right)).toEqual([])
    const foot = right.components.find((c) => c.kind === 'check-valve')!
    expect(messages(swapPorts(right, foot.id))).toContainEqual(
      expect.stringMatching(/^warning no-tank: .* gets no oil/),
    )
  })
  it('asks for a relief on the pump line, and does not count one behind a valve', () => {
    const bare = circuit(
      { tank: ['reservoir'], motor: ['electric-motor'], pump: ['fixed-pump'], plug: ['plug'] },
      ['tank.T pump.S', 'motor.W pump.W', 'pump.P plug.A'],
    )
    expect(messages(bare)).toEqual([
      expect.stringMatching(/^warning .* no relief valve: it has nowhere to go/),
    ])
    const behind = circuit({ ...powerUnit, check: ['check-valve'] }, [
      'tank.T pump.S',
      'motor.W pump.W',
      'pump.P check.B',
      'check.A relief.P',
      'relief.T back.T',
    ])
    expect(messages(behind)).toContainEqual(expect.stringMatching(/^warning .* no relief valve/))
  })
  it('only warns where the oil can always get away', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor'],
        pump: ['fixed-pump'],
        jet: ['orifice'],
        back: ['reservoir'],
      },
      ['tank.T pump.S', 'motor.W pump.W', 'pump.P jet.A', 'jet.B back.T'],
    )
    expect(messages(sheet)).toEqual([expect.stringMatching(/^warning pump-without-relief/)])
  })
  it('refuses two pumps against each other without a relief', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor'],
        pump: ['fixed-pump'],
        tank2: ['reservoir'],
        motor2: ['electric-motor'],
        pump2: ['fixed-pump'],
      },
      ['tank.T pump.S', 'motor.W pump.W', 'tank2.T pump2.S', 'motor2.W pump2.W', 'pump.P pump2.P'],
    )
    expect(errors(messages(sheet))).toContainEqual(
      expect.stringMatching(/pump against each other without a relief/),
    )
  })
  it('refuses two motors on one shaft, and two tanks of different pressure on one line', () => {
    const shafts = circuit({ ...powerUnit, other: ['electric-motor'] }, [...powerUnitPipes, 'other.W pump.W'])
    expect(errors(messages(shafts))).toEqual([expect.stringContaining('held-twice')])
    const tanks = circuit({ ...powerUnit, other: ['reservoir', { pressure: '1 bar', tank: 'second' }] }, [
      ...powerUnitPipes,
      'other.T back.T',
    ])
    expect(errors(messages(tanks))).toEqual([expect.stringContaining('held-twice')])
  })
  it('says what a check the wrong way round does', () => {
    const sheet = circuit({ ...powerUnit, check: ['check-valve'], plug: ['plug'] }, [
      ...powerUnitPipes,
      'check.B pump.P',
      'check.A plug.A',
    ])
    expect(messages(sheet)).toEqual([expect.stringMatching(/^warning reversed-check: .* can never open/)])
  })
  it('keeps bad values at their parameter', () => {
    const sheet = circuit(powerUnit, powerUnitPipes)
    const relief = sheet.components.find((c) => c.kind === 'relief-valve-direct')!.id
    for (const [value, words] of [
      ['160 lightyears', 'Unknown unit'],
      ['160', 'Give a unit'],
      ['9000 bar', 'outside what is possible'],
      ['-5 bar', 'outside what is possible'],
      ['many bar', 'Not a pressure'],
      ['20 L/min', 'It is a unit of flow'],
    ])
      expect(errors(messages(setParameter(sheet, relief, 'setting', value)))).toEqual(
        expect.arrayContaining([expect.stringContaining(words)]),
      )
  })
  it('keeps values that do not go together apart', () => {
    const cylinder = circuit(
      {
        ...powerUnit,
        cylinder: ['cylinder-double-acting', { bore: '50 mm', rod: '60 mm' }],
        back2: ['reservoir'],
      },
      [...powerUnitPipes, 'pump.P cylinder.A', 'cylinder.B back2.T'],
    )
    expect(errors(messages(cylinder))).toContainEqual(expect.stringContaining('rod must be thinner'))
  })
  it('finds a line that ends in nothing', () => {
    const sheet = circuit(powerUnit, powerUnitPipes)
    const pump = sheet.components.find((c) => c.kind === 'fixed-pump')!.id
    const [pipe] = sheet.pipes
    const stub = { ...pipe, id: 'stub', from: { component: pump, port: 'P' }, to: { junction: 'J9' } }
    const loose = { ...sheet, junctions: [{ id: 'J9', x: 90, y: 0 }], pipes: [...sheet.pipes, stub] }
    expect(errors(messages(loose))).toEqual([expect.stringMatching(/dead-end: The line .* ends in nothing/)])
  })
  it('checks schedules', () => {
    const sheet = circuit(powerUnit, powerUnitPipes)
    const [base] = sheet.schedules
    const pump = sheet.components.find((c) => c.kind === 'fixed-pump')!.id
    const motor = sheet.components.find((c) => c.kind === 'electric-motor')!.id
    const point = { at: '1 s', value: '900 rpm', shape: 'step' as const }
    const withTracks = (tracks: typeof base.tracks, more = {}) =>
      errors(messages({ ...sheet, schedules: [{ ...base, tracks, ...more }] }))
    expect(withTracks([{ component: motor, input: 'speed', points: [point] }])).toEqual([])
    expect(withTracks([{ component: pump, input: 'speed', points: [point] }])[0]).toContain(
      'has no input "speed"',
    )
    expect(withTracks([{ component: 'nobody', input: 'speed', points: [point] }])[0]).toContain(
      'not on the sheet',
    )
    expect(
      withTracks([{ component: motor, input: 'speed', points: [{ ...point, value: '3 bar' }] }])[0],
    ).toContain('unit')
    expect(
      withTracks([{ component: motor, input: 'speed', points: [{ ...point, value: '1e9 rpm' }] }])[0],
    ).toContain('outside')
    expect(
      withTracks([{ component: motor, input: 'speed', points: [point, { ...point, at: '0.5 s' }] }])[0],
    ).toContain('not go back')
    expect(withTracks([], { duration: '0 s' })[0]).toContain('outside what is possible')
    expect(withTracks([], { every: '1 ms', duration: '80000 s' })[0]).toContain('more than')
    expect(errors(messages(sheet, 'other'))[0]).toContain('no schedule "other"')
  })
})
