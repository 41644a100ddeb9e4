/** Archives that come from anywhere: read with limits, nothing of them is taken on trust. */
import { strToU8, unzipSync, zipSync, type Unzipped } from 'fflate'

export interface ArchiveLimits {
  readonly files: number
  /** Bytes of all files unpacked. */
  readonly bytes: number
}
export const ARCHIVE_LIMITS: ArchiveLimits = { files: 5000, bytes: 300e6 }
/** A file that unpacks to more than so many times its packed size is made to do harm; text reaches a hundred at most. */
const LARGEST_RATIO = 200
const RATIO_FROM = 1e6

export const zip = (files: Readonly<Record<string, string | Uint8Array>>): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, content]) => [
        name,
        typeof content === 'string' ? strToU8(content) : content,
      ]),
    ),
    { level: 6 },
  )

/**
 * The files of an archive by their names. Sizes are looked at before anything is unpacked, and no file gets more room than it says.
 * @throws Error with words for people: no archive, too many files, too large, names that lead out of it
 */
export function unzip(bytes: Uint8Array, limits: ArchiveLimits = ARCHIVE_LIMITS): Map<string, Uint8Array> {
  let files = 0
  let total = 0
  const refused = (why: string): never => {
    throw new Refusal(why)
  }
  const names = new Set<string>()
  let unpacked: Unzipped
  try {
    unpacked = unzipSync(bytes, {
      filter({ name, size, originalSize }) {
        if (name.endsWith('/')) return false
        if (/^[/\\]|^[A-Za-z]:|\\|(^|\/)\.\.?(\/|$)|\0/.test(name))
          refused(`The archive has a file whose name leads out of it: "${name.slice(0, 80)}".`)
        if (names.has(name)) refused(`The archive has the file "${name.slice(0, 80)}" twice.`)
        names.add(name)
        files++
        total += originalSize
        if (files > limits.files) refused(`The archive has more than ${limits.files} files.`)
        if (total > limits.bytes)
          refused(`The archive unpacks to more than ${Math.round(limits.bytes / 1e6)} MB.`)
        if (originalSize > RATIO_FROM && originalSize > LARGEST_RATIO * size)
          refused(`The file "${name.slice(0, 80)}" in the archive unpacks to far more than it holds.`)
        return true
      },
    })
  } catch (error) {
    if (error instanceof Refusal) throw error
    throw new Error('This is not an archive that can be read, or it is damaged.', { cause: error })
  }
  return new Map(Object.entries(unpacked))
}
class Refusal extends Error {}
