import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { emptySheet } from '@oar-bench/core/sheet/schema'
import { readBrief } from '@oar-bench/core/size/brief/read'
import { useFreeCards } from './freeCards'
import { useMachineSizes } from './machineSizes'
import { useSheetDocument } from './sheetDocument'

/** A press with one cylinder whose bore card has a value for all variants. */
const brief = readBrief({
  purpose: 'press',
  values: { stroke: '600 mm', lineLoss: '12 bar', workingPressure: '190 bar', bucklingLength: '1' },
})
const BORE = 'cylinder-bore@motion'

beforeEach(() => {
  setActivePinia(createPinia())
  useSheetDocument().open({
    id: 'm',
    name: 'Press',
    summary: '',
    brief,
    briefRevision: 1,
    sheet: { id: 's', name: 'First', revision: 1, content: emptySheet('Press') },
    variants: [],
    runs: [],
  })
})

describe('the sizes of the open machine', () => {
  it('follow what is given on a card, which undo takes back with the sheet', () => {
    const sizes = useMachineSizes()
    const document = useSheetDocument()
    sizes.setValue(BORE, 'bore', '100 mm')
    expect(sizes.sizing.find(BORE)!.values.bore).toBeCloseTo(0.1, 9)
    expect(document.sheet.sizing.values).toEqual({ [BORE]: { bore: '100 mm' } })
    document.undo()
    expect(sizes.sizing.find(BORE)!.values.bore).toBeCloseTo(0.08, 9)
  })
  it('leave nothing behind when a value is taken back, here or for all variants', () => {
    const sizes = useMachineSizes()
    expect(sizes.writtenOf(BORE, 'lineLoss')).toBe('12 bar')
    sizes.setValue(BORE, 'lineLoss', '15 bar')
    expect(sizes.writtenOf(BORE, 'lineLoss')).toBe('15 bar')
    sizes.setValue(BORE, 'lineLoss', undefined)
    expect(useSheetDocument().sheet.sizing.values).toEqual({})
    expect(useSheetDocument().brief.cardValues[BORE]).toBeUndefined()
    expect(sizes.sizing.find(BORE)!.origins.lineLoss).toEqual({ type: 'default' })
  })
  it('solve for an input until the wanted value is taken back', () => {
    const sizes = useMachineSizes()
    sizes.solve('pump-displacement', { unknown: 'speed', wanted: 'delivered', value: '40 L/min' })
    const unsolved = sizes.sizing.find('pump-displacement')!
    expect(unsolved.problems[0].message).toContain('The displacement follows: give it')
    sizes.setValue('pump-displacement', 'displacement', '25 cc')
    expect(sizes.sizing.find('pump-displacement')!.origins.speed).toEqual({ type: 'solved' })
    expect(sizes.solvedOf('pump-displacement')).toEqual({ unknown: 'speed', wanted: 'delivered' })
    sizes.setValue('pump-displacement', 'delivered', undefined)
    expect(sizes.solvedOf('pump-displacement')).toBeUndefined()
    sizes.solve('pump-displacement', { unknown: 'speed', wanted: 'delivered', value: '40 L/min' })
    sizes.setValue('pump-displacement', 'speed', '1000 rpm')
    expect(sizes.solvedOf('pump-displacement')).toBeUndefined()
  })
  it('open and close cards, and keep reasons', () => {
    const sizes = useMachineSizes()
    sizes.open('water-hammer')
    expect(sizes.sizing.find('water-hammer')).toBeDefined()
    sizes.close('water-hammer')
    expect(sizes.sizing.find('water-hammer')).toBeUndefined()
    sizes.close(BORE)
    sizes.open(BORE)
    expect(sizes.sizing.find(BORE)).toBeDefined()
    sizes.setReason(BORE, ' in the store ')
    expect(sizes.decisions.reasons).toEqual({ [BORE]: 'in the store' })
    sizes.setReason(BORE, '')
    expect(sizes.decisions.reasons).toEqual({})
  })
  it('follow the supply of the variant', () => {
    const sizes = useMachineSizes()
    sizes.decide({ supply: 'highLow' })
    expect(sizes.brief.supply).toBe('highLow')
    expect(sizes.sizing.find('high-low-pump')).toBeDefined()
  })
})

describe('the brief', () => {
  it('is undone separately from the sheet, a drag in one step', () => {
    const document = useSheetDocument()
    document.previewBrief({ ...brief, purpose: 'a' })
    document.previewBrief({ ...brief, purpose: 'ab' })
    document.commitBrief()
    expect(document.brief.purpose).toBe('ab')
    document.undoBrief()
    expect(document.brief.purpose).toBe('press')
    document.redoBrief()
    expect(document.brief.purpose).toBe('ab')
    expect(document.canUndo).toBe(false)
  })
})

describe('cards by themselves', () => {
  it('keep what is typed, solve, and take it back', () => {
    const free = useFreeCards()
    const bore = () => free.nodes.find((n) => n.id === 'cylinder-bore')!
    free.setValue('cylinder-bore', 'force', '110 kN')
    expect(bore().values.bore).toBeCloseTo(0.125, 9)
    free.solve('cylinder-bore', { unknown: 'force', wanted: 'bore', value: '80 mm' })
    expect(free.writtenOf('cylinder-bore', 'force')).toBe('')
    // 80 mm are full: F = A · (η · (p − Δp) − p₂)
    expect(bore().values.force).toBeCloseTo(((Math.PI * 0.08 ** 2) / 4) * (0.93 * 150e5 - 5e5), 0)
    free.solve('cylinder-bore', undefined)
    free.setValue('cylinder-bore', 'bore', undefined)
    expect(bore().values.bore).toBeCloseTo(0.08, 9)
    expect(bore().origins.force).toEqual({ type: 'default' })
  })
})
