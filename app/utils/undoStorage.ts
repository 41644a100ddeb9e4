/** The steps that undo takes back, kept in the browser so that they outlast a reload. */
import { get, set } from 'idb-keyval'
import { writeSheetText } from '@oar-bench/core/sheet/read'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { latestWrite } from './latestWrite'

/** The latest first in both. */
export interface UndoSteps {
  readonly undo: readonly Sheet[]
  readonly redo: readonly Sheet[]
}
interface Stored extends UndoSteps {
  readonly version: 2
  readonly sheet: Sheet
}
/** To copy the steps of a long day takes a while: they are written so long after an edit, when it has been drawn and checked, ms. */
const DELAY = 150
const keyOf = (sheetId: string) => `oar-bench-steps-${sheetId}`

const writer = latestWrite<{ id: string; stored: Stored }>(
  () => DELAY,
  ({ id, stored }) => set(keyOf(id), stored),
)

/** A browser without room or without storage only loses the undo of an earlier visit. */
export function storeUndoSteps(id: string, sheet: Sheet, steps: UndoSteps): void {
  writer.put({ id, stored: { version: 2, sheet, ...steps } })
}
export const undoStepsWritten = writer.done

/** The steps that lead to and from a sheet as it is now; none where it was changed elsewhere since. */
export async function storedUndoSteps(id: string, sheet: Sheet): Promise<UndoSteps | undefined> {
  try {
    const stored = await get<Stored>(keyOf(id))
    if (!stored) return undefined
    if (stored.version === 2 && writeSheetText(stored.sheet) === writeSheetText(sheet)) return stored
  } catch {
    // a browser that denies storage throws at once
  }
  return undefined
}
