/** Writes the JSON Schema of the sheet file, derived from its Zod schema: schema OUT */
import { writeFileSync } from 'node:fs'
import { sheetJsonSchema } from '../formats/json-schema'

writeFileSync(process.argv[2] ?? 'docs/sheet.schema.json', sheetJsonSchema())
