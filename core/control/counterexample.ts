/** An order of events as words, and as a run of the logic alone that the tape can show. */
import { resolveComponent } from '../sheet/resolve'
import { nameOf, type Sheet } from '../sheet/schema'
import type { RunEvent, RunResult, Signal } from '../simulate/result'
import { replayEvents, type ProofEvent } from './explore'
import { Logic, type LogicState } from './logic'
import { readControl } from './program'
import { resolveDevice } from './terminals'

/** s between the events, and after the last. */
const AFTER = 1

export function eventWords(sheet: Sheet, event: ProofEvent): string {
  const device = (id: string) => sheet.control.devices.find((d) => d.id === id)
  const named = (id: string) => {
    const found = device(id) ?? sheet.components.find((c) => c.id === id)
    const label = found && 'label' in found && found.label ? ` (${found.label})` : ''
    return `${found ? nameOf(found) : id}${label}`
  }
  switch (event.kind) {
    case 'switch':
      return `${named(event.component)} goes ${event.on ? 'on' : 'off'}`
    case 'change':
      return event.device.includes(' and ') ? `${event.device} change` : `${named(event.device)} changes`
    case 'input': {
      const found = device(event.device)
      const { resolved } = found ? resolveDevice(found) : {}
      const spec = [
        ...(resolved?.type.inputs?.(resolved.values) ?? []),
        ...(resolved?.type.faults ?? []),
      ].find((i: { name: string }) => i.name === event.input)
      const position = spec?.positions?.find((p: { value: number }) => p.value === event.value)
      return `${named(event.device)}: ${position?.label ?? event.value}`
    }
  }
}

function inputLabel(sheet: Sheet, id: string, input: string): string {
  const component = sheet.components.find((c) => c.id === id)
  const { resolved } = component ? resolveComponent(component) : {}
  return resolved?.kind.inputs?.find((i: { name: string }) => i.name === input)?.label ?? input
}

/** Plays an order of events with the times of relays and timers: a run without oil. */
export function playCounterexample(sheet: Sheet, events: readonly ProofEvent[]): RunResult {
  const { program } = readControl(sheet)
  const logic = new Logic(program)
  const devices = logic.runDevices()
  const switches = [...program.sources.values()].flatMap((s) => (s.from === 'switch' ? [s.component] : []))
  const coils = program.targets.flatMap((t, i) => ('component' in t ? [{ ...t, index: i }] : []))
  const operators = devices.flatMap(({ id, inputs }) => inputs.map((spec) => ({ id, spec })))
  const signals: Signal[] = [
    ...operators.map(({ id, spec }): Signal => ({
      id: `${id}.${spec.name}`,
      label: spec.label,
      quantity: spec.quantity,
      role: 'input',
      component: id,
    })),
    ...switches.map((id): Signal => ({
      id: `${id}.on`,
      label: 'on',
      quantity: 'ratio',
      role: 'output',
      component: id,
    })),
    ...coils.map((t): Signal => ({
      id: t.ref,
      label: inputLabel(sheet, t.component, t.input),
      quantity: 'ratio',
      role: 'input',
      component: t.component,
    })),
    ...devices.flatMap(({ id, outputs }) =>
      outputs.map((o): Signal => ({
        id: `${id}.${o.name}`,
        label: o.label,
        quantity: o.quantity,
        role: 'output',
        component: id,
      })),
    ),
  ]
  const times: number[] = []
  const rows: number[][] = []
  const listed: RunEvent[] = []
  const row = (
    state: LogicState,
    around: { on: ReadonlySet<string>; inputs: ReadonlyMap<string, number> },
  ) => [
    ...operators.map(({ id, spec }) => around.inputs.get(`${id}.${spec.name}`) ?? 0),
    ...switches.map((id) => Number(around.on.has(id))),
    ...coils.map(({ index }) => Number(state.currents[index])),
    ...logic.outputValues(state),
  ]
  const keep = (t: number, values: number[]) => {
    // what was before holds up to here
    if (rows.length && t > times[times.length - 1]) {
      times.push(t)
      rows.push(rows[rows.length - 1])
    }
    times.push(t)
    rows.push(values)
  }
  let end = 0
  replayEvents(logic, events, false, (state, around, t) => {
    keep(t, row(state, around))
    end = t
  })
  keep(end + AFTER, rows[rows.length - 1])
  for (const event of events) listed.push({ at: 0, source: 'control', what: eventWords(sheet, event) })
  const columns = signals.map((_, i) => Float32Array.from(rows, (values) => values[i]))
  const extremes = columns.map((column) => {
    const min = Math.min(...column)
    const max = Math.max(...column)
    return {
      min,
      minAt: times[column.indexOf(min)],
      max,
      maxAt: times[column.indexOf(max)],
      end: column[column.length - 1],
    }
  })
  const nothing = { input: 0, useful: 0, heat: 0, stored: 0, error: 0, heatBy: [], missing: [] }
  return {
    schedule: sheet.schedules[0]?.id ?? '',
    duration: end + AFTER,
    finished: true,
    warnings: ['This is a run of the logic alone: there is no oil in it.'],
    times: Float64Array.from(times),
    signals,
    columns,
    extremes,
    conditions: [],
    events: listed,
    actions: [],
    energy: nothing,
    oil: { supplied: 0, stored: 0, error: 0 },
    lineLoads: [],
    statistics: {
      steps: 0,
      rejected: 0,
      evaluations: 0,
      jacobians: 0,
      factorisations: 0,
      events: events.length,
    },
    lines: [],
    lineOfPort: {},
    lineOfPipe: {},
  }
}
