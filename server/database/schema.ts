/** The tables. A sheet is stored as the text of its file; a run with the exact version it came from. */
import { blob, index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'

const id = () => text('id').primaryKey()
const time = (name: string) => integer(name, { mode: 'timestamp_ms' }).notNull()

export const machines = sqliteTable('machines', {
  id: id(),
  name: text('name').notNull(),
  summary: text('summary').notNull().default(''),
  brief: text('brief').notNull(),
  briefRevision: integer('brief_revision').notNull().default(1),
  /** The save that made the brief as it is. */
  briefSaveId: text('brief_save_id'),
  createdAt: time('created_at'),
  updatedAt: time('updated_at'),
  /** The import that is still adding it: nobody sees it until all of that is there. */
  importId: text('import_id'),
})

/** Sessions of people who have given the password; what is not here is signed out. */
export const sessions = sqliteTable('sessions', {
  id: id(),
  expiresAt: time('expires_at'),
})

export const sheets = sqliteTable(
  'sheets',
  {
    id: id(),
    machineId: text('machine_id')
      .notNull()
      .references(() => machines.id, { onDelete: 'cascade' }),
    /** Name of the variant, and its place among the variants of its machine. */
    name: text('name').notNull().default('First variant'),
    position: integer('position').notNull().default(0),
    content: text('content').notNull(),
    /** Counts saves; a save names the one it started from. */
    revision: integer('revision').notNull().default(1),
    /** The save that made the sheet as it is. */
    saveId: text('save_id'),
    updatedAt: time('updated_at'),
  },
  (table) => [index('sheets_by_machine').on(table.machineId)],
)

export const sheetVersions = sqliteTable('sheet_versions', {
  /** SHA-256 of the content. */
  hash: text('hash').primaryKey(),
  content: text('content').notNull(),
  createdAt: time('created_at'),
})

export const runs = sqliteTable(
  'runs',
  {
    id: id(),
    sheetId: text('sheet_id')
      .notNull()
      .references(() => sheets.id, { onDelete: 'cascade' }),
    versionHash: text('version_hash')
      .notNull()
      .references(() => sheetVersions.hash),
    name: text('name').notNull(),
    schedule: text('schedule').notNull(),
    duration: real('duration').notNull(),
    finished: integer('finished', { mode: 'boolean' }).notNull(),
    conditions: integer('conditions').notNull(),
    createdAt: time('created_at'),
    /** The bytes of the run as core/formats/run-file.ts writes them. */
    data: blob('data', { mode: 'buffer' }).notNull(),
  },
  (table) => [index('runs_by_sheet').on(table.sheetId)],
)

/** States of a sheet that somebody named, to come back to or to compare with. */
export const revisions = sqliteTable(
  'revisions',
  {
    id: id(),
    sheetId: text('sheet_id')
      .notNull()
      .references(() => sheets.id, { onDelete: 'cascade' }),
    versionHash: text('version_hash')
      .notNull()
      .references(() => sheetVersions.hash),
    name: text('name').notNull(),
    note: text('note').notNull().default(''),
    createdAt: time('created_at'),
  },
  (table) => [index('revisions_by_sheet').on(table.sheetId)],
)

/** What the list of machines shows of a sheet, worked out after each change; it can be worked out anew at any time. */
export const sheetSummaries = sqliteTable('sheet_summaries', {
  sheetId: text('sheet_id')
    .primaryKey()
    .references(() => sheets.id, { onDelete: 'cascade' }),
  /** Revisions of the sheet and of the brief that it is of. */
  revision: integer('revision').notNull(),
  briefRevision: integer('brief_revision').notNull(),
  /** As `sheet_versions.hash`. */
  contentHash: text('content_hash').notNull(),
  components: integer('components').notNull(),
  errors: integer('errors').notNull(),
  /** Findings that only say what is not drawn yet. */
  incomplete: integer('incomplete').notNull(),
  warnings: integer('warnings').notNull(),
  sized: integer('sized').notNull(),
  agreeing: integer('agreeing').notNull(),
  /** Values that several results could go to, until a person says which. */
  waiting: integer('waiting').notNull().default(0),
  /** SVG; empty for an empty sheet. */
  thumbnail: text('thumbnail').notNull(),
})

/** Series of sizes that were added to the standard ones, each as its JSON (`ownSeriesSchema`). */
export const ownSeries = sqliteTable('own_series', {
  name: text('name').primaryKey(),
  content: text('content').notNull(),
})
