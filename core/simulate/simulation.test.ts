/** The simulation stepped from outside: again, from a snapshot, changed while it runs. */
import fc from 'fast-check'
import { describe, expect, it, vi } from 'vitest'
import { findKind } from '../catalogue'
import { commandableOf, type Model } from '../catalogue/kind'
import { setParameter } from '../sheet/edit'
import type { Sheet } from '../sheet/schema'
import { bar, circuit, end, idOf, lpm, powerUnit, powerUnitPipes, timed, track } from '../testing'
import type { Action } from './actions'
import { compile, type Compiled } from './compile'
import type { Control } from './control-interface'
import { build, consumerValues, fitting, type Consumer } from './random-circuits'
import type { RunResult } from './result'
import { run, runInSlices, continueRun } from './run'
import { Simulation } from './simulation'
import type { Snapshot } from './snapshot'

const compiled = (sheet: Sheet): Compiled => {
  const { compiled: done, findings } = compile(sheet)
  if (!done) throw new Error(findings.map((f) => f.message).join('\n'))
  return done
}
/** Everything that a run found, but for its samples and its lists, which begin anew where it goes on elsewhere. */
const figures = (r: RunResult) => ({
  ...r,
  times: undefined,
  columns: undefined,
  events: undefined,
  actions: undefined,
})

/** Random actions on the components of a sheet, at random instants; faults, commands and settings. */
const actionSeeds = fc.array(fc.tuple(fc.nat(200), fc.nat(50), fc.integer({ min: 1, max: 190 })), {
  maxLength: 6,
})
function actionsOn(sheet: Sheet, seeds: readonly [number, number, number][]): Action[] {
  return seeds
    .flatMap(([which, what, when]): Action[] => {
      const component = sheet.components[which % sheet.components.length]
      const kind = findKind(component.kind)!
      const at = when / 100
      if (what % 4 === 0 && 'setting' in kind.parameters)
        return [
          { at, kind: 'parameter', component: component.id, target: 'setting', value: `${80 + what} bar` },
        ]
      const inputs = commandableOf(kind)
      const input = inputs[what % Math.max(inputs.length, 1)]
      if (!input) return []
      if (what % 5 === 1) return [{ at, kind: 'release', component: component.id, target: input.name }]
      const value = input.form
        ? Math.min(input.max, 1) * (input.form === 'air' ? 1e-4 : 0.6)
        : (input.positions?.[what % input.positions.length].value ?? (input.min > 0 ? input.min : 0))
      return [{ at, kind: 'set', component: component.id, target: input.name, value }]
    })
    .sort((a, b) => a.at - b.at)
}
const circuits = fc.array(consumerValues, { minLength: 1, maxLength: 5 })

describe('one definition', () => {
  it('gives the same run any number of times, to the last bit', () => {
    fc.assert(
      fc.property(circuits, actionSeeds, (list, seeds) => {
        const sheet = fitting(list as Consumer[], 1500)
        const definition = compiled(sheet)
        const actions = actionsOn(sheet, seeds)
        const [a, b] = [run(definition, { actions }), run(definition, { actions })]
        expect(b).toEqual(a)
      }),
      { numRuns: 12, seed: 11 },
    )
  }, 120_000)
})

describe('least and greatest values', () => {
  it('of every signal hold all of its samples, inputs and modes as well, and were at some sample or between', () => {
    fc.assert(
      fc.property(circuits, actionSeeds, (list, seeds) => {
        const sheet = fitting(list as Consumer[], 1500)
        const r = run(compiled(sheet), { actions: actionsOn(sheet, seeds) })
        r.signals.forEach((signal, i) => {
          const { min, max, minAt, maxAt } = r.extremes[i]
          const values = [...r.columns[i]]
          // samples are in single precision
          expect(Math.fround(min), signal.id).toBeLessThanOrEqual(Math.min(...values))
          expect(Math.fround(max), signal.id).toBeGreaterThanOrEqual(Math.max(...values))
          for (const at of [minAt, maxAt]) expect(at >= 0 && at <= r.duration, signal.id).toBe(true)
        })
      }),
      { numRuns: 8, seed: 5 },
    )
  }, 120_000)
  it('keep a push that is shorter than the samples', () => {
    const sheet = timed(circuit({ ...powerUnit }, powerUnitPipes), 1, [], '100 ms')
    const motor = idOf(sheet, 'electric-motor')
    const simulation = new Simulation(compiled(sheet))
    const goTo = (t: number) => {
      while (simulation.time < t) simulation.advance(t)
    }
    goTo(0.51)
    simulation.set(motor, 'speed', 10)
    goTo(0.52)
    simulation.release(motor, 'speed')
    goTo(1)
    const { signals, extremes, columns } = simulation.result()
    const speed = signals.findIndex(({ id }) => id === `${motor}.speed`)
    expect(Math.min(...columns[speed])).toBeGreaterThan(100)
    expect(extremes[speed].min).toBe(10)
    expect(extremes[speed].minAt).toBeCloseTo(0.51, 9)
    const turning = signals.findIndex(({ id }) => id.startsWith('speed('))
    expect(extremes[turning].min).toBe(10)
  })
})

describe('a snapshot', () => {
  const throughText = (snapshot: Snapshot): Snapshot => structuredClone(snapshot)
  it('goes on to the last bit as the first did, in the same simulation and in another', () => {
    fc.assert(
      fc.property(
        circuits,
        actionSeeds,
        fc.double({ min: 0.01, max: 1.9, noNaN: true }),
        (list, seeds, when) => {
          const sheet = fitting(list as Consumer[], 1500)
          const definition = compiled(sheet)
          const actions = actionsOn(sheet, seeds)
          const begin = () => {
            const simulation = new Simulation(definition, { longestStep: 0.05 })
            for (const action of actions) simulation.plan(action)
            return simulation
          }
          const whole = continueRun(begin(), 2)
          const first = begin()
          first.advanceBeyond(when)
          const snapshot = throughText(first.snapshot())
          const straight = continueRun(first, 2)
          // looking at it has changed nothing
          expect(straight).toEqual(whole)
          first.restore(snapshot)
          expect(continueRun(first, 2)).toEqual(whole)
          const other = new Simulation(definition, { longestStep: 0.05 })
          other.restore(snapshot)
          const again = continueRun(other, 2)
          expect(figures(again)).toEqual(figures(whole))
          // the samples from the snapshot on
          const from = whole.times.length - again.times.length
          expect([...again.times]).toEqual([...whole.times.slice(from)])
          again.columns.forEach((column, i) => expect([...column]).toEqual([...whole.columns[i].slice(from)]))
        },
      ),
      { numRuns: 12, seed: 12 },
    )
  }, 240_000)
  it('holds warming oil, tanks and what a clogged breather shuts in', () => {
    let sheet = circuit({ ...powerUnit, air: ['breather', { airSpace: '5 L' }] }, powerUnitPipes)
    sheet = timed(sheet, 20, [track(idOf(sheet, 'breather'), 'blocked', [1, '1'])])
    sheet = { ...sheet, tank: { ...sheet.tank, oil: '10 L', warming: true } }
    const definition = compiled(sheet)
    const whole = run(definition)
    const tank = idOf(sheet, 'reservoir')
    expect(end(whole, `${tank}.temperature`)).toBeGreaterThan(318)
    const first = new Simulation(definition)
    first.advanceBeyond(7)
    const other = new Simulation(definition)
    other.restore(first.snapshot())
    expect(figures(continueRun(other, 20))).toEqual(figures(whole))
  })
})

describe('looking on', () => {
  it('changes no step: frames are read within the last one', () => {
    const sheet = build([{ kind: 'lift', size: 3, commands: [[3, 1]] }], 1500)
    const definition = compiled(sheet)
    const plain = continueRun(new Simulation(definition, { longestStep: 0.02 }), 2)
    const watched = new Simulation(definition, { longestStep: 0.02 })
    const node = watched.network.nodes.findIndex(
      (n) => n.domain === 'oil' && n.ports.some((p) => p.port === 'A'),
    )
    const seen: number[] = []
    for (let frame = 1; frame / 30 < 1.9; frame++) {
      watched.advanceBeyond(frame / 30)
      watched.observeAt(frame / 30)
      expect(watched.observableFrom).toBeLessThanOrEqual(frame / 30)
      seen.push(watched.network.potential[node])
    }
    expect(continueRun(watched, 2)).toEqual(plain)
    // the frames show what the samples of the plain run hold
    const line = plain.signals.findIndex((s) => s.node === node)
    seen.forEach((pressure, i) => {
      const t = (i + 1) / 30
      const k = plain.times.findIndex((at) => Math.abs(at - t) < 1e-9)
      if (k >= 0)
        expect(Math.abs(pressure - plain.columns[line][k])).toBeLessThan(1 + 1e-4 * Math.abs(pressure))
    })
  })
})

describe('asking for what was found so far', () => {
  it('leaves no trace in what follows', () => {
    const definition = compiled(build([{ kind: 'lift', size: 3, commands: [[3, 1]] }], 1500))
    const plain = continueRun(new Simulation(definition, { longestStep: 0.02 }), 2)
    const asked = new Simulation(definition, { longestStep: 0.02 })
    for (const t of [0.013, 0.31, 0.777, 1.5]) {
      asked.advanceBeyond(t)
      const sofar = asked.result()
      expect(sofar.times[sofar.times.length - 1]).toBe(asked.time)
      expect(sofar.duration).toBe(asked.time)
    }
    expect(continueRun(asked, 2)).toEqual(plain)
  })
})

describe('a parameter changed in flight', () => {
  const relief = (setting = '160 bar') => {
    const sheet = circuit({ ...powerUnit }, powerUnitPipes)
    return timed(setParameter(sheet, idOf(sheet, 'relief-valve-direct'), 'setting', setting), 2, [])
  }
  it('agrees with a schedule that changes it', () => {
    const sheet = relief()
    const id = idOf(sheet, 'relief-valve-direct')
    const scheduled = run(compiled(timed(sheet, 2, [track(id, 'setting', [1, '95 bar'])])))
    const changed = run(compiled(sheet), {
      actions: [{ at: 1, kind: 'parameter', component: id, target: 'setting', value: '95 bar' }],
    })
    expect(changed.extremes).toEqual(scheduled.extremes)
    expect(changed.columns).toEqual(scheduled.columns)
    expect(end(changed, `${id}.flow`)).toBeGreaterThan(10 * lpm)
  })
  it('keeps states and modes, and comes to the rest of a circuit that was built so', () => {
    const sheet = relief()
    const pump = idOf(sheet, 'fixed-pump')
    const id = idOf(sheet, 'relief-valve-direct')
    const changed = run(compiled(sheet), {
      actions: [{ at: 1, kind: 'parameter', component: pump, target: 'displacement', value: '8 cm³/rev' }],
    })
    const built = run(compiled(setParameter(sheet, pump, 'displacement', '8 cm³/rev')))
    expect(end(changed, `${id}.flow`) / end(built, `${id}.flow`)).toBeCloseTo(1, 4)
    expect(changed.oil.error).toBeLessThan(1e-3)
  })
  it('changes volumes without making oil', () => {
    const sheet = build([{ kind: 'cylinder', size: 3, commands: [[2, 1]] }], 1500)
    const ram = idOf(sheet, 'cylinder-double-acting')
    const r = run(compiled(sheet), {
      actions: [{ at: 1, kind: 'parameter', component: ram, target: 'bore', value: '100 mm' }],
    })
    expect(r.oil.error).toBeLessThan(1e-3)
    expect(r.finished).toBe(true)
  })
  it('is refused in plain words where the shape changes, and nothing is changed then', () => {
    const sheet = relief()
    const simulation = new Simulation(compiled(sheet))
    simulation.advance(0.5)
    const before = structuredClone(simulation.snapshot())
    const id = idOf(sheet, 'relief-valve-direct')
    const attempts: [() => void, RegExp][] = [
      [() => simulation.setParameter(id, 'setting', '160 km'), /Unknown unit/],
      [() => simulation.setParameter(id, 'setting', '9000 bar'), /outside what is possible/],
      [() => simulation.setParameter(id, 'colour', '1'), /has no parameter "colour"/],
      [() => simulation.setParameter('X9', 'setting', '1 bar'), /no component "X9"/],
      [() => simulation.set(id, 'setting', 1e12), /outside/],
      [() => simulation.set(id, 'setting', Number.NaN), /no number/],
      [() => simulation.set(id, 'handle', 1), /no input or fault "handle"; it has setting/],
      [
        () => simulation.plan({ at: 0.1, kind: 'set', component: id, target: 'setting', value: 1e7 }),
        /too late/,
      ],
    ]
    for (const [attempt, message] of attempts) expect(attempt).toThrow(message)
    expect(simulation.snapshot()).toEqual(before)
  })
  it('is refused where the states do not go with it: a stroke that the rod is beyond', () => {
    const sheet = build([{ kind: 'cylinder', size: 3, commands: [[2, 1]] }], 1500)
    const simulation = new Simulation(compiled(sheet))
    while (simulation.time < 1.5) simulation.advance(1.5)
    const ram = idOf(sheet, 'cylinder-double-acting')
    expect(() => simulation.setParameter(ram, 'stroke', '65 mm')).toThrow(
      /it stands at \d+ mm, beyond a stroke of 65 mm/,
    )
    simulation.setParameter(ram, 'stroke', '900 mm')
    expect(continueRun(simulation, 2).finished).toBe(true)
  })
  it('is refused where ports come into use or fall idle', () => {
    const drawn = build([{ kind: 'cylinder', size: 3, commands: [] }], 1500)
    const valve = idOf(drawn, 'directional-valve-4-3')
    const sheet = setParameter(drawn, valve, 'actuation', 'solenoidPilot')
    const simulation = new Simulation(compiled(sheet))
    expect(() => simulation.setParameter(valve, 'pilotSupply', 'external')).toThrow(
      /cannot be changed while it runs, since the ports it uses would be others/,
    )
    simulation.setParameter(valve, 'centre', 'float')
    expect(simulation.actions).toHaveLength(1)
  })
})

describe('an input', () => {
  const sheet = build([{ kind: 'cylinder', size: 3, commands: [[5, 1]] }], 1500)
  const valve = idOf(sheet, 'directional-valve-4-3')
  const ram = idOf(sheet, 'cylinder-double-acting')
  it('is taken by hand and given back to its schedule', () => {
    const simulation = new Simulation(compiled(sheet))
    simulation.advanceBeyond(0.7)
    simulation.set(valve, 'command', 0)
    const spool = () => simulation.network.elements.find((e) => e.id === valve)!.local.x[0]
    while (simulation.time < 1) simulation.advance(1)
    expect(spool()).toBeCloseTo(0, 6)
    simulation.release(valve, 'command')
    while (simulation.time < 1.2) simulation.advance(1.2)
    expect(spool()).toBeCloseTo(1, 6)
    expect(simulation.actions.map((a) => a.kind)).toEqual(['set', 'release'])
  })
  it('may be a fault that no schedule knows; it is recorded from then on', () => {
    const simulation = new Simulation(compiled(sheet))
    simulation.advanceBeyond(0.8)
    simulation.set(ram, 'jammed', 1)
    const at = simulation.network.elements.find((e) => e.id === ram)!.local.x[0]
    const r = continueRun(simulation, 2)
    expect(end(r, `${ram}.position`)).toBeCloseTo(at, 5)
    const column = r.columns[r.signals.findIndex((s) => s.id === `${ram}.jammed`)]
    expect(column[0]).toBe(0)
    expect(column[column.length - 1]).toBe(1)
    // and the recording of what was done gives the same run
    const again = run(compiled(sheet), { actions: simulation.actions })
    expect(again).toEqual(r)
  })
  it('acted on live, at instants nobody knew before, replays to the last bit', () => {
    fc.assert(
      fc.property(circuits, actionSeeds, (list, seeds) => {
        const drawn = fitting(list as Consumer[], 1500)
        const definition = compiled(drawn)
        const live = new Simulation(definition, { longestStep: 0.05 })
        for (const action of actionsOn(drawn, seeds)) {
          live.advanceBeyond(action.at)
          if (live.stopped) break
          if (action.kind === 'set') live.set(action.component, action.target, action.value)
          else if (action.kind === 'release') live.release(action.component, action.target)
          else if (action.kind === 'parameter')
            live.setParameter(action.component, action.target, action.value)
        }
        const r = continueRun(live, 2)
        expect(run(definition, { actions: live.actions, longestStep: 0.05 })).toEqual(r)
      }),
      { numRuns: 12, seed: 13 },
    )
  }, 240_000)
})

describe('a run in turns', () => {
  it('is the run in one go, and keeps what it has where it is ended', async () => {
    const definition = compiled(build([{ kind: 'lift', size: 3, commands: [[3, 1]] }], 1500))
    const whole = run(definition)
    const turns = await runInSlices(new Simulation(definition), 2, 0, () => false)
    expect(turns).toEqual(whole)
    let asked = 0
    const ended = await runInSlices(new Simulation(definition), 2, 0, () => ++asked === 2)
    expect(ended.finished).toBe(false)
    expect(ended.stopped!.message).toMatch(/stopped at \S+ s: ended by hand/)
    expect(ended.duration).toBeGreaterThan(0)
    expect(ended.duration).toBeLessThan(2)
    expect(ended.times.length).toBeGreaterThan(1)
    expect([...ended.columns[0]].slice(0, -1)).toEqual([...whole.columns[0]].slice(0, ended.times.length - 1))
  })
})

describe('events', () => {
  it('that are flipped by an event fire at the same instant', () => {
    // two switches on one line and a third element, whose event function follows from the mode of the first
    const sheet = circuit(
      {
        ...powerUnit,
        first: ['pressure-switch', { set: '50 bar', reset: '40 bar' }],
        second: ['pressure-switch', { set: '60 bar', reset: '40 bar' }],
      },
      [...powerUnitPipes, 'pump.P first.P', 'pump.P second.P'],
    )
    const [first, second] = [0, 1].map((n) => idOf(sheet, 'pressure-switch', n))
    const definition = compiled(sheet)
    const kind = findKind('pressure-switch')!
    const sound = kind.model
    const built: Model[] = []
    let firstMode: Int32Array | undefined
    const spy = vi.spyOn(kind, 'model').mockImplementation((values, fluid) => {
      const model = sound(values, fluid)
      const mine = built.length
      built.push(model)
      if (mine === 0) {
        return { ...model, evaluate: (l) => ((firstMode = l.mode), model.evaluate!(l)) }
      }
      // a relay in the other's contact: on as soon as that is
      return { ...model, evaluate: (l) => void (l.g[0] = (firstMode?.[0] ?? 0) - 0.5) }
    })
    const r = run(definition, { until: 0.5 })
    spy.mockRestore()
    const trip = (id: string) => r.conditions.find((c) => c.component === id && c.name === 'trip')!.start
    expect(trip(first)).toBeGreaterThan(0)
    expect(trip(second)).toBe(trip(first))
  })
  it('that go on without end stop the run with their names', () => {
    const sheet = circuit({ ...powerUnit, first: ['pressure-switch', { set: '50 bar', reset: '40 bar' }] }, [
      ...powerUnitPipes,
      'pump.P first.P',
    ])
    const kind = findKind('pressure-switch')!
    const sound = kind.model
    const spy = vi.spyOn(kind, 'model').mockImplementation((values, fluid) => ({
      ...sound(values, fluid),
      // off as soon as it is on, and on again
      evaluate: (l) => void (l.g[0] = l.p[0] < 50 * bar ? -1 : 0.5 - l.mode[0]),
    }))
    const r = run(compiled(sheet), { until: 0.5 })
    spy.mockRestore()
    expect(r.stopped!.message).toMatch(/switch back and forth without end/)
    expect(r.stopped!.component).toBe(idOf(sheet, 'pressure-switch'))
  })
  it('at the start are followed to their end as well', () => {
    const sheet = circuit({ ...powerUnit, first: ['pressure-switch'], second: ['pressure-switch'] }, [
      ...powerUnitPipes,
      'pump.P first.P',
      'pump.P second.P',
    ])
    const kind = findKind('pressure-switch')!
    const sound = kind.model
    let count = 0
    let secondMode: Int32Array | undefined
    const spy = vi.spyOn(kind, 'model').mockImplementation((values, fluid) => {
      const model = sound(values, fluid)
      // the first is on where the second is, and the second always: one pass over both is not enough
      return count++ === 0
        ? { ...model, evaluate: (l) => void (l.g[0] = (secondMode?.[0] ?? 0) - 0.5) }
        : { ...model, evaluate: (l) => ((secondMode = l.mode), void (l.g[0] = 1)) }
    })
    const simulation = new Simulation(compiled(sheet))
    spy.mockRestore()
    const modes = simulation.network.elements.filter((e) => e.local.g.length).map((e) => e.local.mode[0])
    expect(modes).toEqual([1, 1])
  })
})

describe('control', () => {
  /** A relay that pulls in some time after its switch closes, and shifts a valve. */
  class Relay implements Control {
    private due = Infinity
    private on = false
    readonly asked: number[] = []
    constructor(
      private readonly contact: string,
      private readonly valve: string,
    ) {}
    react(instant: number, readings: Parameters<Control['react']>[1]) {
      this.asked.push(instant)
      const closed = readings.isOn(this.contact)
      if (closed && !this.on && this.due === Infinity) this.due = instant + 0.015
      if (!closed) this.due = Infinity
      if (instant >= this.due) {
        this.on = true
        this.due = Infinity
      }
      return {
        outputs: [{ component: this.valve, input: 'command', value: this.on ? 1 : 0 }],
        nextDue: this.due,
      }
    }
    save = () => ({ due: this.due, on: this.on })
    load(saved: unknown) {
      Object.assign(this, saved as { due: number; on: boolean })
    }
  }
  const drawn = circuit(
    {
      ...powerUnit,
      valve: ['directional-valve-4-3'],
      ram: ['cylinder-double-acting'],
      contact: ['pressure-switch', { set: '100 bar', reset: '80 bar' }],
    },
    [
      ...powerUnitPipes,
      'pump.P valve.P',
      'valve.T back.T',
      'valve.A ram.A',
      'valve.B ram.B',
      'pump.P contact.P',
    ],
  )
  const sheet = timed(drawn, 2, [])
  const [contact, valve] = [idOf(sheet, 'pressure-switch'), idOf(sheet, 'directional-valve-4-3')]
  it('is asked only where something happens, and acts when it is due', () => {
    const relay = new Relay(contact, valve)
    const r = run(compiled(sheet), { control: relay })
    const trip = r.conditions.find((c) => c.component === contact && c.name === 'trip')!.start
    expect(trip).toBeGreaterThan(0)
    const command = r.columns[r.signals.findIndex((s) => s.id === `${valve}.command`)]
    const shifted = r.times[command.findIndex((v) => v === 1)]
    expect(shifted).toBeGreaterThanOrEqual(trip + 0.015)
    expect(shifted).toBeLessThan(trip + 0.015 + 2 * 0.005)
    expect(relay.asked.length).toBeLessThan(20)
    expect(relay.asked).toContain(trip)
    expect(relay.asked.some((t) => t === trip + 0.015)).toBe(true)
  })
  it('goes on from a snapshot with what it was waiting for, and a hand on the lever overrules it', () => {
    const definition = compiled(sheet)
    const whole = run(definition, { control: new Relay(contact, valve) })
    const trip = whole.conditions.find((c) => c.component === contact && c.name === 'trip')!.start
    const first = new Simulation(definition, { control: new Relay(contact, valve) })
    while (first.time < trip) first.advance(2)
    const other = new Simulation(definition, { control: new Relay(contact, valve) })
    other.restore(structuredClone(first.snapshot()))
    expect(figures(continueRun(other, 2))).toEqual(figures(whole))
    const held = new Simulation(definition, { control: new Relay(contact, valve) })
    held.set(valve, 'command', 0)
    expect(end(continueRun(held, 2), `${valve}.spool`)).toBeCloseTo(0, 6)
  })
})
