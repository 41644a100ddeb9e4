import { describe, expect, it } from 'vitest'
import { circuit } from '../testing'
import { addComponent, changePipe, connect, move, setParameter, splitPipe } from './edit'
import { boundsOnSheet, polyline, stretchRoute } from './geometry'
import { showIn } from '../units/text'
import { lineTexts } from './annotations'
import { emptySheet, type Sheet } from './schema'
import {
  crossingOf,
  encloseComponents,
  connectCrossing,
  moveSegment,
  disconnectCrossing,
  segmentAcross,
} from './shape'

/** Two plugs with a pipe between them, the second away by (dx, dy). */
function pair(dx: number, dy: number) {
  const one = addComponent(emptySheet('Pair'), 'plug', { x: 0, y: 0 })
  const two = addComponent(one.sheet, 'plug', { x: dx, y: dy })
  const laid = connect(two.sheet, { component: one.id, port: 'A' }, { component: two.id, port: 'A' })
  if ('problem' in laid) throw new Error(laid.problem)
  return { sheet: laid.sheet, pipe: laid.id, one: one.id, two: two.id }
}
const points = (sheet: Sheet, id: string) =>
  polyline(
    sheet,
    sheet.pipes.find((p) => p.id === id)!,
  )
const straight = (list: readonly (readonly [number, number])[]) =>
  list.every((p, i) => i === 0 || p[0] === list[i - 1][0] || p[1] === list[i - 1][1])

const show = showIn('metric')

describe('a pipe shaped by hand', () => {
  it('has a part moved aside, its ends where they were', () => {
    const { sheet, pipe } = pair(20, 0)
    const before = points(sheet, pipe)
    const across = segmentAcross(sheet, sheet.pipes[0], [0, -1])!
    const after = moveSegment(sheet, pipe, across.segment, [across.at[0], across.at[1] - 5])
    const moved = points(after, pipe)
    expect([moved[0], moved[moved.length - 1]]).toEqual([before[0], before[before.length - 1]])
    expect(Math.min(...moved.map((p) => p[1]))).toBe(across.at[1] - 5)
    expect(straight(moved)).toBe(true)
    expect(after.pipes[0].manualRoute).toBe(true)
  })
  it('leaves its port straight where its first part is moved', () => {
    const { sheet, pipe } = pair(0, -30)
    const moved = points(moveSegment(sheet, pipe, 0, [6, 0]), pipe)
    expect(moved[1][0]).toBe(moved[0][0])
    expect(moved.some((p) => p[0] === 6)).toBe(true)
    expect(straight(moved)).toBe(true)
  })
  it('keeps its shape when an end moves, and is laid anew where it cannot', () => {
    const { sheet, pipe, two } = pair(20, 0)
    const { segment, at } = segmentAcross(sheet, sheet.pipes[0], [0, -1])!
    const manual = moveSegment(sheet, pipe, segment, [at[0], at[1] - 5])
    const height = Math.min(...points(manual, pipe).map((p) => p[1]))
    const aside = move(manual, [two], 7, 2)
    expect(Math.min(...points(aside, pipe).map((p) => p[1]))).toBe(height)
    expect(aside.pipes[0].manualRoute).toBe(true)
    // above its own line, the line would come in through the symbol
    const over = move(manual, [two], 0, -40)
    expect(over.pipes[0].manualRoute).toBeUndefined()
    expect(straight(points(over, pipe))).toBe(true)
  })
  it('is stretched at both ends at once', () => {
    const list = [
      [0, 0],
      [0, -4],
      [10, -4],
      [10, 0],
    ] as const
    expect(stretchRoute(list, { at: [2, 1], side: 'up' }, { at: [13, 3], side: 'up' })).toEqual([
      [2, -4],
      [13, -4],
    ])
    expect(stretchRoute(list, { at: [2, -6], side: 'up' }, { at: [13, 3], side: 'up' })).toBeUndefined()
    expect(stretchRoute([[0, 0], [5, 0]], { at: [0, 1] }, { at: [5, 0] })).toBeUndefined() // prettier-ignore
  })
})

describe('crossings', () => {
  /** Two lines that cross at (10, −10). */
  const cross = () => {
    let sheet = emptySheet('Cross')
    const at = (x: number, y: number, rotation: 0 | 1 | 2 | 3) => {
      const added = addComponent(sheet, 'plug', { x, y, rotation })
      sheet = added.sheet
      return { component: added.id, port: 'A' }
    }
    const ends = [at(0, -10, 1), at(20, -10, 3), at(10, 0, 0), at(10, -20, 2)]
    const a = connect(sheet, ends[0], ends[1])
    if ('problem' in a) throw new Error(a.problem)
    const b = connect(a.sheet, ends[2], ends[3])
    if ('problem' in b) throw new Error(b.problem)
    return { sheet: b.sheet, a: a.id, b: b.id }
  }
  it('are joined, and parted again', () => {
    const { sheet, a, b } = cross()
    const [one, two] = [a, b].map((id) => sheet.pipes.find((p) => p.id === id)!)
    expect(crossingOf(sheet, one, two)).toEqual([10, -10])
    const joined = connectCrossing(sheet, a, b)
    expect(joined.junctions).toHaveLength(1)
    expect(joined.pipes).toHaveLength(4)
    const parted = disconnectCrossing(joined, joined.junctions[0].id)
    expect(parted.junctions).toEqual([])
    expect(parted.pipes.map((p) => polyline(parted, p))).toEqual(
      expect.arrayContaining([one, two].map((p) => polyline(sheet, p))),
    )
    // half and half of a metre are a metre again
    expect(parted.pipes.map((p) => p.length)).toEqual(['1 m', '1 m'])
  })
  it('are none between lines side by side, and a junction of three is left alone', () => {
    const { sheet, a } = cross()
    const { sheet: split, junction } = splitPipe(sheet, a, [5, -10])
    expect(disconnectCrossing(split, junction)).toBe(split)
    expect(crossingOf(sheet, sheet.pipes[0], sheet.pipes[0])).toBeUndefined()
  })
})

describe('frames and words', () => {
  it('a frame is drawn round parts and takes along what lies inside', () => {
    const sheet = circuit({ a: ['plug'], b: ['check-valve'], c: ['plug'] }, ['a.A b.A'])
    const [a, b, c] = sheet.components
    const framed = encloseComponents(sheet, [a.id, b.id], (si) => String(si))!
    const frame = framed.sheet.components.find((part) => part.id === framed.id)!
    expect(boundsOnSheet(frame).w).toBeGreaterThan(boundsOnSheet(b).x - boundsOnSheet(a).x)
    const moved = move(framed.sheet, [framed.id], 5, 3)
    const at = (id: string) => moved.components.find((part) => part.id === id)!
    expect([at(a.id).x - a.x, at(b.id).y - b.y, at(c.id).x - c.x]).toEqual([5, 3, 0])
    expect(moved.pipes[0].route).toEqual(framed.sheet.pipes[0].route.map(([x, y]) => [x + 5, y + 3]))
  })
  it('words have no designation, and their box grows with them', () => {
    const { sheet, id } = addComponent(emptySheet('Words'), 'note')
    expect(sheet.components[0].designation).toBeUndefined()
    const long = setParameter(sheet, id, 'text', 'Flush before first start.\nFilter 10 µm.')
    expect(boundsOnSheet(long.components[0]).w).toBeGreaterThan(4 * boundsOnSheet(sheet.components[0]).w)
    expect(boundsOnSheet(long.components[0]).h).toBeCloseTo(2 * boundsOnSheet(sheet.components[0]).h)
  })
})

describe('names of lines', () => {
  it('stand over a level part and beside an upright one', () => {
    const { sheet, pipe } = pair(30, 0)
    const named = changePipe(sheet, pipe, { name: 'pump line' })
    const [name] = lineTexts(named, show, true)
    const level = segmentAcross(named, named.pipes[0], [0, 1])!
    expect(name).toMatchObject({ text: 'pump line', anchor: 'middle' })
    expect(name.y).toBeLessThan(level.at[1])
    const upright = pair(0, -30)
    expect(lineTexts(changePipe(upright.sheet, upright.pipe, { name: 'up' }), show, true)[0].anchor).toBe(
      'start',
    )
    expect(lineTexts(sheet, show, true)).toEqual([])
    const sized = { ...named, annotations: { ...named.annotations, pipes: true } }
    expect(lineTexts(sized, show, true)[0].text).toBe('pump line, ⌀ 12 mm')
    expect(lineTexts(sized, show, false)[0].text).toBe('⌀ 12 mm')
    expect(lineTexts(sized, showIn('us'), false)[0].text).toMatch(/⌀ 0\.47\d+ in/)
  })
})
