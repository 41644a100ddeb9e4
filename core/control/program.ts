/** A control as it is drawn, read once: paths, coils and steps by their indices, with what is wrong at its place. */
import type { Quantity } from '../units/quantities'
import type { Finding } from '../sheet/finding'
import { nameOf, type Sheet, type StepAction } from '../sheet/schema'
import { contactsOf, parseExpression, refsIn, type Expression } from './expression'
import {
  actionTime,
  Names,
  offeredCoils,
  offeredContacts,
  onValue,
  resolveDevice,
  sheetInputs,
  signalsOf,
  type ResolvedDevice,
} from './terminals'

/** Something that current, or a value, can be given. */
export type Target =
  | { readonly ref: string; readonly device: number; readonly coil: number }
  | { readonly ref: string; readonly component: string; readonly input: string; readonly on: number }

export interface Path {
  readonly id: string
  readonly expression: Expression | undefined
  /** Indices of targets. */
  readonly coils: readonly number[]
}
export interface CompiledAction {
  readonly target: number
  readonly qualifier: StepAction['qualifier']
  /** s; 0 where nothing is said. */
  readonly time: number
}
export interface CompiledSequence {
  readonly id: string
  readonly steps: readonly {
    readonly id: string
    readonly initial: boolean
    readonly actions: readonly CompiledAction[]
  }[]
  readonly transitions: readonly {
    readonly id: string
    readonly from: readonly number[]
    readonly to: readonly number[]
    readonly condition: Expression | undefined
  }[]
}
export interface Program {
  readonly devices: readonly ResolvedDevice[]
  /** Where contacts get their state: of a device, of a switch on the sheet, of a step. */
  readonly sources: ReadonlyMap<string, ContactSource>
  readonly targets: readonly Target[]
  readonly paths: readonly Path[]
  readonly sequences: readonly CompiledSequence[]
  readonly requirements: readonly {
    readonly id: string
    readonly name: string
    readonly never: Expression | undefined
    readonly assumed: boolean
  }[]
  /** Device that supplies the control, −1 where none is drawn: the voltage is then always there. */
  readonly supply: number
  /** Devices that watch a signal of the sheet. */
  readonly watching: readonly {
    readonly device: number
    readonly component: string
    readonly signal: string
    readonly quantity: Quantity
  }[]
  /** Devices that give an input of the sheet a value by themselves. */
  readonly driving: readonly {
    readonly device: number
    readonly component: string
    readonly input: string
    readonly on: number
  }[]
}
export type ContactSource =
  | { readonly from: 'device'; readonly device: number; readonly terminal: string }
  | { readonly from: 'switch'; readonly component: string }
  | { readonly from: 'step'; readonly sequence: number; readonly step: number }
  /** Current of a coil: only requirements may ask for it. */
  | { readonly from: 'coil'; readonly ref: string }

/** Indices of the coils of a device. */
export const targetsOf = ({ targets }: Program, device: number): number[] =>
  targets.flatMap((t, i) => ('device' in t && t.device === device ? [i] : []))
/** Ids of the devices whose coils are among some targets. */
export const devicesOfTargets = ({ targets, devices }: Program, indices: readonly number[]): string[] =>
  indices.flatMap((i) => {
    const target = targets[i]
    return 'device' in target ? [devices[target.device].device.id] : []
  })
/** Whether a path leads through a contact of a relay that it feeds. */
export const readsItsOwn = (program: Program, { expression, coils }: Path): boolean => {
  const own = devicesOfTargets(program, coils)
  return refsIn(expression).some((ref) => own.includes(ref))
}

export interface ReadControl {
  readonly program: Program
  /** Errors keep the control from running. */
  readonly findings: readonly Finding[]
}

/** Reads the control of a sheet. */
export function readControl(sheet: Sheet): ReadControl {
  const { control } = sheet
  const findings: Finding[] = []
  const wrong = (rule: string, message: string, control: string, remedy?: string) =>
    findings.push({ rule, severity: 'error', message, location: { control }, remedy })
  const devices: ResolvedDevice[] = []
  for (const device of control.devices) {
    const { resolved, problems } = resolveDevice(device)
    findings.push(...problems)
    if (resolved) devices.push(resolved)
  }
  const indexOf = new Map(devices.map(({ device }, i) => [device.id, i]))
  const contacts = offeredContacts(sheet)
  const names = new Names(contacts)
  const sources = new Map<string, ContactSource>()
  for (const { ref, owner, terminal } of contacts) {
    const device = indexOf.get(owner)
    const sequence = control.sequences.findIndex((s) => s.id === owner)
    if (device !== undefined) sources.set(ref, { from: 'device', device, terminal })
    else if (sequence >= 0) {
      const step = control.sequences[sequence].steps.findIndex((s) => s.id === terminal)
      sources.set(ref, { from: 'step', sequence, step })
    } else sources.set(ref, { from: 'switch', component: owner })
  }

  const coils = offeredCoils(sheet)
  for (const { ref } of coils) if (!sources.has(ref)) sources.set(ref, { from: 'coil', ref })

  const read = (text: string, owner: string, what: string, coilsToo = false): Expression | undefined => {
    const parsed = parseExpression(text)
    if (!parsed.ok) {
      wrong(
        'control-expression',
        `${what}: ${parsed.error.message}`,
        owner,
        'Write contacts with · (series), + (parallel) and / (normally closed).',
      )
      return undefined
    }
    for (const contact of contactsOf(parsed.expression)) {
      const source = sources.get(contact.name)
      if (!source || (source.from === 'coil' && !coilsToo))
        wrong(
          'control-contact',
          `${what}: there is no contact "${contact.name}".`,
          owner,
          'Place the device, or take the contact out of the path.',
        )
      else if (contact.kind === 'active' && source.from !== 'step')
        wrong(
          'control-contact',
          `${what}: only a step is active "for" a time, not ${names.nameOf(contact.name)}.`,
          owner,
          'Use a timer.',
        )
    }
    return parsed.expression
  }

  const coilNames = new Names(coils)
  const targets: Target[] = []
  const targetIndex = new Map<string, number>()
  /** Paths, or the sequence, by which each target is driven. */
  const drivenBy = new Map<string, string>()
  const targetOf = (ref: string, owner: string, what: string): number => {
    const known = targetIndex.get(ref)
    if (known !== undefined) return known
    const offered = coils.find((c) => c.ref === ref)
    if (!offered) {
      wrong(
        'control-coil',
        `${what}: there is no coil "${ref}".`,
        owner,
        'Place the device, or take the coil out of the path.',
      )
      return -1
    }
    const device = indexOf.get(offered.owner)
    targets.push(
      device === undefined
        ? {
            ref,
            component: offered.owner,
            input: offered.terminal,
            on: onValue(sheet, offered.owner, offered.terminal),
          }
        : {
            ref,
            device,
            coil: devices[device].type.coils!.findIndex((c) => c.terminal === offered.terminal),
          },
    )
    targetIndex.set(ref, targets.length - 1)
    return targets.length - 1
  }
  const claim = (ref: string, by: string, place: string) => {
    const before = drivenBy.get(ref)
    if (before !== undefined && before !== by)
      wrong(
        'coil-twice',
        `${coilNames.nameOf(ref)} is driven by ${before} and by ${by}.`,
        place,
        'Join the two paths in parallel before the coil, or let one of them drive a relay.',
      )
    drivenBy.set(ref, by)
  }
  const drive = (ref: string, by: string, place: string, what: string): number => {
    const target = targetOf(ref, place, what)
    if (target >= 0) claim(ref, by, place)
    return target
  }

  const paths = control.rungs.map((rung, i): Path => {
    const what = `Path ${i + 1}`
    return {
      id: rung.id,
      expression: read(rung.contacts, rung.id, what),
      coils: rung.coils.map((ref) => drive(ref, what.toLowerCase(), rung.id, what)).filter((t) => t >= 0),
    }
  })
  const sequences = control.sequences.map((sequence): CompiledSequence => {
    const what = sequence.name || `Sequence ${sequence.id}`
    const step = (id: string) => sequence.steps.findIndex((s) => s.id === id)
    if (sequence.steps.length && !sequence.steps.some((s) => s.initial))
      wrong(
        'no-initial-step',
        `${what} has no initial step: it never begins.`,
        sequence.id,
        'Mark the step with which it begins.',
      )
    return {
      id: sequence.id,
      steps: sequence.steps.map(({ id, initial, actions }) => ({
        id,
        initial,
        actions: actions.flatMap(({ coil, qualifier, time }): CompiledAction[] => {
          const target = drive(coil, what, sequence.id, `${what}, step ${id}`)
          const seconds = actionTime(time)
          const timed = qualifier === 'delayed' || qualifier === 'limited'
          if (timed && !(seconds! > 0))
            wrong(
              'control-time',
              `${what}, step ${id}: ${coilNames.nameOf(coil)} needs a time above 0.`,
              sequence.id,
              'Give a time such as 2 s.',
            )
          return target < 0 ? [] : [{ target, qualifier, time: seconds ?? 0 }]
        }),
      })),
      transitions: sequence.transitions.map((t) => ({
        id: t.id,
        from: t.from.map(step),
        to: t.to.map(step),
        condition: read(t.condition, sequence.id, `${what}, transition ${t.id}`),
      })),
    }
  })
  const requirements = control.requirements.map(({ id, name, never, assumed }) => {
    const what = name || `Requirement ${id}`
    if (!never.trim())
      wrong(
        'control-expression',
        `${what}: say what must never be.`,
        id,
        'Write contacts and coils, or delete it.',
      )
    return { id, name: what, never: read(never, id, what, true), assumed }
  })

  const supplies = devices.flatMap(({ type }, i) => (type.suppliesControl ? [i] : []))
  for (const i of supplies.slice(1))
    wrong('two-supplies', 'A control has one supply.', devices[i].device.id, 'Delete one of the two.')

  const split = (ref: string) => ref.split('.') as [string, string]
  const watching = devices.flatMap(({ type, values, device: { id } }, device) => {
    const ref = type.watched?.(values)
    if (!type.watched) return []
    const [component, signal] = split(ref ?? '-')
    const resolved = sheet.components.find((c) => c.id === component)
    if (!ref || !resolved) {
      wrong(
        'control-watched',
        `${nameOf(devices[device].device)}: say what it watches.`,
        id,
        'Choose something on the sheet.',
      )
      return []
    }
    const watched = signalsOf(sheet, component).find(({ name }) => name === signal)
    if (!watched) {
      wrong(
        'control-watched',
        `${component} has nothing called "${signal}" that can be watched.`,
        id,
        'Choose one of its signals.',
      )
      return []
    }
    return [{ device, component, signal, quantity: watched.quantity }]
  })
  const electric = [...sheetInputs(sheet, 'coil'), ...sheetInputs(sheet, 'signal')]
  const driving = devices.flatMap(({ type, values, device: { id } }, device) => {
    const ref = type.drives?.(values)
    if (!ref) return []
    if (!electric.some((e) => e.ref === ref)) {
      wrong(
        'control-coil',
        `${nameOf(devices[device].device)}: there is nothing electric called "${ref}".`,
        id,
        'Choose a coil or an amplifier of the sheet, or place it again.',
      )
      return []
    }
    claim(ref, nameOf(devices[device].device), id)
    const [component, input] = split(ref)
    return [{ device, component, input, on: onValue(sheet, component, input) }]
  })
  return {
    program: {
      devices,
      sources,
      targets,
      paths,
      sequences,
      requirements,
      supply: supplies[0] ?? -1,
      watching,
      driving,
    },
    findings,
  }
}
