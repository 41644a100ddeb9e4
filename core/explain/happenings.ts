/** What happens in a run, in order and in words: commands, the control, valves that open and shut, motions that begin and end. */
import type { ConditionSpec, Show } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { devicesOf } from '../control/run'
import { nameOf, type Sheet } from '../sheet/schema'
import type { Input } from '../simulate/circuit/input-bank'
import { inputValueText } from '../simulate/event-text'
import type { RunEvent, RunResult } from '../simulate/result'
import type { Moments } from './moment'
import { moversOf, stretchesOf, verbOf, type Mover } from './movers'

export interface Happening {
  /** s */
  readonly at: number
  /** In words, without a full stop: "V2 goes to position a". */
  readonly text: string
  readonly part?: string
  /**
   * A command starts a state of its own; the control acts on what it watches; an effect follows. What only ends a command by itself (a
   * button that is released) starts a state only where something follows.
   */
  readonly kind: 'command' | 'control' | 'effect' | 'release'
  /** A motion that begins or ends, a switch of the machine that changes, or something of the control itself: a relay, a timer, a step. */
  readonly role?: 'motion' | 'switch' | 'control'
  /** s: a command that takes its time ends here. */
  readonly until?: number
  /** Happenings of one key come and go in turn. */
  readonly key: string
}

/** An input that changes more often, or during a greater share of the run, varies all the time. */
const MOST_CHANGES = 24
const MOST_CHANGING = 0.4
/** A change of an input below this share of its range is none. */
const SAME_INPUT = 1e-4
/** s: shorter conditions are an instant and no state. */
const SHORT = 0.1
/** s: conditions that pass sooner are listed with how long they last. */
const PASSING = 0.5
/** A part that comes and goes this often, with gaps below this many seconds, hunts or swings. */
const MOST_TURNS = 6
const SWING_GAP = 1

interface Change {
  /** s, and the samples around it. */
  readonly from: number
  to: number
  readonly before: number
  after: number
  /** Intervals between samples over which it goes. */
  steps: number
}

/** Changes of an input, each a step or one movement from value to value. */
function changesOf(column: Float32Array, times: Float64Array, resolution: number): Change[] {
  const changes: (Change & { sign: number; last: number })[] = []
  for (let i = 0; i + 1 < column.length; i++) {
    const step = column[i + 1] - column[i]
    if (Math.abs(step) < resolution) continue
    const last = changes.at(-1)
    if (last?.last === i && last.sign === Math.sign(step)) {
      last.to = times[i + 1]
      last.after = column[i + 1]
      last.last = i + 1
      last.steps++
    } else
      changes.push({
        from: times[i],
        to: times[i + 1],
        before: column[i],
        after: column[i + 1],
        sign: Math.sign(step),
        last: i + 1,
        steps: 1,
      })
  }
  return changes
}

/** Value of an input in words: its position by name, a share as one. */
function valueText({ spec }: Input, value: number, show: Show): string {
  const position = spec.positions?.find((p) => Math.abs(p.value - value) < 1e-3)
  return position ? position.label : inputValueText(spec, value, show)
}
/** @param seconds that it takes; 0 where it jumps */
function changeText(
  name: string,
  input: Input,
  { before, after }: Change,
  seconds: number,
  show: Show,
): string {
  const { spec, fault } = input
  if (fault) return after === 0 ? `${name} is sound again` : `${name}: ${spec.label}`
  const position = spec.positions?.find((p) => Math.abs(p.value - after) < 1e-3)
  if (position?.action && !seconds) return `${name} ${position.action}`
  const to = valueText(input, after, show)
  return seconds
    ? `the ${spec.label} of ${name} goes from ${valueText(input, before, show)} to ${to} in ${show(seconds, 'time', 2)}`
    : `the ${spec.label} of ${name} goes to ${to}`
}

/** Commands and settings that change. */
function inputHappenings(
  moments: Moments,
  result: RunResult,
  nameIn: (id: string) => string,
  show: Show,
): Happening[] {
  const { times, events } = result
  const devices = new Set(devicesOf(moments.sheet).map(({ id }) => id))
  const inputs = new Map(
    moments.network.inputs.inputs.map((input) => [`${input.component}.${input.spec.name}`, input]),
  )
  return result.signals.flatMap((signal, index): Happening[] => {
    const input = inputs.get(signal.id)
    if (signal.role !== 'input' || !input) return []
    const range = Math.min(1e9, input.spec.max - input.spec.min) || 1
    const { min, max } = result.extremes[index]
    const resolution = SAME_INPUT * Math.min(range, max - min || range)
    const changes = changesOf(result.columns[index], times, resolution)
    const changing = changes.reduce((sum, { from, to }) => sum + to - from, 0)
    if (changes.length > MOST_CHANGES || changing > MOST_CHANGING * result.duration) return []
    return changes.map((change): Happening => {
      const event = events.find(
        (e) =>
          e.component === input.component &&
          e.change?.input === input.spec.name &&
          e.at >= change.from - 1e-9 &&
          e.at <= change.to + 1e-9,
      )
      const jumps = change.steps === 1
      const at = jumps ? (event?.at ?? change.to) : change.from
      const isRelease = input.spec.momentary && change.after === input.rest && devices.has(input.component)
      return {
        at,
        text: changeText(nameIn(input.component), input, change, jumps ? 0 : change.to - change.from, show),
        part: input.component,
        ...(jumps ? {} : { until: change.to }),
        kind: event?.source === 'control' ? 'control' : isRelease ? 'release' : 'command',
        key: `${input.component}.${input.spec.name}`,
      }
    })
  })
}

/** What the control reports of itself: relays, timers, steps. */
const controlHappenings = ({ events }: RunResult, nameIn: (id: string) => string): Happening[] =>
  events.flatMap(({ at, source, component, what, change }: RunEvent): Happening[] =>
    source === 'control' && !change
      ? [
          {
            at,
            text: component === undefined ? what : `${nameIn(component)} ${what}`,
            part: component,
            kind: 'control',
            role: 'control',
            key: `${component} acts`,
          },
        ]
      : [],
  )

/** Parameters that were changed in flight. */
const parameterHappenings = (
  sheet: Sheet,
  { actions }: RunResult,
  nameIn: (id: string) => string,
): Happening[] =>
  actions.flatMap((action): Happening[] => {
    if (action.kind !== 'parameter') return []
    const component = sheet.components.find(({ id }) => id === action.component)
    const label = component && findKind(component.kind)?.parameters[action.target]?.label
    return [
      {
        at: action.at,
        text: `${nameIn(action.component)}: ${label?.toLowerCase() ?? action.target} is changed to ${action.value}`,
        part: action.component,
        kind: 'command',
        key: `${action.component}.${action.target}`,
      },
    ]
  })

/** Valves that open and shut, switches, stores that run empty: conditions of no harm that last a while. */
function conditionHappenings(
  moments: Moments,
  { conditions, duration }: RunResult,
  nameIn: (id: string) => string,
  show: Show,
): Happening[] {
  return conditions.flatMap(({ name, label, severity, component, start, end }): Happening[] => {
    if (severity !== 'info' || component === undefined) return []
    const who = nameIn(component)
    const element = moments.element(component)
    const spec: ConditionSpec | undefined = element?.model.conditions?.find((c) => c.name === name)
    // an event of the circuit, such as a contact
    if (!spec || end - start < SHORT) return []
    const own = {
      part: component,
      kind: 'effect',
      key: `${component} ${name}`,
      ...(element?.resolved?.kind.traits?.isOn ? { role: 'switch' as const } : {}),
    } as const
    const begins = { ...own, at: start, text: `${who}${spec.begins ? ` ${spec.begins}` : `: ${label}`}` }
    if (start > 0 && end < duration && end - start < PASSING)
      return [{ ...begins, text: `${begins.text} (${show(end - start, 'time', 2)})` }]
    const ends = { ...own, at: end, text: `${who}${spec.ends ? ` ${spec.ends}` : `: no longer ${label}`}` }
    return [...(start > 0 ? [begins] : []), ...(end < duration ? [ends] : [])]
  })
}

/** Ends of travel and other instants that a kind reports and that no condition shows. */
function eventHappenings(
  moments: Moments,
  { events, conditions }: RunResult,
  nameIn: (id: string) => string,
): Happening[] {
  return events.flatMap(({ at, source, component, what }): Happening[] => {
    if (source !== 'circuit' || component === undefined || what.endsWith(', ended')) return []
    const known = conditions.some(
      (c) =>
        c.component === component &&
        c.severity === 'info' &&
        c.end - c.start >= SHORT &&
        Math.abs(c.start - at) < 0.02,
    )
    const spec = moments.element(component)?.model.eventFunctions?.find((e) => e.label === what)
    return known
      ? []
      : [
          {
            at,
            text: `${nameIn(component)} ${spec?.begins ?? what}`,
            part: component,
            kind: 'effect',
            key: `${component} ${what}`,
          },
        ]
  })
}

/** Motions that begin, turn round and end. A stop that a part reports by itself is left to it. */
function motionHappenings(
  movers: readonly Mover[],
  result: RunResult,
  reported: readonly Happening[],
): Happening[] {
  return movers.flatMap((mover) =>
    stretchesOf(mover, result, SHORT / 2)
      .slice(1)
      .flatMap(({ from, direction }): Happening[] => {
        const at = result.times[from]
        const atStop =
          direction === 0 &&
          reported.some((h) => mover.driven.includes(h.part ?? '') && Math.abs(h.at - at) < 2 * SHORT)
        if (atStop) return []
        return [
          {
            at,
            text: `${mover.name} ${direction === 0 ? 'stops' : verbOf(mover, direction)}`,
            part: mover.component,
            kind: 'effect',
            role: 'motion',
            key: `${mover.component} moves`,
          },
        ]
      }),
  )
}

/** What comes and goes by itself many times in short succession is listed once. */
function withoutSwings(happenings: readonly Happening[], show: Show): Happening[] {
  const byKey = new Map<string, Happening[]>()
  const commands = happenings.filter((h) => h.kind !== 'effect').map((h) => h.at)
  const isCommanded = (from: number, to: number) => commands.some((at) => at > from && at <= to)
  for (const h of happenings) if (h.kind === 'effect') byKey.set(h.key, [...(byKey.get(h.key) ?? []), h])
  const dropped = new Set<Happening>()
  const added: Happening[] = []
  for (const ofOne of byKey.values()) {
    let burst: Happening[] = []
    const finish = () => {
      if (burst.length >= MOST_TURNS) {
        for (const h of burst) dropped.add(h)
        const [first] = burst
        const other = burst[1]
        added.push({
          ...first,
          text: `${first.text}, ${withoutName(other.text)}, and so on ${Math.round(burst.length / 2)} times until ${show(burst.at(-1)!.at, 'time', 3)}: it hunts`,
        })
      }
      burst = []
    }
    for (const h of ofOne) {
      const before = burst.at(-1)?.at
      if (before !== undefined && (h.at - before > SWING_GAP || isCommanded(before, h.at))) finish()
      burst.push(h)
    }
    finish()
  }
  return [...happenings.filter((h) => !dropped.has(h)), ...added]
}
const withoutName = (text: string) => text.slice(text.indexOf(' ') + 1)

/** Of one instant a command comes first, then what the control makes of it, then what follows. */
const RANK: Readonly<Record<Happening['kind'], number>> = { command: 0, release: 0, control: 1, effect: 2 }
const inOrder = (a: Happening, b: Happening) => a.at - b.at || RANK[a.kind] - RANK[b.kind]

/** Everything that happens in a run, in order. @param moments of the same run */
export function happeningsOf(moments: Moments, result: RunResult, show: Show): Happening[] {
  const { sheet } = moments
  const named = new Map([...sheet.components, ...devicesOf(sheet)].map((part) => [part.id, nameOf(part)]))
  const nameIn = (id: string) => named.get(id) ?? id
  const reported = eventHappenings(moments, result, nameIn)
  const all = [
    ...controlHappenings(result, nameIn),
    ...inputHappenings(moments, result, nameIn, show),
    ...parameterHappenings(sheet, result, nameIn),
    ...conditionHappenings(moments, result, nameIn, show),
    ...reported,
    ...motionHappenings(moversOf(sheet, result), result, reported),
  ].sort(inOrder)
  return withoutSwings(all, show).sort(inOrder)
}
