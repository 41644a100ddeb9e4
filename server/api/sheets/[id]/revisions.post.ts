import { eq } from 'drizzle-orm'
import { revisionBody, type RevisionRow } from '#shared/api'
import { insertRevision } from '../../../database/machines'
import { sheets } from '../../../database/schema'

/** Keeps a state of the sheet under a name. */
export default defineEventHandler(async (event): Promise<RevisionRow> => {
  const sheetId = getRouterParam(event, 'id')!
  const { name, note, sheet } = await readChecked(event, revisionBody)
  const checked = checkedSheet(sheet)
  const store = useStore()
  if (!store.select({ id: sheets.id }).from(sheets).where(eq(sheets.id, sheetId)).get())
    refuse(404, 'There is no such sheet; its machine may have been deleted.')
  const createdAt = new Date()
  const id = store.transaction((tx) => insertRevision(tx, sheetId, { name, note, createdAt }, checked))
  setResponseStatus(event, 201)
  return { id, name, note, createdAt: createdAt.getTime() }
})
