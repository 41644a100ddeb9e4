import { describe, expect, it } from 'vitest'
import { findCard } from './cards'
import { freeCard } from './graph'
import { assessPumps, type PumpDemand } from './pump-types'

const [rpm, cc] = [(2 * Math.PI) / 60, 1e-6]
const easy: PumpDemand = {
  pressure: 150e5,
  displacement: 25 * cc,
  speed: 1450 * rpm,
  variable: false,
  viscosity: 300e-6,
  fineness: 10e-6,
}
const fitting = (demand: Partial<PumpDemand>) =>
  assessPumps({ ...easy, ...demand })
    .filter((a) => a.fits)
    .map((a) => a.name)

describe('types of pumps', () => {
  it('puts the cheapest that fits first', () => {
    expect(fitting({})[0]).toBe('External gear pump')
    expect(fitting({})).toHaveLength(7)
  })
  it.each([
    [{ pressure: 400e5 }, ['Radial piston pump']],
    [{ variable: true, pressure: 200e5 }, ['Axial piston pump, variable']],
    [{ displacement: 2 * cc, pressure: 100e5 }, ['External gear pump', 'Radial piston pump']],
    [{ viscosity: 1500e-6 }, ['External gear pump', 'Internal gear pump']],
    [{ fineness: 25e-6 }, ['External gear pump']],
    [{ speed: 250 * rpm }, ['Radial piston pump']],
  ])('%j leaves %j', (demand, names) => expect(fitting(demand)).toEqual(names))
  it('writes out what speaks against the others', () => {
    const vane = assessPumps({ ...easy, pressure: 300e5, fineness: 25e-6 }).find(
      (a) => a.name === 'Vane pump, fixed',
    )!
    expect(vane.against).toEqual(['only up to 210 bar', 'needs a filter of 20 µm or finer'])
    expect(vane.for).toContain('quiet')
  })
  it('stands on the card of the pump', () => {
    const card = findCard('pump-displacement')!
    expect(card.assess!(freeCard(card, {}).values).some((a) => a.fits)).toBe(true)
  })
})
