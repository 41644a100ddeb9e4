/** Applies what is missing of the SQL migrations, all of one in a transaction, before anything is answered. */
import type Database from 'better-sqlite3'

export interface Migration {
  readonly name: string
  readonly sql: string
}

const BREAK = '--> statement-breakpoint'

/** @throws Error where the database was written by a newer program */
export function migrate(database: Database.Database, migrations: readonly Migration[]): void {
  database.exec('CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, applied_at INTEGER NOT NULL)')
  const applied = new Set(
    (database.prepare('SELECT name FROM migrations').all() as { name: string }[]).map((row) => row.name),
  )
  const known = new Set(migrations.map((m) => m.name))
  const newer = [...applied].find((name) => !known.has(name))
  if (newer)
    throw new Error(`The database was written by a newer Oar Bench (${newer}); this one would damage it.`)
  for (const { name, sql } of migrations) {
    if (applied.has(name)) continue
    database.transaction(() => {
      for (const statement of sql.split(BREAK)) if (statement.trim()) database.exec(statement)
      database.prepare('INSERT INTO migrations VALUES (?, ?)').run(name, Date.now())
    })()
  }
}
