/** Brings the summaries of sheets up to date in the background, one at a time, between requests. */
import { setImmediate } from 'node:timers/promises'
import { summarise, unsummarised } from '../database/summaries'

let working: Promise<void> | undefined
let again = false
/** Sheets of which no summary can be made, until they are changed. */
const failed = new Set<string>()

async function work(): Promise<void> {
  do {
    again = false
    for (const id of unsummarised(useStore())) {
      if (failed.has(id)) continue
      await setImmediate()
      try {
        summarise(useStore(), id)
      } catch (error) {
        // the list goes without it
        failed.add(id)
        console.error(`No summary of sheet ${id}: ${(error as Error).message}`)
      }
    }
  } while (again)
}
/** Asks for it; returns at once. @param changed sheet that was changed */
export function updateSummaries(changed?: string): void {
  if (changed) failed.delete(changed)
  again = true
  working ??= work().finally(() => (working = undefined))
}
/** Resolves when all summaries are up to date. */
export const summariesUpdated = async () => working
