import { describe, expect, it } from 'vitest'
import { findKind } from '../catalogue'
import { commandableOf, type TableParameter } from '../catalogue/kind'
import { cylinderDoubleActing } from '../catalogue/actuators/cylinder-double-acting'
import { setDesignation } from '../sheet/edit'
import { emptySheet } from '../sheet/schema'
import { circuit, idOf, powerUnit, powerUnitPipes, timed, track } from '../testing'
import { csv } from './csv'
import { columnName, readScheduleCsv, readTableCsv, scheduleRows, unitOf } from './csv-read'

const load: TableParameter = cylinderDoubleActing.parameters.loadTable
const table = (text: string) => {
  const read = readTableCsv(text, load)
  return read.ok ? read.value : read.message
}
describe('a load table from CSV', () => {
  it('is read with units in its heading, in its cells, and with other marks between them', () => {
    const wanted = [
      ['0 mm', '2 kN'],
      ['300 mm', '12.5 kN'],
    ]
    expect(table('stroke [mm],force (kN)\r\n0,2\r\n300,12.5\r\n')).toEqual(wanted)
    expect(table('0 mm;2 kN\n300 mm;12,5 kN\n')).toEqual(wanted)
    expect(table('\uFEFFstroke\tforce\n0 mm\t2 kN\n\n300 mm\t12.5 kN')).toEqual(wanted)
  })
  it.each([
    ['', /empty/],
    ['0 mm\n10 mm\n', /one column/],
    ['0 mm,2 kN\n', /two rows at least/],
    ['stroke [mm],force [kN]\n0,2\n300,soft\n', /Row 3, force/],
    ['0 mm,2 bar\n300 mm,2 bar\n', /Row 1, force: .*unit of pressure/],
    [`0 mm,1 kN\n${Array.from({ length: 300 }, (_, i) => `${i + 1} mm,1 kN`).join('\n')}`, /200 rows/],
    ['x'.repeat(3e6), /larger than 2 MB/],
  ])('is refused with its row: %#', (text, words) => expect(table(text)).toMatch(words))
})

describe('a heading', () => {
  it.each(['stroke [mm]', 'stroke(mm)', 'stroke [ mm ]', ' stroke (old) [mm] '])(
    'has a unit: %s',
    (heading) => expect([columnName(heading), unitOf(heading)]).toEqual(['stroke', 'mm']),
  )
  it.each(['stroke', 'stroke (mm) at', '(', ']', ''])('has no unit: "%s"', (heading) =>
    expect(unitOf(heading) || undefined).toBeUndefined(),
  )
  // with an expression that goes back, this takes minutes
  it('of a million spaces or brackets is read in one pass', () => {
    for (const filling of [' ', '[', '( '].map((part) => part.repeat(1e6)))
      for (const heading of [`stroke${filling}x`, `stroke${filling}]`, filling])
        expect([columnName(heading), unitOf(heading)].length).toBe(2)
  })
})

describe('a schedule as CSV', () => {
  const base = circuit({ ...powerUnit, valve: ['directional-valve-4-3'] }, powerUnitPipes)
  const [motor, valve] = [idOf(base, 'electric-motor'), idOf(base, 'directional-valve-4-3')]
  const sheet = setDesignation(
    timed(base, 4, [
      track(motor, 'speed', [0, '1450 rpm'], [2, '900 rpm', 'ramp']),
      track(valve, 'command', [1, '1'], [3, '0']),
    ]),
    valve,
    '1-2V7',
  )
  const read = (text: string) => {
    const result = readScheduleCsv(text, sheet)
    return result.ok ? result.value : result.message
  }
  it('comes back as it went out', () => {
    expect(read(csv(scheduleRows(sheet, sheet.schedules[0])))).toEqual(sheet.schedules[0].tracks)
  })
  it('is read by label and position, with columns in any order', () => {
    const position = 'Value;Time [s];Component;Command\n'
    const spec = commandableOf(findKind('directional-valve-4-3')!).find((c) => c.name === 'command')!
    const labels = read(`${position}${spec.positions![0].label};1;1-2V7;command\n`)
    expect(labels).toEqual([
      {
        component: valve,
        input: 'command',
        points: [{ at: '1 s', value: String(spec.positions![0].value), shape: 'step' }],
      },
    ])
  })
  it.each([
    ['Component,Time,Value\nP1,1 s,2', /Command is missing/],
    ['Component,Command,Time,Value\nnobody,speed,1 s,900 rpm', /Row 2: there is no component "nobody"/],
    ['Component,Command,Time,Value\n1-2V7,colour,1 s,1', /cannot be commanded by "colour"/],
    ['Component,Command,Time,Value\n1-2V7,command,1 s,2 bar', /Row 2, value/],
    ['Component,Command,Time,Value\n1-2V7,command,soon,1', /Row 2, time/],
    ['Component,Command,Time,Value,Shape\n1-2V7,command,1 s,1,curve', /step or ramp/],
    ['Component,Command,Time,Value\n1-2V7,command,2 s,1\n1-2V7,command,1 s,1', /Row 3: the time goes back/],
    ['Component,Command,Time,Value\n', /no rows below/],
  ])('is refused with its row: %#', (text, words) => expect(read(text)).toMatch(words))
})

// with an expression that goes back, one of these takes minutes
it('a cell of 100 000 letters is refused at once, whatever it holds', () => {
  const cells = [' ', '1', '1 ', ',', '1,', '.', "1'234", '/', '-', 'e', '(', '[', '1/1'].flatMap((part) => {
    const text = part.repeat(1e5 / part.length)
    return [text, `1${text}x`, `12,345${text}`, `a${text}]`]
  })
  for (const cell of cells) {
    const schedule = `Component,Command,Time [${cell},Value\nP1,speed,"${cell}","${cell}"`
    expect(readScheduleCsv(schedule, emptySheet('Empty')).ok).toBe(false)
    expect(readTableCsv(`"${cell}","${cell}"\n"${cell}","${cell}"`, load).ok).toBe(false)
  }
})
