/** Archives that come from anywhere: read entry by entry with limits; nothing of them is taken on trust. */
import { buffer } from 'node:stream/consumers'
import { open as openZip, type Entry, type ZipFile } from 'yauzl'

export interface ArchiveLimits {
  readonly entries: number
  /** Bytes of all entries unpacked. */
  readonly bytes: number
  /** Bytes of one entry unpacked. */
  readonly entryBytes: number
}
export const ARCHIVE_LIMITS: ArchiveLimits = { entries: 200_000, bytes: 40e9, entryBytes: 1e9 }
/** An entry that unpacks to more than so many times its packed size is made to do harm; text reaches a hundred at most. */
const LARGEST_RATIO = 200
const RATIO_FROM = 1e6

/** A refusal in words for people. */
export class ArchiveRefused extends Error {}

export interface Archive {
  readonly names: ReadonlySet<string>
  /** Unpacked size of an entry, bytes. @throws ArchiveRefused where it is not there */
  size(name: string): number
  /** @throws ArchiveRefused where it is not there or is damaged */
  read(name: string): Promise<Buffer>
  close(): void
}

const damaged = () => new ArchiveRefused('This is not an archive that can be read, or it is damaged.')
function refusalOfName(message: string): ArchiveRefused {
  const name =
    message
      .split(/[":]/)
      .findLast((part) => part.trim())
      ?.trim() ?? ''
  return new ArchiveRefused(`The archive has a file whose name leads out of it: "${name.slice(0, 80)}".`)
}

/** Opens the archive in a file; sizes are looked at before anything is unpacked. @throws ArchiveRefused */
export async function openArchive(path: string, limits: ArchiveLimits = ARCHIVE_LIMITS): Promise<Archive> {
  const zip = await new Promise<ZipFile>((resolve, reject) =>
    openZip(path, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, file) =>
      error ? reject(damaged()) : resolve(file),
    ),
  )
  const entries = new Map<string, Entry>()
  let total = 0
  const refusalOf = ({ fileName, compressedSize, uncompressedSize }: Entry): string | undefined => {
    const shown = fileName.slice(0, 80)
    total += uncompressedSize
    if (entries.has(fileName)) return `The archive has the file "${shown}" twice.`
    if (entries.size >= limits.entries) return `The archive has more than ${limits.entries} files.`
    if (total > limits.bytes) return `The archive unpacks to more than ${Math.round(limits.bytes / 1e6)} MB.`
    if (uncompressedSize > limits.entryBytes)
      return `The file "${shown}" in the archive is larger than ${Math.round(limits.entryBytes / 1e6)} MB.`
    if (uncompressedSize > RATIO_FROM && uncompressedSize > LARGEST_RATIO * compressedSize)
      return `The file "${shown}" in the archive unpacks to far more than it holds.`
    return undefined
  }
  try {
    await new Promise<void>((resolve, reject) => {
      zip.on('error', (error: Error) =>
        reject(
          /relative path|absolute path|characters in fileName/.test(error.message)
            ? refusalOfName(error.message)
            : damaged(),
        ),
      )
      zip.on('end', resolve)
      zip.on('entry', (entry: Entry) => {
        if (!entry.fileName.endsWith('/')) {
          const refusal = refusalOf(entry)
          if (refusal) return reject(new ArchiveRefused(refusal))
          entries.set(entry.fileName, entry)
        }
        zip.readEntry()
      })
      zip.readEntry()
    })
  } catch (error) {
    zip.close()
    throw error
  }
  const find = (name: string): Entry => {
    const entry = entries.get(name)
    if (!entry) throw new ArchiveRefused(`The archive has no file "${name}".`)
    return entry
  }
  return {
    names: new Set(entries.keys()),
    size: (name) => find(name).uncompressedSize,
    async read(name) {
      const entry = find(name)
      try {
        const stream = await new Promise<NodeJS.ReadableStream>((resolve, reject) =>
          zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened))),
        )
        return await buffer(stream)
      } catch (error) {
        throw new ArchiveRefused(`The file "${name.slice(0, 80)}" in the archive is damaged.`, {
          cause: error,
        })
      }
    },
    close: () => zip.close(),
  }
}
