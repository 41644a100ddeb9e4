/** Lists of a drawing: parts list and netlist. */
import { findKind } from '../catalogue'
import type { Parameter, Show } from '../catalogue/kind'
import { valuesOrDefaults } from '../sheet/geometry'
import { itemOf } from '../sheet/shared-item'
import { readParameter } from '../sheet/resolve'
import { commandedParameters } from '../simulate/values-in-force'
import type { RunResult } from '../simulate/result'
import { nameOf, type PipeEnd, type Sheet, type SheetComponent } from '../sheet/schema'

type Rows = (string | number)[][]

/** What a run has made of the settings of a component, where that is not what is drawn: by its schedule, its control or a hand. */
function atEndOf(run: RunResult, component: SheetComponent, show: Show): string[] {
  const kind = findKind(component.kind)
  if (!kind) return []
  const parameters = kind.parameters as Record<string, Parameter>
  const drawn = valuesOrDefaults(component) as Record<string, unknown>
  const settings = new Set<string>((kind.traits?.pressureSettings ?? []).map(({ parameter }) => parameter))
  const changed = new Map<string, unknown>()
  for (const action of run.actions)
    if (action.kind === 'parameter' && action.component === component.id && action.target in parameters) {
      const read = readParameter(parameters[action.target], action.value)
      if ('value' in read) changed.set(action.target, read.value)
    }
  for (const { input, parameter } of commandedParameters(kind)) {
    const signal = run.signals.findIndex(({ id }) => id === `${component.id}.${kind.inputs![input].name}`)
    if (settings.has(parameter) && signal >= 0) changed.set(parameter, run.extremes[signal].end)
  }
  return [...changed].flatMap(([name, value]) => {
    const parameter = parameters[name]
    if (value === drawn[name]) return []
    const text =
      typeof value === 'number' && 'quantity' in parameter
        ? show(value, parameter.quantity)
        : parameter.type === 'choice'
          ? parameter.choices[String(value)]
          : value === true
            ? 'yes'
            : 'no'
    return [`${parameter.label} at the end of the run: ${text}`]
  })
}

/** What is written beside a component, then what else of it differs from the default; then what a run has made of it. */
function values(component: SheetComponent, show: Show, run: RunResult | undefined): string {
  const kind = findKind(component.kind)
  if (!kind) return ''
  const own = Object.entries(kind.parameters as Record<string, Parameter>).flatMap(([name, parameter]) => {
    if (!(name in component.parameters)) return []
    const written = component.parameters[name]
    const read = readParameter(parameter, written)
    if (!('value' in read)) return []
    if (parameter.type === 'choice') return [`${parameter.label}: ${parameter.choices[String(read.value)]}`]
    if (typeof read.value === 'number' && 'quantity' in parameter)
      return [`${parameter.label}: ${show(read.value, parameter.quantity)}`]
    if (typeof read.value === 'boolean') return [`${parameter.label}: ${read.value ? 'yes' : 'no'}`]
    return []
  })
  const texts = [...(kind.caption?.(valuesOrDefaults(component), show) ?? []), ...own].filter(unique)
  return [...texts, ...(run ? atEndOf(run, component, show) : [])].join('; ')
}
const unique = (text: string, i: number, all: string[]) => all.indexOf(text) === i

/** The parts list: equal parts in one row, with how many and where. @param run the one that is shown, where there is one: its settings are listed beside those drawn */
export function partsList(sheet: Sheet, show: Show, run?: RunResult): Rows {
  const parts = new Map<string, { kind: string; values: string; designations: string[] }>()
  /** Parts drawn several times that are listed already. */
  const items = new Set<string>()
  for (const component of sheet.components) {
    const kind = findKind(component.kind)
    if (!kind || kind.excludedFromPartsList) continue
    const item = itemOf(component)?.name
    if (item !== undefined) {
      if (items.has(item)) continue
      items.add(item)
    }
    const part = { kind: kind.label, values: values(component, show, run) }
    const key = JSON.stringify({ ...part, item })
    if (!parts.has(key)) parts.set(key, { ...part, designations: [] })
    parts.get(key)!.designations.push(nameOf(component))
  }
  const rows = [...parts.values()].map(({ kind, values: text, designations }) => {
    const sorted = [...designations].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
    return [sorted.length, kind, text, sorted.join(', ')] as (string | number)[]
  })
  rows.sort((a, b) => String(a[3]).localeCompare(String(b[3]), 'en', { numeric: true }))
  return [
    ['Position', 'Quantity', 'Part', 'Settings and sizes', 'Designations'],
    ...rows.map((row, i) => [i + 1, ...row]),
  ]
}

/** The netlist: every pipe with its ends, kind, bore and length. */
export function netlistRows(sheet: Sheet): Rows {
  const named = new Map(sheet.components.map((c) => [c.id, nameOf(c)]))
  const end = (e: PipeEnd): [string, string] =>
    'junction' in e ? [`junction ${e.junction}`, ''] : [named.get(e.component) ?? e.component, e.port]
  return [
    ['Pipe', 'Line', 'Kind', 'From', 'Port', 'To', 'Port', 'Bore', 'Length', 'Rating', 'Pipe or hose'],
    ...sheet.pipes.map((p) => [
      p.id,
      p.name ?? '',
      p.lineType,
      ...end(p.from),
      ...end(p.to),
      p.bore,
      p.length,
      p.rating ?? '',
      p.construction ?? '',
    ]),
  ]
}
