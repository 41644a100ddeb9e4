import { and, eq } from 'drizzle-orm'
import { writeSheetText } from '@oar-bench/core/sheet/read'
import { sheetBody, type Saved } from '#shared/api'
import { sheets } from '../../../database/schema'

export default defineEventHandler(async (event): Promise<Saved> => {
  const id = getRouterParam(event, 'id')!
  const body = await readChecked(event, sheetBody)
  const sheet = checkedSheet(body.sheet)
  const store = useStore()
  const now = new Date()
  const done = store
    .update(sheets)
    .set({ content: writeSheetText(sheet), revision: body.revision + 1, updatedAt: now })
    .where(and(eq(sheets.id, id), eq(sheets.revision, body.revision)))
    .run()
  if (!done.changes) {
    const current = store.select({ revision: sheets.revision }).from(sheets).where(eq(sheets.id, id)).get()
    if (!current) refuse(404, 'There is no such sheet; its machine may have been deleted.')
    refuse(409, 'The sheet was changed elsewhere since it was opened here.')
  }
  return { revision: body.revision + 1, updatedAt: now.getTime() }
})
