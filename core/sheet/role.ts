/** What symbols are for on the sheet, beside what they do to the oil. */
import { findKind } from '../catalogue'
import type { SheetComponent } from './schema'

const roleOf = ({ kind }: Pick<SheetComponent, 'kind'>) => findKind(kind)?.role

/** It is drawn round others, which lie inside it: an enclosure, a tank of several lines. */
export const isOutline = (component: Pick<SheetComponent, 'kind'>) => {
  const role = roleOf(component)
  return role === 'enclosure' || role === 'vessel'
}
/** Nothing else may lie where it lies: neither an outline nor words. */
export const isSolid = (component: Pick<SheetComponent, 'kind'>) =>
  !isOutline(component) && roleOf(component) !== 'text'
