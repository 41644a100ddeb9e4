import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, it } from 'vitest'
import { setParameter } from '../sheet/edit'
import { readSheetText } from '../sheet/read'
import type { Sheet } from '../sheet/schema'
import { readBrief } from '../size/brief/read'
import { sizeMachine } from '../size/graph'
import { compile } from '../simulate/compile'
import { run } from '../simulate/run'
import type { RunResult } from '../simulate/result'
import { compareSizes, reasonText, type SizeComparison } from './compare-sizes'

const read = readSheetText(
  readFileSync(new URL('../../demo/sheets/shavings-press.json', import.meta.url), 'utf8'),
)
if (!read.ok) throw new Error('the sheet does not read')
const press = { ...read.sheet, sizing: sizeless(read.sheet) }
function sizeless(sheet: Sheet): Sheet['sizing'] {
  return { ...sheet.sizing, values: { 'pressure-levels': { relief: 'direct' } } }
}
/** The press of the yard: 60 kN over the last 150 of 600 mm. */
const brief = readBrief({
  purpose: 'press',
  values: { stroke: '600 mm', workingPressure: '210 bar', bucklingLength: '1' },
})
const compared = (sheet: Sheet, result: RunResult) =>
  compareSizes(sheet, brief, sizeMachine(brief, sheet.sizing), result)
const solved = (sheet: Sheet) => run(compile(sheet, 'bale').compiled!)
const find = (list: readonly SizeComparison[], name: string) =>
  list.find((c) => `${c.node}.${c.variable}` === name)!

describe('sizes beside a run', () => {
  let result: RunResult
  beforeAll(() => {
    result = solved(press)
  })
  it('agree where nothing is in the way: the speed is the flow of the pump over the area', () => {
    const speed = find(compared(press, result), 'cylinder-result@motion.speedOut')
    expect(speed.component).toBe('1-1A1')
    // 25 cm³ · 1500 · 0.92 on 50.27 cm²
    expect(speed.calculated).toBeCloseTo((25e-6 * 25 * 0.92) / 50.265e-4, 4)
    expect(Math.abs(speed.difference)).toBeLessThan(0.1)
  })
  it('say why they differ', () => {
    const list = compared(press, result)
    const delivered = find(list, 'pump-displacement.delivered')
    const [efficiency] = delivered.reasons
    expect(efficiency.cause).toBe('efficiency')
    // below its rated pressure the pump leaks less
    expect(efficiency.simulated).toBeGreaterThan(efficiency.assumed!)
    expect(delivered.simulated).toBeGreaterThan(delivered.calculated)
    const relief = find(list, 'relief-setting.highest')
    expect(relief.reasons.map((r) => r.cause)).toEqual(['partFlow'])
    expect(relief.simulated).toBeLessThan(relief.calculated)
    for (const c of list) if (Math.abs(c.difference) <= 0.05) expect(c.reasons).toEqual([])
  })
  it('name the load where the run meets another one', () => {
    const softer = setParameter(press, 'A1', 'workPieceStiffness', '0.1 kN/mm')
    const chamber = find(compared(softer, solved(softer)), 'cylinder-result@motion.chamber')
    expect(chamber.difference).toBeLessThan(-0.3)
    expect(chamber.reasons[0]).toMatchObject({ cause: 'load', quantity: 'force', assumed: 60e3 })
    expect(chamber.reasons[0].simulated).toBeLessThan(30e3)
  })
  it('are left out where a motion is not in the run', () => {
    const still = { ...press, schedules: [{ ...press.schedules[0], id: 'bale', tracks: [] }] }
    const list = compared(still, solved(still))
    expect(find(list, 'cylinder-result@motion.speedOut')).toBeUndefined()
    expect(find(list, 'electric-motor.shaftPower')).toBeDefined()
  })
  it('give their reasons as sentences with values', () => {
    const show = (si: number) => `${si} units`
    for (const cause of ['load', 'efficiency', 'delivery', 'pressure', 'backPressure'] as const) {
      const text = reasonText({ cause, simulated: 2, assumed: 3, quantity: 'force' }, show)
      expect(text).toContain('2 units')
      expect(text).toContain('3 units')
      expect(text).toMatch(/\.$/)
    }
    expect(reasonText({ cause: 'relieved', simulated: 2, component: 'V1' }, show)).toBe(
      '2 units goes over V1.',
    )
    expect(reasonText({ cause: 'losses' }, show)).toContain('lines and valves')
  })
})
