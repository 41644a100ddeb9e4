import { randomUUID } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { revisionBody, type RevisionRow } from '#shared/api'
import { keepVersion } from '../../../database/machines'
import { revisions, sheets } from '../../../database/schema'

/** Keeps a state of the sheet under a name. */
export default defineEventHandler(async (event): Promise<RevisionRow> => {
  const sheetId = getRouterParam(event, 'id')!
  const { name, note, sheet } = await readChecked(event, revisionBody)
  const checked = checkedSheet(sheet)
  const store = useStore()
  if (!store.select({ id: sheets.id }).from(sheets).where(eq(sheets.id, sheetId)).get())
    refuse(404, 'There is no such sheet; its machine may have been deleted.')
  const row = { id: randomUUID(), name, note }
  const createdAt = new Date()
  store.transaction((tx) => {
    const versionHash = keepVersion(tx, checked)
    tx.insert(revisions)
      .values({ ...row, sheetId, versionHash, createdAt })
      .run()
  })
  setResponseStatus(event, 201)
  return { ...row, createdAt: createdAt.getTime() }
})
