/** A sheet on its way to a worker that knows an earlier one: what is as it was goes as its id only. */
import type { Sheet } from '@oar-bench/core/sheet/schema'

type Parts = Pick<Sheet, 'components' | 'junctions' | 'pipes'>
type Changed<T extends { id: string }> = T | string
export type SheetChanges = Omit<Sheet, keyof Parts> & {
  readonly [List in keyof Parts]: readonly Changed<Parts[List][number]>[]
}

/** @param before the sheet that the worker knows; parts that are the same objects have not changed */
export function changesSince(before: Sheet | undefined, sheet: Sheet): SheetChanges {
  const changed = <T extends { id: string }>(list: readonly T[], known: readonly T[] = []): Changed<T>[] => {
    const there = new Set(known)
    return list.map((part) => (there.has(part) ? part.id : part))
  }
  return {
    ...sheet,
    components: changed(sheet.components, before?.components),
    junctions: changed(sheet.junctions, before?.junctions),
    pipes: changed(sheet.pipes, before?.pipes),
  }
}

/** The whole sheet again: what has not changed is the same object as in the sheet before, so that what is known of it holds. */
export function sheetWith(changes: SheetChanges, before: Sheet | undefined): Sheet {
  const whole = <T extends { id: string }>(list: readonly Changed<T>[], known: readonly T[] = []): T[] => {
    const byId = new Map(known.map((part) => [part.id, part]))
    return list.map((part) => (typeof part === 'string' ? byId.get(part)! : part))
  }
  return {
    ...changes,
    components: whole(changes.components, before?.components),
    junctions: whole(changes.junctions, before?.junctions),
    pipes: whole(changes.pipes, before?.pipes),
  }
}
