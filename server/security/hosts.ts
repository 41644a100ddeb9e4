/** Where the server listens, and under which names it may be asked for. */
import { hostname } from 'node:os'
import { isIP } from 'node:net'

export const LOOPBACK = '127.0.0.1'
const LOOPBACK_NAMES = new Set(['localhost', '127.0.0.1', '::1'])

/** The address to listen on: loopback unless HOST says otherwise. */
export const listenAddress = (env = process.env) => env.NITRO_HOST || env.HOST || LOOPBACK
export const isLoopback = (address: string) => LOOPBACK_NAMES.has(address) || /^127\./.test(address)

/** The name in a Host header or an origin, without port and brackets; none where it is malformed. */
export function nameOfHost(host: string | undefined): string | undefined {
  if (!host) return undefined
  try {
    const { hostname: name } = new URL(`http://${host}`)
    return name.replace(/^\[|\]$/g, '').toLowerCase()
  } catch {
    return undefined
  }
}

/**
 * Whether the server may be asked for under a name. A page elsewhere can make its own name lead here (DNS rebinding), but not an
 * address, nor a name of this machine.
 * @param more further names that are allowed
 */
export function isAllowedHost(host: string | undefined, more: readonly string[] = []): boolean {
  const name = nameOfHost(host)
  if (!name) return false
  if (isIP(name) || name === 'localhost') return true
  const own = hostname().toLowerCase()
  return name === own || name === `${own}.local` || more.some((allowed) => allowed.toLowerCase() === name)
}

/** What a browser says of where a request comes from. */
export interface RequestSource {
  readonly host?: string
  readonly origin?: string
  /** Sec-Fetch-Site. */
  readonly site?: string
}
/** Whether a request was made by a page of this server, or by no page at all. */
export function isSameOrigin({ host, origin, site }: RequestSource): boolean {
  if (origin !== undefined) {
    try {
      return new URL(origin).host === host
    } catch {
      // "null": a page without an origin of its own
      return false
    }
  }
  return site === undefined || site === 'same-origin' || site === 'none'
}
