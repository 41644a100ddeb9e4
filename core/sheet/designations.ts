/** Designations of components: numbers of plant and circuit, a letter, and a number among their like (ISO 1219-2). */
import { findKind } from '../catalogue'
import type { Annotations, Sheet, SheetComponent } from './schema'
import { itemOf } from './shared-item'

/** Letter of the medium of hydraulics in ISO 1219-2:2012. */
const HYDRAULIC = 'H'
const BY_TYPE = /^(\d+)-(\d+)([A-Z])(\d+)$/
const BY_MEDIUM = /^(\d+)-([A-Z])(\d+)\.(\d+)$/

/** What stands before the number of a new component, in the style of the sheet. */
export function designationPrefix(sheet: Sheet, letter: string): string {
  return sheet.annotations.designations === 'typeLetter' ? `1-1${letter}` : `1-${HYDRAULIC}1.`
}

const circuitOf = (designation: string): readonly [plant: string, circuit: string] | undefined => {
  const byType = BY_TYPE.exec(designation)
  if (byType) return [byType[1], byType[2]]
  const byMedium = BY_MEDIUM.exec(designation)
  return byMedium ? [byMedium[1], byMedium[3]] : undefined
}

/**
 * The sheet with all designations of either style numbered anew in the other, circuit by circuit in the order of the sheet; what was
 * designated freely stays as it is.
 */
export function withDesignationStyle(sheet: Sheet, style: Annotations['designations']): Sheet {
  if (sheet.annotations.designations === style) return sheet
  const counts = new Map<string, number>()
  /** Designations of parts that are drawn several times. */
  const items = new Map<string, string>()
  const free = new Set(
    sheet.components.flatMap(({ designation }) =>
      designation && !circuitOf(designation) ? [designation] : [],
    ),
  )
  const next = (prefix: string): string => {
    const n = (counts.get(prefix) ?? 0) + 1
    counts.set(prefix, n)
    return free.has(prefix + n) ? next(prefix) : prefix + n
  }
  const renamed = (c: SheetComponent): SheetComponent => {
    const place = c.designation && circuitOf(c.designation)
    if (!place) return c
    const item = itemOf(c)?.name
    const known = item && items.get(item)
    if (known) return { ...c, designation: known }
    const [plant, circuit] = place
    const letter = findKind(c.kind)?.designationLetter ?? 'Z'
    const prefix =
      style === 'typeLetter' ? `${plant}-${circuit}${letter}` : `${plant}-${HYDRAULIC}${circuit}.`
    const designation = next(prefix)
    if (item) items.set(item, designation)
    return { ...c, designation }
  }
  return {
    ...sheet,
    annotations: { ...sheet.annotations, designations: style },
    components: sheet.components.map(renamed),
  }
}
