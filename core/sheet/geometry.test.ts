import { describe, expect, it } from 'vitest'
import { addComponent, connect, splitPipe } from './edit'
import {
  alongPolyline,
  endAt,
  extent,
  longestPart,
  nearestOn,
  outline,
  transformPoint,
  placedPorts,
  transformRect,
  transformSide,
  polyline,
  polylineLength,
  simplify,
  type XY,
} from './geometry'
import { route } from './route'
import { emptySheet, SHEET_VERSION, sheetSchema, type Sheet } from './schema'

const at = (rotation: 0 | 1 | 2 | 3, mirrored = false, x = 10, y = 20) => ({ x, y, rotation, mirrored })

describe('placing', () => {
  it('turns clockwise, mirrors first, then moves', () => {
    expect([0, 1, 2, 3].map((r) => transformPoint([2, 1], at(r as 0)))).toEqual([
      [12, 21],
      [9, 22],
      [8, 19],
      [11, 18],
    ])
    expect(transformPoint([2, 1], at(0, true))).toEqual([8, 21])
    expect(transformPoint([2, 1], at(1, true))).toEqual([9, 18])
  })
  it('turns sides with their ports', () => {
    expect([0, 1, 2, 3].map((r) => transformSide('up', at(r as 0)))).toEqual(['up', 'right', 'down', 'left'])
    expect(transformSide('left', at(0, true))).toBe('right')
    expect(transformSide('up', at(0, true))).toBe('up')
    expect(transformSide('left', at(1, true))).toBe('down')
  })
  it('keeps rectangles upright', () => {
    expect(transformRect({ x: -3, y: -2, w: 8, h: 5 }, at(0, false, 0, 0))).toEqual({
      x: -3,
      y: -2,
      w: 8,
      h: 5,
    })
    expect(transformRect({ x: -3, y: -2, w: 8, h: 5 }, at(1, false, 0, 0))).toEqual({
      x: -3,
      y: -3,
      w: 5,
      h: 8,
    })
  })
  it('puts ports on the grid whichever way a component lies', () => {
    for (const rotation of [0, 1, 2, 3] as const)
      for (const mirrored of [false, true]) {
        const { sheet } = addComponent(emptySheet('x'), 'directional-valve-4-3', {
          x: 5,
          y: 7,
          rotation,
          mirrored,
        })
        const [component] = sheet.components
        const box = outline(component)
        for (const port of placedPorts(component)) {
          expect(port.at.every(Number.isInteger)).toBe(true)
          expect(
            port.at[0] > box.x &&
              port.at[0] < box.x + box.w &&
              port.at[1] > box.y &&
              port.at[1] < box.y + box.h,
          ).toBe(false)
        }
      }
  })
})

describe('polylines', () => {
  it('are walked along, round their corners, and not beyond their end', () => {
    const bent: XY[] = [
      [0, 0],
      [0, 1],
      [5, 1],
    ]
    expect([0, 0.5, 1, 1.25, 6, 9].map((far) => alongPolyline(bent, far))).toEqual([
      [0, 0],
      [0, 0.5],
      [0, 1],
      [0.25, 1],
      [5, 1],
      [5, 1],
    ])
    expect(longestPart(bent)).toEqual({ a: [0, 1], b: [5, 1], length: 5, index: 1 })
  })
  it('lose corners that are none, and keep those that turn back', () => {
    expect(
      simplify([
        [0, 0],
        [1, 0],
        [5, 0],
        [5, 0],
        [5, 4],
      ]),
    ).toEqual([
      [0, 0],
      [5, 0],
      [5, 4],
    ])
    expect(
      simplify([
        [0, 0],
        [5, 0],
        [3, 0],
      ]),
    ).toEqual([
      [0, 0],
      [5, 0],
      [3, 0],
    ])
  })
  it('have a length and a nearest point on the grid', () => {
    const line = [
      [0, 0],
      [6, 0],
      [6, 4],
    ] as const
    expect(polylineLength(line)).toBe(10)
    expect(nearestOn(line, [2.3, 1.2])).toMatchObject({ at: [2, 0], segment: 0 })
    expect(nearestOn(line, [9, 3.4])).toMatchObject({ at: [6, 3], segment: 1 })
    expect(nearestOn(line, [-4, -4])).toMatchObject({ at: [0, 0], segment: 0 })
  })
})

describe('routes', () => {
  const two = (x: number, y: number): Sheet => {
    let sheet = addComponent(emptySheet('x'), 'orifice', { x: 0, y: 0 }).sheet
    sheet = addComponent(sheet, 'orifice', { x, y }).sheet
    return sheet
  }
  const corners = (sheet: Sheet) =>
    route(
      sheet,
      { component: sheet.components[0].id, port: 'B' },
      { component: sheet.components[1].id, port: 'A' },
    )
  it('go straight where they can', () => expect(corners(two(20, 0))).toEqual([]))
  it('take one step where the ports are offset', () => {
    const line = corners(two(20, 6))
    expect(line).toHaveLength(2)
    expect(line[0][0]).toBe(line[1][0])
  })
  it('go round the component where the target lies behind', () => {
    const sheet = two(-20, 0)
    const line = corners(sheet)
    expect(line.length).toBeGreaterThanOrEqual(4)
    // it leaves to the right and arrives from the left
    expect(line[0][0]).toBeGreaterThan(2)
    expect(line[line.length - 1][0]).toBeLessThan(-22)
  })
  it('do not lie along another pipe', () => {
    let sheet = two(20, 4)
    sheet = addComponent(sheet, 'orifice', { x: 0, y: -8 }).sheet
    sheet = addComponent(sheet, 'orifice', { x: 20, y: -3 }).sheet
    const ids = sheet.components.map((c) => c.id)
    for (const [a, b] of [
      [ids[0], ids[1]],
      [ids[2], ids[3]],
    ]) {
      const laid = connect(sheet, { component: a, port: 'B' }, { component: b, port: 'A' })
      if ('problem' in laid) throw new Error(laid.problem)
      sheet = laid.sheet
    }
    const cells = (id: string) => {
      const points = polyline(
        sheet,
        sheet.pipes.find((p) => p.id === id)!,
      )
      const set = new Set<string>()
      for (let i = 1; i < points.length; i++) {
        const [[ax, ay], [bx, by]] = [points[i - 1], points[i]]
        const [dx, dy] = [Math.sign(bx - ax), Math.sign(by - ay)]
        for (let x = ax, y = ay; x !== bx || y !== by; x += dx, y += dy)
          set.add(`${x},${y},${dx ? 'h' : 'v'}`)
      }
      return set
    }
    const [one, other] = [cells(sheet.pipes[0].id), cells(sheet.pipes[1].id)]
    expect([...one].filter((c) => other.has(c))).toEqual([])
  })
  it('end nowhere for an end that is not there', () => {
    const sheet = two(20, 0)
    expect(endAt(sheet, { component: 'none', port: 'A' })).toBeUndefined()
    expect(endAt(sheet, { junction: 'none' })).toBeUndefined()
    expect(route(sheet, { component: 'none', port: 'A' }, { junction: 'none' })).toEqual([])
  })
})

describe('extent', () => {
  it('is some room for an empty sheet, and holds everything drawn', () => {
    expect(extent(emptySheet('x')).w).toBeGreaterThan(10)
    let sheet = addComponent(emptySheet('x'), 'orifice', { x: 0, y: 0 }).sheet
    sheet = addComponent(sheet, 'fixed-pump', { x: 40, y: 30 }).sheet
    const laid = connect(
      sheet,
      { component: sheet.components[0].id, port: 'B' },
      { component: sheet.components[1].id, port: 'P' },
    )
    if ('problem' in laid) throw new Error(laid.problem)
    const box = extent(laid.sheet)
    for (const [x, y] of polyline(laid.sheet, laid.sheet.pipes[0])) {
      expect(x >= box.x && x <= box.x + box.w).toBe(true)
      expect(y >= box.y && y <= box.y + box.h).toBe(true)
    }
    expect(box.y + box.h).toBeGreaterThanOrEqual(34)
  })
})

describe('splitting a pipe', () => {
  it('at the end that is a junction gives that junction', () => {
    let sheet = addComponent(emptySheet('x'), 'orifice', { x: 0, y: 0 }).sheet
    sheet = addComponent(sheet, 'orifice', { x: 20, y: 0 }).sheet
    const laid = connect(
      sheet,
      { component: sheet.components[0].id, port: 'B' },
      { component: sheet.components[1].id, port: 'A' },
    )
    if ('problem' in laid) throw new Error(laid.problem)
    const once = splitPipe(laid.sheet, laid.id, [10, 0])
    expect(once.sheet.junctions).toEqual([{ id: 'J1', x: 10, y: 0 }])
    const again = splitPipe(once.sheet, laid.id, [10, 0])
    expect(again.junction).toBe('J1')
    expect(again.sheet).toBe(once.sheet)
    expect(() => splitPipe(sheet, 'none', [0, 0])).toThrow('No pipe')
  })
})

describe('routes beside what a file may hold', () => {
  it('come to an end where another pipe slants', () => {
    const sheet = sheetSchema.parse({
      format: 'oar-bench-sheet',
      version: SHEET_VERSION,
      title: 'x',
      components: [
        { id: 'a', kind: 'reservoir', x: 0, y: 0 },
        { id: 'b', kind: 'reservoir', x: 13, y: 7 },
        { id: 'c', kind: 'reservoir', x: 0, y: 20 },
      ],
      pipes: [{ id: 'p', from: { component: 'a', port: 'T' }, to: { component: 'b', port: 'T' }, route: [] }],
    })
    const laid = route(sheet, { component: 'a', port: 'T' }, { component: 'c', port: 'T' })
    expect(laid.length).toBeGreaterThan(0)
  })
})
