import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { noDecisions, sizeMachine } from '../size/graph'
import { readBrief } from '../size/brief/read'
import { ownSeriesSchema, seriesInForce, seriesNames, withSeries, type OwnSeries } from '../size/own-series'
import { standardSeries } from '../size/series'
import { csv } from './csv'
import { copyOfStandard, readSeriesCsv, seriesRows } from './series-csv'

const store: OwnSeries = {
  name: 'In the store',
  of: 'bores',
  use: 'instead',
  source: 'stock list; March',
  sizes: ['90 mm', '45 mm', '4 in'],
}
const read = (text: string) => {
  const found = readSeriesCsv(text)
  return found.ok ? found.value : found.message
}

describe('series as a table', () => {
  it.each(seriesNames)('give the standard series of %s back that is copied', (name) => {
    const copy = copyOfStandard(name)
    expect(read(csv(seriesRows([copy])))).toEqual([copy])
    const { values } = seriesInForce([copy])[name]
    expect(values).toHaveLength(standardSeries[name].values.length)
    values.forEach((v, i) => expect(v / standardSeries[name].values[i]).toBeCloseTo(1, 9))
  })
  it('take what a cell does not say from the row above, and the unit from the heading', () => {
    expect(
      read(
        'Series;Sizes of;Use;Source;Size [mm]\nOurs;Cylinder bores;instead;list;45\n;;;;90\nMore;rods;;;"25,5"',
      ),
    ).toEqual([
      { name: 'Ours', of: 'bores', use: 'instead', source: 'list', sizes: ['45 mm', '90 mm'] },
      { name: 'More', of: 'rods', use: 'added', source: '', sizes: ['25,5 mm'] },
    ])
  })
  it.each([
    ['size\n3 mm', 'series, sizes of is missing'],
    ['series,sizes of,size\n,bores,3 mm', 'Row 2: the series has no name'],
    ['series,sizes of,size\nA,wheels,3 mm', 'Row 2: "wheels" is no kind of sizes'],
    ['series,sizes of,size\nA,bores,3 bar', 'Row 2: Unknown unit "bar"'],
    ['series,sizes of,size\nA,bores,3 mm\nA,bores,-2 mm', 'Row 3: '],
    ['series,sizes of,use,size\nA,bores,perhaps,3 mm', 'added or instead'],
    ['series,sizes of,size\nA,bores,3 mm\nA,rods,3 mm', 'Row 3: the series "A" has sizes of two kinds'],
    ['series,sizes of,size', 'no rows'],
    ['', 'empty'],
  ])('say what is wrong with %j', (text, message) => {
    expect(read(text)).toContain(message)
  })
})

describe('the series in force', () => {
  it('have the sizes of a person in place of the standard, rising whatever their units', () => {
    const { bores, rods } = seriesInForce([store])
    expect(bores.values).toEqual([0.045, 0.09, 0.1016])
    expect(bores.source).toBe('stock list; March')
    expect(rods).toBe(standardSeries.rods)
  })
  it('have them beside the standard, each size once', () => {
    const { bores } = seriesInForce([{ ...store, use: 'added', sizes: ['90 mm', '100 mm', '10 cm'] }])
    expect(bores.values).toHaveLength(standardSeries.bores.values.length + 1)
    expect(bores.source).toBe('ISO 3320, stock list; March')
  })
  it('always rise', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 1, maxLength: 40 }),
        fc.constantFrom('added' as const, 'instead' as const),
        (sizes, use) => {
          const { values } = seriesInForce([{ ...store, use, sizes: sizes.map((s) => `${s} mm`) }]).bores
          return values.every((v, i) => i === 0 || v > values[i - 1])
        },
      ),
    )
  })
  it('are those from which a machine is sized', () => {
    const brief = readBrief({ values: { stroke: '600 mm', workingPressure: '190 bar', bucklingLength: '1' } })
    const bore = (own: readonly OwnSeries[]) =>
      sizeMachine(brief, noDecisions(), { series: seriesInForce(own) }).find('cylinder-bore@motion')!.values
        .bore
    expect(bore([])).toBeCloseTo(0.08, 9)
    expect(bore([store])).toBeCloseTo(0.09, 9)
  })
  it('take one of the same name in the place of the other', () => {
    const other = { ...store, name: 'Other' }
    const later = { ...store, sizes: ['50 mm'] }
    expect(withSeries([store, other], [later])).toEqual([other, later])
  })
  it('refuse what cannot be a size', () => {
    for (const wrong of ['', '3 bar', '0 mm', 'wide'])
      expect(ownSeriesSchema.safeParse({ ...store, sizes: [wrong] }).success).toBe(false)
  })
})
