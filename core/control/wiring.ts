/** What is wired to a control from outside, and what it switches: the inputs and outputs of a program. */
import type { Sheet } from '../sheet/schema'
import type { ContactConditions } from './device'
import { contactsOf, parseExpression } from './expression'
import { offeredCoils, offeredContacts, resolveDevice, type Offered } from './terminals'

/** A contact or a coil outside the cabinet's logic. */
export interface Wired extends Offered {
  /** What it is of: label of the device or of the kind. */
  readonly type: string
  readonly purpose: string
  readonly place: 'machine' | 'operator panel' | 'cabinet'
}
export interface WiredInput extends Wired {
  /** How it is used: as a normally open contact, a normally closed one, or both. */
  readonly contacts: readonly ('NC' | 'NO')[]
  /** It is wired by its normally closed contact: TRUE while it has not acted, so that a broken wire counts as acted. */
  readonly closedAtRest: boolean
  readonly conditions: ContactConditions
}

const USUAL_CONDITIONS: ContactConditions = { closed: 'acted', open: 'not acted' }

const deviceOf = ({ control }: Sheet, owner: string) => {
  const device = control.devices.find((d) => d.id === owner)
  return device && { device, resolved: resolveDevice(device).resolved }
}
function wiredOf(sheet: Sheet, offered: Offered): Wired | undefined {
  const { owner, label } = offered
  const found = deviceOf(sheet, owner)
  if (!found)
    return sheet.control.sequences.some((s) => s.id === owner)
      ? undefined
      : { ...offered, type: label, purpose: label, place: 'machine' }
  const { device, resolved } = found
  if (!resolved || resolved.type.isVirtual?.(resolved.values)) return undefined
  // relays, timers and counters are within the control
  if (resolved.type.contacts && resolved.type.coils) return undefined
  return {
    ...offered,
    type: resolved.type.label,
    purpose: device.label || label,
    place: resolved.type.place === 'operator' ? 'operator panel' : 'cabinet',
  }
}

/** Inputs of a control: those that its paths and conditions ask for. */
export function wiredInputs(sheet: Sheet): WiredInput[] {
  const uses = contactUses(sheet)
  return offeredContacts(sheet).flatMap((offered): WiredInput[] => {
    const wired = wiredOf(sheet, offered)
    const used = uses.get(offered.ref)
    if (!wired || !used) return []
    const contacts = [...used].sort()
    const type = deviceOf(sheet, offered.owner)?.resolved?.type
    return [
      {
        ...wired,
        contacts,
        closedAtRest: type?.stopsMotion === true || !contacts.includes('NO'),
        conditions: type?.conditions ?? USUAL_CONDITIONS,
      },
    ]
  })
}
/** Outputs of a control: those that its paths and steps drive. */
export function wiredOutputs(sheet: Sheet): Wired[] {
  const { control } = sheet
  const driven = new Set([
    ...control.rungs.flatMap((r) => r.coils),
    ...control.sequences.flatMap((s) => s.steps.flatMap((step) => step.actions.map((a) => a.coil))),
  ])
  return offeredCoils(sheet).flatMap((offered) => {
    const wired = wiredOf(sheet, offered)
    return wired && driven.has(offered.ref) ? [wired] : []
  })
}

/** What the two values of an input mean: "TRUE: not pressed; FALSE: pressed or wire broken". */
export function meaningOf({ closedAtRest, conditions: { closed, open } }: WiredInput): string {
  return closedAtRest
    ? `TRUE: ${open}; FALSE: ${closed}, or its wire is broken`
    : `TRUE: ${closed}; FALSE: ${open}, or its wire is broken`
}

/** How each contact is used: normally open, normally closed. */
function contactUses({ control }: Sheet): ReadonlyMap<string, ReadonlySet<'NC' | 'NO'>> {
  const uses = new Map<string, Set<'NC' | 'NO'>>()
  const texts = [
    ...control.rungs.map((r) => r.contacts),
    ...control.sequences.flatMap((s) => s.transitions.map((t) => t.condition)),
  ]
  for (const text of texts) {
    const parsed = parseExpression(text)
    if (!parsed.ok) continue
    for (const contact of contactsOf(parsed.expression)) {
      const found = uses.get(contact.name) ?? new Set<'NC' | 'NO'>()
      uses.set(contact.name, found.add(contact.kind === 'contact' && contact.closed ? 'NC' : 'NO'))
    }
  }
  return uses
}
