import { followMovedPorts } from './moved-ports'
import { withSharedDesignations } from './shared-item'
import { sheetSchema, SHEET_FORMAT, SHEET_VERSION, type Sheet } from './schema'
import type { Finding } from './finding'
import { issueText } from './issue-text'
import { parseQuantity } from '../units/text'

export type ReadResult = { ok: true; sheet: Sheet } | { ok: false; problems: Finding[] }

const refused = (message: string, remedy?: string): ReadResult => ({
  ok: false,
  problems: [{ rule: 'file', severity: 'error', message, remedy, location: {} }],
})

/** Characters of the largest text that is looked at; a sheet with all it may hold is smaller. */
const LARGEST_TEXT = 20e6

/** Reads the text of a sheet file. Never throws; every problem says where it is. */
export function readSheetText(text: string): ReadResult {
  if (text.length > LARGEST_TEXT) return refused('This is larger than 20 MB; it is no sheet.')
  let data: unknown
  try {
    // a byte order mark at the start is no part of the text
    data = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    return refused(`This is not JSON: ${(error as Error).message}.`)
  }
  return readSheet(data)
}

/** Checks parsed JSON against the sheet format, and that its names hang together. */
export function readSheet(data: unknown): ReadResult {
  if (typeof data !== 'object' || data === null || (data as { format?: unknown }).format !== SHEET_FORMAT)
    return refused(`This is not an Oar Bench sheet: "format" must be "${SHEET_FORMAT}".`)
  const version = (data as { version?: unknown }).version
  if (typeof version === 'number' && version > SHEET_VERSION)
    return refused(
      `The sheet has version ${version}; this program reads up to version ${SHEET_VERSION}.`,
      'Open it with a newer Oar Bench.',
    )
  const oversized = oversizedField(data)
  if (oversized !== undefined)
    return refused(
      `${oversized.slice(0, 80)}: has far more values than any sheet needs, or they are nested too deep`,
    )
  const parsed = sheetSchema.safeParse(migrated(data))
  if (!parsed.success) {
    const problems = parsed.error.issues.slice(0, 20).map((issue): Finding => ({
      rule: 'file',
      severity: 'error',
      message: issueText(issue, 'the sheet'),
      location: {},
    }))
    return { ok: false, problems }
  }
  const problems = nameProblems(parsed.data)
  if (problems.length) return { ok: false, problems }
  const drawnBefore = typeof version === 'number' && version < SYMBOLS_REDRAWN
  return {
    ok: true,
    sheet: drawnBefore ? withSharedDesignations(followMovedPorts(parsed.data)) : parsed.data,
  }
}

/** More values, and more levels of them, than a sheet of the greatest size has. */
const MOST_VALUES = 1_000_000
const MOST_LEVELS = 12
const MOST_ENTRIES = 5000

/** The field that holds so much that checking it would take long; none where all is well. */
function oversizedField(data: object): string | undefined {
  const fields = Object.entries(data)
  if (fields.length > MOST_ENTRIES) return fields[0][0]
  let count = 0
  for (const [field, content] of fields) {
    let level: unknown[] = [content]
    for (let depth = 0; level.length; depth++) {
      if (depth > MOST_LEVELS) return field
      const next: unknown[] = []
      for (const item of level) {
        if (typeof item !== 'object' || item === null) continue
        const values: unknown[] = Array.isArray(item) ? item : Object.values(item)
        count += values.length
        if (count > MOST_VALUES || values.length > MOST_ENTRIES) return field
        for (const value of values) next.push(value)
      }
      level = next
    }
  }
  return undefined
}

/** From this version on symbols have the proportions of ISO 1219-1, and some of their ports lie elsewhere. */
const SYMBOLS_REDRAWN = 6

/** What changed from each version of the format to the next, the first entry from 1 to 2. */
const migrations: readonly ((sheet: Record<string, unknown>) => Record<string, unknown>)[] = [
  // page and accepted warnings came in, with defaults
  (sheet) => ({ ...sheet, version: 2 }),
  // pipes shaped by hand, words on the sheet, people under a load: nothing that an older file has changes
  (sheet) => ({ ...sheet, version: 3 }),
  // what happens where a line would burst, with a default; pumps and motors have friction of their own, with defaults
  (sheet) => ({ ...sheet, version: 4 }),
  withStandardTerms,
  withCaseDrains,
  // what was decided while sizing: nothing that an older file has changes
  (sheet) => ({ ...sheet, version: 7 }),
  // actions of live runs in schedules: nothing that an older file has changes
  (sheet) => ({ ...sheet, version: 8 }),
  // the control of the machine: nothing that an older file has changes
  (sheet) => ({ ...sheet, version: 9 }),
  // states that were added to the table of states, and strokes of pens: nothing that an older file has changes
  (sheet) => ({ ...sheet, version: 10 }),
  withLineModels,
]

type Fields = Record<string, unknown>
const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
/** A field under its new name; data of any other form is left to the schema to refuse. */
function renamed(fields: Fields, names: Readonly<Record<string, string>>): Fields {
  return Object.fromEntries(
    Object.entries(fields).map(([name, value]) => [Object.hasOwn(names, name) ? names[name] : name, value]),
  )
}
const eachRenamed = (list: unknown, change: (item: Fields) => Fields): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isFields(item) ? change(item) : item)) : list

/** Length from which the waves in a pipe count, m: one mass of oil in the place of them gave a wrong surge. */
const LONG = 10
const isLong = (length: unknown): boolean => {
  const read = typeof length === 'string' ? parseQuantity(length, 'length') : undefined
  return read?.ok === true && read.si > LONG
}
/**
 * From version 10 to 11: a pipe that had friction keeps it, whether that of the others counts follows from their flow; a run stops
 * where a line would burst, which was only reported where nothing else was chosen.
 */
function withLineModels(sheet: Fields): Fields {
  const pipe = ({ friction, ...others }: Fields): Fields =>
    friction === true ? { ...others, lineModel: isLong(others.length) ? 'distributed' : 'friction' } : others
  const schedule = ({ onBurst, ...others }: Fields): Fields =>
    onBurst === undefined || onBurst === 'report' ? others : { ...others, onBurst }
  return {
    ...sheet,
    version: 11,
    pipes: eachRenamed(sheet.pipes, pipe),
    schedules: eachRenamed(sheet.schedules, schedule),
  }
}

/** From version 4 to 5: the fields have the standard terms. */
function withStandardTerms(sheet: Fields): Fields {
  const starts: Readonly<Record<string, string>> = { asSet: 'initialValues', settled: 'steadyState' }
  const end = (value: unknown) => (isFields(value) ? renamed(value, { joint: 'junction' }) : value)
  const pipe = (fields: Fields): Fields => {
    const { from, to, ...others } = renamed(fields, { line: 'lineType', shaped: 'manualRoute' })
    return { ...others, from: end(from), to: end(to) }
  }
  const { junctions, pipes, schedules, acceptedWarnings, ...others } = renamed(sheet, {
    joints: 'junctions',
    silenced: 'acceptedWarnings',
  })
  const known = Object.entries({
    junctions,
    pipes: eachRenamed(pipes, pipe),
    schedules: eachRenamed(schedules, (s) => ({
      ...s,
      ...(typeof s.start === 'string'
        ? { start: Object.hasOwn(starts, s.start) ? starts[s.start] : s.start }
        : {}),
    })),
    acceptedWarnings: eachRenamed(acceptedWarnings, (w) => renamed(w, { place: 'location' })),
  }).filter(([, value]) => value !== undefined)
  return { ...others, ...Object.fromEntries(known), version: 5 }
}

/** Pumps that have a case drain from version 6 on: in older files their leakage went to the suction line. */
const DRAINED = new Set<unknown>(['load-sensing-pump', 'pressure-compensated-pump', 'variable-pump-manual'])
/** From version 5 to 6: symbols were redrawn, see `followMovedPorts`; variable pumps say where their leakage goes. */
function withCaseDrains(sheet: Fields): Fields {
  const components = eachRenamed(sheet.components, (c) =>
    DRAINED.has(c.kind) && (c.parameters === undefined || isFields(c.parameters))
      ? { ...c, parameters: { caseDrain: 'internal', ...c.parameters } }
      : c,
  )
  return { ...sheet, ...(components === undefined ? {} : { components }), version: 6 }
}

/** The data of an older file as the current format has it; what is no version is left to the schema to refuse. */
function migrated(data: object): object {
  let sheet = data as Record<string, unknown>
  for (let version = 1; version <= migrations.length; version++)
    if (sheet.version === version) sheet = migrations[version - 1](sheet)
  return sheet
}

function nameProblems(sheet: Sheet): Finding[] {
  const problems: Finding[] = []
  const add = (message: string, place: Finding['location']) =>
    problems.push({ rule: 'file', severity: 'error', message, location: place })
  const twice = (what: string, ids: readonly { id: string }[]) => {
    const seen = new Set<string>()
    for (const { id } of ids) {
      if (seen.has(id)) add(`Two ${what}s have the id "${id}".`, {})
      seen.add(id)
    }
    return seen
  }
  const components = twice('component', sheet.components)
  const junctions = twice('junction', sheet.junctions)
  twice('pipe', sheet.pipes)
  const { devices, rungs, sequences, requirements } = sheet.control
  twice('device', [
    ...[...components].map((id) => ({ id })),
    ...devices,
    ...rungs,
    ...sequences,
    ...requirements,
  ])
  for (const { id, steps, transitions } of sequences) {
    const own = twice('step', steps)
    twice('transition', transitions)
    for (const transition of transitions)
      for (const step of [...transition.from, ...transition.to])
        if (!own.has(step))
          add(`Transition "${transition.id}" of ${id} names step "${step}", which is not there.`, {
            component: id,
          })
  }
  twice('schedule', sheet.schedules)
  for (const pipe of sheet.pipes)
    for (const end of [pipe.from, pipe.to]) {
      if ('junction' in end && !junctions.has(end.junction))
        add(`Pipe "${pipe.id}" ends at junction "${end.junction}", which is not there.`, { pipe: pipe.id })
      if ('component' in end && !components.has(end.component))
        add(`Pipe "${pipe.id}" ends at component "${end.component}", which is not there.`, {
          pipe: pipe.id,
        })
    }
  return problems
}

/** The text of a sheet file, stable in order, so that equal sheets give equal text. */
export const writeSheetText = (sheet: Sheet): string => JSON.stringify(sheet, null, 2) + '\n'
