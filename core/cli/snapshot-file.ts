/** A snapshot as a file, for another process of the same program. */
import { Refused } from './files'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { deserialize, serialize } from 'node:v8'
import type { Sheet } from '../sheet/schema'
import type { Snapshot } from '../simulate/snapshot'

const FORMAT = 'oar-bench-snapshot'
const VERSION = 1

/** A snapshot that cannot be used, in words for people. */
export class SnapshotRefused extends Refused {}

/** What a snapshot belongs to: the sheet as it is run, without what comes later by hand, and the schedule. */
export function snapshotKey(sheet: Sheet, scheduleId: string): string {
  const schedules = sheet.schedules.map((s) => ({ ...s, actions: [] }))
  return createHash('sha256')
    .update(JSON.stringify([{ ...sheet, schedules }, scheduleId]))
    .digest('hex')
}

/** The bytes of a snapshot: the structured clone format of Node, which keeps every bit of a number. */
export const writeSnapshot = (snapshot: Snapshot, key: string): Uint8Array =>
  serialize({ format: FORMAT, version: VERSION, key, snapshot })

/** @throws SnapshotRefused where the file cannot be read, is none, or belongs to another sheet or schedule */
export function readSnapshot(path: string, key: string): Snapshot {
  let bytes: Buffer
  try {
    bytes = readFileSync(path)
  } catch (error) {
    throw new SnapshotRefused(`Cannot read ${path}: ${(error as Error).message}`)
  }
  let data: { format?: unknown; version?: unknown; key?: unknown; snapshot?: Snapshot } | null
  try {
    data = deserialize(bytes) as typeof data
  } catch {
    data = null
  }
  if (!data || data.format !== FORMAT || !data.snapshot)
    throw new SnapshotRefused(`${path} is no snapshot of a run.`)
  if (data.version !== VERSION)
    throw new SnapshotRefused(`${path} was written by another version of Oar Bench.`)
  if (data.key !== key)
    throw new SnapshotRefused(`${path} belongs to another sheet or schedule, or to other values of this one.`)
  return data.snapshot
}
