/** All pressures of a machine at which something happens, in their order. */
import type { RulerMark } from './card'
import type { Sizing } from './graph'
import { inSentence } from './text'

export interface RulerEntry {
  readonly node: string
  readonly variable: string
  /** "Relief valve: pressure at which it opens", or of a motion "Clamp: pressure, extending". */
  readonly label: string
  readonly mark: RulerMark
  /** Pa. */
  readonly pressure: number
}

/** Rising; what is at no pressure is left out. */
export function rulerOf(sizing: Sizing): readonly RulerEntry[] {
  const entries = sizing.nodes.flatMap(({ id, card, motion, values }) =>
    Object.entries(card.variables).flatMap(([variable, { ruler, label }]): RulerEntry[] => {
      const pressure = values[variable]
      return ruler && pressure > 0
        ? [
            {
              node: id,
              variable,
              label: labelOf(card.title, inSentence(label), ruler, motion?.name),

              mark: ruler,
              pressure,
            },
          ]
        : []
    }),
  )
  return entries.sort((a, b) => a.pressure - b.pressure)
}

/** A pressure of a motion is said by its name; what is set there also by what is set. */
function labelOf(title: string, label: string, mark: RulerMark, motion?: string): string {
  if (!motion) return `${title}: ${label}`
  return mark === 'setting' || mark === 'limit'
    ? `${motion}, ${title.toLowerCase()}: ${label}`
    : `${motion}: ${label}`
}

/** Heights of labels that would lie on each other, moved apart as little as possible, in the same order. @param wanted falling or equal */
export function spread(wanted: readonly number[], gap: number, top: number, bottom: number): number[] {
  const at = [...wanted]
  for (let i = 1; i < at.length; i++) at[i] = Math.min(at[i], at[i - 1] - gap)
  // what went out at the top is pushed back from there
  if (at.length && at[at.length - 1] < top) {
    at[at.length - 1] = top
    for (let i = at.length - 2; i >= 0; i--) at[i] = Math.max(at[i], at[i + 1] + gap)
  }
  return at.map((y) => Math.min(y, bottom))
}
