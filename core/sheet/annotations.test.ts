import { describe, expect, it } from 'vitest'
import { circuit, idOf, powerUnit, powerUnitPipes } from '../testing'
import { allStrokes, plotSheet } from '../formats/plot'
import { showIn } from '../units/text'
import { fluidText, rotationArrows, smallLetters } from './annotations'
import { designationPrefix, withDesignationStyle } from './designations'
import { addComponent, setDesignation, setParameter } from './edit'
import { emptySheet, type Annotations, type Sheet } from './schema'

const show = showIn('metric')
const unit = circuit(powerUnit, powerUnitPipes)
const withNotes = (sheet: Sheet, change: Partial<Annotations>): Sheet => ({
  ...sheet,
  annotations: { ...sheet.annotations, ...change },
})
const words = (sheet: Sheet) =>
  allStrokes(plotSheet(sheet, show)).flatMap(({ ink }) => (ink.shape === 'letters' ? [ink.text] : []))

describe('what is written beside symbols by choice', () => {
  it('is nothing where nothing was chosen', () => {
    expect(smallLetters(unit)).toEqual([])
    expect(rotationArrows(unit)).toEqual([])
    expect(fluidText(unit, show)).toEqual([])
  })
  it('are port letters of parts with several ports, on every drawing', () => {
    const sheet = withNotes(unit, { ports: true })
    const pump = idOf(sheet, 'fixed-pump')
    const of = (id: string) => smallLetters(sheet).filter((a) => a.of === id)
    expect(of(pump).map(({ text }) => text)).toEqual(['S', 'P'])
    expect(of(idOf(sheet, 'reservoir'))).toEqual([])
    expect(words(sheet)).toEqual(expect.arrayContaining(['S', 'P', 'T']))
  })
  it('are the letters of the coils that a valve has', () => {
    const added = addComponent(withNotes(emptySheet('V'), { coils: true }), 'directional-valve-4-3')
    const letters = (sheet: Sheet) => smallLetters(sheet).map(({ text }) => text)
    expect(letters(added.sheet)).toEqual(['a', 'b'])
    expect(letters(setParameter(added.sheet, added.id, 'actuation', 'lever'))).toEqual([])
    for (const kind of ['proportional-valve', 'load-sensing-section'])
      expect(letters(addComponent(withNotes(emptySheet('V'), { coils: true }), kind).sheet)).toEqual([
        'a',
        'b',
      ])
    const [a, b] = smallLetters(added.sheet)
    expect(a.x).toBeLessThan(b.x)
  })
  it('are an arrow at the shaft of a machine, and fluid and tank', () => {
    const sheet = withNotes(unit, { rotation: true, fluid: true })
    expect(rotationArrows(sheet).map(({ of }) => of)).toEqual([idOf(sheet, 'fixed-pump')])
    expect(fluidText(sheet, show)[1].text).toMatch(/46 mm²\/s.*100 L/)
    expect(words(sheet)).toEqual(expect.arrayContaining([fluidText(sheet, show)[0].text]))
  })
})

describe('designations', () => {
  const styled = withDesignationStyle(unit, 'mediumLetter')
  it('carry the letter of the medium by choice, numbered circuit by circuit', () => {
    const named = styled.components.filter((c) => c.kind !== 'reservoir').map((c) => c.designation)
    for (const name of named) expect(name).toMatch(/^1-H1\.\d+$/)
    expect(new Set(named).size).toBe(named.length)
    expect(addComponent(styled, 'check-valve').sheet.components.at(-1)!.designation).toMatch(/^1-H1\.\d+$/)
    expect(designationPrefix(styled, 'V')).toBe('1-H1.')
  })
  it('come back with the letter of the part', () => {
    const back = withDesignationStyle(styled, 'typeLetter')
    expect(back.components.map((c) => c.designation)).toEqual(unit.components.map((c) => c.designation))
  })
  it('that were chosen freely stay, and are not given twice', () => {
    const free = setDesignation(unit, idOf(unit, 'fixed-pump'), 'MAIN PUMP')
    const after = withDesignationStyle(free, 'mediumLetter')
    expect(after.components.find((c) => c.kind === 'fixed-pump')!.designation).toBe('MAIN PUMP')
  })
  it('are not written at what nobody buys', () => {
    const { sheet } = addComponent(emptySheet('L'), 'rotating-load')
    expect(sheet.components[0].designation).toBeUndefined()
    expect(words(sheet).some((text) => /kg/.test(text))).toBe(true)
    expect(words(sheet)).not.toContain(sheet.components[0].id)
  })
})
