/** A process that imports an archive into a data folder, to be killed: node import-process.js FOLDER ARCHIVE. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { openDatabase } from '../database/open'
import { importArchive } from '../workspace/import'

const [folder, archive, sql] = process.argv.slice(2)
const migrations = readdirSync(sql)
  .filter((name) => name.endsWith('.sql'))
  .sort()
  .map((name) => ({ name, sql: readFileSync(join(sql, name), 'utf8') }))
const store = openDatabase(folder, migrations).db
process.stdout.write('begun\n')
await importArchive(store, archive)
process.stdout.write('done\n')
