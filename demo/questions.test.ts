/**
 * What a designer asks of each kind of system, answered by the machines of the yard: the walkthrough of a run says it, or what one step
 * of a setting does, or the comparison of two ways of doing it.
 */
import { describe, expect, it } from 'vitest'
import { runMachine } from '../core/control/run'
import { compareRuns } from '../core/explain/compare-runs'
import { figuresAt } from '../core/explain/figures'
import { Trials } from '../core/explain/knobs'
import { Moments } from '../core/explain/moment'
import { moversOf } from '../core/explain/movers'
import { stateTable } from '../core/explain/state-table'
import { walkthroughOf } from '../core/explain/walkthrough'
import type { RunResult } from '../core/simulate/result'
import { drainedInternally } from '../core/testing'
import { showIn } from '../core/units/text'
import { runDemo } from './golden'
import { demoMachines } from './machines'

const show = showIn('metric')
const machines = demoMachines()

/** A run of a machine, by the names or numbers of variant and schedule. */
function runOf(machine: string, variant = 0, schedule = 0) {
  const { name, sheet } = machines.find((m) => m.name === machine)!.variants[variant]
  const result = runDemo(machine, name, sheet.schedules[schedule].id)
  return { sheet, result, moments: new Moments(sheet, result) }
}
/** The states of a run, each as one text. */
function statesOf(machine: string, variant = 0, schedule = 0) {
  const { result, moments } = runOf(machine, variant, schedule)
  return statesIn(moments, result)
}
const statesIn = (moments: Moments, result: RunResult) =>
  walkthroughOf(moments, result, show).map(({ summary, sentences }) =>
    [summary, ...sentences.map(({ text }) => text)].join('\n'),
  )
/** The state that begins with something. */
const begun = (states: readonly string[], by: string | RegExp) =>
  states.find((s) => (typeof by === 'string' ? s.startsWith(by) : by.test(s.split('\n')[0])))!
/** First number after a text, in the unit that follows it. */
const numberAfter = (text: string, before: RegExp) =>
  Number(new RegExp(`${before.source}(-?[\\d.]+)`).exec(text)![1])

describe('relief valves', () => {
  it('how far below its setting each begins to hold, and what it makes of the oil', () => {
    const [direct, both] = statesOf('Relief rig')
    expect(direct).toMatch(/1-0V1 sets it, at its setting of 180 bar less [\d.]+ bar at this flow/)
    expect(direct).toMatch(/22\.5 L\/min of 1-0P1 go to the tank through 1-0V1 without doing work: 6\.16 kW/)
    // the piloted one opens at nearly its setting, and takes its share
    expect(both).toMatch(/1-1V2 opens/)
    expect(both).toMatch(/of 1-0P1 go to the tank through 1-1V2 without doing work/)
  })
  it('unloaded by its vent, set from afar, and at most at its own knob', () => {
    const states = statesOf('Relief rig', 1)
    expect(states[0]).toMatch(/1-0S1: 4\.\d+ bar; the spring of 1-0V1 sets it/)
    expect(begun(states, '1-0V2 is actuated, 1-0V3 is actuated')).toMatch(
      /1-0V1 sets it, at its setting of 180 bar/,
    )
    expect(begun(states, '1-0V4 is actuated')).toMatch(/1-0V5 sets it, at its setting of 90 bar/)
    expect(begun(states, '1-0V2 is released')).toMatch(/the spring of 1-0V1 sets it/)
    // one of two vents that sticks does not keep the pump loaded
    const redundant = statesOf('Relief rig', 1, 1)
    expect(begun(redundant, '1-0V3: spool sticks')).toMatch(/setting of 180 bar/)
    expect(begun(redundant, '1-0V2 is released')).toMatch(/the spring of 1-0V1 sets it/)
    // a remote pilot above the knob has no effect
    expect(statesOf('Relief rig', 1, 2).at(-1)).toMatch(/1-0V1 sets it, at its setting of 180 bar/)
  })
})

describe('an accumulator pack', () => {
  it('starts and running times of the motor, and heat, of either way', () => {
    const rows = compareRuns(runOf('Gate pack', 0), runOf('Gate pack', 1), show)
    const row = (label: string) => rows.find((r) => r.label === label)!
    expect([row('1-0M1: starts an hour').first, row('1-0M1: starts an hour').second]).toEqual(['0', '120'])
    expect(row('1-0M1: runs').first).toBe('60 s')
    expect(Number.parseFloat(row('1-0M1: runs').second)).toBeLessThan(20)
    expect(row('Heat').differs).toBe(true)
    expect(row('1-0M1: heat').difference).toMatch(/^\+/)
  })
  it('when the motor stops and starts, and by what', () => {
    const states = statesOf('Gate pack', 1)
    expect(begun(states, '1-0S2 switches on, 1-0M1 is switched off')).toBeDefined()
    expect(begun(states, '1-0S2 switches off, 1-0M1 is switched on')).toMatch(/Q1 pulls in/)
  })
})

describe('one cylinder', () => {
  it('speed out and back, what sets the pressures, and the oil that goes over the relief', () => {
    const states = statesOf('Shavings press', 2)
    const out = states.find((s) => /1-1A1 extends at/.test(s))!
    const back = states.filter((s) => /1-1A1 retracts at/.test(s)).at(-1)!
    expect(numberAfter(back, /retracts at /)).toBeGreaterThan(numberAfter(out, /extends at /))
    expect(states.join('\n')).toMatch(/the load on 1-1A1 sets it/)
    expect(states.at(-1)).toMatch(/go to the tank through 1-0V\d without doing work: [\d.]+ kW of heat/)
  })
})

describe('a held load', () => {
  it('what holds it, and what lets it down', () => {
    const counterbalance = statesOf('Boat lift')
    expect(counterbalance.join('\n')).toMatch(/its pilot needs as much to hold it open/)
    const lever = statesOf('Boat lift', 2)
    expect(begun(lever, '1-1Z1 is locked')).toMatch(/oil is shut in here/)
    expect(begun(lever, '1-1V1 is put to lower through its throttle')).toMatch(
      /1-1A1 > 1-1V2 > 1-1V1 > 1-0Z2/,
    )
    expect(begun(lever, '1-1V1 is put to float')).toMatch(/retracts at/)
  })
  it('that the hand pump lowers it when the engine is dead, evenly since the pilot is drained to the tank', () => {
    const dead = statesOf('Boat lift', 1, 1).at(-1)!
    expect(dead).toMatch(/1-0Z1 > 1-0P2 > 1-1V1 > 1-1A1/)
    expect(dead).not.toMatch(/hunts/)
    const { result: lowered } = runOf('Boat lift', 1, 1)
    expect(lowered.conditions.filter(({ name }) => name === 'hunts')).toEqual([])
    const position = lowered.columns[lowered.signals.findIndex(({ id }) => id === 'A1.position')]
    const at = (t: number) => position[lowered.times.findIndex((time) => time >= t)]
    expect(at(14) - at(29)).toBeGreaterThan(0.1)
  })
  it('that it hunts with the pilot drained internally', () => {
    const sheet = drainedInternally(runOf('Boat lift', 1, 1).sheet)
    const result = runMachine(sheet, 'dead')
    expect(result.conditions.map(({ name, component }) => `${name} ${component}`)).toContain('hunts A1')
    const words = statesIn(new Moments(sheet, result), result).at(-1)!
    expect(words).toMatch(/hunts/)
    expect(words).toMatch(/in the mean, swinging to .* and back to .* the other way/)
  })
})

describe('clamp, then work', () => {
  it('what starts the second motion: a pressure alone, or the switches', () => {
    expect(begun(statesOf('Blade press', 0), /1-2A1 extends/)).toBeDefined()
    expect(
      begun(statesOf('Blade press', 3), /^1-1S2 switches on, 1-1S1 switches on, 1-2V1 is switched on/),
    ).toMatch(/1-1A1 stands still: on its extended stop, pushed with 45\.4 kN/)
  })
  it('that a clamp jammed half way starts the squeeze where pressure alone says done', () => {
    const squeezes = (variant: number, schedule: number) =>
      statesOf('Blade press', variant, schedule).some((s) => /1-2A1 extends at/.test(s.split('\n')[0]))
    expect(squeezes(0, 1)).toBe(true)
    expect(squeezes(3, 1)).toBe(false)
  })
  it('that an emergency stop takes the current of every coil', () => {
    const states = statesOf('Blade press', 3, 2)
    const stop = begun(states, /is pressed.*is switched off/)
    expect(stop).toMatch(/nothing moves/)
  })
})

describe('two pumps, high and low', () => {
  it('speed and power before and after the change-over', () => {
    const states = statesOf('Shavings press', 0)
    const at = states.findIndex((s) => s.startsWith('1-0V3 opens and unloads the pump'))
    const [before, after] = [states[at - 1], states[at]]
    expect(numberAfter(before, /extends at /)).toBeGreaterThan(3 * numberAfter(after, /extends at /))
    expect(before).toMatch(/3[0-2] % of it from 1-0P1/)
    const power = (s: string) => Number(/([\d.]+) kW are put in/.exec(s)![1])
    expect(power(before)).toBeGreaterThan(power(after))
  })
})

describe('load sensing', () => {
  it('that the pump keeps its margin, and whose load it follows', () => {
    const states = statesOf('Quay crane')
    const alone = begun(states, 'The lever of 1-3V1 goes from 0 % to 60 %')
    expect(alone).toMatch(/margin over the load signal 20 bar/)
    expect(alone).toMatch(/1-0S2: .*the load on 1-3A1 sets it/)
    expect(begun(states, 'The lever of 1-1V1 goes from 0 % to 70 %')).toMatch(
      /1-0S2: 105 bar; the load on 1-1A1/,
    )
  })
  it('who slows where the pump has not enough: the highest load alone, or all alike', () => {
    const [pre, sharing] = [0, 1].map((variant) => statesOf('Quay crane', variant, 1).join('\n'))
    const short = (text: string, valve: string) =>
      new RegExp(`^.*${valve} gets less flow than its lever asks for[;,.]`, 'm').test(text)
    expect(['1-1V1', '1-2V1', '1-3V1'].map((v) => short(pre, v))).toEqual([true, false, false])
    expect(['1-1V1', '1-2V1', '1-3V1'].map((v) => short(sharing, v))).toEqual([true, true, true])
    // the load that gets too little sets the pump line, not the one that takes more oil
    expect(pre).toMatch(/1-0S1: 110 bar; the load on 1-1A1 sets it/)
  })
})

describe('a closed circuit', () => {
  it('what sets its low side, and what fails without its charge pump', () => {
    const states = statesOf('Slipway winch', 0, 1)
    expect(begun(states, 'The stroke of 1-1P1')).toMatch(
      /1-1S2: 18\.\d bar; 1-0V3 sets it, at its setting of 20 bar/,
    )
    expect(begun(states, '1-0M2: supply lost')).toMatch(/1-1A2: slips while applied/)
    expect(begun(states, 'W1 stops')).toMatch(/1-1P1: cavitation: .*\n.*starved at its inlet/)
  })
})

describe('braking a motor', () => {
  it.each([0, 1, 2])('time and angle of its stop against the setting, variant %i', (variant) => {
    const { sheet, result, moments } = runOf('Turntable', variant)
    moments.showRecorded(result, 8.1)
    const [time, angle] = figuresAt(moments, moversOf(sheet, result), 0, 'W1').filter(
      (f) => f.figure.kind === 'untilStill',
    )
    const effects = [time, angle].map(({ figure }) => {
      moments.showRecorded(result, 8.1)
      const { now, knobs } = new Trials(moments, figure).knobs()
      expect(now).toBeGreaterThan(0)
      // a load that is harder to stop goes on for longer
      const inertia = knobs.find((k) => k.part === 'W1' && k.parameter === 'inertia')!
      expect(inertia.effect / now).toBeGreaterThan(0.05)
      const settings = knobs.filter(({ quantity }) => quantity === 'pressure')
      return Math.min(...settings.map(({ effect }) => effect)) / now
    })
    // ten bar more stop it sooner and within a smaller angle
    for (const effect of effects) expect(effect).toBeLessThan(-0.05)
    // what its inlet falls to
    const states = statesOf('Turntable', variant)
    expect(begun(states, '1-1V1 goes to its centre')).toMatch(/driven by its load and held back with/)
    expect(states.join('\n')).not.toMatch(/starved/)
  })
  it('that blocked lines are made up, so that no inlet runs dry', () => {
    const states = statesOf('Turntable', 1)
    expect(begun(states, '1-1V1 goes to its centre')).toMatch(/1-1V2 makes up oil/)
    expect(states.join('\n')).not.toMatch(/cavitation/)
  })
})

describe('a rotary-vane drive with two packs', () => {
  it('order and answer, lock, and the change-over as the level falls', () => {
    const states = statesOf('Sluice rotor', 0, 1)
    expect(begun(states, 'S14 is pressed')).toMatch(/W1 turns from .* ° at 1\.64 rpm, against/)
    expect(begun(states, '1-0S1 switches on, 1-0V3 is switched off, 2-0V3 is switched on')).toMatch(
      /the speed of 2-0M1 goes to 1500 rpm/,
    )
    expect(begun(states, 'S15 is pressed')).toMatch(/2-0Z1 > 2-0P1 > 2-0V2 > 2-0V3 > 3-1V1/)
  })
  it('what happens when the control fails, and that a hand moves it', () => {
    const lost = statesOf('Sluice rotor', 0, 4)
    expect(begun(lost, 'T9: control voltage lost')).toMatch(/nothing moves/)
    expect(lost.join('\n')).toMatch(/1-0Z1 > 4-0P1 > 4-0V1 > 3-1A1/)
    expect(begun(lost, 'T9 is sound again')).toBeDefined()
  })
})

describe('two pumps for a manifold', () => {
  it('which pump feeds what, and that the pilot supply stays while the pump line collapses', () => {
    const states = statesOf('Mud dredge')
    expect(begun(states, '1-1V1 goes to position a')).toMatch(/1-0Z1 > 1-0P1 > 1-0V4 > 1-1V1 > 1-1A1/)
    expect(begun(states, '2-0V2 is switched on, 3-0V1 is switched on')).toMatch(
      /2-0P1 > 3-0V1 > 1-1V1 > 1-1A1; 50 % of it from 1-0P1/,
    )
    for (const state of states) expect(state).toMatch(/1-0S2: 31\.\d bar; the gas in 1-0Z4 sets it/)
    // lowering is filled up, and does not cavitate
    const down = begun(states, '2-0V2 is switched on, 2-1V1 goes to position b')
    expect(down).toMatch(/2-1V2 makes up oil/)
    expect(down).not.toMatch(/cavitation/)
  })
  it('which of the two settings of the relief holds', () => {
    const states = statesOf('Mud dredge', 0, 1)
    expect(begun(states, '1-0V1 goes to its higher setting')).toMatch(/at its setting of 210 bar/)
  })
})

describe('a bank of lever valves', () => {
  it('standby pressure and heat of each set-up, and of a wrong one', () => {
    const standby = (variant: number, schedule = 0) => {
      const { sheet, result } = runOf('Yard tug bank', variant, schedule)
      const [only] = sheet.schedules.filter(({ id }) => id === result.schedule)
      const table = stateTable({ ...sheet, schedules: [only] }, () => result, show)
      const value = (key: string) => table.rows[0].cells[table.columns.findIndex((c) => c.key === key)].value
      return { pressure: value('S1 pressure') / 1e5, heat: value('heat') }
    }
    const [open, closed, carryOver] = [0, 1, 2].map((variant) => standby(variant))
    expect(open.pressure).toBeLessThan(10)
    expect(closed.pressure).toBeGreaterThan(150)
    expect(carryOver.pressure).toBeLessThan(10)
    expect(closed.heat).toBeLessThan(open.heat)
    const wrong = standby(0, 1)
    expect(wrong.pressure).toBeGreaterThan(150)
    expect(wrong.heat).toBeGreaterThan(10 * open.heat)
  })
  it('that a load drifts on its spool', () => {
    expect(statesOf('Yard tug bank', 1, 1).join('\n')).toMatch(/W2 (creeps: )?pays out at 1\.9\d* mm\/s/)
  })
})

describe('a pump on the rig', () => {
  it('what it gives against pressure: less, by its leakage', () => {
    const [loaded, , free] = statesOf('Relief rig')
    const flow = (s: string) => Number(/([\d.]+) L\/min of 1-0P1/.exec(s)![1])
    expect(flow(loaded)).toBeLessThan(0.96 * flow(free))
  })
  it('what wear does to its flow', () => {
    const { result, moments, sheet } = runOf('Relief rig')
    moments.showRecorded(result, 0.8)
    const pump = sheet.components.find((c) => c.kind === 'fixed-pump')!.id
    const delivery = figuresAt(moments, moversOf(sheet, result), 0, pump).find(
      (f) => f.label === 'its delivery',
    )!
    expect(delivery.quantity).toBe('flow')
    const { now, knobs } = new Trials(moments, delivery.figure).knobs()
    const ofPump = knobs.filter((k) => k.part === pump)
    expect(now * 60000).toBeCloseTo(22.5, 0)
    expect(ofPump.find((k) => k.parameter === 'displacement')!.effect).toBeGreaterThan(0.08 * now)
  })
})
