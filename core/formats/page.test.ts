import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { textWidth } from '../catalogue/text-width'
import { readSheetText } from '../sheet/read'
import { changeSchema, pageSchema, type PageSettings, type Sheet } from '../sheet/schema'
import { circuit, powerUnit, powerUnitPipes } from '../testing'
import { showIn } from '../units/text'
import { fitText, wrapped } from './fit-text'
import { LEAST_LETTERS, pageOf, smallLetters, type Page } from './page'
import { MODULE, plotSheet } from './plot'

const show = showIn('metric')
const unit = circuit(powerUnit, powerUnitPipes)
const withPage = (sheet: Sheet, page: Partial<PageSettings>): Sheet => ({
  ...sheet,
  page: { ...sheet.page, ...page },
})
const paged = (sheet: Sheet) => pageOf(sheet, plotSheet(sheet, show).boxes)
const sizes = pageSchema.shape.size.unwrap().options

/** Boxes of the drawing in millimetres of the page. */
const placed = (sheet: Sheet, { origin, scale }: Page) =>
  plotSheet(sheet, show).boxes.map(({ x, y, w, h }) => ({
    x: origin[0] + x * MODULE * scale,
    y: origin[1] + y * MODULE * scale,
    w: w * MODULE * scale,
    h: h * MODULE * scale,
  }))

describe('the page', () => {
  const folder = new URL('../../demo/sheets/', import.meta.url)
  it.each(readdirSync(folder))('of %s has letters of 1.8 mm at least on A3 or A2', (name) => {
    const read = readSheetText(readFileSync(new URL(name, folder), 'utf8'))
    if (!read.ok) throw new Error(read.problems[0].message)
    const page = paged(read.sheet)
    expect(['A3', 'A2']).toContain(read.sheet.page.size)
    expect(page.letterHeight).toBeGreaterThanOrEqual(LEAST_LETTERS)
    expect(page.cut).toEqual([])
  })
  it.each(sizes)('%s keeps the drawing inside its frame and off its title block', (size) => {
    const change = changeSchema.parse({ issue: 'B', change: 'Relief valve moved', by: 'Office' })
    for (const upright of [false, true])
      for (const changes of [[], [change]]) {
        const sheet = withPage(unit, { size, upright, changes })
        const page = paged(sheet)
        for (const box of placed(sheet, page)) {
          expect(box.x).toBeGreaterThan(20)
          expect(box.y).toBeGreaterThan(10)
          expect(box.x + box.w).toBeLessThan(page.width - 10)
          expect(box.y + box.h).toBeLessThan(page.height - 10)
          for (const r of page.reserved)
            expect(
              box.x >= r.x + r.w || box.x + box.w <= r.x || box.y >= r.y + r.h || box.y + box.h <= r.y,
            ).toBe(true)
        }
        expect(page.reserved).toHaveLength(1 + changes.length)
      }
  })
  it('uses the room beside the title block', () => {
    const components = unit.components.map((c) => ({ ...c, x: 0, y: 4 * c.x }))
    const high = withPage({ ...unit, components, pipes: [] }, { size: 'A3' })
    const page = paged(high)
    const lowest = Math.max(...placed(high, page).map((b) => b.y + b.h))
    expect(lowest).toBeGreaterThan(page.reserved[0].y)
  })
  it('proposes the next paper where letters would be too small, and none where they are high enough', () => {
    const wide = { ...unit, components: unit.components.map((c) => ({ ...c, x: 3 * c.x })), pipes: [] }
    const page = paged(withPage(wide, { size: 'A4' }))
    expect(page.letterHeight).toBeLessThan(LEAST_LETTERS)
    expect(paged(withPage(wide, { size: page.proposal! })).letterHeight).toBeGreaterThanOrEqual(LEAST_LETTERS)
    expect(paged(unit).proposal).toBeUndefined()
  })
  it('has fields that hold the longest words within their lines, or says which do not', () => {
    const long = 'Hydraulic power unit of the slewing and luffing gear, with changes '.repeat(3).slice(0, 200)
    const filled = { owner: long, number: 'W'.repeat(200), drawnBy: long, size: 'A4', upright: true } as const
    const page = paged({ ...withPage(unit, filled), title: long })
    const [block] = page.reserved
    for (const { at, text, size, anchor } of page.letters) {
      if (anchor !== 'start' || at[1] < block.y) continue
      const end = at[0] + textWidth(text, size)
      expect(end, text).toBeLessThanOrEqual(block.x + block.w + 0.01)
      // no upright line of the block runs through it
      for (const { points } of page.lines) {
        const [[x, y], [other, to]] = points
        if (points.length === 2 && x === other && y <= at[1] && to >= at[1])
          expect(x <= at[0] || x >= end, `${text} at ${x}`).toBe(true)
      }
    }
    expect(page.cut).toEqual(['Legal owner', 'Created by', 'Document number'])
  })
  it.each(sizes)('%s has centring marks that neither cross title block nor drawing', (size) => {
    const changes = Array.from({ length: 12 }, (_, i) =>
      changeSchema.parse({ issue: String(i), change: 'Relief valve moved', by: 'Office' }),
    )
    for (const upright of [false, true])
      for (const list of [[], changes])
        for (const dense of [
          unit,
          { ...unit, components: unit.components.map((c) => ({ ...c, x: 0, y: c.x })), pipes: [] },
        ]) {
          const sheet = withPage(dense, { size, upright, changes: list })
          const page = paged(sheet)
          const [cx, cy] = [page.width / 2, page.height / 2]
          const marks = page.lines.filter(
            ({ points: [a, b, more], width }) =>
              !more && width === 0.7 && ((a[0] === cx && b[0] === cx) || (a[1] === cy && b[1] === cy)),
          )
          expect(marks).toHaveLength(4)
          for (const { points } of marks) {
            const [left, right] = points.map(([x]) => x).sort((a, b) => a - b)
            const [top, bottom] = points.map(([, y]) => y).sort((a, b) => a - b)
            for (const r of [...page.reserved, ...placed(sheet, page)]) {
              const touches =
                r.x < right - 0.01 + (left === right ? 0.2 : 0) &&
                r.x + r.w > left + 0.01 - (left === right ? 0.2 : 0) &&
                r.y < bottom - 0.01 + (top === bottom ? 0.2 : 0) &&
                r.y + r.h > top + 0.01 - (top === bottom ? 0.2 : 0)
              expect(touches, JSON.stringify([points, r])).toBe(false)
            }
          }
        }
  })
  it('says what to do about letters that are too small', () => {
    const wide = { ...unit, components: unit.components.map((c) => ({ ...c, x: 3 * c.x })), pipes: [] }
    const page = paged(withPage(wide, { size: 'A4' }))
    expect(smallLetters(page)).toMatch(
      /^The letters of the drawing are \d\.\d mm high; ISO 3098 asks for 1\.8 mm\. Take paper of the size A\d, print it enlarged to \d{3} %, or divide/,
    )
    expect(smallLetters(paged(unit))).toBeUndefined()
    const huge = { ...unit, components: unit.components.map((c) => ({ ...c, x: 40 * c.x })), pipes: [] }
    expect(smallLetters(paged(withPage(huge, { size: 'A1' })))).toMatch(/Draw the symbols closer together/)
  })
  it('has centring marks and a grid reference of 50 mm fields', () => {
    const { letters, lines } = paged(unit)
    const words = letters.map(({ text }) => text)
    for (const word of ['1', '8', 'A', 'F']) expect(words).toContain(word)
    expect(lines.filter(({ points }) => points.length === 2 && points[0][0] === 210)).toHaveLength(2)
  })
})

describe('text in a field', () => {
  it('is wrapped at its words, and a long word is parted', () => {
    expect(wrapped('one two three', textWidth('one two', 1), 1)).toEqual(['one two', 'three'])
    for (const line of wrapped('x'.repeat(40), 5, 1)) expect(textWidth(line, 1)).toBeLessThanOrEqual(5)
  })
  it('becomes smaller before it is cut', () => {
    expect(fitText('short', 20, 5, [3, 2])).toEqual({ size: 3, lines: ['short'], cut: false })
    expect(fitText('rather longer words', 20, 5, [4, 2]).size).toBe(2)
    const cut = fitText('word '.repeat(50), 20, 5, [4, 2])
    expect(cut.cut).toBe(true)
    expect(cut.lines[cut.lines.length - 1]).toMatch(/…$/)
  })
})
