/** The answer to a request that failed: JSON for the API, a plain page else; no stack traces. */
import type { NitroErrorHandler } from 'nitropack'
import { setResponseHeader, setResponseStatus, send, type H3Error } from 'h3'
import { storageFailure } from './utils/failures'

const handler: NitroErrorHandler = (error, event) => {
  const { statusCode = 500, data } = error as H3Error
  const folder = process.env.NUXT_DATA_FOLDER ?? '.data'
  const stored = storageFailure(error, folder)
  const own = statusCode < 500 || data !== undefined
  const status = stored ? 507 : statusCode
  const message = stored ?? (own ? error.message : 'The server failed at this. Try again.')
  if (!stored && !own) console.error(error.stack ?? error)
  if (stored) console.error(stored)
  setResponseStatus(event, status, stored ? 'Insufficient Storage' : undefined)
  setResponseHeader(event, 'content-type', 'application/json; charset=utf-8')
  return send(event, JSON.stringify({ statusCode: status, message, ...(own && data ? { data } : {}) }))
}
export default handler
