/** A snapshot as a file, for another process of the same program. */
import { Refused } from './files'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { deserialize, serialize } from 'node:v8'
import { SHEET_VERSION, type Sheet } from '../sheet/schema'
import type { Snapshot } from '../simulate/snapshot'

const FORMAT = 'oar-bench-snapshot'
/** Of the file and of the models: a snapshot of other equations goes on with other numbers. */
const VERSION = 2
export const MODELS_VERSION = 5

/** A snapshot that cannot be used, in words for people. */
export class SnapshotRefused extends Refused {}

/** What a snapshot belongs to: the sheet as it is run, without what comes later by hand, and the schedule. */
export function snapshotKey(sheet: Sheet, scheduleId: string): string {
  const schedules = sheet.schedules.map((s) => ({ ...s, actions: [] }))
  return createHash('sha256')
    .update(JSON.stringify([{ ...sheet, schedules }, scheduleId]))
    .digest('hex')
}

/** First bytes of the file, then a line with the checksum of all that follows. */
const HEADER = `${FORMAT} `
const checksum = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/** The bytes of a snapshot: a line with its checksum, then the structured clone format of Node, which keeps every bit of a number. */
export function writeSnapshot(snapshot: Snapshot, key: string): Uint8Array {
  const content = serialize({ version: VERSION, models: MODELS_VERSION, sheet: SHEET_VERSION, key, snapshot })
  return Buffer.concat([Buffer.from(`${HEADER}${checksum(content)}\n`), content])
}

/** @throws SnapshotRefused where the file cannot be read, is none, or belongs to another sheet or schedule */
export function readSnapshot(path: string, key: string): Snapshot {
  let bytes: Buffer
  try {
    bytes = readFileSync(path)
  } catch (error) {
    throw new SnapshotRefused(`Cannot read ${path}: ${(error as Error).message}`)
  }
  const end = bytes.indexOf(10)
  const [head, content] = [bytes.subarray(0, Math.max(end, 0)).toString('latin1'), bytes.subarray(end + 1)]
  if (!head.startsWith(HEADER))
    throw new SnapshotRefused(`${path} is no snapshot of a run, or of an older version.`)
  if (head.slice(HEADER.length) !== checksum(content))
    throw new SnapshotRefused(`${path} is damaged: it was cut off or changed after it was written.`)
  const data = deserialize(content) as {
    version?: unknown
    models?: unknown
    sheet?: unknown
    key?: unknown
    snapshot?: Snapshot
  }
  if (
    data.version !== VERSION ||
    data.models !== MODELS_VERSION ||
    data.sheet !== SHEET_VERSION ||
    !data.snapshot
  )
    throw new SnapshotRefused(
      `${path} was written by another version of Oar Bench, whose equations may differ.`,
    )
  if (data.key !== key)
    throw new SnapshotRefused(`${path} belongs to another sheet or schedule, or to other values of this one.`)
  return data.snapshot
}
