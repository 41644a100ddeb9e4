/** What moves loads, held to closed forms: cylinders of every build, motors, brakes, drums, and what follows a rod. */
import { describe, expect, it } from 'vitest'
import { at, balanced, bar, circuit, end, idOf, least, lpm, runSheet, timed, track } from '../testing'

/** A cylinder fed with a steady flow, its other side to tank. */
function fed(kind: string, parameters: Record<string, string>, seconds: number, flow = '12 L/min') {
  const double = kind === 'cylinder-double-acting'
  const sheet = circuit(
    {
      tank: ['reservoir'],
      source: ['flow-source', { flow }],
      ram: [kind, parameters],
      ...(double ? { back: ['reservoir'] } : {}),
    },
    ['tank.T source.A', 'source.B ram.A', ...(double ? ['ram.B back.T'] : [])],
  )
  return { sheet, id: idOf(sheet, kind), r: runSheet(timed(sheet, seconds, [])) }
}

describe('cylinders', () => {
  it('a plunger moves at flow over its own area and carries load over it', () => {
    const { r, id } = fed('cylinder-plunger', { plunger: '60 mm', loadForce: '20 kN', mass: '10 kg' }, 2)
    const area = (Math.PI * 0.06 ** 2) / 4
    expect(at(r, `${id}.velocity`, 1.5)).toBeCloseTo((12 * lpm) / area, 4)
    expect(at(r, `${id}.capPressure`, 1.5) / bar).toBeCloseTo((20e3 + 400 + 1000 * 0.0707) / area / bar, 0)
    balanced(r)
  })
  it('a telescopic one speeds up and needs more pressure from stage to stage', () => {
    const { r, id } = fed(
      'cylinder-telescopic',
      {
        first: '90 mm',
        last: '50 mm',
        stages: '3',
        stroke: '900 mm',
        loadForce: '10 kN',
        mass: '200 kg',
        viscousFriction: '20 kN·s/m',
      },
      18,
    )
    const area = (d: number) => (Math.PI * d * d) / 4
    // 90, 70 and 50 mm; 0.2 L/s fill 300 mm of 90 mm in 9.54 s, of 70 mm in 5.77 s
    for (const [t, d] of [
      [5, 0.09],
      [12, 0.07],
      [17, 0.05],
    ]) {
      expect(at(r, `${id}.velocity`, t) / ((12 * lpm) / area(d))).toBeCloseTo(1, 2)
      const friction = 400 + 20_000 * ((12 * lpm) / area(d))
      expect(at(r, `${id}.capPressure`, t) / ((10e3 + friction) / area(d))).toBeCloseTo(1, 2)
    }
    balanced(r)
  })
  it('a cushion slows it before its stop, and its pressure is that of its throttle', () => {
    const pushed = (cushionOut: string) => {
      const sheet = circuit(
        {
          supply: ['pressure-source', { pressure: '60 bar' }],
          jet: ['orifice', { diameter: '3 mm' }],
          ram: [
            'cylinder-double-acting',
            { mass: '300 kg', loadForce: '2 kN', stroke: '200 mm', cushionThrottle: '1.5 mm', cushionOut },
          ],
          back: ['reservoir'],
        },
        ['supply.P jet.A', 'jet.B ram.A', 'ram.B back.T'],
      )
      return { r: runSheet(timed(sheet, 3, [])), id: idOf(sheet, 'cylinder-double-acting') }
    }
    const [plain, cushioned] = [pushed('0 mm'), pushed('30 mm')]
    const speed = (f: typeof plain) => f.r.conditions.find((c) => c.name === 'extended')!.worst!.value
    expect(speed(plain)).toBeGreaterThan(0.1)
    expect(speed(cushioned)).toBeLessThan(0.5 * speed(plain))
    // close to the stop the ring drives its oil through the throttle alone: Δp = (A·v/(C_d·A_t·√(2/ρ)))²
    const column =
      cushioned.r.columns[cushioned.r.signals.findIndex((s) => s.id === `${cushioned.id}.position`)]
    const t = cushioned.r.times[column.findIndex((x) => x > 0.1996)]
    const ring = (Math.PI * (0.063 ** 2 - 0.036 ** 2)) / 4
    const way = 0.7 * ((Math.PI * 0.0015 ** 2) / 4) * Math.sqrt(2 / (870 * (1 - 7e-4 * 25)))
    const drop = ((ring * at(cushioned.r, `${cushioned.id}.velocity`, t)) / way) ** 2
    expect(at(cushioned.r, `${cushioned.id}.rodPressure`, t) / drop).toBeCloseTo(1, 1)
    balanced(plain.r)
    balanced(cushioned.r)
  })
  it('takes its force from a table along the stroke', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '12 L/min' }],
        ram: ['cylinder-double-acting', { stroke: '400 mm', mass: '20 kg' }],
        back: ['reservoir'],
      },
      ['tank.T source.A', 'source.B ram.A', 'ram.B back.T'],
    )
    const id = idOf(sheet, 'cylinder-double-acting')
    const tabled = {
      ...sheet,
      components: sheet.components.map((c) =>
        c.id === id
          ? {
              ...c,
              parameters: {
                ...c.parameters,
                loadTable: [
                  ['0 mm', '1 kN'],
                  ['200 mm', '1 kN'],
                  ['300 mm', '11 kN'],
                ] as [string, string][],
              },
            }
          : c,
      ),
    }
    const r = runSheet(timed(tabled, 6, []))
    const force = (x: number) => {
      const column = r.columns[r.signals.findIndex((s) => s.id === `${id}.position`)]
      return at(r, `${id}.loadForce`, r.times[column.findIndex((p) => p >= x)])
    }
    expect(force(0.1) / 1000).toBeCloseTo(1, 2)
    expect(force(0.25) / 1000).toBeCloseTo(6, 1)
    expect(force(0.35) / 1000).toBeCloseTo(11, 2)
    balanced(r)
  })
  it('tells its position to what follows its rod', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '12 L/min' }],
        ram: [
          'cylinder-double-acting',
          { stroke: '400 mm', start: '50 mm', mass: '20 kg', loadForce: '2 kN' },
        ],
        slow: ['deceleration-valve', { from: '200 mm', over: '100 mm', left: '10 %', ratedFlow: '20 L/min' }],
        back: ['reservoir'],
        limit: ['limit-switch', { at: '300 mm', width: '20 mm', reset: '5 mm' }],
        measure: ['position-transducer', { range: '400 mm', filter: '1 ms' }],
        cell: ['load-cell', { range: '10 kN' }],
      },
      [
        'tank.T source.A',
        'source.B ram.A',
        'ram.B slow.A',
        'slow.B back.T',
        'ram.R slow.R',
        'ram.R limit.R',
        'ram.R measure.R',
        'ram.R cell.R',
      ],
    )
    sheet = timed(sheet, 6, [track(idOf(sheet, 'flow-source'), 'flow', [4.8, '-12 L/min'])])
    const r = runSheet(sheet)
    const id = idOf(sheet, 'cylinder-double-acting')
    for (const t of [0.5, 2, 3.5, 5]) {
      expect(at(r, `position(${id}.R)`, t)).toBeCloseTo(at(r, `${id}.position`, t), 6)
      expect(at(r, `${idOf(sheet, 'position-transducer')}.reading`, t)).toBeCloseTo(
        at(r, `${id}.position`, t),
        3,
      )
    }
    const cell = idOf(sheet, 'load-cell')
    expect(at(r, `${cell}.reading`, 2)).toBeCloseTo(at(r, `${id}.loadForce`, 2), 6)
    expect(at(r, `${cell}.signal`, 2)).toBeCloseTo(0.5 + 2000 / 20_000, 3)
    const valve = idOf(sheet, 'deceleration-valve')
    const column = r.columns[r.signals.findIndex((s) => s.id === `${id}.position`)]
    const when = (x: number) => r.times[column.findIndex((p) => p >= x)]
    expect(at(r, `${valve}.opening`, when(0.25))).toBeCloseTo(0.55, 1)
    expect(at(r, `${valve}.opening`, when(0.32))).toBeCloseTo(0.1, 2)
    // on at 300 mm, off 5 mm beyond its 20 mm on the way out
    const on = r.conditions.filter((c) => c.component === idOf(sheet, 'limit-switch') && c.name === 'tripped')
    expect(at(r, `${id}.position`, on[0].start)).toBeCloseTo(0.3, 3)
    balanced(r)
  })
})

describe('motors and what they turn', () => {
  const turning = (
    kind: string,
    motor: Record<string, string>,
    more: Parameters<typeof circuit>[0],
    pipes: string[],
  ) =>
    circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '30 L/min' }],
        motor: [kind, { crossLeakage: '0 L/min', caseLeakage: '0 L/min', ...motor }],
        back: ['reservoir'],
        case: ['reservoir'],
        ...more,
      },
      ['tank.T source.A', 'source.B motor.A', 'motor.B back.T', 'motor.L case.T', ...pipes],
    )
  it('a variable motor set back turns faster from the same flow', () => {
    let sheet = turning(
      'hydraulic-motor-variable',
      { displacement: '100 cm³/rev', inertia: '0.05 kg·m²', loadTorque: '60 N·m', viscousFriction: '80 N·m' },
      {},
      [],
    )
    const id = idOf(sheet, 'hydraulic-motor-variable')
    sheet = timed(sheet, 12, [track(id, 'swing', [6, '50 %'])])
    const r = runSheet(sheet)
    const rpm = (t: number) => (at(r, `${id}.speed`, t) * 60) / (2 * Math.PI)
    expect(rpm(5.9)).toBeCloseTo(300, 0)
    expect(rpm(11.9)).toBeCloseTo(600, 0)
    balanced(r)
  })
  it('a winch hauls at ω·r/i against weight, friction and gear', () => {
    const winch = {
      mass: '1 t',
      slope: '90 °',
      rolling: '0.2 kN',
      radius: '150 mm',
      ratio: '20',
      gearEfficiency: '90 %',
    }
    const sheet = turning(
      'hydraulic-motor',
      {
        displacement: '100 cm³/rev',
        inertia: '0.1 kg·m²',
        coulombTorque: '0 N·m',
        viscousFriction: '50 N·m',
        efficiency: '100 %',
      },
      { winch: ['winch-load', winch] },
      ['motor.W winch.W'],
    )
    const r = runSheet(timed(sheet, 8, []))
    const id = idOf(sheet, 'winch-load')
    const omega = ((30 * lpm) / 100e-6) * 2 * Math.PI
    expect(at(r, `${id}.rope`, 7.5)).toBeCloseTo((omega * 0.15) / 20, 3)
    const pull = 1000 * 9.80665 + 200
    expect(at(r, `${id}.pull`, 7.5)).toBeCloseTo(pull, 0)
    // Δp = T·2π/D with T = F·r/(i·η)
    const drop = ((pull * 0.15) / 20 / 0.9 + 50 * 0.3) * ((2 * Math.PI) / 100e-6)
    expect(at(r, `${idOf(sheet, 'hydraulic-motor')}.highest`, 7.5) / drop).toBeCloseTo(1, 2)
    balanced(r)
  })
  it('a brake holds without pressure and lets go with it', () => {
    let sheet = circuit(
      {
        pilot: ['pressure-source', { pressure: '0 bar' }],
        brake: ['brake', { torque: '400 N·m', begins: '12 bar', lifted: '20 bar' }],
        load: [
          'winch-load',
          {
            mass: '1 t',
            slope: '90 °',
            rolling: '0 kN',
            radius: '150 mm',
            ratio: '10',
            drumInertia: '0.5 kg·m²',
          },
        ],
      },
      ['pilot.P brake.X', 'brake.W load.W'],
    )
    sheet = timed(sheet, 3, [
      track(idOf(sheet, 'pressure-source'), 'pressure', [1, '30 bar'], [1.5, '0 bar']),
    ])
    const r = runSheet(sheet)
    const load = idOf(sheet, 'winch-load')
    expect(Math.abs(at(r, `${load}.hauled`, 0.9))).toBeLessThan(1e-3)
    // let go for about half a second it falls, and is caught again
    expect(least(r, `${load}.rope`)).toBeLessThan(-0.5)
    expect(Math.abs(end(r, `${load}.rope`))).toBeLessThan(0.005)
    expect(r.energy.error).toBeLessThan(1e-6)
  })
  it('a rack turns its pinion by flow over piston area and radius, up to its stop', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '3 L/min' }],
        rack: [
          'rack-actuator',
          { bore: '50 mm', pinion: '40 mm', range: '180 °', start: '0 °', inertia: '5 kg·m²' },
        ],
        back: ['reservoir'],
      },
      ['tank.T source.A', 'source.B rack.A', 'rack.B back.T'],
    )
    const r = runSheet(timed(sheet, 3, []))
    const id = idOf(sheet, 'rack-actuator')
    const speed = (3 * lpm) / (((Math.PI * 0.05 ** 2) / 4) * 0.04)
    expect(at(r, `${id}.speed`, 2.5)).toBeCloseTo(speed, 3)
    balanced(r)
  })
  it('a wave swings a load with its period and torque', () => {
    const sheet = circuit(
      {
        load: [
          'rotating-load',
          { inertia: '100 kg·m²', friction: '0 N·m', waveTorque: '500 N·m', wavePeriod: '4 s' },
        ],
        pilot: ['pressure-source', { pressure: '50 bar' }],
        lifted: ['brake', {}],
      },
      ['load.W lifted.W', 'pilot.P lifted.X'],
    )
    const r = runSheet(timed(sheet, 8, []))
    const id = idOf(sheet, 'rotating-load')
    // J·dω/dt = −M·sin(Ωt) from rest once the brake is off: |ω| up to 2·M/(J·Ω) = 6.37 rad/s
    expect(Math.abs(least(r, `${id}.speed`))).toBeGreaterThan(5.5)
    expect(Math.abs(least(r, `${id}.speed`))).toBeLessThan(6.5)
    expect(at(r, `${id}.wave`, 1)).toBeCloseTo(1, 4)
  })
})

describe('drives', () => {
  it('an engine droops under load and gives its rated torque at its set speed', () => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        engine: ['combustion-engine', { speed: '1800 rpm', ratedPower: '30 kW', droop: '6 %' }],
        pump: [
          'fixed-pump',
          {
            displacement: '45 cm³/rev',
            volumetricEfficiency: '100 %',
            hydromechanicalEfficiency: '100 %',
            maxPressure: '400 bar',
          },
        ],
        load: ['pressure-source', { pressure: '0 bar' }],
      },
      ['tank.T pump.S', 'engine.W pump.W', 'pump.P load.P'],
    )
    const rated = 30e3 / ((1800 * 2 * Math.PI) / 60)
    const full = rated / (45e-6 / (2 * Math.PI))
    const set = timed(sheet, 12, [
      track(
        idOf(sheet, 'pressure-source'),
        'pressure',
        [0, '0 bar'],
        [4, `${full / 2e5} bar`],
        [8, `${full / 1e5} bar`],
      ),
    ])
    const r = runSheet(set)
    const rpm = (t: number) => (at(r, `${idOf(sheet, 'combustion-engine')}.running`, t) * 60) / (2 * Math.PI)
    expect(rpm(3.9)).toBeCloseTo(1908, -1)
    expect(rpm(7.9)).toBeCloseTo(1854, -1)
    expect(rpm(11.9)).toBeCloseTo(1800, -1)
    expect(r.energy.error).toBeLessThan(1e-6)
  })
  it('a hand pump gives its stroke times its rate until the hand can push no more', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        pump: ['hand-pump', { displacement: '30 cm³', force: '0.25 kN', lever: '12', piston: '20 mm' }],
        load: ['pressure-source', { pressure: '20 bar' }],
      },
      ['tank.T pump.S', 'pump.P load.P'],
    )
    const id = idOf(sheet, 'hand-pump')
    sheet = timed(sheet, 3, [
      track(id, 'strokes', [0.5, '40 rpm']),
      track(idOf(sheet, 'pressure-source'), 'pressure', [2, '95 bar']),
    ])
    const r = runSheet(sheet)
    expect(at(r, `${id}.delivery`, 1.5) / lpm).toBeCloseTo(1.2, 4)
    // 0.25 kN · 12 · 0.9 on 20 mm: 85.9 bar
    expect(at(r, `${id}.most`, 1.5) / bar).toBeCloseTo(85.9, 1)
    expect(at(r, `${id}.delivery`, 2.5)).toBe(0)
  })
  it('a two-stage pump gives both flows below its change-over and the small one above, with the power to match', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor', { speed: '1500 rpm' }],
        pump: [
          'two-stage-pump',
          { large: '20 cm³/rev', small: '5 cm³/rev', changeOver: '60 bar', volumetricEfficiency: '100 %' },
        ],
        load: ['pressure-source', { pressure: '40 bar' }],
      },
      ['tank.T pump.S', 'motor.W pump.W', 'pump.P load.P'],
    )
    const id = idOf(sheet, 'two-stage-pump')
    sheet = timed(sheet, 4, [
      track(
        idOf(sheet, 'pressure-source'),
        'pressure',
        [0, '40 bar'],
        [1, '100 bar'],
        [2, '55 bar'],
        [3, '45 bar'],
      ),
    ])
    const r = runSheet(sheet)
    const flow = (t: number) => at(r, `${id}.delivery`, t) / lpm
    expect([0.9, 1.9, 2.9, 3.9].map(flow).map((q) => Math.round(q * 100) / 100)).toEqual([
      37.5, 7.5, 7.5, 37.5,
    ])
    // 25 cm³ at 40 bar; 5 cm³ at 100 bar and 20 cm³ at 4 bar
    const power = (t: number) => at(r, `${id}.shaftPower`, t)
    expect(power(0.9)).toBeCloseTo((25e-6 * 40e5 * 25) / 0.9, 0)
    expect(power(1.9)).toBeCloseTo(((5e-6 * 100e5 + 20e-6 * 4e5) * 25) / 0.9, 0)
  })
  it('spring and weight accumulators follow their laws', () => {
    for (const [kind, parameters, pressure] of [
      ['accumulator-spring', { volume: '1 L', preload: '10 bar', full: '30 bar' }, 20],
      [
        'accumulator-weight',
        { volume: '1 L', mass: '2 t', plunger: '80 mm', friction: '0 %' },
        (2000 * 9.80665) / ((Math.PI * 0.08 ** 2) / 4) / bar,
      ],
    ] as const) {
      const sheet = circuit(
        {
          tank: ['reservoir'],
          source: ['flow-source', { flow: '3 L/min' }],
          store: [kind, { ...parameters }],
        },
        ['tank.T source.A', 'source.B store.P'],
      )
      const r = runSheet(timed(sheet, 10.2, []))
      const id = idOf(sheet, kind)
      const oil = end(r, `${id}.oil`)
      expect(oil * 1000).toBeCloseTo(0.5, 1)
      const expected = kind === 'accumulator-spring' ? 10 + 20 * (oil / 1e-3) : pressure
      expect(end(r, `${id}.stored`) / bar).toBeCloseTo(expected, 2)
      balanced(r)
    }
  })
})
