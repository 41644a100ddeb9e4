/** The module that the build makes of the SQL migrations. */
import { readdirSync, readFileSync } from 'node:fs'

const folder = new URL('../database/migrations/', import.meta.url)
export const migrations = readdirSync(folder)
  .filter((name) => name.endsWith('.sql'))
  .sort()
  .map((name) => ({ name, sql: readFileSync(new URL(name, folder), 'utf8') }))
