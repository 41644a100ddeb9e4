import { z } from 'zod'
import { sheetSchema } from '../sheet/schema'

/** JSON Schema of the sheet file as text. */
export const sheetJsonSchema = () =>
  JSON.stringify(z.toJSONSchema(sheetSchema, { io: 'input', unrepresentable: 'any' }), null, 2) + '\n'
