/** A design rule of the control. */
import type { Finding } from '../../sheet/finding'
import type { Sheet } from '../../sheet/schema'
import { contactsOf, parseExpression, refsIn, type Expression } from '../expression'
import { targetsOf, type Program, type ReadControl } from '../program'
import { Names, offeredCoils, offeredContacts } from '../terminals'

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

export const nameOfRef = (sheet: Sheet, ref: string): string => new Names(offeredContacts(sheet)).nameOf(ref)
/** Contacts of an expression, as they are named on the sheet. */
export function contactNames(sheet: Sheet, expression: Expression): string {
  const names = new Names(offeredContacts(sheet))
  const texts = contactsOf(expression).map(
    (c) => `${c.kind === 'contact' && c.closed ? '/' : ''}${names.nameOf(c.name)}`,
  )
  return [...new Set(texts)].join(', ')
}
export const targetName = (sheet: Sheet, { targets }: Program, target: number): string =>
  new Names(offeredCoils(sheet)).nameOf(targets[target].ref)

/** Whether a contact of a device stands before a target, or before a relay on the way to it. */
export function dependsOn(program: Program, target: number, device: string): boolean {
  const seen = new Set<number>()
  const visit = (index: number): boolean => {
    if (seen.has(index)) return false
    seen.add(index)
    return program.paths
      .filter(({ coils }) => coils.includes(index))
      .flatMap(({ expression }) => refsIn(expression))
      .some((ref) => {
        const source = program.sources.get(ref)
        if (source?.from !== 'device') return false
        if (program.devices[source.device].device.id === device) return true
        return targetsOf(program, source.device).some(visit)
      })
  }
  return visit(target)
}
