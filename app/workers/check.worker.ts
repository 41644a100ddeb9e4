/** Checks a sheet away from the interface. */
import './zodConfig'
import { expose } from 'comlink'
import type { Finding } from '@oar-bench/core/sheet/finding'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { checkMachine } from '@oar-bench/core/control/run'
import type { UnitSystem } from '@oar-bench/core/units/quantities'
import { showIn } from '@oar-bench/core/units/text'
import { sheetWith, type SheetChanges } from '../utils/sheetChanges'

let last: Sheet | undefined

const checker = {
  /** @param changes since the sheet that was checked last */
  check(changes: SheetChanges, scheduleId: string | undefined, system: UnitSystem): Finding[] {
    last = sheetWith(changes, last)
    return checkMachine(last, scheduleId, showIn(system))
  },
}
export type Checker = typeof checker
expose(checker)
