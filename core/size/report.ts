/** The calculation of a machine as it is handed over: every card with what it was given, worked out and chosen, and why. */
import type { Sheet } from '../sheet/schema'
import { nameOf } from '../sheet/schema'
import type { Quantity } from '../units/quantities'
import { agrees, resultsOf, targetsOf } from './apply'
import {
  actuators,
  choicesOf,
  drives,
  fieldsOf,
  fluids,
  machineFieldNames,
  machineFields,
  motionChoices,
  motionFields,
  operationFields,
  readField,
  supplies,
  type OperationName,
  type Brief,
  type Field,
} from './brief/brief'
import type { Origin, SizedNode, Sizing } from './graph'
import { standardSeries, type SeriesSet } from './series'
import { inSentence } from './text'

export type Show = (si: number, quantity: Quantity) => string

export interface ReportValue {
  readonly label: string
  readonly symbol: string
  readonly value: string
  /** Where it comes from. */
  readonly origin: string
}
export interface ReportStep {
  readonly label: string
  readonly symbol: string
  readonly formula: string
  readonly numbers: string
  readonly value: string
  readonly given: boolean
}
export interface ReportSection {
  readonly node: string
  readonly title: string
  readonly about: string
  readonly source: string
  readonly inputs: readonly ReportValue[]
  readonly steps: readonly ReportStep[]
  readonly remarks: readonly string[]
  readonly reason: string
  /** What the sheet has of it. */
  readonly sheet: readonly string[]
}
export interface CalculationReport {
  readonly statements: readonly { readonly label: string; readonly text: string }[]
  readonly conditions: readonly ReportValue[]
  readonly motions: readonly { readonly name: string; readonly values: readonly ReportValue[] }[]
  readonly sections: readonly ReportSection[]
  readonly notes: readonly string[]
}

const SAFETY =
  'Results support a qualified person’s judgement and never replace it. Machinery safety rules, pressure-vessel and local codes and ISO 4413 govern the machine.'

/** @param series those from which the sizes were chosen */
export function calculationReport(
  sheet: Sheet,
  brief: Brief,
  sizing: Sizing,
  show: Show,
  series: SeriesSet = standardSeries,
): CalculationReport {
  return {
    statements: [
      { label: 'What it must do', text: brief.purpose },
      { label: 'What must never happen', text: brief.never },
      { label: 'When power is lost', text: brief.onLoss },
      { label: 'When oil is lost', text: brief.onOilLoss },
      { label: 'When the control fails', text: brief.onControlLoss },
    ].filter(({ text }) => text),
    conditions: [
      word('Supplied by', supplies[brief.supply]),
      word('Drive', drives[brief.drive]),
      word('Fluid', fluids[brief.fluid]),
      ...machineFieldNames.flatMap((name) => fieldValue(machineFields[name], brief.values[name], show)),
      ...Object.entries(brief.operation).flatMap(([name, chosen]) => {
        const { label, options } = operationFields[name as OperationName]
        return chosen === 'open' ? [] : [word(label, (options as Readonly<Record<string, string>>)[chosen])]
      }),
    ],
    motions: brief.motions.map((motion) => ({
      name: motion.name,
      values: [
        word('Actuator', actuators[motion.actuator].label),
        ...fieldsOf(motion).flatMap((name) => fieldValue(motionFields[name], motion.values[name], show)),
        ...choicesOf(motion).map((name) => {
          const { label, options } = motionChoices[name]
          return word(label, (options as Readonly<Record<string, string>>)[motion[name]])
        }),
        ...(motion.people ? [word('People', 'may be under or in front of it')] : []),
      ],
    })),
    sections: sizing.nodes.map((node) => sectionOf(sheet, brief, node, show, series)),
    notes: [SAFETY],
  }
}

const word = (label: string, value: string): ReportValue => ({ label, symbol: '', value, origin: 'brief' })
function fieldValue(field: Field, written: string | undefined, show: Show): ReportValue[] {
  const read = readField(field, written)
  if (!('value' in read) || read.value === undefined) return []
  return [
    {
      label: field.label,
      symbol: '',
      value: show(read.value, field.quantity),
      origin: written?.trim() ? 'brief' : 'usual value',
    },
  ]
}

/** Where a value comes from, in words. */
export function originText(origin: Origin | undefined): string {
  switch (origin?.type) {
    case 'brief':
      return `brief: ${inSentence(origin.label)}`
    case 'cycle':
    case 'card':
      return origin.label
    case 'given':
      return 'given here'
    case 'solved':
      return 'solved for'
    default:
      return 'usual value'
  }
}

function sectionOf(
  sheet: Sheet,
  brief: Brief,
  node: SizedNode,
  show: Show,
  series: SeriesSet,
): ReportSection {
  const { card, values, origins } = node
  const shown = (name: string): string => {
    const variable = card.variables[name]
    const value = values[name]
    if (value === undefined) return '–'
    const option =
      variable.role === 'input' && Object.values(variable.options ?? {}).find((o) => o.value === value)
    return option ? option.label : show(value, variable.quantity)
  }
  const entries = Object.entries(card.variables)
  return {
    node: node.id,
    title: node.motion ? `${node.motion.name}: ${card.title}` : card.title,
    about: card.about,
    source: card.source,
    inputs: entries.flatMap(([name, v]) =>
      v.role === 'input'
        ? [{ label: v.label, symbol: v.symbol, value: shown(name), origin: originText(origins[name]) }]
        : [],
    ),
    steps: entries.flatMap(([name, v]): ReportStep[] =>
      v.role === 'input'
        ? []
        : [
            {
              label: v.label,
              symbol: v.symbol,
              formula: `${v.role === 'choice' ? `${series[v.series].source}, next to ` : ''}${v.formula.printActive(
                (n) => card.variables[n].symbol || inSentence(card.variables[n].label),
                values,
              )}`,
              numbers: v.formula.printActive(shown, values),
              value: shown(name),
              given: origins[name]?.type === 'given',
            },
          ],
    ),
    remarks: [...node.problems, ...node.warnings].map((r) => r.message),
    reason: sheet.sizing.reasons[node.id] ?? '',
    sheet: resultsOf(node).flatMap((result) =>
      targetsOf(sheet, brief, result)
        .filter((t) => t.assigned)
        .map(
          (t) =>
            `${nameOf(t.component)}, ${inSentence(t.definition.label)} ${t.value === undefined ? '–' : show(t.value, result.quantity)}: ${agrees(t, result) ? 'agrees' : `differs from ${show(result.value, result.quantity)}`}`,
        ),
    ),
  }
}
