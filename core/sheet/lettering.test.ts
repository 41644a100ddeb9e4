import { describe, expect, it } from 'vitest'
import { showQuantity } from '../units/text'
import { addComponent } from './edit'
import { outline } from './geometry'
import { lettering, takenCells } from './lettering'
import { emptySheet, pipeSchema, type Sheet } from './schema'

const show = (si: number, quantity: Parameters<typeof showQuantity>[1]) =>
  showQuantity(si, quantity, 'metric')

describe('lettering', () => {
  const sheet = addComponent(emptySheet('Lone'), 'fixed-pump').sheet
  const [pump] = sheet.components
  const box = outline(pump)
  const right = box.x + box.w + 0.6
  const withLine = (x: number): Sheet => ({
    ...sheet,
    joints: [
      { id: 'J1', x, y: -10 },
      { id: 'J2', x, y: 10 },
    ],
    pipes: [pipeSchema.parse({ id: 'L1', from: { joint: 'J1' }, to: { joint: 'J2' } })],
  })
  it('stands to the right of a symbol where nothing is in its way', () => {
    expect(lettering(pump, show, takenCells(sheet))).toMatchObject({ x: right, anchor: 'start' })
    expect(lettering(pump, show, takenCells(withLine(right + 20)))).toMatchObject({ x: right })
  })
  it('gives way to a pipe that would run through it', () => {
    const placed = lettering(pump, show, takenCells(withLine(Math.ceil(right) + 2)))!
    expect(placed).toMatchObject({ x: box.x - 0.6, anchor: 'end', designation: '1-1P1' })
    // told of nothing, it stays where it is usual
    expect(lettering(pump, show)!.x).toBe(right)
  })
})
