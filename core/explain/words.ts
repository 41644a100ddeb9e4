/** Answers as sentences: one for each fact, made from templates over what was computed. */
import type { Show } from '../catalogue/kind'
import { nameOf, type Sheet } from '../sheet/schema'
import type { Quantity } from '../units/quantities'
import type { ShutIn } from './answer'
import type { OilPath, PathEnd, StandingBy } from './oil-path'
import { VOID, type Addend, type Stack } from './stack'

/** Designation of a component, or the name of a pipe. */
export function partName(sheet: Sheet, part: string): string {
  const component = sheet.components.find((c) => c.id === part)
  if (component) return nameOf(component)
  const pipe = sheet.pipes.find((p) => p.id === part)
  return pipe ? (pipe.name ?? `pipe ${pipe.id}`) : part
}

/** An addend in words: "1-0V1 setting", "1-1V1 A to T". */
export function addendName(sheet: Sheet, { part, label, role }: Addend): string {
  if (role === 'tank') return part === undefined ? 'tank' : `tank ${partName(sheet, part)}`
  if (role === 'trapped') return 'oil shut in'
  if (part === undefined) return label
  if (role === 'pipe') return partName(sheet, part)
  return `${partName(sheet, part)} ${label}`
}

/** A dynamic share above this makes a steady answer misleading. */
const DYNAMIC = 0.1

/** Share of a setting from which on the sentence adds what the flow needs beside it. */
const WORTH_TELLING = 0.03
/** Share of a pressure from which on the sentence names what changes its speed, not the load. */
const MOSTLY = 0.5
/** What fixes a pressure, as a sentence. */
export function fixedByText(
  sheet: Sheet,
  { fixedBy, pressure, addends }: Stack,
  show: Show,
  shutIn?: ShutIn,
): string {
  const { kind, part } = fixedBy
  const name = part === undefined ? '' : partName(sheet, part)
  switch (kind) {
    case 'load': {
      const inertia = addends
        .filter((a) => a.part === part && a.role === 'acceleration')
        .reduce((sum, { value }) => sum + value, 0)
      return inertia > MOSTLY * pressure
        ? `The inertia of what ${name} moves sets it: its speed is changing.`
        : `The load on ${name} sets it.`
    }
    case 'valve': {
      if (addends.some((a) => a.part === part && a.role === 'pilot'))
        return `${name} sets it: its pilot needs as much to hold it open.`
      const setting = addends.findIndex((a) => a.part === part && a.role === 'setting')
      if (setting < 0) return `${name} sets it.`
      // addends go from what fixes the pressure: what its flow needs more or less stands before the setting
      const { value } = addends[setting]
      const more = addends[setting - 1]
      const rest = more?.part === part && Math.abs(more.value) > WORTH_TELLING * value ? more.value : 0
      const flow = rest
        ? ` ${rest < 0 ? 'less' : 'and'} ${show(Math.abs(rest), 'pressure', 3)} at this flow`
        : ''
      return `${name} sets it, at its setting of ${show(value, 'pressure')}${flow}.`
    }
    case 'pumpControl': {
      const setting = addends.find((a) => a.part === part && a.role === 'setting')
      return setting
        ? `The control of the pump ${name} sets it: ${setting.label} ${show(setting.value, 'pressure', 3)}.`
        : `The control of the pump ${name} sets it.`
    }
    case 'gas':
      return `The gas in ${name} sets it.`
    case 'spring':
    case 'weight':
      return `The ${kind} of ${name} sets it.`
    case 'source':
      return `${name} holds it.`
    case 'restriction':
      return `${name} sets it: it throttles what flows to tank.`
    case 'trapped': {
      const since = shutIn ? ` since ${show(shutIn.since, 'time')}` : ''
      const by = shutIn?.by === undefined ? '' : ` by ${partName(sheet, shutIn.by)}`
      return `Oil is shut in here${since}${by}.`
    }
    case 'void':
      // further on, where the walk from here ends
      if (pressure > VOID) return 'The oil fills a void further on: the pressure is what the way to it takes.'
      return 'There is a void here: the pressure is below 0.3 bar absolute, and nothing sets it.'
    case 'tank':
      return `It is the pressure of the tank.`
    case 'returnLine':
      return pressure < 0
        ? `It is a line from the tank${name ? ` ${name}` : ''}: what its parts take at this flow.`
        : `It is a line to the tank${name ? ` ${name}` : ''}: what its parts take at this flow.`
  }
}

/** What must be known beside the sum. */
export function cautions({ dynamicShare, fixedBy }: Stack, hunting: boolean): string[] {
  return [
    ...(dynamicShare > DYNAMIC && fixedBy.kind !== 'void'
      ? ['Much of it speeds something up or slows it down: it will not stay so.']
      : []),
    ...(hunting ? ['The circuit hunts: the values of an instant say little.'] : []),
  ]
}

const endNames: Readonly<Record<PathEnd['kind'], string>> = {
  tank: 'the tank',
  chamber: 'the chamber of',
  store: 'the store',
  line: 'a line that takes it up',
  loop: 'this line again: it goes round',
  source: 'the source',
}
/** Ends with their shares; symbols of one tank count as one. */
function endsText(sheet: Sheet, ends: readonly PathEnd[]): string {
  const shares = new Map<string, number>()
  for (const { part, kind, share } of ends) {
    const name = `${endNames[kind]}${part === undefined ? '' : ` ${partName(sheet, part)}`}`
    shares.set(name, share + (shares.get(name) ?? 0))
  }
  return [...shares]
    .sort(([, a], [, b]) => b - a)
    .slice(0, 4)
    .map(([name, share]) => `${name}${share < 0.995 ? ` (${Math.round(100 * share)} %)` : ''}`)
    .join(', ')
}

/** Where the oil comes from and goes, in sentences. */
export function pathText(sheet: Sheet, path: OilPath, show: Show): string[] {
  if (path.flow < 1e-8) return ['Nothing flows here.']
  const moved = [...new Set(path.down.filter((s) => s.pushes).map((s) => s.part))]
  return [
    `${show(path.flow, 'flow')} flow through it.`,
    ...(path.sources.length ? [`The oil comes from ${endsText(sheet, path.sources)}.`] : []),
    ...(moved.length ? [`On its way it moves ${moved.map((m) => partName(sheet, m)).join(', ')}.`] : []),
    ...(path.ends.length ? [`It ends in ${endsText(sheet, path.ends)}.`] : []),
  ]
}

/** Valves that stand by, in sentences: one for each valve, with the lowest pressure behind it. */
export function standingText(sheet: Sheet, standing: readonly StandingBy[], show: Show): string[] {
  const byPart = new Map<string, StandingBy>()
  for (const one of standing) {
    const known = byPart.get(one.part)
    if (!known || Math.abs(one.before - one.behind) > Math.abs(known.before - known.behind))
      byPart.set(one.part, one)
  }
  return [...byPart.values()].map(
    ({ part, from, to, before, behind }) =>
      `${partName(sheet, part)} is shut: ${show(before, 'pressure')} at ${from}, ${show(behind, 'pressure')} at ${to}.`,
  )
}

/** Smaller addends are not listed, Pa. */
const SMALL = 2e3
/** The addends worth listing; what is left out is added up in one of its own, where it is worth listing too. */
export function listedAddends({ addends, line }: Stack): Addend[] {
  const listed = addends.filter((a, i) => i === 0 || Math.abs(a.value) >= SMALL)
  const rest = addends.reduce((sum, a) => (listed.includes(a) ? sum : sum + a.value), 0)
  return Math.abs(rest) < SMALL ? listed : [...listed, { label: 'small parts together', value: rest, line }]
}

/** Begins with a small letter where a word, not a designation, comes first. */
export const lowerFirst = (text: string): string =>
  /^[A-Z][a-z]/.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text

/** A clause as a sentence of its own. */
export const sentence = (clause: string): string =>
  `${clause.charAt(0).toUpperCase()}${clause.slice(1)}${clause.endsWith('.') ? '' : '.'}`

/** Smaller values are 0 to a reader, SI. */
const NOISE: Readonly<Partial<Record<Quantity, number>>> = {
  pressure: 2e3,
  flow: 1e-8,
  length: 1e-4,
  speed: 1e-5,
  angle: 1e-5,
  force: 1,
  torque: 1e-2,
  power: 0.1,
}
/** Shows values with three digits, and as 0 what no instrument would show. */
export const withoutNoise =
  (show: Show): Show =>
  (si, quantity, digits = 3) =>
    show(Math.abs(si) < (NOISE[quantity] ?? 0) ? 0 : si, quantity, Math.min(3, digits))

/** An instant of a run, to a hundredth of a second. */
export const instantText = (t: number, show: Show): string => show(Math.round(100 * t) / 100, 'time', 5)

/** What fixes a pressure, in a word or two: "1-0V1 at its setting", "load on 1-1A1". */
export function fixedByShort(sheet: Sheet, { kind, part }: Stack['fixedBy']): string {
  const name = part === undefined ? '' : partName(sheet, part)
  switch (kind) {
    case 'load':
      return `load on ${name}`
    case 'valve':
      return name
    case 'pumpControl':
      return `control of ${name}`
    case 'gas':
    case 'spring':
    case 'weight':
      return `${kind} of ${name}`
    case 'source':
      return name
    case 'restriction':
      return `${name} throttles`
    case 'trapped':
      return 'shut in'
    case 'void':
      return 'void'
    case 'tank':
      return 'tank'
    case 'returnLine':
      return 'line to the tank'
  }
}
