/** Actions as a schedule keeps them, with units, and as a simulation does them, in SI; the numbers are the same to the last bit. */
import { findKind } from '../catalogue'
import { commandableOf, type InputSpec } from '../catalogue/kind'
import { nameOf, type RecordedAction, type Schedule, type Sheet } from '../sheet/schema'
import { siUnit, type Quantity } from '../units/quantities'
import { parseQuantity, showQuantity } from '../units/text'
import type { Action } from './actions'
import { BURST_INPUT } from './circuit/bursting'
import type { ControlDevice } from './control-interface'
import { outOfRange } from './circuit/input-signal'

type Read<T> = { readonly value: T } | { readonly message: string }

/** Every digit of a number, in the SI unit of its quantity. */
const exact = (si: number, quantity: Quantity): string => `${si} ${siUnit(quantity)}`.trim()

type Devices = readonly ControlDevice[]
/** What a component, a device of the control, or a pipe, can be given by hand: inputs and faults. */
function inputOf(
  sheet: Sheet,
  component: string,
  target: string,
  devices: Devices,
): Omit<InputSpec, 'rest'> | undefined {
  const device = devices.find((d) => d.id === component)
  if (device) return commandableOf(device).find((spec) => spec.name === target)
  const found = sheet.components.find((c) => c.id === component)
  if (found) return commandableOf(findKind(found.kind) ?? {}).find((spec) => spec.name === target)
  return target === BURST_INPUT.name && sheet.pipes.some((p) => p.id === component) ? BURST_INPUT : undefined
}
export const parameterOf = (sheet: Sheet, component: string, target: string) => {
  const found = sheet.components.find((c) => c.id === component)
  return found && findKind(found.kind)?.parameters[target]
}

/**
 * An action for a simulation. @param devices of the control, where the sheet has one
 * @returns it, or what is wrong with it, for people
 */
export function readAction(sheet: Sheet, recorded: RecordedAction, devices: Devices = []): Read<Action> {
  const { kind, component, target, value } = recorded
  const when = parseQuantity(/[a-z]/i.test(recorded.at) ? recorded.at : `${recorded.at} s`, 'time')
  if (!when.ok) return { message: when.message }
  if (when.si < 0) return { message: `${recorded.at} lies before the start.` }
  const at = when.si
  if (kind === 'longestStep') {
    const length = typeof value === 'string' ? parseQuantity(value, 'time') : undefined
    if (!length?.ok || !(length.si > 0)) return { message: 'A longest step is a time above 0 s.' }
    return { value: { at, kind, value: length.si } }
  }
  const owner = sheet.components.find((c) => c.id === component)
  const device = devices.find((d) => d.id === component)
  if (!owner && !device && !sheet.pipes.some((p) => p.id === component))
    return { message: `There is no component or pipe "${component}" on the sheet.` }
  const name = owner ? nameOf(owner) : component
  if (kind === 'parameter') {
    if (!parameterOf(sheet, component, target)) return { message: `${name} has no value "${target}".` }
    if (value === undefined) return { message: `${name}, ${target}: a value is missing.` }
    return { value: { at, kind, component, target, value } }
  }
  const spec = inputOf(sheet, component, target, devices)
  if (!spec) {
    const names = owner
      ? commandableOf(findKind(owner.kind) ?? {}).map((s) => s.name)
      : device
        ? commandableOf(device).map((s) => s.name)
        : [BURST_INPUT.name]
    return {
      message: `${name} has nothing called "${target}" that can be set${names.length ? `; it has ${names.join(', ')}` : ''}.`,
    }
  }
  if (kind === 'release') return { value: { at, kind, component, target } }
  if (typeof value !== 'string') return { message: `${name}, ${spec.label}: a value is missing.` }
  const position = spec.positions?.find((p) => p.label.toLowerCase() === value.toLowerCase())
  const read = position ? undefined : parseQuantity(value, spec.quantity)
  if (read && !read.ok) return { message: `${name}, ${spec.label}: ${read.message}` }
  const si = position ? position.value : (read as { si: number }).si
  const problem = outOfRange(spec, si)
  if (problem)
    return { message: `${name}, ${spec.label}: ${showQuantity(si, spec.quantity, 'metric')} ${problem}` }
  return { value: { at, kind: 'set', component, target, value: si } }
}

/** An action as a schedule keeps it. */
export function recordAction(sheet: Sheet, action: Action, devices: Devices = []): RecordedAction {
  const at = exact(action.at, 'time')
  if (action.kind === 'longestStep')
    return { at, kind: action.kind, component: '', target: '', value: exact(action.value, 'time') }
  const { kind, component, target } = action
  if (kind === 'release') return { at, kind, component, target }
  if (kind === 'parameter') return { at, kind, component, target, value: action.value }
  const spec = inputOf(sheet, component, target, devices)
  return {
    at,
    kind,
    component,
    target,
    value: spec ? exact(action.value, spec.quantity) : String(action.value),
  }
}

/** Time, component, name and value of an action: up to the equals sign, its first dot after the time, and the words before it. */
function actionParts(text: string): { at: string; who: string; target: string; value: string } | undefined {
  const equals = text.indexOf('=')
  const words = text.slice(0, equals).trim().split(/\s+/)
  // a unit may stand apart from its number
  const timed = words.length > 1 && /^[a-z]+$/.test(words[1]) && words.length > 2 ? 2 : 1
  const at = words.slice(0, timed).join(' ')
  const named = words.slice(timed).join(' ')
  const dot = named.indexOf('.')
  if (equals < 0 || !/^[\d.+-]/.test(at) || dot < 1 || dot === named.length - 1) return undefined
  return { at, who: named.slice(0, dot), target: named.slice(dot + 1), value: text.slice(equals + 1).trim() }
}

/**
 * One thing done, as it is written on a command line: "0.5 V1.command=1", "2 s V3.setting=95 bar", "3 L7.burst=4 mm",
 * "4 V1.command=release". Components by id or designation. A value that is no input or fault is a parameter.
 */
export function parseAction(sheet: Sheet, text: string, devices: Devices = []): Read<RecordedAction> {
  const parts = actionParts(text)
  if (!parts) return { message: `An action is written as "TIME ID.NAME=VALUE", not "${text}".` }
  const { at, who, target, value } = parts
  const named = [...sheet.components, ...sheet.control.devices]
  const component = named.find((c) => c.id === who)?.id ?? named.find((c) => c.designation === who)?.id ?? who
  const isInput = !!inputOf(sheet, component, target, devices)
  const parameter = isInput ? undefined : parameterOf(sheet, component, target)
  const kind = value === 'release' ? 'release' : parameter ? 'parameter' : 'set'
  const switched = parameter?.type === 'switch' && /^(true|false)$/.test(value)
  return {
    value: {
      at,
      kind,
      component,
      target,
      ...(kind === 'release' ? {} : { value: switched ? value === 'true' : value }),
    },
  }
}

/** A live run as a schedule: what was commanded from the start, and what was done. @param duration s */
export function scheduleOf(
  sheet: Sheet,
  base: Schedule,
  run: { readonly actions: readonly Action[]; readonly longestStep: number; readonly duration: number },
  named: Pick<Schedule, 'id' | 'name' | 'note'>,
  devices: Devices = [],
): Schedule {
  return {
    ...base,
    ...named,
    duration: exact(run.duration, 'time'),
    longestStep: exact(run.longestStep, 'time'),
    actions: run.actions.map((action) => recordAction(sheet, action, devices)),
  }
}
