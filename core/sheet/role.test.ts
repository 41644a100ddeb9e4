import { describe, expect, it } from 'vitest'
import { textWidth } from '../catalogue/text-width'
import { addComponent, withEnclosed } from './edit'
import { hoseOf } from './hose'
import { isOutline, isSolid } from './role'
import { emptySheet } from './schema'

describe('a tank of several lines', () => {
  it('takes along what stands in it, and lets it stand there', () => {
    const tank = addComponent(emptySheet('T'), 'reservoir-wide', {
      parameters: { lines: '4', spacing: '8', depth: '12' },
    })
    const heater = addComponent(tank.sheet, 'heater', { x: 8, y: 6 })
    const outside = addComponent(heater.sheet, 'thermometer', { x: 60 })
    expect(withEnclosed(outside.sheet, [tank.id]).sort()).toEqual([heater.id, tank.id].sort())
    const [drawn, standing] = outside.sheet.components
    expect([isOutline(drawn), isSolid(drawn), isSolid(standing)]).toEqual([true, false, true])
  })
})

describe('a hose', () => {
  it('has its dots where it begins to hang and where it ends', () => {
    const { ends, shapes } = hoseOf([
      [0, 0],
      [20, 0],
    ])!
    expect(shapes[0].shape === 'line' && shapes[0].points.at(-1)).toEqual(ends[0])
    expect(shapes[2].shape === 'line' && shapes[2].points[0]).toEqual(ends[1])
  })
})

describe('the width of a text', () => {
  it('is that of its letters, marks counting for nothing', () => {
    expect(textWidth('Wi', 1)).toBeCloseTo(0.75 + 0.23)
    expect(textWidth('é', 2)).toBe(textWidth('e', 2))
    expect(textWidth('Ж', 1)).toBeGreaterThan(0.5)
    expect(textWidth('', 1)).toBe(0)
  })
})
