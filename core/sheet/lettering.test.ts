import { describe, expect, it } from 'vitest'
import { showIn } from '../units/text'
import { addComponent } from './edit'
import { outline } from './geometry'
import { lettersBox, labels } from './lettering'
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
    expect(of(withLine(Math.ceil(right) + 2))).toMatchObject({ x: box.x - 0.6, anchor: 'end' })
  })
  it('gives way to another symbol, and to its lettering', () => {
    const two = addComponent(sheet, 'fixed-pump', { x: 9 }).sheet
    expect(of(two).anchor).toBe('end')
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
