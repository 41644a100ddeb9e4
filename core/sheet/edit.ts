/** Edits of a sheet as pure functions: a sheet in, a new sheet out, the old one untouched. */
import { findKind } from '../catalogue'
import type { Domain, SymbolForm } from '../catalogue/kind'
import { quantityText } from '../units/text'
import { parseQuantity } from '../units/text'
import type { RawValue } from './resolve'
import {
  boundsOnSheet,
  endAt,
  nearestOn,
  polyline,
  polylineLength,
  simplify,
  stretchRoute,
  type XY,
  placedPorts,
} from './geometry'
import { designationPrefix } from './designations'
import { lineDomain, MIXED_DOMAINS } from './netlist'
import { isOutline } from './role'
import { straightRoute, route } from './route'
import { itemOf, symbolsOfItem } from './shared-item'
import {
  componentSchema,
  pipeSchema,
  type Pipe,
  type PipeEnd,
  type Sheet,
  type SheetComponent,
} from './schema'

export const sameEnd = (a: PipeEnd, b: PipeEnd) =>
  'junction' in a
    ? 'junction' in b && a.junction === b.junction
    : 'component' in b && a.component === b.component && a.port === b.port

/** The first of prefix1, prefix2 … that is not taken. */
export function unusedName(prefix: string, taken: Iterable<string>): string {
  const names = new Set(taken)
  for (let i = 1; ; i++) if (!names.has(prefix + i)) return prefix + i
}

export function addComponent(
  sheet: Sheet,
  kindName: string,
  at: Partial<Pick<SheetComponent, 'x' | 'y' | 'rotation' | 'mirrored' | 'parameters'>> = {},
): { sheet: Sheet; id: string } {
  const kind = findKind(kindName)
  const letter = kind?.designationLetter ?? 'Z'
  const id = unusedName(
    letter,
    sheet.components.map((c) => c.id),
  )
  const bare = componentSchema.parse({ id, kind: kindName, ...at })
  const item = itemOf(bare)?.name
  const same = item && sheet.components.find((c) => c.designation && itemOf(c)?.name === item)
  const designation = kind?.excludedFromPartsList
    ? undefined
    : same
      ? same.designation
      : unusedName(
          designationPrefix(sheet, letter),
          sheet.components.map((c) => c.designation ?? ''),
        )
  const component = componentSchema.parse({ id, kind: kindName, designation, ...at })
  return { sheet: { ...sheet, components: [...sheet.components, component] }, id }
}

const changeComponent = (sheet: Sheet, id: string, change: (c: SheetComponent) => SheetComponent): Sheet => ({
  ...sheet,
  components: sheet.components.map((c) => (c.id === id ? change(c) : c)),
})

/**
 * Lays the pipes at the given components anew; pipes between two of them are kept by the caller.
 * @param before the sheet before these components moved: manual routes are then stretched, where that is possible
 */
export function rerouteConnected(sheet: Sheet, ids: ReadonlySet<string>, before?: Sheet): Sheet {
  const touches = (end: PipeEnd) => 'component' in end && ids.has(end.component)
  return reroute(
    sheet,
    new Set(sheet.pipes.filter((p) => touches(p.from) || touches(p.to)).map((p) => p.id)),
    before,
  )
}

/** Reroutes pipes; manual routes are kept where an earlier state of the sheet is given and their ends allow it. */
export function reroute(
  sheet: Sheet,
  pipes: ReadonlySet<string>,
  before?: Sheet,
  laying: 'routed' | 'rough' = 'routed',
): Sheet {
  const loose = new Set(pipes)
  let result = sheet
  for (const id of pipes) {
    const pipe = result.pipes.find((p) => p.id === id)!
    const kept =
      before && (pipe.manualRoute || laying === 'rough') ? stretchedRoute(before, result, pipe) : undefined
    const corners =
      kept ??
      (laying === 'rough'
        ? straightRoute(result, pipe.from, pipe.to)
        : route(result, pipe.from, pipe.to, loose))
    loose.delete(id)
    result = changePipe(result, id, {
      route: corners.map(([x, y]) => [x, y]),
      manualRoute: (kept && pipe.manualRoute) || undefined,
    })
  }
  return result
}
function stretchedRoute(before: Sheet, after: Sheet, pipe: Pipe): XY[] | undefined {
  const from = endAt(after, pipe.from)
  const to = endAt(after, pipe.to)
  return from && to && stretchRoute(polyline(before, pipe), from, to)
}

export const changePipe = (sheet: Sheet, id: string, change: Partial<Pipe>): Sheet => ({
  ...sheet,
  pipes: sheet.pipes.map((p) => (p.id === id ? pipeSchema.parse({ ...p, ...change }) : p)),
})

/**
 * Moves components and junctions by whole modules; the pipes between two of them move along.
 * @param laying rough: the other pipes are only stretched, which is quick and enough while the move goes on
 */
export function move(
  sheet: Sheet,
  ids: readonly string[],
  dx: number,
  dy: number,
  laying: 'routed' | 'rough' = 'routed',
): Sheet {
  if (!dx && !dy) return sheet
  const moved = new Set(withEnclosed(sheet, ids))
  const inside = (end: PipeEnd) => moved.has('junction' in end ? end.junction : end.component)
  const shift = <T extends { id: string; x: number; y: number }>(item: T): T =>
    moved.has(item.id) ? { ...item, x: item.x + dx, y: item.y + dy } : item
  const shifted: Sheet = {
    ...sheet,
    components: sheet.components.map(shift),
    junctions: sheet.junctions.map(shift),
    pipes: sheet.pipes.map((p) =>
      inside(p.from) && inside(p.to)
        ? { ...p, route: p.route.map(([x, y]): [number, number] => [x + dx, y + dy]) }
        : p,
    ),
  }
  return reroute(
    shifted,
    new Set(shifted.pipes.filter((p) => inside(p.from) !== inside(p.to)).map((p) => p.id)),
    sheet,
    laying,
  )
}

/** Parts, and with a frame or a vessel all that lies wholly inside it. */
export function withEnclosed(sheet: Sheet, ids: readonly string[]): string[] {
  const frames = sheet.components.filter((c) => ids.includes(c.id) && isOutline(c)).map(boundsOnSheet)
  if (!frames.length) return [...ids]
  const within = (x: number, y: number) =>
    frames.some((f) => x >= f.x && x <= f.x + f.w && y >= f.y && y <= f.y + f.h)
  const inside = (c: SheetComponent) => {
    const r = boundsOnSheet(c)
    return within(r.x, r.y) && within(r.x + r.w, r.y + r.h)
  }
  return [
    ...new Set([
      ...ids,
      ...sheet.components.filter(inside).map((c) => c.id),
      ...sheet.junctions.filter((j) => within(j.x, j.y)).map((j) => j.id),
    ]),
  ]
}

/** A quarter turn clockwise, in place. */
export const rotate = (sheet: Sheet, ids: readonly string[]): Sheet =>
  rerouteConnected(
    ids.reduce(
      (s, id) => changeComponent(s, id, (c) => ({ ...c, rotation: ((c.rotation + 1) % 4) as 0 | 1 | 2 | 3 })),
      sheet,
    ),
    new Set(ids),
  )

/** Left and right exchanged as seen on the sheet, in place. */
export const mirror = (sheet: Sheet, ids: readonly string[]): Sheet =>
  rerouteConnected(
    ids.reduce(
      (s, id) =>
        changeComponent(s, id, (c) => ({
          ...c,
          mirrored: !c.mirrored,
          // mirroring a turned symbol exchanges the two upright turns
          rotation: (c.rotation % 2 ? (4 - c.rotation) % 4 : c.rotation) as 0 | 1 | 2 | 3,
        })),
      sheet,
    ),
    new Set(ids),
  )

export function setParameter(sheet: Sheet, id: string, name: string, value: RawValue | undefined): Sheet {
  return redrawComponent(sheet, id, (c) => {
    const others = Object.entries(c.parameters).filter(([other]) => other !== name)
    return {
      ...c,
      parameters: value === undefined ? Object.fromEntries(others) : { ...c.parameters, [name]: value },
    }
  })
}

/** A change after which ports may lie elsewhere: the pipes at those that do follow. */
function redrawComponent(sheet: Sheet, id: string, change: (c: SheetComponent) => SheetComponent): Sheet {
  const changed = changeComponent(sheet, id, change)
  const placesIn = (of: Sheet) => {
    const component = of.components.find((c) => c.id === id)
    return new Map(component ? placedPorts(component).map(({ port, at }) => [port, at.join()]) : [])
  }
  const [before, after] = [placesIn(sheet), placesIn(changed)]
  const follows = (end: PipeEnd) =>
    'component' in end &&
    end.component === id &&
    after.has(end.port) &&
    before.get(end.port) !== after.get(end.port)
  const pipes = changed.pipes.filter((p) => follows(p.from) || follows(p.to)).map((p) => p.id)
  return pipes.length ? reroute(changed, new Set(pipes), sheet) : changed
}

/** Draws components simplified or in detail; those of kinds with one form stay as they are. */
export const setForm = (sheet: Sheet, ids: readonly string[], form: SymbolForm): Sheet =>
  ids.reduce((s, id) => redrawComponent(s, id, (c) => (findKind(c.kind)?.forms ? { ...c, form } : c)), sheet)

/** Marks a component as one under whose load people may be. */
export const setPeopleUnder = (sheet: Sheet, id: string, peopleUnder: boolean): Sheet =>
  changeComponent(sheet, id, (c) => ({ ...c, peopleUnder: peopleUnder || undefined }))

/** Accepts a finding for a reason; without one, it counts again. */
export function acceptWarning(sheet: Sheet, rule: string, place: string, reason: string | undefined): Sheet {
  const others = sheet.acceptedWarnings.filter((s) => s.rule !== rule || s.location !== place)
  return { ...sheet, acceptedWarnings: reason ? [...others, { rule, location: place, reason }] : others }
}

export function setDesignation(sheet: Sheet, id: string, designation: string): Sheet {
  const component = sheet.components.find((c) => c.id === id)
  if (!component) return sheet
  return symbolsOfItem(sheet, component).reduce(
    (s, each) => changeComponent(s, each.id, (c) => ({ ...c, designation: designation || undefined })),
    sheet,
  )
}

const sumText = (a: string, b: string, quantityName: 'length' | 'volume', symbol: string) => {
  const [m, n] = [parseQuantity(a, quantityName), parseQuantity(b, quantityName)]
  return m.ok && n.ok ? quantityText(m.si + n.si, quantityName, symbol) : a
}

/** Two pipes that meet at a junction as one; none where they are not of one kind or lead round to the junction itself. */
export function mergedPipe(sheet: Sheet, a: Pipe, b: Pipe, junction: string): Pipe | undefined {
  if (a.lineType !== b.lineType || a.lineModel !== b.lineModel || a.bore !== b.bore) return undefined
  const isHere = (e: PipeEnd) => 'junction' in e && e.junction === junction
  if (isHere(a.from) && isHere(a.to)) return undefined
  const corners = (p: Pipe, toJunction: boolean): readonly XY[] => {
    const points = polyline(sheet, p)
    return isHere(toJunction ? p.to : p.from) ? points : [...points].reverse()
  }
  const points = simplify([...corners(a, true), ...corners(b, false)])
  const volume =
    a.volume !== undefined && b.volume !== undefined
      ? { volume: sumText(a.volume, b.volume, 'volume', 'L') }
      : { volume: undefined }
  return {
    ...a,
    name: a.name ?? b.name,
    from: isHere(a.to) ? a.from : a.to,
    to: isHere(b.from) ? b.to : b.from,
    route: points.slice(1, -1).map(([x, y]) => [x, y]),
    length: sumText(a.length, b.length, 'length', 'm'),
    ...volume,
  }
}

/** Junctions with no pipe go; junctions with two pipes of one kind become one pipe again. */
function removeRedundantJunctions(sheet: Sheet, needed: ReadonlySet<string> = new Set()): Sheet {
  let result = sheet
  for (const junction of sheet.junctions) {
    if (needed.has(junction.id)) continue
    const at = result.pipes.filter((p) =>
      [p.from, p.to].some((e) => 'junction' in e && e.junction === junction.id),
    )
    if (at.length === 0) {
      result = { ...result, junctions: result.junctions.filter((j) => j.id !== junction.id) }
      continue
    }
    if (at.length !== 2) continue
    const [a, b] = at
    const merged = mergedPipe(result, a, b, junction.id)
    if (!merged) continue
    result = {
      ...result,
      junctions: result.junctions.filter((j) => j.id !== junction.id),
      pipes: result.pipes.filter((p) => p.id !== b.id).map((p) => (p.id === a.id ? merged : p)),
    }
  }
  return result
}

/** Removes components, junctions and pipes by id; pipes that lose an end go too, lines heal but at the ends that are `needed` yet. */
export function remove(sheet: Sheet, ids: readonly string[], needed: readonly PipeEnd[] = []): Sheet {
  const gone = new Set(ids)
  const lost = (end: PipeEnd) => gone.has('junction' in end ? end.junction : end.component)
  const left = {
    ...sheet,
    components: sheet.components.filter((c) => !gone.has(c.id)),
    junctions: sheet.junctions.filter((j) => !gone.has(j.id)),
    pipes: sheet.pipes.filter((p) => !gone.has(p.id) && !lost(p.from) && !lost(p.to)),
    schedules: sheet.schedules.map((s) => ({
      ...s,
      tracks: s.tracks.filter((t) => !gone.has(t.component)),
      actions: s.actions.filter((a) => !gone.has(a.component)),
    })),
    initialPressures: Object.fromEntries(
      Object.entries(sheet.initialPressures).filter(([key]) => !gone.has(key.split('.')[0])),
    ),
    acceptedWarnings: sheet.acceptedWarnings.filter((s) => !gone.has(s.location)),
    states: sheet.states.map((s) => ({
      ...s,
      commands: s.commands.filter(({ component }) => !gone.has(component)),
    })),
    pens: sheet.pens.map((p) => ({ ...p, pipes: p.pipes.filter(({ pipe }) => !gone.has(pipe)) })),
  }
  return removeRedundantJunctions(
    left,
    new Set(needed.flatMap((end) => ('junction' in end ? [end.junction] : []))),
  )
}

type Part = Pick<Pipe, 'length' | 'volume' | 'route'>
/** What the two parts of a pipe keep that is cut within a segment, the first up to `to`, the second from `from`. */
export function splitRoute(
  pipe: Pipe,
  points: readonly XY[],
  segment: number,
  to: XY,
  from: XY,
): [Part, Part] {
  const first = [...points.slice(0, segment + 1), to]
  const second = [from, ...points.slice(segment + 1)]
  const share = polylineLength(first) / Math.max(polylineLength(first) + polylineLength(second), 1e-9)
  const part = (text: string, name: 'length' | 'volume', symbol: string, s: number) => {
    const parsed = parseQuantity(text, name)
    return parsed.ok ? quantityText(parsed.si * s, name, symbol) : text
  }
  const half = (list: readonly XY[], s: number): Part => ({
    length: part(pipe.length, 'length', 'm', s),
    volume: pipe.volume === undefined ? undefined : part(pipe.volume, 'volume', 'L', s),
    route: simplify(list)
      .slice(1, -1)
      .map(([x, y]): [number, number] => [x, y]),
  })
  return [half(first, share), half(second, 1 - share)]
}

/** Puts a junction on a pipe; length and volume are shared out as drawn. */
export function splitPipe(sheet: Sheet, pipeId: string, near: XY): { sheet: Sheet; junction: string } {
  const pipe = sheet.pipes.find((p) => p.id === pipeId)
  if (!pipe) throw new Error(`No pipe "${pipeId}"`)
  const points = polyline(sheet, pipe)
  const { at, segment } = nearestOn(points, near)
  // a click on the end of a pipe that is a junction already is that junction
  for (const [end, point] of [
    [pipe.from, points[0]],
    [pipe.to, points[points.length - 1]],
  ] as const)
    if ('junction' in end && point[0] === at[0] && point[1] === at[1])
      return { sheet, junction: end.junction }
  const junction = unusedName(
    'J',
    sheet.junctions.map((j) => j.id),
  )
  const [first, second] = splitRoute(pipe, points, segment, at, at)
  const newId = unusedName(
    'L',
    sheet.pipes.map((p) => p.id),
  )
  const a: Pipe = { ...pipe, ...first, to: { junction: junction } }
  const b: Pipe = { ...pipe, ...second, id: newId, from: { junction: junction } }
  return {
    junction,
    sheet: {
      ...sheet,
      junctions: [...sheet.junctions, { id: junction, x: at[0], y: at[1] }],
      pipes: [...sheet.pipes.flatMap((p) => (p.id === pipeId ? [a, b] : [p]))],
    },
  }
}

/** Where a new pipe is to end: at a port or junction, or somewhere on a pipe. */
export type Target = PipeEnd | { pipe: string; at: XY }

function domainOf(sheet: Sheet, end: PipeEnd): Domain {
  if ('junction' in end) {
    const on = sheet.pipes.find((p) => sameEnd(p.from, end) || sameEnd(p.to, end))
    return on ? lineDomain(on.lineType) : 'oil'
  }
  const kind = findKind(sheet.components.find((c) => c.id === end.component)?.kind ?? '')
  return kind?.ports.find((p) => p.name === end.port)?.domain ?? 'oil'
}

/** Lays a pipe between two places. A place on a pipe makes a junction there. */
export function connect(
  sheet: Sheet,
  from: Target,
  to: Target,
  line?: Pipe['lineType'],
): { sheet: Sheet; id: string } | { problem: string } {
  let result = sheet
  const land = (target: Target): PipeEnd => {
    if (!('pipe' in target)) return target
    const split = splitPipe(result, target.pipe, target.at)
    result = split.sheet
    return { junction: split.junction }
  }
  const a = land(from)
  const b = land(to)
  if (sameEnd(a, b)) return { problem: 'A pipe needs two different ends.' }
  const domain = domainOf(result, a)
  if (domain !== domainOf(result, b)) return { problem: MIXED_DOMAINS }
  if (
    sheet.pipes.some(
      (p) => (sameEnd(p.from, a) && sameEnd(p.to, b)) || (sameEnd(p.from, b) && sameEnd(p.to, a)),
    )
  )
    return { problem: 'These two are joined already.' }
  const id = unusedName(
    'L',
    result.pipes.map((p) => p.id),
  )
  const pipe = pipeSchema.parse({
    id,
    from: a,
    to: b,
    lineType: domain === 'oil' ? (line ?? 'working') : domain,
    route: route(result, a, b).map(([x, y]) => [x, y]),
  })
  return { sheet: { ...result, pipes: [...result.pipes, pipe] }, id }
}

/** Leads one end of a pipe somewhere else; a place on a pipe makes a junction there. */
export function movePipeEnd(
  sheet: Sheet,
  pipeId: string,
  which: 'from' | 'to',
  target: Target,
): { sheet: Sheet; id: string } | { problem: string } {
  const pipe = sheet.pipes.find((p) => p.id === pipeId)
  if (!pipe) return { problem: 'That pipe is no longer there.' }
  if ('pipe' in target && target.pipe === pipeId) return { problem: 'A pipe cannot end on itself.' }
  const without: Sheet = { ...sheet, pipes: sheet.pipes.filter((p) => p.id !== pipeId) }
  const laid = connect(
    without,
    which === 'from' ? target : pipe.from,
    which === 'to' ? target : pipe.to,
    pipe.lineType,
  )
  if ('problem' in laid) return laid
  const drawn = laid.sheet.pipes.find((p) => p.id === laid.id)!
  const moved: Pipe = {
    ...pipe,
    from: drawn.from,
    to: drawn.to,
    lineType: drawn.lineType,
    route: drawn.route,
  }
  return {
    id: pipeId,
    sheet: removeRedundantJunctions({
      ...laid.sheet,
      pipes: laid.sheet.pipes.map((p) => (p.id === laid.id ? moved : p)),
    }),
  }
}

const oilPortsOf = (sheet: Sheet, id: string) => {
  const component = sheet.components.find((c) => c.id === id)
  return (component && findKind(component.kind))?.ports.filter((p) => p.domain === 'oil') ?? []
}
/** Whether a component has two oil ports that can be swapped. */
export const canSwapPorts = (sheet: Sheet, id: string) => oilPortsOf(sheet, id).length === 2
/** What was connected to the first of two oil ports goes to the second, and the other way round. */
export function swapPorts(sheet: Sheet, id: string): Sheet {
  const ports = oilPortsOf(sheet, id)
  if (ports.length !== 2) return sheet
  const other = (port: string) => (port === ports[0].name ? ports[1].name : ports[0].name)
  const turn = (end: PipeEnd): PipeEnd =>
    'component' in end && end.component === id ? { component: id, port: other(end.port) } : end
  const turned: Sheet = {
    ...sheet,
    pipes: sheet.pipes.map((p) => ({ ...p, from: turn(p.from), to: turn(p.to) })),
  }
  return rerouteConnected(turned, new Set([id]))
}

/** Ends of pipes that are at a port. */
export const pipesAt = (sheet: Sheet, end: PipeEnd) =>
  sheet.pipes.filter((p) => sameEnd(p.from, end) || sameEnd(p.to, end))
