/** What moves in a machine, and in which direction over a run. Parts on one shaft move together and are one mover. */
import type { Movement } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { portKey } from '../sheet/netlist'
import { nameOf, type Sheet } from '../sheet/schema'
import type { RunResult } from '../simulate/result'
import { signalMap } from '../simulate/playback'

export interface Mover {
  /** The part that is named: a load where one hangs on the shaft. */
  readonly component: string
  readonly name: string
  readonly movement: Movement
  /** Signals of the run; −1 where there is none. */
  readonly speed: number
  readonly position: number
  readonly load: number
  /** Slower than this it stands still, in the unit of its speed. */
  readonly still: number
  /** Actuators that oil drives: the part itself, or the motors on its shaft. */
  readonly driven: readonly string[]
}
/** −1 back, 0 stands still, 1 forward. */
export type Direction = -1 | 0 | 1

/** Share of the greatest speed, and least speed (m/s, rad/s), that count as moving. */
export const MOVES_SHARE = 0.02
export const MOVES = 5e-4

/** What moves. Motors and loads that share a shaft count once. */
export function moversOf(sheet: Sheet, result: RunResult): Mover[] {
  const signals = signalMap(result)
  const roots = new Map<number, number>()
  const rootOf = (line: number): number => {
    let root = line
    while (roots.has(root)) root = roots.get(root)!
    return root
  }
  const shaftsOf = (component: { readonly id: string; readonly kind: string }) =>
    (findKind(component.kind)?.ports ?? []).flatMap(({ name, domain }) => {
      const line = result.lineOfPort[portKey(component.id, name)]
      return domain === 'shaft' && line !== undefined ? [line] : []
    })
  for (const component of sheet.components) {
    const [first, ...others] = shaftsOf(component).map(rootOf)
    for (const other of others) if (rootOf(other) !== rootOf(first)) roots.set(rootOf(other), rootOf(first))
  }
  const groups = new Map<string, Mover[]>()
  for (const component of sheet.components) {
    const kind = findKind(component.kind)
    const movement = kind?.traits?.movement
    const at = (name: string | undefined) =>
      name === undefined ? -1 : (signals.get(`${component.id}.${name}`) ?? -1)
    const speed = at(movement?.speed)
    if (!movement || speed < 0) continue
    const [shaft] = shaftsOf(component)
    const key = shaft === undefined ? component.id : `shaft ${rootOf(shaft)}`
    const { min, max } = result.extremes[speed]
    groups.set(key, [
      ...(groups.get(key) ?? []),
      {
        component: component.id,
        name: nameOf(component),
        movement,
        speed,
        position: at(movement.position),
        load: at(movement.load),
        still: Math.max(MOVES, MOVES_SHARE * Math.max(Math.abs(min), Math.abs(max))),
        driven: kind!.ports.some((p) => p.domain === 'oil') ? [component.id] : [],
      },
    ])
  }
  return [...groups.values()].map((members) => {
    const named = members.find((m) => !m.driven.length) ?? members[0]
    return { ...named, driven: members.flatMap((m) => m.driven) }
  })
}

export const directionOf = (speed: number, still: number): Direction =>
  Math.abs(speed) < still ? 0 : speed > 0 ? 1 : -1

/** How it is called when it moves in a direction: "extends". */
export const verbOf = ({ movement }: Mover, direction: Direction): string =>
  direction === 0 ? 'stands still' : direction > 0 ? movement.forward : movement.back

/** An interval of samples in which a mover keeps its direction. */
export interface Stretch {
  /** Samples, inclusive. */
  readonly from: number
  readonly to: number
  readonly direction: Direction
}
/** Intervals of one direction each. @param least s; shorter ones belong to what is before them */
export function stretchesOf({ speed, still }: Mover, result: RunResult, least: number): Stretch[] {
  const column = result.columns[speed]
  const { times } = result
  const raw: { from: number; to: number; direction: Direction }[] = []
  for (let i = 0; i < column.length; i++) {
    const direction = directionOf(column[i], still)
    const last = raw.at(-1)
    if (last?.direction === direction) last.to = i
    else raw.push({ from: i, to: i, direction })
  }
  const kept: { from: number; to: number; direction: Direction }[] = []
  for (const one of raw) {
    const last = kept.at(-1)
    const end = times[Math.min(one.to + 1, times.length - 1)]
    if (last && (last.direction === one.direction || end - times[one.from] < least)) last.to = one.to
    else kept.push({ ...one })
  }
  return kept
}
