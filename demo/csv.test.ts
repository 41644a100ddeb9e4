/** What is written as CSV and can be read, is read as it was: for every machine, in both styles of numbers. */
import { describe, expect, it } from 'vitest'
import { briefRows, readBriefCsv } from '../core/formats/brief-csv'
import { csv, type CsvStyle } from '../core/formats/csv'
import { readScheduleCsv, readTableCsv, scheduleRows } from '../core/formats/csv-read'
import { copyOfStandard, readSeriesCsv, seriesRows } from '../core/formats/series-csv'
import { findKind } from '../core/catalogue'
import type { Parameter } from '../core/catalogue/kind'
import { emptyBrief } from '../core/size/brief/brief'
import { seriesNames } from '../core/size/own-series'
import { demoMachines } from './machines'

const styles: CsvStyle[] = [
  { separator: ',', decimal: '.' },
  { separator: ';', decimal: ',' },
  { separator: '\t', decimal: ',' },
]
const machines = demoMachines()
const cases = styles.flatMap((style) => machines.map((machine) => [machine.name, style, machine] as const))

describe.each(cases)('%s with %j', (_name, style, { brief, variants }) => {
  it('has its brief read back', () => {
    const read = readBriefCsv(csv(briefRows(brief), style), {
      ...emptyBrief(),
      ...brief,
      motions: [],
      cycle: [],
    })
    expect('brief' in read ? read.brief : read.message).toEqual(brief)
  })
  it('has a brief with forces the other way read back', () => {
    const reversed = {
      ...brief,
      motions: brief.motions.map((motion) => ({
        ...motion,
        name: `=${motion.name}`,
        values: Object.fromEntries(
          Object.entries(motion.values).map(([name, text]) => [
            name,
            // a rope only pulls
            motion.actuator !== 'winch' && /^(forceOut|forceBack|slope)$/.test(name) && !text!.startsWith('-')
              ? `-${text}`
              : text,
          ]),
        ),
      })),
    }
    const read = readBriefCsv(csv(briefRows(reversed), style), { ...reversed, motions: [], cycle: [] })
    expect('brief' in read ? read.brief : read.message).toEqual(reversed)
  })
  it('has its schedules read back, with the buttons and switches of its control', () => {
    for (const { sheet } of variants)
      for (const schedule of sheet.schedules.filter(({ tracks }) => tracks.length)) {
        const read = readScheduleCsv(csv(scheduleRows(sheet, schedule), style), sheet)
        expect(read.ok ? read.value : read.message).toEqual(schedule.tracks)
      }
  })
  it('has its load tables read back', () => {
    for (const { sheet } of variants)
      for (const component of sheet.components)
        for (const [name, parameter] of Object.entries<Parameter>(
          findKind(component.kind)?.parameters ?? {},
        )) {
          const table = component.parameters[name]
          if (parameter.type !== 'table' || !Array.isArray(table)) continue
          const read = readTableCsv(csv(table as string[][], style), parameter)
          expect(read.ok ? read.value : read.message).toEqual(table)
        }
  })
})
it.each(styles)('series of sizes are read back with %j', (style) => {
  const list = seriesNames.map(copyOfStandard)
  const read = readSeriesCsv(csv(seriesRows(list), style))
  expect(read.ok ? read.value : read.message).toEqual(list)
})
