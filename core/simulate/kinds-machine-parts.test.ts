/** Lever valve of a lift, shaft coupling, instruments of shafts and tanks, faults that lose oil or turn the wrong way. */
import { describe, expect, it } from 'vitest'
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
import { changePipe, setParameter } from '../sheet/edit'
import type { RawValue } from '../sheet/resolve'

describe('a pump that is driven the wrong way', () => {
  it('draws from its pressure line, and oil and energy still add up', () => {
    let sheet = circuit(powerUnit, powerUnitPipes)
    const pump = idOf(sheet, 'fixed-pump')
    sheet = timed(sheet, 1, [track(pump, 'wrongRotation', [0.5, '1'])])
    const r = runSheet(sheet)
    expect(at(r, `${pump}.delivery`, 0.4) / lpm).toBeGreaterThan(15)
    expect(end(r, `${pump}.delivery`)).toBeLessThan(1e-6)
    expect(least(r, `pressure(${pump}.P)`)).toBeLessThan(0)
    balanced(r)
  })
})

describe('a seal that leaks outwards', () => {
  it('loses oil for good, and neither oil nor energy goes unaccounted for', () => {
    let sheet = circuit(
      {
        ...powerUnit,
        ram: ['cylinder-double-acting', { bore: '63 mm', rod: '36 mm', stroke: '400 mm', start: '200 mm' }],
        plug: ['plug'],
      },
      [...powerUnitPipes, 'pump.P ram.B', 'plug.A ram.A'],
    )
    const ram = idOf(sheet, 'cylinder-double-acting')
    sheet = timed(sheet, 2, [track(ram, 'outward', [0.5, '0.5 L/min'])])
    const r = runSheet(sheet)
    balanced(r)
    // 0.5 L/min at 100 bar: in proportion at the setting of the relief
    const p = end(r, `pressure(${idOf(sheet, 'fixed-pump')}.P)`)
    expect(end(r, `flow(${ram}.B)`) / lpm).toBeCloseTo((0.5 * p) / (100 * bar), 1)
    const tank = `${idOf(sheet, 'reservoir')}.oil`
    expect(end(r, tank)).toBeLessThan(most(r, tank) - 1e-6)
  })
})

describe('a shaft coupling', () => {
  const driven = (breaking: string) =>
    timed(
      circuit(
        {
          tank: ['reservoir'],
          motor: ['electric-motor', { speed: '1500 rpm', ratedPower: '30 kW' }],
          coupling: ['shaft-coupling', { breaking }],
          flywheel: ['rotating-load', { inertia: '0.05 kg·m²', friction: '0 N·m' }],
          pump: ['fixed-pump', { displacement: '16 cm³/rev' }],
          load: ['pressure-source', { pressure: '100 bar' }],
        },
        ['tank.T pump.S', 'motor.W coupling.V', 'coupling.W pump.W', 'flywheel.W pump.W', 'pump.P load.P'],
      ),
      3,
      [],
    )
  it('passes the torque of its load', () => {
    const sheet = driven('4000 N·m')
    const r = runSheet(sheet)
    // D·Δp/(2π·η) = 16e-6·1e7/(2π·0.92) = 27.7 N·m
    expect(end(r, `${idOf(sheet, 'shaft-coupling')}.torque`)).toBeCloseTo(27.7, 0)
    balanced(r)
  })
  it('breaks above its torque, once and for all, and the pump stands', () => {
    const sheet = driven('20 N·m')
    const r = runSheet(sheet)
    expect(r.conditions.some((c) => c.name === 'broken')).toBe(true)
    expect(end(r, `${idOf(sheet, 'shaft-coupling')}.torque`)).toBe(0)
    expect(end(r, `${idOf(sheet, 'fixed-pump')}.delivery`) / lpm).toBeLessThan(1)
  })
})

describe('instruments of a shaft', () => {
  it('tell speed and angle, and switch in their range', () => {
    let sheet = circuit(
      {
        motor: ['electric-motor', { speed: '60 rpm' }],
        speed: ['speed-transducer', { range: '100 rpm' }],
        angle: ['angle-transducer', { range: '720 °', ratio: '2' }],
        cam: ['shaft-limit-switch', { at: '90 °', width: '20 °', reset: '1 °' }],
      },
      ['motor.W speed.W', 'motor.W angle.W', 'motor.W cam.W'],
    )
    sheet = timed(sheet, 1, [])
    const r = runSheet(sheet)
    expect(end(r, `${idOf(sheet, 'speed-transducer')}.signal`)).toBeCloseTo(0.6, 3)
    // one turn of the shaft, half of one behind the gear
    expect(end(r, `${idOf(sheet, 'angle-transducer')}.reading`)).toBeCloseTo(Math.PI, 1)
    const cam = `${idOf(sheet, 'shaft-limit-switch')}.on`
    expect([0.2, 0.27, 0.35].map((t) => at(r, cam, t))).toEqual([0, 1, 0])
  })
})

describe('instruments of the tank', () => {
  it('show temperature and level, and report what they should', () => {
    let sheet = circuit(
      { ...powerUnit, warm: ['thermometer', { range: '30 °C' }], level: ['level-gauge'] },
      powerUnitPipes,
    )
    sheet = timed({ ...sheet, tank: { ...sheet.tank, oil: '50 L' } }, 0.5, [])
    const r = runSheet(sheet)
    expect(end(r, `${idOf(sheet, 'thermometer')}.reading`)).toBeCloseTo(313.15, 6)
    expect(end(r, `${idOf(sheet, 'level-gauge')}.reading`)).toBeCloseTo(0.05, 3)
    const names = r.conditions.map((c) => c.name)
    expect(names).toEqual(expect.arrayContaining(['overRange', 'low']))
  })
})

describe('a differential gauge and a strainer', () => {
  it('read the drop of what lies between, and tell of clogging', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        strainer: ['suction-strainer', { ratedFlow: '20 L/min', ratedDrop: '0.1 bar' }],
        motor: ['electric-motor', { speed: '1500 rpm', ratedPower: '30 kW' }],
        pump: ['fixed-pump', { displacement: '16 cm³/rev' }],
        gauge: ['differential-gauge'],
        back: ['reservoir'],
      },
      [
        'tank.T strainer.A',
        'strainer.B pump.S',
        'motor.W pump.W',
        'pump.P back.T',
        'gauge.A strainer.A',
        'gauge.B strainer.B',
      ],
    )
    sheet = timed(sheet, 1, [track(idOf(sheet, 'suction-strainer'), 'blocked', [0.5, '60 %'])])
    const r = runSheet(sheet)
    const gauge = `${idOf(sheet, 'differential-gauge')}.reading`
    // 24 L/min through a mesh of 200 L/min a bar
    expect(at(r, gauge, 0.4) / bar).toBeCloseTo(0.12, 2)
    expect(end(r, gauge) / bar).toBeCloseTo(0.3, 1)
    expect(r.conditions.some((c) => c.name === 'clogged')).toBe(true)
  })
})

describe('the lever valve of a lift', () => {
  let sheet = circuit(
    {
      ...powerUnit,
      valve: ['lift-valve'],
      ram: ['cylinder-plunger', { plunger: '60 mm', stroke: '500 mm', mass: '800 kg', angle: '90 °' }],
    },
    [...powerUnitPipes, 'pump.P valve.P', 'valve.T back.T', 'valve.A ram.A'],
  )
  const valve = idOf(sheet, 'lift-valve')
  const stroke = `${idOf(sheet, 'cylinder-plunger')}.position`
  sheet = timed(sheet, 8, [
    track(valve, 'command', [0.2, '1'], [2, '0'], [3, '-1'], [4, '0'], [5, '-2'], [5.5, '0']),
  ])
  const r = runSheet(sheet)
  it('raises, holds, and lowers slowly through its throttle', () => {
    const [start, raised, held, snubbed] = [0.1, 2.2, 2.9, 4].map((t) => at(r, stroke, t))
    expect(raised).toBeGreaterThan(start + 0.1)
    expect(held).toBeCloseTo(raised, 2)
    expect(snubbed).toBeLessThan(held - 0.005)
    expect(snubbed).toBeGreaterThan(held - 0.15)
  })
  it('is latched in float when the lever is let go, until it is pulled out', () => {
    expect(at(r, `${valve}.spool`, 7)).toBeCloseTo(-2, 3)
    expect(end(r, stroke)).toBeLessThan(0.01)
    const pulled = runSheet(
      timed(sheet, 8, [track(valve, 'command', [5, '-2'], [5.5, '0'], [6, '1'], [6.5, '0'])]),
    )
    expect(end(pulled, `${valve}.spool`)).toBeCloseTo(0, 3)
  })
  it('keeps P to T while it holds only where it is open', () => {
    const rest = (neutral: string) => {
      const s = timed(setParameter(sheet, valve, 'neutral', neutral), 1, [])
      return end(runSheet(s), `pressure(${idOf(s, 'fixed-pump')}.P)`) / bar
    }
    expect(rest('open')).toBeLessThan(10)
    expect(rest('closed')).toBeGreaterThan(100)
  })
})

describe('centres of a 4/3 valve', () => {
  const drift = (centre: string) => {
    const sheet = timed(
      circuit(
        {
          ...powerUnit,
          valve: ['directional-valve-4-3', { centre }],
          ram: [
            'cylinder-double-acting',
            { bore: '63 mm', rod: '36 mm', stroke: '400 mm', start: '100 mm', loadForce: '-5 kN' },
          ],
        },
        [...powerUnitPipes, 'pump.P valve.P', 'valve.T back.T', 'valve.A ram.A', 'valve.B ram.B'],
      ),
      2,
      [],
    )
    return end(runSheet(sheet), `${idOf(sheet, 'cylinder-double-acting')}.position`) - 0.1
  }
  it('float slower where they are throttled, and move under pressure where P is joined to one side', () => {
    expect(Math.abs(drift('closed'))).toBeLessThan(0.005)
    const [free, slow] = [drift('float'), drift('throttledFloat')]
    expect(slow).toBeGreaterThan(0.01)
    expect(free).toBeGreaterThan(1.5 * slow)
    expect(drift('pToA')).toBeGreaterThanOrEqual(-0.005)
  })
})

describe('a mechanical lock', () => {
  const locked = (holdingForce: string, lock: [number, string]) => {
    const sheet = circuit(
      {
        tank: ['reservoir'],
        ram: [
          'cylinder-double-acting',
          { bore: '63 mm', rod: '36 mm', stroke: '500 mm', start: '400 mm', mass: '500 kg', angle: '90 °' },
        ],
        lock: ['load-lock', { holdingForce, engaging: '0.1 s' }],
        a: ['orifice', { diameter: '2 mm' }],
        b: ['orifice', { diameter: '3 mm' }],
      },
      ['ram.A a.A', 'a.B tank.T', 'ram.B b.A', 'b.B tank.T', 'lock.R ram.R'],
    )
    return { sheet, r: runSheet(timed(sheet, 4, [track(idOf(sheet, 'load-lock'), 'locked', lock)])) }
  }
  it('stops the load and carries it without oil, creeping by nothing that can be seen', () => {
    const { sheet, r } = locked('20 kN', [1, '1'])
    const position = `${idOf(sheet, 'cylinder-double-acting')}.position`
    const [before, after, later] = [0.9, 1.5, 3.9].map((t) => at(r, position, t))
    expect(before).toBeLessThan(0.4)
    expect(after - later).toBeLessThan(1e-5)
    expect(later).toBeGreaterThan(0.1)
    // the oil under the piston is relieved: the lock has the weight
    expect(Math.abs(end(r, `pressure(${idOf(sheet, 'cylinder-double-acting')}.A)`))).toBeLessThan(0.2 * bar)
    balanced(r)
  })
  it('is reported where it does not hold', () => {
    const { r } = locked('2 kN', [0, '1'])
    expect(r.conditions.some((c) => c.name === 'moves' && c.severity === 'danger')).toBe(true)
  })
})

describe('a supply by another machine', () => {
  const supplied = (pump: string, opening: string) => {
    const sheet = circuit(
      {
        supply: ['foreign-supply', { pump, flow: '40 L/min', pressure: '150 bar', margin: '20 bar' }],
        edge: ['needle-valve', { ratedFlow: '40 L/min', ratedDrop: '100 bar', opening }],
        ...(pump === 'loadSensing' ? { load: ['pressure-source', { pressure: '60 bar' }] } : {}),
      } as Parameters<typeof circuit>[0],
      [
        'supply.P edge.A',
        ...(pump === 'loadSensing' ? ['edge.B load.P', 'supply.X load.P'] : ['edge.B supply.T']),
      ],
    )
    const r = runSheet(timed(sheet, 2, []))
    balanced(r)
    return {
      flow: end(r, `${idOf(sheet, 'foreign-supply')}.flow`) / lpm,
      pressure: end(r, `pressure(${idOf(sheet, 'foreign-supply')}.P)`) / bar,
    }
  }
  it('gives its flow up to its pressure', () => {
    const open = supplied('fixed', '100 %')
    expect(open.flow).toBeCloseTo(40, 0)
    expect(open.pressure).toBeCloseTo(102, 0)
    const shut = supplied('compensated', '0 %')
    expect(shut.flow).toBeCloseTo(0, 1)
    expect(shut.pressure).toBeGreaterThan(145)
    expect(shut.pressure).toBeLessThan(166)
  })
  it('keeps its margin above the load signal', () => {
    const { pressure, flow } = supplied('loadSensing', '100 %')
    expect(pressure).toBeGreaterThan(70)
    expect(pressure).toBeLessThan(81)
    // over the edge by the margin: 40·√(20/100), less what the band of the compensator takes
    expect(flow).toBeGreaterThan(13)
    expect(flow).toBeLessThan(18)
  })
})

describe('a continued line', () => {
  it('ends closed, or at the pressure that it has on the other sheet', () => {
    const flow = (boundary: string) => {
      const sheet = circuit(
        {
          source: ['pressure-source', { pressure: '20 bar' }],
          edge: ['needle-valve', { ratedFlow: '40 L/min', ratedDrop: '20 bar' }],
          on: ['continuation', { boundary }],
        },
        ['source.P edge.A', 'edge.B on.A'],
      )
      return end(runSheet(timed(sheet, 1, [])), `${idOf(sheet, 'continuation')}.flow`) / lpm
    }
    expect(flow('closed')).toBeCloseTo(0, 6)
    expect(flow('held')).toBeCloseTo(39, 0)
  })
})

describe('a back-pressure valve with a pilot', () => {
  it('keeps its pressure without the pilot, and opens wholly with it', () => {
    let sheet = circuit(
      {
        flow: ['flow-source', { flow: '20 L/min' }],
        tank: ['reservoir'],
        back: [
          'back-pressure-valve',
          { setting: '10 bar', ratedFlow: '40 L/min', switched: true, switchPressure: '20 bar' },
        ],
        pilot: ['pressure-source'],
        home: ['reservoir'],
      },
      ['tank.T flow.A', 'flow.B back.A', 'back.B home.T', 'pilot.P back.X'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'pressure-source'), 'pressure', [1, '30 bar'])])
    const r = runSheet(sheet)
    const kept = `pressure(${idOf(sheet, 'flow-source')}.B)`
    expect(at(r, kept, 0.9) / bar).toBeGreaterThan(8)
    expect(end(r, kept) / bar).toBeLessThan(4)
  })
})

describe('metering edges', () => {
  const flow = (parameters: Record<string, RawValue>, command: string) => {
    const plain = circuit(
      {
        source: ['pressure-source', { pressure: '50 bar' }],
        valve: ['proportional-valve', { ratedFlow: '40 L/min', ratedDrop: '50 bar', deadBand: '0 %' }],
        tank: ['reservoir'],
        a: ['reservoir'],
        b: ['plug'],
      },
      ['source.P valve.P', 'valve.T tank.T', 'valve.A a.T', 'valve.B b.A'],
    )
    const sheet = Object.entries(parameters).reduce(
      (s, [name, value]) => setParameter(s, idOf(s, 'proportional-valve'), name, value),
      plain,
    )
    return (
      -end(
        runSheet(timed(sheet, 1, [track(idOf(sheet, 'proportional-valve'), 'command', [0, command])])),
        `flow(${idOf(sheet, 'proportional-valve')}.A)`,
      ) / lpm
    )
  }
  it('open by two notches, first the fine one', () => {
    const notches = { edges: 'twoNotches', fineLength: '40 %', fineIn: '10 %' }
    expect(flow(notches, '20 %')).toBeCloseTo(40 * 0.05, 1)
    expect(flow(notches, '40 %')).toBeCloseTo(40 * 0.1, 1)
    expect(flow(notches, '70 %')).toBeCloseTo(40 * 0.55, 1)
    expect(flow(notches, '100 %')).toBeCloseTo(40, 1)
  })
  it('open as they were measured', () => {
    const measured: Record<string, RawValue> = {
      edges: 'table',
      inletTable: [
        ['0 %', '0 %'],
        ['50 %', '10 %'],
        ['100 %', '80 %'],
      ],
    }
    expect(flow(measured, '50 %')).toBeCloseTo(4, 1)
    expect(flow(measured, '75 %')).toBeCloseTo(40 * 0.45, 1)
  })
})

describe('a pipe with a rating', () => {
  it('is reported while its line is above it', () => {
    const sheet = timed(circuit(powerUnit, powerUnitPipes), 0.5, [])
    const rated = changePipe(
      sheet,
      sheet.pipes.find((p) => 'component' in p.from && p.from.port === 'P')!.id,
      {
        rating: '100 bar',
      },
    )
    expect(runSheet(rated).conditions.map((c) => c.name)).toContain('overRated')
    expect(runSheet(sheet).conditions.map((c) => c.name)).not.toContain('overRated')
  })
})
