import { exportWorkspace } from '../workspace/export'

/** All machines as one archive. */
export default defineEventHandler((event) => {
  setResponseHeader(event, 'content-type', 'application/zip')
  setResponseHeader(event, 'content-disposition', 'attachment; filename="oar-bench-workspace.zip"')
  return sendStream(event, exportWorkspace(useStore()))
})
