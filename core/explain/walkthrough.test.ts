/** Whole runs in words and tables: states, what begins them, operating points, energy, strokes, comparison. */
import { describe, expect, it } from 'vitest'
import { runMachine } from '../control/run'
import { withControl } from '../control/testing'
import { walkthroughToMarkdown } from '../formats/walkthrough-text'
import { emptyBrief, type Brief } from '../size/brief/brief'
import type { Sheet, Track } from '../sheet/schema'
import { at, bar, circuit, lpm, powerUnit, powerUnitPipes, runSheet, timed, track } from '../testing'
import { showIn } from '../units/text'
import { compareRuns, comparisonSummary } from './compare-runs'
import { energyGraph, energyOf, steadyTemperature, steadyText, totalOf } from './energy'
import { happeningsOf, type Happening } from './happenings'
import { Moments } from './moment'
import { motionsOf } from './motions'
import { moversOf } from './movers'
import { goingRound, mainWay, oilPath } from './oil-path'
import { LinePorts, pressureStack } from './stack'
import { commandsOf } from './state-figures'
import { stateTable, type StateRow } from './state-table'
import { cellText, countText, metText, outcomeText } from './state-words'
import { cutIntoStates } from './states'
import { strokeSteps } from './stroke-steps'
import { walkthroughOf } from './walkthrough'
import { instantText, lowerFirst, sentence, withoutNoise } from './words'

const show = showIn('metric')

/** A cylinder with a gauge on its pump line: out from 0.5 s, held from 2 s, back from 3 s. */
function pressing(
  ram: Record<string, string> = {},
  tracks: Track[] = [track('V2', 'command', [0.5, '1'], [2, '0'], [3, '-1'])],
  more: { tank?: Partial<Sheet['tank']>; duration?: number } = {},
): Sheet {
  const sheet = timed(
    circuit(
      {
        ...powerUnit,
        back2: ['reservoir'],
        valve: ['directional-valve-4-3', { centre: 'closed' }],
        ram: [
          'cylinder-double-acting',
          { bore: '63 mm', rod: '36 mm', stroke: '100 mm', loadForce: '20 kN', ...ram },
        ],
        gauge: ['pressure-gauge'],
      },
      [
        ...powerUnitPipes,
        'pump.P valve.P',
        'valve.T back2.T',
        'valve.A ram.A',
        'valve.B ram.B',
        'pump.P gauge.P',
      ],
    ),
    more.duration ?? 5,
    tracks,
    '10 ms',
  )
  return { ...sheet, tank: { ...sheet.tank, ...more.tank } }
}
/** Designations, as drawing the circuit has given them. */
const [RELIEF, VALVE, RAM, GAUGE, PUMP, TANK] = ['1-1V1', '1-1V2', '1-1A1', '1-1S1', '1-1P1', '1-1Z1']
function walked(sheet: Sheet) {
  const result = runSheet(sheet)
  const moments = new Moments(sheet, result)
  return { sheet, result, moments, states: walkthroughOf(moments, result, show) }
}
const textsOf = (state: { sentences: readonly { text: string }[] }) => state.sentences.map((s) => s.text)

describe('what happens in a run', () => {
  it('is named in order: commands by their positions, motions, stops, valves', () => {
    const sheet = pressing()
    const { result, moments } = walked(sheet)
    const texts = happeningsOf(moments, result, show).map((h) => h.text)
    const order = [`${VALVE} goes to position a`, `${RAM} extends`, `${RAM} reaches its extended stop`]
    const places = order.map((text) => texts.indexOf(text))
    expect(places.every((p) => p >= 0)).toBe(true)
    expect([...places].sort((a, b) => a - b)).toEqual(places)
    expect(texts).toContain(`${VALVE} goes to its centre`)
    expect(texts).toContain(`${RELIEF} opens`)
  })
  it('tells a lever that is moved slowly from one that jumps', () => {
    const sheet = pressing({}, [track('V2', 'command', [0.5, '0'], [1.5, '1', 'ramp'])])
    const { result, moments } = walked(sheet)
    const command = happeningsOf(moments, result, show).find((h) => h.kind === 'command')!
    expect(command.text).toBe(`the command of ${VALVE} goes from centre to position a in 1 s`)
    expect(command.at).toBeCloseTo(0.5, 1)
    expect(command.until).toBeCloseTo(1.5, 1)
  })
  it('gives a fault with its beginning and its end, and leaves out an input that varies all the time', () => {
    const wobble: [number, string, 'ramp'][] = Array.from({ length: 60 }, (_, i) => [
      0.05 + i * 0.08,
      `${20 + (i % 2)} kN`,
      'ramp',
    ])
    const sheet = pressing({}, [track('A1', 'force', ...wobble), track('A1', 'jammed', [1, '1'], [2, '0'])])
    const { result, moments } = walked(sheet)
    const texts = happeningsOf(moments, result, show).map((h) => h.text)
    expect(texts).toContain(`${RAM}: jammed in place`)
    expect(texts).toContain(`${RAM} is sound again`)
    expect(texts.filter((t) => t.includes('load force'))).toEqual([])
  })
})

describe('the cut into states', () => {
  const effect = (time: number, key = 'x'): Happening => ({ at: time, text: key, kind: 'effect', key })
  const command = (time: number, until?: number): Happening => ({
    at: time,
    text: 'command',
    kind: 'command',
    key: 'c',
    ...(until === undefined ? {} : { until }),
  })
  it('joins what happens together and keeps apart what does not', () => {
    const states = cutIntoStates([effect(1), effect(1.05), effect(3)], 10)
    expect(states.map((s) => [s.start, s.end])).toEqual([
      [0, 1],
      [1, 3],
      [3, 10],
    ])
  })
  it('counts the first effect after a slow command as its answer', () => {
    expect(cutIntoStates([command(1, 2), effect(2.3), effect(6)], 10).map((s) => s.start)).toEqual([0, 1, 6])
    expect(cutIntoStates([command(1), effect(2.3)], 10).map((s) => s.start)).toEqual([0, 1, 2.3])
  })
  it('begins no state where a button is only let go, and one where something follows', () => {
    const release = { ...command(2), kind: 'release' as const }
    expect(cutIntoStates([command(1), release], 10)).toHaveLength(2)
    const followed = cutIntoStates([command(1), release, effect(2.05)], 10)
    expect(followed.at(-1)!.happenings[0]).toBe(release)
  })
})

describe('the walkthrough', () => {
  const { states, result } = walked(pressing())
  it('covers the run without a gap, each state with the instant that shows it', () => {
    expect(states[0].t).toBe(0)
    expect(states.at(-1)!.end).toBe(result.duration)
    states.slice(1).forEach((s, i) => expect(s.t).toBe(states[i].end))
    for (const s of states) {
      expect(s.shownAt).toBeGreaterThanOrEqual(s.t - 0.02)
      expect(s.shownAt).toBeLessThanOrEqual(s.end)
    }
  })
  it('says what moves, by which oil, and what sets the pressure at the gauge', () => {
    const out = states.find((s) => s.cause.includes('position a'))!
    expect(out.moving).toHaveLength(1)
    const texts = textsOf(out)
    expect(texts.find((t) => t.startsWith(`${RAM} extends from 0 mm to `))).toMatch(/against 20 kN\.$/)
    expect(texts).toContainEqual(
      expect.stringMatching(new RegExp(`^Its oil, .*: ${TANK} > ${PUMP} > ${VALVE} > ${RAM}\\.$`)),
    )
    expect(texts).toContainEqual(
      expect.stringMatching(new RegExp(`^What it pushes out, .*: ${RAM} > ${VALVE} > ${TANK}\\.$`)),
    )
    expect(texts).toContainEqual(
      expect.stringMatching(new RegExp(`^${GAUGE}: .* bar; the load on ${RAM} sets it\\.$`)),
    )
  })
  it('says what holds it, and where the oil goes that does no work', () => {
    const held = states.find((s) => s.cause.includes('its centre'))!
    const texts = textsOf(held)
    expect(texts.find((t) => t.startsWith(`${RAM} stands still`))).toContain(`shut in by ${VALVE} at`)
    const round = texts.find((t) => t.includes('without doing work'))!
    expect(round).toContain(`of ${PUMP} go to the tank through ${RELIEF}`)
    expect(texts).toContainEqual(expect.stringContaining('all of it becomes heat'))
  })
  it('has the speed of the run, to the share that it shows', () => {
    const out = states.find((s) => s.cause.includes('position a'))!
    expect(out.moving[0].speed).toBeCloseTo(at(result, 'A1.velocity', out.shownAt), 6)
  })
  it('is written as Markdown, with what must be known of it', () => {
    const text = walkthroughToMarkdown(states, { title: 'Press', line: 'main' }, show)
    expect(text).toContain('# Press')
    expect(text).toContain('Local codes')
    expect(text.match(/^## /gm)).toHaveLength(states.length)
  })
  it('tells a cycle that comes again many times once', () => {
    const cycle = Array.from({ length: 8 }, (_, i): [number, string][] => [
      [0.5 + 2 * i, '1'],
      [1.5 + 2 * i, '-1'],
    ]).flat()
    const { states: told } = walked(
      pressing({ loadForce: '5 kN', stroke: '40 mm' }, [track('V2', 'command', ...cycle)], { duration: 17 }),
    )
    const again = told.find((s) => s.repeats)!
    expect(again.repeats!.times).toBeGreaterThanOrEqual(6)
    expect(told.length).toBeLessThan(14)
  })
})

describe('the way of the oil', () => {
  it('goes round over the relief while the valve is shut, with the heat that this makes', () => {
    const { result, moments } = walked(pressing())
    moments.showRecorded(result, 0.4)
    const ports = new LinePorts(moments.network)
    const line = result.lineOfPort['P1.P']
    const [over, ...others] = goingRound(ports, line)
    expect(others).toEqual([])
    expect(over.part).toBe('V1')
    const pressure = at(result, `pressure(${result.lines[line]})`, 0.4)
    expect(over.heat).toBeCloseTo(over.flow * pressure, -1)
    expect(mainWay(oilPath(ports, line), line, 'down').filter((p) => !/^p/.test(p))).toContain('V1')
    moments.showRecorded(result, 0.9)
    expect(goingRound(new LinePorts(moments.network), line)).toEqual([])
  })
})

describe('the table of states', () => {
  const sheet = pressing()
  const runs = new Map([[sheet.schedules[0].id, runSheet(sheet)]])
  const table = stateTable(sheet, (id) => runs.get(id)!, show)
  const column = (key: string) => table.columns.findIndex((c) => c.key === key)
  const row = (title: string) => table.rows.find((r) => r.title.includes(title))!
  it('solves each state from itself: steady motion, and the pressure that the load sets', () => {
    const out = row('position a')
    expect(out.outcome).toBe('steady')
    const speed = out.cells[column('A1 speed')]
    // flow of the pump over the piston area
    const area = (Math.PI / 4) * 0.063 ** 2
    const delivery = out.cells[column('P1.delivery')].value
    expect(speed.value).toBeCloseTo(delivery / area, 3)
    const gauge = out.cells[column('S1 pressure')]
    expect(gauge.fixedBy).toEqual({ kind: 'load', part: 'A1' })
    expect(gauge.value).toBeGreaterThan(20e3 / area)
  })
  it('says so where something runs to its stop before there is a steady point', () => {
    const springy = pressing({ workPieceAt: '10 mm', workPieceStiffness: '1000 kN/m', loadForce: '1 kN' })
    const found = stateTable(springy, () => runSheet(springy), show)
    const working = found.rows.filter((r) => r.outcome !== 'steady')
    expect(working.length).toBeGreaterThan(0)
    expect(outcomeText(springy, working[0])).toMatch(/^no steady point: /)
    const gauge = found.columns.findIndex((c) => c.key === 'S1 pressure')
    expect(working.some((r) => r.cells[gauge].range)).toBe(true)
  })
  it('adds a combination of commands that no schedule reaches, and names one that does not exist', () => {
    const added = { name: 'pushed back', commands: [{ component: 'V2', input: 'command', value: '-1' }] }
    const withIt = stateTable(sheet, (id) => runs.get(id)!, show, [added])
    const found = withIt.rows.find((r) => r.title === 'pushed back')!
    expect(found.met).toEqual([])
    const command = withIt.columns.findIndex((c) => c.key === 'V2.command')
    expect(cellText(found.cells[command], withIt.columns[command], show)).toBe('position b')
    const wrong = { name: 'x', commands: [{ component: 'V2', input: 'nothing', value: '1' }] }
    expect(() => stateTable(sheet, (id) => runs.get(id)!, show, [wrong])).toThrow(/has no command "nothing"/)
    expect(commandsOf(sheet).map((c) => `${c.component}.${c.spec.name}`)).toContain('V2.command')
  })
})

describe('the account of energy', () => {
  const { result, moments, sheet } = walked(pressing())
  it('agrees with that of the solver, and adds up by states', () => {
    const whole = energyOf(moments, result, 0, result.duration)
    expect(totalOf(whole.input)).toBeCloseTo(result.energy.input, -2)
    expect(totalOf(whole.heat) / result.energy.heat).toBeCloseTo(1, 1)
    const halves = [energyOf(moments, result, 0, 2.5), energyOf(moments, result, 2.5, 5)]
    expect(totalOf(halves[0].input) + totalOf(halves[1].input)).toBeCloseTo(totalOf(whole.input), 3)
    expect(Math.abs(whole.rest)).toBeLessThan(0.02 * totalOf(whole.input))
  })
  it('is a graph in which as much leaves a place as comes in', () => {
    const account = energyOf(moments, result, 0, result.duration)
    const { nodes, links } = energyGraph(sheet, account, (part) => part)
    const into = links.filter((l) => l.target === 'all').reduce((sum, l) => sum + l.value, 0)
    const out = links.filter((l) => l.source === 'all').reduce((sum, l) => sum + l.value, 0)
    expect(out / into).toBeCloseTo(1, 1)
    for (const { source, target } of links)
      for (const end of [source, target]) expect(nodes.some((n) => n.id === end)).toBe(true)
  })
  it('finds the temperature at which as much is given off as is taken up', () => {
    const cool = pressing({}, undefined, { tank: { heatLoss: '400 W/K', ambient: '20 °C' } })
    const found = steadyTemperature(cool, cool.schedules[0].id)
    expect(found.temperature).toBeDefined()
    expect(found.lost).toBeCloseTo(400 * (found.temperature! - 293.15), 3)
    expect(found.heat / found.lost).toBeCloseTo(1, 1)
    const hot = pressing({}, undefined, { tank: { heatLoss: '1 W/K' } })
    const none = steadyTemperature(hot, hot.schedules[0].id)
    expect(none.temperature).toBeUndefined()
    expect(steadyText(none, show)).toContain('hotter than 120 °C')
  })
})

const briefOf = (steps: readonly [way: 'out' | 'back', duration: string][]): Brief => ({
  ...emptyBrief(),
  motions: [
    {
      id: 'm1',
      name: 'Ram',
      actuator: 'doubleActing',
      designation: RAM,
      values: { stroke: '100 mm', outTime: '1 s', backTime: '1 s' },
      loadTable: [],
      workWay: 'out',
      holding: 'spool',
      mounting: 'unknown',
      speedControl: 'none',
      people: false,
    },
  ],
  cycle: steps.map(([way, duration], i) => ({
    id: `s${i}`,
    motion: 'm1',
    way,
    start: 'after',
    duration,
    condition: '',
  })),
})

describe('the stroke–step diagram', () => {
  const sheet = pressing()
  const result = runSheet(sheet)
  it('lays what is intended over what is simulated, from the first motion on', () => {
    const diagram = strokeSteps(sheet, result, briefOf([['out', '1 s']]), show)
    const [row] = diagram.rows
    const begins = row.intended.find(([t]) => t > 0)![0]
    expect(begins).toBeCloseTo(motionsOf(moversOf(sheet, result)[0], result)[0].start, 6)
    expect(Math.max(...row.intended.map(([, place]) => place))).toBeCloseTo(0.1, 6)
    expect(diagram.steps.length).toBeGreaterThanOrEqual(3)
  })
  it('marks a motion that takes too long, one that does not happen, and one that nobody intended', () => {
    const kinds = (steps: Parameters<typeof briefOf>[0]) =>
      strokeSteps(sheet, result, briefOf(steps), show).differences.map((d) => d.kind)
    expect(
      kinds([
        ['out', '0.2 s'],
        ['back', '5 s'],
      ]),
    ).toEqual(['time'])
    expect(
      kinds([
        ['out', '5 s'],
        ['back', '5 s'],
      ]),
    ).toEqual([])
    expect(
      kinds([
        ['out', '5 s'],
        ['back', '5 s'],
        ['out', '5 s'],
      ]),
    ).toEqual(['missing'])
    expect(kinds([['out', '5 s']])).toEqual(['extra'])
  })
  it('says nothing of differences without a brief', () => {
    expect(strokeSteps(sheet, result, emptyBrief(), show).differences).toEqual([])
  })
})

describe('two runs compared', () => {
  const side = (sheet: Sheet) => {
    const result = runSheet(sheet)
    return { sheet, result, moments: new Moments(sheet, result) }
  }
  const light = side(pressing())
  it('finds nothing between a run and itself', () => {
    const rows = compareRuns(light, side(pressing()), show)
    expect(rows.filter((r) => r.differs)).toEqual([])
    expect(comparisonSummary(rows)).toEqual([
      'The order of motions is the same.',
      'No figure differs by more than 2 %.',
    ])
  })
  it('finds what a heavier load does to pressure and energy, and what sets the pressure', () => {
    const rows = compareRuns(light, side(pressing({ loadForce: '30 kN' })), show)
    const gauge = rows.find((r) => r.label === `${GAUGE}, as ${RAM} extends`)!
    expect(gauge.differs).toBe(true)
    expect(gauge.first).toContain(`load on ${RAM}`)
    // 10 kN on 31.17 cm²
    expect(Number.parseFloat(gauge.difference)).toBeCloseTo(10e3 / ((Math.PI / 4) * 0.063 ** 2) / bar, 0)
    const load = rows.find((r) => r.group === 'forces')!
    expect(load.difference).toBe('+10 kN')
  })
  it('shows what only one of them has', () => {
    const still = side(pressing({}, []))
    const rows = compareRuns(light, still, show)
    expect(rows[0]).toMatchObject({ group: 'order', differs: true, second: 'nothing moves' })
    expect(rows.find((r) => r.label === `${RAM} extends: lasts`)).toMatchObject({
      second: '–',
      differs: true,
    })
  })
})

describe('words', () => {
  it('begin and end as sentences do, and leave designations as they are', () => {
    expect(sentence('the run begins')).toBe('The run begins.')
    expect(sentence('Already said.')).toBe('Already said.')
    expect(lowerFirst('The load sets it')).toBe('the load sets it')
    expect(lowerFirst('V2 sets it')).toBe('V2 sets it')
  })
  it('show nothing that no instrument would show', () => {
    const read = withoutNoise(show)
    expect(read(-9.95e-6, 'length')).toBe('0 mm')
    expect(read(0.12345, 'length')).toBe('123 mm')
    expect(instantText(11.9449, show)).toBe('11.94 s')
  })
})

describe('what moves unevenly', () => {
  it('is not told by an instant: a rod that is back where it began moves to and fro', () => {
    // a load drags the rod out of its cap side, which empties, and the oil on the other side springs it back
    const { states } = walked(pressing({ loadForce: '-15 kN', stroke: '400 mm' }))
    for (const { sentences } of states)
      for (const { text } of sentences) {
        const read = /retracts from ([-\d.]+) mm to ([-\d.]+) mm/.exec(text)
        if (read) expect(Number(read[2])).toBeLessThanOrEqual(Number(read[1]))
      }
    expect(states[0].summary).toContain('moves to and fro')
  })
  it('sets the pressure that holds a load, also where its other side runs empty', () => {
    const { result, moments } = walked(
      pressing({ loadForce: '-15 kN' }, [track('V2', 'command', [0.5, '1'])], { duration: 1 }),
    )
    moments.showRecorded(result, 0.6)
    const ports = new LinePorts(moments.network)
    expect(pressureStack(ports, result.lineOfPort['A1.A']).fixedBy.kind).toBe('void')
    expect(pressureStack(ports, result.lineOfPort['A1.B']).fixedBy).toEqual({ kind: 'load', part: 'A1' })
    expect(pressureStack(ports, result.lineOfPort['P1.P']).fixedBy.kind).toBe('void')
  })
})

describe('states that only the control reaches', () => {
  const drawn = circuit(
    {
      ...powerUnit,
      back2: ['reservoir'],
      back3: ['reservoir'],
      valve: ['directional-valve-4-3', { centre: 'closed' }],
      meter: ['flow-meter'],
    },
    [
      ...powerUnitPipes,
      'pump.P valve.P',
      'valve.T back2.T',
      'valve.A meter.A',
      'meter.B back3.T',
      'valve.B back3.T',
    ],
  )
  const sheet = withControl(timed(drawn, 1, [], '10 ms'), { S1: ['push-button'], S2: ['push-button'] }, [
    'S1 · /S2 -> V2.coilA',
    'S2 · /S1 -> V2.coilB',
  ])
  const result = runMachine(sheet)
  const added = { name: 'by hand', commands: [{ component: 'V2', input: 'command', value: '1' }] }
  const table = stateTable(sheet, () => result, show, [added])
  const value = (row: StateRow, key: string) => row.cells[table.columns.findIndex((c) => c.key === key)]

  it('are each combination that it allows, solved, and no others', () => {
    expect(table.isControlComplete).toBe(true)
    const reached = table.rows.filter(({ origin }) => origin === 'control')
    expect(reached.map(({ title }) => title)).toEqual([
      '1-1V2 is switched on at coil a.',
      '1-1V2 is switched on at coil b.',
    ])
    expect(countText(table)).toBe(
      '4 states: 1 from all schedules, 2 more that the control can reach, 1 added.',
    )
    expect(metText(sheet, reached[0], show)).toMatch(/control can reach/)
  })
  it('have the figures of their own rest, as has one that was added', () => {
    const [rest, onA, onB, byHand] = table.rows
    const meter = table.columns.find(({ group }) => group === 'flows')!.key
    for (const row of [onA, byHand]) {
      expect(row.outcome).toBe('steady')
      // all that the pump delivers goes through the meter
      const delivery = value(row, 'P1.delivery').value
      expect(delivery / lpm).toBeGreaterThan(20)
      expect(value(row, meter).value / delivery).toBeCloseTo(1, 3)
    }
    for (const row of [rest, onB]) expect(value(row, meter).value / lpm).toBeCloseTo(0, 3)
    expect(value(onA, 'P1.shaftPower').value).toBeLessThan(0.2 * value(rest, 'P1.shaftPower').value)
  })
})

describe('a state in which only a motor has current', () => {
  it('is a separate state where only a motor is switched', () => {
    const sheet = withControl(
      timed(circuit(powerUnit, powerUnitPipes), 1, [], '10 ms'),
      { S1: ['push-button'] },
      ['S1 -> M1.speed'],
    )
    const result = runMachine(sheet)
    const table = stateTable(sheet, () => result, show)
    expect(table.rows.map(({ origin }) => origin)).toEqual(['schedule', 'control'])
    const speed = table.columns.findIndex(({ key }) => key === 'M1.speed')
    const [off, on] = table.rows.map(({ cells }) => cells[speed].value)
    expect(off).toBe(0)
    // 1500 r/min, as the motor is drawn
    expect(on).toBeCloseTo((1500 * 2 * Math.PI) / 60, 3)
  })
})
