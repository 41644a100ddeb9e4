import { copyBody } from '#shared/api'
import { copyMachine } from '../../../database/machines'

/** Makes a machine with the brief and the sheets of another one; revisions and runs stay with that. */
export default defineEventHandler(async (event) => {
  const { name } = await readChecked(event, copyBody)
  const id = copyMachine(useStore(), getRouterParam(event, 'id')!, name)
  if (!id) refuse(404, 'There is no such machine; it may have been deleted.')
  updateSummaries()
  setResponseStatus(event, 201)
  return { id }
})
