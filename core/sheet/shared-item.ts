/** Symbols that are one part drawn several times: the tank. */
import { findKind } from '../catalogue'
import { resolveComponent } from './resolve'
import type { Sheet, SheetComponent } from './schema'

/** The part that a symbol stands for, where other symbols stand for it too. */
export function itemOf(component: SheetComponent) {
  if (!findKind(component.kind)?.sharedItem) return undefined
  const { resolved } = resolveComponent(component)
  return resolved?.kind.sharedItem?.(resolved.values)
}

/** All symbols of the part that a symbol stands for, itself among them, in the order of the sheet. */
export function symbolsOfItem(sheet: Sheet, component: SheetComponent): SheetComponent[] {
  const item = itemOf(component)
  return item ? sheet.components.filter((c) => itemOf(c)?.name === item.name) : [component]
}

/** The same designation on all symbols of one part: that of the first one that has one. */
export function withSharedDesignations(sheet: Sheet): Sheet {
  const given = new Map<string, string>()
  const components = sheet.components.map((c) => {
    const item = itemOf(c)?.name
    if (item === undefined) return c
    const designation = given.get(item) ?? c.designation
    if (designation !== undefined) given.set(item, designation)
    return designation === c.designation ? c : { ...c, designation }
  })
  return components.every((c, i) => c === sheet.components[i]) ? sheet : { ...sheet, components }
}
