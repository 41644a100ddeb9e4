/** What each demo machine does, by its key figures: a change of a model shows here first. */
import { describe, expect, it } from 'vitest'
import { compile } from '../core/simulate/compile'
import { signalIndex, type RunResult } from '../core/simulate/result'
import { run } from '../core/simulate/run'
import { demoMachines } from './machines'

const machines = demoMachines()
function solve(machine: string, schedule: string): RunResult {
  const { compiled } = compile(machines.find((m) => m.name === machine)!.sheet, schedule)
  return run(compiled!)
}
interface Golden {
  machine: string
  schedule: string
  /** kJ put in at shafts and turned into heat. */
  energy: [number, number]
  /** Line: highest pressure and pressure at the end, bar. */
  lines: Record<string, [number, number]>
  /** Component and condition: start s, and its worst value where it has one (SI). */
  conditions: [component: string, name: string, start: number, worst?: number][]
}
const golden: Golden[] = [
  {
    machine: 'Shavings press',
    schedule: 'bale',
    energy: [80.905, 80.571],
    lines: { 'pump line': [192.95, 183.25], 'cap line': [182.76, 0], 'rod line': [182.76, 182.76] },
    conditions: [
      ['A1', 'contact', 4.2023, 0.12224],
      ['A1', 'extended', 5.5042, 0.11218],
      ['A1', 'retracted', 12.4912, -0.15469],
      ['V1', 'cracked', 5.5066, 5.8137e-4],
    ],
  },
  {
    machine: 'Shavings press',
    schedule: 'half',
    energy: [66.428, 66.047],
    lines: { 'cap line': [61.94, 0] },
    conditions: [['A1', 'retracted', 7.4806, -0.15469]],
  },
  {
    machine: 'Relief rig',
    schedule: 'compare',
    energy: [14.507, 14.507],
    lines: { 'pump line': [170.26, 10.2], 'line of the piloted valve': [162.92, 0] },
    conditions: [
      ['V1', 'cracked', 0.0204, 4.3531e-4],
      ['V3', 'cracked', 1.0253, 2.3557e-4],
    ],
  },
  {
    machine: 'Relief rig',
    schedule: 'speeds',
    energy: [27.607, 27.555],
    lines: { 'pump line': [164.25, 164.25] },
    conditions: [['V1', 'cracked', 0.106, 3.75e-4]],
  },
  {
    machine: 'Blade press',
    schedule: 'cycle',
    energy: [44.363, 42.269],
    lines: { 'pump line': [153.5, 146.13], 'line A': [146.13, 0], 'squeeze line': [146.13, 0.49] },
    conditions: [
      // the clamp is home before the squeeze begins, and comes back after it
      ['A1', 'extended', 2.8698, 0.12728],
      ['V3', 'open', 2.8915, 6.1654e-4],
      ['A2', 'extended', 4.4711, 0.070508],
      ['A1', 'retracted', 9.1648, -0.18855],
    ],
  },
  {
    machine: 'Boat lift',
    schedule: 'lift',
    energy: [113.314, 119.141],
    lines: { 'pump line': [161.65, 152.02], 'held line': [142.9, 0] },
    conditions: [['A1', 'retracted', 17.1232, -0.15831]],
  },
  {
    machine: 'Slipway winch',
    schedule: 'haul',
    energy: [113.95, 80.488],
    lines: { 'line A': [230.2, 56.77], 'line B': [130.73, 18.7], 'charge line': [19.64, 19.22] },
    conditions: [
      ['V1', 'cracked', 1.3965, 3.1661e-4],
      ['V3', 'cracked', 0.0518, 2.2667e-4],
    ],
  },
  {
    machine: 'Gate pack',
    schedule: 'close',
    energy: [65.527, 30.222],
    lines: { 'accumulator line': [150, 143.94], 'pump line': [150.9, 0.88] },
    conditions: [
      ['V2', 'snap', 8.682],
      ['A1', 'extended', 28.0419, 0.1586],
      ['A1', 'retracted', 41.4371, -0.35733],
    ],
  },
]
/** Within 2 %, or 0.2 bar and 20 ms. */
const near = (value: number, expected: number, least: number) =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(Math.max(0.02 * Math.abs(expected), least))

describe.each(golden)('$machine, $schedule', (g) => {
  const r = solve(g.machine, g.schedule)
  it('runs to its end with its oil and energy accounted for', () => {
    expect(r.finished).toBe(true)
    expect(r.oil.error).toBeLessThan(1e-3)
    expect(r.energy.error).toBeLessThan(1e-6)
    near(r.energy.input / 1000, g.energy[0], 0)
    near(r.energy.heat / 1000, g.energy[1], 0)
  })
  it('reaches its pressures', () => {
    for (const [line, [max, end]] of Object.entries(g.lines)) {
      const e = r.extremes[signalIndex(r, `pressure(${line})`)]
      near(e.max / 1e5, max, 0.2)
      near(e.end / 1e5, end, 0.2)
    }
  })
  it('tells its story', () => {
    for (const [component, name, start, worst] of g.conditions) {
      const found = r.conditions.filter((c) => c.component === component && c.name === name)
      const best = found.sort((a, b) => Math.abs(a.start - start) - Math.abs(b.start - start))[0]
      expect(best, `${component} ${name}`).toBeDefined()
      near(best.start, start, 0.02)
      if (worst !== undefined) near(best.worst!.value, worst, 0)
    }
  })
})

describe('the machines do what they must', () => {
  const position = (r: RunResult, id: string, t: number) => {
    const column = r.columns[signalIndex(r, `${id}.position`)]
    return column[r.times.findIndex((x) => x >= t - 1e-9)]
  }
  it('the blade press never squeezes before it holds', () => {
    const r = solve('Blade press', 'cycle')
    const held = r.conditions.find((c) => c.component === 'A1' && c.name === 'extended')!.start
    expect(position(r, 'A2', held)).toBeLessThan(0.002)
  })
  it('the boat lift holds its platform between commands', () => {
    const r = solve('Boat lift', 'lift')
    expect(Math.abs(position(r, 'A1', 11.9) - position(r, 'A1', 9))).toBeLessThan(0.0005)
    // it never falls faster than the pump lets it
    expect(r.extremes[signalIndex(r, 'A1.velocity')].min).toBeGreaterThan(-0.5)
  })
  it('the winch keeps oil on its low side all the time', () => {
    const r = solve('Slipway winch', 'haul')
    expect(r.conditions.filter((c) => c.name === 'cavitation' && c.start > 0.1)).toEqual([])
  })
  it('the gate pack closes from its accumulator while the pump is unloaded at first', () => {
    const r = solve('Gate pack', 'close')
    const unloaded = r.conditions.find((c) => c.name === 'unloaded')!
    expect(unloaded.start).toBeLessThan(25)
    expect(unloaded.end).toBeGreaterThan(25)
    expect(position(r, 'A1', 26)).toBeGreaterThan(0.05)
  })
})
