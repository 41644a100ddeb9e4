/** Sessions of people who have given the password. A session that is not kept here is signed out, whatever its cookie says. */
import { eq, lt } from 'drizzle-orm'
import type { Store } from './open'
import { sessions } from './schema'

export function openSession(store: Store, id: string, expiresAt: Date): void {
  store.delete(sessions).where(lt(sessions.expiresAt, new Date())).run()
  store.insert(sessions).values({ id, expiresAt }).run()
}
export const closeSession = (store: Store, id: string): void =>
  void store.delete(sessions).where(eq(sessions.id, id)).run()
export function isOpenSession(store: Store, id: string): boolean {
  const found = store.select().from(sessions).where(eq(sessions.id, id)).get()
  return found !== undefined && found.expiresAt > new Date()
}
