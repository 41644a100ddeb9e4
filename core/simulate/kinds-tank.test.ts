/** The tank, drawn once and wide or often; pumps that are drained externally. */
import { describe, expect, it } from 'vitest'
import { checkDesign } from '../check'
import { partsList } from '../formats/lists'
import { addComponent, setDesignation, setParameter } from '../sheet/edit'
import { buildNetlist } from '../sheet/netlist'
import { readSheet } from '../sheet/read'
import { emptySheet, type Sheet } from '../sheet/schema'
import { showIn } from '../units/text'
import {
  bar,
  at,
  circuit,
  end,
  idOf,
  lpm,
  messages,
  powerUnit,
  powerUnitPipes,
  runSheet,
  timed,
  track,
} from '../testing'

const show = showIn('metric')

const unit = (drain: string[]): Sheet =>
  timed(
    circuit(
      {
        tank: ['reservoir-wide', { lines: '3', end3: 'above' }],
        motor: ['electric-motor', { speed: '1500 rpm', ratedPower: '30 kW' }],
        pump: ['pressure-compensated-pump', { compensator: '200 bar', displacement: '40 cm³/rev' }],
        load: ['pressure-source', { pressure: '150 bar' }],
        ...(drain.length > 1 ? { narrow: ['orifice', { diameter: '0.8 mm' }] } : {}),
      },
      ['tank.T1 pump.S', 'motor.W pump.W', 'pump.P load.P', ...drain],
    ),
    2,
    [],
  )

describe('a tank of several lines', () => {
  it('takes up what the case drain brings and gives what the pump draws', () => {
    const sheet = unit(['pump.L tank.T2'])
    const r = runSheet(sheet)
    const pump = idOf(sheet, 'pressure-compensated-pump')
    const tank = idOf(sheet, 'reservoir-wide')
    const [drawn, leaked, delivered] = [
      end(r, `flow(${tank}.T1)`),
      end(r, `flow(${tank}.T2)`),
      end(r, `flow(${pump}.P)`),
    ]
    // 40 cm³ at 1500 rpm, of which the leakage at 150 bar returns by the drain
    expect(-drawn / lpm).toBeCloseTo(60, 1)
    expect(leaked / lpm).toBeGreaterThan(0.5)
    expect(drawn + leaked - delivered).toBeCloseTo(0, 9)
    expect(end(r, `flow(${tank}.T3)`)).toBe(0)
  })
  it('lets a case under pressure be reported', () => {
    const sheet = unit(['pump.L narrow.A', 'narrow.B tank.T2'])
    const names = runSheet(sheet).conditions.map((c) => c.name)
    expect(names).toContain('caseOver')
  })
  it('draws air at the lines below the level only', () => {
    const low = { ...unit(['pump.L tank.T2']), tank: { ...unit([]).tank, oil: '5 L' } }
    expect(runSheet(low).conditions.map((c) => c.name)).toContain('dry')
    const tank = idOf(low, 'reservoir-wide')
    const above = ['end1', 'end2'].reduce((s, name) => setParameter(s, tank, name, 'above'), low)
    expect(runSheet(above).conditions.map((c) => c.name)).not.toContain('dry')
  })
  it('says so where a pipe ends at a line that it no longer has', () => {
    const sheet = unit(['pump.L tank.T3'])
    const fewer = setParameter(sheet, idOf(sheet, 'reservoir-wide'), 'lines', '2')
    expect(messages(fewer)).toEqual(
      expect.arrayContaining([expect.stringMatching(/no port T3 with its present values/)]),
    )
  })
})

describe('a tank drawn several times', () => {
  const two = ['reservoir', 'reservoir-wide'].reduce(
    (s, kind) => addComponent(s, kind, { x: s.components.length * 20 }).sheet,
    emptySheet('Tanks'),
  )
  const findings = (sheet: Sheet) =>
    checkDesign({ sheet, netlist: buildNetlist(sheet).netlist, show }).filter((f) =>
      ['one-part', 'designation-twice'].includes(f.rule),
    )
  it('has one designation, however it is renamed, and stands once in the parts list', () => {
    const [a, b] = two.components
    expect(a.designation).toBe(b.designation)
    const renamed = setDesignation(two, b.id, '1-0Z9')
    expect(renamed.components.map((c) => c.designation)).toEqual(['1-0Z9', '1-0Z9'])
    expect(partsList(renamed, show).filter((row) => row[4] === '1-0Z9')).toHaveLength(1)
    expect(findings(renamed)).toEqual([])
  })
  it('is a second tank where it says so', () => {
    const second = setParameter(two, two.components[1].id, 'tank', 'second')
    expect(findings(second).map((f) => f.rule)).toEqual(['designation-twice'])
  })
  it('agrees on the pressure above its oil, or says so', () => {
    const differing = setParameter(two, two.components[1].id, 'pressure', '0.5 bar')
    expect(findings(differing)).toEqual([
      expect.objectContaining({ rule: 'one-part', severity: 'error', fix: expect.anything() }),
    ])
  })
  it('is given one designation when an older file is read', () => {
    const old = {
      ...two,
      version: 5,
      components: two.components.map((c, i) => ({
        ...c,
        kind: 'reservoir',
        designation: `1-1Z${i + 1}`,
        parameters: {},
      })),
    }
    const read = readSheet(JSON.parse(JSON.stringify(old)))
    expect(read.ok && read.sheet.components.map((c) => c.designation)).toEqual(['1-1Z1', '1-1Z1'])
  })
  it('keeps the leakage of pumps in older files going to their suction line', () => {
    const pump = addComponent(emptySheet('Old'), 'load-sensing-pump').sheet
    const read = readSheet(JSON.parse(JSON.stringify({ ...pump, version: 5 })))
    expect(read.ok && read.sheet.components[0].parameters.caseDrain).toBe('internal')
  })
})

describe('oil that warms', () => {
  /** A pump that works against its relief, and oil shut in between a check valve and a plug. */
  const drawn = circuit({ ...powerUnit, check: ['check-valve'], plug: ['plug'], gauge: ['pressure-gauge'] }, [
    ...powerUnitPipes,
    'pump.P check.A',
    'check.B plug.A',
    'check.B gauge.P',
  ])
  const warmed = timed(
    { ...drawn, tank: { ...drawn.tank, oil: '10 L', warming: true, heatLoss: '0 W/K' } },
    20,
    [track(idOf(drawn, 'electric-motor'), 'speed', [0, '1500 rpm'])],
    '20 ms',
  )
  const r = runSheet(warmed)
  const temperature = (t: number) => at(r, `${idOf(drawn, 'reservoir')}.temperature`, t)

  it('keeps its mass: what is in the tank grows by 7e-4 a kelvin', () => {
    const oil = (t: number) => at(r, `${idOf(drawn, 'reservoir')}.oil`, t)
    const warmer = temperature(19) - temperature(3)
    expect(warmer).toBeGreaterThan(1)
    expect((oil(19) / oil(3) - 1) / (7e-4 * warmer)).toBeCloseTo(1, 1)
    expect(r.oil.error).toBeLessThan(1e-3)
    expect(r.energy.error).toBeLessThan(1e-3)
  })
  it('presses what is shut in by K_e·7e-4 a kelvin', () => {
    const shut = (t: number) => at(r, `pressure(${idOf(drawn, 'check-valve')}.B)`, t)
    const warmer = temperature(19) - temperature(3)
    const risen = shut(19) - shut(3)
    // liquid 1.5 GPa, a little less with its air
    expect(risen / (1.5e9 * 7e-4 * warmer)).toBeGreaterThan(0.95)
    expect(risen / (1.5e9 * 7e-4 * warmer)).toBeLessThan(1.01)
  })
  it('says that it warms where it is pressed beyond a rating, and not where a pump does that', () => {
    const shut = at(r, `pressure(${idOf(drawn, 'check-valve')}.B)`, 3) / bar
    const check = idOf(drawn, 'check-valve')
    const rated = (rating: number) => {
      const pipes = warmed.pipes.map((pipe) =>
        [pipe.from, pipe.to].some((end) => 'component' in end && end.component === check)
          ? { ...pipe, rating: `${rating} bar` }
          : pipe,
      )
      return runSheet({ ...warmed, pipes }).conditions.filter(({ name }) => name === 'overRated')
    }
    const byWarming = rated(shut + 10)
    expect(byWarming.map(({ label }) => / by oil that is shut in and warms$/.test(label))).toEqual([true])
    const byPump = rated(0.5 * shut)
    expect(byPump).toHaveLength(2)
    expect(byPump.some(({ label }) => label.includes('warms'))).toBe(false)
  })
})
