/** Rules about what suits a pump, what can never work, dirt, ratings and slips: each finds what it is for, and nothing in what is put right. */
import { describe, expect, it } from 'vitest'
import { addComponent, changePipe, setParameter } from '../sheet/edit'
import { polyline } from '../sheet/geometry'
import type { Sheet } from '../sheet/schema'
import { circuit, idOf, messages } from '../testing'

type Parts = Parameters<typeof circuit>[0]
const of = (rule: string, sheet: Sheet) => messages(sheet).filter((m) => m.includes(`${rule}:`))

/** A lever bank of one section behind a pump, its outlet set up in one way. */
const bank = (
  pump: Parts[string],
  setup: string,
  more: Parts = {},
  pipes: string[] = [],
  relief = '200 bar',
) =>
  circuit(
    {
      tank: ['reservoir'],
      motor: ['electric-motor'],
      pump,
      relief: ['relief-valve-pilot-operated', { setting: relief }],
      back: ['reservoir'],
      section: ['valve-section', { reliefA: '260 bar', reliefB: '260 bar' }],
      outlet: ['bank-outlet', { setup }],
      home: ['reservoir'],
      ram: ['cylinder-double-acting'],
      ...more,
    },
    [
      'tank.T pump.S',
      'motor.W pump.W',
      'pump.P relief.P',
      'relief.T back.T',
      'pump.P section.P',
      'section.N pump.P',
      'section.M outlet.N',
      'outlet.T home.T',
      'section.T home.T',
      'section.A ram.A',
      'section.B ram.B',
      ...pipes,
    ],
  )
const fixed: Parts[string] = ['fixed-pump', { displacement: '28 cm³/rev' }]
const compensated: Parts[string] = [
  'pressure-compensated-pump',
  { displacement: '28 cm³/rev', compensator: '160 bar', caseDrain: 'internal' },
]

describe('rules about centres and pumps', () => {
  it('find a closed centre on a fixed pump, with the heat it makes', () => {
    expect(of('no-way-to-unload', bank(fixed, 'closedCentre'))).toEqual([expect.stringMatching(/14 kW/)])
    expect(of('no-way-to-unload', bank(fixed, 'openCentre'))).toEqual([])
  })
  it('find an open centre on a pump that takes its stroke back', () => {
    expect(of('centre-suits-pump', bank(compensated, 'openCentre'))).toEqual([
      expect.stringMatching(/never takes its stroke back, and 42 L\/min go round/),
    ])
    expect(of('centre-suits-pump', bank(compensated, 'closedCentre'))).toEqual([])
  })
  it('find a second bank at a carry-over port that is out of use', () => {
    const second: Parts = { more: ['plug'] }
    expect(of('idle-port', bank(fixed, 'openCentre', second, ['outlet.C more.A']))).toEqual([
      expect.stringMatching(/Port C of .* is out of use/),
    ])
    expect(of('idle-port', bank(fixed, 'carryOver', second, ['outlet.C more.A']))).toEqual([])
  })
  it('find a relief valve that opens below the compensator', () => {
    const relief = (setting: string) => bank(compensated, 'closedCentre', {}, [], setting)
    expect(of('relief-below-compensator', relief('165 bar'))).toEqual([
      expect.stringMatching(/at 155\.1 bar, below the compensator .* 160 bar: up to 12 kW/),
    ])
    expect(of('relief-below-compensator', relief('185 bar'))).toEqual([])
  })
  it('judge a given supply as they judge a pump', () => {
    const supplied = (pump: string, centre: string) =>
      circuit(
        {
          supply: ['foreign-supply', { pump }],
          valve: ['directional-valve-4-3', { centre }],
          ram: ['cylinder-double-acting'],
        },
        ['supply.P valve.P', 'valve.T supply.T', 'valve.A ram.A', 'valve.B ram.B'],
      )
    expect(of('centre-suits-pump', supplied('fixed', 'closed'))).toEqual([
      expect.stringMatching(/over its relief/),
    ])
    expect(of('centre-suits-pump', supplied('fixed', 'tandem'))).toEqual([])
    expect(of('centre-suits-pump', supplied('compensated', 'tandem'))).toEqual([
      expect.stringMatching(/go round/),
    ])
    expect(of('centre-suits-pump', supplied('loadSensing', 'closed'))).toEqual([
      expect.stringMatching(/No load signal reaches/),
    ])
  })
})

const unit: Parts = {
  tank: ['reservoir'],
  motor: ['electric-motor'],
  pump: ['fixed-pump', { displacement: '16 cm³/rev' }],
  relief: ['relief-valve-direct', { setting: '160 bar' }],
  back: ['reservoir'],
}
const unitPipes = ['tank.T pump.S', 'motor.W pump.W', 'pump.P relief.P', 'relief.T back.T']

describe('rules about what can never work', () => {
  it('find an accumulator behind a check the wrong way round', () => {
    const stored = (a: string, b: string) =>
      circuit({ ...unit, check: ['check-valve'], store: ['accumulator-gas'] }, [
        ...unitPipes,
        `pump.P check.${a}`,
        `check.${b} store.P`,
      ])
    expect(of('never-fills', stored('A', 'B'))).toEqual([])
    expect(of('never-fills', stored('B', 'A'))).toEqual([expect.stringMatching(/never fills/)])
  })
  it('find a hand pump on a closed centre without a relief valve', () => {
    const pumped = (relief: boolean) =>
      circuit(
        {
          tank: ['reservoir'],
          pump: ['hand-pump'],
          valve: ['directional-valve-4-3', { actuation: 'lever' }],
          home: ['reservoir'],
          ram: ['cylinder-double-acting'],
          ...(relief ? { relief: ['relief-valve-direct'], back: ['reservoir'] } : {}),
        } as Parts,
        [
          'tank.T pump.S',
          'pump.P valve.P',
          'valve.T home.T',
          'valve.A ram.A',
          'valve.B ram.B',
          ...(relief ? ['pump.P relief.P', 'relief.T back.T'] : []),
        ],
      )
    expect(of('pump-without-relief', pumped(false))).toHaveLength(1)
    expect(of('pump-without-relief', pumped(true))).toEqual([])
  })
  it('find a sequence valve that starting pressure opens, though steady motion would not', () => {
    const sequenced = (setting: string) => {
      const sheet = circuit(
        {
          ...unit,
          first: [
            'cylinder-double-acting',
            { bore: '63 mm', rod: '36 mm', mass: '300 kg', loadForce: '2 kN' },
          ],
          second: ['cylinder-double-acting', { bore: '63 mm', rod: '36 mm' }],
          sequence: ['sequence-valve', { setting, drain: 'internal', pilot: 'internal' }],
          a: ['reservoir'],
          b: ['reservoir'],
        },
        [
          ...unitPipes,
          'pump.P first.A',
          'pump.P sequence.A',
          'sequence.B second.A',
          'first.B a.T',
          'second.B b.T',
        ],
      )
      return of('opens-too-low', sheet)
    }
    expect(sequenced('5 bar')).toEqual([expect.stringMatching(/before .* moves/)])
    expect(sequenced('20 bar')).toEqual([expect.stringMatching(/starting it may take up to/)])
    expect(sequenced('150 bar')).toEqual([])
  })
})

describe('rules about loops', () => {
  const loop = (displacement: string, setting: string) =>
    circuit(
      {
        drive: ['electric-motor'],
        pump: ['over-centre-pump', { displacement: '45 cm³/rev', flushed: false }],
        motor: ['hydraulic-motor'],
        chargeDrive: ['electric-motor'],
        charge: ['fixed-pump', { displacement }],
        limit: ['relief-valve-direct', { setting }],
        intoA: ['check-valve'],
        intoB: ['check-valve'],
        tank: ['reservoir'],
        back: ['reservoir'],
        case: ['reservoir'],
        second: ['reservoir'],
        load: ['rotating-load'],
      },
      [
        'drive.W pump.W',
        'pump.A motor.A',
        'pump.B motor.B',
        'motor.W load.W',
        'chargeDrive.W charge.W',
        'tank.T charge.S',
        'charge.P limit.P',
        'limit.T back.T',
        'charge.P intoA.A',
        'intoA.B pump.A',
        'charge.P intoB.A',
        'intoB.B pump.B',
        'pump.L case.T',
        'motor.L second.T',
      ],
    )
  it('find a charge pressure that is too low or too high, and a charge pump that is too small', () => {
    expect(of('charge-of-loop', loop('8 cm³/rev', '22 bar'))).toEqual([])
    expect(of('charge-of-loop', loop('8 cm³/rev', '5 bar'))).toEqual([
      expect.stringMatching(/5 bar; 15 to 30/),
    ])
    expect(of('charge-of-loop', loop('8 cm³/rev', '120 bar'))).toEqual([expect.stringMatching(/120 bar/)])
    expect(of('charge-of-loop', loop('2 cm³/rev', '22 bar'))).toEqual([expect.stringMatching(/gives 4 %/)])
  })
})

describe('a load on a spool', () => {
  const hung = (leakage: string, held: boolean) =>
    circuit(
      {
        ...unit,
        valve: ['directional-valve-4-3', { leakage }],
        home: ['reservoir'],
        ram: ['cylinder-double-acting', { mass: '1 t', angle: '90 °' }],
        ...(held ? { check: ['pilot-operated-check', { pilotRatio: '5' }] } : {}),
      } as Parts,
      [
        ...unitPipes,
        'pump.P valve.P',
        'valve.T home.T',
        ...(held
          ? ['valve.A check.A', 'check.B ram.A', 'check.X ram.B', 'valve.B ram.B']
          : ['valve.A ram.A', 'valve.B ram.B']),
      ],
    )
  it('sinks by its leakage, unless a seat holds it', () => {
    expect(of('load-sinks', hung('0.05 L/min', false))).toEqual([expect.stringMatching(/in a minute/)])
    expect(of('load-sinks', hung('0 L/min', false))).toEqual([])
    expect(of('load-sinks', hung('0.05 L/min', true))).toEqual([])
  })
})

describe('rules about dirt and ratings', () => {
  const machine = (more: Parts, pipes: string[] = []) =>
    circuit({ ...unit, ram: ['cylinder-double-acting'], plug: ['plug'], ...more }, [
      ...unitPipes,
      'pump.P ram.A',
      'ram.B plug.A',
      ...pipes,
    ])
  it('ask for a filter and a breather', () => {
    expect(of('contamination', machine({}))).toEqual([expect.stringMatching(/no filter and no breather/)])
    expect(of('contamination', machine({ air: ['breather'] }))).toEqual([
      expect.stringMatching(/has no filter:/),
    ])
    const both = machine({ air: ['breather'], clean: ['filter'], more: ['reservoir'] }, [
      'pump.P clean.A',
      'clean.B more.T',
    ])
    expect(of('contamination', both)).toEqual([])
    // what does nothing yet is not judged
    expect(of('contamination', circuit(unit, unitPipes))).toEqual([])
  })
  it('find a pipe that may come above its rating', () => {
    const sheet = machine({})
    const pipe = sheet.pipes.find((p) => 'component' in p.to && p.to.port === 'A')!
    const rated = (rating: string) => of('pipe-above-rating', changePipe(sheet, pipe.id, { rating }))
    expect(rated('100 bar')).toEqual([expect.stringMatching(/rated for 100 bar; it may come to 160 bar/)])
    expect(rated('200 bar')).toEqual([])
    // a pump that takes its stroke back limits its line by its compensator
    const bankOf = (rating: string) => {
      const s = bank(compensated, 'closedCentre')
      const line = s.pipes.find((p) => 'component' in p.from && p.from.port === 'P')!
      return of('pipe-above-rating', changePipe(s, line.id, { rating }))
    }
    expect(bankOf('120 bar')).toEqual([expect.stringMatching(/may come to 160 bar/)])
    expect(bankOf('170 bar')).toEqual([])
  })
})

describe('a pressure that was turned from bar by the atmosphere', () => {
  it('is told, with the bar that were meant', () => {
    const sheet = circuit(unit, unitPipes)
    const set = (setting: string) =>
      of('unit-slip', setParameter(sheet, idOf(sheet, 'relief-valve-direct'), 'setting', setting))
    expect(set('2352 psi')).toEqual([expect.stringMatching(/14\.7 times 160/)])
    expect(set('2321 psi')).toEqual([])
    expect(set('2500 psi')).toEqual([])
  })
})

describe('rules about what is idle', () => {
  it('judge an isolating valve, and let a vented relief valve be', () => {
    const packed = (relief: string, more: Parts = {}, pipes: string[] = []) =>
      circuit(
        {
          ...unit,
          relief: [relief, { setting: '110 bar' }],
          isolating: ['poppet-valve'],
          ram: ['cylinder-double-acting'],
          b: ['reservoir'],
          ...more,
        },
        [...unitPipes, 'pump.P isolating.A', 'isolating.B ram.A', 'ram.B b.T', ...pipes],
      )
    expect(of('no-way-to-unload', packed('relief-valve-direct'))).toHaveLength(1)
    const vent: Parts = { vent: ['directional-valve-2-2', { centre: 'open' }], v: ['reservoir'] }
    const vented = packed('relief-valve-vented', vent, ['relief.X vent.P', 'vent.A v.T'])
    expect(of('no-way-to-unload', vented)).toEqual([])
  })
})

describe('rules about the drawing', () => {
  it('find a line through a symbol, and a symbol on another', () => {
    const sheet = circuit(unit, unitPipes)
    expect(of('line-through-symbol', sheet)).toEqual([])
    expect(of('symbol-on-symbol', sheet)).toEqual([])
    const [tank, , pump] = sheet.components
    const at = (x: number, y: number, id: string): Sheet => ({
      ...sheet,
      components: sheet.components.map((c) => (c.id === id ? { ...c, x, y } : c)),
    })
    expect(of('symbol-on-symbol', at(pump.x + 1, pump.y, tank.id))).toHaveLength(1)
    const line = polyline(sheet, sheet.pipes[2])
    const [[ax, ay], [bx, by]] = [line[0], line[1]]
    const gauge = addComponent(sheet, 'burst', { x: Math.round((ax + bx) / 2), y: Math.round((ay + by) / 2) })
    expect(of('line-through-symbol', gauge.sheet)).toHaveLength(1)
  })
})
