/** What a path can be made of: contacts and coils of the devices, of the switches and solenoids of the sheet, and of steps. */
import { parseQuantity } from '../units/text'
import { Fluid } from '../fluid/fluid'
import { readParameter, resolveComponent, resolveFluid, type Value } from '../sheet/resolve'
import type { Parameters } from '../catalogue/kind'
import type { Quantity } from '../units/quantities'
import { memoized } from '../sheet/memoized'
import { nameOf, type ControlDeviceData, type Sheet } from '../sheet/schema'
import type { Finding } from '../sheet/finding'
import { findDeviceType, type AnyDeviceType } from './devices'

export interface ResolvedDevice {
  readonly device: ControlDeviceData
  readonly type: AnyDeviceType
  readonly values: Readonly<Record<string, Value>>
}
/** A device with its type and values; an invalid value is reported and replaced by the usual one. */
export const resolveDevice = memoized(
  (
    device: ControlDeviceData,
  ): { readonly resolved?: ResolvedDevice; readonly problems: readonly Finding[] } => {
    const type = findDeviceType(device.type)
    const place = { control: device.id }
    const wrong = (message: string, parameter?: string): Finding => ({
      rule: 'control-device',
      severity: 'error',
      message: `${nameOf(device)}: ${message}`,
      remedy: parameter ? 'Give a value of its range.' : 'Delete it, and place another.',
      location: { ...place, ...(parameter ? { parameter } : {}) },
    })
    if (!type) return { problems: [wrong(`nothing is known of a device "${device.type}".`)] }
    const problems: Finding[] = []
    const values: Record<string, Value> = {}
    for (const name of Object.keys(device.parameters))
      if (!Object.hasOwn(type.parameters, name))
        problems.push(wrong(`${type.label} has no value "${name}".`, name))
    for (const [name, parameter] of Object.entries(type.parameters as Parameters)) {
      const own = Object.hasOwn(device.parameters, name) ? device.parameters[name] : undefined
      const read = readParameter(parameter, own)
      if ('message' in read) problems.push(wrong(read.message, name))
      const usual = readParameter(parameter, undefined)
      values[name] = 'value' in read ? read.value : 'value' in usual ? usual.value : ''
    }
    return { resolved: { device, type, values }, problems }
  },
)

/** A contact or a coil that a path can have. */
export interface Offered {
  /** As a sheet file has it: "K1", "S5.1", "V2.coilA". */
  readonly ref: string
  /** As people write it: "K1", "S5.1", "1-1V1.a". */
  readonly name: string
  /** What it is of: id of a device, a component or a sequence. */
  readonly owner: string
  readonly terminal: string
  /** In words: "Start", "pressure switch". */
  readonly label: string
  /** It has current where nothing drives it: a motor that simply runs. */
  readonly runsAlone?: true
}

const joined = (name: string, terminal: string) => (terminal ? `${name}.${terminal}` : name)
/** Solenoids are called a and b. */
const COIL_NAMES: Readonly<Record<string, string>> = { coilA: 'a', coilB: 'b' }

export function offeredContacts(sheet: Sheet): Offered[] {
  const switches = sheet.components.flatMap((component): Offered[] => {
    const { resolved } = resolveComponent(component)
    if (!resolved?.kind.traits?.isOn) return []
    return [
      {
        ref: component.id,
        name: nameOf(component),
        owner: component.id,
        terminal: '',
        label: resolved.kind.label,
      },
    ]
  })
  const devices = sheet.control.devices.flatMap((device): Offered[] => {
    const { resolved } = resolveDevice(device)
    return (resolved?.type.contacts?.(resolved.values) ?? []).map(({ terminal, label }) => ({
      ref: joined(device.id, terminal),
      name: joined(nameOf(device), terminal),
      owner: device.id,
      terminal,
      label: [device.label || resolved!.type.label, terminal ? label : ''].filter(Boolean).join(', '),
    }))
  })
  const steps = sheet.control.sequences.flatMap((sequence) =>
    sequence.steps.map((step): Offered => ({
      ref: joined(sequence.id, step.id),
      name: joined(sequence.id, step.id),
      owner: sequence.id,
      terminal: step.id,
      label: step.name || `step ${step.id}`,
    })),
  )
  return [...devices, ...switches, ...steps]
}

export function offeredCoils(sheet: Sheet): Offered[] {
  const own = sheet.control.devices.flatMap((device): Offered[] => {
    const { resolved } = resolveDevice(device)
    return (resolved?.type.coils ?? []).map(({ terminal, label }) => ({
      ref: joined(device.id, terminal),
      name: joined(nameOf(device), terminal),
      owner: device.id,
      terminal,
      label: [device.label || resolved!.type.label, terminal ? label : ''].filter(Boolean).join(', '),
    }))
  })
  return [...own, ...sheetInputs(sheet, 'coil')]
}

/** Inputs of components that current drives: coils, or amplifiers. */
export function sheetInputs(sheet: Sheet, electric: 'coil' | 'signal'): Offered[] {
  return sheet.components.flatMap((component) => {
    const { resolved } = resolveComponent(component)
    if (!resolved) return []
    const { kind, values } = resolved
    const idle = kind.idleInputs?.(values) ?? []
    const inputs = (kind.inputs ?? []).filter((i) => i.electric === electric && !idle.includes(i.name))
    return inputs.map((input): Offered => {
      const letter = COIL_NAMES[input.name] ?? (inputs.length > 1 ? input.name : '')
      return {
        ref: `${component.id}.${input.name}`,
        name: joined(nameOf(component), letter),
        owner: component.id,
        terminal: input.name,
        label: letter ? `${kind.label}, solenoid ${letter}` : kind.label,
        ...(input.rest === 0 ? {} : { runsAlone: true }),
      }
    })
  })
}

/** Value of an input of a component that is switched on, SI. */
export function onValue(sheet: Sheet, component: string, input: string): number {
  const found = sheet.components.find((c) => c.id === component)
  const { resolved } = found ? resolveComponent(found) : {}
  const spec = resolved?.kind.inputs?.find((i: { name: string }) => i.name === input)
  return typeof spec?.rest === 'string' ? Number(resolved!.values[spec.rest]) : 1
}

/** What contacts and coils are called, by their references, and back. */
export class Names {
  private readonly byRef: ReadonlyMap<string, string>
  private readonly byName: ReadonlyMap<string, string>
  constructor(offered: readonly Offered[]) {
    this.byRef = new Map(offered.map(({ ref, name }) => [ref, name]))
    // what is written by its id is understood too, where nothing else is called so
    this.byName = new Map([
      ...offered.map(({ ref }) => [ref, ref] as const),
      ...offered.map(({ ref, name }) => [name, ref] as const),
      ...offered
        .map(({ ref, name }) => [name.toLowerCase(), ref] as const)
        .filter(([name]) => !offered.some((o) => o.name === name)),
    ])
  }
  /** As people write it; what is not known stays as it is. */
  nameOf = (ref: string): string => this.byRef.get(ref) ?? ref
  refOf = (name: string): string | undefined => this.byName.get(name) ?? this.byName.get(name.toLowerCase())
  has = (ref: string): boolean => this.byRef.has(ref)
}

/** Time of an action of a step, s; none where nothing is said. */
export function actionTime(time: string | undefined): number | undefined {
  if (time === undefined) return undefined
  const read = parseQuantity(time, 'time')
  return read.ok ? read.si : undefined
}

/** Outputs, states and inputs of a component that can be watched. */
export function signalsOf(sheet: Sheet, id: string): readonly SignalSpec[] {
  const component = sheet.components.find((c) => c.id === id)
  const { resolved } = component ? resolveComponent(component) : {}
  if (!resolved) return []
  const { kind, values } = resolved
  const { outputs = [], states = [] } = kind.model(values, new Fluid(resolveFluid(sheet.fluid).data))
  return [...outputs, ...states, ...(kind.inputs ?? [])]
}
interface SignalSpec {
  readonly name: string
  readonly label: string
  readonly quantity: Quantity
}

/** What a parameter of a device may name, by reference and name. */
export function referenceOptions(
  sheet: Sheet,
  what: 'coil' | 'signal' | 'value',
): { readonly ref: string; readonly name: string }[] {
  if (what !== 'value')
    return sheetInputs(sheet, what).map(({ ref, name, label }) => ({ ref, name: `${name}, ${label}` }))
  return sheet.components.flatMap((component) =>
    signalsOf(sheet, component.id).map(({ name, label }) => ({
      ref: `${component.id}.${name}`,
      name: `${nameOf(component)}, ${label}`,
    })),
  )
}

/** The signal of a run that tells whether a contact, as a normally open one, is closed. */
export const contactSignal = (ref: string): string => (ref.includes('.') ? ref : `${ref}.on`)
