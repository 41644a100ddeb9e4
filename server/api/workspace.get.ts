import { randomUUID } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** All machines as one archive: written beside the requests, then sent. */
export default defineEventHandler(async (event) => {
  const path = join(tmpdir(), `oar-bench-export-${randomUUID()}.zip`)
  const away = () => void rm(path, { force: true }).catch(() => undefined)
  try {
    await inBackground('exportArchive', path)
    const { size } = await stat(path)
    setResponseHeader(event, 'content-type', 'application/zip')
    setResponseHeader(event, 'content-length', size)
    setResponseHeader(event, 'content-disposition', 'attachment; filename="oar-bench-workspace.zip"')
    const archive = createReadStream(path)
    archive.once('close', away)
    return sendStream(event, archive)
  } catch (error) {
    away()
    throw error
  }
})
