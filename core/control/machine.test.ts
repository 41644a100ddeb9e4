import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText } from '../sheet/read'
import type { Sheet, Track } from '../sheet/schema'
import { LiveRun } from '../simulate/live-run'
import { run, simulationOf } from '../simulate/run'
import { Simulation } from '../simulate/simulation'
import { at, circuit, idOf, most, powerUnit, powerUnitPipes, timed, track } from '../testing'
import { compileMachine, compileMachineLive, replayMachine } from './run'
import { withControl } from './testing'

const demo = (name: string): Sheet => {
  const read = readSheetText(readFileSync(new URL(`../../demo/sheets/${name}.json`, import.meta.url), 'utf8'))
  if (!read.ok) throw new Error(read.problems[0].message)
  return read.sheet
}
const compiled = (sheet: Sheet, schedule?: string) => {
  const { compiled, findings } = compileMachine(sheet, schedule)
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return compiled
}

/** A cylinder with a solenoid valve, its rod watched. */
function press(
  tracks: Track[],
  ...control: Parameters<typeof withControl> extends [Sheet, ...infer R] ? R : never
) {
  const bare = circuit(
    {
      ...powerUnit,
      valve: ['directional-valve-4-3'],
      back2: ['reservoir'],
      ram: ['cylinder-double-acting', { stroke: '300 mm' }],
      limit: ['limit-switch', { at: '200 mm', width: '200 mm' }],
    },
    [
      ...powerUnitPipes,
      'pump.P valve.P',
      'valve.T back2.T',
      'valve.A ram.A',
      'valve.B ram.B',
      'ram.R limit.R',
    ],
  )
  return withControl(timed(bare, 4, tracks), ...control)
}
const valve = 'V2'
const limit = 'S1'

describe('control in a run', () => {
  it('acts at the instant at which a rod reaches its switch, to a microsecond', () => {
    const sheet = press(
      [track('S9', 'pressed', [0.5, '1'], [0.7, '0'])],
      { S9: ['push-button'], K1: ['relay'] },
      [`/${limit} · (S9 + K1) -> K1`, `K1 -> ${valve}.coilA`],
    )
    const r = run(compiled(sheet))
    const off = r.events.find((e) => e.component === 'K1' && e.what === 'drops out')!.at
    const tripped = r.conditions.find((c) => c.component === limit && c.name === 'tripped')!.start
    expect(off - tripped).toBeCloseTo(0.01, 6)
    // where the rod was when its switch let go of the relay
    const simulation = simulationOf(compiled(sheet))
    while (simulation.time < off - 0.01 - 1e-9) simulation.step(off - 0.01)
    simulation.observeAt(simulation.time)
    const rod = simulation.recorder.signals.findIndex(
      (s) => s.id === `${idOf(sheet, 'cylinder-double-acting')}.position`,
    )
    expect(simulation.recorder.value(rod)).toBeCloseTo(0.2, 6)
  })
  it('has its faults in schedules: a stuck contact, a burnt coil, a broken wire, a lost supply', () => {
    const devices = { T9: ['supply'], S9: ['push-button'], K1: ['relay'] } as const
    const paths = ['S9 + K1 -> K1', `K1 -> ${valve}.coilA`]
    const pressed = track('S9', 'pressed', [0.5, '1'], [0.7, '0'])
    const coil = (...faults: Track[]) =>
      at(run(compiled(press([pressed, ...faults], devices, paths))), `${valve}.coilA`, 3)
    expect(coil()).toBe(1)
    expect(coil(track('K1', 'burnt', [0, '1']))).toBe(0)
    expect(coil(track('R2', 'broken', [1, '1']))).toBe(0)
    expect(coil(track('T9', 'lost', [1, '1'], [2, '0']))).toBe(0)
    expect(coil(track('S9', 'stuck', [0, '1']))).toBe(0)
  })
  it('reports a relay that breaks its own coil by its events, and the run goes on', () => {
    const sheet = press([track('S9', 'pressed', [1, '1'])], { S9: ['push-button'], K1: ['relay'] }, [
      'S9 · /K1 -> K1',
      `K1 -> ${valve}.coilA`,
    ])
    const r = run(compiled(sheet))
    expect(r.finished).toBe(true)
    expect(r.events.filter((e) => e.component === 'K1').length).toBeGreaterThan(200)
  })
  it('refuses to run with a path that does not read', () => {
    const { compiled: none, findings } = compileMachine(press([], { K1: ['relay'] }, ['S77 -> K1']))
    expect(none).toBeUndefined()
    expect(findings.some((f) => f.rule === 'control-contact' && f.location.control === 'R1')).toBe(true)
  })
  it('loses to a hand at the valve, and takes over again when it is released', () => {
    const sheet = press([track('S9', 'pressed', [0.5, '1'])], { S9: ['push-button'] }, [
      `S9 -> ${valve}.coilA`,
    ])
    const simulation = new Simulation(compiled(sheet))
    simulation.advance(0.2)
    simulation.set(valve, 'coilA', 1)
    expect(simulation.network.arrays.u[simulation.network.inputs.find(valve, 'coilA')]).toBe(1)
  })
})

describe('a position controller', () => {
  /** A cylinder that a proportional valve brings to an order, m. */
  function positioned(parameters: Record<string, string>, order: Track): Sheet {
    const bare = circuit(
      {
        ...powerUnit,
        valve: ['proportional-valve', { ratedFlow: '40 L/min', centreOverlap: '0 %' }].slice(0, 1) as [
          string,
        ],
        back2: ['reservoir'],
        ram: ['cylinder-double-acting', { stroke: '300 mm', start: '50 mm' }],
      },
      [...powerUnitPipes, 'pump.P valve.P', 'valve.T back2.T', 'valve.A ram.A', 'valve.B ram.B'],
    )
    const ram = idOf(bare, 'cylinder-double-acting')
    return withControl(
      timed(bare, 6, [order]),
      {
        K1: [
          'position-controller',
          {
            measured: `${ram}.position`,
            form: 'proportional',
            drives: `${idOf(bare, 'proportional-valve')}.command`,
            order: '0.05',
            deadBand: '0.0005',
            ...parameters,
          },
        ],
      },
      [],
    )
  }
  it('brings a rod to its order by a proportional valve, and holds it there', () => {
    const sheet = positioned({ gain: '20' }, track('K1', 'order', [1, '200 mm']))
    const ram = idOf(sheet, 'cylinder-double-acting')
    const r = run(compiled(sheet))
    expect(r.finished).toBe(true)
    // within what a spool overlap of 5 % leaves at a gain of 20 a metre, 2.5 mm
    expect(Math.abs(at(r, `${ram}.position`, 5.9) - 0.2)).toBeLessThan(0.003)
    expect(most(r, `${ram}.position`)).toBeLessThan(0.21)
    // and it does not go on switching
    expect(r.events.filter((e) => e.source === 'control' && e.at > 5.5).length).toBeLessThan(20)
  })
  it('follows a ramp at its rate', () => {
    const sheet = positioned({ gain: '40', ramp: '0.05' }, track('K1', 'order', [1, '200 mm']))
    const ram = idOf(sheet, 'cylinder-double-acting')
    const r = run(compiled(sheet))
    const speed = (at(r, `${ram}.position`, 3.5) - at(r, `${ram}.position`, 2)) / 1.5
    expect(speed).toBeCloseTo(0.05, 2)
  })
  it('follows an order that moves with its schedule', () => {
    const sheet = positioned({ gain: '40' }, track('K1', 'order', [1, '50 mm'], [4, '200 mm', 'ramp']))
    const ram = idOf(sheet, 'cylinder-double-acting')
    const r = run(compiled(sheet))
    expect((at(r, `${ram}.position`, 3.5) - at(r, `${ram}.position`, 2)) / 1.5).toBeCloseTo(0.05, 2)
  })
})

describe('a live run with control', () => {
  const sheet = demo('blade-press-switches')
  const live = () => {
    const { compiled } = compileMachineLive(sheet, 'cycle', true)
    return new LiveRun(compiled!, { longestStep: 0.02 })
  }
  const buttons = ['S10', 'S11', 'S12', 'S13'] as const
  const action = fc.record({
    at: fc.double({ min: 0.05, max: 4, noNaN: true }),
    button: fc.constantFrom(...buttons),
    value: fc.constantFrom(0, 1),
  })
  it('is replayed to the last bit after any list of presses', () => {
    fc.assert(
      fc.property(fc.array(action, { maxLength: 8 }), (list) => {
        const run = live()
        for (const { at, button, value } of [...list].sort((a, b) => a.at - b.at)) {
          run.goOn(at)
          run.do({ kind: 'set', component: button, target: 'pressed', value })
        }
        run.goOn(5)
        const result = run.result()
        const again = replayMachine(sheet, result)
        expect(again.events).toEqual(result.events)
        again.columns.forEach((column, i) => expect(column).toEqual(result.columns[i]))
      }),
      { numRuns: 8 },
    )
  })
  it('goes back and on by a branch as a run that had its actions from the start', () => {
    const run = live()
    run.goOn(0.5)
    run.do({ kind: 'set', component: 'S12', target: 'pressed', value: 1 })
    run.goOn(0.8)
    run.do({ kind: 'set', component: 'S12', target: 'pressed', value: 0 })
    run.goOn(4)
    const first = run.result()
    run.goTo(run.actions.slice(0, 2), 2)
    run.goOn(4)
    expect(run.result().events).toEqual(first.events)
    expect(run.result().columns).toEqual(first.columns)
  })
})
