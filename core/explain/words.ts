/** Answers as sentences: one for each fact, made from templates over what was computed. */
import type { Show } from '../catalogue/kind'
import { nameOf, type Sheet } from '../sheet/schema'
import type { ShutIn } from './answer'
import type { OilPath, PathEnd, StandingBy } from './oil-path'
import type { Addend, Stack } from './stack'

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
    case 'load':
      return `The load on ${name} sets it.`
    case 'valve': {
      const setting = addends.find((a) => a.part === part && a.role === 'setting')
      return `${name} sets it${setting ? `, at its setting of ${show(setting.value, 'pressure')}` : ''}.`
    }
    case 'pumpControl':
      return `The control of the pump ${name} sets it.`
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
