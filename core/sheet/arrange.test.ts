import { describe, expect, it } from 'vitest'
import { circuit, idOf, messages, powerUnit, powerUnitPipes } from '../testing'
import {
  align,
  copy,
  distribute,
  edges,
  replaceKind,
  routeAround,
  paste,
  removeAndReconnect,
  insertInPipe,
  type Edge,
} from './arrange'
import { addComponent, connect, move, setParameter } from './edit'
import { outline, placedPorts, polyline } from './geometry'
import { readSheet } from './read'
import { emptySheet, type Sheet } from './schema'

const unit = circuit(powerUnit, powerUnitPipes)
const all = (sheet: Sheet) => [...sheet.components, ...sheet.junctions].map((item) => item.id)
const sound = (sheet: Sheet) => {
  const read = readSheet(sheet)
  return read.ok ? [] : read.problems.map((p) => p.message)
}
/** A source and an orifice to its right, with a straight pipe between them. */
function straight() {
  let sheet = emptySheet('Line')
  const first = addComponent(sheet, 'pressure-source', { x: 0, y: 0, rotation: 3 })
  const second = addComponent(first.sheet, 'orifice', { x: 40, y: 0 })
  sheet = second.sheet
  const from = { component: first.id, port: 'P' }
  const [a] = placedPorts(sheet.components[0])
  const b = placedPorts(sheet.components[1]).find((p) => p.port === 'A')!
  sheet = move(sheet, [second.id], 0, a.at[1] - b.at[1])
  const laid = connect(sheet, from, { component: second.id, port: 'A' })
  if ('problem' in laid) throw new Error(laid.problem)
  return laid.sheet
}

describe('a part that is put on a pipe', () => {
  const sheet = straight()
  const [pipe] = sheet.pipes
  const middle = polyline(sheet, pipe)[0]
  /** A gauge has one port: it cannot be put into the pipe. */
  const put = (on: Sheet) => {
    const added = addComponent(on, 'pressure-gauge', { x: 20, y: middle[1] })
    return routeAround(insertInPipe(added.sheet, added.id), [added.id], on)
  }
  const runsThrough = (s: Sheet) => {
    const gauge = outline(s.components[2])
    const points = polyline(s, s.pipes[0])
    return points.some(
      ([x, y], i) =>
        i > 0 && y > gauge.y && y < gauge.y + gauge.h && points[i - 1][0] < gauge.x && x > gauge.x,
    )
  }
  it('has it led round, and its ends stay', () => {
    const added = addComponent(sheet, 'pressure-gauge', { x: 20, y: middle[1] }).sheet
    expect(runsThrough(added)).toBe(true)
    const round = put(sheet)
    expect(runsThrough(round)).toBe(false)
    expect(round.pipes[0]).toMatchObject({ id: pipe.id, from: pipe.from, to: pipe.to })
    expect(sound(round)).toEqual([])
  })
  it('leaves what was shaped by hand, and what was under it before', () => {
    const manual = { ...sheet, pipes: [{ ...pipe, manualRoute: true as const }] }
    expect(runsThrough(put(manual))).toBe(true)
    const added = addComponent(sheet, 'pressure-gauge', { x: 20, y: middle[1] })
    const along = move(added.sheet, [added.id], 1, 0)
    expect(routeAround(along, [added.id], added.sheet)).toBe(along)
  })
})

describe('copy and paste', () => {
  it('keeps how a part is drawn and that people may be under it', () => {
    const sheet = circuit({ ram: ['cylinder-double-acting', { bore: '80 mm' }] }, [])
    const marked: Sheet = {
      ...sheet,
      components: sheet.components.map((c) => ({ ...c, peopleUnder: true, form: 'detailed', rotation: 1 })),
    }
    const copied = paste(marked, copy(marked, all(marked)), 5, 5).sheet.components[1]
    const { id, designation, x, y, ...rest } = marked.components[0]
    expect(copied).toMatchObject({ ...rest, x: x + 5, y: y + 5 })
    expect([copied.id, copied.designation]).not.toEqual([id, designation])
  })
  it('brings parts and the pipes between them under new names, which run as the old ones do', () => {
    const { sheet, ids } = paste(unit, copy(unit, all(unit)), 0, 40)
    expect(ids).toHaveLength(unit.components.length)
    expect(sheet.pipes).toHaveLength(2 * unit.pipes.length)
    const named = sheet.components.filter((c) => c.kind !== 'reservoir').map((c) => c.designation)
    expect(new Set(named).size).toBe(named.length)
    expect(
      new Set(sheet.components.filter((c) => c.kind === 'reservoir').map((c) => c.designation)).size,
    ).toBe(1)
    expect(messages(sheet)).toEqual([])
    expect(sound(sheet)).toEqual([])
    const shift = (k: number) => polyline(sheet, sheet.pipes[k]).map(([x, y]) => [x, y + 40])
    unit.pipes.forEach((_, k) =>
      expect(polyline(sheet, sheet.pipes[unit.pipes.length + k])).toEqual(shift(k)),
    )
  })
  it('goes from one machine to another, values and form kept', () => {
    const drifted = setParameter(unit, idOf(unit, 'relief-valve-direct'), 'setting', '77 bar')
    const { sheet } = paste(emptySheet('Other'), copy(drifted, [idOf(unit, 'relief-valve-direct')]), 3, 4)
    expect(sheet.components[0].parameters).toEqual({ setting: '77 bar' })
    expect(sheet.pipes).toEqual([])
  })
})

describe('arranging', () => {
  it.each(Object.keys(edges) as Edge[])('aligns by %s', (edge) => {
    const { axis, share } = edges[edge]
    const aligned = align(unit, all(unit), edge)
    const lines = aligned.components.map(
      (c) => outline(c)[axis] + share * outline(c)[axis === 'x' ? 'w' : 'h'],
    )
    expect(Math.max(...lines) - Math.min(...lines)).toBeLessThan(1)
    expect(sound(aligned)).toEqual([])
  })
  it('leaves one alone', () => expect(align(unit, [unit.components[0].id], 'left')).toBe(unit))
  it('makes distances equal and keeps the outermost', () => {
    const uneven = move(unit, [unit.components[1].id], 7, 0)
    const xs = distribute(uneven, all(unit), 'x').components.map((c) => outline(c).x + outline(c).w / 2)
    const before = uneven.components.map((c) => outline(c).x + outline(c).w / 2)
    expect(Math.min(...xs)).toBe(Math.min(...before))
    expect(Math.max(...xs)).toBe(Math.max(...before))
    const sorted = [...xs].sort((a, b) => a - b)
    const gaps = sorted.slice(1).map((x, i) => x - sorted[i])
    expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThanOrEqual(2)
  })
})

describe('splicing', () => {
  it('puts a part that lies on a pipe into it, and healing takes it out again', () => {
    const sheet = straight()
    const y = polyline(sheet, sheet.pipes[0])[0][1]
    const added = addComponent(sheet, 'check-valve', { x: 20, y })
    const spliced = insertInPipe(added.sheet, added.id)
    expect(spliced.pipes).toHaveLength(2)
    expect(spliced.pipes.map((p) => [p.from, p.to]).flat()).toEqual(
      expect.arrayContaining([
        { component: added.id, port: 'A' },
        { component: added.id, port: 'B' },
      ]),
    )
    expect(sound(spliced)).toEqual([])
    const healed = removeAndReconnect(spliced, [added.id])
    expect(healed.pipes).toHaveLength(1)
    expect(polyline(healed, healed.pipes[0])).toEqual(polyline(sheet, sheet.pipes[0]))
  })
  it('does nothing beside a pipe, or on a shaft', () => {
    const sheet = straight()
    const y = polyline(sheet, sheet.pipes[0])[0][1]
    const beside = addComponent(sheet, 'check-valve', { x: 20, y: y + 1 })
    expect(insertInPipe(beside.sheet, beside.id)).toBe(beside.sheet)
    const shaft = { ...sheet, pipes: sheet.pipes.map((p) => ({ ...p, lineType: 'shaft' as const })) }
    const on = addComponent(shaft, 'check-valve', { x: 20, y })
    expect(insertInPipe(on.sheet, on.id)).toBe(on.sheet)
  })
  it('does not join what must stay apart: the lines of a pump, of a relief valve', () => {
    expect(removeAndReconnect(unit, [idOf(unit, 'fixed-pump')]).pipes).toHaveLength(unit.pipes.length - 3)
    expect(removeAndReconnect(unit, [idOf(unit, 'relief-valve-direct')]).pipes).toHaveLength(
      unit.pipes.length - 2,
    )
  })
})

describe('exchanging a kind', () => {
  it('keeps place, pipes and values of the same meaning', () => {
    const relief = idOf(unit, 'relief-valve-direct')
    const set = setParameter(unit, relief, 'setting', '88 bar')
    const exchanged = replaceKind(set, relief, 'relief-valve-pilot-operated')
    const now = exchanged.components.find((c) => c.id === relief)!
    expect([now.kind, now.parameters]).toEqual(['relief-valve-pilot-operated', { setting: '88 bar' }])
    expect(exchanged.pipes).toHaveLength(unit.pipes.length)
    expect(messages(exchanged)).toEqual([])
  })
  it('joins other names in their order, and lets go of pipes it has no port for', () => {
    const pump = idOf(unit, 'fixed-pump')
    const exchanged = replaceKind(unit, pump, 'check-valve')
    expect(exchanged.pipes).toHaveLength(unit.pipes.length - 1)
    expect(sound(exchanged)).toEqual([])
  })
  it('keeps commands that the new kind knows and drops the others', () => {
    const motor = idOf(unit, 'electric-motor')
    const track = (input: string) => ({
      component: motor,
      input,
      points: [{ at: '1 s', value: '1', shape: 'step' as const }],
    })
    const [main] = unit.schedules
    const scheduled = { ...unit, schedules: [{ ...main, tracks: [track('lost'), track('speed')] }] }
    const exchanged = replaceKind(scheduled, motor, 'induction-motor')
    expect(exchanged.schedules[0].tracks.map((t) => t.input)).toEqual(['lost'])
  })
})
