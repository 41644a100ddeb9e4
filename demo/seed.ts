/** Puts the demo machines into an empty database: seed FOLDER */
import { readdirSync, readFileSync } from 'node:fs'
import { openDatabase } from '../server/database/open'
import { insertMachine } from '../server/database/machines'
import { machines } from '../server/database/schema'
import { demoMachines } from './machines'

const folder = new URL('../server/database/migrations/', import.meta.url)
const migrations = readdirSync(folder)
  .filter((name) => name.endsWith('.sql'))
  .sort()
  .map((name) => ({ name, sql: readFileSync(new URL(name, folder), 'utf8') }))

const { connection, db } = openDatabase(process.argv[2] ?? '.data', migrations)
if (db.select({ id: machines.id }).from(machines).limit(1).get()) {
  console.log('The database has machines already; nothing was added.')
} else {
  const list = demoMachines()
  for (const machine of list) insertMachine(db, machine)
  const variants = list.reduce((sum, machine) => sum + machine.variants.length, 0)
  console.log(`${list.length} demo machines added, with ${variants} variants.`)
}
connection.close()
