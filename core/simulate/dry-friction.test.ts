/** Dry friction against closed forms: what it holds does not move, what slides follows Coulomb's law. */
import { describe, expect, it } from 'vitest'
import { at, circuit, end, idOf, least, most, runSheet, timed, track } from '../testing'
import type { Sheet } from '../sheet/schema'

/** A cylinder with oil at no pressure, and a load. */
const open = (
  parameters: Record<string, string>,
  schedule: (ram: string) => ReturnType<typeof track>[],
  duration: number,
): Sheet => {
  const sheet = circuit(
    {
      ram: [
        'cylinder-double-acting',
        { viscousFriction: '0 N·s/m', stroke: '2000 mm', start: '1000 mm', mass: '100 kg', ...parameters },
      ],
      one: ['reservoir'],
      other: ['reservoir'],
    },
    ['ram.A one.T', 'ram.B other.T'],
  )
  return timed(sheet, duration, schedule(idOf(sheet, 'cylinder-double-acting')))
}
const friction = (coulomb: string, breakaway = coulomb) => ({
  coulombFriction: coulomb,
  breakawayFriction: breakaway,
})

describe('a cylinder', () => {
  it('is held exactly while its load is below the breakaway friction', () => {
    for (const loadForce of ['9.99 kN', '-9.99 kN']) {
      const r = runSheet(open({ ...friction('8 kN', '10 kN'), loadForce }, () => [], 60))
      expect([least(r, 'A1.position'), most(r, 'A1.position')]).toEqual([1, 1])
      expect(most(r, 'A1.velocity')).toBe(0)
    }
  })
  it('breaks away where the load passes it, and then against the lower kinetic friction', () => {
    const sheet = open(
      friction('8 kN', '10 kN'),
      (ram) => [track(ram, 'force', [0, '0 kN'], [10, '-20 kN', 'ramp'])],
      5.2,
    )
    const r = runSheet(sheet)
    const speed = r.columns[r.signals.findIndex(({ id }) => id === 'A1.velocity')]
    const moves = r.times.findIndex((_, k) => speed[k] > 0)
    // 2 kN/s: 10 kN at 5 s
    expect(r.times[moves]).toBeGreaterThanOrEqual(5)
    expect(r.times[moves]).toBeLessThan(5.03)
    // at the end well above the Stribeck range: 10.4 kN less 8 kN
    expect(end(r, 'A1.velocity')).toBeGreaterThan(0.05)
  })
  it('is brought to rest by it: s = ½·a·t² + v²·m/(2·F_c), and stays there', () => {
    // 500 N against 200 N for 1 s: 3 m/s², 3 m/s, 1.5 m; then 2 m/s² for 1.5 s, 2.25 m
    const r = runSheet(
      open(
        { ...friction('200 N'), stroke: '5000 mm', start: '100 mm' },
        (ram) => [track(ram, 'force', [0, '-500 N'], [1, '0 N'])],
        6,
      ),
    )
    expect(end(r, 'A1.position')).toBeCloseTo(0.1 + 1.5 + 2.25, 3)
    expect(most(r, 'A1.velocity')).toBeCloseTo(3, 3)
    expect(end(r, 'A1.velocity')).toBe(0)
  })
  it('swings on a spring and loses 2·F_c/k of its amplitude each half swing, until it is held off the middle', () => {
    // middle at 1 m, amplitude 300 mm, F_c/k = 40 mm: 300, −220, 140, −60, then 2·40 > 60 + … held at −20 from the other side
    const r = runSheet(
      open(
        {
          ...friction('400 N'),
          springRate: '10 N/mm',
          loadForce: '-10 kN',
          start: '1300 mm',
        },
        () => [],
        6,
      ),
    )
    const position = r.columns[r.signals.findIndex(({ id }) => id === 'A1.position')]
    const turns = [...position].filter(
      (x, k, all) => k > 0 && k + 1 < all.length && (x - all[k - 1]) * (all[k + 1] - x) < 0,
    )
    expect(turns.length).toBeGreaterThanOrEqual(2)
    expect(Math.min(...position)).toBeCloseTo(1 - 0.22, 3)
    expect(Math.abs(end(r, 'A1.position') - 1)).toBeCloseTo(0.02, 3)
    expect(end(r, 'A1.velocity')).toBe(0)
  })
  it('swallows as much pressure as it holds: it starts at F_s/A and not before', () => {
    const sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '0 bar' }],
        ram: ['cylinder-double-acting', { bore: '100 mm', rod: '50 mm', ...friction('7 kN', '7.85398 kN') }],
        tank: ['reservoir'],
      },
      ['supply.P ram.A', 'ram.B tank.T'],
    )
    // 7.854 kN over 78.54 cm² are 10 bar, reached at 5 s
    const r = runSheet(
      timed(sheet, 5.5, [
        track(idOf(sheet, 'pressure-source'), 'pressure', [0, '0 bar'], [10, '20 bar', 'ramp']),
      ]),
    )
    const x = r.columns[r.signals.findIndex(({ id }) => id.endsWith('.position') && id.startsWith('A'))]
    const moves = r.times.findIndex((_, k) => x[k] > 1e-9)
    expect(r.times[moves]).toBeGreaterThanOrEqual(5)
    expect(r.times[moves]).toBeLessThan(5.05)
  })
})

describe('a shaft', () => {
  const motor = (parameters: Record<string, string>) =>
    circuit(
      {
        motor: ['hydraulic-motor', { inertia: '1 kg·m²', viscousFriction: '0 N·m', ...parameters }],
        a: ['reservoir'],
        b: ['reservoir'],
        case: ['reservoir'],
      },
      ['motor.A a.T', 'motor.B b.T', 'motor.L case.T'],
    )
  it('of a motor is held by 50 N·m under 45, and turns under 55 with 5 N·m left', () => {
    const held = runSheet(timed(motor({ coulombTorque: '50 N·m', loadTorque: '45 N·m' }), 60, []))
    expect(most(held, 'A1.angle') - least(held, 'A1.angle')).toBe(0)
    const turns = runSheet(timed(motor({ coulombTorque: '50 N·m', loadTorque: '55 N·m' }), 2, []))
    // backwards, ½·α·t², less what its oil takes
    expect(end(turns, 'A1.angle')).toBeCloseTo(-10, 0)
  })
  it('starts only where η·D·Δp/(2π) passes its load: its losses hold it at rest', () => {
    const sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '0 bar' }],
        motor: [
          'hydraulic-motor',
          { displacement: '100 cm³/rev', efficiency: '80 %', coulombTorque: '0 N·m', loadTorque: '100 N·m' },
        ],
        b: ['reservoir'],
        case: ['reservoir'],
      },
      ['supply.P motor.A', 'motor.B b.T', 'motor.L case.T'],
    )
    const ramp = track(idOf(sheet, 'pressure-source'), 'pressure', [0, '0 bar'], [10, '200 bar', 'ramp'])
    const r = runSheet(timed(sheet, 8, [ramp]))
    const speed = r.columns[r.signals.findIndex(({ id }) => id.endsWith('.speed') && id.startsWith('A'))]
    // from 0 bar on the load would drive it back, since nothing holds it: held only between η and 1/η of its torque
    const forward = r.times.find((_, k) => k > 0 && speed[k] > 0 && speed[k - 1] <= 0)!
    const start = (100 * 2 * Math.PI) / (0.8 * 100e-6) / 1e5
    expect(forward).toBeGreaterThanOrEqual(start / 20 - 0.01)
  })
  it('with a brake on it holds a hanging load below its torque, and lets it down with what is left above', () => {
    const winch = (torque: string) => {
      const sheet = circuit(
        {
          load: [
            'winch-load',
            {
              mass: '1 t',
              slope: '90 °',
              rolling: '0 N',
              radius: '100 mm',
              ratio: '1',
              gearEfficiency: '100 %',
              drumInertia: '0.001 kg·m²',
            },
          ],
          brake: ['brake', { torque }],
          tank: ['reservoir'],
        },
        ['brake.X tank.T', 'load.W brake.W'],
      )
      return runSheet(timed(sheet, 1, []))
    }
    // 980.665 N·m hang on it
    const held = winch('990 N·m')
    const id = held.signals.find((s) => s.id.endsWith('.hauled'))!.id
    expect(most(held, id) - least(held, id)).toBe(0)
    const slips = winch('880.665 N·m')
    // 100 N·m on 10 kg·m²: 10 rad/s², 1 m/s² at the rope
    expect(end(slips, id)).toBeCloseTo(-0.5, 2)
  })
})

it('starts from rest without moving what friction holds, and goes on so', () => {
  const sheet = open({ ...friction('1 kN'), loadForce: '0.9 kN' }, () => [], 5)
  const r = runSheet({
    ...sheet,
    schedules: sheet.schedules.map((s) => ({ ...s, start: 'steadyState' as const })),
  })
  expect([least(r, 'A1.position'), most(r, 'A1.position')]).toEqual([1, 1])
  expect(r.warnings).toEqual([])
})

describe('a spool', () => {
  /** A valve with lines at given pressures, and what works it. */
  const spool = (
    kind: string,
    parameters: Record<string, string>,
    input: 'pressure' | 'command',
    duration: number,
    ...points: [number, string, ('step' | 'ramp')?][]
  ) => {
    const piloted = input === 'pressure'
    const sheet = circuit(
      {
        valve: [kind, parameters],
        ...Object.fromEntries(['P', 'T', 'A', 'B'].map((port) => [port, ['reservoir']] as const)),
        ...(piloted ? { x: ['pressure-source'] as const, y: ['reservoir'] as const } : {}),
      },
      [
        ...['P', 'T', 'A', 'B'].map((port) => `${port}.T valve.${port}`),
        ...(piloted ? ['x.P valve.X', 'y.T valve.Y'] : []),
      ],
    )
    const of = piloted ? 'pressure-source' : kind
    const r = runSheet(timed(sheet, duration, [track(idOf(sheet, of), input, ...points)]))
    return { r, id: `${idOf(sheet, kind)}.spool` }
  }
  const pilot = { actuation: 'pilot', shiftPressure: '5 bar', spoolFriction: '0.5 bar' }

  it('that oil works follows its pilot pressure at the distance of its friction, and stays where that turns back', () => {
    // 5 bar shift it fully, 0.5 bar hold it: y = (p − 0.5 bar)/5 bar on the way up, (p + 0.5 bar)/5 bar on the way down
    const { r, id } = spool(
      'directional-valve-4-3',
      pilot,
      'pressure',
      6,
      [0, '0 bar'],
      [2, '4 bar', 'ramp'],
      [2.9, '3.1 bar', 'ramp'],
      [4, '2 bar', 'ramp'],
      [5, '0 bar', 'ramp'],
    )
    expect(at(r, id, 2)).toBeCloseTo(0.7, 2)
    expect(at(r, id, 2.85)).toBe(at(r, id, 2.1))
    expect(at(r, id, 4)).toBeCloseTo(0.5, 2)
    expect(end(r, id)).toBeCloseTo(0.1, 3)
  })
  it('does not creep under a pilot pressure that its friction holds, however long', () => {
    const { r, id } = spool('directional-valve-4-3', pilot, 'pressure', 60, [0, '0.49 bar'])
    expect([least(r, id), most(r, id)]).toEqual([0, 0])
    const shifted = (pressure: string) => {
      const { r, id } = spool('directional-valve-4-3', pilot, 'pressure', 1, [0, pressure])
      return end(r, id)
    }
    // and is there in full from the shift pressure with the friction on
    expect(shifted('5.51 bar')).toBeCloseTo(1, 9)
    expect(shifted('5.3 bar')).toBeCloseTo(0.96, 6)
  })
  it('between a solenoid and a spring has the hysteresis that is asked for', () => {
    const { r, id } = spool(
      'proportional-valve',
      { hysteresis: '4 %' },
      'command',
      3,
      [0, '0'],
      [1, '0.5', 'ramp'],
      [2, '0.3', 'ramp'],
      [3, '0.6', 'ramp'],
    )
    // 2 % behind the command, either way
    expect(at(r, id, 1)).toBeCloseTo(0.48, 2)
    expect(at(r, id, 2)).toBeCloseTo(0.32, 2)
    expect(end(r, id)).toBeCloseTo(0.58, 2)
    expect(at(r, id, 1.15)).toBe(at(r, id, 1.05))
  })
  it('of a pilot stage returns by its spring as far as friction lets it', () => {
    const sheet = circuit(
      {
        valve: [
          'directional-valve-4-3',
          { actuation: 'solenoidPilot', shiftPressure: '5 bar', spoolFriction: '0.5 bar' },
        ],
        P: ['pressure-source', { pressure: '5.2 bar' }],
        ...Object.fromEntries(['T', 'A', 'B'].map((port) => [port, ['reservoir']] as const)),
      },
      ['P.P valve.P', ...['T', 'A', 'B'].map((port) => `${port}.T valve.${port}`)],
    )
    const id = idOf(sheet, 'directional-valve-4-3')
    const r = runSheet(timed(sheet, 2, [track(id, 'command', [0, '1'], [1, '0'])]))
    // (5.2 − 0.5)/5 out, 0.5/5 on the way back; and it says that it is not there
    expect(at(r, `${id}.spool`, 0.95)).toBeCloseTo(0.94, 6)
    expect(end(r, `${id}.spool`)).toBeCloseTo(0.1, 6)
    expect(r.conditions.map((c) => c.name)).toContain('lowPilot')
  })
})
