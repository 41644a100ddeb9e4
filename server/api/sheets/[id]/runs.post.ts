import { createHash, randomUUID } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { decodeRun } from '@oar-bench/core/formats/run-file'
import { writeSheetText } from '@oar-bench/core/sheet/read'
import type { RunResult } from '@oar-bench/core/simulate/result'
import { runBody, type RunRow } from '#shared/api'
import { runs, sheets, sheetVersions } from '../../../database/schema'

export default defineEventHandler(async (event): Promise<RunRow> => {
  const sheetId = getRouterParam(event, 'id')!
  const body = await readChecked(event, runBody)
  const content = writeSheetText(checkedSheet(body.sheet))
  const data = Buffer.from(body.data, 'base64')
  let result: RunResult
  try {
    result = decodeRun(data)
  } catch (error) {
    refuse(400, (error as Error).message)
  }
  const store = useStore()
  if (!store.select({ id: sheets.id }).from(sheets).where(eq(sheets.id, sheetId)).get())
    refuse(404, 'There is no such sheet; its machine may have been deleted.')
  const hash = createHash('sha256').update(content).digest('hex')
  const createdAt = new Date()
  const row = {
    id: randomUUID(),
    name: body.name,
    schedule: result.schedule,
    duration: result.duration,
    finished: result.finished,
    conditions: result.conditions.length,
    versionHash: hash,
  }
  store.transaction((tx) => {
    tx.insert(sheetVersions).values({ hash, content, createdAt }).onConflictDoNothing().run()
    tx.insert(runs)
      .values({ ...row, sheetId, createdAt, data })
      .run()
  })
  setResponseStatus(event, 201)
  return { ...row, createdAt: createdAt.getTime() }
})
