/** Edits that the server does not have yet, kept in the browser until it has them or somebody discards them. */
import { createStore, del, entries, set } from 'idb-keyval'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { Brief } from '@oar-bench/core/size/brief/brief'
import { migrateBrief } from '@oar-bench/core/size/brief/read'
import { latestWrite } from './latestWrite'
import { otherLiveTabs } from './tabId'

export interface Draft {
  readonly machineId: string
  readonly sheetId: string
  /** The tab in which it was edited. */
  readonly tab: string
  /** Time of the last edit, ms since 1970. */
  readonly at: number
  /** What is not saved: one of them or both. */
  readonly sheet?: Sheet
  readonly brief?: Brief
}

/** Written so long after an edit, ms. */
const DELAY = 100
const store = () => createStore('oar-bench-drafts', 'drafts')
const keyOf = ({ sheetId, tab }: Pick<Draft, 'sheetId' | 'tab'>) => `${sheetId} ${tab}`

type Write = { readonly keep: Draft } | { readonly drop: Pick<Draft, 'sheetId' | 'tab'> }
const writers = new Map<string, ReturnType<typeof latestWrite<Write>>>()
/** One writer for each draft: what is dropped is not written again by an edit before. */
function write(key: string, change: Write): Promise<void> {
  let writer = writers.get(key)
  if (!writer) {
    writer = latestWrite<Write>(
      (next) => ('keep' in next ? DELAY : 0),
      (next) => ('keep' in next ? set(key, next.keep, store()) : del(key, store())),
    )
    writers.set(key, writer)
  }
  writer.put(change)
  return writer.done()
}
/** Both resolve when the browser has written the change. */
export const keepDraft = (draft: Draft): Promise<void> => write(keyOf(draft), { keep: draft })
export const dropDraft = (draft: Pick<Draft, 'sheetId' | 'tab'>): Promise<void> =>
  write(keyOf(draft), { drop: draft })
/** Resolves when all drafts are written. */
export const draftsWritten = () => Promise.all([...writers.values()].map((writer) => writer.done()))

async function storedDrafts(): Promise<[string, Draft][]> {
  try {
    return await entries<string, Draft>(store())
  } catch {
    // a browser that denies storage throws at once
    return []
  }
}
/** All drafts that no other open tab is still at work on, the latest first. None where the browser denies storage. */
export async function abandonedDrafts(): Promise<Draft[]> {
  await draftsWritten()
  const [all, alive] = await Promise.all([storedDrafts(), otherLiveTabs()])
  return all
    .map(([, draft]) => (draft.brief ? { ...draft, brief: migrateBrief(draft.brief) as Brief } : draft))
    .filter(({ tab }) => !alive.has(tab))
    .sort((a, b) => b.at - a.at)
}
