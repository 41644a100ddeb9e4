/** Rules about loads, motions and what surrounds them: each finds what it is for, and nothing in the circuit that is put right. */
import { describe, expect, it } from 'vitest'
import { at, circuit, messages, runSheet, timed } from '../testing'
import type { Sheet } from '../sheet/schema'

type Parts = Parameters<typeof circuit>[0]
const unit = {
  tank: ['reservoir'],
  motor: ['electric-motor'],
  pump: ['fixed-pump', { displacement: '16 cm³/rev' }],
  relief: ['relief-valve-direct', { setting: '160 bar' }],
  back: ['reservoir'],
} satisfies Parts
const unitPipes = ['tank.T pump.S', 'motor.W pump.W', 'pump.P relief.P', 'relief.T back.T']
const of = (rule: string, sheet: Sheet) => messages(sheet).filter((m) => m.startsWith(`warning ${rule}:`))

/** A power unit, a valve that moves a ram, and more. */
const driven = (
  ram: Record<string, string>,
  more: Parts = {},
  pipes: string[] = ['valve.A ram.A', 'valve.B ram.B'],
  valve: Record<string, string> = {},
) =>
  circuit(
    {
      ...unit,
      valve: ['directional-valve-4-3', valve],
      home: ['reservoir'],
      ram: ['cylinder-double-acting', ram],
      ...more,
    },
    [...unitPipes, 'pump.P valve.P', 'valve.T home.T', ...pipes],
  )
const hanging = { bore: '63 mm', rod: '45 mm', stroke: '300 mm', mass: '2 t', angle: '90 °' }

describe('rules about relief valves', () => {
  const behind = (how: string) =>
    circuit({ ...unit, cock: ['ball-valve'], check: ['check-valve'], plug: ['plug'] }, [
      ...unitPipes.slice(0, 2),
      'relief.T back.T',
      ...(how === 'valve'
        ? ['pump.P cock.A', 'cock.B relief.P', 'check.A pump.P', 'check.B plug.A']
        : ['pump.P check.B', 'check.A relief.P', 'cock.A pump.P', 'cock.B plug.A']),
    ])
  it('name what can shut one off', () => {
    expect(of('relief-shut-off', behind('valve'))).toEqual([
      expect.stringMatching(/1-1V2 can shut 1-1V1 off/),
    ])
    expect(of('relief-shut-off', behind('check'))).toEqual([
      expect.stringMatching(/1-1V3 can shut 1-1V1 off/),
    ])
    expect(of('relief-shut-off', circuit(unit, unitPipes))).toEqual([])
  })
  it('look at both settings of cross-port relief valves', () => {
    const crossed = (setting: string, back: string) =>
      driven(
        { stroke: '300 mm' },
        { cross: ['cross-port-relief', { setting, back, makeUp: false }], end: ['plug'] },
        ['valve.A ram.A', 'valve.B ram.B', 'ram.A cross.A', 'ram.B cross.B', 'cross.C end.A'],
      )
    expect(of('relief-order', crossed('190 bar', '120 bar'))).toEqual([
      expect.stringMatching(/begins to open at 102 bar/),
    ])
    expect(of('relief-order', crossed('190 bar', '190 bar'))).toEqual([])
  })
  it('ask for a port relief above that of the pump', () => {
    const guarded = (setting: string) =>
      driven({ stroke: '300 mm' }, { guard: ['relief-valve-direct', { setting }], end: ['reservoir'] }, [
        'valve.A ram.A',
        'valve.B ram.B',
        'ram.A guard.P',
        'guard.T end.T',
      ])
    expect(of('relief-order', guarded('140 bar'))).toEqual([
      expect.stringMatching(/begins to open at 112 bar, .*160 bar/),
    ])
    // its name is higher, and it opens before the other all the same
    expect(of('relief-order', guarded('190 bar'))).toEqual([expect.stringMatching(/at 152 bar/)])
    expect(of('relief-order', guarded('205 bar'))).toEqual([])
  })
})

describe('rules about what comes in and goes out', () => {
  it('find a chamber whose oil is caught behind a check', () => {
    const caught = (way: string[]) =>
      circuit(
        {
          ...unit,
          valve: ['directional-valve-3-2'],
          home: ['reservoir'],
          check: ['check-valve'],
          jet: ['orifice'],
          ram: ['cylinder-plunger', { mass: '500 kg', angle: '90 °' }],
        },
        [...unitPipes, 'pump.P valve.P', 'valve.T home.T', 'valve.A check.A', 'check.B ram.A', ...way],
      )
    expect(of('no-way-out', caught(['jet.A check.A', 'jet.B pump.P']))).toEqual([
      expect.stringMatching(/never out again/),
    ])
    expect(of('no-way-out', caught(['jet.A check.A', 'jet.B check.B']))).toEqual([])
  })
  it('miss the line that would drive a motion', () => {
    const cut = circuit(
      {
        ...unit,
        valve: ['directional-valve-4-3'],
        home: ['reservoir'],
        gauge: ['pressure-gauge'],
        ram: ['cylinder-double-acting'],
      },
      [...unitPipes, 'gauge.P valve.P', 'valve.T home.T', 'valve.A ram.A', 'valve.B ram.B'],
    )
    expect(of('nothing-drives', cut)).toEqual([
      expect.stringMatching(/pressure on A of 1-1A1/),
      expect.stringMatching(/pressure on B of 1-1A1/),
    ])
    expect(of('nothing-drives', driven({ stroke: '300 mm' }))).toEqual([])
  })
  it('find a filter without bypass and a throttle in a suction line, and let others be', () => {
    const suction = (kind: string, parameters: Record<string, string | boolean> = {}) =>
      of(
        'suction-restricted',
        circuit({ ...unit, part: [kind, parameters] }, [
          'tank.T part.A',
          'part.B pump.S',
          ...unitPipes.slice(1),
        ]),
      )
    expect(suction('filter', { bypass: false })).toEqual([expect.stringMatching(/without a bypass/)])
    expect(suction('filter', { bypass: true })).toEqual([])
    expect(suction('needle-valve')).toEqual([expect.stringMatching(/throttles the suction line/)])
    expect(suction('ball-valve')).toEqual([])
  })
  it('tell what a part that is too small for its flow takes', () => {
    const small = (ratedFlow: string) => driven({ stroke: '300 mm' }, {}, undefined, { ratedFlow })
    // 16 cm³ at 1500 rpm are 24 L/min; out of the cap side as much more as the areas say
    expect(of('beyond-rated-flow', small('10 L/min'))).toEqual([expect.stringMatching(/rated for 10 L\/min/)])
    expect(of('beyond-rated-flow', small('40 L/min'))).toEqual([])
  })
})

describe('rules about loads', () => {
  it('want what holds back a load that helps', () => {
    expect(of('load-runs-away', driven(hanging))).toEqual([expect.stringMatching(/at A: it runs away/)])
    const held: Parts = { hold: ['counterbalance-valve', { setting: '90 bar' }] }
    const pipes = ['valve.A hold.2', 'hold.1 ram.A', 'valve.B ram.B', 'hold.X ram.B']
    expect(of('load-runs-away', driven(hanging, held, pipes))).toEqual([])
    expect(of('load-runs-away', driven({ ...hanging, angle: '0 °' }))).toEqual([])
    // metered in only: the throttle stands in the way in, its check lets all out
    const meteredIn: Parts = { throttle: ['throttle-check'] }
    expect(
      of(
        'load-runs-away',
        driven(hanging, meteredIn, ['throttle.A ram.A', 'valve.A throttle.B', 'valve.B ram.B']),
      ),
    ).toHaveLength(1)
    expect(
      of(
        'load-runs-away',
        driven(hanging, meteredIn, ['valve.A throttle.A', 'throttle.B ram.A', 'valve.B ram.B']),
      ),
    ).toEqual([])
  })
  it('compare a holding valve with its load', () => {
    // 2 t on 63 mm: 19.6 kN on 31.2 cm² are 62.9 bar
    const set = (setting: string) =>
      of(
        'holds-too-little',
        driven(hanging, { hold: ['counterbalance-valve', { setting }] }, [
          'valve.A hold.2',
          'hold.1 ram.A',
          'valve.B ram.B',
          'hold.X ram.B',
        ]),
      )
    expect(set('50 bar')).toEqual([expect.stringMatching(/makes 62\.9. bar and opens .* it sinks/)])
    expect(set('70 bar')).toEqual([expect.stringMatching(/1\.11 times/)])
    expect(set('82 bar')).toEqual([])
  })
  /** A hanging ram with a valve that holds it, and how its ports are led. */
  const holding = (hold: Parts[string], pipes: string[], more: Parts = {}) =>
    driven(
      { ...hanging, start: '250 mm', viscousFriction: '40 kN·s/m' },
      { hold, ...more },
      ['valve.B ram.B', ...pipes],
      {
        centre: 'float',
      },
    )
  const counterbalance: Parts[string] = ['counterbalance-valve', { setting: '90 bar' }]
  const seat: Parts[string] = ['pilot-operated-check']
  it('find a holding valve that its own load opens, or the pump', () => {
    for (const [kind, ports] of [
      [counterbalance, ['valve.A hold.2', 'hold.1 ram.A']],
      [seat, ['valve.A hold.A', 'hold.B ram.A']],
    ] as const) {
      const led = (pilot: string) => holding(kind, [...ports, `hold.X ${pilot}`])
      const sinks = (sheet: Sheet) => {
        const r = runSheet(timed(sheet, 3, []))
        return at(r, 'A1.position', 3) < at(r, 'A1.position', 1) - 0.005
      }
      expect(of('held-open', led('ram.B'))).toEqual([])
      expect(sinks(led('ram.B'))).toBe(false)
      expect(of('held-open', led('ram.A'))).toEqual([
        expect.stringMatching(/piloted from the line that it holds: the load of 1-1A1 opens it, and sinks/),
      ])
      expect(sinks(led('ram.A'))).toBe(true)
      expect(of('held-open', led('pump.P'))).toEqual([
        expect.stringMatching(/piloted from the line of 1-1P1, before any valve/),
      ])
      expect(sinks(led('pump.P'))).toBe(true)
    }
    const compensated: Parts = {
      pump: ['pressure-compensated-pump', { compensator: '120 bar', caseDrain: 'internal' }],
    }
    const byPump = ['valve.A hold.2', 'hold.1 ram.A', 'hold.X pump.P']
    expect(of('held-open', holding(counterbalance, byPump, compensated))).toEqual([
      expect.stringMatching(/piloted from the line of 1-1P1/),
    ])
    // 63 bar and three times that are below 300 bar: its load does not open it
    const stiff: Parts[string] = ['counterbalance-valve', { setting: '300 bar' }]
    expect(of('held-open', holding(stiff, ['valve.A hold.2', 'hold.1 ram.A', 'hold.X ram.A']))).toEqual([
      expect.stringMatching(
        /piloted from the line that it holds: oil at the other side of 1-1A1 does not open it/,
      ),
    ])
  })
  it('find the same at the rod side of a load that pulls, and in a pair of piloted checks', () => {
    const pulls = { ...hanging, mass: '1 t', angle: '-90 °' }
    const led = (pilot: string) =>
      driven(pulls, { hold: counterbalance }, [
        'valve.A ram.A',
        'valve.B hold.2',
        'hold.1 ram.B',
        `hold.X ${pilot}`,
      ])
    expect(of('held-open', led('ram.A'))).toEqual([])
    expect(of('held-open', led('ram.B'))).toHaveLength(1)
    const turned = ['valve.A ram.A', 'valve.B hold.1', 'hold.2 ram.B', 'hold.X ram.A']
    expect(of('holds-backwards', driven(pulls, { hold: counterbalance }, turned))).toHaveLength(1)
    const pair = (near: string, far: string) =>
      driven(hanging, { hold: ['double-pilot-check'] }, [
        `valve.A hold.A${near}`,
        `valve.B hold.B${near}`,
        `hold.A${far} ram.A`,
        `hold.B${far} ram.B`,
      ])
    expect([...of('held-open', pair('', '1')), ...of('holds-backwards', pair('', '1'))]).toEqual([])
    expect(of('holds-backwards', pair('1', ''))).toEqual([
      expect.stringMatching(/has the load of 1-1A1 at A: it holds at A1/),
    ])
  })
  it('find it at a motor as well, whose load hangs on a shaft', () => {
    const winch = (pilot: string) =>
      circuit(
        {
          ...unit,
          valve: ['directional-valve-4-3', { centre: 'float' }],
          home: ['reservoir'],
          drain: ['reservoir'],
          motor2: ['hydraulic-motor'],
          drum: ['winch-load', { slope: '90 °', mass: '1 t' }],
          hold: ['counterbalance-valve', { setting: '150 bar' }],
        },
        [
          ...unitPipes,
          'pump.P valve.P',
          'valve.T home.T',
          'valve.A hold.2',
          'hold.1 motor2.A',
          'valve.B motor2.B',
          'motor2.W drum.W',
          'motor2.L drain.T',
          `hold.X ${pilot}`,
        ],
      )
    const speed = (sheet: Sheet) => at(runSheet(timed(sheet, 3, [])), 'speed(A1.W)', 3)
    expect(of('held-open', winch('motor2.B'))).toEqual([])
    expect(of('held-open', winch('motor2.A'))).toEqual([
      expect.stringMatching(/the load of the actuator opens it/),
    ])
    expect(of('held-open', winch('pump.P'))).toHaveLength(1)
    // what leaks past the motor lets it creep; what nothing holds runs
    expect(Math.abs(speed(winch('motor2.B')))).toBeLessThan(3)
    expect(Math.abs(speed(winch('motor2.A')))).toBeGreaterThan(50)
  })
  it('find a holding valve that stands the wrong way round, and not one beside another', () => {
    expect(
      of('holds-backwards', holding(counterbalance, ['valve.A hold.1', 'hold.2 ram.A', 'hold.X ram.B'])),
    ).toEqual([expect.stringMatching(/has the load of 1-1A1 at 2: it holds at 1/)])
    expect(of('holds-backwards', holding(seat, ['valve.A hold.B', 'hold.A ram.A', 'hold.X ram.B']))).toEqual([
      expect.stringMatching(/has the load of 1-1A1 at A: it holds at B/),
    ])
    const right = ['valve.A hold.2', 'hold.1 ram.A', 'hold.X ram.B']
    expect(of('holds-backwards', holding(counterbalance, right))).toEqual([])
    const two: Parts = { other: counterbalance, second: ['cylinder-double-acting', hanging] }
    const beside = ['valve.A other.2', 'other.1 second.A', 'other.X second.B', 'valve.B second.B']
    expect(of('holds-backwards', holding(counterbalance, [...right, ...beside], two))).toEqual([])
  })
  it('compare a pilot ratio with the areas and the load', () => {
    const piloted = (pilotRatio: string) =>
      of(
        'pilot-too-weak',
        driven(
          { ...hanging, bore: '63 mm', rod: '28 mm' },
          { check: ['pilot-operated-check', { pilotRatio }] },
          ['valve.B check.A', 'check.B ram.B', 'valve.A ram.A', 'check.X ram.A', 'check.Y back.T'],
        ),
      )
    // it pulls on nothing at B: no finding
    expect(piloted('3')).toEqual([])
    const pulling = (pilotRatio: string, mass: string) =>
      of(
        'pilot-too-weak',
        driven(
          { bore: '63 mm', rod: '45 mm', stroke: '300 mm', mass, angle: '-90 °' },
          { check: ['pilot-operated-check', { pilotRatio }] },
          ['valve.B check.A', 'check.B ram.B', 'valve.A ram.A', 'check.X ram.A'],
        ),
      )
    // areas 31.2 and 15.3 cm²: what opens it also raises what it holds, 2.04 times
    expect(pulling('2', '1 t')).toEqual([expect.stringMatching(/not above the ratio of areas .*2\.04/)])
    expect(pulling('2.2', '1 t')).toEqual([expect.stringMatching(/needs a pilot of/)])
    expect(pulling('4', '1 t')).toEqual([])
  })
  it('ask for a second valve where people may be under the load', () => {
    const marked = (sheet: Sheet): Sheet => ({
      ...sheet,
      components: sheet.components.map((c) =>
        c.kind === 'cylinder-double-acting' ? { ...c, peopleUnder: true } : c,
      ),
    })
    const held: Parts = { hold: ['counterbalance-valve'], second: ['pilot-operated-check'] }
    const one = driven(hanging, { hold: held.hold }, [
      'valve.A hold.2',
      'hold.1 ram.A',
      'valve.B ram.B',
      'hold.X ram.B',
    ])
    const two = driven(hanging, held, [
      'valve.A hold.2',
      'hold.1 second.A',
      'second.B ram.A',
      'valve.B ram.B',
      'hold.X ram.B',
      'second.X ram.B',
    ])
    expect(of('single-holding-valve', one)).toEqual([])
    expect(of('single-holding-valve', marked(one))).toEqual([expect.stringMatching(/a single valve/)])
    expect(of('single-holding-valve', marked(driven(hanging)))).toEqual([
      expect.stringMatching(/no valve made/),
    ])
    expect(of('single-holding-valve', marked(two))).toEqual([])
    // a lock on the rod holds without oil
    const locked = driven(hanging, { hold: ['pilot-operated-check'], lock: ['load-lock'] }, [
      'valve.A hold.A',
      'hold.B ram.A',
      'valve.B ram.B',
      'hold.X ram.B',
      'lock.R ram.R',
    ])
    expect(of('single-holding-valve', marked(locked))).toEqual([])
  })
  it('count the back pressure behind a counterbalance valve that is not vented', () => {
    const back = (vented: boolean) =>
      of(
        'counterbalance-back-pressure',
        driven(
          hanging,
          { hold: ['counterbalance-valve', { setting: '90 bar', vented }], jet: ['needle-valve'] },
          ['valve.A jet.A', 'jet.B hold.2', 'hold.1 ram.A', 'valve.B ram.B', 'hold.X ram.B'],
        ),
      )
    expect(back(false)).toEqual([expect.stringMatching(/counts 4 times/)])
    expect(back(true)).toEqual([])
  })
  it('see the pressure that metering out makes at the rod side', () => {
    const metered = (ratedPressure: string) =>
      of(
        'intensified',
        driven(
          { bore: '63 mm', rod: '45 mm', stroke: '300 mm', ratedPressure },
          { throttle: ['throttle-check', { maxPressure: '400 bar' }] },
          ['valve.A ram.A', 'valve.B throttle.A', 'throttle.B ram.B'],
        ),
      )
    // 160 bar · 31.2/15.3 = 327 bar
    expect(metered('250 bar')).toEqual([expect.stringMatching(/326\.7 bar|327 bar/)])
    expect(metered('350 bar')).toEqual([])
  })
  it('see a rod that buckles', () => {
    const pressed = (rod: string) => of('buckling', driven({ bore: '63 mm', rod, stroke: '1500 mm' }))
    expect(pressed('28 mm')).toEqual([expect.stringMatching(/times safety against buckling/)])
    expect(pressed('56 mm')).toEqual([])
  })
  it('compare a sequence valve with what the first motion needs', () => {
    const second: Parts = {
      sequence: ['sequence-valve', { setting: '60 bar' }],
      other: ['cylinder-double-acting', { stroke: '300 mm' }],
    }
    const pipes = [
      'valve.A ram.A',
      'ram.A sequence.A',
      'sequence.B other.A',
      'valve.B ram.B',
      'ram.B other.B',
      'sequence.Y back.T',
    ]
    expect(of('opens-too-low', driven(hanging, second, pipes))).toEqual([
      expect.stringMatching(/opens at 60 bar, before 1-1A1 moves: that needs 6\d\.\d+ bar at A/),
    ])
    // a ton in steady motion needs less, but starting it takes more
    expect(of('opens-too-low', driven({ ...hanging, mass: '1 t' }, second, pipes))).toEqual([
      expect.stringMatching(/starting it may take up to 1\d\d\.\d bar/),
    ])
    expect(of('opens-too-low', driven({ ...hanging, mass: '100 kg' }, second, pipes))).toEqual([])
  })
})

describe('rules about what turns', () => {
  const turning = (centre: string, more: Parts = {}, pipes: string[] = []) =>
    circuit(
      {
        ...unit,
        valve: ['directional-valve-4-3', { centre }],
        home: ['reservoir'],
        hydraulic: ['hydraulic-motor'],
        wheel: ['rotating-load'],
        ...more,
      },
      [
        ...unitPipes,
        'pump.P valve.P',
        'valve.T home.T',
        'valve.A hydraulic.A',
        'valve.B hydraulic.B',
        'hydraulic.L back.T',
        'hydraulic.W wheel.W',
        ...pipes,
      ],
    )
  it('want relief and oil for a motor that is shut in', () => {
    expect(of('motor-without-relief', turning('closed'))).toHaveLength(1)
    expect(of('motor-runs-empty', turning('closed'))).toHaveLength(1)
    const guarded = turning('closed', { guard: ['cross-port-relief'] }, [
      'hydraulic.A guard.A',
      'hydraulic.B guard.B',
      'guard.C back.T',
    ])
    expect(of('motor-without-relief', guarded)).toEqual([])
    expect(of('motor-runs-empty', guarded)).toEqual([])
    expect(of('motor-without-relief', turning('float'))).toEqual([])
  })
  it('want charge and relief on both sides of a closed circuit', () => {
    const loop = (pipes: string[]) =>
      circuit(
        {
          ...unit,
          drive: ['electric-motor'],
          main: ['over-centre-pump'],
          hydraulic: ['hydraulic-motor'],
          wheel: ['rotating-load'],
          one: ['check-valve'],
          two: ['check-valve'],
          cross: ['cross-port-relief', { makeUp: false }],
          plug: ['plug'],
        },
        [
          ...unitPipes,
          'drive.W main.W',
          'main.L back.T',
          'main.A hydraulic.A',
          'main.B hydraulic.B',
          'hydraulic.L back.T',
          'hydraulic.W wheel.W',
          'cross.C plug.A',
          'pump.P one.A',
          'pump.P two.A',
          ...pipes,
        ],
      )
    const whole = loop(['one.B main.A', 'two.B main.B', 'cross.A main.A', 'cross.B main.B'])
    expect(of('loop-without-charge', whole)).toEqual([])
    expect(of('loop-without-relief', whole)).toEqual([])
    const lame = loop(['one.B main.A'])
    expect(of('loop-without-charge', lame)).toEqual([expect.stringMatching(/one side only: nothing fills B/)])
    expect(of('loop-without-relief', lame)).toEqual([expect.stringMatching(/has no relief valve/)])
  })
})

describe('rules while drawing', () => {
  it('say nothing yet of a part that is joined to nothing but that it is open', () => {
    const sheet = circuit(
      { ram: ['cylinder-double-acting'], hydraulic: ['hydraulic-motor'], main: ['over-centre-pump'] },
      [],
    )
    expect(new Set(messages(sheet).map((m) => m.split(':')[0]))).toEqual(new Set(['error open-port']))
  })
})

describe('the rule about units', () => {
  it('asks where another unit would make a value usual, and offers it', () => {
    const set = (setting: string) =>
      of('unit-slip', circuit({ ...unit, relief: ['relief-valve-direct', { setting }] }, unitPipes))
    expect(set('160 psi')).toEqual([expect.stringMatching(/is 160 psi: was 160 bar meant/)])
    expect(set('2300 psi')).toEqual([])
    expect(set('16 bar')).toEqual([])
    const bore = circuit(unit, unitPipes)
    const wide: Sheet = {
      ...bore,
      pipes: bore.pipes.map((p, i) => (i === 0 ? { ...p, length: '1 mm' } : p)),
    }
    expect(of('unit-slip', wide)).toEqual([expect.stringMatching(/is 1 mm: was 1 m meant/)])
  })
})
