/** From a sheet to a network that can be solved, or the findings that keep it from it. */
import { checkDesign, refusingRules, rules } from '../check'
import { commandableOf, MOST_SIGNALS, type FaultSpec, type InputSpec, type Show } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'
import { buildNetlist, portKey, type Netlist } from '../sheet/netlist'
import { Fluid } from '../fluid/fluid'
import { speedClasses } from '../sheet/line-speeds'
import { resolveFluid, resolveLineSpeeds, resolveTank } from '../sheet/resolve'
import { nameOf } from '../sheet/schema'
import type { Schedule, Sheet } from '../sheet/schema'
import { parseQuantity, showIn } from '../units/text'
import type { Action } from './actions'
import { BURST_INPUT } from './circuit/bursting'
import type { CircuitDefinition } from './circuit/definition'
import type { ControlDefinition } from './control-interface'
import type { Input } from './circuit/input-bank'
import { inputSignal } from './circuit/input-signal'
import { readAction } from './recorded-actions'

export interface RunSettings {
  /** s */
  readonly duration: number
  /** s between recorded samples. */
  readonly every: number
  readonly tolerance: number
  /** Whether it starts from the rest that the commands at 0 s lead to. */
  readonly steadyState: boolean
  /** s; Infinity where nothing is said. */
  readonly longestStep: number
}
/** What a simulation is made from. It is never changed: any number of simulations may be made from one. */
export interface Compiled extends CircuitDefinition {
  readonly schedule: Schedule
  /** What the schedule has done by hand, in order. */
  readonly actions: readonly Action[]
  readonly settings: RunSettings
}

const MOST_SAMPLES = 200_000
/** A larger recording could not be saved, bytes. */
const LARGEST_RECORDING = 200e6
const BYTES_PER_SAMPLE = 4
/** A pressure at the start may lie between a near void and far above any rating, Pa gauge. */
const INITIAL_PRESSURE = { min: -1e5, max: 2000e5 }

const metric: Show = showIn('metric')

/**
 * All that is wrong with a sheet and one of its schedules. @param show writes the values in what is said
 * @param control of the sheet, where it has one
 */
export const check = (
  sheet: Sheet,
  scheduleId?: string,
  show: Show = metric,
  control?: ControlDefinition,
): Finding[] => read(sheet, show, scheduleId, control, rules).findings

/**
 * Checks and compiles a sheet with one of its schedules.
 * `compiled` is there only where no finding is an error. All findings are looked for when they are asked for: a run needs to know only of
 * those that keep it from being.
 * @param options what can be done by hand, and the control of the sheet
 */
export function compile(
  sheet: Sheet,
  scheduleId?: string,
  options: Pick<CircuitDefinition, 'burstable' | 'control'> = {},
): { readonly compiled?: Compiled; readonly findings: Finding[] } {
  const { compiled } = read(sheet, metric, scheduleId, options.control, refusingRules)
  let findings: Finding[] | undefined
  return {
    compiled: compiled && { ...compiled, ...options },
    get findings() {
      return (findings ??= check(sheet, scheduleId, metric, options.control))
    },
  }
}

function read(
  sheet: Sheet,
  show: Show,
  scheduleId: string | undefined,
  control: ControlDefinition | undefined,
  which: Parameters<typeof checkDesign>[1],
): { compiled?: Compiled; findings: Finding[] } {
  const { netlist, problems } = buildNetlist(sheet)
  const fluid = resolveFluid(sheet.fluid)
  const tank = resolveTank(sheet.tank)
  const lineSpeeds = resolveLineSpeeds(sheet.lineSpeeds)
  const findings = [
    ...problems,
    ...fluid.problems,
    ...tank.problems,
    ...lineSpeeds.problems,
    ...checkDesign({ sheet, netlist, show }, which),
    ...(control?.findings ?? []),
  ]
  if (!sheet.components.length)
    findings.push({
      rule: 'empty',
      severity: 'error',
      message: 'There is nothing on the sheet yet.',
      remedy: 'Start at the tank: reservoir, pump, motor, relief valve, then the valve and its actuator.',
      location: {},
    })
  const schedule = scheduleId ? sheet.schedules.find((s) => s.id === scheduleId) : sheet.schedules[0]
  if (!schedule) {
    findings.push({
      rule: 'schedule',
      severity: 'error',
      message: scheduleId ? `The sheet has no schedule "${scheduleId}".` : 'The sheet has no schedule.',
      location: {},
    })
    return { findings }
  }
  const settings = readSettings(schedule, findings)
  const inputs = readInputs(netlist, schedule, findings, control)
  const actions = readActions(sheet, schedule, findings, control)
  const initialPressure = readInitialPressures(sheet, netlist, findings)
  if (findings.some((f) => f.severity === 'error')) return { findings }
  const recording = recordingSize(netlist, new Fluid(fluid.data), settings)
  if (recording > LARGEST_RECORDING) {
    findings.push({
      rule: 'schedule',
      severity: 'error',
      message: `Schedule ${schedule.name} would record ${Math.round(recording / 1e6)} MB; a run can have ${LARGEST_RECORDING / 1e6} MB.`,
      remedy: 'Take a longer sample interval: extremes are found on every step all the same.',
      location: { schedule: schedule.id },
    })
    return { findings }
  }
  return {
    findings,
    compiled: {
      schedule,
      actions,
      burstable: actions.some((a) => a.kind === 'set' && a.target === BURST_INPUT.name),
      netlist,
      fluid: fluid.data,
      inputs,
      initialPressure,
      settings,
      tank: tank.data,
      speedClasses: speedClasses(sheet, netlist),
      lineSpeeds: lineSpeeds.data,
      onBurst: schedule.onBurst,
      control,
    },
  }
}

/** Bytes that the samples of a run take; at the most so many where that is little. */
function recordingSize(netlist: Netlist, fluid: Fluid, { duration, every }: RunSettings): number {
  const sizeOf = (signals: number) => (duration / every + 1) * signals * BYTES_PER_SAMPLE
  const most = sizeOf(netlist.components.length * MOST_SIGNALS + netlist.nodes.length)
  if (most <= LARGEST_RECORDING) return most
  const signals = netlist.components.reduce((sum, { kind, values }) => {
    const { states = [], outputs = [], modes = [] } = kind.model(values, fluid)
    return (
      sum + kind.ports.length + (kind.inputs?.length ?? 0) + states.length + outputs.length + modes.length
    )
  }, netlist.nodes.length)
  return sizeOf(signals)
}

function readSettings(schedule: Schedule, findings: Finding[]): RunSettings {
  const names = { duration: 'duration', every: 'sample interval', longestStep: 'longest step' }
  const read = (name: keyof typeof names, max: number) => {
    const parsed = parseQuantity(schedule[name]!, 'time')
    const message = !parsed.ok
      ? parsed.message
      : parsed.si <= 0 || parsed.si > max
        ? `${schedule[name]} is outside what is possible here: more than 0 s, up to ${max} s.`
        : undefined
    if (message)
      findings.push({
        rule: 'schedule',
        severity: 'error',
        message: `Schedule ${schedule.name}, ${names[name]}: ${message}`,
        location: { schedule: schedule.id },
      })
    return parsed.ok ? parsed.si : Number.NaN
  }
  const settings = {
    duration: read('duration', 86400),
    every: read('every', 3600),
    tolerance: schedule.tolerance,
    steadyState: schedule.start === 'steadyState',
    longestStep: schedule.longestStep === undefined ? Infinity : read('longestStep', 3600),
  }
  if (settings.duration / settings.every > MOST_SAMPLES)
    findings.push({
      rule: 'schedule',
      severity: 'error',
      message: `Schedule ${schedule.name} would record more than ${MOST_SAMPLES} samples.`,
      remedy: 'Take a longer sample interval.',
      location: { schedule: schedule.id },
    })
  return settings
}

function readActions(
  sheet: Sheet,
  schedule: Schedule,
  findings: Finding[],
  control: ControlDefinition | undefined,
): Action[] {
  const actions = schedule.actions.flatMap((recorded): Action[] => {
    const read = readAction(sheet, recorded, control?.devices)
    if ('value' in read) return [read.value]
    findings.push({
      rule: 'schedule',
      severity: 'error',
      message: `Schedule ${schedule.name}, what is done at ${recorded.at}: ${read.message}`,
      location: { schedule: schedule.id },
    })
    return []
  })
  return actions.sort((a, b) => a.at - b.at)
}

function readInputs(
  netlist: Netlist,
  schedule: Schedule,
  findings: Finding[],
  control: ControlDefinition | undefined,
): Input[] {
  const place = (component: string) => ({ component, schedule: schedule.id })
  const add = (message: string, component: string) =>
    findings.push({ rule: 'schedule', severity: 'error', message, location: place(component) })
  const specs = new Map<string, InputSpec | FaultSpec>()
  for (const { component, kind } of netlist.components)
    for (const spec of commandableOf(kind)) specs.set(portKey(component.id, spec.name), spec)
  const devices = new Set(control?.devices.map((d) => d.id))
  for (const { id, inputs, faults } of control?.devices ?? [])
    for (const spec of [...inputs, ...faults]) specs.set(portKey(id, spec.name), spec)
  const tracks = new Map<string, (typeof schedule.tracks)[number]>()
  for (const track of schedule.tracks) {
    const key = portKey(track.component, track.input)
    const component = netlist.components.find((c) => c.component.id === track.component)
    if (tracks.has(key)) add(`Schedule ${schedule.name} commands ${key} twice.`, track.component)
    else if (component && !specs.has(key))
      add(`${component.kind.label} ${track.component} has no input "${track.input}".`, track.component)
    else if (!component && !(devices.has(track.component) && specs.has(key)))
      findings.push({
        rule: 'schedule',
        severity: 'error',
        message: `Schedule ${schedule.name} commands ${track.component}, which is not on the sheet or not complete.`,
        location: { schedule: schedule.id },
      })
    else if (component?.kind.idleFaults?.(component.values).includes(track.input))
      findings.push({
        rule: 'schedule',
        severity: 'error',
        message: `Schedule ${schedule.name} sets "${specs.get(key)!.label}" of ${nameOf(component.component)}, which has no such thing as it is set.`,
        remedy: 'Take it out of the schedule, or give the component what shall fail.',
        location: place(track.component),
      })
    else if (component?.kind.idleInputs?.(component.values).includes(track.input))
      findings.push({
        rule: 'schedule',
        severity: 'warning',
        message: `Schedule ${schedule.name} commands "${specs.get(key)!.label}" of ${nameOf(component.component)}, which has no such thing as it is set: nothing follows it.`,
        location: place(track.component),
      })
    tracks.set(key, track)
  }
  const read = (
    id: string,
    spec: InputSpec | FaultSpec,
    fault: boolean,
    values: Readonly<Record<string, unknown>> = {},
  ): Input => {
    const parameter = 'rest' in spec && typeof spec.rest === 'string' ? spec.rest : undefined
    const rest = parameter ? (values[parameter] as number) : 'rest' in spec ? (spec.rest as number) : 0
    const { signal, problems } = inputSignal(tracks.get(portKey(id, spec.name)), spec, rest, schedule.id)
    findings.push(...problems)
    return { component: id, spec, signal, rest, fault, ...(parameter ? { restParameter: parameter } : {}) }
  }
  return [
    ...netlist.components.flatMap(({ component, kind, values }) => [
      ...(kind.inputs ?? []).map((spec) => read(component.id, spec, false, values)),
      ...(kind.faults ?? []).map((spec) => read(component.id, spec, true, values)),
    ]),
    ...(control?.devices ?? []).flatMap(({ id, inputs, faults }) => [
      ...inputs.map((spec) => read(id, spec, false)),
      ...faults.map((spec) => read(id, spec, true)),
    ]),
  ]
}

function readInitialPressures(sheet: Sheet, netlist: Netlist, findings: Finding[]): Map<number, number> {
  const result = new Map<number, number>()
  for (const [key, text] of Object.entries(sheet.initialPressures)) {
    const add = (message: string) =>
      findings.push({
        rule: 'initial-pressure',
        severity: 'error',
        message: `Initial pressure at ${key}: ${message}`,
        location: { component: key.split('.')[0], port: key.split('.')[1] },
      })
    const node = netlist.nodeOf.get(key)
    const parsed = parseQuantity(text, 'pressure')
    if (!parsed.ok) add(parsed.message)
    else if (parsed.si < INITIAL_PRESSURE.min || parsed.si > INITIAL_PRESSURE.max)
      add(`${text} is outside what is possible here.`)
    else if (node === undefined || netlist.nodes[node].domain !== 'oil') add('there is no such oil port.')
    else if (result.has(node) && result.get(node) !== parsed.si)
      add('another port of the same line starts at another pressure.')
    else result.set(node, parsed.si)
  }
  return result
}
