/** Brings the summaries of sheets up to date, one at a time. */
import { setImmediate } from 'node:timers/promises'
import type { Store } from '../database/open'
import { summarise, unsummarised } from '../database/summaries'

/** Sheets of which no summary can be made, until they are changed. */
const failed = new Set<string>()

/**
 * Works out all that are missing or out of date.
 * @param changed sheet that was changed, else empty @param free resolves when nothing more urgent is to be done
 */
export async function bringSummariesUpToDate(
  store: Store,
  changed: string,
  free: () => Promise<unknown>,
): Promise<void> {
  if (changed) failed.delete(changed)
  for (const id of unsummarised(store)) {
    if (failed.has(id)) continue
    await setImmediate()
    await free()
    try {
      summarise(store, id)
    } catch (error) {
      // the list goes without it
      failed.add(id)
      console.error(`No summary of sheet ${id}: ${(error as Error).message}`)
    }
  }
}
