import { and, eq } from 'drizzle-orm'
import { writeSheetText } from '@oar-bench/core/sheet/read'
import { sheetBody, type Saved } from '#shared/api'
import { sheets } from '../../../database/schema'

/** Saves a sheet. What the server has already is a success, whatever revision it started from. */
export default defineEventHandler(async (event): Promise<Saved> => {
  const id = getRouterParam(event, 'id')!
  const { revision, saveId, sheet } = await readChecked(event, sheetBody)
  const content = writeSheetText(checkedSheet(sheet))
  const store = useStore()
  const now = new Date()
  const done = store
    .update(sheets)
    .set({ content, revision: revision + 1, saveId: saveId ?? null, updatedAt: now })
    .where(and(eq(sheets.id, id), eq(sheets.revision, revision)))
    .run()
  if (done.changes) updateSummaries(id)
  if (done.changes) return { revision: revision + 1, updatedAt: now.getTime() }
  const current = store.select().from(sheets).where(eq(sheets.id, id)).get()
  if (!current) refuse(404, 'There is no such sheet; its machine may have been deleted.')
  if (current.content === content)
    return { revision: current.revision, updatedAt: current.updatedAt.getTime() }
  refuse(409, 'The sheet was changed elsewhere since it was opened here.', {
    conflict: { revision: current.revision, saveId: current.saveId },
  })
})
