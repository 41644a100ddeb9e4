import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { unitSystems } from '../units/quantities'
import { showIn } from '../units/text'
import { addComponent } from './edit'
import { annotationBox, LETTERING } from './annotations'
import { drawnBoxes, outline, polyline, type Rect } from './geometry'
import { lettersBox, labels, LETTERING_LINE } from './lettering'
import { readSheetText } from './read'
import { emptySheet, pipeSchema, type Sheet } from './schema'

const show = showIn('metric')

describe('lettering', () => {
  const sheet = addComponent(emptySheet('Lone'), 'fixed-pump').sheet
  const [pump] = sheet.components
  const box = outline(pump)
  const right = box.x + box.w + 0.6
  const withLine = (x: number): Sheet => ({
    ...sheet,
    junctions: [
      { id: 'J1', x, y: -10 },
      { id: 'J2', x, y: 10 },
    ],
    pipes: [pipeSchema.parse({ id: 'L1', from: { junction: 'J1' }, to: { junction: 'J2' } })],
  })
  const of = (s: Sheet, n = 0) => labels(s, show).get(s.components[n].id)!
  it('stands to the right of a symbol where nothing is in its way', () => {
    expect(of(sheet)).toMatchObject({ x: right, anchor: 'start', designation: '1-1P1' })
    expect(of(withLine(right + 20))).toMatchObject({ x: right })
  })
  it('gives way to a pipe that would run through it', () => {
    const x = Math.ceil(right) + 2
    const moved = lettersBox(of(withLine(x)))
    expect(moved.x > x || moved.x + moved.w < x).toBe(true)
    // and moves no farther than it must
    expect(Math.abs(moved.x - right) + Math.abs(moved.y - (box.y - 0.3))).toBeLessThan(16)
  })
  it('gives way to another symbol, and to its lettering', () => {
    const two = addComponent(sheet, 'fixed-pump', { x: 9 }).sheet
    const [own, other] = [lettersBox(of(two)), outline(two.components[1])]
    expect(
      own.x + own.w < other.x ||
        own.y + own.h < other.y ||
        own.x > other.x + other.w ||
        own.y > other.y + other.h,
    ).toBe(true)
    const facing = addComponent(sheet, 'pressure-gauge', { x: 16, mirrored: true }).sheet
    const [a, b] = [of(facing), of(facing, 1)]
    expect(a.x).toBe(right)
    expect(b.anchor === 'start' ? b.x : -Infinity).toBeGreaterThan(a.x)
  })
  it('gives way to what a spool passes over, its own and that of another', () => {
    const lone = addComponent(emptySheet('Lone'), 'valve-section').sheet
    const around = outline(lone.components[0])
    const own = lettersBox(of(lone))
    // it shifts by a box to both sides: beside the symbol, at its height, nothing is written
    expect(own.y + own.h <= around.y || own.y >= around.y + around.h).toBe(true)
    const near = addComponent(lone, 'pressure-gauge', { x: around.x - 9 }).sheet
    expect(of(near, 1).anchor).toBe('end')
    const far = addComponent(lone, 'pressure-gauge', { x: around.x - 40 }).sheet
    expect(of(far, 1).anchor).toBe('start')
  })
  it('leaves room for a reading', () => {
    // the designation alone would stand clear of this line
    const gauge = addComponent(emptySheet('Lone'), 'pressure-gauge').sheet
    const { x } = of(gauge)
    const lined = { ...withLine(Math.ceil(x) + 6), components: gauge.components }
    expect(lettersBox(of(gauge)).w).toBeLessThan(5)
    expect(of(lined).anchor).toBe('end')
  })
})

describe('the lettering of the demo sheets', () => {
  const folder = new URL('../../demo/sheets/', import.meta.url)
  const overlap = (a: Rect, b: Rect) =>
    Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x) > 0.05 &&
    Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y) > 0.05
  const grown = ({ x, y, w, h }: Rect): Rect => ({ x: x - 0.06, y: y - 0.06, w: w + 0.12, h: h + 0.12 })

  it.each(readdirSync(folder))('of %s lies on nothing', (name) => {
    const read = readSheetText(readFileSync(new URL(name, folder), 'utf8'))
    if (!read.ok) throw new Error(read.problems[0].message)
    for (const system of unitSystems) {
      const words = [...labels(read.sheet, showIn(system))].flatMap(([id, label]) =>
        [label.designation, ...label.lines].flatMap((text, row) =>
          text
            ? [
                {
                  id,
                  text,
                  box: annotationBox({ ...label, y: label.y + LETTERING_LINE * row, text, size: LETTERING }),
                },
              ]
            : [],
        ),
      )
      const drawn = [
        ...read.sheet.components.flatMap((c) => drawnBoxes(c).map((box) => ({ id: c.id, box: grown(box) }))),
        ...read.sheet.pipes.flatMap((pipe) => {
          const points = polyline(read.sheet, pipe)
          return points.slice(1).map(([x, y], i) => {
            const [a, b] = points[i]
            const box = { x: Math.min(a, x), y: Math.min(b, y), w: Math.abs(x - a), h: Math.abs(y - b) }
            return { id: pipe.id, box: grown(box) }
          })
        }),
      ]
      expect(words.length).toBeGreaterThan(5)
      const on = words.flatMap((word, i) => [
        ...drawn
          .filter(({ box }) => overlap(word.box, box))
          .map(({ id }) => `"${word.text}" of ${word.id} on ${id}`),
        ...words
          .slice(i + 1)
          .filter((other) => other.id !== word.id && overlap(word.box, other.box))
          .map((other) => `"${word.text}" of ${word.id} on "${other.text}" of ${other.id}`),
      ])
      expect(on, system).toEqual([])
    }
  })
})
