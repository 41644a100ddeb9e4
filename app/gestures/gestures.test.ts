import { describe, expect, it } from 'vitest'
import { circuit, idOf, powerUnit, powerUnitPipes } from '@oar-bench/core/testing'
import { addComponent, connect } from '@oar-bench/core/sheet/edit'
import { outline, placedPorts, polyline, type XY } from '@oar-bench/core/sheet/geometry'
import { emptySheet, type Sheet } from '@oar-bench/core/sheet/schema'
import {
  finishConnection,
  positionOf,
  releaseConnection,
  startConnection,
  startMovingEnd,
  targetOf,
} from './connection'
import { finishMoving, movedSheet, moveTo, nudge, startMoving } from './moving'
import { freePlace, newOverlap, placeComponent } from './placement'
import { firstPort, portInDirection } from './portCursor'
import { afterPress, itemsIn } from './selecting'

/** Two orifices side by side, A at the left and B at the right of each. */
function pair(): { sheet: Sheet; one: string; two: string } {
  const first = addComponent(emptySheet('Pair'), 'orifice', { x: 0, y: 0 })
  const second = addComponent(first.sheet, 'orifice', { x: 20, y: 0 })
  return { sheet: second.sheet, one: first.id, two: second.id }
}
function joined() {
  const { sheet, one, two } = pair()
  const laid = connect(sheet, { component: one, port: 'B' }, { component: two, port: 'A' })
  if ('problem' in laid) throw new Error(laid.problem)
  return { sheet: laid.sheet, one, two, pipe: laid.id }
}
const upright = { kind: 'orifice', rotation: 0, mirrored: false } as const

describe('selecting', () => {
  it.each([
    [[], 'a', false, ['a']],
    [['b'], 'a', false, ['a']],
    [['b'], 'a', true, ['b', 'a']],
    [['a', 'b'], 'a', true, ['b']],
    [['a', 'b'], 'a', false, ['a', 'b']],
  ])('after %j a press on %s with Shift %s selects %j', (before, id, shift, after) =>
    expect(afterPress(new Set(before), id, shift)).toEqual(after),
  )
  it('takes what lies in a rectangle, whichever corner it was drawn from', () => {
    const { sheet, one, two } = pair()
    expect(itemsIn(sheet, { from: [5, 5], to: [-5, -5] })).toEqual([one])
    expect(itemsIn(sheet, { from: [-5, -5], to: [25, 5] })).toEqual([one, two])
    expect(itemsIn(sheet, { from: [1, -5], to: [19, 5] })).toEqual([])
  })
})

describe('a connection', () => {
  const { sheet, one, two, pipe } = joined()
  const [from, to] = polyline(sheet, sheet.pipes[0]).flatMap((p, i, all) =>
    i === 0 || i === all.length - 1 ? [p] : [],
  )
  it('starts and ends at ports, junctions, pipes and the ends of pipes', () => {
    expect(targetOf(`port:${one}:A`, [0, 0], sheet)).toEqual({ component: one, port: 'A' })
    expect(targetOf('junction:J1', [0, 0], sheet)).toEqual({ junction: 'J1' })
    expect(targetOf(`pipe:${pipe}`, [3.4, 0.2], sheet)).toEqual({ pipe, at: [3, 0] })
    expect(targetOf(`end:${pipe}:to`, [0, 0], sheet)).toEqual({ component: two, port: 'A' })
    expect(targetOf(`component:${one}`, [0, 0], sheet)).toBeUndefined()
    expect(targetOf(undefined, [0, 0], sheet)).toBeUndefined()
    expect(positionOf({ component: two, port: 'A' }, sheet)).toEqual(to)
    expect(() => positionOf({ junction: 'none' }, sheet)).toThrow('No junction none')
    expect(() => positionOf({ component: one, port: 'Q' }, sheet)).toThrow('No port')
  })
  it('goes on after a click, ends where it is let go at a target, else is given up', () => {
    const start = startConnection({ component: one, port: 'B' }, sheet, from)
    const end = { component: two, port: 'A' }
    expect(releaseConnection(start, [from[0] + 0.2, from[1]], undefined, sheet)).toBe('continue')
    expect(releaseConnection(start, to, end, sheet)).toBe('finish')
    expect(releaseConnection(start, [8, 8], undefined, sheet)).toBe('cancel')
    expect(releaseConnection(start, [8, 8], { component: one, port: 'B' }, sheet)).toBe('cancel')
  })
  it('moves an end, which a click does not go on with', () => {
    const moving = startMovingEnd(pipe, 'to', sheet, to)!
    expect(moving.from).toEqual({ component: one, port: 'B' })
    expect(releaseConnection(moving, to, undefined, sheet)).toBe('cancel')
    const moved = finishConnection(moving, { component: two, port: 'B' }, sheet, 'working')
    if ('problem' in moved) throw new Error(moved.problem)
    expect(moved.sheet.pipes[0].to).toEqual({ component: two, port: 'B' })
    expect(startMovingEnd('none', 'to', sheet, to)).toBeUndefined()
  })
  it('has the line type that is chosen, or says why it cannot be', () => {
    const bare = pair()
    const start = startConnection({ component: bare.one, port: 'B' }, bare.sheet, from)
    const laid = finishConnection(start, { component: bare.two, port: 'A' }, bare.sheet, 'pilot')
    expect('sheet' in laid && laid.sheet.pipes[0].lineType).toBe('pilot')
    const again = finishConnection(start, { component: bare.one, port: 'B' }, bare.sheet, 'pilot')
    expect('problem' in again && again.problem).toMatch(/two different ends/)
  })
})

describe('moving', () => {
  it('goes by whole modules, roughly while it goes on', () => {
    const { sheet, one } = joined()
    const start = startMoving(sheet, [one], [0, 0])
    const moved = moveTo(start, [-5.4, 3.3])
    expect(moved.by).toEqual([-5, 3])
    expect(moveTo(moved, [-5.3, 3.4])).toBe(moved)
    expect(movedSheet(sheet, moved, 'rough').components[0]).toMatchObject({ x: -5, y: 3 })
    const done = finishMoving(sheet, moved)
    expect('sheet' in done && done.sheet.components[0]).toMatchObject({ x: -5, y: 3 })
    expect(finishMoving(sheet, start)).toEqual({ sheet })
  })
  it('of a pipe takes hold of one straight part of it', () => {
    const { sheet, pipe } = joined()
    const start = startMoving(sheet, [pipe], [10, 0])
    expect(start.segment).toBe(0)
    const done = finishMoving(sheet, moveTo(start, [10, 6]))
    if ('problem' in done) throw new Error(done.problem)
    expect(done.sheet.pipes[0].manualRoute).toBe(true)
    expect(Math.max(...polyline(done.sheet, done.sheet.pipes[0]).map((p) => p[1]))).toBe(6)
  })
  it('onto another component is refused with a reason, and away from under one is not', () => {
    const { sheet, one, two } = pair()
    const start = startMoving(sheet, [one], [0, 0])
    expect(finishMoving(sheet, moveTo(start, [20, 0]))).toEqual({
      problem: expect.stringMatching(/would lie on .*; put it beside it/),
    })
    const stacked = { ...sheet, components: sheet.components.map((c) => ({ ...c, x: 0, y: 0 })) }
    const step = finishMoving(stacked, moveTo(startMoving(stacked, [two], [0, 0]), [1, 0]))
    expect('sheet' in step).toBe(true)
  })
  it('by arrows moves components, and the part of a pipe across the arrow', () => {
    const { sheet, one, pipe } = joined()
    expect(nudge(sheet, [one], [0, -1]).components[0]).toMatchObject({ x: 0, y: -1 })
    expect(nudge(sheet, [pipe], [0, 1]).pipes[0].manualRoute).toBe(true)
    expect(nudge(sheet, [pipe], [1, 0])).toBe(sheet)
  })
})

describe('placing', () => {
  it('inserts in the pipe under it', () => {
    const { sheet } = joined()
    const placed = placeComponent(sheet, upright, [10, 0])
    if ('problem' in placed) throw new Error(placed.problem)
    expect(placed.sheet.pipes).toHaveLength(2)
  })
  it('on another component is refused, but not of a text or an enclosure', () => {
    const { sheet } = pair()
    expect(placeComponent(sheet, upright, [0.2, 0])).toEqual({
      problem: expect.stringContaining('is there already'),
    })
    for (const kind of ['note', 'enclosure'])
      expect(placeComponent(sheet, { ...upright, kind }, [0, 0])).toHaveProperty('sheet')
  })
  it('by keyboard finds a free place near the last component, off all components and pipes', () => {
    const sheet = circuit(powerUnit, powerUnitPipes)
    const pump = sheet.components.find((c) => c.id === idOf(sheet, 'fixed-pump'))!
    for (const kind of ['electric-motor', 'reservoir', 'cylinder-double-acting', 'directional-valve-4-3']) {
      const at = freePlace(sheet, { ...upright, kind }, [pump.x, pump.y])
      const placed = placeComponent(sheet, { ...upright, kind }, at)
      if ('problem' in placed) throw new Error(placed.problem)
      // no pipe had to give way
      expect(placed.sheet.pipes).toEqual(sheet.pipes)
      expect(newOverlap(sheet, placed.sheet, [placed.id])).toBeUndefined()
      expect(Math.hypot(at[0] - pump.x, at[1] - pump.y)).toBeLessThan(60)
    }
    expect(freePlace(emptySheet('Empty'), upright, [3.2, 4.4])).toEqual([3, 4])
  })
})

describe('the port that the keyboard is at', () => {
  const { sheet, one, two } = pair()
  const at = (component: string, port: string): XY =>
    placedPorts(sheet.components.find((c) => c.id === component)!).find((p) => p.port === port)!.at
  it('begins at the selected component, else at the nearest port', () => {
    expect(firstPort(sheet, two, [0, 0])!.component).toBe(two)
    expect(firstPort(sheet, undefined, at(two, 'B'))).toMatchObject({ component: two, port: 'B' })
    expect(firstPort(emptySheet('Empty'), undefined, [0, 0])).toBeUndefined()
  })
  it('goes to the next port in a direction, and stays where there is none', () => {
    const start = { component: one, port: 'B', at: at(one, 'B') }
    expect(portInDirection(sheet, start, [1, 0])).toMatchObject({ component: two, port: 'A' })
    expect(portInDirection(sheet, start, [-1, 0])).toMatchObject({ component: one, port: 'A' })
    expect(portInDirection(sheet, start, [0, 1])).toBeUndefined()
  })
  it('is where the symbol has it', () => {
    const box = outline(sheet.components[0])
    expect(at(one, 'A')[0]).toBeLessThanOrEqual(box.x + box.w / 2)
  })
})
