import { eq } from 'drizzle-orm'
import { machines } from '../../../database/schema'

export default defineEventHandler((event) => {
  const done = useStore()
    .delete(machines)
    .where(eq(machines.id, getRouterParam(event, 'id')!))
    .run()
  if (!done.changes) refuse(404, 'There is no such machine; it may have been deleted.')
  return sendNoContent(event)
})
