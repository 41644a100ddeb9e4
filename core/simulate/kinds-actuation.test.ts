/** What works a spool: coils, hand overrides and pilot stages. */
import { describe, expect, it } from 'vitest'
import { compile } from './compile'
import { at, circuit, idOf, runSheet, timed, track } from '../testing'

type Actions = Parameters<typeof track>[]

/** A 4/3 valve between pressures; tracks name the valve as "valve". */
function valve(parameters: Record<string, string>, pressures: Record<string, string>, actions: Actions) {
  const kind = 'directional-valve-4-3'
  const sheet = circuit(
    {
      valve: [kind, parameters],
      ...Object.fromEntries(
        Object.entries(pressures).map(([port, pressure]): [string, [string, Record<string, string>]] => [
          `at${port}`,
          ['pressure-source', { pressure }],
        ]),
      ),
    },
    Object.keys(pressures).map((port) => `at${port}.P valve.${port}`),
  )
  const id = idOf(sheet, kind)
  return {
    id,
    sheet: timed(
      sheet,
      4,
      actions.map(([, ...rest]) => track(id, ...rest)),
    ),
  }
}
const supplied = { P: '50 bar', T: '0 bar', A: '20 bar', B: '20 bar' }
const spoolAt = (of: ReturnType<typeof valve>, ...times: number[]) => {
  const run = runSheet(of.sheet)
  return {
    spool: times.map((t) => Math.round(at(run, `${of.id}.spool`, t) * 100) / 100 + 0),
    conditions: run.conditions.filter((c) => c.component === of.id).map((c) => [c.name, c.start, c.end]),
  }
}

describe('coils', () => {
  it('the first to pull in wins; the second overheats and takes over when the first lets go', () => {
    const both = valve({ shiftTime: '50 ms' }, supplied, [
      ['valve', 'coilB', [0.5, '1'], [2, '0']],
      ['valve', 'coilA', [1, '1'], [3, '0']],
    ])
    const { spool, conditions } = spoolAt(both, 0.4, 0.9, 1.9, 2.9, 3.9)
    expect(spool).toEqual([0, -1, -1, 1, 0])
    expect(conditions).toHaveLength(1)
    expect(conditions[0][0]).toBe('bothCoils')
    expect(conditions[0][1]).toBeCloseTo(1, 3)
    expect(conditions[0][2]).toBeCloseTo(2, 3)
  })
  it('pull in from 85 % of the voltage and hold down to 40 %; below they are reported', () => {
    const low = valve({ shiftTime: '50 ms' }, supplied, [
      ['valve', 'coilA', [0.5, '0.8'], [1, '0.9'], [2, '0.5'], [3, '0.3']],
    ])
    const { spool, conditions } = spoolAt(low, 0.9, 1.9, 2.9, 3.9)
    expect(spool).toEqual([0, 1, 1, 0])
    expect(conditions.map(([name]) => name)).toEqual(['lowVoltage'])
  })
  it('one that has current at the start has pulled in', () => {
    expect(spoolAt(valve({}, supplied, [['valve', 'coilA', [0, '1']]]), 0.5).spool).toEqual([1])
  })
  it('without control voltage nothing works it but the hand, where it has an override', () => {
    const actions: Actions = [
      ['valve', 'lost', [0, '1']],
      ['valve', 'coilA', [0.5, '1'], [1.5, '0']],
      ['valve', 'hand', [2, '-1'], [3, '0']],
    ]
    expect(spoolAt(valve({ override: 'button' }, supplied, actions), 1, 2.5, 3.5).spool).toEqual([0, -1, 0])
    const without = valve({}, supplied, actions)
    expect(spoolAt(without, 1, 2.5, 3.5).spool).toEqual([0, 0, 0])
    const compiled = compile(without.sheet, without.sheet.schedules[0].id)
    expect(compiled.findings.map((f) => f.message).join()).toMatch(/hand override.*nothing follows it/)
  })
})

describe('the ends of a valve', () => {
  it('are worked each in its own way: oil at a, a solenoid at b', () => {
    const mixed = valve(
      { actuation: 'pilot', actuationB: 'solenoid', shiftPressure: '5 bar' },
      { ...supplied, X: '10 bar' },
      [['valve', 'coilB', [1, '1'], [2, '0']]],
    )
    // the coil pushes back as far as the oil pushes on
    expect(spoolAt(mixed, 0.9, 1.9, 2.9).spool).toEqual([1, 1, 1])
    const weaker = valve(
      { actuation: 'pilot', actuationB: 'solenoid', shiftPressure: '50 bar' },
      { ...supplied, X: '20 bar' },
      [['valve', 'coilB', [1, '1'], [2, '0']]],
    )
    expect(spoolAt(weaker, 0.9, 1.9, 2.9).spool).toEqual([0.4, -0.6, 0.4])
  })
})

describe('a piloted solenoid', () => {
  const shift: Actions = [['valve', 'command', [0.5, '1'], [3, '0']]]
  it('shifts only as far as its pilot pressure reaches, and says so', () => {
    const parameters = { actuation: 'solenoidPilot', shiftPressure: '10 bar', centre: 'tandem' }
    const internal = spoolAt(valve(parameters, { ...supplied, P: '4 bar', T: '1 bar' }, shift), 2)
    expect(internal.spool).toEqual([0.3])
    expect(internal.conditions.map(([name]) => name)).toContain('lowPilot')
    const external = spoolAt(
      valve(
        { ...parameters, pilotSupply: 'external' },
        { ...supplied, P: '4 bar', T: '1 bar', X: '30 bar' },
        shift,
      ),
      2,
    )
    expect(external.spool).toEqual([1])
    expect(external.conditions.map(([name]) => name)).not.toContain('lowPilot')
  })
  it('back pressure works against it unless it is drained externally', () => {
    const parameters = { actuation: 'solenoidPilot', shiftPressure: '20 bar' }
    const pressures = { ...supplied, P: '30 bar', T: '20 bar', A: '25 bar', B: '25 bar' }
    expect(spoolAt(valve(parameters, pressures, shift), 2).spool).toEqual([0.5])
    expect(
      spoolAt(valve({ ...parameters, pilotDrain: 'external' }, { ...pressures, Y: '0 bar' }, shift), 2).spool,
    ).toEqual([1])
  })
})

describe('small parts with a choice', () => {
  const between = (kind: string, parameters: Record<string, string | boolean>) =>
    circuit(
      {
        part: [kind, parameters],
        from: ['pressure-source', { pressure: '20 bar' }],
        to: ['pressure-source', { pressure: '10 bar' }],
      },
      ['from.P part.A', 'part.B to.P'],
    )
  it('a long gap passes in proportion to the pressure drop, a sharp edge to its root', () => {
    const flow = (edge: string) => {
      const sheet = between('needle-valve', { edge, ratedFlow: '30 L/min', ratedDrop: '20 bar' })
      return at(runSheet(sheet), `${idOf(sheet, 'needle-valve')}.flow`, 0.1) * 6e4
    }
    expect(flow('sharp')).toBeCloseTo(30 * Math.sqrt(10 / 20), 1)
    // the oil is at its reference viscosity
    expect(flow('viscous')).toBeCloseTo((30 * 10) / 20, 1)
  })
  it('a coupling without checks spills from both halves when it is pulled apart, with checks from none', () => {
    const lost = (checks: boolean) => {
      let sheet = between('quick-coupling', { checks, ratedFlow: '60 L/min', ratedDrop: '2 bar' })
      const id = idOf(sheet, 'quick-coupling')
      sheet = timed(sheet, 1, [track(id, 'coupled', [0.5, '0'])])
      const run = runSheet(sheet)
      return [
        run.signals.some((s) => s.id === `${id}.spilled`) ? at(run, `${id}.spilled`, 1) * 1e3 : 0,
        run.conditions.filter((c) => c.component === id).map((c) => c.name),
      ]
    }
    const spilled = ((60 / 60) * (Math.sqrt(20 / 2) + Math.sqrt(10 / 2)) * 0.5).toFixed(1)
    const [litres, conditions] = lost(false)
    expect((litres as number).toFixed(1)).toBe(spilled)
    expect(conditions).toEqual(['underPressure', 'losing'])
    expect(lost(true)).toEqual([0, ['underPressure']])
  })
  it('a coupling may be apart from the start', () => {
    const sheet = between('quick-coupling', { joined: false })
    expect(at(runSheet(sheet), `${idOf(sheet, 'quick-coupling')}.flow`, 0.1)).toBe(0)
  })
  it('a filter without an indicator warns of nothing', () => {
    const clogged = (indicator: string) => {
      const sheet = between('filter', { indicator, bypass: false })
      return runSheet(sheet).conditions.some((c) => c.name === 'clogged')
    }
    expect([clogged('visual'), clogged('electric'), clogged('none')]).toEqual([true, true, false])
  })
})
