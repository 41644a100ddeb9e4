import { eq } from 'drizzle-orm'
import { runBody, type RunRow } from '#shared/api'
import { insertRun } from '../../../database/machines'
import { sheets } from '../../../database/schema'

export default defineEventHandler(async (event): Promise<RunRow> => {
  const sheetId = getRouterParam(event, 'id')!
  const body = await readChecked(event, runBody)
  const sheet = checkedSheet(body.sheet)
  const store = useStore()
  if (!store.select({ id: sheets.id }).from(sheets).where(eq(sheets.id, sheetId)).get())
    refuse(404, 'There is no such sheet; its machine may have been deleted.')
  const createdAt = new Date()
  try {
    const row = store.transaction((tx) =>
      insertRun(tx, sheetId, body.name, sheet, Buffer.from(body.data, 'base64'), createdAt),
    )
    setResponseStatus(event, 201)
    return { ...row, createdAt: createdAt.getTime() }
  } catch (error) {
    refuse(400, (error as Error).message)
  }
})
