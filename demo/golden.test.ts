/** What each demo machine does: its key figures, in which a change of a model shows first, and what it must do. */
import { describe, expect, it } from 'vitest'
import { operatingPoint } from '../core/simulate/operating-point'
import { signalIndex, valueAt, type RunResult } from '../core/simulate/result'
import golden from './golden.json'
import { runDemo, type Golden } from './golden'
import { demoMachines } from './machines'

/** Within 2 %, or an absolute least. */
const near = (value: number, expected: number, least: number) =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(Math.max(0.02 * Math.abs(expected), least))

describe.each(golden as unknown as Golden[])('$machine, $variant: $schedule', (g) => {
  it('runs to its end, keeps its accounts, and reaches its key figures', () => {
    const r = runDemo(g.machine, g.variant, g.schedule)
    expect(r.finished).toBe(true)
    expect(r.warnings).toEqual([])
    expect(r.energy.error).toBeLessThan(5e-4)
    expect(r.energy.missing).toEqual([])
    near(r.energy.input / 1000, g.energy[0], 0.05)
    near(r.energy.heat / 1000, g.energy[1], 0.05)
    for (const [line, [max, end]] of Object.entries(g.lines)) {
      const e = r.extremes[signalIndex(r, `pressure(${line})`)]
      near(e.max / 1e5, max, 0.3)
      near(e.end / 1e5, end, 0.3)
    }
    for (const [component, name, start, worst] of g.conditions) {
      const found = r.conditions.filter((c) => c.component === component && c.name === name)[0]
      expect(found, `${component} ${name}`).toBeDefined()
      near(found.start, start, 0.03)
      if (worst !== undefined) near(found.worst!.value, worst, 1e-6)
    }
  })
})

const at = (r: RunResult, id: string, t: number) => {
  const index = signalIndex(r, id)
  expect(index, id).toBeGreaterThanOrEqual(0)
  return valueAt(r, index, t)
}
const start = (r: RunResult, component: string, name: string) =>
  r.conditions.find((c) => c.component === component && c.name === name)?.start ?? Number.NaN
const bar = 1e5

it('every machine of the yard is drawn, and every schedule has its figures', () => {
  const runs = demoMachines().flatMap((m) =>
    m.variants.flatMap((v) => v.sheet.schedules.map((s) => `${m.name}, ${v.name}: ${s.id}`)),
  )
  expect(golden.map((g) => `${g.machine}, ${g.variant}: ${g.schedule}`)).toEqual(runs)
  expect(demoMachines().length).toBe(11)
})

describe('the blade press', () => {
  it.each(['One sequence valve', 'Two sequence valves'])('%s: never squeezes before it holds', (variant) => {
    const r = runDemo('Blade press', variant, 'cycle')
    const held = start(r, 'A1', 'extended')
    expect(at(r, 'A2.position', held)).toBeLessThan(0.002)
    expect(start(r, 'A2', 'extended')).toBeGreaterThan(held)
  })
  it('two sequence valves: also goes back in order, one does not', () => {
    const order = (variant: string) => {
      const r = runDemo('Blade press', variant, 'cycle')
      const t = (id: string) =>
        r.conditions.filter((c) => c.component === id && c.name === 'retracted').pop()!.start
      return t('A1') - t('A2')
    }
    expect(order('Two sequence valves')).toBeGreaterThan(0)
  })
  it('with a wedge half way pressure alone says done and the squeeze begins; position does not', () => {
    const r = runDemo('Blade press', 'Two sequence valves', 'jam')
    expect(at(r, 'A1.position', 7)).toBeLessThan(0.25)
    expect(at(r, 'A2.position', 7.5)).toBeGreaterThan(0.05)
    const switched = runDemo('Blade press', 'Pressure and limit switches', 'jam')
    // the pressure switch trips, the limit switch never does
    expect(start(switched, 'S2', 'tripped')).toBeGreaterThan(0)
    expect(start(switched, 'B1', 'tripped')).toBeNaN()
  })
  it('two hand valves: pulled too early both move at once', () => {
    const r = runDemo('Blade press', 'Two hand valves', 'early')
    expect(at(r, 'A2.position', start(r, 'A1', 'extended') - 0.05)).toBeGreaterThan(0.02)
  })
})

describe('the boat lift', () => {
  it('holds its platform between commands and never falls faster than the pump lets it', () => {
    const r = runDemo('Boat lift', 'Counterbalance valve', 'lift')
    expect(Math.abs(at(r, 'A1.position', 11.9) - at(r, 'A1.position', 9))).toBeLessThan(0.0005)
    expect(r.extremes[signalIndex(r, 'A1.velocity')].min).toBeGreaterThan(-0.5)
  })
  it('without power stands, and comes down by the hand pump', () => {
    const r = runDemo('Boat lift', 'Pilot check, hand pump', 'dead')
    expect(at(r, 'M1.speed', 11)).toBe(0)
    expect(Math.abs(at(r, 'A1.position', 11.9) - at(r, 'A1.position', 11))).toBeLessThan(0.002)
    expect(at(r, 'A1.position', 29.9)).toBeLessThan(at(r, 'A1.position', 12) - 0.05)
    expect(r.extremes[signalIndex(r, 'A1.velocity')].min).toBeGreaterThan(-0.6)
  })
})

describe('the slipway winch', () => {
  it('keeps oil on its low side while it is charged, holds on its brake, and starves without charge', () => {
    const r = runDemo('Slipway winch', 'Charge relief to tank', 'haul')
    expect(r.conditions.filter((c) => c.name === 'cavitation')).toEqual([])
    expect(at(r, 'W1.hauled', 6)).toBeGreaterThan(0.5)
    expect(Math.abs(at(r, 'W1.hauled', 7.9) - at(r, 'W1.hauled', 7.4))).toBeLessThan(0.005)
    const failed = runDemo('Slipway winch', 'Charge relief to tank', 'no-charge')
    expect(at(failed, 'pressure(charge line)', 11.9)).toBeLessThan(
      0.3 * at(failed, 'pressure(charge line)', 3.9),
    )
    // the brake comes on by its spring as its pressure goes
    expect(at(failed, 'Q1.lift', 11.9)).toBeLessThan(0.5)
  })
})

describe('the turntable', () => {
  /** Angle that the table goes on after its lever is let go, rad. */
  const overrun = (variant: string, schedule: string) => {
    const r = runDemo('Turntable', variant, schedule)
    return at(r, 'W1.angle', r.duration) - at(r, 'W1.angle', 8)
  }
  it('stops sooner with a higher setting, whichever way it is braked', () => {
    for (const variant of ['Brake valves, open centre', 'Cross-port reliefs, blocked centre']) {
      expect(overrun(variant, 'soft')).toBeGreaterThan(1.2 * overrun(variant, 'turn'))
      expect(overrun(variant, 'turn')).toBeGreaterThan(0)
    }
  })
  it('makes up the leakage of its motor case through the checks as long as it is braked', () => {
    for (const variant of ['Cross-port reliefs, blocked centre', 'Cross-port reliefs, tandem centre']) {
      const made = runDemo('Turntable', variant, 'turn').conditions.filter(
        (c) => c.component === 'V3' && c.label.startsWith('makes up') && c.start > 8,
      )
      expect(Math.max(...made.map((c) => c.end - c.start))).toBeGreaterThan(0.8)
    }
  })
  it('idles unloaded with a tandem centre and at the relief with a blocked one', () => {
    const idle = (variant: string) =>
      at(runDemo('Turntable', variant, 'turn'), 'pressure(pump line)', 13.9) / bar
    expect(idle('Cross-port reliefs, blocked centre')).toBeGreaterThan(130)
    expect(idle('Cross-port reliefs, tandem centre')).toBeLessThan(20)
  })
})

describe('the gate pack', () => {
  it('closes from its accumulator while the pump is unloaded at first', () => {
    const r = runDemo('Gate pack', 'Pump unloaded', 'close')
    const unloaded = r.conditions.find((c) => c.name === 'unloaded')!
    expect(unloaded.start).toBeLessThan(25)
    expect(unloaded.end).toBeGreaterThan(25)
    expect(at(r, 'A1.position', 26)).toBeGreaterThan(0.05)
  })
  it('closes with its motor stopped, its valve staying over by its detent; bled, it has nothing left', () => {
    const r = runDemo('Gate pack', 'Motor started and stopped', 'close')
    expect(Math.abs(at(r, 'M1.shaftPower', 24))).toBeLessThan(0.1)
    expect(at(r, 'V4.spool', 40)).toBeCloseTo(1, 3)
    expect(at(r, 'A1.position', 26.5)).toBeGreaterThan(0.05)
    const bled = runDemo('Gate pack', 'Motor started and stopped', 'bleed')
    expect(at(bled, 'pressure(vessel line)', 39) / bar).toBeLessThan(2)
    expect(at(bled, 'A1.position', 39.5)).toBeLessThan(0.2)
  })
})

describe('the quay crane', () => {
  it('keeps each lever its flow; flow sharing keeps their ratio when the pump runs out', () => {
    const r = runDemo('Quay crane', 'Pre-compensated', 'together')
    // hoisting goes on unchanged while luff and slew come in
    expect(at(r, 'V5.working', 4.5) / at(r, 'V5.working', 1.9)).toBeCloseTo(1, 1)
    const ratio = (variant: string) => {
      const short = runDemo('Quay crane', variant, 'short')
      return [
        at(short, 'V5.working', 7.5) / 40,
        at(short, 'V4.working', 7.5) / 16,
        at(short, 'V2.working', 7.5) / 24,
      ].map((q) => q * 60000)
    }
    const shared = ratio('Flow sharing')
    expect(Math.max(...shared) / Math.min(...shared)).toBeLessThan(1.25)
    expect(Math.max(...shared)).toBeLessThan(0.95)
  })
  it('holds the load on its brake between the motions', () => {
    const r = runDemo('Quay crane', 'Pre-compensated', 'together')
    expect(Math.abs(at(r, 'W3.hauled', 8.9) - at(r, 'W3.hauled', 7.5))).toBeLessThan(0.005)
  })
})

describe('the mud dredge', () => {
  it('merges both pumps for the bucket and keeps its pilot supply while the pump line collapses', () => {
    const r = runDemo('Mud dredge', 'Merge and divide', 'dig')
    expect(at(r, 'A1.velocity', 3.2) / at(r, 'A1.velocity', 2.2)).toBeGreaterThan(1.6)
    const pilot = r.extremes[signalIndex(r, 'pressure(pilot supply)')]
    expect(pilot.min / bar).toBeGreaterThan(25)
    const valveLine = r.extremes[signalIndex(r, 'pressure(valve line 1)')]
    expect(valveLine.min / bar).toBeLessThan(15)
  })
  it('does not cavitate its arm on the way down, and pushes harder with its higher setting', () => {
    const r = runDemo('Mud dredge', 'Merge and divide', 'dig')
    const arm = r.lines.indexOf('arm line B')
    expect(r.conditions.filter((c) => c.name === 'cavitation' && c.node === arm)).toEqual([])
    const boost = runDemo('Mud dredge', 'Merge and divide', 'boost')
    expect(at(boost, 'pressure(pump line 1)', 9.5)).toBeGreaterThan(
      at(boost, 'pressure(pump line 1)', 6.4) + 15 * bar,
    )
  })
})

describe('the tug bank', () => {
  const standby = (variant: string, schedule = 'levers') => {
    const sheet = demoMachines()
      .find((m) => m.name === 'Yard tug bank')!
      .variants.find((v) => v.name === variant)!.sheet
    const point = operatingPoint(sheet, schedule, 0)
    return {
      pressure: point.values.get('pressure(pump line)')!.value / bar,
      power: point.values.get('M1.shaftPower')!.value / 1000,
    }
  }
  it('idles at little pressure with an open centre, at its compensator with a closed one', () => {
    const [open, closed] = [standby('Open centre'), standby('Closed centre')]
    expect(open.pressure).toBeLessThan(15)
    expect(closed.pressure).toBeGreaterThan(150)
    // and both cost little: much oil at no pressure, or pressure without oil
    expect(open.power).toBeLessThan(1.5)
    expect(closed.power).toBeLessThan(1.5)
  })
  it('shows a wrong plug: the pump runs over its relief from the start', () => {
    for (const variant of ['Open centre', 'Carry-over']) {
      const wrong = runDemo('Yard tug bank', variant, 'wrong')
      expect(at(wrong, 'pressure(pump line)', 3.9) / bar).toBeGreaterThan(150)
      expect(wrong.conditions.some((c) => c.component === 'V1' && c.name === 'cracked')).toBe(true)
    }
  })
  it('carries the oil that it does not use over to the second bank', () => {
    const r = runDemo('Yard tug bank', 'Carry-over', 'levers')
    expect(at(r, 'A4.position', 6)).toBeGreaterThan(0.05)
  })
})

describe('the sluice rotor', () => {
  it('answers its order and holds against the waves', () => {
    const r = runDemo('Sluice rotor', 'Duty and standby packs', 'order')
    expect(at(r, 'A1.angle', 3.5)).toBeGreaterThan(at(r, 'A1.angle', 0.9) + 0.2)
    expect(Math.abs(at(r, 'A1.angle', 7.9) - at(r, 'A1.angle', 4.5))).toBeLessThan(0.01)
  })
  it('loses its oil, trips its level, and goes on with the standby pack', () => {
    const r = runDemo('Sluice rotor', 'Duty and standby packs', 'leak')
    const low = start(r, 'B1', 'tripped')
    expect(low).toBeGreaterThan(4)
    expect(low).toBeLessThan(24)
    expect(at(r, 'A1.angle', 31)).toBeLessThan(at(r, 'A1.angle', 27) - 0.2)
    expect(at(r, 'T21.oil', 39) * 1000).toBeGreaterThan(38)
  })
  it('is moved by hand when both packs are dead, and not at all by a lever nobody pumps for', () => {
    const r = runDemo('Sluice rotor', 'Duty and standby packs', 'hand')
    expect(at(r, 'A1.angle', 12) - at(r, 'A1.angle', 2.4)).toBeGreaterThan(0.03)
    expect(Math.abs(at(r, 'A1.angle', 2.4) - at(r, 'A1.angle', 2.05))).toBeLessThan(0.005)
  })
})

describe('the shavings press', () => {
  it('goes out quickly with both pumps, presses with the small one, on half the motor of one pump', () => {
    const [highLow, whole, one] = [
      'High–low, unloader and check',
      'Two-stage pump',
      'One pump, larger motor',
    ].map((v) => runDemo('Shavings press', v, 'bale'))
    const peak = (r: RunResult) => r.extremes[signalIndex(r, 'M1.shaftPower')].max / 1000
    for (const r of [highLow, whole]) {
      // as quick as the one pump on the way out
      expect(at(r, 'A1.velocity', 2.5) / at(one, 'A1.velocity', 2.5)).toBeGreaterThan(1)
      expect(peak(r)).toBeLessThan(0.65 * peak(one))
      // and it reaches the same pressure at the end
      expect(at(r, 'A1.capPressure', 7.4) / bar).toBeGreaterThan(150)
    }
    // the large flow is let go once the bale pushes back
    for (const [r, id] of [
      [highLow, 'V7'],
      [whole, 'P1'],
    ] as const)
      expect(r.conditions.some((c) => c.component === id && c.name === 'unloaded' && c.start > 3)).toBe(true)
  })
})
