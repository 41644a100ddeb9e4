/** A run worked by hand: replayed, gone back in, branched, watched. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { findKind } from '../catalogue'
import { commandableOf } from '../catalogue/kind'
import { decodeRun, encodeRun } from '../formats/run-file'
import type { Sheet } from '../sheet/schema'
import { bar, circuit, idOf, lpm, powerUnit, powerUnitPipes, timed, track } from '../testing'
import type { Action } from './actions'
import { compileLive, heldSchedule, LiveRun, replay, type ActionNow, type LiveOptions } from './live-run'
import { build, consumerValues, fitting, type Consumer } from './random-circuits'
import type { RunResult } from './result'

function live(sheet: Sheet, options?: LiveOptions): LiveRun {
  const { compiled, findings } = compileLive(sheet, undefined, options?.held ?? true)
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return new LiveRun(compiled, options)
}
/** Frames of a thirtieth of a second, with actions in between. */
function work(run: LiveRun, until: number, doing: readonly { at: number; action: ActionNow }[] = []): void {
  const queue = [...doing].sort((a, b) => a.at - b.at)
  const out = new Float64Array(run.simulation.recorder.signals.length + 100)
  for (let frame = Math.floor(run.shown * 30) + 1; frame / 30 <= until + 1e-9; frame++) {
    while (queue.length && queue[0].at <= run.shown) {
      try {
        run.do(queue.shift()!.action)
      } catch {
        // it cannot be done in this circuit: nothing happens
      }
    }
    run.goOn(frame / 30)
    run.frame(out)
  }
}
/** What a run found, but for how many steps were tried. */
const figures = (r: RunResult) => ({ ...r, statistics: undefined })

const seeds = fc.array(fc.tuple(fc.nat(200), fc.nat(50), fc.integer({ min: 0, max: 90 })), { maxLength: 5 })
function doingOn(sheet: Sheet, list: readonly [number, number, number][]) {
  return list.flatMap(([which, what, when]): { at: number; action: ActionNow }[] => {
    const at = when / 100
    if (what % 7 === 3) {
      const pipe = sheet.pipes[which % sheet.pipes.length].id
      return [
        { at, action: { kind: 'set', component: pipe, target: 'burst', value: 1e-3 * (1 + (what % 3)) } },
      ]
    }
    if (what % 7 === 5) return [{ at, action: { kind: 'longestStep', value: what % 2 ? 0.005 : 0.03 } }]
    const component = sheet.components[which % sheet.components.length]
    const kind = findKind(component.kind)!
    if (what % 4 === 0 && 'setting' in kind.parameters)
      return [
        {
          at,
          action: {
            kind: 'parameter',
            component: component.id,
            target: 'setting',
            value: `${80 + what} bar`,
          },
        },
      ]
    const inputs = commandableOf(kind)
    const input = inputs[what % Math.max(inputs.length, 1)]
    if (!input) return []
    const value = input.form
      ? Math.min(input.max, 1) * (input.form === 'air' ? 1e-4 : 0.6)
      : (input.positions?.[what % input.positions.length].value ?? Math.max(0, input.min))
    return [{ at, action: { kind: 'set', component: component.id, target: input.name, value } }]
  })
}
const circuits = fc.array(consumerValues, { minLength: 1, maxLength: 3 })

describe('what was done by hand', () => {
  it('replays to the last bit, also from its bytes', () => {
    fc.assert(
      fc.property(circuits, seeds, (list, doing) => {
        const sheet = fitting(list as Consumer[], 1500)
        const run = live(sheet)
        work(run, 1, doingOn(sheet, doing))
        const recorded = run.result()
        const again = replay(sheet, decodeRun(encodeRun(recorded)))
        expect(figures(again)).toEqual(figures(recorded))
      }),
      { numRuns: 400 },
    )
  }, 3_000_000)
  it('gone back and on from there is the same as a run that had those actions from the start', () => {
    fc.assert(
      fc.property(circuits, seeds, seeds, fc.integer({ min: 5, max: 80 }), (list, first, second, back) => {
        const sheet = fitting(list as Consumer[], 1500)
        const run = live(sheet)
        work(run, 1, doingOn(sheet, first))
        const whole = run.result()
        run.goTo(run.actions, back / 100)
        expect(run.shown).toBeCloseTo(back / 100, 12)
        work(
          run,
          1.1,
          doingOn(sheet, second).map((d) => ({ ...d, at: d.at + back / 100 })),
        )
        const branch = run.result()
        expect(figures(replay(sheet, branch))).toEqual(figures(branch))
        // and the first branch is there again when it is asked for
        run.goTo(whole.actions, whole.duration)
        // up to where it stopped, where it did
        const { stopped, finished } = run.result()
        expect(figures(run.result())).toEqual(figures({ ...whole, stopped, finished }))
      }),
      { numRuns: 400 },
    )
  }, 3_000_000)
})

const unit = timed(circuit(powerUnit, powerUnitPipes), 5, [])
const relief = idOf(unit, 'relief-valve-direct')
const line = (run: LiveRun) =>
  run.simulation.recorder.signals.findIndex((s) => s.id === `flow(${relief}.P)`) >= 0
    ? run.simulation.compiled.netlist.nodeOf.get(`${relief}.P`)!
    : -1

describe('a live run', () => {
  it('gone back to before a leak to the surroundings, loses no oil any more', () => {
    const lift: Consumer[] = [
      { kind: 'lift', size: 1, commands: [] },
      { kind: 'cylinder', size: 1, commands: [] },
    ]
    const sheet = fitting(lift, 1500)
    const run = live(sheet)
    run.goOn(1)
    const sound = run.result()
    run.goTo([], 0.05)
    const cylinder = idOf(sheet, 'cylinder-double-acting')
    run.do({ kind: 'set', component: cylinder, target: 'outward', value: 0.6e-3 })
    run.goOn(1)
    expect(figures(run.result())).not.toEqual(figures(sound))
    run.goTo([], sound.duration)
    expect(figures(run.result())).toEqual(figures(sound))
  })
  it('shows a setting that is turned within a step', () => {
    const run = live(unit)
    const frame = new Float64Array(run.simulation.recorder.signals.length)
    run.goOn(1)
    const before = run.frame(frame)[line(run)]
    run.do({ kind: 'set', component: relief, target: 'setting', value: 90 * bar })
    run.goOn(1.2)
    expect(before - run.frame(frame)[line(run)]).toBeGreaterThan(50 * bar)
    expect(run.actions).toEqual([
      { at: run.actions[0].at, kind: 'set', component: relief, target: 'setting', value: 90 * bar },
    ])
    expect(run.actions[0].at).toBeLessThan(1.02)
    expect(run.simulation.events.last).toMatchObject({ source: 'user', component: relief })
  })
  it('refuses what cannot be done, in plain words, and goes on', () => {
    const run = live(unit)
    expect(() => run.do({ kind: 'set', component: relief, target: 'setting', value: 9e9 })).toThrow(/bar/)
    expect(() => run.do({ kind: 'set', component: 'gone', target: 'setting', value: 1 })).toThrow(
      /no component/,
    )
    expect(() => run.do({ kind: 'longestStep', value: 0 })).toThrow(/not possible/)
    expect(run.actions).toEqual([])
    run.goOn(0.5)
    expect(run.shown).toBe(0.5)
  })
  it('bursts a line: the oil goes out of the hole and none of it is lost to the accounts', () => {
    const run = live(unit)
    run.goOn(1)
    const pipe = unit.pipes.find((p) => 'component' in p.to && p.to.component === relief)!
    run.do({ kind: 'set', component: pipe.id, target: 'burst', value: 4e-3 })
    run.goOn(2)
    const { oil, signals, extremes } = run.result()
    const flow = extremes[signals.findIndex((s) => s.id === `flow(${relief}.P)`)].end
    // 20 L/min through a hole of 4 mm need far less than the relief is set to
    expect(flow).toBeLessThan(0.1 * lpm)
    expect(extremes[line(run)].end).toBeLessThan(60 * bar)
    expect(oil.error).toBeLessThan(1e-3)
  })
  it('stops at the next event, and where there is too little time it comes as far as it can', () => {
    const sheet = build([{ kind: 'lift', size: 3, commands: [[3, 1]] }], 1500)
    const run = live(sheet, { held: false })
    run.goOn(
      5,
      () => true,
      (event) => event,
    )
    expect(run.shown).toBe(run.simulation.time)
    expect(run.shown).toBeLessThan(5)
    expect(run.simulation.events.count).toBeGreaterThan(0)
    let steps = 3
    run.goOn(50, () => steps-- > 0)
    expect(run.shown).toBe(run.simulation.time)
    expect(run.shown).toBeLessThan(50)
  })
  it('holds the commands of 0 s, or goes on with those of the schedule', () => {
    const valve = timed(unit, 5, [
      track(relief, 'setting', [0, '90 bar'], [1, '60 bar']),
      track(unit.components[1].id, 'speed', [2, '0 rpm']),
    ])
    expect(heldSchedule(valve.schedules[0]).tracks).toEqual([
      { component: relief, input: 'setting', points: [{ at: '0 s', value: '90 bar', shape: 'step' }] },
    ])
    const pressures = [true, false].map((held) => {
      const run = live(valve, { held })
      run.goOn(1.5)
      return run.frame(new Float64Array(200))[line(run)] / bar
    })
    expect(pressures[0]).toBeGreaterThan(75)
    expect(pressures[1]).toBeLessThan(65)
  })
  it('keeps its memory bounded and its peaks', () => {
    const [bounded, whole] = [1, 15e6].map((room) => {
      const run = live(unit, { room })
      run.goOn(1)
      run.do({ kind: 'set', component: relief, target: 'setting', value: 300 * bar })
      run.goOn(1.5)
      run.do({ kind: 'release', component: relief, target: 'setting' })
      run.goOn(100)
      return { result: run.result(), line: line(run) }
    })
    const { times, columns } = bounded.result
    expect(times.length).toBeLessThanOrEqual(65)
    expect(whole.result.times.length).toBeGreaterThan(9000)
    expect(Math.max(...columns[bounded.line])).toBe(Math.max(...whole.result.columns[whole.line]))
    for (let i = 1; i < times.length; i++) expect(times[i]).toBeGreaterThan(times[i - 1])
  })
  it('repeats an edited list of actions', () => {
    const run = live(unit)
    run.goOn(0.5)
    run.do({ kind: 'set', component: relief, target: 'setting', value: 90 * bar })
    run.goOn(2)
    const later: Action[] = run.actions.map((a) => ({ ...a, at: a.at + 1 }))
    run.goTo(later, 2)
    expect(run.actions.map((a) => a.at)).toEqual(later.map((a) => a.at))
    run.goTo([], 2)
    expect(run.actions).toEqual([])
  })
})
