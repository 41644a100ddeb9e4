/** What happens in a run in words: an input that changes, with its value in units by choice. */
import type { Show } from '../catalogue/kind'
import type { Quantity } from '../units/quantities'
import type { Input } from './circuit/input-bank'
import type { RunEvent } from './result'

/** An input that has changed at an instant. */
export interface InputChange {
  /** Its name, as in "V1.command". */
  readonly input: string
  readonly label: string
  readonly quantity: Quantity
  /** SI */
  readonly value: number
  /** What that means, where it is not only a value: "is pressed", "goes to position a". */
  readonly words?: string
}

export function inputChange({ spec, fault }: Pick<Input, 'spec' | 'fault'>, value: number): InputChange {
  const { name: input, label, quantity } = spec
  const position = spec.positions?.find((p) => Math.abs(p.value - value) < 1e-3)
  const own = position?.action ?? (position && !fault ? `${label}: ${position.label}` : undefined)
  const words = own ?? (fault ? (value === 0 ? 'is sound again' : position && label) : undefined)
  return { input, label, quantity, value, ...(words ? { words } : {}) }
}

/** A value of an input: a share where it is a ratio of at most 1.5. */
export function inputValueText(
  { quantity, max }: { readonly quantity: Quantity; readonly max: number },
  value: number,
  show: Show,
): string {
  const isShare = quantity === 'ratio' && Math.abs(max) <= 1.5
  return show(value, isShare ? 'share' : quantity, 3)
}

/** With the name of the input, for programs that read a result: "command = 1", "speed = 1500 rpm". */
export const changeText = ({ input, quantity, value }: InputChange, show: Show): string =>
  `${input} = ${quantity === 'ratio' ? String(value) : show(value, quantity, 6)}`

/** An event without the name of its part: "is pressed", "speed 1500 rpm", "reaches its end stop". */
export function eventText({ what, change }: Pick<RunEvent, 'what' | 'change'>, show: Show): string {
  if (!change) return what
  const { words, label, quantity, value } = change
  return words ?? `${label} ${show(value, quantity, 4)}`
}
