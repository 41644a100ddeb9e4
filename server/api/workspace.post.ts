import { ArchiveRefused } from '../workspace/archive'
import { importWorkspace } from '../workspace/import'

const LARGEST = 4e9

/** Adds the machines of an archive: all of them, or none where anything in it is wrong. */
export default defineEventHandler(async (event) => {
  try {
    const added = await importWorkspace(useStore(), event.node.req, LARGEST)
    updateSummaries()
    setResponseStatus(event, 201)
    return { machines: added }
  } catch (error) {
    if (error instanceof ArchiveRefused) refuse(400, error.message)
    throw error
  }
})
