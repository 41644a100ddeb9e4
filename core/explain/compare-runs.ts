/**
 * Two runs compared by their answers: order and times of motions, speeds, pressures and what sets them, forces, energy and heat by
 * component. Components are matched by designation, so that variants can be compared.
 */
import { findKind } from '../catalogue'
import type { Show } from '../catalogue/kind'
import { nameOf, type Sheet } from '../sheet/schema'
import { dutyOf } from '../simulate/duty'
import { signalMap } from '../simulate/playback'
import type { RunResult } from '../simulate/result'
import type { Quantity } from '../units/quantities'
import { answerPressure } from './answer'
import { energyOf, totalOf, type EnergyShare } from './energy'
import { measuringPlaces } from './measuring-places'
import type { Moments } from './moment'
import { motionsOf } from './motions'
import { moversOf, verbOf } from './movers'
import { fixedByShort, partName } from './words'

/** A run with the circuit that it is of. */
export interface ComparedRun {
  readonly sheet: Sheet
  readonly result: RunResult
  readonly moments: Moments
}
export type ComparisonGroup = 'order' | 'motions' | 'pressures' | 'forces' | 'duty' | 'energy' | 'heat'
export interface ComparisonRow {
  readonly group: ComparisonGroup
  readonly label: string
  /** As read, first and second run; "–" where a run has none. */
  readonly first: string
  readonly second: string
  /** Second less first as read; empty for words. */
  readonly difference: string
  readonly differs: boolean
  /** Where in either run it is, s. */
  readonly at?: readonly [first: number | undefined, second: number | undefined]
}

/** Values that agree to this share do not differ. */
const SAME = 0.02
/** Share of a motion at which its pressures are compared. */
const WITHIN = 0.7
const NONE = '–'
/** Share of what is put in below which energies do not differ, and heat is not compared. */
const LEAST_SHARE = 0.005

interface MotionFact {
  readonly key: string
  readonly label: string
  readonly start: number
  readonly end: number
  readonly speed: number
  readonly quantity: Quantity
}

export function compareRuns(first: ComparedRun, second: ComparedRun, show: Show): ComparisonRow[] {
  const motions = [factsOf(first), factsOf(second)] as const
  return [
    orderRow(motions),
    ...motionRows(motions, show),
    ...pressureRows(first, second, motions, show),
    ...forceRows(first, second, show),
    ...dutyRows(first, second, show),
    ...energyRows(first, second, show),
  ]
}

/** Motions by mover, direction and number. */
function factsOf({ sheet, result }: ComparedRun): MotionFact[] {
  const counts = new Map<string, number>()
  return moversOf(sheet, result)
    .flatMap((mover) => motionsOf(mover, result))
    .sort((a, b) => a.start - b.start)
    .map(({ mover, direction, start, end, way }): MotionFact => {
      const verb = `${mover.name} ${verbOf(mover, direction)}`
      const count = (counts.get(verb) ?? 0) + 1
      counts.set(verb, count)
      return {
        key: `${verb} ${count}`,
        label: count > 1 ? `${verb}, time ${count}` : verb,
        start,
        end,
        speed: end > start ? way / (end - start) : 0,
        quantity: result.signals[mover.speed].quantity,
      }
    })
}

type Pair<T> = readonly [T, T]

function orderRow([a, b]: Pair<readonly MotionFact[]>): ComparisonRow {
  const text = (motions: readonly MotionFact[]) => motions.map((m) => m.label).join(', ') || 'nothing moves'
  return {
    group: 'order',
    label: 'Order of motions',
    first: text(a),
    second: text(b),
    difference: '',
    differs: text(a) !== text(b),
  }
}

/** A row of two values; either may be missing. */
function valueRow(
  group: ComparisonGroup,
  label: string,
  [a, b]: Pair<number | undefined>,
  quantity: Quantity,
  show: Show,
  more: {
    readonly at?: ComparisonRow['at']
    readonly words?: Pair<string>
    readonly least?: number
  } = {},
): ComparisonRow {
  const text = (value: number | undefined, i: number) =>
    value === undefined ? NONE : [show(value, quantity, 3), more.words?.[i]].filter(Boolean).join(' · ')
  const both = a !== undefined && b !== undefined
  const away = both
    ? Math.abs(b - a) > Math.max(more.least ?? 0, SAME * Math.max(Math.abs(a), Math.abs(b)))
    : true
  const words = more.words ? more.words[0] !== more.words[1] : false
  return {
    group,
    label,
    first: text(a, 0),
    second: text(b, 1),
    difference: both ? `${b > a ? '+' : ''}${show(b - a, quantity, 3)}` : '',
    differs: away || words,
    ...(more.at ? { at: more.at } : {}),
  }
}

const keysOf = (lists: Pair<readonly MotionFact[]>) => [...new Set(lists.flatMap((l) => l.map((m) => m.key)))]
const inBoth = ([a, b]: Pair<readonly MotionFact[]>, key: string) =>
  [a.find((m) => m.key === key), b.find((m) => m.key === key)] as const

function motionRows(motions: Pair<readonly MotionFact[]>, show: Show): ComparisonRow[] {
  return keysOf(motions).flatMap((key) => {
    const [a, b] = inBoth(motions, key)
    const { label, quantity } = (a ?? b)!
    const at = [a?.start, b?.start] as const
    return [
      valueRow('motions', `${label}: begins at`, [a?.start, b?.start], 'time', show, { at }),
      valueRow('motions', `${label}: lasts`, [a && a.end - a.start, b && b.end - b.start], 'time', show, {
        at,
      }),
      valueRow('motions', `${label}: mean speed`, [a?.speed, b?.speed], quantity, show, { at }),
    ]
  })
}

/** Peak at each gauge, and pressure with what sets it within each motion that both have. */
function pressureRows(
  first: ComparedRun,
  second: ComparedRun,
  motions: Pair<readonly MotionFact[]>,
  show: Show,
): ComparisonRow[] {
  const places = [first, second].map(
    ({ sheet, result }) =>
      new Map(measuringPlaces(sheet, result).map(({ component, line }) => [nameOf(component), line])),
  )
  const names = [...new Set(places.flatMap((p) => [...p.keys()]))]
  const runs = [first, second] as const
  const peaks = names.map((name) => {
    const [a, b] = runs.map(({ result }, i) => {
      const line = places[i].get(name)
      return line === undefined ? undefined : result.extremes[line]
    })
    return valueRow('pressures', `${name}: highest`, [a?.max, b?.max], 'pressure', show, {
      at: [a?.maxAt, b?.maxAt],
    })
  })
  const within = keysOf(motions).flatMap((key) => {
    const pair = inBoth(motions, key)
    if (!pair[0] || !pair[1]) return []
    const instants = pair.map((m) => m!.start + WITHIN * (m!.end - m!.start))
    runs.forEach(({ moments, result }, i) => moments.showRecorded(result, instants[i]))
    return names.flatMap((name) => {
      const answers = runs.map((run, i) => {
        const line = places[i].get(name)
        if (line === undefined) return undefined
        const { stack } = answerPressure(run.moments, run.result, line)
        return { value: stack.pressure, words: fixedByShort(run.sheet, stack.fixedBy) }
      })
      const [a, b] = answers
      if (!a || !b) return []
      return [
        valueRow('pressures', `${name}, as ${pair[0]!.label}`, [a.value, b.value], 'pressure', show, {
          at: [instants[0], instants[1]],
          words: [a.words, b.words],
        }),
      ]
    })
  })
  return [...peaks, ...within]
}

/** Greatest force or torque of each part that measures its load. */
function forceRows(first: ComparedRun, second: ComparedRun, show: Show): ComparisonRow[] {
  const [a, b] = [first, second].map(({ sheet, result }) => {
    const signals = signalMap(result)
    return new Map(
      sheet.components.flatMap((component) => {
        const name = findKind(component.kind)?.traits?.measures?.load
        const signal = typeof name === 'string' ? signals.get(`${component.id}.${name}`) : undefined
        if (signal === undefined) return []
        const { min, max, minAt, maxAt } = result.extremes[signal]
        const peak = Math.abs(min) > Math.abs(max) ? { value: min, at: minAt } : { value: max, at: maxAt }
        return [[nameOf(component), { ...peak, quantity: result.signals[signal].quantity }] as const]
      }),
    )
  })
  return [...new Set([...a.keys(), ...b.keys()])].map((name) => {
    const [x, y] = [a.get(name), b.get(name)]
    return valueRow('forces', `${name}: greatest load`, [x?.value, y?.value], (x ?? y)!.quantity, show, {
      at: [x?.at, y?.at],
    })
  })
}

/** How often each motor is started and each switch goes, and how long motors run and are loaded. */
function dutyRows(first: ComparedRun, second: ComparedRun, show: Show): ComparisonRow[] {
  const [a, b] = [first, second].map(({ sheet, result }) => {
    const { motors, switches } = dutyOf(sheet, result)
    const named = (id: string) => partName(sheet, id)
    return {
      motors: new Map(motors.map((motor) => [named(motor.component), motor])),
      switches: new Map(switches.filter(({ cycles }) => cycles).map((s) => [named(s.component), s])),
    }
  })
  const both = <T>(x: ReadonlyMap<string, T>, y: ReadonlyMap<string, T>) =>
    [...new Set([...x.keys(), ...y.keys()])].map((name) => [name, x.get(name), y.get(name)] as const)
  return [
    ...both(a.motors, b.motors).flatMap(([name, x, y]) => [
      valueRow('duty', `${name}: starts an hour`, [x?.startsPerHour, y?.startsPerHour], 'ratio', show),
      valueRow('duty', `${name}: runs`, [x?.running, y?.running], 'time', show),
      valueRow('duty', `${name}: of it under load`, [x?.loadedShare, y?.loadedShare], 'share', show),
    ]),
    ...both(a.switches, b.switches).map(([name, x, y]) =>
      valueRow('duty', `${name}: cycles an hour`, [x?.cyclesPerHour, y?.cyclesPerHour], 'ratio', show),
    ),
  ]
}

function energyRows(first: ComparedRun, second: ComparedRun, show: Show): ComparisonRow[] {
  const accounts = [first, second].map(({ moments, result }) => energyOf(moments, result, 0, result.duration))
  const [a, b] = accounts
  const least = LEAST_SHARE * Math.max(totalOf(a.input), totalOf(b.input))
  const totals = (['input', 'given', 'work', 'heat', 'kept'] as const).map((kind) =>
    valueRow('energy', energyLabels[kind], [totalOf(a[kind]), totalOf(b[kind])], 'energy', show, { least }),
  )
  const byName = ({ sheet }: ComparedRun, shares: readonly EnergyShare[]) => {
    const sums = new Map<string, number>()
    for (const { part, energy } of shares) {
      if (!sheet.components.some((c) => c.id === part)) continue
      const name = partName(sheet, part)
      sums.set(name, energy + (sums.get(name) ?? 0))
    }
    return sums
  }
  const [x, y] = [byName(first, a.heat), byName(second, b.heat)]
  const heat = [...new Set([...x.keys(), ...y.keys()])]
    .map((name) => ({ name, pair: [x.get(name) ?? 0, y.get(name) ?? 0] as const }))
    .filter(({ pair }) => Math.max(...pair) > least)
    .sort((p, q) => Math.abs(q.pair[1] - q.pair[0]) - Math.abs(p.pair[1] - p.pair[0]))
    .map(({ name, pair }) => valueRow('heat', `${name}: heat`, pair, 'energy', show, { least }))
  return [...totals.filter(({ first: one, second: two }) => one !== two || !/^0 /.test(one)), ...heat]
}
const energyLabels = {
  input: 'Put in',
  given: 'Given back by loads and stores',
  work: 'Work on loads',
  heat: 'Heat',
  kept: 'Kept in masses, heights and stores',
} as const

/** What differs, in a few sentences. */
export function comparisonSummary(rows: readonly ComparisonRow[]): string[] {
  const order = rows.find((r) => r.group === 'order')
  const count = rows.filter((r) => r.differs).length
  return [
    order?.differs ? 'The order of motions differs.' : 'The order of motions is the same.',
    count
      ? `${count} of ${rows.length} figures differ by more than 2 %.`
      : 'No figure differs by more than 2 %.',
  ]
}
