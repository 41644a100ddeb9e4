/** Checks a sheet away from the interface. */
import { expose } from 'comlink'
import type { Finding } from '@oar-bench/core/sheet/finding'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { check } from '@oar-bench/core/simulate/compile'
import { sheetWith, type SheetChanges } from '../utils/sheetChanges'

let last: Sheet | undefined

const checker = {
  /** @param changes since the sheet that was checked last */
  check(changes: SheetChanges, scheduleId: string | undefined): Finding[] {
    last = sheetWith(changes, last)
    return check(last, scheduleId)
  },
}
export type Checker = typeof checker
expose(checker)
