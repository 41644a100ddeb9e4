/** Lists of a control: its paths in text, and its inputs and outputs. */
import { resolveDevice } from '../control/terminals'
import { coilsToText, contactsToText, requirementToText } from '../control/edit'
import { meaningOf, wiredInputs, wiredOutputs } from '../control/wiring'
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
  return [
    ['Signal', 'Device', 'Purpose', 'Type', 'Place', 'Contact', 'Address', 'Meaning'],
    ...wiredInputs(sheet).map((input) => [
      'input',
      input.name,
      input.purpose,
      input.type,
      input.place,
      input.contacts.join(' and '),
      '',
      meaningOf(input),
    ]),
    ...wiredOutputs(sheet).map(({ name, purpose, type, place }) => [
      'output',
      name,
      purpose,
      type,
      place,
      '',
      '',
      'TRUE: it has current',
    ]),
  ]
}
