import { eq } from 'drizzle-orm'
import { runs, sheetVersions } from '../../../database/schema'

/** The exact sheet that a kept run came from. */
export default defineEventHandler((event) => {
  const row = useStore()
    .select({ content: sheetVersions.content })
    .from(runs)
    .innerJoin(sheetVersions, eq(sheetVersions.hash, runs.versionHash))
    .where(eq(runs.id, getRouterParam(event, 'id')!))
    .get()
  if (!row) refuse(404, 'There is no such run; it may have been deleted.')
  return storedSheet(row.content)
})
