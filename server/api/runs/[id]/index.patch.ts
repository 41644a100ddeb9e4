import { eq } from 'drizzle-orm'
import { runNameBody } from '#shared/api'
import { runs } from '../../../database/schema'

export default defineEventHandler(async (event) => {
  const { name } = await readChecked(event, runNameBody)
  const done = useStore()
    .update(runs)
    .set({ name })
    .where(eq(runs.id, getRouterParam(event, 'id')!))
    .run()
  if (!done.changes) refuse(404, 'There is no such run; it may have been deleted.')
  return sendNoContent(event)
})
