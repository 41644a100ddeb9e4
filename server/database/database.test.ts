import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoMachines } from '../../demo/machines'
import { compileMachine } from '../../core/control/run'
import { findMachine, findSheetOf, insertMachine } from './machines'
import { migrate } from './migrate'
import { openDatabase } from './open'
import { runs, sheetVersions, sheets } from './schema'
import { eq } from 'drizzle-orm'

const folder = new URL('./migrations/', import.meta.url)
const migrations = readdirSync(folder)
  .filter((n) => n.endsWith('.sql'))
  .sort()
  .map((name) => ({ name, sql: readFileSync(new URL(name, folder), 'utf8') }))
let place: string
beforeAll(() => (place = mkdtempSync(join(tmpdir(), 'oar-bench-'))))
afterAll(() => rmSync(place, { recursive: true }))

describe('database', () => {
  it('migrates once, and again without harm', () => {
    const first = openDatabase(join(place, 'a'), migrations)
    const id = insertMachine(first.db, { name: 'Press', summary: '', variants: demoMachines()[0].variants })
    first.connection.close()
    const second = openDatabase(join(place, 'a'), migrations)
    expect(findMachine(second.db, id)?.name).toBe('Press')
    expect(JSON.parse(findSheetOf(second.db, id)!.content)).toEqual(demoMachines()[0].variants[0].sheet)
    second.connection.close()
  })
  it('refuses a database of a newer program', () => {
    const database = new Database(':memory:')
    migrate(database, [...migrations, { name: '9999_later.sql', sql: 'CREATE TABLE later (x)' }])
    expect(() => migrate(database, migrations)).toThrow('newer Oar Bench')
  })
  it('takes a migration back whole where it fails half way', () => {
    const database = new Database(':memory:')
    const broken = {
      name: '0001_broken.sql',
      sql: 'CREATE TABLE half (x);\n--> statement-breakpoint\nNONSENSE',
    }
    expect(() => migrate(database, [...migrations, broken])).toThrow()
    expect(database.prepare("SELECT name FROM sqlite_master WHERE name = 'half'").get()).toBeUndefined()
    expect(database.prepare('SELECT count(*) AS n FROM migrations').get()).toEqual({ n: migrations.length })
  })
  it('keeps runs with their version, and lets them go with their machine', () => {
    const { db, connection } = openDatabase(join(place, 'b'), migrations)
    const machine = insertMachine(db, { name: 'x', summary: '', variants: demoMachines()[0].variants })
    const sheetId = findSheetOf(db, machine)!.id
    const run = {
      id: 'r',
      sheetId,
      versionHash: 'h',
      name: 'n',
      schedule: 's',
      duration: 1,
      finished: true,
      conditions: 0,
      createdAt: new Date(),
      data: Buffer.from([1]),
    }
    expect(() => db.insert(runs).values(run).run()).toThrow('FOREIGN KEY')
    db.insert(sheetVersions).values({ hash: 'h', content: '{}', createdAt: new Date() }).run()
    db.insert(runs).values(run).run()
    db.delete(sheets).where(eq(sheets.id, sheetId)).run()
    expect(db.select().from(runs).all()).toEqual([])
    connection.close()
  })
})

describe('demo machines', () => {
  it('can all be run where they are drawn, and have a brief', () => {
    for (const { name, variants, brief } of demoMachines()) {
      expect(brief.purpose, name).not.toBe('')
      expect(variants.length, name).toBeGreaterThan(0)
      for (const { sheet } of variants)
        for (const schedule of sheet.schedules)
          expect(
            compileMachine(sheet, schedule.id).findings.filter((f) => !f.accepted),
            `${sheet.title}, ${schedule.name}`,
          ).toEqual([])
    }
  })
})
