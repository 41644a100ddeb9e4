/** Which values on a sheet take the results of sizing, whether they agree, and the sheet with a result in them. */
import { findKind } from '../catalogue'
import type { QuantityParameter, SizingResult } from '../catalogue/kind'
import { setParameter } from '../sheet/edit'
import { readParameter } from '../sheet/resolve'
import { nameOf, type Sheet, type SheetComponent } from '../sheet/schema'
import type { Quantity } from '../units/quantities'
import { familyOf, type Brief, type Motion } from './brief/brief'
import type { Formula } from './formula'
import type { SizedNode } from './graph'
import { besideActuator, besidePumps } from './jobs'
import { roundedText, textOf } from './text'

/** A result that the sheet can take. */
export interface Result {
  readonly node: SizedNode
  readonly variable: string
  readonly sized: SizingResult
  readonly label: string
  readonly quantity: Quantity
  /** SI. */
  readonly value: number
  /** It is a value of a series, and not one that is rounded when it is written. */
  readonly exact: boolean
  /** The least that will do, SI, where more does as well. */
  readonly least?: number
}
/** A value on the sheet that can take a result. */
export interface Target {
  readonly component: SheetComponent
  readonly parameter: string
  readonly definition: QuantityParameter
  /** SI; none where it cannot be read. */
  readonly value: number | undefined
  /** The component can have this result. */
  readonly possible: boolean
  /** It is meant for this result: chosen by a person, or the only one. */
  readonly assigned: boolean
}

/** What a card gives to the sheet, as far as it has values. */
export const resultsOf = (node: SizedNode): Result[] =>
  Object.entries(node.card.variables).flatMap(([variable, v]) => {
    const value = node.values[variable]
    if (v.role === 'input' || !v.sized || value === undefined) return []
    if (v.sizedWhen && !isMet(v.sizedWhen, node.values)) return []
    const { sized, label, quantity } = v
    const needed = v.atLeast ? v.formula.evaluate(node.values) : undefined
    const least = needed === undefined ? undefined : Math.min(needed, value)
    return [{ node, variable, sized, label, quantity, value, exact: v.role === 'choice', least }]
  })

const isMet = (when: Formula, values: Readonly<Record<string, number>>) =>
  when.names.every((name) => name in values) && !!when.evaluate(values)

/** The values of a sheet that can take a result. */
export function targetsOf(sheet: Sheet, brief: Brief, result: Result): Target[] {
  const { node, sized } = result
  const chosen = sheet.sizing.components[resultId(result)] ?? sheet.sizing.components[node.id]
  const candidates = sheet.components.flatMap((component) => {
    const kind = findKind(component.kind)
    const parameter = kind?.traits?.sizingTargets?.[sized]
    if (!kind || !parameter) return []
    const definition = kind.parameters[parameter] as QuantityParameter
    const read = readParameter(definition, component.parameters[parameter])
    const value = 'value' in read ? (read.value as number) : undefined
    // a parameter that takes several results goes by itself only to the first of them
    const [first] = Object.entries(kind.traits!.sizingTargets!).find(([, p]) => p === parameter)!
    return [
      {
        component,
        parameter,
        definition,
        value,
        possible: result.value >= definition.min && result.value <= definition.max,
        actuator: isActuator(component),
        usual: first === sized,
      },
    ]
  })
  const { motion } = node
  const rivals = motion ? brief.motions.filter((m) => familyOf(m) === familyOf(motion)).length : 1
  const job = jobOf(sheet, brief, result)
  // a result is offered only to what does that job; where nothing does, a person chooses among all
  const named = motion?.designation
  const isNamed = candidates.some((c) => c.actuator && nameOf(c.component) === named)
  const able = candidates.filter((c) => !c.actuator || !isNamed || nameOf(c.component) === named)
  const doing = able.filter((c) => c.actuator || !job || job.has(c.component.id))
  const offered = chosen || !doing.length ? able : doing
  const isMeant = (name: string, actuator: boolean, usual: boolean) => {
    if (chosen) return chosen.includes(name)
    if (actuator && motion?.designation) return name === motion.designation
    if (!doing.length) return usual && able.length === 1 && rivals === 1
    if (doing.length > 1) return false
    return (job && motion && !actuator) || (usual && rivals === 1)
  }
  return offered.map(({ actuator, usual, ...target }) => ({
    ...target,
    assigned: isMeant(nameOf(target.component), actuator, usual),
  }))
}

/** The actuator of a motion on a sheet: the one that is named, or the only one of its kind. */
function actuatorOf(sheet: Sheet, brief: Brief, motion: Motion): SheetComponent | undefined {
  const all = sheet.components.filter(isActuator)
  if (motion.designation) return all.find((c) => nameOf(c) === motion.designation)
  const own = all.filter((c) => movesLike(c, motion))
  const rivals = brief.motions.filter((m) => familyOf(m) === familyOf(motion)).length
  return own.length === 1 && rivals === 1 ? own[0] : undefined
}
/** It moves a load by oil: a cylinder, a motor, a rotary actuator; not a brake. */
const isActuator = (component: SheetComponent) => takesAny(component, [...LINEAR, ...ROTARY])
const movesLike = (component: SheetComponent, motion: Motion) =>
  takesAny(component, familyOf(motion) === 'linear' ? LINEAR : ROTARY)
/** Results by which an actuator is sized. */
const LINEAR = ['bore', 'lastStage'] as const
const ROTARY = ['motorDisplacement', 'rotaryVolume'] as const
const takesAny = ({ kind }: SheetComponent, names: readonly string[]) => {
  const targets = findKind(kind)?.traits?.sizingTargets ?? {}
  return names.some((name) => name in targets)
}
/** Components that do the job of a result, by id; nothing where any may. */
function jobOf(sheet: Sheet, brief: Brief, { node, sized }: Result): ReadonlySet<string> | undefined {
  if (node.motion) {
    const actuator = actuatorOf(sheet, brief, node.motion)
    return actuator && besideActuator(sheet, actuator.id)
  }
  return sized === 'reliefSetting' || sized === 'reliefFlow' ? besidePumps(sheet) : undefined
}

/** Whether a value is the result, but for rounding where it is written, or at least as large as it must be. */
export const agrees = (
  { value }: Pick<Target, 'value'>,
  { value: wanted, exact, least }: Pick<Result, 'value' | 'exact' | 'least'>,
): boolean =>
  value !== undefined &&
  ((least !== undefined && value >= least * (1 - 1e-9)) ||
    Math.abs(value - wanted) <= (exact ? 1e-6 : 1e-3) * Math.max(Math.abs(value), Math.abs(wanted)))

/** The sheet with a result in a value, written in metric units; as it is where the component cannot have the result. */
export const applyResult = (sheet: Sheet, target: Target, result: Result): Sheet =>
  target.possible
    ? setParameter(
        sheet,
        target.component.id,
        target.parameter,
        result.exact ? textOf(result.value, result.quantity) : roundedText(result.value, result.quantity),
      )
    : sheet

/** Card and variable of a result: under this, or under its card alone, a sheet keeps where it goes. */
const resultId = ({ node, variable }: Pick<Result, 'node' | 'variable'>) => `${node.id}.${variable}`
/** The sheet on which a result goes to these components. */
export const assignComponents = (
  sheet: Sheet,
  result: Pick<Result, 'node' | 'variable'>,
  designations: readonly string[],
): Sheet => ({
  ...sheet,
  sizing: {
    ...sheet.sizing,
    components: { ...sheet.sizing.components, [resultId(result)]: [...designations] },
  },
})

/** How a card stands: it cannot be computed or must not be built so, warns, or the sheet agrees with it or differs; nothing where the sheet takes nothing of it. */
export type CardState = 'problem' | 'warning' | 'agrees' | 'differs'
/** @param machine sheet and brief of the machine; without them the card stands by itself */
export function stateOf(
  node: SizedNode,
  machine?: { readonly sheet: Sheet; readonly brief: Brief },
): CardState | undefined {
  if (node.problems.length || node.warnings.some((w) => w.severity === 'error')) return 'problem'
  if (node.warnings.length) return 'warning'
  if (!machine) return undefined
  const agreeing = resultsOf(node).flatMap((result) =>
    targetsOf(machine.sheet, machine.brief, result)
      .filter((t) => t.assigned)
      .map((t) => agrees(t, result)),
  )
  if (!agreeing.length) return undefined
  return agreeing.every(Boolean) ? 'agrees' : 'differs'
}
