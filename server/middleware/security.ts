/** Refuses what does not come from a page of this server, what is not in the API, and who is not signed in. */
import { isAllowedHost, isSameOrigin } from '../security/hosts'
import { contentSecurityPolicy, SECURITY_HEADERS } from '../security/headers'
import { refusalOf } from '../security/routes'

export default defineEventHandler(async (event) => {
  setResponseHeaders(event, { ...SECURITY_HEADERS, 'content-security-policy': contentSecurityPolicy() })
  const host = getRequestHeader(event, 'host')
  const more = (process.env.OAR_BENCH_HOSTS ?? '').split(',').map((name) => name.trim())
  if (!isAllowedHost(host, more))
    refuse(
      421,
      'The server is not known under this name. Use its address, or name it in OAR_BENCH_HOSTS when you start it.',
    )
  const path = getRequestURL(event).pathname
  if (path !== '/api' && !path.startsWith('/api/')) {
    if (!['GET', 'HEAD'].includes(event.method)) refuse(405, `${event.method} is not possible here.`)
    return
  }
  setResponseHeader(event, 'cache-control', 'no-store')
  const source = {
    host,
    origin: getRequestHeader(event, 'origin'),
    site: getRequestHeader(event, 'sec-fetch-site'),
  }
  if (!isSameOrigin(source)) refuse(403, 'That came from a page elsewhere; nothing was changed.')
  const refusal = refusalOf({
    path,
    method: event.method,
    type: getRequestHeader(event, 'content-type'),
    length: getRequestHeader(event, 'content-length'),
    transferEncoding: getRequestHeader(event, 'transfer-encoding'),
  })
  if (refusal) {
    if (refusal.allow) setResponseHeader(event, 'allow', refusal.allow.join(', '))
    refuse(refusal.status, refusal.message)
  }
  if (path !== '/api/session' && !(await isSignedIn(event))) refuse(401, 'Sign in first.')
})
