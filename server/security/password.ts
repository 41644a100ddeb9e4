/** The password that is demanded where the server can be reached from other machines: kept hashed, never as it is. */
import { randomBytes, scryptSync, timingSafeEqual } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { z } from 'zod'

const storedSchema = z.strictObject({ salt: z.string(), hash: z.string(), sessionSecret: z.string() })
export type StoredPassword = z.infer<typeof storedSchema>

const HASH_LENGTH = 32
const SHORTEST = 10
const fileOf = (folder: string) => join(resolve(folder), 'password.json')
/** scrypt (RFC 7914) with the cost that Node has as its default. */
const hashOf = (password: string, salt: string) => scryptSync(password, salt, HASH_LENGTH).toString('hex')

/** Whether a password is the one that is stored; takes the same time for a wrong one. */
export function isPassword(password: string, stored: StoredPassword): boolean {
  const hash = Buffer.from(hashOf(password, stored.salt), 'hex')
  return timingSafeEqual(hash, Buffer.from(stored.hash, 'hex'))
}

/**
 * The stored password of a data folder; it is made at the first start.
 * @param given password from the environment, which replaces the stored one
 * @returns `made` where it was made up, to be shown once
 * @throws Error where the given one is too short or the file cannot be read or written
 */
export function preparePassword(folder: string, given?: string): { stored: StoredPassword; made?: string } {
  if (given && given.length < SHORTEST)
    throw new Error(`The password in OAR_BENCH_PASSWORD is too short: at least ${SHORTEST} characters.`)
  const file = fileOf(folder)
  const known = existsSync(file) ? storedSchema.parse(JSON.parse(readFileSync(file, 'utf8'))) : undefined
  if (known && (!given || isPassword(given, known))) return { stored: known }
  const password = given ?? randomBytes(12).toString('base64url')
  const salt = randomBytes(16).toString('hex')
  const stored = { salt, hash: hashOf(password, salt), sessionSecret: randomBytes(32).toString('hex') }
  // readable by the owner of the server only
  writeFileSync(file, `${JSON.stringify(stored, null, 2)}\n`, { mode: 0o600 })
  return given ? { stored } : { stored, made: password }
}
