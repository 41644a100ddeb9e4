import { describe, expect, it } from 'vitest'
import { check } from '../simulate/compile'
import { circuit, idOf, powerUnit, powerUnitPipes } from '../testing'
import { swapPorts, setParameter } from './edit'
import { applyFix } from './fix'
import type { Sheet } from './schema'

/** The sheet after the fix that a rule offers, and what is left to find of that rule. */
function fixed(sheet: Sheet, rule: string) {
  const fix = check(sheet).find((f) => f.rule === rule)?.fix
  if (!fix) throw new Error(`${rule} offers nothing`)
  const after = applyFix(sheet, fix)
  expect(check(after).filter((f) => f.rule === rule)).toEqual([])
  return after
}

describe('what a finding offers', () => {
  it('closes an open port with a plug', () => {
    const sheet = circuit({ ...powerUnit, gauge: ['flow-meter'] }, [...powerUnitPipes, 'pump.P gauge.A'])
    expect(fixed(sheet, 'open-port').components.map((c) => c.kind)).toContain('plug')
  })
  it('turns a check round', () => {
    const sheet = circuit({ ...powerUnit, check: ['check-valve'], plug: ['plug'] }, [
      ...powerUnitPipes,
      'check.A pump.P',
      'check.B plug.A',
    ])
    fixed(swapPorts(sheet, idOf(sheet, 'check-valve')), 'reversed-check')
  })
  it('removes a line that ends in nothing', () => {
    const sheet = circuit(powerUnit, powerUnitPipes)
    const pump = idOf(sheet, 'fixed-pump')
    const stub = {
      ...sheet.pipes[0],
      id: 'stub',
      from: { component: pump, port: 'P' },
      to: { junction: 'J9' },
    }
    const loose = { ...sheet, junctions: [{ id: 'J9', x: 90, y: 0 }], pipes: [...sheet.pipes, stub] }
    expect(fixed(loose, 'dead-end').pipes).toEqual(sheet.pipes)
  })
  it('widens a suction line, and mends a slip of units', () => {
    const sheet = circuit(powerUnit, powerUnitPipes)
    const narrow = {
      ...sheet,
      pipes: sheet.pipes.map((p, i) => (i === 0 ? { ...p, bore: '8 mm' } : p)),
    }
    expect(fixed(narrow, 'narrow-suction').pipes[0].bore).toBe('12 mm')
    const relief = idOf(sheet, 'relief-valve-direct')
    const slip = setParameter(sheet, relief, 'setting', '160 psi')
    expect(fixed(slip, 'unit-slip').components.find((c) => c.id === relief)!.parameters.setting).toBe(
      '160 bar',
    )
  })
})
