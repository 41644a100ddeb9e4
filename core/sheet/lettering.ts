/** What is written beside a symbol, and where: the same on the screen and in every drawing format. */
import { findKind } from '../catalogue'
import type { Show } from '../catalogue/kind'
import { outline, placedPorts, symbolOf, valuesToDraw } from './geometry'
import type { SheetComponent } from './schema'

/** Height of the lettering and distance from line to line, in modules. */
export const LETTERING = 1.2
export const LETTERING_LINE = 1.35

export interface Lettered {
  /** Baseline of the designation, which stands above the lines. */
  readonly x: number
  readonly y: number
  readonly anchor: 'start' | 'middle' | 'end'
  readonly designation: string
  /** Settings and ratings. */
  readonly lines: readonly string[]
}

export function lettering(component: SheetComponent, show: Show): Lettered | undefined {
  const kind = findKind(component.kind)
  const symbol = symbolOf(component)
  if (!kind || !symbol) return undefined
  const designation = component.designation ?? component.id
  const lines = kind.caption?.(valuesToDraw(kind, component), show) ?? []
  const box = outline(component)
  const own = component.rotation === 0 ? symbol.captionAt : undefined
  if (own) {
    const x = component.mirrored && own.anchor === 'start' ? box.x : component.x + own.x
    return { designation, lines, x, y: component.y + own.y, anchor: own.anchor }
  }
  // a line that leaves to the right has no room for words there
  if (placedPorts(component).some((p) => p.side === 'right'))
    return { designation, lines, x: box.x, y: box.y - 0.6 - LETTERING_LINE * lines.length, anchor: 'start' }
  return { designation, lines, x: box.x + box.w + 0.6, y: box.y + 0.9, anchor: 'start' }
}
