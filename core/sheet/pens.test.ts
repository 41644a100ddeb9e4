/** Strokes of pens on the sheet and on paper. */
import { describe, expect, it } from 'vitest'
import { sheetToDxf } from '../formats/dxf'
import { sheetToSvg } from '../formats/svg'
import { circuit, powerUnit, powerUnitPipes } from '../testing'
import { showIn } from '../units/text'
import { compareSheets } from './compare'
import { remove } from './edit'
import { addPen, changePen, legendText, PEN_INKS, penStrokes, removePen } from './pens'
import { readSheetText, writeSheetText } from './read'

const show = showIn('metric')
const bare = circuit({ ...powerUnit, ram: ['cylinder-double-acting'], back2: ['reservoir'] }, [
  ...powerUnitPipes,
  'pump.P ram.A',
  'ram.B back2.T',
])
const shares = new Map(bare.pipes.map((p, i) => [p.id, i === 0 ? 1 : 0.5]))
const penned = addPen(bare, 'Ram goes out', shares)

describe('a pen', () => {
  it('has a number, a colour that no other has, a width by share, and the chambers that it touches', () => {
    const [stroke] = penStrokes(penned)
    expect(stroke.number).toBe(1)
    expect(stroke.chambers).toEqual(['1-1A1 A', '1-1A1 B'])
    expect(legendText(stroke)).toBe('1  Ram goes out (1-1A1 A, 1-1A1 B)')
    const [all, half] = [stroke.lines[0].width, stroke.lines[1].width]
    expect(all).toBeGreaterThan(half)
    const two = addPen(penned, 'Back', shares)
    expect(new Set(two.pens.map((p) => p.colour)).size).toBe(2)
    expect(new Set(penStrokes(two).map((s) => String(s.badge))).size).toBe(2)
  })
  it('lies beside another one on the same pipe', () => {
    const [one, other] = penStrokes(addPen(penned, 'Back', shares))
    expect(one.lines[0].points).not.toEqual(other.lines[0].points)
  })
  it('is drawn in the files with its legend, and not while it is hidden', () => {
    const svg = sheetToSvg(penned, show)
    expect(svg).toContain('<g id="pens"')
    expect(svg).toContain(PEN_INKS.red)
    expect(svg).toContain('Ram goes out')
    expect(sheetToDxf(penned, show)).toContain('pen-red')
    const hidden = sheetToSvg(changePen(penned, 'pen1', { shown: false }), show)
    expect(hidden).not.toContain('<g id="pens"')
    expect(sheetToDxf(bare, show)).not.toContain('pen-red')
  })
  it('is kept in the file, shown in a comparison, and loses the pipes that are removed', () => {
    const read = readSheetText(writeSheetText(penned))
    expect(read.ok && read.sheet.pens).toEqual(penned.pens)
    expect(compareSheets(bare, penned).map((c) => c.name)).toContain('Pen strokes')
    const [first] = penned.pipes
    expect(remove(penned, [first.id]).pens[0].pipes.some((p) => p.pipe === first.id)).toBe(false)
    expect(removePen(penned, 'pen1').pens).toEqual([])
  })
  it('comes into older files with nothing in it', () => {
    const { pens, states, ...older } = penned
    expect([pens.length, states.length]).toEqual([1, 0])
    const read = readSheetText(JSON.stringify({ ...older, version: 9 }))
    expect(read.ok && [read.sheet.pens, read.sheet.states]).toEqual([[], []])
  })
})
