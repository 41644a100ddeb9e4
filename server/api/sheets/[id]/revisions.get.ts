import { desc, eq } from 'drizzle-orm'
import type { RevisionRow } from '#shared/api'
import { revisions } from '../../../database/schema'

/** The named states of a sheet, the newest first. */
export default defineEventHandler((event): RevisionRow[] =>
  useStore()
    .select()
    .from(revisions)
    .where(eq(revisions.sheetId, getRouterParam(event, 'id')!))
    .orderBy(desc(revisions.createdAt))
    .all()
    .map(({ id, name, note, createdAt }) => ({ id, name, note, createdAt: createdAt.getTime() })),
)
