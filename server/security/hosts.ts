/** Where the server listens, and under which names it may be asked for. */
import { hostname } from 'node:os'
import { isIP } from 'node:net'

export const LOOPBACK = '127.0.0.1'
const LOOPBACK_NAMES = new Set(['localhost', '127.0.0.1', '::1'])

/** The address to listen on: loopback unless HOST says otherwise. */
export const listenAddress = (env = process.env) => env.NITRO_HOST || env.HOST || LOOPBACK
/** What is wrong with the port that is asked for; nothing where it can be one, or none is named. */
export function portProblem(env = process.env): string | undefined {
  const text = env.NITRO_PORT || env.PORT
  if (!text || (/^\d{1,5}$/.test(text) && Number(text) > 0 && Number(text) < 65536)) return undefined
  return `PORT=${text.slice(0, 40)} is no port: take a whole number from 1 to 65535.`
}
export const isLoopback = (address: string) => LOOPBACK_NAMES.has(address) || /^127\./.test(address)

/** What counts as one address where attempts are counted: of IPv6 the network of 64 bits, of which a machine has as many as it likes. */
export function addressKey(address: string): string {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)
  if (mapped) return mapped[1]
  if (isIP(address) !== 6) return address
  const [head, tail = ''] = address.toLowerCase().split('%')[0].split('::')
  const groups = (text: string) => (text ? text.split(':') : [])
  const [before, after] = [groups(head), groups(tail)]
  const zeros = address.includes('::') ? Array<string>(8 - before.length - after.length).fill('0') : []
  return [...before, ...zeros, ...after]
    .slice(0, 4)
    .map((group) => parseInt(group, 16).toString(16))
    .join(':')
}

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
