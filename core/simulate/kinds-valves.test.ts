/** Valves between prescribed pressures and flows, held to their closed forms. */
import { describe, expect, it } from 'vitest'
import type { Sheet } from '../sheet/schema'
import { changePipe } from '../sheet/edit'
import { at, bar, circuit, end, idOf, lpm, messages, most, runSheet, timed, track } from '../testing'

type Components = Parameters<typeof circuit>[0]
/** A valve with prescribed pressures at its ports. */
function between(kind: string, parameters: Record<string, string | boolean>, ports: Record<string, string>) {
  const components: Components = { valve: [kind, parameters] }
  for (const [port, pressure] of Object.entries(ports))
    components[`at${port}`] = ['pressure-source', { pressure }]
  return circuit(
    components,
    Object.keys(ports).map((port) => `at${port}.P valve.${port}`),
  )
}
const source = (ports: Record<string, string>, port: string) => Object.keys(ports).indexOf(port)
const sourceId = (sheet: Sheet, ports: Record<string, string>, port: string) =>
  idOf(sheet, 'pressure-source', source(ports, port))
const path = (flow: number, drop: number, actual: number) =>
  Math.sign(actual) * flow * Math.sqrt(Math.abs(actual) / drop)

describe('seats and checks', () => {
  it('a poppet valve shuts tight one way, opens like a check the other, and both ways when switched', () => {
    const ports = { A: '5 bar', B: '25 bar' }
    let sheet = between('poppet-valve', { ratedFlow: '40 L/min', ratedDrop: '5 bar' }, ports)
    const id = idOf(sheet, 'poppet-valve')
    sheet = timed(sheet, 3, [
      track(id, 'command', [1, '1'], [1.5, '0']),
      track(sourceId(sheet, ports, 'A'), 'pressure', [2, '30 bar']),
    ])
    const r = runSheet(sheet)
    const flow = (t: number) => at(r, `${id}.flow`, t) / lpm
    expect(flow(0.9)).toBe(0)
    expect(flow(1.4)).toBeCloseTo(path(40, 5, -20), 0)
    expect(flow(1.95)).toBeCloseTo(0, 3)
    expect(flow(2.9)).toBeCloseTo(path(40, 5, 5), 0)
  })
  it('a check with a pilot to close passes until its pilot shuts it', () => {
    const ports = { A: '12 bar', B: '10 bar', X: '0 bar' }
    let sheet = between(
      'pilot-to-close-check',
      { pilotRatio: '2', checkFlow: '40 L/min', checkDrop: '3 bar' },
      ports,
    )
    const id = idOf(sheet, 'pilot-to-close-check')
    sheet = timed(sheet, 2, [track(sourceId(sheet, ports, 'X'), 'pressure', [1, '20 bar'])])
    const r = runSheet(sheet)
    expect(at(r, `${id}.flow`, 0.9) / lpm).toBeCloseTo(path(40, 3, 2), 0)
    expect(at(r, `${id}.flow`, 1.9)).toBeCloseTo(0, 9)
  })
  it('a double piloted check locks both lines, and pressure in one line opens the other', () => {
    const ports = { A: '0 bar', B: '0 bar', A1: '50 bar', B1: '40 bar' }
    let sheet = between(
      'double-pilot-check',
      { pilotRatio: '4', checkFlow: '40 L/min', checkDrop: '3 bar' },
      ports,
    )
    const id = idOf(sheet, 'double-pilot-check')
    sheet = timed(sheet, 2, [track(sourceId(sheet, ports, 'A'), 'pressure', [1, '60 bar'])])
    const r = runSheet(sheet)
    expect(at(r, `${id}.flowA`, 0.9)).toBe(0)
    expect(at(r, `${id}.flowB`, 0.9)).toBe(0)
    // 60 bar at A: 4 · 60 − 40 − 0.5 > 0 opens B against its 40 bar
    expect(at(r, `${id}.flowA`, 1.9) / lpm).toBeCloseTo(path(40, 3, 10), 0)
    expect(at(r, `${id}.flowB`, 1.9) / lpm).toBeCloseTo(path(40, 3, -40), 0)
  })
})

describe('spools', () => {
  it('with a detent it stays where it was put, with a spring it goes back', () => {
    const ports = { P: '50 bar', T: '0 bar', A: '20 bar' }
    const positions = (['spring', 'detent'] as const).map((detent) => {
      let sheet = between('directional-valve-3-2', { detent }, ports)
      const id = idOf(sheet, 'directional-valve-3-2')
      sheet = timed(sheet, 3, [track(id, 'command', [0.5, '1'], [1, '0'], [2, '-1'], [2.5, '0'])])
      const r = runSheet(sheet)
      return [0.9, 1.9, 2.9].map((t) => Math.round(Math.abs(at(r, `${id}.spool`, t))))
    })
    expect(positions).toEqual([
      [1, 0, 0],
      [1, 1, 0],
    ])
  })
  it('a lever valve with detents is pushed from box to box and stays there', () => {
    const ports = { P: '50 bar', T: '0 bar', A: '20 bar', B: '20 bar' }
    let sheet = between('directional-valve-4-3', { detent: 'detent', shiftTime: '100 ms' }, ports)
    const id = idOf(sheet, 'directional-valve-4-3')
    // pushed over, let go; pushed back by one box and a little, let go; pushed over the other way
    sheet = timed(sheet, 4, [
      track(id, 'command', [0.5, '1'], [1, '0'], [2, '-1'], [2.12, '0'], [3, '-1'], [3.5, '0']),
    ])
    const r = runSheet(sheet)
    expect([0.4, 1.9, 2.9, 3.9].map((t) => Math.round(at(r, `${id}.spool`, t) * 100) / 100 + 0)).toEqual([
      0, 1, 0, -1,
    ])
  })
  it('a 5/3 valve gives each line its own return', () => {
    const ports = { P: '50 bar', R: '0 bar', S: '2 bar', A: '20 bar', B: '20 bar' }
    let sheet = between('directional-valve-5-3', { ratedFlow: '20 L/min', ratedDrop: '10 bar' }, ports)
    const id = idOf(sheet, 'directional-valve-5-3')
    sheet = timed(sheet, 2, [track(id, 'command', [0, '1'], [1, '-1'])])
    const r = runSheet(sheet)
    const flow = (port: string, t: number) => at(r, `flow(${id}.${port})`, t) / lpm
    expect(flow('P', 0.9)).toBeCloseTo(path(20, 10, 30), 0)
    expect(flow('S', 0.9)).toBeCloseTo(-path(20, 10, 18), 0)
    expect(flow('R', 0.9)).toBeCloseTo(0, 6)
    expect(flow('R', 1.9)).toBeCloseTo(-path(20, 10, 20), 0)
  })
  it('a bank section throttles its neutral gallery as it meters, and its port relief lets go', () => {
    const ports = { P: '60 bar', N: '5 bar', M: '3 bar', T: '0 bar', A: '40 bar', B: '10 bar' }
    let sheet = between(
      'valve-section',
      {
        ratedFlow: '60 L/min',
        ratedDrop: '7 bar',
        neutralDrop: '2 bar',
        deadBand: '10 %',
        exponent: '1',
        neutralClosed: '80 %',
        leakage: '0 L/min',
        reliefA: '100 bar',
      },
      ports,
    )
    const id = idOf(sheet, 'valve-section')
    sheet = timed(sheet, 4, [
      track(id, 'command', [1, '40 %'], [2, '0 %']),
      track(sourceId(sheet, ports, 'A'), 'pressure', [3, '105 bar']),
    ])
    const r = runSheet(sheet)
    const flow = (port: string, t: number) => at(r, `flow(${id}.${port})`, t) / lpm
    expect(flow('N', 0.9)).toBeCloseTo(60, 0)
    expect(flow('A', 0.9)).toBeCloseTo(0, 6)
    // 40 %: the neutral gallery is half shut, the edges are open by a third
    expect(flow('N', 1.9)).toBeCloseTo(30, 0)
    expect(flow('P', 1.9)).toBeCloseTo(path(60, 7, 20) / 3, 0)
    expect(flow('B', 1.9)).toBeCloseTo(path(60, 7, 10) / 3, 0)
    expect(flow('A', 3.9)).toBeGreaterThan(5)
    expect(r.conditions.some((c) => c.name === 'relieving' && c.start > 3)).toBe(true)
  })
  it('its outlet cover makes three systems of one bank', () => {
    const ports = { N: '6 bar', T: '2 bar', C: '4 bar' }
    const flows = ['openCentre', 'closedCentre', 'carryOver'].map((setup) => {
      const sheet = between('bank-outlet', { setup, ratedFlow: '60 L/min', ratedDrop: '1 bar' }, ports)
      const id = idOf(sheet, 'bank-outlet')
      const r = runSheet(timed(sheet, 1, []))
      return ['T', 'C'].map((port) => Math.round(-at(r, `flow(${id}.${port})`, 0.9) / lpm))
    })
    expect(flows[0][0]).toBe(120)
    expect(flows[0][1] + 0).toBe(0)
    expect(flows[1].map(Math.abs)).toEqual([0, 0])
    expect(flows[2][1]).toBe(85)
  })
})

describe('load sensing', () => {
  const sections = (compensation: string, pump: string, loads: [string, string]) => {
    const one = {
      compensation,
      flow: '30 L/min',
      margin: compensation === 'post' ? '8 bar' : '12 bar',
      exponent: '1',
      deadBand: '0 %',
      leakage: '0 L/min',
      signalBleed: '0.1 mm',
    }
    let sheet = circuit(
      {
        tank: ['reservoir'],
        motor: ['electric-motor', { ratedPower: '50 kW' }],
        pump: [
          'load-sensing-pump',
          { displacement: pump, margin: '20 bar', compensator: '250 bar', caseDrain: 'internal' },
        ],
        one: ['load-sensing-section', one],
        two: ['load-sensing-section', one],
        back: ['reservoir'],
        a: ['pressure-source', { pressure: loads[0] }],
        b: ['pressure-source', { pressure: loads[1] }],
        c: ['reservoir'],
        d: ['reservoir'],
      },
      [
        'tank.T pump.S',
        'motor.W pump.W',
        'pump.P one.P',
        'pump.P two.P',
        'one.T back.T',
        'two.T back.T',
        'pump.X one.X',
        'pump.X two.X',
        'one.A a.P',
        'two.A b.P',
        'one.B c.T',
        'two.B d.T',
      ],
    )
    sheet = timed(
      sheet,
      3,
      [0, 1].map((n) => track(idOf(sheet, 'load-sensing-section', n), 'command', [0, n ? '50 %' : '100 %'])),
    )
    const r = runSheet(sheet)
    return [0, 1].map((n) => at(r, `${idOf(sheet, 'load-sensing-section', n)}.working`, 2.9) / lpm)
  }
  it('keeps the flow of each lever whatever the loads, while the pump has it', () => {
    for (const compensation of ['pre', 'post']) {
      const [one, two] = sections(compensation, '60 cm³/rev', ['100 bar', '30 bar'])
      expect(Math.abs(one / 30 - 1), compensation).toBeLessThan(0.12)
      expect(Math.abs(two / 15 - 1), compensation).toBeLessThan(0.12)
    }
  })
  it('shares a short flow in the ratio of the levers only where it is compensated behind the edge', () => {
    // 45 L/min are asked for, the pump has about 22
    const shared = sections('post', '15 cm³/rev', ['100 bar', '30 bar'])
    expect(shared[0] / shared[1]).toBeCloseTo(2, 1)
    const taken = sections('pre', '15 cm³/rev', ['100 bar', '30 bar'])
    // the heavier load stands first
    expect(taken[0] / taken[1]).toBeLessThan(1)
  })
  it('a compensator before an edge keeps the drop of it', () => {
    let sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '100 bar' }],
        compensator: ['pressure-compensator', { margin: '10 bar', range: '1 bar' }],
        edge: ['needle-valve', { ratedFlow: '20 L/min', ratedDrop: '10 bar' }],
        load: ['pressure-source', { pressure: '20 bar' }],
      },
      ['supply.P compensator.A', 'compensator.B edge.A', 'edge.B load.P', 'load.P compensator.Y'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'pressure-source', 1), 'pressure', [1, '70 bar'])])
    const r = runSheet(sheet)
    const flow = (t: number) => at(r, `${idOf(sheet, 'pressure-compensator')}.flow`, t) / lpm
    expect(Math.abs(flow(0.9) / 20 - 1)).toBeLessThan(0.05)
    expect(flow(1.9) / flow(0.9)).toBeCloseTo(1, 1)
  })
  it('an unloading valve by load signal keeps a fixed pump its margin above the load', () => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '30 L/min' }],
        unload: ['load-unloading-valve', { margin: '10 bar', range: '2 bar' }],
        back: ['reservoir'],
        signal: ['pressure-source', { pressure: '0 bar' }],
      },
      ['tank.T source.A', 'source.B unload.P', 'unload.T back.T', 'signal.P unload.X'],
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'pressure-source'), 'pressure', [1, '80 bar'])])
    const r = runSheet(sheet)
    const id = idOf(sheet, 'load-unloading-valve')
    for (const t of [0.9, 1.9]) {
      expect(at(r, `${id}.marginNow`, t) / bar).toBeGreaterThan(10)
      expect(at(r, `${id}.marginNow`, t) / bar).toBeLessThan(12)
    }
  })
})

describe('pressure valves', () => {
  const onSource = (kind: string, parameters: Record<string, string | boolean>, flow: string) =>
    circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow }],
        valve: [kind, parameters],
        back: ['reservoir'],
      },
      [
        'tank.T source.A',
        `source.B valve.${kind === 'back-pressure-valve' ? 'A' : 'P'}`,
        `valve.${kind === 'back-pressure-valve' ? 'B' : 'T'} back.T`,
      ],
    )
  it.each([
    [
      'relief-valve-two-stage',
      { setting: '150 bar', high: '200 bar', ratedFlow: '40 L/min' },
      'boost',
      [150, 200],
    ],
    [
      'relief-valve-proportional',
      { setting: '200 bar', least: '10 bar', ratedFlow: '40 L/min' },
      'command',
      [10, 200],
    ],
  ] as const)('a %s holds what its command asks for', (kind, parameters, input, [low, high]) => {
    let sheet = onSource(kind, { ...parameters }, '40 L/min')
    const id = idOf(sheet, kind)
    sheet = timed(sheet, 4, [track(id, input, [2, '1'])])
    const r = runSheet(sheet)
    const pressure = (t: number) => at(r, `pressure(${idOf(sheet, 'flow-source')}.B)`, t) / bar
    expect(pressure(1.9)).toBeCloseTo(low, 0)
    expect(pressure(3.9)).toBeCloseTo(high, 0)
  })
  it('a back-pressure valve keeps its line up and lets oil back through its check', () => {
    let sheet = onSource(
      'back-pressure-valve',
      { setting: '6 bar', ratedFlow: '40 L/min', checkFlow: '40 L/min', checkDrop: '3 bar' },
      '40 L/min',
    )
    sheet = timed(sheet, 2, [track(idOf(sheet, 'flow-source'), 'flow', [1, '-10 L/min'])])
    const r = runSheet(sheet)
    const pressure = (t: number) => at(r, `pressure(${idOf(sheet, 'flow-source')}.B)`, t) / bar
    expect(pressure(0.9)).toBeCloseTo(6, 0)
    expect(pressure(1.9)).toBeGreaterThan(-1)
    expect(pressure(1.9)).toBeLessThan(-0.4)
  })
  it('a shock valve cuts what is driven in and draws what is missing', () => {
    let sheet = onSource('shock-valve', { setting: '200 bar', ratedFlow: '40 L/min' }, '40 L/min')
    sheet = timed(sheet, 3, [track(idOf(sheet, 'flow-source'), 'flow', [2, '-5 L/min'])])
    const r = runSheet(sheet)
    const id = idOf(sheet, 'shock-valve')
    expect(at(r, `pressure(${idOf(sheet, 'flow-source')}.B)`, 1.9) / bar).toBeCloseTo(200, 0)
    expect(at(r, `${id}.drawn`, 2.9) / lpm).toBeCloseTo(5, 1)
  })
  it('cross-port reliefs spill from the side that is pumped up to the other', () => {
    let sheet = circuit(
      {
        pump: ['flow-source', { flow: '20 L/min' }],
        block: ['cross-port-relief', { setting: '120 bar', back: '80 bar', ratedFlow: '20 L/min' }],
        make: ['pressure-source', { pressure: '4 bar' }],
      },
      ['pump.B block.A', 'pump.A block.B', 'make.P block.C'],
    )
    sheet = timed(sheet, 4, [track(idOf(sheet, 'flow-source'), 'flow', [2, '-20 L/min'])])
    const r = runSheet(sheet)
    const id = idOf(sheet, 'cross-port-relief')
    const drop = (t: number) =>
      (at(r, `pressure(${idOf(sheet, 'flow-source')}.B)`, t) -
        at(r, `pressure(${idOf(sheet, 'flow-source')}.A)`, t)) /
      bar
    expect(drop(1.9)).toBeCloseTo(120, 0)
    expect(drop(3.9)).toBeCloseTo(-80, 0)
    expect(at(r, `${id}.spilled`, 1.9) / lpm).toBeCloseTo(20, 1)
    // the checks keep both sides filled
    expect(most(r, `${id}.madeUp`)).toBeGreaterThan(0)
  })
})

describe('flow valves', () => {
  const three = (
    kind: string,
    ports: [string, string, string],
    parameters: Record<string, string>,
    loads: [string, string],
  ) => {
    let sheet = circuit(
      {
        tank: ['reservoir'],
        source: ['flow-source', { flow: '30 L/min' }],
        valve: [kind, parameters],
        a: ['pressure-source', { pressure: loads[0] }],
        b: ['pressure-source', { pressure: loads[1] }],
      },
      ['tank.T source.A', `source.B valve.${ports[0]}`, `valve.${ports[1]} a.P`, `valve.${ports[2]} b.P`],
    )
    sheet = timed(sheet, 4, [track(idOf(sheet, 'pressure-source'), 'pressure', [2, '90 bar'])])
    const r = runSheet(sheet)
    const id = idOf(sheet, kind)
    return (t: number) => ports.slice(1).map((port) => -at(r, `flow(${id}.${port})`, t) / lpm)
  }
  it('a three-way valve keeps its set flow and lets the rest go', () => {
    const flows = three('flow-control-3-way', ['A', 'B', 'T'], { flow: '12 L/min' }, ['20 bar', '0 bar'])
    for (const t of [1.9, 3.9]) {
      const [regulated, excess] = flows(t)
      expect(Math.abs(regulated / 12 - 1)).toBeLessThan(0.08)
      expect(regulated + excess).toBeCloseTo(30, 2)
    }
  })
  it('a priority valve serves A first against either load', () => {
    const flows = three('priority-valve', ['P', 'A', 'B'], { flow: '12 L/min' }, ['20 bar', '60 bar'])
    for (const t of [1.9, 3.9]) expect(Math.abs(flows(t)[0] / 12 - 1)).toBeLessThan(0.08)
  })
  it('spool and gear dividers divide by their ratio against unequal loads', () => {
    const spool = three('flow-divider-spool', ['P', 'A', 'B'], { share: '60 %', ratedFlow: '40 L/min' }, [
      '20 bar',
      '30 bar',
    ])
    for (const t of [1.9, 3.9]) expect(spool(t)[0] / 30).toBeCloseTo(0.6, 2)
    const gear = three(
      'flow-divider-gear',
      ['P', 'A', 'B'],
      { displacementA: '12 cm³/rev', displacementB: '6 cm³/rev', leakage: '0 L/min' },
      ['20 bar', '30 bar'],
    )
    for (const t of [1.9, 3.9]) expect(gear(t)[0] / 30).toBeCloseTo(2 / 3, 2)
  })
  it('a gear divider with one side free raises the pressure of the other above its inlet', () => {
    const sheet = circuit(
      {
        supply: ['pressure-source', { pressure: '50 bar' }],
        divider: ['flow-divider-gear', { leakage: '0.1 L/min', frictionTorque: '0 N·m' }],
        free: ['pressure-source', { pressure: '0 bar' }],
        relief: ['relief-valve-direct', { setting: '95 bar' }],
        back: ['reservoir'],
      },
      ['supply.P divider.P', 'divider.A free.P', 'divider.B relief.P', 'relief.T back.T'],
    )
    const r = runSheet(timed(sheet, 1, []))
    expect(at(r, `${idOf(sheet, 'flow-divider-gear')}.highest`, 0.9) / bar).toBeGreaterThan(75)
  })
  it('a proportional throttle opens by its notch beyond its dead band', () => {
    const ports = { A: '5 bar', B: '0 bar' }
    let sheet = between(
      'proportional-throttle',
      { ratedFlow: '40 L/min', ratedDrop: '5 bar', deadBand: '20 %', exponent: '2' },
      ports,
    )
    const id = idOf(sheet, 'proportional-throttle')
    sheet = timed(sheet, 3, [track(id, 'command', [0, '20 %'], [1, '60 %'], [2, '100 %'])])
    const r = runSheet(sheet)
    expect([0.9, 1.9, 2.9].map((t) => Math.round((at(r, `${id}.flow`, t) / lpm) * 10) / 10)).toEqual([
      0, 10, 40,
    ])
  })
})

describe('a decompression poppet', () => {
  /** A litre held at 200 bar behind a check with a pilot of 3 : 1, which 40 bar at X alone do not open. */
  const held = (parameters: Record<string, string | boolean>) => {
    const drawn = circuit(
      {
        check: ['pilot-operated-check', { pilotRatio: '3', ...parameters }],
        a: ['pressure-source', { pressure: '0 bar' }],
        x: ['pressure-source', { pressure: '0 bar' }],
        plug: ['plug'],
      },
      ['a.P check.A', 'x.P check.X', 'check.B plug.A'],
    )
    const check = idOf(drawn, 'pilot-operated-check')
    const pipe = drawn.pipes.find(({ to }) => 'component' in to && to.port === 'A' && to.component !== check)!
    const sheet = changePipe(drawn, pipe.id, { volume: '1 L' })
    const pilot = track(idOf(drawn, 'pressure-source', 1), 'pressure', [0, '0 bar'], [1, '40 bar'])
    const r = runSheet(
      timed({ ...sheet, initialPressures: { [`${check}.B`]: '200 bar' } }, 4, [pilot], '1 ms'),
    )
    return { r, held: `pressure(${check}.B)`, check }
  }
  it('lets down what the main seat cannot open against, at the rate of its orifice', () => {
    const without = held({})
    expect(end(without.r, without.held) / bar).toBeCloseTo(200, 1)
    const {
      r,
      held: line,
      check,
    } = held({
      decompression: true,
      decompressionRatio: '13',
      decompressionSize: '0.5 mm',
    })
    // V/K·dp/dt = −C_d·A·√(2·p/ρ), so √p falls in a straight line; K_e of 1.49 GPa between 200 and 150 bar
    const density = 870 * (1 - 7e-4 * 25)
    const slope = (0.7 * (Math.PI / 4) * 0.0005 ** 2 * Math.sqrt(2 / density) * 1.49e9) / 2 / 1e-3
    const pressures = r.columns[r.signals.findIndex(({ id }) => id === line)]
    const when = (p: number) => r.times[pressures.findIndex((value, k) => r.times[k] > 1.01 && value < p)]
    const expected = (Math.sqrt(190 * bar) - Math.sqrt(150 * bar)) / slope
    expect((when(150 * bar) - when(190 * bar)) / expected).toBeCloseTo(1, 1)
    // at 3 · 40 bar less its spring the main seat opens and lets the rest go
    const opens = r.columns[r.signals.findIndex(({ id }) => id === `${check}.opening`)]
    const first = opens.findIndex((value) => value > 0.01)
    expect(pressures[first] / bar).toBeGreaterThan(115)
    expect(pressures[first] / bar).toBeLessThan(120)
    expect(end(r, line) / bar).toBeLessThan(1)
    expect(r.energy.error).toBeLessThan(1e-3)
  })
  it('is refused where it would not open first', () => {
    const sheet = circuit(
      { check: ['pilot-operated-check', { decompression: true, decompressionRatio: '2' }] },
      [],
    )
    expect(messages(sheet).join()).toMatch(/opens first/)
  })
})

describe('a hose-rupture valve', () => {
  const burst = (closingFlow: string) => {
    const sheet = circuit(
      {
        load: ['pressure-source', { pressure: '100 bar' }],
        fuse: ['hose-rupture-valve', { closingFlow, ratedFlow: '40 L/min', ratedDrop: '4 bar' }],
        hose: ['orifice', { diameter: '3 mm' }],
        out: ['pressure-source', { pressure: '90 bar' }],
      },
      ['load.P fuse.A', 'fuse.B hose.A', 'hose.B out.P'],
    )
    const out = idOf(sheet, 'pressure-source', 1)
    // the hose stands under pressure before it bursts
    const filled = { ...sheet, initialPressures: { [`${idOf(sheet, 'orifice')}.A`]: '99 bar' } }
    const r = runSheet(
      timed(filled, 4, [track(out, 'pressure', [0, '90 bar'], [1, '0 bar'], [3, '120 bar'])], '1 ms'),
    )
    return { r, flow: (t: number) => at(r, `flow(${idOf(sheet, 'hose-rupture-valve')}.A)`, t) / lpm }
  }
  it('passes what is below its closing flow, and is shut by what is above it until the hose pushes it open', () => {
    // 3 mm pass 0.7·A·√(2·Δp/ρ): 14 L/min at 10 bar, 45 L/min at 100 bar
    const { r, flow } = burst('30 L/min')
    expect(flow(0.9)).toBeGreaterThan(12)
    expect(flow(0.9)).toBeLessThan(15)
    expect(flow(2.9)).toBeLessThan(0.05)
    const shut = r.conditions.find(({ name }) => name === 'shut')!
    expect(shut.start).toBeCloseTo(1, 2)
    // from 3 s on oil comes back in
    expect(flow(3.9)).toBeLessThan(-15)
    expect(shut.end).toBeCloseTo(3, 1)
  })
  it('stays open where its closing flow is set above what the burst hose lets go', () => {
    expect(burst('60 L/min').flow(2.9)).toBeGreaterThan(40)
  })
})
