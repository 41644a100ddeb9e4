import { eq } from 'drizzle-orm'
import { machineBody } from '#shared/api'
import { machines } from '../../../database/schema'

export default defineEventHandler(async (event) => {
  const { name, summary } = await readChecked(event, machineBody)
  const done = useStore()
    .update(machines)
    .set({ name, summary, updatedAt: new Date() })
    .where(eq(machines.id, getRouterParam(event, 'id')!))
    .run()
  if (!done.changes) refuse(404, 'There is no such machine; it may have been deleted.')
  return sendNoContent(event)
})
