/** Edits of several parts at once: copies, alignment, and parts put into a line, taken out of it or exchanged. */
import { findKind, type AnyKind } from '../catalogue'
import {
  unusedName,
  addComponent,
  connect,
  changePipe,
  reroute,
  pipesAt,
  remove,
  rerouteConnected,
  sameEnd,
  splitRoute,
} from './edit'
import { lineDomain } from './netlist'
import { outline, placedPorts, polyline, type Rect, type XY } from './geometry'
import { isSolid } from './role'
import { pipeSchema, type Junction, type Pipe, type PipeEnd, type Sheet, type SheetComponent } from './schema'

/** Parts of a sheet that were copied: components and junctions, and the pipes between two of them. */
export interface ClipboardContent {
  readonly components: readonly SheetComponent[]
  readonly junctions: readonly Junction[]
  readonly pipes: readonly Pipe[]
}

export function copy(sheet: Sheet, ids: Iterable<string>): ClipboardContent {
  const chosen = new Set(ids)
  const inside = (end: PipeEnd) => chosen.has('junction' in end ? end.junction : end.component)
  return {
    components: sheet.components.filter((c) => chosen.has(c.id)),
    junctions: sheet.junctions.filter((j) => chosen.has(j.id)),
    pipes: sheet.pipes.filter((p) => inside(p.from) && inside(p.to)),
  }
}

/** Puts a copy on a sheet, moved by (dx, dy), under new ids and designations. @returns the new ids as well */
export function paste(
  sheet: Sheet,
  clip: ClipboardContent,
  dx: number,
  dy: number,
): { sheet: Sheet; ids: string[] } {
  let result = sheet
  const named = new Map<string, string>()
  for (const { id, kind, x, y, ...rest } of clip.components) {
    const added = addComponent(result, kind, { x: x + dx, y: y + dy })
    named.set(id, added.id)
    result = {
      ...added.sheet,
      components: added.sheet.components.map((c) =>
        c.id === added.id ? { ...c, ...rest, designation: c.designation } : c,
      ),
    }
  }
  for (const junction of clip.junctions) {
    const id = unusedName(
      'J',
      result.junctions.map((j) => j.id),
    )
    named.set(junction.id, id)
    result = { ...result, junctions: [...result.junctions, { id, x: junction.x + dx, y: junction.y + dy }] }
  }
  const renamed = (end: PipeEnd): PipeEnd =>
    'junction' in end
      ? { junction: named.get(end.junction)! }
      : { component: named.get(end.component)!, port: end.port }
  for (const pipe of clip.pipes) {
    const id = unusedName(
      'L',
      result.pipes.map((p) => p.id),
    )
    const route = pipe.route.map(([x, y]): [number, number] => [x + dx, y + dy])
    result = {
      ...result,
      pipes: [
        ...result.pipes,
        { ...pipe, name: undefined, id, from: renamed(pipe.from), to: renamed(pipe.to), route },
      ],
    }
  }
  return { sheet: result, ids: [...named.values()] }
}

export const edges = {
  left: { axis: 'x', share: 0, label: 'left edges' },
  centre: { axis: 'x', share: 0.5, label: 'middles, one above the other' },
  right: { axis: 'x', share: 1, label: 'right edges' },
  top: { axis: 'y', share: 0, label: 'upper edges' },
  middle: { axis: 'y', share: 0.5, label: 'middles, side by side' },
  bottom: { axis: 'y', share: 1, label: 'lower edges' },
} as const
export type Edge = keyof typeof edges

const moveEach = (sheet: Sheet, by: ReadonlyMap<string, XY>): Sheet =>
  rerouteConnected(
    {
      ...sheet,
      components: sheet.components.map((c) => {
        const [dx, dy] = by.get(c.id) ?? [0, 0]
        return dx || dy ? { ...c, x: c.x + dx, y: c.y + dy } : c
      }),
    },
    new Set([...by].filter(([, [dx, dy]]) => dx || dy).map(([id]) => id)),
    sheet,
  )

/** Brings the outlines of components to one line, that of the outermost or of the middle of them all. */
export function align(sheet: Sheet, ids: readonly string[], edge: Edge): Sheet {
  const chosen = sheet.components.filter((c) => ids.includes(c.id))
  if (chosen.length < 2) return sheet
  const { axis, share } = edges[edge]
  const size = axis === 'x' ? 'w' : 'h'
  const boxes = chosen.map((c) => outline(c))
  const least = Math.min(...boxes.map((b) => b[axis]))
  const most = Math.max(...boxes.map((b) => b[axis] + b[size]))
  const line = least + share * (most - least)
  const by = new Map(
    chosen.map((c, i): [string, XY] => {
      const d = Math.round(line - (boxes[i][axis] + share * boxes[i][size]))
      return [c.id, axis === 'x' ? [d, 0] : [0, d]]
    }),
  )
  return moveEach(sheet, by)
}

/** Makes the distances between the middles of components equal; the two outermost stay. */
export function distribute(sheet: Sheet, ids: readonly string[], axis: 'x' | 'y'): Sheet {
  const size = axis === 'x' ? 'w' : 'h'
  const middle = (c: SheetComponent) => outline(c)[axis] + outline(c)[size] / 2
  const chosen = sheet.components.filter((c) => ids.includes(c.id)).sort((a, b) => middle(a) - middle(b))
  if (chosen.length < 3) return sheet
  const first = middle(chosen[0])
  const step = (middle(chosen[chosen.length - 1]) - first) / (chosen.length - 1)
  const by = new Map(
    chosen.map((c, i): [string, XY] => {
      const d = Math.round(first + i * step - middle(c))
      return [c.id, axis === 'x' ? [d, 0] : [0, d]]
    }),
  )
  return moveEach(sheet, by)
}

/** The pipes that run through components without being connected to them; enclosures and texts hide nothing. */
function pipesUnder(sheet: Sheet, ids: ReadonlySet<string>): Set<string> {
  const bodies = sheet.components
    .filter((component) => ids.has(component.id) && isSolid(component))
    .map((component) => ({ id: component.id, ...outline(component) }))
  const under = new Set<string>()
  for (const pipe of sheet.pipes) {
    const points = polyline(sheet, pipe)
    const joined = (id: string) => [pipe.from, pipe.to].some((e) => 'component' in e && e.component === id)
    const runsThrough = ({ x, y, w, h }: Rect) =>
      points.some((b, i) => {
        const a = points[Math.max(0, i - 1)]
        return (
          Math.min(a[0], b[0]) < x + w &&
          Math.max(a[0], b[0]) > x &&
          Math.min(a[1], b[1]) < y + h &&
          Math.max(a[1], b[1]) > y
        )
      })
    if (bodies.some((body) => !joined(body.id) && runsThrough(body))) under.add(pipe.id)
  }
  return under
}

/**
 * Routes pipes around components that were placed on them. Pipes that lay under them before stay, and so do manual routes.
 * @param before the sheet before they were put there
 */
export function routeAround(sheet: Sheet, ids: readonly string[], before: Sheet): Sheet {
  const put = new Set(ids)
  const were = pipesUnder(before, put)
  const under = [...pipesUnder(sheet, put)].filter(
    (id) => !were.has(id) && !sheet.pipes.find((p) => p.id === id)!.manualRoute,
  )
  return under.length ? reroute(sheet, new Set(under)) : sheet
}

/**
 * Puts a component that lies on a pipe into it: where two of its free ports lie on one straight piece, as it lies or
 * after a quarter turn, the pipe is cut between them. The same sheet where there is no such pipe.
 */
export function insertInPipe(sheet: Sheet, id: string): Sheet {
  const component = sheet.components.find((c) => c.id === id)
  const ports = component && findKind(component.kind)?.ports
  if (!component || !ports) return sheet
  const domain = (port: string) => ports.find((p) => p.name === port)!.domain
  for (const turn of [0, 1]) {
    const lying = { ...component, rotation: ((component.rotation + turn) % 4) as SheetComponent['rotation'] }
    // a component that is connected already stays as it is
    if (turn && ports.some((p) => pipesAt(sheet, { component: id, port: p.name }).length)) break
    const free = placedPorts(lying).filter(({ port }) => !pipesAt(sheet, { component: id, port }).length)
    for (const pipe of sheet.pipes) {
      const fitting = free.filter(({ port }) => domain(port) === lineDomain(pipe.lineType))
      const points = polyline(sheet, pipe)
      for (let i = 0; i + 1 < points.length; i++) {
        const on = fitting.filter(({ at }) => between(points[i], points[i + 1], at))
        if (on.length < 2) continue
        const along = ({ at }: (typeof on)[number]) =>
          Math.abs(at[0] - points[i][0]) + Math.abs(at[1] - points[i][1])
        const [a, b] = [...on].sort((m, n) => along(m) - along(n))
        const [first, second] = splitRoute(pipe, points, i, a.at, b.at)
        const before: Pipe = { ...pipe, ...first, to: { component: id, port: a.port } }
        const after: Pipe = {
          ...pipe,
          ...second,
          name: undefined,
          id: unusedName(
            'L',
            sheet.pipes.map((p) => p.id),
          ),
          from: { component: id, port: b.port },
        }
        return {
          ...sheet,
          components: sheet.components.map((c) => (c.id === id ? lying : c)),
          pipes: sheet.pipes.flatMap((p) =>
            p.id === pipe.id ? [pipeSchema.parse(before), pipeSchema.parse(after)] : [p],
          ),
        }
      }
    }
  }
  return sheet
}
const between = (a: XY, b: XY, p: XY) =>
  (a[0] === b[0] && p[0] === a[0] && (p[1] - a[1]) * (p[1] - b[1]) <= 0) ||
  (a[1] === b[1] && p[1] === a[1] && (p[0] - a[0]) * (p[0] - b[0]) <= 0)

/** Removes parts as `remove` does; a component that stood in a line, with one pipe at each of its two ends, leaves the line whole. */
export function removeAndReconnect(sheet: Sheet, ids: readonly string[]): Sheet {
  const gone = new Set(ids)
  const joins: { from: PipeEnd; to: PipeEnd; pipe: Pipe }[] = []
  for (const component of sheet.components) {
    if (!gone.has(component.id)) continue
    // a relief or a directional valve parts lines that must not become one
    const through = (findKind(component.kind)?.traits?.paths ?? []).filter(
      (path: { type: string }) => path.type === 'open' || path.type === 'oneWay',
    )
    const at = sheet.pipes.filter((p) =>
      [p.from, p.to].some((e) => 'component' in e && e.component === component.id),
    )
    if (at.length !== 2) continue
    const own = (p: Pipe) => ('component' in p.from && p.from.component === component.id ? p.from : p.to)
    const far = (p: Pipe) => (own(p) === p.from ? p.to : p.from)
    const ports = at.map((p) => (own(p) as { port: string }).port)
    const passes = through.some(
      (path: { from: string; to: string }) => ports.includes(path.from) && ports.includes(path.to),
    )
    const ends = at.map(far)
    if (
      ports[0] === ports[1] ||
      !passes ||
      at.some((p) => gone.has(p.id)) ||
      ends.some((e) => gone.has('junction' in e ? e.junction : e.component)) ||
      sameEnd(ends[0], ends[1])
    )
      continue
    joins.push({ from: ends[0], to: ends[1], pipe: at[0] })
  }
  let result = remove(
    sheet,
    ids,
    joins.flatMap(({ from, to }) => [from, to]),
  )
  for (const { from, to, pipe } of joins) {
    const laid = connect(result, from, to, pipe.lineType)
    if ('problem' in laid) continue
    const { name, lineType: line, bore, lineModel } = pipe
    result = changePipe(laid.sheet, laid.id, { name, lineType: line, bore, lineModel })
  }
  return result
}

/** Which port of one kind replaces which of another: those of the same name first, then in their order. */
function portMap(from: AnyKind, to: AnyKind): Map<string, string> {
  const map = new Map<string, string>()
  const named = (kind: AnyKind, port: AnyKind['ports'][number]) =>
    kind.ports.find((p) => p.name === port.name && p.domain === port.domain)
  const left = to.ports.filter((p) => !named(from, p))
  for (const port of from.ports) {
    const next = named(to, port) ?? left.find((p) => p.domain === port.domain)
    if (!next) continue
    map.set(port.name, next.name)
    if (left.includes(next)) left.splice(left.indexOf(next), 1)
  }
  return map
}

/**
 * Puts another kind in the place of a component: it keeps its id, place, values of the same name and meaning, and what
 * is connected to it as far as the new kind has ports; other pipes and commands that it does not have are removed.
 */
export function replaceKind(sheet: Sheet, id: string, kindName: string): Sheet {
  const component = sheet.components.find((c) => c.id === id)
  const from = component && findKind(component.kind)
  const to = findKind(kindName)
  if (!component || !from || !to || from === to) return sheet
  const ports = portMap(from, to)
  const lost = from.ports.filter((p) => !ports.has(p.name)).map((p) => p.name)
  const isLost = (end: PipeEnd) => 'component' in end && end.component === id && lost.includes(end.port)
  const without = remove(
    sheet,
    sheet.pipes.filter((p) => isLost(p.from) || isLost(p.to)).map((p) => p.id),
  )
  const end = (e: PipeEnd): PipeEnd =>
    'component' in e && e.component === id ? { component: id, port: ports.get(e.port)! } : e
  const kept = Object.entries(component.parameters).filter(([name]) => {
    const [before, after] = [from.parameters[name], to.parameters[name]]
    return after && before.type === after.type && before.quantity === after.quantity && !('choices' in after)
  })
  const commands = [...(to.inputs ?? []), ...(to.faults ?? [])].map((spec: { name: string }) => spec.name)
  return rerouteConnected(
    {
      ...without,
      components: without.components.map((c) =>
        c.id === id ? { ...c, kind: kindName, form: undefined, parameters: Object.fromEntries(kept) } : c,
      ),
      pipes: without.pipes.map((p) => ({ ...p, from: end(p.from), to: end(p.to) })),
      schedules: without.schedules.map((s) => ({
        ...s,
        tracks: s.tracks.filter((t) => t.component !== id || commands.includes(t.input)),
      })),
    },
    new Set([id]),
  )
}
