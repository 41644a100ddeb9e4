/** Random legal circuits under random schedules: nothing is lost, nothing blows up, order does not matter. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Sheet, Track } from '../sheet/schema'
import { circuit } from '../testing'
import { compile } from './compile'
import { run } from './run'

/** Consumers that hang between the pump line and the tank line, each with its valve where it needs one. */
const consumers = fc.constantFrom('cylinder', 'motor', 'throttle', 'accumulator', 'relief', 'lift')
const values = fc.record({
  kind: consumers,
  size: fc.integer({ min: 1, max: 6 }),
  commands: fc.array(fc.tuple(fc.integer({ min: 1, max: 19 }), fc.constantFrom(-1, 0, 1)), { maxLength: 4 }),
})
type Consumer = { kind: string; size: number; commands: [number, number][] }

function build(list: readonly Consumer[], speed: number): Sheet {
  const components: Parameters<typeof circuit>[0] = {
    tank: ['reservoir'],
    motor: ['electric-motor', { speed: `${speed} rpm`, ratedPower: '50 kW' }],
    pump: ['fixed-pump', { displacement: '25 cm³/rev' }],
    relief: ['relief-valve-direct', { setting: '180 bar', ratedFlow: '60 L/min' }],
    back: ['reservoir'],
  }
  const pipes = ['tank.T pump.S', 'motor.W pump.W', 'pump.P relief.P', 'relief.T back.T']
  const add = (name: string, kind: string, parameters: Record<string, string> = {}) =>
    (components[name] = [kind, parameters])
  list.forEach(({ kind, size }, i) => {
    const n = (name: string) => `${name}${i}`
    const valve = (centre: string) => {
      add(n('valve'), 'directional-valve-4-3', { centre, ratedFlow: `${10 * size} L/min` })
      add(n('return'), 'reservoir')
      pipes.push(`pump.P ${n('valve')}.P`, `${n('valve')}.T ${n('return')}.T`)
    }
    if (kind === 'cylinder' || kind === 'lift') {
      valve(kind === 'lift' ? 'float' : 'closed')
      add(n('ram'), 'cylinder-double-acting', {
        bore: `${40 + 10 * size} mm`,
        rod: '25 mm',
        mass: `${50 * size * size} kg`,
        start: `${20 * size} mm`,
        angle: kind === 'lift' ? '90 °' : '0 °',
        loadForce: `${size} kN`,
      })
      if (kind === 'lift') {
        add(n('hold'), 'pilot-operated-check')
        pipes.push(
          `${n('valve')}.A ${n('hold')}.A`,
          `${n('hold')}.B ${n('ram')}.A`,
          `${n('valve')}.B ${n('hold')}.X`,
        )
      } else pipes.push(`${n('valve')}.A ${n('ram')}.A`)
      pipes.push(`${n('valve')}.B ${n('ram')}.B`)
    } else if (kind === 'motor') {
      valve('float')
      add(n('turn'), 'hydraulic-motor', {
        displacement: `${20 * size} cm³/rev`,
        loadTorque: `${10 * size} N·m`,
      })
      add(n('case'), 'reservoir')
      pipes.push(
        `${n('valve')}.A ${n('turn')}.A`,
        `${n('valve')}.B ${n('turn')}.B`,
        `${n('turn')}.L ${n('case')}.T`,
      )
    } else if (kind === 'throttle') {
      add(n('jet'), 'orifice', { diameter: `${0.4 * size} mm` })
      add(n('end'), 'reservoir')
      pipes.push(`pump.P ${n('jet')}.A`, `${n('jet')}.B ${n('end')}.T`)
    } else if (kind === 'accumulator') {
      add(n('check'), 'check-valve')
      add(n('store'), 'accumulator-gas', { volume: `${size} L`, precharge: `${20 * size} bar` })
      pipes.push(`pump.P ${n('check')}.A`, `${n('check')}.B ${n('store')}.P`)
    } else {
      add(n('other'), 'relief-valve-pilot-operated', { setting: `${60 + 20 * size} bar` })
      add(n('end'), 'reservoir')
      pipes.push(`pump.P ${n('other')}.P`, `${n('other')}.T ${n('end')}.T`)
    }
  })
  const sheet = circuit(components, pipes)
  const valves = sheet.components.filter((c) => c.kind === 'directional-valve-4-3')
  const commanded = list.filter((c) => ['cylinder', 'lift', 'motor'].includes(c.kind))
  const tracks = valves.flatMap((valve, i): Track[] => {
    const points = [...commanded[i].commands]
      .sort((a, b) => a[0] - b[0])
      .map(([at, value]) => ({ at: `${at / 10} s`, value: String(value), shape: 'step' as const }))
    return points.length ? [{ component: valve.id, input: 'command', points }] : []
  })
  return { ...sheet, schedules: [{ ...sheet.schedules[0], duration: '2 s', every: '20 ms', tracks }] }
}
const solve = (sheet: Sheet) => {
  const { compiled, findings } = compile(sheet)
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return run(compiled)
}

describe('random circuits', () => {
  it('run to the end, keep their oil and energy, and never go below no pressure at all', () => {
    fc.assert(
      fc.property(
        fc.array(values, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(300, 1000, 1500),
        (list, speed) => {
          const r = solve(build(list as Consumer[], speed))
          expect(r.stopped).toBeUndefined()
          expect(r.oil.error).toBeLessThan(1e-3)
          expect(r.energy.error).toBeLessThan(1e-6)
          r.signals.forEach((s, i) => {
            expect(Number.isFinite(r.extremes[i].min) && Number.isFinite(r.extremes[i].max), s.id).toBe(true)
            if (s.role === 'pressure') expect(r.extremes[i].min, s.id).toBeGreaterThanOrEqual(-101325 - 1)
          })
        },
      ),
      { numRuns: 40, seed: 20261 },
    )
  }, 60_000)
  it('do not depend on the order in which their parts were drawn', () => {
    fc.assert(
      fc.property(fc.array(values, { minLength: 2, maxLength: 4 }), (list) => {
        const sheet = build(list as Consumer[], 1500)
        const [a, b] = [
          solve(sheet),
          solve({ ...sheet, components: [...sheet.components].reverse(), pipes: [...sheet.pipes].reverse() }),
        ]
        const pump = sheet.components.find((c) => c.kind === 'fixed-pump')!.id
        const lineOf = (r: typeof a) => r.lineOfPort[`${pump}.P`]
        const [p, q] = [a.extremes[lineOf(a)], b.extremes[lineOf(b)]]
        expect(Math.abs(p.max - q.max)).toBeLessThan(2e-3 * p.max + 1e4)
        expect(Math.abs(p.end - q.end)).toBeLessThan(2e-3 * p.max + 1e4)
      }),
      { numRuns: 12, seed: 7 },
    )
  }, 60_000)
  it('say which component is in the way when a run cannot go on', () => {
    const sheet = build([{ kind: 'throttle', size: 2, commands: [] }], 1500)
    const { compiled } = compile(sheet)
    const jet = sheet.components.find((c) => c.kind === 'orifice')!.id
    const element = compiled!.network.elements.find((e) => e.id === jet)!
    // an element that fails half way: its equations give no number any more
    const evaluate = element.model.evaluate.bind(element.model)
    element.model.evaluate = (l) => {
      evaluate(l)
      if (compiled!.network.time > 0.5) l.q[0] = Number.NaN
    }
    const r = run(compiled!)
    expect(r.finished).toBe(false)
    expect(r.stopped!.message).toMatch(/stopped at 0\.[45]\d* s: the step size fell to nothing/)
    expect(r.stopped!.component).toBeTruthy()
    expect(r.columns.every((c) => c.every(Number.isFinite))).toBe(true)
  })
})
