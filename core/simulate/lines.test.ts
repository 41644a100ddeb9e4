/** Lines against closed forms: loss of steady flow, surge and period of a closure, speeds that are too high, lines that burst. */
import { describe, expect, it } from 'vitest'
import { changePipe } from '../sheet/edit'
import { buildNetlist } from '../sheet/netlist'
import type { Pipe, Sheet } from '../sheet/schema'
import { bar, circuit, end, idOf, least, lpm, most, runSheet, timed, track } from '../testing'
import { showQuantity } from '../units/text'
import { compile } from './compile'

/** ρ and ν of the oil at its 40 °C. */
const DENSITY = 870 * (1 - 7e-4 * 25)
const VISCOSITY = 46e-6

/** A source that sends oil through one pipe to tank. */
function through(flow: string, pipe: Partial<Pipe>): Sheet {
  const sheet = circuit({ source: ['flow-source', { flow }], suction: ['reservoir'], tank: ['reservoir'] }, [
    'suction.T source.A',
    'source.B tank.T',
  ])
  const line = sheet.pipes.find(({ from }) => 'component' in from && from.port === 'B')!
  return timed(changePipe(sheet, line.id, { lineModel: 'automatic', name: 'line', ...pipe }), 1, [])
}
/** f·(L/d)·(ρ/2)·v² with f as asked for. */
const darcy = (factor: number, length: number, bore: number, flow: number) => {
  const speed = flow / ((Math.PI / 4) * bore ** 2)
  return (factor * length * DENSITY * speed ** 2) / (2 * bore)
}

describe('the loss of steady flow', () => {
  it.each(['automatic', 'friction', 'distributed'] as const)(
    'between laminar and turbulent: 59 L/min through 20 m of 8 mm take about 180 bar (%s)',
    (lineModel) => {
      const r = runSheet(through('59 L/min', { length: '20 m', bore: '8 mm', lineModel }))
      const flow = 59 * lpm
      const reynolds = (4 * flow) / (Math.PI * 0.008 * VISCOSITY)
      // straight in log Re from 64/2000 to Blasius at 4000
      const share = Math.log(reynolds / 2000) / Math.log(2)
      const factor = 0.032 + share * (0.3164 / 4000 ** 0.25 - 0.032)
      const expected = darcy(factor, 20, 0.008, flow)
      expect(expected / bar).toBeGreaterThan(150)
      expect(end(r, 'pressure(line)') / expected).toBeCloseTo(1, 2)
    },
  )
  it('laminar: 128·ρ·ν·L·Q/(π·d⁴)', () => {
    const r = runSheet(through('6 L/min', { length: '10 m', bore: '10 mm' }))
    const expected = (128 * DENSITY * VISCOSITY * 10 * 6 * lpm) / (Math.PI * 0.01 ** 4)
    expect(end(r, 'pressure(line)') / expected).toBeCloseTo(1, 3)
  })
  it('turbulent: Blasius', () => {
    const r = runSheet(through('120 L/min', { length: '10 m', bore: '12 mm' }))
    const flow = 120 * lpm
    const reynolds = (4 * flow) / (Math.PI * 0.012 * VISCOSITY)
    expect(reynolds).toBeGreaterThan(4000)
    const expected = darcy(0.3164 / reynolds ** 0.25, 10, 0.012, flow)
    expect(end(r, 'pressure(line)') / expected).toBeCloseTo(1, 2)
  })
})

describe('an automatic line', () => {
  const models = (sheet: Sheet) => buildNetlist(sheet).netlist.oilPipes.map(({ model }) => model)
  it('counts its loss from 0.2 bar on, by the flow that the sheet can send', () => {
    // laminar: 12 L/min through 12 mm take 0.157 bar a metre
    const perMetre = (128 * DENSITY * VISCOSITY * 12 * lpm) / (Math.PI * 0.012 ** 4)
    const limit = (0.2 * bar) / perMetre
    for (const [factor, model] of [
      [0.98, 'lossFree'],
      [1.02, 'friction'],
    ] as const)
      expect(models(through('12 L/min', { length: `${factor * limit} m`, bore: '12 mm' }))).toContain(model)
    expect(models(through('12 L/min', { length: `${0.98 * limit} m`, bore: '12 mm' }))).not.toContain(
      'friction',
    )
  })
  it('carries nothing to a gauge, and stands for its volume where that is given', () => {
    const long = { length: '50 m', bore: '4 mm', lineModel: 'automatic' } as const
    const sheet = circuit(
      {
        source: ['flow-source', { flow: '40 L/min' }],
        suction: ['reservoir'],
        tank: ['reservoir'],
        gauge: ['pressure-gauge'],
      },
      ['suction.T source.A', 'source.B tank.T', 'source.B gauge.P'],
    )
    const gauge = sheet.pipes.find(
      ({ to }) => 'component' in to && to.component === idOf(sheet, 'pressure-gauge'),
    )!
    expect(models(changePipe(sheet, gauge.id, long))).not.toContain('friction')
    expect(models(through('40 L/min', { ...long, volume: '1 L' }))).not.toContain('friction')
    expect(models(through('40 L/min', long))).toContain('friction')
  })
  it('is one mass where it is to be distributed and no wave takes a millisecond to pass it', () => {
    const short = through('12 L/min', { length: '0.9 m', lineModel: 'distributed' })
    expect(models(short)).toContain('friction')
    expect(models(through('12 L/min', { length: '1.1 m', lineModel: 'distributed' }))).toContain(
      'distributed',
    )
  })
  it('is reported with its speed and loss, also where that is not counted', () => {
    const r = runSheet(through('30 L/min', { length: '2 m', bore: '12 mm', lineModel: 'lossFree' }))
    const load = r.lineLoads.find(({ name }) => name === 'line')!
    const area = (Math.PI / 4) * 0.012 ** 2
    expect(load.model).toBe('lossFree')
    expect(load.speed).toBeCloseTo((30 * lpm) / area, 4)
    expect(load.drop).toBeCloseTo((128 * DENSITY * VISCOSITY * 2 * 30 * lpm) / (Math.PI * 0.012 ** 4), -1)
    expect(most(r, 'pressure(line)')).toBe(0)
    // 4.4 m/s in a line to tank, and a drop of 0.6 bar where there is no pressure
    expect(r.conditions.map(({ name, pipe }) => [name, pipe])).toEqual(
      expect.arrayContaining([
        ['lineTooFast', load.pipe],
        ['lossLeftOut', load.pipe],
      ]),
    )
    const fast = r.conditions.find(({ name }) => name === 'lineTooFast')!
    expect(fast.worst!.value).toBeCloseTo(load.speed, 6)
    expect(fast.label).toMatch(/^oil faster than 3 m\/s in \w+, a return line$/)
    expect(showQuantity(fast.worst!.value, fast.worst!.quantity, 'metric', 3)).toBe('4.42 m/s')
    expect(showQuantity(fast.worst!.value, fast.worst!.quantity, 'us', 3)).toBe('14.5 ft/s')
    // 3 m/s are usual to a tank; where more is allowed, nothing is reported
    const wide = through('30 L/min', { length: '2 m', bore: '12 mm' })
    const allowed = { ...wide, lineSpeeds: { ...wide.lineSpeeds, return: '5 m/s' } }
    expect(runSheet(allowed).conditions.some(({ name }) => name === 'lineTooFast')).toBe(false)
  })
})

describe('a distributed line', () => {
  /** A source of pressure, a pipe, and a valve that shuts within `shift`. */
  function closure(shift: string, pipe: Partial<Pipe>, source = '100 bar', valve = '20 bar') {
    const sheet = circuit(
      {
        source: ['pressure-source', { pressure: source }],
        valve: [
          'directional-valve-2-2',
          { centre: 'open', ratedFlow: '60 L/min', ratedDrop: '50 bar', shiftTime: shift },
        ],
        end: ['pressure-source', { pressure: valve }],
      },
      ['source.P valve.P', 'valve.A end.P'],
    )
    const line = sheet.pipes.find(
      ({ to }) => 'component' in to && to.port === 'P' && to.component.startsWith('V'),
    )!
    const drawn = changePipe(sheet, line.id, {
      lineModel: 'distributed',
      name: 'line',
      length: '100 m',
      bore: '20 mm',
      ...pipe,
    })
    const id = idOf(sheet, 'directional-valve-2-2')
    const timedSheet = timed(drawn, 4, [track(id, 'command', [0, '0'], [2, '1'])], '1 ms')
    const r = runSheet({
      ...timedSheet,
      schedules: timedSheet.schedules.map((s) => ({ ...s, start: 'steadyState' as const })),
    })
    const of = (name: string) => r.columns[r.signals.findIndex((s) => s.id === name)]
    const before = r.times.findIndex((t) => t >= 1.99)
    return {
      r,
      times: r.times,
      valve: of(`pressure(${id}.P)`),
      speed: of(`flow(${id}.P)`)[before] / ((Math.PI / 4) * 0.02 ** 2),
      pressure: of(`pressure(${id}.P)`)[before],
    }
  }
  /** K_e of oil with 0.5 % of air at 100 bar, by the formula. */
  const modulus = (() => {
    const p = 100 * bar + 101325
    const g = 0.005 * (101325 / p) ** (1 / 1.4)
    return (1.5e9 * (1 + g)) / (1 + (g * 1.5e9) / (1.4 * p))
  })()
  const crossings = ({ times, valve }: ReturnType<typeof closure>) => {
    const found: number[] = []
    for (let k = 1; k < valve.length; k++)
      if (times[k] > 2.05 && (valve[k - 1] - 100 * bar) * (valve[k] - 100 * bar) < 0) found.push(times[k])
    return found
  }

  it('surges by ρ·a·Δv where the valve shuts fast, and swings with 4·L/a', () => {
    const shut = closure('1 ms', {})
    const a = Math.sqrt(modulus / DENSITY)
    // before the friction of the oil that still comes shows: 10 ms after
    const at = shut.times.findIndex((t) => t >= 2.01)
    expect((shut.valve[at] - shut.pressure) / (DENSITY * a * shut.speed)).toBeCloseTo(1, 1)
    expect(Math.abs((shut.valve[at] - shut.pressure) / (DENSITY * a * shut.speed) - 1)).toBeLessThan(0.03)
    const times = crossings(shut)
    const period = (2 * (times[4] - times[0])) / 4
    expect(Math.abs(period / ((4 * 100) / a) - 1)).toBeLessThan(0.02)
    expect(shut.r.energy.error).toBeLessThan(1e-3)
    expect(shut.r.oil.error).toBeLessThan(1e-3)
  })
  it('swings more slowly in a wall that gives: 1/K = 1/K_e + D/(s·E)', () => {
    const times = crossings(closure('1 ms', { wall: '1 mm', material: 'copper' }))
    const soft = 1 / (1 / modulus + 0.02 / (0.001 * 120e9))
    const period = (2 * (times[4] - times[0])) / 4
    expect(Math.abs(period / ((4 * 100) / Math.sqrt(soft / DENSITY)) - 1)).toBeLessThan(0.02)
  })
  it('does not surge where the valve takes many times as long as the wave', () => {
    const slow = closure('1.5 s', {})
    const a = Math.sqrt(modulus / DENSITY)
    // ρ·L·dv/dt at the most some tenths of it
    expect(Math.max(...slow.valve) - 100 * bar).toBeLessThan(0.35 * DENSITY * a * slow.speed)
  })
  it('cavitates where the wave that comes back would fall below no pressure, and does not fall below it', () => {
    // 16 bar at the source, and a surge of about as much up and then down
    const { r } = closure('1 ms', { length: '10 m', bore: '12 mm' }, '16 bar', '0 bar')
    const lowest = least(r, r.signals.find((s) => s.id.endsWith('.lowest'))!.id)
    expect(lowest).toBeLessThan(-0.7 * bar)
    expect(lowest).toBeGreaterThan(-1.02 * bar)
    expect(r.conditions.some(({ name, pipe }) => name === 'cavitation' && pipe !== undefined)).toBe(true)
  })
})

describe('a line that bursts', () => {
  const headOn = (flow: string) =>
    circuit(
      {
        one: ['flow-source', { flow }],
        other: ['flow-source', { flow: '20 L/min' }],
        a: ['reservoir'],
        b: ['reservoir'],
      },
      ['a.T one.A', 'b.T other.A', 'one.B other.B'],
    )
  it('is listed by name wherever it ends a run, also where the instant is found to the last bit', () => {
    for (let flow = 16; flow < 26; flow += 0.5) {
      const r = runSheet(timed(headOn(`${flow} L/min`), 5, []))
      expect(r.stopped!.message).toMatch(/would burst/)
      expect(r.conditions.filter(({ name }) => name === 'bursts')).toHaveLength(1)
    }
  })
  it('ends the run where two sources of flow meet head on, and says what burst', () => {
    const r = runSheet(timed(headOn('20 L/min'), 5, []))
    expect(r.finished).toBe(false)
    expect(r.stopped!.message).toMatch(/would burst, beyond 1600 bar/)
    const highest = Math.max(
      ...r.extremes.filter((_, i) => r.signals[i].role === 'pressure').map(({ max }) => max),
    )
    // it ends at that instant, not at the end of the step
    expect(highest / (1600 * bar)).toBeCloseTo(1, 6)
    expect(r.duration).toBeCloseTo(r.conditions.find(({ name }) => name === 'bursts')!.start, 6)
  })
  it('is only reported where that is asked for', () => {
    const sheet = circuit({ one: ['flow-source', { flow: '20 L/min' }], a: ['reservoir'], plug: ['plug'] }, [
      'a.T one.A',
      'one.B plug.A',
    ])
    const run = timed(sheet, 1, [])
    const schedules = run.schedules.map((s) => ({ ...s, onBurst: 'report' as const }))
    expect(runSheet({ ...run, schedules }).finished).toBe(true)
  })
})

it('two sources of pressure on one line are refused', () => {
  const sheet = circuit(
    { a: ['pressure-source', { pressure: '100 bar' }], b: ['pressure-source', { pressure: '50 bar' }] },
    ['a.P b.P'],
  )
  expect(compile(timed(sheet, 1, [])).compiled).toBeUndefined()
})
