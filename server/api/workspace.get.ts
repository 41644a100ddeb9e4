import { writeWorkspace } from '@oar-bench/core/formats/workspace'
import { workspaceOf } from '../database/machines'

/** All machines as one archive. */
export default defineEventHandler((event) => {
  setResponseHeader(event, 'Content-Type', 'application/zip')
  setResponseHeader(event, 'Content-Disposition', 'attachment; filename="oar-bench-workspace.zip"')
  return Buffer.from(writeWorkspace(workspaceOf(useStore())))
})
