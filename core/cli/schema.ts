/** Writes what is derived from the schema and the catalogue into a folder (docs by default). */
import { writeFileSync } from 'node:fs'
import { catalogueText } from '../formats/catalogue-text'
import { sheetJsonSchema } from '../formats/json-schema'

const folder = process.argv[2] ?? 'docs'
writeFileSync(`${folder}/sheet.schema.json`, sheetJsonSchema())
writeFileSync(`${folder}/catalogue.md`, catalogueText())
