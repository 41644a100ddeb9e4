import { randomUUID } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { decodeRun } from '@oar-bench/core/formats/run-file'
import type { RunResult } from '@oar-bench/core/simulate/result'
import { runBody, type RunRow } from '#shared/api'
import { keepVersion } from '../../../database/machines'
import { runs, sheets } from '../../../database/schema'

export default defineEventHandler(async (event): Promise<RunRow> => {
  const sheetId = getRouterParam(event, 'id')!
  const body = await readChecked(event, runBody)
  const sheet = checkedSheet(body.sheet)
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
  const createdAt = new Date()
  const row = {
    id: randomUUID(),
    name: body.name,
    schedule: result.schedule,
    duration: result.duration,
    finished: result.finished,
    conditions: result.conditions.length,
  }
  const versionHash = store.transaction((tx) => {
    const hash = keepVersion(tx, sheet)
    tx.insert(runs)
      .values({ ...row, versionHash: hash, sheetId, createdAt, data })
      .run()
    return hash
  })
  setResponseStatus(event, 201)
  return { ...row, versionHash, createdAt: createdAt.getTime() }
})
