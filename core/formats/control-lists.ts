/** Lists of a control: its paths in text, and its inputs and outputs. */
import { resolveDevice } from '../control/terminals'
import { coilsToText, contactsToText, requirementToText } from '../control/edit'
import { contactsOf, parseExpression } from '../control/expression'
import { offeredCoils, offeredContacts } from '../control/terminals'
import { nameOf, type Sheet } from '../sheet/schema'
import type { Rows } from './csv'

/** The control as readable text: devices, paths, sequences, requirements. */
export function pathsText(sheet: Sheet): string {
  const { control } = sheet
  const lines: string[] = [sheet.title, '']
  lines.push('Devices')
  for (const device of control.devices) {
    const { resolved } = resolveDevice(device)
    const values = Object.entries(device.parameters).map(([name, value]) => {
      const label = resolved?.type.parameters[name]?.label ?? name
      return `${label}: ${value}`
    })
    lines.push(
      `  ${nameOf(device)}  ${resolved?.type.label ?? device.type}${device.label ? `, ${device.label}` : ''}${values.length ? ` (${values.join('; ')})` : ''}`,
    )
  }
  lines.push('', 'Paths')
  control.rungs.forEach((rung, i) => {
    if (rung.comment) lines.push(`  ${i + 1}  # ${rung.comment}`)
    const contacts = contactsToText(sheet, rung.contacts) || 'always'
    lines.push(`  ${i + 1}  ${contacts}  ->  ${coilsToText(sheet, rung.coils) || 'nothing'}`)
  })
  for (const sequence of control.sequences) {
    lines.push('', `Sequence ${sequence.name || sequence.id}`)
    for (const step of sequence.steps) {
      const actions = step.actions.map(({ coil, qualifier, time }) =>
        [qualifier, coilsToText(sheet, [coil]), time].filter(Boolean).join(' '),
      )
      lines.push(
        `  ${step.initial ? '[[' : '['}${step.id}${step.initial ? ']]' : ']'} ${step.name}${actions.length ? `: ${actions.join(', ')}` : ''}`,
      )
    }
    for (const t of sequence.transitions)
      lines.push(
        `  ${t.from.join(' + ')} -> ${t.to.join(' + ')}: ${contactsToText(sheet, t.condition) || 'always'}`,
      )
  }
  if (control.requirements.length) {
    lines.push('', 'Must never be')
    for (const { name, never, assumed } of control.requirements)
      lines.push(
        `  ${name}: ${requirementToText(sheet, never)}${assumed ? ' (a fact about the machine)' : ''}`,
      )
  }
  return lines.join('\n') + '\n'
}

/** What is wired to the outside: operators, switches and lamps as inputs and outputs, solenoids and motors; the address is left open. */
export function ioRows(sheet: Sheet): Rows {
  const { control } = sheet
  const kinds = contactKinds(sheet)
  const devices = new Map(control.devices.map((d) => [d.id, d]))
  const placeOf = (owner: string) => {
    const device = devices.get(owner)
    if (!device) return 'machine'
    return resolveDevice(device).resolved?.type.place === 'operator' ? 'operator panel' : 'cabinet'
  }
  const isWired = (owner: string) => {
    const device = devices.get(owner)
    if (!device) return !control.sequences.some((s) => s.id === owner)
    const { resolved } = resolveDevice(device)
    if (!resolved || resolved.type.isVirtual?.(resolved.values)) return false
    // relays, timers and counters are within the control
    return !(resolved.type.contacts && resolved.type.coils)
  }
  const typeOf = (owner: string, label: string) => {
    const device = devices.get(owner)
    return device ? (resolveDevice(device).resolved?.type.label ?? device.type) : label
  }
  const inputs = offeredContacts(sheet)
    .filter(({ owner, ref }) => isWired(owner) && kinds.has(ref))
    .map(({ name, label, owner, ref }) => [
      'input',
      name,
      devices.get(owner)?.label ?? label,
      typeOf(owner, label),
      placeOf(owner),
      [...kinds.get(ref)!].sort().join(' and '),
      '',
    ])
  const driven = new Set([
    ...control.rungs.flatMap((r) => r.coils),
    ...control.sequences.flatMap((s) => s.steps.flatMap((step) => step.actions.map((a) => a.coil))),
  ])
  const outputs = offeredCoils(sheet)
    .filter(({ owner, ref }) => isWired(owner) && driven.has(ref))
    .map(({ name, label, owner }) => [
      'output',
      name,
      devices.get(owner)?.label ?? label,
      typeOf(owner, label),
      placeOf(owner),
      '',
      '',
    ])
  return [['Signal', 'Device', 'Purpose', 'Type', 'Place', 'Contact', 'Address'], ...inputs, ...outputs]
}

/** How each contact is wired where it is used: normally open, normally closed. */
function contactKinds({ control }: Sheet): ReadonlyMap<string, ReadonlySet<string>> {
  const kinds = new Map<string, Set<string>>()
  const texts = [
    ...control.rungs.map((r) => r.contacts),
    ...control.sequences.flatMap((s) => s.transitions.map((t) => t.condition)),
  ]
  for (const text of texts) {
    const parsed = parseExpression(text)
    if (!parsed.ok) continue
    for (const contact of contactsOf(parsed.expression)) {
      const found = kinds.get(contact.name) ?? new Set<string>()
      kinds.set(contact.name, found.add(contact.kind === 'contact' && contact.closed ? 'NC' : 'NO'))
    }
  }
  return kinds
}
