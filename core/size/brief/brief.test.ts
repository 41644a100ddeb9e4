import { describe, expect, it } from 'vitest'
import {
  briefProblems,
  briefSchema,
  emptyBrief,
  missingOf,
  motionSchema,
  movementOf,
  type Brief,
} from './brief'
import { cycleOf, loadAt, placeSteps } from './cycle'
import { readBrief } from './read'

const motion = (id: string, values: Record<string, string>, more: object = {}) =>
  motionSchema.parse({ id, name: id, actuator: 'doubleActing', values, ...more })
const brief = (more: object): Brief => briefSchema.parse({ values: { maximumPressure: '160 bar' }, ...more })

describe('a brief', () => {
  it('that is empty says that nothing moves yet, and describes no machine by default', () => {
    expect(briefProblems(emptyBrief())).toEqual([])
    expect(missingOf(emptyBrief())).toEqual([
      { field: 'motions', message: expect.stringContaining('No motion') },
    ])
  })
  it('says what is missing of each motion', () => {
    const missing = missingOf(briefSchema.parse({ motions: [motion('clamp', {})] }))
    expect(missing.map((m) => m.field)).toEqual(['maximumPressure', 'stroke', 'outTime', 'forceOut'])
    expect(missing[1]).toMatchObject({ motion: 'clamp', message: 'clamp: the stroke is not given.' })
    expect(
      missingOf(brief({ motions: [motion('a', { stroke: '1 m', outSpeed: '5 m/min', mass: '3 t' })] })),
    ).toEqual([])
  })
  it.each([
    ['outSpeed', { stroke: '1 m', outTime: '2 s', outSpeed: '0.5 m/s' }, 'not both'],
    ['stroke', { stroke: '10 bar' }, 'It is a unit of pressure'],
    ['stroke', { stroke: '-1 m' }, 'between'],
    ['workStroke', { stroke: '100 mm', workStroke: '150 mm' }, 'whole stroke'],
  ])('finds what is wrong with %s', (field, values, words) => {
    const [problem] = briefProblems(brief({ motions: [motion('a', values)] }))
    expect(problem).toMatchObject({ motion: 'a', field, message: expect.stringContaining(words) })
  })
  it('finds contradictions of tables, temperatures and steps', () => {
    const table = (loadTable: [string, string][]) =>
      briefProblems(brief({ motions: [motion('a', { stroke: '1 m' }, { loadTable })] })).map((p) => p.message)
    expect(
      table([
        ['0 m', '1 kN'],
        ['0.5 m', '2 kN'],
      ]),
    ).toEqual([])
    expect(
      table([
        ['0.5 m', '1 kN'],
        ['0.2 m', '2 kN'],
      ])[0],
    ).toContain('must rise')
    expect(
      table([
        ['0 m', '1 kN'],
        ['2 m', '2 kN'],
      ])[0],
    ).toContain('beyond the stroke')
    expect(briefProblems(brief({ values: { ambientMin: '40 °C' } }))[0].message).toContain('below the lowest')
    expect(briefProblems(brief({ cycle: [{ id: 's', motion: 'none', way: 'out' }] }))[0]).toMatchObject({
      step: 's',
    })
  })
  it('takes the time from the speed', () => {
    expect(movementOf(motion('a', { stroke: '1 m', outSpeed: '0.5 m/s' }))).toEqual({
      travel: 1,
      out: 2,
      back: undefined,
    })
  })
})

describe('briefs of version 1', () => {
  it('become one motion with its cycle and the decisions on its cards', () => {
    const read = readBrief({
      purpose: 'p',
      values: { stroke: '700 mm', pressForce: '80 kN', lineLoss: '12 bar', bucklingLength: '0.7' },
    })
    expect(read.version).toBe(3)
    expect(read.purpose).toBe('p')
    expect(read.motions).toHaveLength(1)
    // what was not given stood at the default that the machine was sized with
    expect(read.motions[0].values).toMatchObject({ stroke: '700 mm', workForce: '80 kN', mass: '450 kg' })
    expect(read.cycle.map((s) => s.way)).toEqual(['out', 'back'])
    expect(read.cardValues['cylinder-bore@motion']).toEqual({ lineLoss: '12 bar' })
    expect(read.cardValues['cylinder-buckling@motion']).toEqual({ mounting: 'fixedPivoted' })
    expect(briefProblems(read)).toEqual([])
  })
  it('without values describe no motion: their figures were those of the program', () => {
    expect(readBrief({ purpose: 'x', never: '', onLoss: 'y', values: {} })).toMatchObject({
      motions: [],
      onLoss: 'y',
    })
  })
  it('read twice give the same', () => {
    const once = readBrief({ values: { stroke: '1 m' } })
    expect(readBrief(JSON.parse(JSON.stringify(once)))).toEqual(once)
  })
  it('are told from newer ones and from what is no brief', () => {
    expect(() => readBrief({ version: 4 })).toThrow('version 4')
    expect(() => readBrief({ version: 3, motions: 5 })).toThrow('cannot be read')
    expect(() => readBrief('text')).toThrow('cannot be read')
  })
})

describe('the cycle', () => {
  const two = brief({
    motions: [
      motion('a', { stroke: '1 m', outTime: '4 s', backTime: '2 s', forceOut: '10 kN' }),
      motion('b', { stroke: '2 m', outTime: '2 s', forceOut: '5 kN' }),
    ],
    cycle: [
      { id: '1', motion: 'a', way: 'out' },
      { id: '2', motion: 'b', way: 'out', start: 'with', delay: '1 s' },
      { id: '3', way: 'wait', duration: '3 s' },
      { id: '4', motion: 'a', way: 'back' },
      { id: '5', motion: 'b', way: 'back', start: 'with', duration: '1 s' },
    ],
  })
  it('places steps after or with each other', () => {
    expect(placeSteps(two).map(({ start, end }) => [start, end])).toEqual([
      [0, 4],
      [1, 3],
      [4, 7],
      [7, 9],
      [7, 8],
    ])
  })
  it('adds the flows of what moves together, and takes the highest pressure', () => {
    // each takes 1e-3 m² and a pressure of load / area
    const cycle = cycleOf(two, () => ({ flow: (_, v) => 1e-3 * v, pressure: (_, load) => load / 1e-3 }))
    const at = (t: number) =>
      cycle.samples.find((s, i) => i % 2 === 0 && s.time <= t && cycle.samples[i + 1].time >= t)!
    expect(at(0.5).flow).toBeCloseTo(0.25e-3, 12)
    expect(at(2).flow).toBeCloseTo(1.25e-3, 12)
    expect(at(2).pressure).toBeCloseTo(10e6, 3)
    expect(at(5).flow).toBe(0)
    expect(cycle.flow.peak).toBeCloseTo(0.5e-3 + 2e-3, 12)
    expect(cycle.duration).toBe(9)
    // the oil is area · way: 1e-3 · (1 + 2 + 1 + 2)
    expect(cycle.volume).toBeCloseTo(6e-3, 9)
    // r.m.s. of a stepped curve by hand
    const squares = [
      [0.25, 1],
      [1.25, 2],
      [0.25, 1],
      [2.5, 1],
      [0.5, 1],
    ].reduce((sum, [q, t]) => sum + (q * 1e-3) ** 2 * t, 0)
    expect(cycle.flow.rms).toBeCloseTo(Math.sqrt(squares / 9), 9)
  })
  it('pauses up to the cycle time', () => {
    const slow = { ...two, values: { ...two.values, cycleTime: '20 s' } }
    expect(cycleOf(slow, () => undefined).duration).toBe(20)
  })
  it('draws where each motion stands', () => {
    const [a] = cycleOf(two, () => undefined).tracks
    expect(a.positions).toEqual([
      [0, 0],
      [0, 0],
      [4, 1],
      [7, 1],
      [9, 0],
      [9, 0],
    ])
  })
  it('meets weight, friction, workpiece and table where they are', () => {
    const m = motion(
      'm',
      {
        stroke: '1 m',
        mass: '100 kg',
        slope: '90 °',
        friction: '50 N',
        workForce: '10 kN',
        workStroke: '0.2 m',
        forceBack: '20 N',
      },
      {
        loadTable: [
          ['0 m', '0 N'],
          ['1 m', '100 N'],
        ],
      },
    )
    const weight = 980.665
    expect(loadAt(m, 0, 'out')).toBeCloseTo(weight + 50, 6)
    expect(loadAt(m, 0.9, 'out')).toBeCloseTo(weight + 50 + 5000 + 90, 6)
    expect(loadAt(m, 0.9, 'back')).toBeCloseTo(20 - weight + 50, 6)
  })
})

it.each([
  { purpose: 'half \ud83d' },
  { motions: [{ id: 'a', name: '\udc00', actuator: 'doubleActing' }] },
  { motions: [{ id: 'a', name: 'a', actuator: 'doubleActing', values: { stroke: '1 m\ud83d' } }] },
])('a brief with half of a letter is refused: %#', (fields) => {
  expect(() => readBrief({ ...emptyBrief(), ...fields })).toThrow(/half of a letter/)
})
