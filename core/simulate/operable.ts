/** What of a machine can be worked by hand while it runs: levers, switches, settings, loads; and how it fails. */
import type { FaultSpec, InputSpec } from '../catalogue/kind'
import { resolveComponent, type ResolvedComponent } from '../sheet/resolve'
import { nameOf, type Sheet } from '../sheet/schema'
import type { ControlDevice } from './control-interface'

/**
 * lever: held by hand; switch: on or off; setting: turned; load: what the machine meets; button, selector, order: devices of the
 * control that are pressed, put somewhere, or given a value.
 */
export type OperableType = 'lever' | 'switch' | 'setting' | 'load' | 'button' | 'selector' | 'order'

export interface Operable {
  /** "V1.command": also the id of its signal. */
  readonly key: string
  readonly component: string
  /** What the component is called. */
  readonly name: string
  readonly spec: Omit<InputSpec, 'rest'>
  readonly type: OperableType
  /** SI */
  readonly rest: number
  /** What one press of an arrow key changes, SI. */
  readonly step: number
  /** Of a spring that is turned: its range, SI, and how many turns it has. */
  readonly knob?: { readonly least: number; readonly greatest: number; readonly turns: number }
}

/** Turns of a setting screw from one end to the other, and where it begins, Pa: usual values. */
const TURNS = 5
const LEAST_SETTING = 5e5
/** Usual spring ranges of pressure valves, Pa; a spring is chosen so that its setting leaves a fifth of the range. */
const SPRING_RANGES = [25e5, 50e5, 100e5, 210e5, 350e5, 420e5, 700e5]
/** Steps by which a value goes from one end of its range to the other. */
const STEPS = 50
const LEVER_STEPS = 10

/** Inputs of a component that do something with its values. */
export function operablesOf(resolved: ResolvedComponent): Operable[] {
  const { component, kind, values } = resolved
  const idle = kind.idleInputs?.(values) ?? []
  return (kind.inputs ?? [])
    .filter((spec) => !idle.includes(spec.name))
    .map((spec): Operable => {
      // a switch of the component counts as on or off
      const rest = typeof spec.rest === 'string' ? Number(values[spec.rest]) : spec.rest
      const type = typeOf(spec, kind.family)
      const knob = spec.quantity === 'pressure' && type === 'setting' ? knobOf(spec, rest) : undefined
      return {
        key: `${component.id}.${spec.name}`,
        component: component.id,
        name: nameOf(component),
        spec,
        type,
        rest,
        step: stepOf(spec, rest, type, knob),
        ...(knob ? { knob } : {}),
      }
    })
}
const typeOf = (spec: InputSpec, family: string): OperableType =>
  spec.momentary ? 'lever' : spec.positions ? 'switch' : family === 'actuators' ? 'load' : 'setting'

/** What operators work of the control. */
const operatorsOf = ({ id, name, inputs }: ControlDevice): Operable[] =>
  inputs.map((spec) => {
    const type = spec.momentary ? 'button' : spec.positions ? 'selector' : 'order'
    const rest = spec.rest as number
    return {
      key: `${id}.${spec.name}`,
      component: id,
      name,
      spec,
      type,
      rest,
      step: stepOf(spec, rest, type === 'order' ? 'load' : 'switch', undefined),
    }
  })

function knobOf({ min, max }: InputSpec, rest: number): Operable['knob'] {
  const range = SPRING_RANGES.find((r) => r >= 1.2 * rest) ?? max
  return { least: Math.max(min, LEAST_SETTING), greatest: Math.min(max, range), turns: TURNS }
}
function stepOf(spec: InputSpec, rest: number, type: OperableType, knob: Operable['knob']): number {
  if (knob) return 1e5
  if (type === 'lever') return (spec.max - spec.min) / (2 * LEVER_STEPS)
  // a load may be anything: in shares of what it is
  if (type === 'load' || spec.max - spec.min > 1e3) return Math.abs(rest) > 0 ? Math.abs(rest) / 20 : 100
  return (spec.max - spec.min) / STEPS
}

/** A fault that can be set while the machine runs. */
export interface OperableFault {
  readonly key: string
  readonly component: string
  readonly name: string
  readonly spec: FaultSpec
  /** It is either there or not. */
  readonly onOff: boolean
}
const deviceFaults = ({ id, name, faults }: ControlDevice): OperableFault[] =>
  faults.map((spec) => ({
    key: `${id}.${spec.name}`,
    component: id,
    name,
    spec,
    onOff: spec.positions !== undefined,
  }))
/** Faults that a component can have with its values. */
export const faultsOf = ({ component, kind, values }: ResolvedComponent): OperableFault[] => {
  const idle = kind.idleFaults?.(values) ?? []
  return (kind.faults ?? [])
    .filter((spec) => !idle.includes(spec.name))
    .map((spec) => ({
      key: `${component.id}.${spec.name}`,
      component: component.id,
      name: nameOf(component),
      spec,
      onOff: spec.positions !== undefined,
    }))
}

export interface OperableMachine {
  readonly operables: readonly Operable[]
  readonly faults: readonly OperableFault[]
  /** Faults that a loss of the electric supply causes, as "component.fault". */
  readonly electric: readonly string[]
}
/** All of a machine, in the order of the sheet. @param devices of its control */
export function operableMachine(sheet: Sheet, devices: readonly ControlDevice[] = []): OperableMachine {
  const resolved = sheet.components.flatMap((component) => resolveComponent(component).resolved ?? [])
  return {
    operables: [...devices.flatMap(operatorsOf), ...resolved.flatMap(operablesOf)],
    faults: [...resolved.flatMap(faultsOf), ...devices.flatMap(deviceFaults)],
    electric: resolved.flatMap(({ component, kind, values }) =>
      (kind.traits?.electricFaults?.(values) ?? []).map((fault) => `${component.id}.${fault}`),
    ),
  }
}
