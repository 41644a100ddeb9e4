import { readWorkspace, type WorkspaceMachine } from '@oar-bench/core/formats/workspace'
import { insertWorkspace } from '../database/machines'

/** Adds the machines of an archive: all of them, or none where anything in it is wrong. */
export default defineEventHandler(async (event) => {
  const body = await readRawBody(event, false)
  if (!body?.length) refuse(400, 'There is nothing in it.')
  let machines: WorkspaceMachine[]
  try {
    machines = readWorkspace(body)
  } catch (error) {
    refuse(400, (error as Error).message)
  }
  setResponseStatus(event, 201)
  return { machines: insertWorkspace(useStore(), machines) }
})
