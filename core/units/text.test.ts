import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { asRead, findUnit, fromSI, quantities, quantityNames, toSI } from './quantities'
import { formatNumber, parseQuantity, quantityText, showQuantity } from './text'

const si = (text: string, quantity: Parameters<typeof parseQuantity>[1]) => {
  const parsed = parseQuantity(text, quantity)
  if (!parsed.ok) throw new Error(parsed.message)
  return parsed.si
}

describe('units', () => {
  it('uses exact factors', () => {
    expect(si('1 psi', 'pressure')).toBeCloseTo(6894.757293168, 8)
    expect(1e5 / si('1 psi', 'pressure')).toBeCloseTo(14.503774, 6)
    expect(si('1 hp', 'power')).toBeCloseTo(745.69987158227, 9)
    expect(si('1 L/min', 'flow')).toBe(1 / 60000)
    expect(si('1 gal', 'volume')).toBeCloseTo(231 * 0.0254 ** 3, 15)
    expect(si('1 lbf', 'force')).toBe(4.4482216152605)
    expect(si('32 °F', 'temperature')).toBeCloseTo(273.15, 9)
  })

  it('reads as nothing what no gauge could tell from it', () => {
    expect(showQuantity(asRead(-2.89e-6, 'length'), 'length', 'metric', 3)).toBe('0 mm')
    expect(showQuantity(asRead(-2.89e-4, 'length'), 'length', 'metric', 3)).toBe('-0.289 mm')
    expect(asRead(990, 'pressure')).toBe(0)
    expect(asRead(1010, 'pressure')).toBe(1010)
    // an angle is shown as it is
    expect(asRead(1e-9, 'angle')).toBe(1e-9)
  })

  it('understands how people write', () => {
    expect(si('2,5 bar', 'pressure')).toBe(2.5e5)
    expect(si('3 gpm', 'flow')).toBeCloseTo(1.8927e-4, 7)
    expect(si('160bar', 'pressure')).toBe(160e5)
    expect(si('16 cc', 'displacement')).toBeCloseTo(16e-6, 12)
    expect(si('20 LPM', 'flow')).toBeCloseTo(20 / 60000, 12)
    expect(si('20 %', 'ratio')).toBeCloseTo(0.2)
    expect(si('0.2', 'ratio')).toBe(0.2)
  })

  it('explains what is wrong', () => {
    expect(parseQuantity('160', 'pressure')).toMatchObject({
      ok: false,
      message: expect.stringContaining('Give a unit'),
    })
    expect(parseQuantity('160 L/min', 'pressure')).toMatchObject({
      ok: false,
      message: expect.stringContaining('It is a unit of flow'),
    })
    expect(parseQuantity('lots', 'pressure').ok).toBe(false)
    expect(parseQuantity('5 furlongs', 'length').ok).toBe(false)
    expect(parseQuantity('1e999 bar', 'pressure').ok).toBe(false)
  })

  it('tells MPa from other capitals, and forgives case where it is unambiguous', () => {
    expect(si('1 MPa', 'pressure')).toBe(1e6)
    expect(si('1 BAR', 'pressure')).toBe(1e5)
    expect(findUnit('force', 'mn')?.symbol).toBe('MN')
  })

  it('goes there and back for every unit', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...quantityNames),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        (name, value) => {
          for (const unit of quantities[name].units) {
            const back = fromSI(toSI(value, unit), unit)
            expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-6 * Math.max(1, Math.abs(value)))
          }
        },
      ),
    )
  })

  it('formats with significant digits', () => {
    expect(formatNumber(146.13115)).toBe('146.1')
    expect(formatNumber(0.012345)).toBe('0.01235')
    expect(formatNumber(-0.0000000001)).toBe('0')
    expect(formatNumber(0.0000125)).toBe('0.0000125')
    expect(formatNumber(2.5e12)).toBe('2.500e+12')
    expect(formatNumber(1250000)).toBe('1250000')
    expect(formatNumber(Number.NaN)).toBe('–')
    expect(showQuantity(1e7, 'pressure', 'us')).toBe('1450 psi')
    expect(quantityText(160e5, 'pressure', 'bar')).toBe('160 bar')
  })
  it('writes long times and lengths in larger units', () => {
    expect(showQuantity(28800, 'time', 'metric')).toBe('8 h')
    expect(showQuantity(600, 'time', 'metric')).toBe('600 s')
    expect(showQuantity(60, 'length', 'metric')).toBe('60 m')
    expect(showQuantity(9.9, 'length', 'metric')).toBe('9900 mm')
    expect(showQuantity(30.48, 'length', 'us')).toBe('100 ft')
  })
})
