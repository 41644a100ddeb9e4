/** What the names in a file stand for in the control. */
import type { Expression } from '../../control/expression'

/** What a variable of a file stands for. */
export interface Operand {
  readonly ref: string
  /** It is TRUE while its contact, as a normally open one, is open. */
  readonly inverted: boolean
  /** It tells that a step has been active so long, s; 0: that it is active. */
  readonly seconds: number
}
/** What names in a file stand for. */
export interface Meanings {
  /** @throws Error where the file does not declare it */
  refOf(name: string | undefined): string
  /** With its output, as "K3.Q" of a timer. @throws Error where the file does not declare it */
  operandOf(operand: string | undefined): Operand
}

/** A contact in the control, for a contact in the file. @throws Error where a time of a step is asked for negated */
export function contactOf(
  operand: string | undefined,
  negated: boolean,
  { operandOf }: Pick<Meanings, 'operandOf'>,
): Expression {
  const { ref: name, inverted, seconds } = operandOf(operand)
  if (!seconds) return { kind: 'contact', name, closed: negated !== inverted, at: 0 }
  if (negated) throw new Error(`"${operand}" tells how long a step has been active, and cannot be negated.`)
  return { kind: 'active', name, seconds, at: 0 }
}
