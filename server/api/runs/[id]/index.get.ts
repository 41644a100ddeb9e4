import { eq } from 'drizzle-orm'
import { isGzip } from '../../../database/machines'
import { runs } from '../../../database/schema'

/** The bytes of a kept run. */
export default defineEventHandler((event) => {
  const run = useStore()
    .select({ data: runs.data })
    .from(runs)
    .where(eq(runs.id, getRouterParam(event, 'id')!))
    .get()
  if (!run) refuse(404, 'There is no such run; it may have been deleted.')
  setHeader(event, 'content-type', 'application/octet-stream')
  if (isGzip(run.data)) setHeader(event, 'content-encoding', 'gzip')
  return run.data
})
