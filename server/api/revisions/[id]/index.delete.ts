import { eq } from 'drizzle-orm'
import { revisions } from '../../../database/schema'

export default defineEventHandler((event) => {
  const done = useStore()
    .delete(revisions)
    .where(eq(revisions.id, getRouterParam(event, 'id')!))
    .run()
  if (!done.changes) refuse(404, 'There is no such revision; it may have been deleted already.')
  setResponseStatus(event, 204)
  return null
})
