/** The order of events of the machines with a control: healthy, jammed, stopped, without voltage; and what is proved of each. */
import { describe, expect, it } from 'vitest'
import { prove } from '../core/control/prove'
import { checkControl } from '../core/control/check'
import { operationFindings } from '../core/control/operation'
import { hasControl } from '../core/formats/registry'
import { signalIndex, valueAt, type RunResult } from '../core/simulate/result'
import { runDemo } from './golden'
import { demoMachines } from './machines'

const at = (r: RunResult, id: string, t: number) => {
  const index = signalIndex(r, id)
  expect(index, id).toBeGreaterThanOrEqual(0)
  return valueAt(r, index, t)
}
/** What control did, in order, as "K1 pulls in". */
const order = (r: RunResult) =>
  r.events.filter((e) => e.source === 'control').map((e) => `${e.component} ${e.what}`)
/** Instants at which a rod reaches its ends. */
const reached = (r: RunResult, id: string, end: 'extended' | 'retracted', after = 0) =>
  r.conditions.find((c) => c.component === id && c.name === end && c.start > after)?.start ?? Number.NaN
const violated = (r: RunResult) => r.conditions.some((c) => c.name === 'violated')

const controlled = demoMachines().flatMap((m) =>
  m.variants
    .filter((v) => hasControl(v.sheet))
    .map((v) => [`${m.name}, ${v.name}`, v.sheet, m.brief.operation] as const),
)

describe.each(controlled)('%s', (name, sheet, operation) => {
  it('has a control in which nothing is found', () => {
    expect(checkControl(sheet).filter((f) => !f.accepted)).toEqual([])
  })
  it('has its interlocks proved', () => {
    const proofs = prove(sheet)
    expect(proofs.length).toBeGreaterThan(1)
    expect(proofs.filter((p) => !['proved', 'watched', 'chance'].includes(p.outcome))).toEqual([])
    // its brief asks for two hands, and these two are started by one
    expect(operationFindings(sheet, operation, proofs)).toEqual(
      name.startsWith('Blade press')
        ? ['The brief asks for a start with both hands, and the control has one start button, S12.']
        : [],
    )
  })
})

describe('the blade press', () => {
  const press = (variant: string, schedule: string) => runDemo('Blade press', variant, schedule)
  it('with pressure and limit switches does a cycle from one press', () => {
    const r = press('Pressure and limit switches', 'cycle')
    expect(order(r)).toEqual([
      'K1 pulls in',
      'V2 coilA = 1',
      'V3 coilA = 1',
      'K2 goes on',
      'K3 pulls in',
      'V2 coilA = 0',
      'V3 coilA = 0',
      'K1 drops out',
      'K2 goes off',
      'V3 coilB = 1',
      'V3 coilB = 0',
      'V2 coilB = 1',
      'K3 drops out',
      'V2 coilB = 0',
    ])
    const clamped = reached(r, 'A1', 'extended')
    const squeezed = reached(r, 'A2', 'extended')
    expect(clamped).toBeLessThan(squeezed)
    expect(at(r, 'A2.position', clamped)).toBeLessThan(0.002)
    // the squeeze is back before the clamp begins to go
    expect(reached(r, 'B3', 'tripped' as 'extended', squeezed)).toBeLessThan(
      reached(r, 'A1', 'retracted', squeezed),
    )
    expect(violated(r)).toBe(false)
  })
  it('keeps the force of its clamp while it squeezes', () => {
    const r = press('Pressure and limit switches', 'cycle')
    // its pilot check keeps what the pump gave: 145 bar on a bore of 63 mm are 45 kN
    for (let t = 3; t < 6.4; t += 0.1)
      expect(at(r, 'A1.capPressure', t) * Math.PI * 0.0315 ** 2).toBeGreaterThan(44e3)
    const tripped = r.conditions.filter((c) => c.component === 'S2' && c.name === 'tripped')
    expect(tripped).toHaveLength(1)
  })
  it('starts only with a work-piece in its place', () => {
    const r = press('Pressure and limit switches', 'empty')
    const started = r.events.filter((e) => e.component === 'K1' && e.what === 'pulls in').map((e) => e.at)
    expect(started).toHaveLength(1)
    expect(started[0]).toBeCloseTo(3.015, 3)
    expect(at(r, 'A1.position', 2.9)).toBeLessThan(0.002)
  })
  it('jammed half way stays, and starts again only after a stop', () => {
    const r = press('Pressure and limit switches', 'jam')
    expect(at(r, 'S2.on', 3)).toBe(1)
    expect(at(r, 'A2.position', 7.9)).toBeLessThan(0.002)
    // the second press, at 4 s, does nothing; the stop at 5 s lets the valve go
    expect(order(r)).toEqual(['K1 pulls in', 'V2 coilA = 1', 'K1 drops out', 'V2 coilA = 0'])
    expect(violated(r)).toBe(false)
  })
  it('stopped in an emergency stands, and goes back only when somebody asks for it', () => {
    const r = press('Pressure and limit switches', 'stop')
    const stop = r.events.find((e) => e.what === 'pressed = 1' && e.component === 'S10')!.at
    expect(order(r).slice(3, 6)).toEqual(['K1 drops out', 'V2 coilA = 0', 'V3 coilA = 0'])
    expect(Math.abs(at(r, 'A2.position', 6.9) - at(r, 'A2.position', stop + 0.3))).toBeLessThan(0.001)
    expect(order(r)).toContain('K3 pulls in')
    expect(reached(r, 'A1', 'retracted', 7)).toBeLessThan(10)
  })
  it('does not start by itself when its control voltage comes back', () => {
    const r = press('Pressure and limit switches', 'power')
    expect(order(r).slice(3)).toEqual(['V2 coilA = 0', 'V3 coilA = 0', 'K1 drops out'])
    expect(at(r, 'V3.coilA', 7.9)).toBe(0)
  })
  it('with a sequence valve, switches and a relay goes there and back from one press', () => {
    const r = press('Sequence valve, limit switches, relay', 'cycle')
    expect(order(r).filter((e) => e.startsWith('K'))).toEqual([
      'K1 pulls in',
      'K3 pulls in',
      'K1 drops out',
      'K3 drops out',
    ])
    expect(reached(r, 'A1', 'extended')).toBeLessThan(reached(r, 'B4', 'tripped' as 'extended'))
    expect(violated(r)).toBe(false)
  })
  it('with two sequence valves keeps its clamp shut while the squeeze goes back', () => {
    const r = press('Two sequence valves', 'cycle')
    const back = reached(r, 'A2', 'retracted', 5)
    for (let t = 6; t < back; t += 0.05) {
      expect(at(r, 'A1.position', t)).toBeGreaterThan(0.3)
      expect(at(r, 'A1.capPressure', t)).toBeGreaterThan(140e5)
    }
    expect(reached(r, 'A1', 'retracted', back)).toBeGreaterThan(back + 1)
  })
  it.each([
    ['One sequence valve', true],
    ['Two sequence valves', true],
    ['Two hand valves', true],
    ['Sequence valve, limit switches, relay', true],
    ['Pressure and limit switches', false],
  ])('%s: with a jammed clamp the wrong order is %s', (variant, wrong) => {
    expect(violated(press(variant, 'cycle'))).toBe(false)
    const r = press(variant, 'jam')
    expect(violated(r)).toBe(wrong)
    expect(at(r, 'A1.position', 7.5)).toBeLessThan(0.25)
  })
})

describe('the shavings press', () => {
  const press = (schedule: string) => runDemo('Shavings press', 'High–low, unloader and check', schedule)
  it('presses a bale from one press, holds it, and goes back', () => {
    const r = press('bale')
    expect(order(r).filter((e) => /^[KQ]/.test(e))).toEqual([
      'Q1 pulls in',
      'K1 pulls in',
      'K2 goes on',
      'K3 pulls in',
      'K1 drops out',
      'K2 goes off',
      'K3 drops out',
    ])
    expect(at(r, 'A1.position', 13)).toBeLessThan(0.001)
  })
  it('stopped in an emergency has its pumps stopped and its ram held', () => {
    const r = press('stop')
    expect(at(r, 'P1.delivery', 5.5)).toBeLessThan(1e-7)
    expect(Math.abs(at(r, 'A1.position', 7.9) - at(r, 'A1.position', 5.5))).toBeLessThan(0.002)
  })
})

describe('the gate pack', () => {
  it('is started and stopped by its pressure switch, without its motor over its power for long', () => {
    const r = runDemo('Gate pack', 'Motor started and stopped', 'close')
    expect(order(r).filter((e) => e.startsWith('Q1'))).toEqual([
      'Q1 pulls in',
      'Q1 drops out',
      'Q1 pulls in',
      'Q1 drops out',
    ])
    const overload = r.conditions.filter((c) => c.component === 'M1' && c.name === 'overload')
    for (const { start, end } of overload) expect(end - start).toBeLessThan(0.1)
    expect(r.conditions.some((c) => c.component === 'V1' && c.node === undefined)).toBe(false)
  })
})

describe('the slipway winch', () => {
  it('starts with its joystick in neutral only, and lifts its brake once it leaves it', () => {
    const wrong = runDemo('Slipway winch', 'Charge relief to tank', 'not-neutral')
    expect(wrong.events.filter((e) => e.what === 'pulls in').map((e) => e.at > 3)).toEqual([true, true])
    const r = runDemo('Slipway winch', 'Charge relief to tank', 'haul')
    const lifted = r.events.find((e) => e.component === 'V6' && e.what === 'coilA = 1')!.at
    // 3 % of a ramp of 1.3 s that begins at 1.2 s
    expect(lifted).toBeCloseTo(1.2 + 0.03 * 1.3, 3)
  })
  it('stopped in an emergency puts its brake on and holds the hull', () => {
    const r = runDemo('Slipway winch', 'Charge relief to tank', 'stop')
    expect(order(r)).toContain('V6 coilA = 0')
    expect(Math.abs(at(r, 'W1.hauled', 7.9) - at(r, 'W1.hauled', 5))).toBeLessThan(0.01)
  })
})

describe('the boat lift', () => {
  it('stops its pump while the service lock is set, and needs a new start after it', () => {
    const r = runDemo('Boat lift', 'Lever valve with float, and a lock', 'work')
    expect(order(r).filter((e) => e.startsWith('Q1'))).toEqual(['Q1 pulls in', 'Q1 drops out', 'Q1 pulls in'])
    // pressed at 9.5 s with the lock set it stays off
    expect(at(r, 'M1.speed', 10)).toBe(0)
    expect(at(r, 'P12.current', 10)).toBe(1)
  })
})

describe('the sluice rotor', () => {
  const rotor = (schedule: string) => runDemo('Sluice rotor', 'Duty and standby packs', schedule)
  it('follows its order within its dead band, and is held there', () => {
    const r = rotor('order')
    // ordered to 0.942 rad at 1 s, to 0.436 rad at 8 s; dead band 0.0175 rad
    expect(Math.abs(at(r, 'A1.angle', 4) - 0.942)).toBeLessThan(0.0175)
    expect(Math.abs(at(r, 'A1.angle', 7.9) - 0.942)).toBeLessThan(0.0175)
    expect(Math.abs(at(r, 'A1.angle', 15.9) - 0.436)).toBeLessThan(0.0175)
    // once there it is left alone
    expect(order(r).filter((e) => /^K[34]/.test(e))).toEqual([
      'K3 pulls in',
      'K3 drops out',
      'K4 pulls in',
      'K4 drops out',
    ])
  })
  it('changes over to the standby pack by its level switch, at once and for good, with an alarm', () => {
    const r = rotor('leak')
    const low = r.conditions.find((c) => c.component === 'B1' && c.name === 'tripped')!.start
    const standby = r.events.find((e) => e.component === 'Q2' && e.what === 'pulls in')!.at
    expect(standby - low).toBeCloseTo(0.03, 6)
    expect(order(r).filter((e) => /^I\d/.test(e))).toEqual([
      'I1 command = 1',
      'I1 command = 0',
      'I2 command = 1',
    ])
    expect(at(r, 'P21.state', 30)).toBe(1)
    expect(at(r, 'P24.current', 30)).toBe(1)
    // acknowledged at 32 s it stands, and the horn is silent
    expect(at(r, 'P21.state', 35)).toBe(2)
    expect(at(r, 'P24.current', 35)).toBe(0)
  })
  it('stands without its control voltage, and starts nothing when it comes back', () => {
    const r = rotor('voltage')
    expect(order(r).filter((e) => e.endsWith('pulls in') && e.startsWith('K1'))).toHaveLength(1)
    expect(at(r, 'Q1.on', 15)).toBe(0)
  })
})
