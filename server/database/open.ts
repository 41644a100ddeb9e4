import { mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import Database from 'better-sqlite3'
import { drizzle } from 'drizzle-orm/better-sqlite3'
import { migrate, type Migration } from './migrate'
import * as schema from './schema'

/** A connection to the database of a data folder, as it is. */
export function connectDatabase(folder: string) {
  const connection = new Database(join(resolve(folder), 'oar-bench.sqlite'))
  connection.pragma('journal_mode = WAL')
  connection.pragma('foreign_keys = ON')
  // what was shown as saved survives a power cut too
  connection.pragma('synchronous = FULL')
  connection.pragma('busy_timeout = 5000')
  return { connection, db: drizzle(connection, { schema }) }
}
/** Opens (and where needed makes) the database of a data folder, brought up to date. */
export function openDatabase(folder: string, migrations: readonly Migration[]) {
  mkdirSync(resolve(folder), { recursive: true })
  const opened = connectDatabase(folder)
  migrate(opened.connection, migrations)
  return opened
}
/**
 * The database as it is now, for reading over a longer time.
 * @returns a connection of its own that sees nothing of what is written later, and what ends it
 */
export function snapshotOf(store: Store): { readonly store: Store; release(): void } {
  const connection = new Database(store.$client.name, { readonly: true })
  connection.exec('BEGIN')
  // the snapshot is taken at the first reading
  connection.prepare('SELECT count(*) FROM machines').get()
  return {
    store: drizzle(connection, { schema }),
    release: () => void (connection.open && connection.close()),
  }
}
export type Store = ReturnType<typeof openDatabase>['db']
