/** Brings the summaries of sheets up to date in the background, one at a time, between requests. */
import { setImmediate } from 'node:timers/promises'
import { summarise, unsummarised } from '../database/summaries'

let working: Promise<void> | undefined
let again = false

async function work(): Promise<void> {
  do {
    again = false
    for (const id of unsummarised(useStore())) {
      await setImmediate()
      try {
        summarise(useStore(), id)
      } catch (error) {
        // the list goes without it
        console.error(`No summary of sheet ${id}: ${(error as Error).message}`)
        return
      }
    }
  } while (again)
}
/** Asks for it; returns at once. */
export function updateSummaries(): void {
  again = true
  working ??= work().finally(() => (working = undefined))
}
/** Resolves when all summaries are up to date. */
export const summariesUpdated = async () => working
