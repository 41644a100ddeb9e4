import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { circuit, powerUnit, powerUnitPipes } from '../testing'
import {
  addComponent,
  connect,
  swapPorts,
  mirror,
  move,
  movePipeEnd,
  pipesAt,
  remove,
  rotate,
  splitPipe,
} from './edit'
import { outline, placedPorts, polyline } from './geometry'
import { buildNetlist } from './netlist'
import { readSheet, readSheetText, writeSheetText } from './read'
import { emptySheet, type Sheet } from './schema'

const isOrthogonal = (sheet: Sheet) =>
  sheet.pipes.every((pipe) => {
    const points = polyline(sheet, pipe)
    return points.slice(1).every((p, i) => p[0] === points[i][0] || p[1] === points[i][1])
  })
const endsAtPorts = (sheet: Sheet) =>
  sheet.pipes.every((pipe) => {
    const points = polyline(sheet, pipe)
    return [pipe.from, pipe.to].every((end, i) => {
      const at = points[i ? points.length - 1 : 0]
      if ('junction' in end) {
        const junction = sheet.junctions.find((j) => j.id === end.junction)!
        return junction.x === at[0] && junction.y === at[1]
      }
      const port = placedPorts(sheet.components.find((c) => c.id === end.component)!).find(
        (p) => p.port === end.port,
      )!
      return port.at[0] === at[0] && port.at[1] === at[1]
    })
  })
const base = circuit(powerUnit, powerUnitPipes)
const idOf = (sheet: Sheet, kind: string) => sheet.components.find((c) => c.kind === kind)!.id
const pumpLine = (sheet: Sheet) => pipesAt(sheet, { component: idOf(sheet, 'fixed-pump'), port: 'P' })[0]

describe('edits', () => {
  it('leaves the sheet it was given untouched', () => {
    const before = writeSheetText(base)
    const pump = idOf(base, 'fixed-pump')
    for (const edit of [
      move(base, [pump], 3, 4),
      rotate(base, [pump]),
      mirror(base, [pump]),
      remove(base, [pump]),
    ])
      expect(edit).not.toBe(base)
    expect(writeSheetText(base)).toBe(before)
  })
  it('gives free ids and designations', () => {
    const first = addComponent(emptySheet('x'), 'fixed-pump')
    const second = addComponent(first.sheet, 'fixed-pump')
    expect([first.id, second.id]).toEqual(['P1', 'P2'])
    expect(second.sheet.components.map((c) => c.designation)).toEqual(['1-1P1', '1-1P2'])
  })
  it('keeps pipes orthogonal, at their ports and junctions, whatever is done', () => {
    const ids = base.components.map((c) => c.id)
    const action = fc.oneof(
      fc.record({
        do: fc.constant('move' as const),
        of: fc.constantFrom(...ids),
        dx: fc.integer({ min: -15, max: 15 }),
        dy: fc.integer({ min: -15, max: 15 }),
      }),
      fc.record({ do: fc.constant('rotate' as const), of: fc.constantFrom(...ids) }),
      fc.record({ do: fc.constant('mirror' as const), of: fc.constantFrom(...ids) }),
      fc.record({
        do: fc.constant('split' as const),
        x: fc.integer({ min: -20, max: 100 }),
        y: fc.integer({ min: -20, max: 20 }),
      }),
    )
    fc.assert(
      fc.property(fc.array(action, { maxLength: 8 }), (actions) => {
        let sheet: Sheet = base
        for (const a of actions) {
          if (a.do === 'move') sheet = move(sheet, [a.of], a.dx, a.dy)
          else if (a.do === 'rotate') sheet = rotate(sheet, [a.of])
          else if (a.do === 'mirror') sheet = mirror(sheet, [a.of])
          else sheet = splitPipe(sheet, pumpLine(sheet).id, [a.x, a.y]).sheet
        }
        expect(endsAtPorts(sheet)).toBe(true)
        expect(isOrthogonal(sheet)).toBe(true)
        // the oil is joined as before
        const nodes = (s: Sheet) =>
          buildNetlist(s)
            .netlist.nodes.map((n) => n.ports.length)
            .sort()
            .join()
        expect(nodes(sheet)).toBe(nodes(base))
      }),
      { numRuns: 60 },
    )
  })
  it('walks around symbols', () => {
    let sheet = emptySheet('x')
    for (const [kind, x] of [
      ['plug', 0],
      ['filter', 12],
      ['plug', 24],
    ] as const)
      sheet = addComponent(sheet, kind, { x, y: 0 }).sheet
    const [a, filter, b] = sheet.components
    const laid = connect(sheet, { component: a.id, port: 'A' }, { component: b.id, port: 'A' })
    if ('problem' in laid) throw new Error(laid.problem)
    const points = polyline(laid.sheet, laid.sheet.pipes[0])
    const box = outline(filter)
    for (let i = 1; i < points.length; i++) {
      const [[ax, ay], [bx, by]] = [points[i - 1], points[i]]
      const apart =
        Math.max(ax, bx) < box.x ||
        Math.min(ax, bx) > box.x + box.w ||
        Math.max(ay, by) < box.y ||
        Math.min(ay, by) > box.y + box.h
      expect(apart).toBe(true)
    }
  })
  it('joins a pipe that ends on a pipe, shares out its length, and heals when it goes', () => {
    const line = pumpLine(base)
    const added = addComponent(base, 'pressure-gauge', { x: 50, y: -20 })
    const points = polyline(added.sheet, line)
    const middle = points[Math.floor(points.length / 2)]
    const laid = connect(added.sheet, { component: added.id, port: 'P' }, { pipe: line.id, at: middle })
    if ('problem' in laid) throw new Error(laid.problem)
    expect(laid.sheet.junctions).toHaveLength(1)
    expect(laid.sheet.pipes).toHaveLength(base.pipes.length + 2)
    const total = laid.sheet.pipes
      .filter(
        (p) => p.id !== laid.id && p.lineType === 'working' && [p.from, p.to].some((e) => 'junction' in e),
      )
      .reduce((sum, p) => sum + Number(p.length.replace(' m', '')), 0)
    expect(total).toBeCloseTo(1, 6)
    const { netlist } = buildNetlist(laid.sheet)
    expect(netlist.nodeOf.get(`${added.id}.P`)).toBe(netlist.nodeOf.get(`${idOf(base, 'fixed-pump')}.P`))
    const healed = remove(laid.sheet, [added.id])
    expect(healed.junctions).toHaveLength(0)
    expect(healed.pipes).toHaveLength(base.pipes.length)
    expect(isOrthogonal(healed) && endsAtPorts(healed)).toBe(true)
  })
  it('removes what hangs on a component: pipes, commands, initial pressures', () => {
    const pump = idOf(base, 'fixed-pump')
    const motor = idOf(base, 'electric-motor')
    const sheet: Sheet = {
      ...base,
      initialPressures: { [`${pump}.P`]: '5 bar' },
      schedules: [
        {
          ...base.schedules[0],
          tracks: [
            { component: motor, input: 'speed', points: [{ at: '1 s', value: '0 rpm', shape: 'step' }] },
          ],
        },
      ],
    }
    const without = remove(sheet, [pump, motor])
    expect(without.initialPressures).toEqual({})
    expect(without.schedules[0].tracks).toEqual([])
    expect(without.pipes.map((p) => p.id)).toHaveLength(1)
    expect(readSheet(JSON.parse(writeSheetText(without))).ok).toBe(true)
  })
  it('turns a two-port component round and leads a pipe elsewhere', () => {
    const relief = idOf(base, 'relief-valve-direct')
    const turned = swapPorts(base, relief)
    expect(pipesAt(turned, { component: relief, port: 'T' })[0].id).toBe(pumpLine(base).id)
    expect(swapPorts(turned, relief).pipes.map((p) => [p.from, p.to])).toEqual(
      base.pipes.map((p) => [p.from, p.to]),
    )
    const gauge = addComponent(base, 'pressure-gauge', { x: 50, y: -20 })
    const line = pumpLine(gauge.sheet)
    const moved = movePipeEnd(gauge.sheet, line.id, 'to', { component: gauge.id, port: 'P' })
    if ('problem' in moved) throw new Error(moved.problem)
    expect(moved.sheet.pipes.find((p) => p.id === line.id)!.to).toEqual({ component: gauge.id, port: 'P' })
    expect(isOrthogonal(moved.sheet) && endsAtPorts(moved.sheet)).toBe(true)
  })
  it('refuses what cannot be joined', () => {
    const pump = idOf(base, 'fixed-pump')
    const shaft = { component: pump, port: 'W' }
    const oil = { component: pump, port: 'P' }
    expect(connect(base, shaft, oil)).toEqual({
      problem: expect.stringContaining('A shaft joins only a shaft'),
    })
    expect(connect(base, oil, oil)).toEqual({ problem: expect.stringContaining('two different ends') })
    expect(connect(base, oil, { component: idOf(base, 'relief-valve-direct'), port: 'P' })).toEqual({
      problem: expect.stringContaining('joined already'),
    })
    expect(movePipeEnd(base, pumpLine(base).id, 'to', { pipe: pumpLine(base).id, at: [0, 0] })).toEqual({
      problem: expect.stringContaining('end on itself'),
    })
  })
})

describe('sheet file', () => {
  it('reads back what it wrote', () => {
    const text = writeSheetText(base)
    const read = readSheetText(text)
    expect(read.ok && writeSheetText(read.sheet)).toBe(text)
  })
  it.each([
    ['not JSON', '{', 'not JSON'],
    ['another format', '{"format":"else"}', 'not an Oar Bench sheet'],
    ['no object', '[1]', 'not an Oar Bench sheet'],
    ['a newer version', '{"format":"oar-bench-sheet","version":99}', 'reads up to version'],
    ['an unknown field', '{"format":"oar-bench-sheet","version":1,"colour":"red"}', 'colour'],
    [
      'a bad id',
      '{"format":"oar-bench-sheet","version":1,"components":[{"id":"a b","kind":"plug"}]}',
      'components.0.id',
    ],
    [
      'two of one id',
      '{"format":"oar-bench-sheet","version":1,"components":[{"id":"a","kind":"plug"},{"id":"a","kind":"plug"}]}',
      'Two components have the id "a"',
    ],
    [
      'a pipe to nowhere',
      '{"format":"oar-bench-sheet","version":1,"pipes":[{"id":"l","from":{"junction":"j"},"to":{"component":"c","port":"A"}}]}',
      'ends at junction "j", which is not there',
    ],
  ])('refuses %s', (_what, text, words) => {
    const read = readSheetText(text)
    expect(read.ok).toBe(false)
    expect(!read.ok && read.problems.map((p) => p.message).join()).toContain(words)
  })
  it('needs only the essentials', () => {
    const read = readSheetText(
      '{"format":"oar-bench-sheet","version":1,"components":[{"id":"a","kind":"plug"}]}',
    )
    expect(read.ok && read.sheet.components[0]).toMatchObject({ x: 0, rotation: 0, mirrored: false })
  })
})
