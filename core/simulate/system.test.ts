/** What belongs to no single component: tank, heat, faults, the start from the steady state, instruments, what is lost. */
import { describe, expect, it } from 'vitest'
import { kinds } from '../catalogue'
import type { Sheet } from '../sheet/schema'
import {
  at,
  balanced,
  bar,
  circuit,
  end,
  idOf,
  least,
  lpm,
  most,
  powerUnit,
  powerUnitPipes,
  runSheet,
  timed,
  track,
} from '../testing'
import { compile } from './compile'
import { Simulation } from './simulation'
import { operatingPoint } from './operating-point'
import { run } from './run'

const withTank = (sheet: Sheet, tank: Partial<Sheet['tank']>): Sheet => ({
  ...sheet,
  tank: { ...sheet.tank, ...tank },
})
const fromSteadyState = (sheet: Sheet): Sheet => ({
  ...sheet,
  schedules: sheet.schedules.map((s) => ({ ...s, start: 'steadyState' as const })),
})

describe('tank', () => {
  it('falls by what a single-acting cylinder takes, and its level switch trips there', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '6 L/min' }],
        ram: ['cylinder-single-acting', { bore: '100 mm', stroke: '1000 mm', mass: '10 kg' }],
        level: ['level-switch', { set: '18 L', reset: '19 L' }],
      },
      ['tank.T source.A', 'source.B ram.A'],
    )
    sheet = withTank(timed(sheet, 30, []), { oil: '20 L' })
    const r = runSheet(sheet)
    expect(end(r, `${idOf(sheet, 'reservoir')}.oil`) * 1000).toBeCloseTo(17, 1)
    const trip = r.conditions.find((c) => c.component === idOf(sheet, 'level-switch'))!
    // 2 L at 0.1 L/s
    expect(trip.start).toBeGreaterThan(19.9)
    expect(trip.start).toBeLessThan(20.5)
    balanced(r)
  })
  it('lets the pump draw air when a burst line has emptied it, and tells so', () => {
    let sheet = circuit({ ...powerUnit, hole: ['burst', { hole: '3 mm' }], gauge: ['pressure-gauge'] }, [
      ...powerUnitPipes,
      'pump.P hole.P',
      'pump.P gauge.P',
    ])
    sheet = withTank(timed(sheet, 20, [track(idOf(sheet, 'burst'), 'open', [2, '100 %'])]), { oil: '14 L' })
    const r = runSheet(sheet)
    const dry = r.conditions.find((c) => c.name === 'dry')!
    // about 24 L/min for the 4 L above the mouth of the line
    expect(dry.start).toBeGreaterThan(10)
    expect(dry.start).toBeLessThan(14)
    expect(r.conditions.some((c) => c.name === 'starved')).toBe(true)
    expect(at(r, `pressure(${idOf(sheet, 'fixed-pump')}.P)`, 19) / bar).toBeLessThan(20)
    // what was spilled is accounted for
    expect(end(r, `${idOf(sheet, 'burst')}.spilled`) * 1000).toBeGreaterThan(3.5)
    expect(r.oil.error).toBeLessThan(1e-3)
  })
  it('two tanks keep their own oil', () => {
    const sheet = circuit(
      {
        one: ['reservoir'],
        move: ['flow-source', { flow: '6 L/min' }],
        two: ['reservoir', { tank: 'second' }],
      },
      ['one.T move.A', 'move.B two.T'],
    )
    const r = runSheet(withTank(timed(sheet, 10, []), { oil: '50 L' }))
    expect(end(r, `${idOf(sheet, 'reservoir')}.oil`) * 1000).toBeCloseTo(49, 3)
    expect(end(r, `${idOf(sheet, 'reservoir', 1)}.oil`) * 1000).toBeCloseTo(51, 3)
  })
})

describe('heat', () => {
  const throttled = (more: Parameters<typeof circuit>[0] = {}, pipes: string[] = [], cooled = false) =>
    circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '30 L/min' }],
        relief: ['relief-valve-direct', { setting: '100 bar', ratedFlow: '40 L/min' }],
        back: ['reservoir'],
        ...more,
      },
      ['tank.T source.A', 'source.B relief.P', ...(cooled ? [] : ['relief.T back.T']), ...pipes],
    )
  const warm = (sheet: Sheet, seconds: number, tank: Partial<Sheet['tank']> = {}) => {
    const s = timed(sheet, seconds, [], '1 s')
    return runSheet({
      ...withTank(s, { warming: true, oil: '50 L', heatLoss: '0 W/K', ...tank }),
      schedules: [{ ...s.schedules[0], tolerance: 1e-4 }],
    })
  }
  const temperature = (sheet: Sheet, r: ReturnType<typeof runSheet>) =>
    end(r, `${idOf(sheet, 'reservoir')}.temperature`)
  it('warms the oil by what is throttled over ρ·V·c', () => {
    const sheet = throttled()
    const r = warm(sheet, 300)
    const rise = r.energy.heat / (870 * (1 - 7e-4 * 26) * 0.05 * 1900)
    expect(temperature(sheet, r) - 313.15).toBeGreaterThan(0.98 * rise)
    expect(temperature(sheet, r) - 313.15).toBeLessThan(1.02 * rise)
    expect(rise).toBeGreaterThan(10)
  })
  it('comes to rest where losses and what is given off are equal', () => {
    const sheet = throttled()
    // about 4.8 kW over 200 W/K: 24 K above the surroundings, from above and from below
    const r = warm(sheet, 3600, { oil: '10 L', heatLoss: '200 W/K', ambient: '30 °C' })
    const power = r.energy.heat / 3600
    expect(temperature(sheet, r)).toBeCloseTo(303.15 + power / 200, 0)
  })
  it('a cooler takes its rating for each kelvin above its coolant', () => {
    const sheet = throttled(
      { cooler: ['cooler', { rating: '150 W/K', coolant: '20 °C', ratedFlow: '20 L/min' }] },
      ['relief.T cooler.A', 'cooler.B back.T'],
      true,
    )
    const r = warm(sheet, 1800, { oil: '10 L' })
    expect(temperature(sheet, r)).toBeCloseTo(293.15 + r.energy.heat / 1800 / 150, 0)
  })
  it('thins the oil, so that a worn pump loses more when warm', () => {
    const leak = (temperature: string) => {
      const sheet = circuit(powerUnit, powerUnitPipes)
      const r = runSheet({ ...timed(sheet, 1, []), fluid: { ...sheet.fluid, temperature } })
      return end(r, `${idOf(sheet, 'fixed-pump')}.leakage`)
    }
    // 46 mm²/s at 40 °C, about 20 at 65 °C
    expect(leak('65 °C') / leak('40 °C')).toBeGreaterThan(1.8)
  })
  it('a heater keeps the tank between its points, and a temperature switch tells', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        move: ['flow-source', { flow: '1 L/min' }],
        back: ['reservoir'],
        heater: ['heater', { power: '3 kW', onBelow: '30 °C', offAbove: '35 °C' }],
        switch: ['temperature-switch', { set: '33 °C', reset: '31 °C' }],
      },
      ['tank.T move.A', 'move.B back.T'],
    )
    sheet = withTank(timed(sheet, 3600, [], '5 s'), {
      warming: true,
      oil: '10 L',
      heatLoss: '40 W/K',
      ambient: '0 °C',
    })
    const r = runSheet({ ...sheet, fluid: { ...sheet.fluid, temperature: '28 °C' } })
    const t = idOf(sheet, 'reservoir')
    expect(most(r, `${t}.temperature`) - 273.15).toBeLessThan(36)
    expect(least(r, `${t}.temperature`) - 273.15).toBeGreaterThan(27)
    expect(
      r.conditions.filter((c) => c.component === idOf(sheet, 'temperature-switch') && c.name === 'tripped')
        .length,
    ).toBeGreaterThan(1)
  })
})

describe('faults', () => {
  it('are offered by every kind that can fail, and cost nothing while nobody sets them', () => {
    const forms = new Set([...kinds.values()].flatMap((k) => (k.faults ?? []).map((f) => f.form)))
    expect([...forms].sort()).toEqual([
      'air',
      'blocked',
      'drift',
      'leak',
      'lost',
      'reversed',
      'springBroken',
      'stuck',
      'worn',
    ])
    const sheet = circuit(powerUnit, powerUnitPipes)
    const { network } = new Simulation(compile(sheet).compiled!)
    const pump = network.elements.find((e) => e.id === idOf(sheet, 'fixed-pump'))!
    expect(pump.inputsRead).toBe(0)
    expect(runSheet(sheet).signals.some((s) => s.id === `${pump.id}.worn`)).toBe(false)
  })
  it('a worn pump delivers less by the leakage that was set', () => {
    let sheet = circuit({ ...powerUnit, load: ['pressure-source', { pressure: '100 bar' }] }, [
      ...powerUnitPipes.slice(0, 2),
      'pump.P load.P',
      'load.P relief.P',
      'relief.T back.T',
    ])
    const pump = idOf(sheet, 'fixed-pump')
    sheet = timed(sheet, 2, [track(pump, 'worn', [1, '3 L/min'])])
    const r = runSheet(sheet)
    expect((at(r, `flow(${pump}.P)`, 1.9) - at(r, `flow(${pump}.P)`, 0.9)) / lpm).toBeCloseTo(3, 3)
  })
  it('a drifted setting, a broken spring and a leaking seat show on the gauge', () => {
    let sheet = circuit(powerUnit, powerUnitPipes)
    const relief = idOf(sheet, 'relief-valve-direct')
    sheet = timed(sheet, 4, [
      track(relief, 'drift', [1, '-20 %'], [2, '0 %']),
      track(relief, 'springBroken', [3, '1']),
    ])
    const r = runSheet(sheet)
    const pressure = (t: number) => at(r, `pressure(${idOf(sheet, 'fixed-pump')}.P)`, t) / bar
    expect(pressure(1.9) / pressure(0.9)).toBeCloseTo(0.8, 1)
    expect(pressure(2.9)).toBeCloseTo(pressure(0.9), 1)
    expect(pressure(3.9)).toBeLessThan(10)
  })
  it('a clogged breather makes a tank that empties suck; a line torn off it draws air; worn bearings take torque', () => {
    const drawn = (...tracks: [kind: string, fault: string, at: number, value: string][]) => {
      const sheet = circuit(
        {
          tank: ['reservoir'],
          source: ['flow-source', { flow: '60 L/min' }],
          away: ['pressure-source', { pressure: '5 bar' }],
          breather: ['breather', { airSpace: '10 L' }],
        },
        ['tank.T source.A', 'source.B away.P'],
      )
      const r = runSheet(
        timed(
          sheet,
          2,
          tracks.map(([k, f, t, v]) => track(idOf(sheet, k), f, [t, v])),
        ),
      )
      expect(r.finished).toBe(true)
      return (t: number) => at(r, `pressure(${idOf(sheet, 'reservoir')}.T)`, t) / bar
    }
    expect(drawn()(1.9)).toBe(0)
    // a litre a second leaves: p = p_atm·V_a0/(V_a0 + V) − p_atm
    const clogged = drawn(['breather', 'blocked', 0, '100 %'])
    expect(clogged(1)).toBeCloseTo(1.01325 * (10 / 11 - 1), 2)
    expect(clogged(1.9)).toBeCloseTo(1.01325 * (10 / 11.9 - 1), 2)
    const torn = drawn(['reservoir', 'lost', 1, '1'])
    expect(torn(0.9)).toBe(0)
    expect(torn(1.5)).toBeCloseTo(-1.01325, 4)
    const turned = (worn: string) => {
      const sheet = circuit(
        {
          supply: ['pressure-source', { pressure: '100 bar' }],
          motor: ['hydraulic-motor'],
          back: ['reservoir'],
          wheel: ['rotating-load', { inertia: '1 kg·m²', torque: '0 N·m', friction: '0 N·m' }],
        },
        ['supply.P motor.A', 'motor.B back.T', 'motor.L back.T', 'motor.W wheel.W'],
      )
      const wheel = idOf(sheet, 'rotating-load')
      return at(runSheet(timed(sheet, 1, [track(wheel, 'worn', [0, worn])])), `${wheel}.speed`, 0.3)
    }
    expect(turned('20 N·m')).toBeLessThan(0.95 * turned('0 N·m'))
  })
  it('a jammed rod stands, a check the wrong way round blocks, a stuck spool stays', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '60 bar' }],
        check: ['check-valve'],
        jet: ['orifice', { diameter: '2 mm' }],
        ram: ['cylinder-double-acting', { mass: '100 kg', stroke: '400 mm' }],
        back: ['reservoir'],
      },
      ['supply.P check.A', 'check.B jet.A', 'jet.B ram.A', 'ram.B back.T'],
    )
    const [ram, check] = [idOf(sheet, 'cylinder-double-acting'), idOf(sheet, 'check-valve')]
    sheet = timed(sheet, 4, [track(ram, 'jammed', [1, '1'], [2, '0']), track(check, 'reversed', [3, '1'])])
    const r = runSheet(sheet)
    const x = (t: number) => at(r, `${ram}.position`, t)
    expect(x(0.95)).toBeGreaterThan(0.05)
    expect(x(1.95) - x(1.05)).toBeLessThan(1e-4)
    expect(x(2.9)).toBeGreaterThan(x(2.1) + 0.03)
    expect(x(3.95) - x(3.5)).toBeLessThan(2e-3)
    expect(r.finished).toBe(true)
  })
  it('air in a chamber makes it springy', () => {
    const dip = (air?: string) => {
      let sheet = circuit(
        {
          ram: [
            'cylinder-double-acting',
            {
              mass: '1000 kg',
              stroke: '400 mm',
              start: '200 mm',
              coulombFriction: '0 kN',
              breakawayFriction: '0 kN',
              viscousFriction: '20 kN·s/m',
            },
          ],
          a: ['plug'],
          b: ['plug'],
        },
        ['ram.A a.A', 'ram.B b.A'],
      )
      const ram = idOf(sheet, 'cylinder-double-acting')
      sheet = timed(sheet, 3, [
        track(ram, 'force', [0.5, '5 kN']),
        ...(air ? [track(ram, 'air', [0, air])] : []),
      ])
      const r = runSheet({ ...sheet, initialPressures: { [`${ram}.A`]: '50 bar', [`${ram}.B`]: '74.3 bar' } })
      expect(r.oil.error).toBeLessThan(1e-3)
      return at(r, `${ram}.position`, 0.4) - end(r, `${ram}.position`)
    }
    expect(dip('100 cm³')).toBeGreaterThan(1.5 * dip())
  })
  it('an accumulator that has lost half its gas holds more oil; one that is blocked takes none', () => {
    const filled = (fault?: Parameters<typeof track>) => {
      let sheet = circuit(
        {
          supply: ['pressure-source', { pressure: '150 bar' }],
          store: [
            'accumulator-gas',
            { volume: '10 L', precharge: '90 bar', process: 'isothermal', gas: 'ideal' },
          ],
        },
        ['supply.P store.P'],
      )
      const store = idOf(sheet, 'accumulator-gas')
      sheet = timed(sheet, 20, fault ? [track(store, ...(fault.slice(1) as [string, [number, string]]))] : [])
      const r = runSheet(sheet)
      expect(r.energy.error).toBeLessThan(1e-3)
      return end(r, `${store}.oil`) / 1e-3
    }
    // V_oil = V_0·(1 − p_0/p), absolute
    expect(filled()).toBeCloseTo(10 * (1 - 91.01325 / 151.01325), 2)
    expect(filled(['', 'drift', [0, '-50 %']])).toBeCloseTo(10 * (1 - 46.01325 / 151.01325), 2)
    expect(filled(['', 'blocked', [0, '100 %']])).toBe(0)
  })
  it('a gauge reads off, a contact sticks, a cam shifts', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '100 bar' }],
        gauge: ['pressure-gauge'],
        jet: ['orifice', { diameter: '2 mm' }],
        watch: ['pressure-switch', { set: '80 bar', reset: '40 bar' }],
        ram: ['cylinder-double-acting', { mass: '100 kg', stroke: '400 mm' }],
        cam: ['limit-switch', { at: '200 mm', width: '50 mm', reset: '2 mm' }],
        back: ['reservoir'],
      },
      [
        'supply.P gauge.P',
        'supply.P watch.P',
        'supply.P jet.A',
        'jet.B ram.A',
        'ram.B back.T',
        'ram.R cam.R',
      ],
    )
    const id = (kind: string) => idOf(sheet, kind)
    sheet = timed(sheet, 4, [
      track(id('pressure-source'), 'pressure', [0, '100 bar'], [3, '10 bar']),
      track(id('pressure-gauge'), 'drift', [1, '-20 %'], [2, '0 %']),
      track(id('pressure-switch'), 'stuck', [2.5, '1']),
      track(id('limit-switch'), 'drift', [0, '50 mm']),
    ])
    const r = runSheet(sheet)
    const reading = (t: number) => at(r, `${id('pressure-gauge')}.reading`, t) / bar
    expect([reading(0.9), reading(1.5), reading(2.2)].map(Math.round)).toEqual([100, 80, 100])
    expect(at(r, `${id('pressure-switch')}.on`, 3.9)).toBe(1)
    // the cam is found 50 mm too early
    const on = r.conditions.find((c) => c.component === id('limit-switch') && c.name === 'tripped')!
    expect(at(r, `${id('cylinder-double-acting')}.position`, on.start)).toBeCloseTo(0.15, 3)
  })
})

describe('start from the steady state', () => {
  const lift = circuit(
    {
      ...powerUnit,
      valve: ['directional-valve-4-3', { centre: 'float' }],
      tank3: ['reservoir'],
      hold: ['pilot-operated-check', {}],
      ram: ['cylinder-double-acting', { angle: '90 °', mass: '1 t', start: '200 mm', stroke: '400 mm' }],
    },
    [
      ...powerUnitPipes,
      'pump.P valve.P',
      'valve.T tank3.T',
      'valve.A hold.A',
      'hold.B ram.A',
      'valve.B ram.B',
      'valve.B hold.X',
    ],
  )
  it('begins where nothing moves any more: the pump at its relief, the load on its oil', () => {
    const r = runSheet(fromSteadyState(timed(lift, 2, [])))
    const ram = idOf(lift, 'cylinder-double-acting')
    expect(r.warnings).toEqual([])
    expect(at(r, `pressure(${idOf(lift, 'fixed-pump')}.P)`, 0) / bar).toBeGreaterThan(140)
    // the load on its area, but for what friction holds of it
    const area = (Math.PI * 0.063 ** 2) / 4
    const beside = at(r, `${ram}.capPressure`, 0) - (1000 * 9.80665) / area
    expect(Math.abs(beside)).toBeLessThan(600 / area)
    expect(most(r, `${ram}.velocity`) - least(r, `${ram}.velocity`)).toBeLessThan(1e-4)
    // without it the pump line begins at nothing
    const raw = runSheet(timed(lift, 2, []))
    expect(at(raw, `pressure(${idOf(lift, 'fixed-pump')}.P)`, 0)).toBe(0)
  })
  it('says so where it cannot come to rest', () => {
    // relief and accumulator that hunt for ever: an unloader with its differential on a small accumulator
    const sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor'],
        pump: ['fixed-pump'],
        unloader: ['unloading-valve', { setting: '80 bar' }],
        back: ['reservoir'],
        check: ['check-valve'],
        store: ['accumulator-gas', { volume: '1 L', precharge: '50 bar', process: 'isothermal' }],
        jet: ['orifice', { diameter: '1 mm' }],
        end: ['reservoir'],
      },
      [
        'tank.T pump.S',
        'motor.W pump.W',
        'pump.P unloader.P',
        'unloader.T back.T',
        'pump.P check.A',
        'check.B store.P',
        'check.B unloader.X',
        'check.B jet.A',
        'jet.B end.T',
      ],
    )
    const r = runSheet(fromSteadyState({ ...sheet, schedules: [{ ...sheet.schedules[0], duration: '1 s' }] }))
    expect(r.finished).toBe(true)
    expect(r.warnings.join()).toMatch(/did not come to rest/)
  })
  it('gives the operating point of a state directly', () => {
    const sheet = timed(lift, 5, [track(idOf(lift, 'directional-valve-4-3'), 'command', [2, '1'])])
    const idle = operatingPoint(sheet, undefined, 0)
    expect(idle.atRest).toBe(true)
    const relief = idOf(lift, 'relief-valve-direct')
    const line = `pressure(${idOf(lift, 'fixed-pump')}.P)`
    // it lies where the relief passes what the pump gives: the same as a long run comes to
    const long = run(compile(timed(lift, 3, [])).compiled!)
    expect(idle.values.get(line)!.value / end(long, line)).toBeCloseTo(1, 3)
    expect(idle.values.get(`${relief}.flow`)!.value / end(long, `${relief}.flow`)).toBeCloseTo(1, 2)
    // with the valve over, the lift ends on its stop
    const up = operatingPoint(sheet, undefined, 3)
    expect(up.values.get(`${idOf(lift, 'cylinder-double-acting')}.position`)!.value * 1000).toBeCloseTo(
      400,
      0,
    )
  })
})

describe('instruments and what is coupled', () => {
  it('a gauge behind its cock keeps what it last read', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '100 bar' }],
        gauge: ['gauge-with-shut-off', { range: '160 bar' }],
        test: ['test-point'],
      },
      ['supply.P gauge.P', 'supply.P test.P'],
    )
    const gauge = idOf(sheet, 'gauge-with-shut-off')
    sheet = timed(sheet, 3, [
      track(gauge, 'open', [1, '0'], [2.5, '1']),
      track(idOf(sheet, 'pressure-source'), 'pressure', [1.5, '40 bar']),
    ])
    const r = runSheet(sheet)
    expect([0.9, 2.4, 2.9].map((t) => Math.round(at(r, `${gauge}.needle`, t) / bar))).toEqual([100, 100, 40])
    expect(at(r, `${idOf(sheet, 'test-point')}.reading`, 2.4) / bar).toBeCloseTo(40, 3)
  })
  it('transducers give their share with their lag', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '0 bar' }],
        sensor: ['pressure-transducer', { range: '200 bar', filter: '100 ms' }],
        meter: ['flow-transducer', { range: '40 L/min', drop: '1 bar', filter: '1 ms' }],
        load: ['pressure-source', { pressure: '50 bar' }],
        warm: ['temperature-transducer'],
      },
      ['supply.P sensor.P', 'supply.P meter.A', 'meter.B load.P'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'pressure-source'), 'pressure', [1, '50.25 bar'])])
    const r = runSheet(sheet)
    const sensor = idOf(sheet, 'pressure-transducer')
    expect(at(r, `${sensor}.signal`, 1.1)).toBeCloseTo(0.25125 * (1 - Math.exp(-1)), 3)
    expect(at(r, `${idOf(sheet, 'flow-transducer')}.reading`, 1.9) / lpm).toBeCloseTo(
      20 / (1 + 0.4 ** 2) ** 0.25,
      2,
    )
    expect(at(r, `${idOf(sheet, 'temperature-transducer')}.signal`, 1)).toBeCloseTo(0.4, 6)
  })
  it('a coupling pulled apart shuts, and a safety block shuts off, guards and bleeds a vessel', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '150 bar' }],
        coupling: ['quick-coupling'],
        block: ['accumulator-safety-block', { setting: '200 bar', bleed: '3 mm' }],
        store: [
          'accumulator-gas',
          { volume: '4 L', precharge: '80 bar', process: 'isothermal', startPressure: '100 bar' },
        ],
        tank: ['reservoir'],
      },
      ['supply.P coupling.A', 'coupling.B block.P', 'block.A store.P', 'block.T tank.T'],
    )
    const block = idOf(sheet, 'accumulator-safety-block')
    sheet = timed(sheet, 12, [
      track(idOf(sheet, 'quick-coupling'), 'coupled', [2, '0']),
      track(idOf(sheet, 'pressure-source'), 'pressure', [2.5, '20 bar']),
      track(block, 'open', [3, '0']),
      track(block, 'bleed', [4, '1']),
    ])
    const r = runSheet(sheet)
    const vessel = (t: number) => at(r, `pressure(${block}.A)`, t) / bar
    expect(vessel(1.9)).toBeCloseTo(150, 0)
    expect(vessel(3.9)).toBeCloseTo(150, 0)
    expect(vessel(11.9)).toBeLessThan(1)
    expect(end(r, `${idOf(sheet, 'accumulator-gas')}.oil`)).toBeLessThan(1e-4)
    balanced(r)
  })
  it('a hose gives more than a pipe of the same oil', () => {
    const rise = (line: 'working' | 'hose') => {
      const sheet = circuit(
        { tank: ['reservoir'], source: ['flow-source', { flow: '0.6 L/min' }], end: ['plug'] },
        ['tank.T source.A', 'source.B end.A'],
      )
      const r = runSheet({
        ...timed(sheet, 1, []),
        pipes: sheet.pipes.map((p, i) => (i ? { ...p, lineType: line, length: '2 m', bore: '20 mm' } : p)),
      })
      expect(r.oil.error).toBeLessThan(1e-3)
      return end(r, `pressure(${idOf(sheet, 'flow-source')}.B)`)
    }
    expect(rise('hose')).toBeLessThan(0.5 * rise('working'))
  })
})
