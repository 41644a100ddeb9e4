/** What takes long and is done beside the requests: in a thread of its own where the server is built, else in turns between them. */
import { createWriteStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import type { Store } from '../database/open'
import { exportWorkspace } from '../workspace/export'
import { bringSummariesUpToDate } from './summaries'

/** Archives that people wait for: summaries wait for them. */
const archives = new Set<Promise<void>>()
async function exportArchive(store: Store, path: string): Promise<void> {
  const file = createWriteStream(path, { mode: 0o600, flags: 'wx' })
  const written = pipeline(exportWorkspace(store), file)
  archives.add(written)
  await written.finally(() => archives.delete(written))
}

export const tasks = {
  /** Writes all machines as an archive into a new file. */
  exportArchive,
  updateSummaries: (store: Store, changed: string) =>
    bringSummariesUpToDate(store, changed, () => Promise.allSettled(archives)),
} as const satisfies Record<string, (store: Store, argument: string) => Promise<void>>
export type TaskName = keyof typeof tasks

/** A task that is wanted, and what became of it. */
export interface TaskOrder {
  readonly id: number
  readonly task: TaskName
  readonly argument: string
}
export interface TaskDone {
  readonly id: number
  /** Where it failed. */
  readonly failure?: { readonly message: string; readonly code?: string }
}
