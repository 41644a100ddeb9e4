/** What each kind does in a small circuit, held to closed forms. */
import { describe, expect, it } from 'vitest'
import {
  at,
  balanced,
  bar,
  circuit,
  end,
  idOf,
  lpm,
  powerUnit,
  powerUnitPipes,
  runSheet,
  timed,
  track,
} from '../testing'

describe('accumulator', () => {
  const charged = (process: string) => {
    const sheet = circuit(
      {
        source: ['flow-source', { flow: '6 L/min' }],
        tank: ['reservoir'],
        accumulator: ['accumulator-gas', { volume: '10 L', precharge: '90 bar', process, gas: 'ideal' }],
      },
      ['tank.T source.A', 'source.B accumulator.P'],
    )
    return runSheet(timed(sheet, 30, []))
  }
  it.each([
    ['isothermal', 1],
    ['adiabatic', 1.4],
  ])('follows the gas law (%s)', (process, n) => {
    const r = charged(process)
    const id = 'Z3'
    const oil = end(r, `${id}.oil`)
    // 6 L/min for 30 s is 3 L, less what compresses the line
    expect(oil * 1000).toBeCloseTo(3, 1)
    const expected = (90 + 1.01325) * (0.01 / (0.01 - oil)) ** n - 1.01325
    expect(end(r, `${id}.gas`) / bar).toBeCloseTo(expected, 3)
    balanced(r)
  })
  it('lies between the two with its heat exchange, and takes nothing below its precharge', () => {
    const r = charged('thermal')
    const p = end(r, 'Z3.gas')
    expect(p).toBeGreaterThan(end(charged('isothermal'), 'Z3.gas'))
    expect(p).toBeLessThan(end(charged('adiabatic'), 'Z3.gas'))
    expect(at(r, 'Z3.oil', 0.005)).toBeLessThan(1e-6)
    balanced(r)
  })
})

describe('unloading valve', () => {
  it('opens at its setting and shuts at its reset', () => {
    let sheet = circuit(
      {
        ...powerUnit,
        unloader: ['unloading-valve', { setting: '100 bar', differential: '80 %' }],
        tank3: ['reservoir'],
        pilot: ['pressure-source'],
      },
      [...powerUnitPipes, 'pump.P unloader.P', 'unloader.T tank3.T', 'pilot.P unloader.X'],
    )
    sheet = timed(sheet, 4, [
      track(
        idOf(sheet, 'pressure-source'),
        'pressure',
        [0, '0 bar'],
        [2, '120 bar', 'ramp'],
        [4, '0 bar', 'ramp'],
      ),
    ])
    const r = runSheet(sheet)
    const valve = idOf(sheet, 'unloading-valve')
    const open = r.conditions.find((c) => c.name === 'unloaded')!
    // up at 60 bar/s: 100 bar at 1.667 s; down from 120 at 2 s: 80 bar at 2.667 s
    expect(open.start).toBeCloseTo(100 / 60, 2)
    expect(r.conditions.find((c) => c.name === 'snap')!.start).toBeCloseTo(100 / 60, 4)
    expect(open.end).toBeGreaterThan(2 + 40 / 60)
    expect(open.end).toBeLessThan(2 + 40 / 60 + 0.06)
    expect(at(r, `${valve}.flow`, 2)).toBeGreaterThan(23.5 * lpm)
    balanced(r)
  })
})

describe('relief valve with a vent port', () => {
  it('unloads when vented and is set from afar', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor'],
        pump: ['fixed-pump'],
        main: ['relief-valve-vented', { setting: '160 bar' }],
        back: ['reservoir'],
        vent: ['pressure-source', { pressure: '0 bar' }],
      },
      ['tank.T pump.S', 'motor.W pump.W', 'pump.P main.P', 'main.T back.T', 'vent.P main.X'],
    )
    sheet = timed(sheet, 3, [
      track(idOf(sheet, 'pressure-source'), 'pressure', [1, '80 bar'], [2, '300 bar']),
    ])
    const r = runSheet(sheet)
    const line = `pressure(${idOf(sheet, 'fixed-pump')}.P)`
    // p = p_crack/(1 − o)·(1 − o·(1 − q/q_r)) with the override a share of what holds; 22 of 40 L/min go over it
    const held = (crack: number, t: number) => {
      const share = at(r, `${idOf(sheet, 'relief-valve-vented')}.flow`, t) / (40 * lpm)
      return crack + (crack / 0.94 - crack) * share
    }
    expect(at(r, line, 0.99) / bar).toBeCloseTo(held(4, 0.99), 1)
    expect(at(r, line, 0.99) / bar).toBeLessThan(4.3)
    expect(at(r, line, 1.99) / bar).toBeCloseTo(held(84, 1.99), 1)
    // the main knob is the maximum
    expect(Math.abs(at(r, line, 2.99) / bar - 155.8)).toBeLessThan(1.5)
    balanced(r)
  })
})

describe('counterbalance valve', () => {
  const lowered = (mass: string) => {
    let sheet = circuit(
      {
        ...powerUnit,
        valve: ['directional-valve-4-3', { centre: 'float' }],
        tank3: ['reservoir'],
        hold: ['counterbalance-valve', { setting: '100 bar', pilotRatio: '4' }],
        lift: ['cylinder-double-acting', { angle: '90 °', mass, start: '300 mm', stroke: '400 mm' }],
      },
      [
        ...powerUnitPipes,
        'pump.P valve.P',
        'valve.T tank3.T',
        'valve.A hold.2',
        'hold.1 lift.A',
        'valve.B lift.B',
        'valve.B hold.X',
      ],
    )
    sheet = timed(sheet, 4, [track(idOf(sheet, 'directional-valve-4-3'), 'command', [2, '-1'])])
    const lift = idOf(sheet, 'cylinder-double-acting')
    const start = { [`${lift}.A`]: '30 bar' }
    return { r: runSheet({ ...sheet, initialPressures: start }), lift }
  }
  it('holds the load, and lets it down under the pump', () => {
    const { r, lift } = lowered('800 kg')
    // it does not drift while the valve is in its float centre
    expect(Math.abs(at(r, `${lift}.position`, 1.9) - at(r, `${lift}.position`, 0.9))).toBeLessThan(1e-5)
    expect(at(r, `${lift}.position`, 3.2)).toBeLessThan(0.25)
    // the rod side is pushed all the time: the load does not run ahead of the pump
    expect(at(r, `${lift}.rodPressure`, 3)).toBeGreaterThan(5 * bar)
    balanced(r)
  })
})

describe('reducing valve', () => {
  it('keeps its outlet down and relieves it', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '150 bar' }],
        reduce: ['reducing-valve', { setting: '40 bar' }],
        drain: ['reservoir'],
        push: ['flow-source', { flow: '0 L/min' }],
        tank: ['reservoir'],
      },
      ['supply.P reduce.P', 'reduce.Y drain.T', 'tank.T push.A', 'push.B reduce.A'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'flow-source'), 'flow', [0, '-5 L/min'], [1, '5 L/min'])])
    const r = runSheet(sheet)
    const out = `pressure(${idOf(sheet, 'reducing-valve')}.A)`
    expect(at(r, out, 0.9) / bar).toBeGreaterThan(36)
    expect(at(r, out, 0.9) / bar).toBeLessThan(40)
    expect(at(r, out, 1.9) / bar).toBeGreaterThan(45)
    expect(at(r, out, 1.9) / bar).toBeLessThan(47)
    balanced(r)
  })
})

describe('pumps and drives', () => {
  it('a pressure-compensated pump gives full flow below its band and only the leakage above', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor', { speed: '1500 rpm', ratedPower: '30 kW' }],
        pump: [
          'pressure-compensated-pump',
          { compensator: '200 bar', displacement: '40 cm³/rev', caseDrain: 'internal' },
        ],
        jet: ['needle-valve', { ratedFlow: '40 L/min', ratedDrop: '150 bar' }],
        back: ['reservoir'],
      },
      ['tank.T pump.S', 'motor.W pump.W', 'pump.P jet.A', 'jet.B back.T'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'needle-valve'), 'opening', [1, '0 %'])])
    const r = runSheet(sheet)
    const line = `pressure(${idOf(sheet, 'pressure-compensated-pump')}.P)`
    expect(at(r, line, 0.9) / bar).toBeGreaterThan(150)
    expect(at(r, line, 1.9) / bar).toBeCloseTo(199.8, 0)
    balanced(r)
  })
  it('a power limit takes the stroke back', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor', { speed: '1500 rpm', ratedPower: '30 kW' }],
        pump: [
          'pressure-compensated-pump',
          { compensator: '300 bar', displacement: '40 cm³/rev', powerLimit: '8 kW', caseDrain: 'internal' },
        ],
        load: ['pressure-source', { pressure: '150 bar' }],
      },
      ['tank.T pump.S', 'motor.W pump.W', 'pump.P load.P'],
    )
    const r = runSheet(timed(sheet, 2, []))
    expect(end(r, `${idOf(sheet, 'pressure-compensated-pump')}.shaftPower`)).toBeCloseTo(8000, -1)
  })
  it('an induction motor runs up, slips under load and coasts when switched off', () => {
    let sheet = circuit(
      { ...powerUnit, motor: ['induction-motor', { ratedPower: '7.5 kW', slip: '4 %' }] },
      powerUnitPipes,
    )
    const motor = idOf(sheet, 'induction-motor')
    sheet = timed(sheet, 3, [track(motor, 'on', [0, '0'], [0.2, '1'], [2, '0'])])
    const r = runSheet(sheet)
    const rpm = (t: number) => (at(r, `speed(${motor}.W)`, t) * 60) / (2 * Math.PI)
    expect(rpm(0.1)).toBeCloseTo(0, 6)
    const power = at(r, `${motor}.shaftPower`, 1.9)
    const torque = power / ((rpm(1.9) * 2 * Math.PI) / 60)
    const rated = 7500 / ((1500 * 2 * Math.PI * 0.96) / 60)
    expect(rpm(1.9)).toBeCloseTo(1500 * (1 - (0.04 * torque) / rated), 0)
    expect(rpm(2.9)).toBeLessThan(5)
    balanced(r)
  })
})

describe('flow and switching valves', () => {
  it('a two-way flow control keeps its flow above its least drop', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '100 bar' }],
        control: ['flow-control-2-way', { flow: '12 L/min', leastDrop: '8 bar' }],
        load: ['pressure-source'],
      },
      ['supply.P control.A', 'control.B load.P'],
    )
    sheet = timed(sheet, 3, [
      track(idOf(sheet, 'pressure-source', 1), 'pressure', [0, '0 bar'], [1, '80 bar'], [2, '98 bar']),
    ])
    const r = runSheet(sheet)
    const flow = (t: number) => at(r, `${idOf(sheet, 'flow-control-2-way')}.passed`, t) / lpm
    expect(flow(0.9)).toBeCloseTo(12, 2)
    expect(flow(1.9)).toBeCloseTo(12, 1)
    expect(flow(2.9)).toBeCloseTo(12 * Math.sqrt(2 / 8), 1)
  })
  it('a shuttle passes on the higher of two pressures', () => {
    let sheet = circuit(
      {
        a: ['pressure-source', { pressure: '50 bar' }],
        b: ['pressure-source'],
        shuttle: ['shuttle-valve'],
        gauge: ['pressure-gauge'],
      },
      ['a.P shuttle.A', 'b.P shuttle.B', 'shuttle.C gauge.P'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'pressure-source', 1), 'pressure', [1, '90 bar'])])
    const r = runSheet(sheet)
    const gauge = `${idOf(sheet, 'pressure-gauge')}.reading`
    expect(at(r, gauge, 0.9) / bar).toBeCloseTo(50, 3)
    expect(at(r, gauge, 1.9) / bar).toBeCloseTo(90, 3)
  })
  it('a pressure switch has its hysteresis', () => {
    let sheet = circuit(
      { a: ['pressure-source'], s: ['pressure-switch', { set: '100 bar', reset: '60 bar' }] },
      ['a.P s.P'],
    )
    sheet = timed(sheet, 4, [
      track(
        idOf(sheet, 'pressure-source'),
        'pressure',
        [0, '0 bar'],
        [2, '120 bar', 'ramp'],
        [4, '0 bar', 'ramp'],
      ),
    ])
    const on = runSheet(sheet).conditions.find((c) => c.name === 'tripped')!
    expect(on.start).toBeCloseTo(100 / 60, 4)
    expect(on.end).toBeCloseTo(3, 4)
  })
  it.each([
    ['directional-valve-3-2', 'closed', 0, 50],
    ['directional-valve-3-2', 'open', 50, 0],
  ])('%s, %s at rest', (kind, centre, rest, actuated) => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '50 bar' }],
        valve: [kind, { centre }],
        tank: ['reservoir'],
        gauge: ['pressure-gauge'],
      },
      ['supply.P valve.P', 'valve.T tank.T', 'valve.A gauge.P'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, kind), 'command', [1, '1'])])
    const r = runSheet(sheet)
    const gauge = `${idOf(sheet, 'pressure-gauge')}.reading`
    expect(at(r, gauge, 0.9) / bar).toBeCloseTo(rest, 1)
    expect(at(r, gauge, 1.9) / bar).toBeCloseTo(actuated, 1)
  })
  it('a piloted valve goes as far as its pilot pushes', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '50 bar' }],
        valve: [
          'directional-valve-4-3',
          { actuation: 'pilot', shiftTime: '100 ms', shiftPressure: '10 bar' },
        ],
        tank: ['reservoir'],
        x: ['pressure-source'],
        y: ['reservoir'],
        a: ['pressure-gauge'],
        b: ['pressure-gauge'],
      },
      ['supply.P valve.P', 'valve.T tank.T', 'x.P valve.X', 'y.T valve.Y', 'valve.A a.P', 'valve.B b.P'],
    )
    sheet = timed(sheet, 2, [
      track(idOf(sheet, 'pressure-source', 1), 'pressure', [0.5, '5 bar'], [1, '20 bar']),
    ])
    const r = runSheet(sheet)
    const spool = `${idOf(sheet, 'directional-valve-4-3')}.spool`
    expect(at(r, spool, 0.95)).toBeCloseTo(0.5, 3)
    expect(at(r, spool, 1.9)).toBeCloseTo(1, 6)
    expect(at(r, `${idOf(sheet, 'pressure-gauge')}.reading`, 1.9) / bar).toBeCloseTo(50, 1)
  })
  it('a ball valve shuts its line', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '50 bar' }],
        valve: ['ball-valve'],
        meter: ['flow-meter'],
        tank: ['reservoir'],
      },
      ['supply.P valve.A', 'valve.B meter.A', 'meter.B tank.T'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'ball-valve'), 'opening', [1, '0 %'])])
    const r = runSheet(sheet)
    const meter = `${idOf(sheet, 'flow-meter')}.reading`
    expect(at(r, meter, 0.9)).toBeGreaterThan(100 * lpm)
    expect(at(r, meter, 1.9)).toBeCloseTo(0, 9)
  })
})

describe('actuators', () => {
  it('a single-acting cylinder goes out on oil and back on its spring', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '40 bar' }],
        jet: ['needle-valve', { ratedFlow: '20 L/min', ratedDrop: '10 bar' }],
        clamp: [
          'cylinder-single-acting',
          { bore: '40 mm', stroke: '100 mm', mass: '20 kg', springRate: '10 N/mm' },
        ],
      },
      ['supply.P jet.A', 'jet.B clamp.A'],
    )
    const clamp = idOf(sheet, 'cylinder-single-acting')
    sheet = timed(sheet, 4, [track(idOf(sheet, 'pressure-source'), 'pressure', [0, '40 bar'], [2, '0 bar'])])
    const r = runSheet(sheet)
    expect(at(r, `${clamp}.position`, 1.9)).toBeCloseTo(0.1, 4)
    expect(at(r, `${clamp}.loadForce`, 1.9)).toBeCloseTo(1000, -1)
    // the spring brings it back to where it only just overcomes friction
    expect(at(r, `${clamp}.position`, 3.9)).toBeLessThan(0.06)
    balanced(r)
  })
  it('a double-rod cylinder moves alike both ways', () => {
    let sheet = circuit(
      {
        ...powerUnit,
        valve: ['directional-valve-4-3'],
        tank3: ['reservoir'],
        ram: ['cylinder-double-rod', { bore: '63 mm', rod: '36 mm', stroke: '400 mm', mass: '200 kg' }],
      },
      [...powerUnitPipes, 'pump.P valve.P', 'valve.T tank3.T', 'valve.A ram.A', 'valve.B ram.B'],
    )
    const ram = idOf(sheet, 'cylinder-double-rod')
    sheet = timed(sheet, 6, [track(idOf(sheet, 'directional-valve-4-3'), 'command', [0.5, '1'], [3, '-1'])])
    const r = runSheet(sheet)
    expect(at(r, `${ram}.velocity`, 1.5)).toBeCloseTo(-at(r, `${ram}.velocity`, 4), 4)
    balanced(r)
  })
  it('a vane actuator turns between its stops at flow over displacement', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '6 L/min' }],
        vane: [
          'semi-rotary',
          { displacement: '1 L', range: '90 °', start: '0 °', leakage: '0 L/min', loadTorque: '2000 N·m' },
        ],
        back: ['reservoir'],
      },
      ['tank.T source.A', 'source.B vane.A', 'vane.B back.T'],
    )
    const r = runSheet(timed(sheet, 9, []))
    const vane = idOf(sheet, 'semi-rotary')
    // 0.1 L/s into 1 L for 90°: 9° a second
    const turned = at(r, `${vane}.angle`, 8) - at(r, `${vane}.angle`, 4)
    expect(turned).toBeCloseTo((4 * 9 * Math.PI) / 180, 3)
    expect(at(r, `${vane}.torque`, 8)).toBeGreaterThan(2000)
    balanced(r)
  })
  it('a proportional valve meters by its notch beyond its dead band', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '50 bar' }],
        valve: [
          'proportional-valve',
          { ratedFlow: '40 L/min', ratedDrop: '5 bar', deadBand: '10 %', exponent: '1.5' },
        ],
        tank: ['reservoir'],
        a: ['pressure-source', { pressure: '45 bar' }],
        b: ['pressure-source', { pressure: '5 bar' }],
      },
      ['supply.P valve.P', 'valve.T tank.T', 'valve.A a.P', 'valve.B b.P'],
    )
    const valve = idOf(sheet, 'proportional-valve')
    sheet = timed(sheet, 4, [track(valve, 'command', [0, '10 %'], [1, '55 %'], [2, '100 %'], [3, '-55 %'])])
    const r = runSheet(sheet)
    const flow = (t: number) => at(r, `flow(${valve}.P)`, t) / lpm
    expect(flow(0.9)).toBeCloseTo(0, 3)
    expect(flow(1.9)).toBeCloseTo(40 * 0.5 ** 1.5, 1)
    expect(flow(2.9)).toBeCloseTo(40, 0)
    // the other way it feeds B, at a drop of 45 bar
    expect(flow(3.9)).toBeCloseTo(40 * 0.5 ** 1.5 * 3, 0)
  })
})
