import { eq } from 'drizzle-orm'
import { runs } from '../../../database/schema'

export default defineEventHandler((event) => {
  const done = useStore()
    .delete(runs)
    .where(eq(runs.id, getRouterParam(event, 'id')!))
    .run()
  if (!done.changes) refuse(404, 'There is no such run; it may have been deleted.')
  return sendNoContent(event)
})
