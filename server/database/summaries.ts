/** What the list of machines shows of each sheet: worked out after a change, and kept, so that the list reads no sheets. */
import { createHash } from 'node:crypto'
import { and, eq, isNull, ne, or } from 'drizzle-orm'
import { sheetThumbnail } from '../../core/formats/svg'
import { readSheetText } from '../../core/sheet/read'
import { checkMachine } from '../../core/control/run'
import { agreement } from '../../core/size/agreement'
import { readBrief } from '../../core/size/brief/read'
import { sizeMachine } from '../../core/size/graph'
import { seriesInForce } from '../../core/size/own-series'
import { showIn } from '../../core/units/text'
import type { Store } from './open'
import { machines, sheets, sheetSummaries } from './schema'
import { listSeries } from './series'

export const hashOf = (content: string) => createHash('sha256').update(content).digest('hex')

/** Works out the summary of a sheet and keeps it. A sheet that does not read has no summary. */
export function summarise(store: Store, sheetId: string): void {
  const row = store
    .select({ sheet: sheets, brief: machines.brief, briefRevision: machines.briefRevision })
    .from(sheets)
    .innerJoin(machines, eq(machines.id, sheets.machineId))
    .where(eq(sheets.id, sheetId))
    .get()
  if (!row) return
  const read = readSheetText(row.sheet.content)
  if (!read.ok) return
  const show = showIn('metric')
  const findings = checkMachine(read.sheet, undefined, show).filter((f) => !f.accepted)
  const of = (severity: 'error' | 'warning') =>
    findings.filter((f) => f.severity === severity && !f.incomplete).length
  const brief = readBrief(JSON.parse(row.brief))
  const series = seriesInForce(listSeries(store))
  const values = {
    revision: row.sheet.revision,
    briefRevision: row.briefRevision,
    contentHash: hashOf(row.sheet.content),
    components: read.sheet.components.length,
    errors: of('error'),
    warnings: of('warning'),
    incomplete: findings.filter((f) => f.incomplete).length,
    ...agreement(read.sheet, brief, sizeMachine(brief, read.sheet.sizing, { series })),
    thumbnail: sheetThumbnail(read.sheet, show),
  }
  store
    .insert(sheetSummaries)
    .values({ sheetId, ...values })
    .onConflictDoUpdate({ target: sheetSummaries.sheetId, set: values })
    .run()
}

/** Sheets whose summary is missing or out of date. */
export const unsummarised = (store: Store): string[] =>
  store
    .select({ id: sheets.id })
    .from(sheets)
    .innerJoin(machines, eq(machines.id, sheets.machineId))
    .leftJoin(sheetSummaries, eq(sheetSummaries.sheetId, sheets.id))
    .where(
      and(
        isNull(machines.importId),
        or(
          isNull(sheetSummaries.sheetId),
          ne(sheetSummaries.revision, sheets.revision),
          ne(sheetSummaries.briefRevision, machines.briefRevision),
        ),
      ),
    )
    .all()
    .map(({ id }) => id)

/** The summary of a sheet where it is of its present revision. */
export const findSummary = (store: Store, sheetId: string) =>
  store
    .select({ summary: sheetSummaries })
    .from(sheetSummaries)
    .innerJoin(
      sheets,
      and(eq(sheets.id, sheetSummaries.sheetId), eq(sheets.revision, sheetSummaries.revision)),
    )
    .where(eq(sheetSummaries.sheetId, sheetId))
    .get()?.summary
