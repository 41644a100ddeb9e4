/** The catalogue as a page of Markdown, for people who write sheet files by hand. */
import { kinds } from '../catalogue'
import { families, type Parameter } from '../catalogue/kind'
import { readParameter, type Value } from '../sheet/resolve'
import { Fluid } from '../fluid/fluid'
import { resolveFluid } from '../sheet/resolve'
import { fluidSchema } from '../sheet/schema'
import { quantities } from '../units/quantities'
import { showQuantity } from '../units/text'

const row = (...cells: string[]) => `| ${cells.join(' | ')} |`

function parameterRow(name: string, p: Parameter): string {
  const note = p.note ? `${p.label}: ${p.note}` : p.label
  if (p.type === 'switch') return row(`\`${name}\``, String(p.default), '`true`, `false`', note)
  if (p.type === 'choice')
    return row(
      `\`${name}\``,
      p.default,
      Object.entries(p.choices)
        .map(([k, words]) => `\`${k}\` ${words}`)
        .join('; '),
      note,
    )
  if (p.type === 'text') return row(`\`${name}\``, p.default, 'words', note)
  if (p.type === 'table') return row(`\`${name}\``, 'none', `pairs of ${p.x.label} and ${p.y.label}`, note)
  const show = (si: number) => showQuantity(si, p.quantity, 'metric')
  return row(`\`${name}\``, p.default, `${show(p.min)} to ${show(p.max)}`, note)
}

export function catalogueText(): string {
  const fluid = new Fluid(resolveFluid(fluidSchema.parse({})).data)
  const lines = ['# Component kinds', '', 'Written from the catalogue by `npm run schema`.', '']
  for (const kind of kinds.values()) {
    const values: Record<string, Value> = {}
    for (const [name, p] of Object.entries(kind.parameters as Record<string, Parameter>)) {
      const read = readParameter(p, undefined)
      if ('value' in read) values[name] = read.value
    }
    const model = kind.model(values, fluid)
    lines.push(
      `## \`${kind.name}\``,
      '',
      `${kind.label} (${families[kind.family].toLowerCase()}). ${kind.description}`,
      '',
    )
    lines.push(`Ports: ${kind.ports.map((p) => `\`${p.name}\` ${p.role}`).join(', ')}.`, '')
    const parameters = Object.entries(kind.parameters as Record<string, Parameter>)
    if (parameters.length)
      lines.push(
        row('parameter', 'default', 'allowed', 'meaning'),
        row('---', '---', '---', '---'),
        ...parameters.map(([n, p]) => parameterRow(n, p)),
        '',
      )
    if (kind.forms) lines.push('Drawn simplified or detailed.', '')
    for (const fault of kind.faults ?? [])
      lines.push(
        `Fault \`${fault.name}\` (${fault.label}, ${quantities[fault.quantity].label}), 0 where nothing fails.`,
        '',
      )
    for (const input of kind.inputs ?? []) {
      const positions = input.positions?.map((p) => `${p.value} ${p.label}`).join(', ')
      lines.push(
        `Input \`${input.name}\` (${input.label}, ${quantities[input.quantity].label})${positions ? `: ${positions}` : ''}.`,
        '',
      )
    }
    const signals = [...(model.states ?? []), ...(model.outputs ?? [])]
    if (signals.length)
      lines.push(`Signals: ${signals.map((s) => `\`${s.name}\` ${s.label}`).join(', ')}.`, '')
    const conditions = [...(model.conditions ?? []), ...(model.eventFunctions ?? []).filter((g) => g.report)]
    if (conditions.length)
      lines.push(`Conditions: ${conditions.map((c) => `\`${c.name}\` ${c.label}`).join(', ')}.`, '')
  }
  return lines.join('\n')
}
