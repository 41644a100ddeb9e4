import { eq } from 'drizzle-orm'
import { revisions, sheetVersions } from '../../../database/schema'

/** The sheet as it was in a revision. */
export default defineEventHandler((event) => {
  const row = useStore()
    .select({ content: sheetVersions.content })
    .from(revisions)
    .innerJoin(sheetVersions, eq(sheetVersions.hash, revisions.versionHash))
    .where(eq(revisions.id, getRouterParam(event, 'id')!))
    .get()
  if (!row) refuse(404, 'There is no such revision; it may have been deleted.')
  return storedSheet(row.content)
})
