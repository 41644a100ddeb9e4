import { readFileSync, readdirSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText, writeSheetText } from '../sheet/read'
import { catalogueText } from './catalogue-text'
import { sheetJsonSchema } from './json-schema'

const file = (path: string) => readFileSync(new URL(`../../${path}`, import.meta.url), 'utf8')

describe('derived documents', () => {
  it('has the JSON Schema of today (npm run schema)', () =>
    expect(file('docs/sheet.schema.json')).toBe(sheetJsonSchema()))
  it('has the catalogue of today (npm run schema)', () =>
    expect(file('docs/catalogue.md')).toBe(catalogueText()))
  it('shows an example that reads and runs as a sheet', () => {
    const text = file('docs/sheet-file.md')
    const start = text.indexOf('    {\n')
    const example = text.slice(start, text.indexOf('\n    }\n', start) + 7)
    const read = readSheetText(example)
    expect(read.ok ? '' : read.problems[0].message).toBe('')
  })
  it('keeps the demo sheets and the example as the program writes them', () => {
    for (const folder of ['demo/sheets', 'app/assets/examples'])
      for (const name of readdirSync(new URL(`../../${folder}`, import.meta.url))) {
        const read = readSheetText(file(`${folder}/${name}`))
        expect(read.ok && writeSheetText(read.sheet)).toBe(file(`${folder}/${name}`))
      }
  })
})
