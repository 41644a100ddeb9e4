/** Checks a sheet away from the interface. */
import { expose } from 'comlink'
import type { Finding } from '@oar-bench/core/sheet/finding'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { check } from '@oar-bench/core/simulate/compile'

let last: Sheet | undefined
/** Parts that are as they were the last time are the same objects again: by them the core finds what it knows of them. */
function known<T extends { id: string }>(parts: readonly T[], before: readonly T[] = []): T[] {
  const byId = new Map(before.map((part) => [part.id, part]))
  return parts.map((part) => {
    const old = byId.get(part.id)
    return old && JSON.stringify(old) === JSON.stringify(part) ? old : part
  })
}

const checker = {
  check(sheet: Sheet, scheduleId: string | undefined): Finding[] {
    last = {
      ...sheet,
      components: known(sheet.components, last?.components),
      pipes: known(sheet.pipes, last?.pipes),
      joints: known(sheet.joints, last?.joints),
    }
    return check(last, scheduleId)
  },
}
export type Checker = typeof checker
expose(checker)
