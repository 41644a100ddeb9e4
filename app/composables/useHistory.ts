/** The steps that undo takes back, kept in the browser so that they outlast a reload. */
import { promiseTimeout } from '@vueuse/core'
import { del, get, set } from 'idb-keyval'
import { writeSheetText } from '@oar-bench/core/sheet/read'
import type { Sheet } from '@oar-bench/core/sheet/schema'

export interface Steps {
  readonly past: readonly Sheet[]
  readonly future: readonly Sheet[]
}
interface Kept extends Steps {
  readonly now: Sheet
}
/** To copy the steps of a long day takes a while: they are written so long after an edit, when it has been drawn and checked, ms. */
const REST = 150
const keyOf = (sheetId: string) => `oar-bench-steps-${sheetId}`

export function useHistory() {
  let writing: Promise<void> | undefined
  let next: { id: string; kept: Kept } | undefined

  /** Writes the latest state; what came while one was being written replaces what waited. */
  function keep(id: string, now: Sheet, { past, future }: Steps): void {
    next = { id, kept: { now, past, future } }
    writing ??= (async () => {
      while (next) {
        await promiseTimeout(REST)
        const { id: key, kept } = next
        next = undefined
        // a browser without room or without storage only loses the undo of an earlier visit
        await set(keyOf(key), kept).catch(() => undefined)
      }
      writing = undefined
    })()
  }

  /** The steps that lead to and from a sheet as it is now; none where it was changed elsewhere since. */
  async function recall(id: string, now: Sheet): Promise<Steps | undefined> {
    const kept = await get<Kept>(keyOf(id)).catch(() => undefined)
    if (!kept) return undefined
    if (writeSheetText(kept.now) === writeSheetText(now)) return { past: kept.past, future: kept.future }
    await del(keyOf(id)).catch(() => undefined)
    return undefined
  }
  return { keep, recall }
}
