/** Random legal circuits for property tests: consumers of many kinds on one power unit. */
import fc from 'fast-check'
import type { Sheet, Track } from '../sheet/schema'
import { circuit } from '../testing'

/** Consumers that hang between the pump line and the tank line, each with its valve where it needs one. */
export const consumerKinds = [
  'cylinder',
  'motor',
  'throttle',
  'accumulator',
  'relief',
  'lift',
  'winch',
  'section',
  'divider',
  'plunger',
  'lock',
  'regulated',
] as const
const MOST_COMPONENTS = 40
export const consumerValues = fc.record({
  kind: fc.constantFrom(...consumerKinds),
  size: fc.integer({ min: 1, max: 6 }),
  commands: fc.array(fc.tuple(fc.integer({ min: 1, max: 19 }), fc.constantFrom(-1, 0, 1)), { maxLength: 4 }),
})
export type Consumer = { kind: string; size: number; commands: [number, number][] }

export function build(list: readonly Consumer[], speed: number): Sheet {
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
    } else if (kind === 'winch') {
      valve('float')
      add(n('hold'), 'counterbalance-valve', { setting: `${100 + 10 * size} bar`, pilotRatio: '3' })
      add(n('turn'), 'hydraulic-motor', { displacement: '100 cm³/rev', inertia: '0.1 kg·m²' })
      add(n('drum'), 'winch-load', { mass: `${100 * size} kg`, slope: '90 °', ratio: '10' })
      add(n('case'), 'reservoir')
      pipes.push(
        `${n('valve')}.A ${n('hold')}.2`,
        `${n('hold')}.1 ${n('turn')}.A`,
        `${n('valve')}.B ${n('turn')}.B`,
        `${n('valve')}.B ${n('hold')}.X`,
        `${n('turn')}.L ${n('case')}.T`,
        `${n('turn')}.W ${n('drum')}.W`,
      )
    } else if (kind === 'section') {
      add(n('lever'), 'valve-section', { ratedFlow: `${10 * size} L/min` })
      add(n('cover'), 'bank-outlet', { setup: size % 2 ? 'closedCentre' : 'openCentre' })
      add(n('ram'), 'cylinder-double-rod', { bore: '50 mm', rod: '25 mm', cushionOut: '20 mm' })
      add(n('return'), 'reservoir')
      pipes.push(
        `pump.P ${n('lever')}.P`,
        `pump.P ${n('lever')}.N`,
        `${n('lever')}.M ${n('cover')}.N`,
        `${n('cover')}.T ${n('return')}.T`,
        `${n('lever')}.T ${n('return')}.T`,
        `${n('lever')}.A ${n('ram')}.A`,
        `${n('lever')}.B ${n('ram')}.B`,
      )
    } else if (kind === 'divider') {
      add(n('split'), size % 2 ? 'flow-divider-gear' : 'flow-divider-spool')
      add(n('one'), 'needle-valve', { opening: `${10 * size} %` })
      add(n('two'), 'relief-valve-direct', { setting: `${20 * size} bar` })
      add(n('end'), 'reservoir')
      pipes.push(
        `pump.P ${n('split')}.P`,
        `${n('split')}.A ${n('one')}.A`,
        `${n('split')}.B ${n('two')}.P`,
        `${n('one')}.B ${n('end')}.T`,
        `${n('two')}.T ${n('end')}.T`,
      )
    } else if (kind === 'plunger') {
      add(n('seat'), 'poppet-valve', { rest: size % 2 ? 'open' : 'shut' })
      add(n('ram'), size > 3 ? 'cylinder-telescopic' : 'cylinder-plunger', { angle: '90 °', mass: '200 kg' })
      pipes.push(`pump.P ${n('seat')}.A`, `${n('seat')}.B ${n('ram')}.A`)
    } else if (kind === 'lock') {
      valve('float')
      add(n('lock'), 'double-pilot-check')
      add(n('turn'), 'semi-rotary', { displacement: `${size} L`, loadTorque: `${100 * size} N·m` })
      pipes.push(
        `${n('valve')}.A ${n('lock')}.A`,
        `${n('valve')}.B ${n('lock')}.B`,
        `${n('lock')}.A1 ${n('turn')}.A`,
        `${n('lock')}.B1 ${n('turn')}.B`,
      )
    } else if (kind === 'regulated') {
      add(n('keep'), size % 2 ? 'priority-valve' : 'flow-control-3-way', { flow: `${2 * size} L/min` })
      add(n('load'), 'relief-valve-direct', { setting: `${15 * size} bar` })
      add(n('end'), 'reservoir')
      pipes.push(
        `pump.P ${n('keep')}.${size % 2 ? 'P' : 'A'}`,
        `${n('keep')}.${size % 2 ? 'A' : 'B'} ${n('load')}.P`,
        `${n('load')}.T ${n('end')}.T`,
        `${n('keep')}.${size % 2 ? 'B' : 'T'} ${n('end')}.T`,
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
  const commanded = list.filter((c) => ['cylinder', 'lift', 'motor', 'winch', 'lock'].includes(c.kind))
  const tracks = valves.flatMap((valve, i): Track[] => {
    const points = [...commanded[i].commands]
      .sort((a, b) => a[0] - b[0])
      .map(([at, value]) => ({ at: `${at / 10} s`, value: String(value), shape: 'step' as const }))
    return points.length ? [{ component: valve.id, input: 'command', points }] : []
  })
  return { ...sheet, schedules: [{ ...sheet.schedules[0], duration: '2 s', every: '20 ms', tracks }] }
}
/** As many of the consumers as make a circuit of the largest size. */
export const fitting = (list: readonly Consumer[], speed: number): Sheet => {
  let n = list.length
  while (n > 1 && build(list.slice(0, n), speed).components.length > MOST_COMPONENTS) n--
  const sheet = build(list.slice(0, n), speed)
  // what comes after a line would have burst is to be sound as well
  return { ...sheet, schedules: sheet.schedules.map((s) => ({ ...s, onBurst: 'report' as const })) }
}
