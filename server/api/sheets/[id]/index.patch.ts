import { eq } from 'drizzle-orm'
import { variantNameBody } from '#shared/api'
import { sheets } from '../../../database/schema'

export default defineEventHandler(async (event) => {
  const { name } = await readChecked(event, variantNameBody)
  const done = useStore()
    .update(sheets)
    .set({ name })
    .where(eq(sheets.id, getRouterParam(event, 'id')!))
    .run()
  if (!done.changes) refuse(404, 'There is no such variant; it may have been deleted.')
  return sendNoContent(event)
})
