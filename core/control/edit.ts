/** Edits of the control as pure functions: a sheet in, a new sheet out, the old one untouched. */
import { unusedName } from '../sheet/edit'
import {
  controlDeviceSchema,
  rungSchema,
  sequenceSchema,
  type ControlSection,
  type Rung,
  type Sheet,
} from '../sheet/schema'
import { findDeviceType } from './devices'
import { expressionText, parseExpression, type Expression } from './expression'
import { Names, offeredCoils, offeredContacts } from './terminals'

const changed = (sheet: Sheet, change: Partial<ControlSection>): Sheet => ({
  ...sheet,
  control: { ...sheet.control, ...change },
})
export const setControl = changed

/** Ids of everything that paths may name, or that is in the control. */
const takenIds = ({ components, control }: Sheet): string[] =>
  [...components, ...control.devices, ...control.rungs, ...control.sequences, ...control.requirements].map(
    ({ id }) => id,
  )
/** Names that are shown of components and devices. */
const takenNames = (sheet: Sheet): string[] => [
  ...takenIds(sheet),
  ...[...sheet.components, ...sheet.control.devices].flatMap(({ designation }) => designation ?? []),
]

/** Adds a device of a type, with the next free name of its letter. */
export function addDevice(sheet: Sheet, typeName: string): { sheet: Sheet; id: string } {
  const type = findDeviceType(typeName)
  const id = unusedName(type?.letter ?? 'K', takenNames(sheet))
  const device = controlDeviceSchema.parse({ id, type: typeName })
  return { sheet: changed(sheet, { devices: [...sheet.control.devices, device] }), id }
}
/** Takes a device out; contacts and coils of it stay in their paths and are reported. */
export const removeDevice = (sheet: Sheet, id: string): Sheet =>
  changed(sheet, { devices: sheet.control.devices.filter((d) => d.id !== id) })

export function changeDevice(
  sheet: Sheet,
  id: string,
  change: { readonly label?: string; readonly designation?: string },
): Sheet {
  return changed(sheet, {
    devices: sheet.control.devices.map((d) => {
      if (d.id !== id) return d
      const next = { ...d, ...change }
      if (!next.designation?.trim() || next.designation === id) delete next.designation
      return next
    }),
  })
}
/** @param value as written; nothing puts the usual one in its place */
export function setDeviceParameter(
  sheet: Sheet,
  id: string,
  name: string,
  value: string | boolean | undefined,
): Sheet {
  return changed(sheet, {
    devices: sheet.control.devices.map((d) => {
      if (d.id !== id) return d
      const parameters = { ...d.parameters }
      if (value === undefined) delete parameters[name]
      else parameters[name] = value
      return { ...d, parameters }
    }),
  })
}

/** Adds an empty path behind another, or at the end. */
export function addRung(sheet: Sheet, after?: string): { sheet: Sheet; id: string } {
  const id = unusedName('R', takenIds(sheet))
  const { rungs } = sheet.control
  const at = after === undefined ? rungs.length : rungs.findIndex((r) => r.id === after) + 1
  return { sheet: changed(sheet, { rungs: rungs.toSpliced(at, 0, rungSchema.parse({ id })) }), id }
}
export const removeRung = (sheet: Sheet, id: string): Sheet =>
  changed(sheet, { rungs: sheet.control.rungs.filter((r) => r.id !== id) })
export function moveRung(sheet: Sheet, id: string, by: 1 | -1): Sheet {
  const { rungs } = sheet.control
  const at = rungs.findIndex((r) => r.id === id)
  const to = at + by
  if (at < 0 || to < 0 || to >= rungs.length) return sheet
  return changed(sheet, { rungs: rungs.toSpliced(at, 1).toSpliced(to, 0, rungs[at]) })
}
export const changeRung = (sheet: Sheet, id: string, change: Partial<Rung>): Sheet =>
  changed(sheet, { rungs: sheet.control.rungs.map((r) => (r.id === id ? { ...r, ...change } : r)) })

/** Contacts as a person types them, as a sheet file has them: names in the place of ids. What is not known, or does not read, stays. */
export function contactsFromText(sheet: Sheet, text: string): string {
  const parsed = parseExpression(text)
  const names = new Names(offeredContacts(sheet))
  return parsed.ok ? expressionText(parsed.expression, (name) => names.refOf(name) ?? name) : text
}
export function contactsToText(sheet: Sheet, contacts: string): string {
  const parsed = parseExpression(contacts)
  const names = new Names(offeredContacts(sheet))
  return parsed.ok ? expressionText(parsed.expression, names.nameOf) : contacts
}
/** Coils as a person types them, parted by commas. */
export function coilsFromText(sheet: Sheet, text: string): string[] {
  const names = new Names(offeredCoils(sheet))
  return text
    .split(',')
    .map((name) => name.trim())
    .filter(Boolean)
    .map((name) => names.refOf(name) ?? name)
}
export const coilsToText = (sheet: Sheet, coils: readonly string[]): string =>
  coils.map(new Names(offeredCoils(sheet)).nameOf).join(', ')

// ---- contacts placed on the drawing ------------------------------------------------------------

export type ContactEdit =
  | { readonly does: 'series' | 'parallel'; readonly ref: string }
  | { readonly does: 'invert' | 'remove' }
  | { readonly does: 'replace'; readonly ref: string }

/** Changes the contact of a path that has a number, counted from its beginning. */
export function editContact(sheet: Sheet, rung: string, index: number, edit: ContactEdit): Sheet {
  const found = sheet.control.rungs.find((r) => r.id === rung)
  const parsed = found && parseExpression(found.contacts)
  if (!parsed?.ok) return sheet
  let count = 0
  const contact = (name: string): Expression => ({ kind: 'contact', name, closed: false, at: 0 })
  const walk = (e: Expression): Expression | undefined => {
    if (e.kind === 'series' || e.kind === 'parallel') {
      const parts = e.parts.flatMap((part) => walk(part) ?? [])
      return parts.length > 1 ? { kind: e.kind, parts } : parts[0]
    }
    if (count++ !== index) return e
    switch (edit.does) {
      case 'series':
      case 'parallel':
        return { kind: edit.does, parts: [e, contact(edit.ref)] }
      case 'invert':
        return e.kind === 'contact' ? { ...e, closed: !e.closed } : e
      case 'replace':
        return e.kind === 'contact' ? { ...e, name: edit.ref } : contact(edit.ref)
      case 'remove':
        return undefined
    }
  }
  const next = parsed.expression
    ? walk(parsed.expression)
    : edit.does === 'series' || edit.does === 'parallel'
      ? contact(edit.ref)
      : undefined
  return changeRung(sheet, rung, { contacts: expressionText(next) })
}

// ---- sequences ---------------------------------------------------------------------------------

export function addSequence(sheet: Sheet): { sheet: Sheet; id: string } {
  const id = unusedName('G', takenIds(sheet))
  const sequence = sequenceSchema.parse({
    id,
    name: 'Sequence',
    steps: [{ id: 'X0', name: 'Ready', initial: true }],
  })
  return { sheet: changed(sheet, { sequences: [...sheet.control.sequences, sequence] }), id }
}
export const changeSequence = (
  sheet: Sheet,
  id: string,
  change: Partial<ControlSection['sequences'][number]>,
): Sheet =>
  changed(sheet, {
    sequences: sheet.control.sequences.map((s) => (s.id === id ? { ...s, ...change } : s)),
  })
export const removeSequence = (sheet: Sheet, id: string): Sheet =>
  changed(sheet, { sequences: sheet.control.sequences.filter((s) => s.id !== id) })

/** Adds a step behind another, with a transition to it. */
export function addStep(sheet: Sheet, id: string, after: string): Sheet {
  const sequence = sheet.control.sequences.find((s) => s.id === id)
  if (!sequence) return sheet
  const step = unusedName(
    'X',
    sequence.steps.map((s) => s.id),
  )
  const transition = unusedName(
    't',
    sequence.transitions.map((t) => t.id),
  )
  return changeSequence(sheet, id, {
    steps: [...sequence.steps, { id: step, name: '', initial: false, actions: [] }],
    transitions: [...sequence.transitions, { id: transition, from: [after], to: [step], condition: '' }],
  })
}
/** Takes a step out, with the transitions that have no other step at that end. */
export function removeStep(sheet: Sheet, id: string, step: string): Sheet {
  const sequence = sheet.control.sequences.find((s) => s.id === id)
  if (!sequence) return sheet
  const without = (steps: readonly string[]) => steps.filter((s) => s !== step)
  return changeSequence(sheet, id, {
    steps: sequence.steps.filter((s) => s.id !== step),
    transitions: sequence.transitions
      .map((t) => ({ ...t, from: without(t.from), to: without(t.to) }))
      .filter((t) => t.from.length && t.to.length),
  })
}

// ---- requirements ------------------------------------------------------------------------------

export function addRequirement(sheet: Sheet): Sheet {
  const id = unusedName('N', takenIds(sheet))
  const requirement = { id, name: '', never: '', assumed: false }
  return changed(sheet, { requirements: [...sheet.control.requirements, requirement] })
}
export const changeRequirement = (
  sheet: Sheet,
  id: string,
  change: Partial<ControlSection['requirements'][number]>,
): Sheet =>
  changed(sheet, {
    requirements: sheet.control.requirements.map((r) => (r.id === id ? { ...r, ...change } : r)),
  })
export const removeRequirement = (sheet: Sheet, id: string): Sheet =>
  changed(sheet, { requirements: sheet.control.requirements.filter((r) => r.id !== id) })

const requirementNames = (sheet: Sheet) => new Names([...offeredCoils(sheet), ...offeredContacts(sheet)])
/** Contacts and coils as a person types them, as a sheet file has them; what does not read stays. */
export function requirementFromText(sheet: Sheet, text: string): string {
  const parsed = parseExpression(text)
  const names = requirementNames(sheet)
  return parsed.ok ? expressionText(parsed.expression, (name) => names.refOf(name) ?? name) : text
}
export function requirementToText(sheet: Sheet, never: string): string {
  const parsed = parseExpression(never)
  return parsed.ok ? expressionText(parsed.expression, requirementNames(sheet).nameOf) : never
}
