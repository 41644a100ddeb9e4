/** Who may use the server: everybody on this machine; from other machines whoever knows the password. */
import type { H3Event } from 'h3'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import { closeSession, isOpenSession, openSession } from '../database/sessions'
import { addressKey, isLoopback, listenAddress } from '../security/hosts'
import { isPassword, preparePassword, type StoredPassword } from '../security/password'

/** Wrong passwords a minute from one address; other addresses are not touched by them. */
const ATTEMPTS = new RateLimiterMemory({ points: 5, duration: 60 })
/** A session lasts so long, s. */
const SESSION = 7 * 24 * 3600

let stored: StoredPassword | undefined

/** Makes the password ready where one is demanded. @returns it where it was made up now */
export function prepareAccess(folder: string): string | undefined {
  if (isLoopback(listenAddress())) return undefined
  const prepared = preparePassword(folder, process.env.OAR_BENCH_PASSWORD)
  stored = prepared.stored
  return prepared.made
}
export const isPasswordDemanded = () => stored !== undefined

const session = (event: H3Event) =>
  useSession<{ signedIn?: true }>(event, {
    password: stored!.sessionSecret,
    name: 'oar-bench',
    maxAge: SESSION,
    cookie: {
      httpOnly: true,
      sameSite: 'strict',
      path: '/',
      secure: getRequestProtocol(event, { xForwardedProto: true }) === 'https',
    },
  })

export async function isSignedIn(event: H3Event): Promise<boolean> {
  if (!stored) return true
  const { id, data } = await session(event)
  return data.signedIn === true && id !== undefined && isOpenSession(useStore(), id)
}
/** Starts a session. @throws 401 for a wrong password, 429 after too many */
export async function signIn(event: H3Event, password: string): Promise<void> {
  if (!stored) return
  const address = addressKey(getRequestIP(event) ?? 'unknown')
  try {
    await ATTEMPTS.consume(address)
  } catch {
    refuse(429, 'Too many attempts. Try again in a minute.')
  }
  if (!isPassword(password, stored)) refuse(401, 'That is not the password.')
  await ATTEMPTS.delete(address)
  // a new one: what a page had before is not signed in with it
  await (await session(event)).clear()
  const { id } = await (await session(event)).update({ signedIn: true })
  openSession(useStore(), id!, new Date(Date.now() + SESSION * 1000))
}
export async function signOut(event: H3Event): Promise<void> {
  if (!stored) return
  const own = await session(event)
  if (own.id) closeSession(useStore(), own.id)
  await own.clear()
}
