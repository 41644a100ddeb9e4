/** Where something is used in the control: contacts and coils of a device, a switch or a solenoid. */
import type { Sheet } from '../sheet/schema'
import { contactsOf, parseExpression } from './expression'

export interface Use {
  /** "Path 3: normally closed contact". */
  readonly what: string
  /** The path concerned, where it is one. */
  readonly rung?: string
}

export function usesOf({ control }: Sheet, owner: string): Use[] {
  const isOwn = (ref: string) => ref.split('.')[0] === owner
  const contacts = (text: string, where: string, rung?: string): Use[] => {
    const parsed = parseExpression(text)
    if (!parsed.ok) return []
    return contactsOf(parsed.expression)
      .filter(({ name }) => isOwn(name))
      .map((c) => ({
        what: `${where}: normally ${c.kind === 'contact' && c.closed ? 'closed' : 'open'} contact`,
        ...(rung ? { rung } : {}),
      }))
  }
  return [
    ...control.rungs.flatMap(({ id, contacts: text, coils }, i) => [
      ...contacts(text, `Path ${i + 1}`, id),
      ...coils.filter(isOwn).map((): Use => ({ what: `Path ${i + 1}: coil`, rung: id })),
    ]),
    ...control.sequences.flatMap(({ id, name, steps, transitions }) => [
      ...steps.flatMap((step) =>
        step.actions
          .filter(({ coil }) => isOwn(coil))
          .map((): Use => ({ what: `${name || id}, step ${step.id}: action` })),
      ),
      ...transitions.flatMap((t) => contacts(t.condition, `${name || id}, transition ${t.id}`)),
    ]),
    ...control.requirements.flatMap(({ id, name, never }) => contacts(never, name || id)),
  ]
}
