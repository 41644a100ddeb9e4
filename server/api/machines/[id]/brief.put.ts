import { and, eq } from 'drizzle-orm'
import { briefBody, type Saved } from '#shared/api'
import { findMachine } from '../../../database/machines'
import { machines } from '../../../database/schema'

/** Saves the brief. What the server has already is a success, whatever revision it started from. */
export default defineEventHandler(async (event): Promise<Saved> => {
  const id = getRouterParam(event, 'id')!
  const { revision, saveId, brief } = await readChecked(event, briefBody)
  const store = useStore()
  const content = JSON.stringify(brief)
  const now = new Date()
  const done = store
    .update(machines)
    .set({ brief: content, briefRevision: revision + 1, briefSaveId: saveId ?? null, updatedAt: now })
    .where(and(eq(machines.id, id), eq(machines.briefRevision, revision)))
    .run()
  if (done.changes) updateSummaries()
  if (done.changes) return { revision: revision + 1, updatedAt: now.getTime() }
  const current = findMachine(store, id)
  if (!current) refuse(404, 'There is no such machine; it may have been deleted.')
  if (current.brief === content)
    return { revision: current.briefRevision, updatedAt: current.updatedAt.getTime() }
  refuse(409, 'The brief was changed elsewhere since it was opened here.', {
    conflict: { revision: current.briefRevision, saveId: current.briefSaveId },
  })
})
