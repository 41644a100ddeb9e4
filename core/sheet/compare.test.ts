import { describe, expect, it } from 'vitest'
import { circuit, idOf, powerUnit, powerUnitPipes } from '../testing'
import { replaceKind } from './arrange'
import { compareSheets } from './compare'
import {
  addComponent,
  changePipe,
  move,
  remove,
  rotate,
  setDesignation,
  setParameter,
  acceptWarning,
} from './edit'
import { changeSchema } from './schema'
import type { Sheet } from './schema'

const unit = circuit(powerUnit, powerUnitPipes)
const relief = idOf(unit, 'relief-valve-direct')
const told = (after: Sheet, before = unit) =>
  compareSheets(before, after).map((c) => `${c.what} ${c.name}: ${c.details.join('; ')}`)

describe('comparing two states of a sheet', () => {
  it('tells nothing where nothing changed', () => expect(told(structuredClone(unit))).toEqual([]))
  it('names values with their labels, from what stood to what stands', () => {
    expect(told(setParameter(unit, relief, 'setting', '200 bar'))).toEqual([
      'changed 1-1V1: setting: 160 bar → 200 bar',
    ])
    expect(told(unit, setParameter(unit, relief, 'setting', '200 bar'))).toEqual([
      'changed 1-1V1: setting: 200 bar → 160 bar',
    ])
  })
  it('puts additions first, then what went, then what changed', () => {
    const added = addComponent(unit, 'check-valve', { x: 90 }).sheet
    const less = remove(added, [idOf(unit, 'electric-motor')])
    const changed = setDesignation(less, relief, '2-0V1')
    expect(told(changed)).toEqual([
      expect.stringMatching(/^added 1-1V2: Check valve/),
      expect.stringMatching(/^removed 1-1M1: Electric motor/),
      expect.stringMatching(/^removed L2: shaft line from 1-1M1 W to 1-1P1 W/),
      'changed 2-0V1: designation: 1-1V1 → 2-0V1',
    ])
  })
  it.each<[string, (s: Sheet) => Sheet, string]>([
    ['a part that moved', (s) => move(s, [relief], 0, 30), 'moved'],
    ['a part that was turned', (s) => rotate(s, [relief]), 'turned or mirrored'],
    [
      'another kind',
      (s) => replaceKind(s, relief, 'relief-valve-pilot-operated'),
      'kind: Relief valve, direct-acting → Relief valve, pilot-operated',
    ],
    ['a bore', (s) => changePipe(s, s.pipes[0].id, { bore: '20 mm' }), 'bore: 12 mm → 20 mm'],
    ['the oil', (s) => ({ ...s, fluid: { ...s.fluid, freeAir: '1 %' } }), 'freeAir: 0.5 % → 1 %'],
    ['the title', (s) => ({ ...s, title: 'Other' }), 'title: Test → Other'],
    [
      'a schedule',
      (s) => ({ ...s, schedules: [{ ...s.schedules[0], duration: '9 s' }] }),
      'duration: 5 s → 9 s',
    ],
    ['a page', (s) => ({ ...s, page: { ...s.page, number: 'YD-1' } }), 'number:  → YD-1'],
    [
      'an accepted warning',
      (s) => acceptWarning(s, 'narrow-suction', 'P1', 'short'),
      'accepted narrow-suction at P1: short',
    ],
  ])('tells of %s', (_words, change, expected) => {
    expect(told(change(unit)).join('\n')).toContain(expected)
  })
})

describe('what is written on a sheet and its paper', () => {
  it('is told: rows of the revision table, annotations, ratings of pipes', () => {
    const base = circuit(powerUnit, powerUnitPipes)
    const after = changePipe(
      {
        ...base,
        page: { ...base.page, changes: [changeSchema.parse({ issue: 'B', change: 'Relief valve moved' })] },
        annotations: { ...base.annotations, ports: true },
      },
      base.pipes[0].id,
      { rating: '250 bar', construction: '20 × 2' },
    )
    const words = compareSheets(base, after).flatMap(({ name, details }) =>
      details.map((d) => `${name}: ${d}`),
    )
    expect(words).toEqual(
      expect.arrayContaining([
        'Revision table: added B, Relief valve moved',
        'Written on the sheet: ports: no → yes',
        expect.stringMatching(/rating: none → 250 bar/),
        expect.stringMatching(/construction: none → 20 × 2/),
      ]),
    )
    expect(words.join()).not.toContain('[object')
  })
})
