/**
 * Paths as a drawing with automatic layout: numbered upright current paths, or rungs between two upright rails, with symbols of
 * IEC 60617 or with brackets (IEC 61131-3). Coordinates in modules of 2.5 mm, y down.
 */
import type { Point, Shape } from '../catalogue/symbol'
import { resolveComponent } from '../sheet/resolve'
import type { ControlSection, Rung, Sheet } from '../sheet/schema'
import type { Rect } from '../sheet/geometry'
import { ACTUATORS, bracketCoil, bracketContact, coilSymbol, contactSymbol, LOOKS } from './contact-symbols'
import { parseExpression, type Expression } from './expression'
import { Names, offeredCoils, offeredContacts, resolveDevice } from './terminals'

/** What current may flow through: wires and contacts belong to a node of the expression of their path, numbered from its root on. */
interface InPath {
  readonly rung: string
  readonly node: number
}
export interface DrawnContact extends InPath {
  readonly ref: string
  readonly name: string
  readonly closed: boolean
  /** Which contact of its path it is. */
  readonly index: number
  readonly box: Rect
  readonly shapes: readonly Shape[]
  readonly labelAt: Point
  readonly anchor: 'start' | 'middle' | 'end'
  /** Number of the current path, or of the rung, in which it stands. */
  readonly place: number
  /** Its relay, by number, where contacts of one relay have one colour; −1 where it is none. */
  readonly relay: number
}
export interface DrawnCoil {
  readonly rung: string
  readonly ref: string
  readonly name: string
  readonly label: string
  readonly box: Rect
  readonly shapes: readonly Shape[]
  readonly labelAt: Point
  readonly anchor: 'start' | 'middle' | 'end'
  readonly place: number
  readonly relay: number
}
export interface Wire {
  readonly rung: string
  /** Nodes whose current it carries. */
  readonly nodes: readonly number[]
  readonly points: readonly Point[]
}
export interface DrawnText {
  readonly at: Point
  readonly text: string
  readonly size: number
  readonly anchor: 'start' | 'middle' | 'end'
  readonly rung?: string
}
/** Where the contacts of a relay stand. */
export interface ContactTable {
  readonly ref: string
  readonly at: Point
  readonly open: readonly number[]
  readonly closed: readonly number[]
}
export interface DrawnRung {
  readonly id: string
  readonly number: number
  readonly box: Rect
  /** Why it cannot be drawn. */
  readonly problem?: string
}
export interface ControlDrawing {
  readonly rungs: readonly DrawnRung[]
  readonly contacts: readonly DrawnContact[]
  readonly coils: readonly DrawnCoil[]
  readonly wires: readonly Wire[]
  /** Points where wires are joined. */
  readonly dots: readonly Point[]
  readonly rails: readonly Wire[]
  readonly texts: readonly DrawnText[]
  readonly tables: readonly ContactTable[]
  readonly bounds: Rect
}

/** Lengths along the current and across it, in modules. */
const SPACING = {
  paths: { contact: 6, across: 9, lead: 2, coil: 6, gap: 4 },
  rails: { contact: 9, across: 7, lead: 2, coil: 12, gap: 1 },
} as const
const LETTERS = 1.5
const SMALL = 1.2
/** Node of wires that carry the current of the whole path. */
const ROOT = 0

interface Size {
  readonly along: number
  readonly across: number
}

export function drawControl(sheet: Sheet): ControlDrawing {
  return new Draughtsman(sheet).draw()
}

class Draughtsman {
  private readonly control: ControlSection
  private readonly upright: boolean
  private readonly contactNames: Names
  private readonly coilNames: Names
  private readonly relays: ReadonlyMap<string, number>
  private readonly contacts: DrawnContact[] = []
  private readonly coils: DrawnCoil[] = []
  private readonly wires: Wire[] = []
  private readonly dots: Point[] = []
  private readonly texts: DrawnText[] = []
  private readonly rungs: DrawnRung[] = []
  private readonly space: (typeof SPACING)[keyof typeof SPACING]
  /** Where the present path stands across, its number, and the number of its next node and contact. */
  private rung!: Rung
  private number = 0
  private node = 0
  private contact = 0
  private origin = 0

  constructor(private readonly sheet: Sheet) {
    this.control = sheet.control
    this.upright = this.control.layout === 'paths'
    this.space = SPACING[this.control.layout]
    this.contactNames = new Names(offeredContacts(sheet))
    this.coilNames = new Names(offeredCoils(sheet))
    this.relays = new Map(
      sheet.control.devices.filter((d) => resolveDevice(d).resolved?.type.coils).map(({ id }, i) => [id, i]),
    )
  }

  /** A point along the current and across it, on the drawing. */
  private at = (along: number, across: number): Point =>
    this.upright ? [this.origin + across, along] : [along, this.origin + across]

  draw(): ControlDrawing {
    const read = this.control.rungs.map((rung) => {
      const parsed = parseExpression(rung.contacts)
      return { rung, parsed, size: parsed.ok ? this.sizeOf(parsed.expression) : { along: 0, across: 1 } }
    })
    const { space } = this
    const longest = Math.max(space.contact, ...read.map(({ size }) => size.along))
    const coilAt = space.lead + longest + space.lead
    const end = coilAt + space.coil
    let position = this.upright ? 6 : 4
    for (const [i, { rung, parsed, size }] of read.entries()) {
      this.rung = rung
      // current paths are numbered one by one, rungs as a whole
      if (!this.upright) this.number = i + 1
      else this.number = this.nextColumn(read.slice(0, i))
      this.node = this.contact = 0
      this.origin = position
      const across = Math.max(size.across, rung.coils.length, 1)
      const start = space.lead
      if (parsed.ok) {
        this.wire(ROOT, [0, 0], [start, 0])
        const to = parsed.expression ? start + this.sizeOf(parsed.expression).along : start
        if (parsed.expression) this.place(parsed.expression, start, 0)
        else this.node++
        this.wire(ROOT, [to, 0], [coilAt, 0])
      }
      this.placeCoils(rung, coilAt, end)
      const first = this.at(0, -space.across / 2)
      const last = this.at(end, (across - 0.5) * space.across)
      this.rungs.push({
        id: rung.id,
        number: i + 1,
        box: this.upright
          ? { x: first[0] - 3.3, y: first[1], w: last[0] - first[0], h: last[1] - first[1] }
          : { x: first[0], y: first[1] - 2, w: last[0] - first[0], h: last[1] - first[1] },
        ...(parsed.ok ? {} : { problem: parsed.error.message }),
      })
      this.writeComment(rung, end)
      position += across * space.across + (this.upright ? 0 : space.gap)
    }
    const tables = this.tables(end)
    const rails = this.rails(position, end)
    return {
      rungs: this.rungs,
      contacts: this.contacts,
      coils: this.coils,
      wires: this.wires,
      dots: this.dots,
      rails,
      texts: [...this.texts, ...this.numbers(read, position)],
      tables,
      bounds: this.bounds(position, end, tables),
    }
  }

  /** Columns that the paths before take up, and one. */
  private nextColumn(before: readonly { readonly rung: Rung; readonly size: Size }[]): number {
    return 1 + before.reduce((sum, { rung, size }) => sum + Math.max(size.across, rung.coils.length, 1), 0)
  }

  private sizeOf(expression: Expression | undefined): Size {
    if (!expression) return { along: 0, across: 1 }
    if (expression.kind === 'contact' || expression.kind === 'active')
      return { along: this.space.contact, across: 1 }
    const parts = expression.parts.map((part) => this.sizeOf(part))
    const sum = (of: (s: Size) => number) => parts.reduce((total, part) => total + of(part), 0)
    const most = (of: (s: Size) => number) => Math.max(...parts.map(of))
    return expression.kind === 'series'
      ? { along: sum((s) => s.along), across: most((s) => s.across) }
      : { along: most((s) => s.along) + 2, across: sum((s) => s.across) }
  }

  private wire(node: number | readonly number[], ...points: Point[]): void {
    const placed = points.map(([along, across]) => this.at(along, across * this.space.across))
    const [a, b] = [placed[0], placed[placed.length - 1]]
    if (a[0] === b[0] && a[1] === b[1]) return
    this.wires.push({ rung: this.rung.id, nodes: [node].flat(), points: placed })
  }

  /** Draws an expression from a place along the current on. @param row across, in rows */
  private place(expression: Expression, along: number, row: number): void {
    const node = this.node++
    switch (expression.kind) {
      case 'contact':
      case 'active':
        return this.placeContact(expression, node, along, row)
      case 'series': {
        let from = along
        for (const part of expression.parts) {
          this.place(part, from, row)
          from += this.sizeOf(part).along
        }
        return
      }
      case 'parallel': {
        const { along: length } = this.sizeOf(expression)
        const [from, to] = [along + 1, along + length - 1]
        this.wire(node, [along, row], [from, row])
        this.wire(node, [to, row], [along + length, row])
        let branch = row
        let before = row
        // what a part of the cross wires carries goes on to this branch and to those behind it
        const firsts = expression.parts.map((_, i) =>
          expression.parts.slice(0, i).reduce((sum, part) => sum + nodesOf(part), this.node),
        )
        expression.parts.forEach((part, i) => {
          const size = this.sizeOf(part)
          const behind = firsts.slice(i)
          if (i > 0) {
            this.wire(behind, [from, before], [from, branch])
            this.wire(behind, [to, branch], [to, before])
          }
          const own = this.node
          this.place(part, from, branch)
          this.wire(own, [from + size.along, branch], [to, branch])
          this.dots.push(this.at(from, branch * this.space.across), this.at(to, branch * this.space.across))
          before = branch
          branch += size.across
        })
        // the last branch turns a corner
        this.dots.splice(-2, 2)
        return
      }
    }
  }

  private placeContact(
    expression: Extract<Expression, { kind: 'contact' | 'active' }>,
    node: number,
    along: number,
    row: number,
  ): void {
    const { space } = this
    const centre = along + space.contact / 2
    const across = row * space.across
    const closed = expression.kind === 'contact' && expression.closed
    const put = (p: Point): Point => this.at(centre + p[0], across + p[1])
    const ref = expression.name
    const owner = ref.split('.')[0]
    this.wire(node, [along, row], [centre - 1, row])
    this.wire(node, [centre + 1, row], [along + space.contact, row])
    const shapes =
      this.control.symbols === 'brackets'
        ? bracketContact(closed, put)
        : contactSymbol(closed, this.actuatorOf(owner), put)
    const [x, y] = put([0, 0])
    const seconds = expression.kind === 'active' ? ` ${expression.seconds} s` : ''
    const marked = this.control.symbols === 'iec60617' && this.actuatorOf(owner) !== 'none'
    const beside = marked ? 4 : 1.8
    this.contacts.push({
      rung: this.rung.id,
      node,
      ref,
      name: this.contactNames.nameOf(ref) + seconds,
      closed,
      index: this.contact++,
      box: this.upright
        ? { x: x - 7.6, y: y - space.contact / 2, w: space.across - 0.2, h: space.contact }
        : { x: x - space.contact / 2, y: y - 5.2, w: space.contact, h: 6.4 },
      shapes,
      labelAt: this.upright ? [x - beside, y + 0.5] : [x, y - (marked ? 4 : 1.6)],
      anchor: this.upright ? 'end' : 'middle',
      place: this.upright ? this.number + row : this.number,
      relay: this.relays.get(owner) ?? -1,
    })
  }

  /** What acts on a contact: by its letter on the sheet, or by hand. */
  private actuatorOf(owner: string): string {
    const device = this.control.devices.find((d) => d.id === owner)
    if (device) {
      const { resolved } = resolveDevice(device)
      return resolved ? (ACTUATORS[resolved.type.name] ?? 'none') : 'none'
    }
    const component = this.sheet.components.find((c) => c.id === owner)
    const { resolved } = component ? resolveComponent(component) : {}
    if (!resolved) return 'none'
    if (resolved.kind.ports.some((p: { domain: string }) => p.domain !== 'oil')) return 'roller'
    const letter = resolved.kind.symbol(resolved.values).shapes.find((s: Shape) => s.shape === 'text')
    return letter?.shape === 'text' ? letter.text : 'none'
  }

  private placeCoils(rung: Rung, coilAt: number, end: number): void {
    const { space } = this
    const coils = rung.coils.length ? rung.coils : []
    if (!coils.length) {
      this.wire(ROOT, [coilAt, 0], [coilAt + 1, 0])
      return
    }
    coils.forEach((ref, row) => {
      const across = row * space.across
      const centre = coilAt + (this.upright ? space.coil / 2 : 4)
      if (row > 0) this.wire(ROOT, [coilAt, 0], [coilAt, row])
      this.wire(ROOT, [coilAt, row], [centre - 1, row])
      this.wire(ROOT, [centre + 1, row], [end, row])
      const put = (p: Point): Point => this.at(centre + p[0], across + p[1])
      const [x, y] = put([0, 0])
      const owner = ref.split('.')[0]
      const device = this.control.devices.find((d) => d.id === owner)
      const type = device && resolveDevice(device).resolved?.type.name
      this.coils.push({
        rung: rung.id,
        ref,
        name: this.coilNames.nameOf(ref),
        label: device?.label ?? '',
        box: this.upright
          ? { x: x - 7, y: y - 3, w: space.across, h: 6 }
          : { x: x - 3, y: y - 3, w: 8, h: 5 },
        shapes:
          this.control.symbols === 'brackets' && !LOOKS[type ?? '']
            ? bracketCoil(put)
            : coilSymbol(type, put, this.upright),
        labelAt: this.upright
          ? [x - (type === 'timer' ? 3.5 : 2.4), y + 0.5]
          : [x, y - (type === 'timer' ? 3.6 : 2.2)],
        anchor: this.upright ? 'end' : 'middle',
        place: this.upright ? this.number + row : this.number,
        relay: this.relays.get(owner) ?? -1,
      })
    })
  }

  private writeComment(rung: Rung, end: number): void {
    if (!rung.comment) return
    if (this.upright) return
    const [x, y] = this.at(end + 1, 0)
    this.texts.push({
      at: [x + 0.6, y + 0.5],
      text: rung.comment,
      size: SMALL,
      anchor: 'start',
      rung: rung.id,
    })
  }

  /** Numbers of current paths above them, of rungs before them. */
  private numbers(
    read: readonly { readonly rung: Rung; readonly size: Size }[],
    position: number,
  ): DrawnText[] {
    const { space } = this
    if (!this.upright)
      return this.rungs.map(({ number, box, id }) => ({
        at: [-1.5, box.y + space.across / 2 + 2.5],
        text: String(number),
        size: LETTERS,
        anchor: 'end',
        rung: id,
      }))
    let column = 0
    return read.flatMap(({ rung, size }) =>
      Array.from({ length: Math.max(size.across, rung.coils.length, 1) }, (): DrawnText => {
        column++
        return {
          at: [6 + (column - 1) * space.across, -2.4],
          text: String(column),
          size: LETTERS,
          anchor: 'middle',
          rung: rung.id,
        }
      }).filter((_, i) => i < Math.max(1, Math.min(size.across, position))),
    )
  }

  private rails(position: number, end: number): Wire[] {
    const rail = (points: readonly Point[]): Wire => ({ rung: '', nodes: [], points })
    const last = Math.max(position - (this.upright ? this.space.across / 2 : this.space.gap), 10)
    return this.upright
      ? [
          rail([
            [0, 0],
            [last, 0],
          ]),
          rail([
            [0, end],
            [last, end],
          ]),
        ]
      : [
          rail([
            [0, -1],
            [0, last],
          ]),
          rail([
            [end, -1],
            [end, last],
          ]),
        ]
  }

  /** Where the contacts of each relay stand, below its coil or beside it. */
  private tables(end: number): ContactTable[] {
    return this.coils.flatMap((coil): ContactTable[] => {
      const own = this.contacts.filter((c) => c.ref === coil.ref)
      if (!own.length) return []
      const places = (closed: boolean) => [
        ...new Set(own.filter((c) => c.closed === closed).map((c) => c.place)),
      ]
      const { x, y } = coil.box
      return [
        {
          ref: coil.ref,
          at: this.upright ? [x + 7, end + 2.2] : [x + coil.box.w + 3.4, y + 3.5],
          open: places(false),
          closed: places(true),
        },
      ]
    })
  }

  private bounds(position: number, end: number, tables: readonly ContactTable[]): Rect {
    const below = Math.max(0, ...tables.map((t) => Math.max(t.open.length, t.closed.length)))
    return this.upright
      ? { x: -4, y: -5, w: position + 6, h: end + 10 + 1.8 * below }
      : { x: -6, y: -4, w: end + 44, h: position + 6 }
  }
}

/** Nodes of an expression, itself among them. */
const nodesOf = (expression: Expression): number =>
  expression.kind === 'series' || expression.kind === 'parallel'
    ? expression.parts.reduce((sum, part) => sum + nodesOf(part), 1)
    : 1

/** Nodes of the expression of a path through which current flows now, by their numbers. */
export function carryingNodes(
  expression: Expression | undefined,
  isClosed: (contact: Extract<Expression, { kind: 'contact' | 'active' }>) => boolean,
): ReadonlySet<number> {
  const carrying = new Set<number>()
  if (!expression) return new Set([ROOT])
  let count = 0
  interface Node {
    readonly number: number
    readonly passes: boolean
    readonly parts: readonly Node[]
  }
  const build = (e: Expression): Node => {
    const number = count++
    if (e.kind === 'contact' || e.kind === 'active') return { number, passes: isClosed(e), parts: [] }
    const parts = e.parts.map(build)
    return {
      number,
      parts,
      passes: e.kind === 'series' ? parts.every((p) => p.passes) : parts.some((p) => p.passes),
    }
  }
  const mark = (node: Node): void => {
    if (!node.passes) return
    carrying.add(node.number)
    node.parts.forEach(mark)
  }
  mark(build(expression))
  return carrying
}
