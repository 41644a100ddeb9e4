import { findMachine, findSheetOf, variantsOf } from '../../../database/machines'
import { desc, eq } from 'drizzle-orm'
import { readBrief } from '@oar-bench/core/size/brief/read'
import type { MachineDetail } from '#shared/api'
import { runs } from '../../../database/schema'

export default defineEventHandler((event): MachineDetail => {
  const store = useStore()
  const machine = findMachine(store, getRouterParam(event, 'id')!)
  const asked = getQuery(event).sheet
  const sheet = machine && findSheetOf(store, machine.id, typeof asked === 'string' ? asked : undefined)
  if (!machine) refuse(404, 'There is no such machine; it may have been deleted.')
  if (!sheet) refuse(404, 'The machine has no such variant; it may have been deleted.')
  const kept = store
    .select({
      id: runs.id,
      name: runs.name,
      schedule: runs.schedule,
      duration: runs.duration,
      finished: runs.finished,
      conditions: runs.conditions,
      createdAt: runs.createdAt,
      versionHash: runs.versionHash,
    })
    .from(runs)
    .where(eq(runs.sheetId, sheet.id))
    .orderBy(desc(runs.createdAt))
    .all()
  return {
    id: machine.id,
    name: machine.name,
    summary: machine.summary,
    brief: readBrief(JSON.parse(machine.brief)),
    briefRevision: machine.briefRevision,
    sheet: { id: sheet.id, name: sheet.name, revision: sheet.revision, content: storedSheet(sheet.content) },
    variants: variantsOf(store, machine.id).map(({ id, name }) => ({ id, name })),
    runs: kept.map((r) => ({ ...r, createdAt: r.createdAt.getTime() })),
  }
})
