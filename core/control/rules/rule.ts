/** A design rule of the control. */
import type { Finding } from '../../sheet/finding'
import type { Sheet } from '../../sheet/schema'
import { contactsOf, parseExpression } from '../expression'
import type { ReadControl } from '../program'

export interface ControlSubject {
  readonly sheet: Sheet
  readonly read: ReadControl
}
export interface ControlRule {
  readonly id: string
  /** Why it matters. */
  readonly reason: string
  check(subject: ControlSubject): Omit<Finding, 'rule'>[]
}

/** A contact in a path, a condition or a requirement. */
export interface ContactUse {
  readonly ref: string
  /** Normally closed. */
  readonly closed: boolean
  /** Path or sequence in which it stands. */
  readonly owner: string
}
/** All contacts that are used. */
export function contactUses({ control }: Sheet): ContactUse[] {
  const of = (text: string, owner: string): ContactUse[] => {
    const parsed = parseExpression(text)
    if (!parsed.ok) return []
    return contactsOf(parsed.expression).map((c) => ({
      ref: c.name,
      closed: c.kind === 'contact' && c.closed,
      owner,
    }))
  }
  return [
    ...control.rungs.flatMap((r) => of(r.contacts, r.id)),
    ...control.requirements.flatMap((r) => of(r.never, r.id)),
    ...control.sequences.flatMap((s) => s.transitions.flatMap((t) => of(t.condition, s.id))),
  ]
}
/** Device, component or sequence of a reference. */
export const ownerOf = (ref: string) => ref.split('.')[0]
