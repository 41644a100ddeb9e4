import { describe, expect, it } from 'vitest'
import { carryingNodes, drawControl } from './drawing'
import {
  addDevice,
  addRung,
  changeDevice,
  coilsFromText,
  contactsFromText,
  contactsToText,
  editContact,
  moveRung,
  removeDevice,
  removeStep,
} from './edit'
import { parseExpression } from './expression'
import { checkControl } from './check'
import { drawSequence } from './sequence-drawing'
import { controlSheet } from './testing'
import { usesOf } from './uses'

const devices = {
  S1: ['push-button'],
  S2: ['push-button', { purpose: 'stop' }],
  K1: ['relay'],
  P1: ['lamp'],
} as const
const sheet = controlSheet(devices, ['/S2 · (S1 + K1) -> K1', 'K1 -> P1'])
const inHabit = (layout: 'paths' | 'rails') =>
  drawControl({ ...sheet, control: { ...sheet.control, layout } })

describe('the drawing of paths', () => {
  it('has every contact and coil once, in either habit', () => {
    for (const layout of ['paths', 'rails'] as const) {
      const { contacts, coils } = inHabit(layout)
      expect(contacts.map((c) => `${c.closed ? '/' : ''}${c.name}`)).toEqual(['/S2', 'S1', 'K1', 'K1'])
      expect(coils.map((c) => c.name)).toEqual(['K1', 'P1'])
    }
  })
  it('numbers current paths one by one, rungs as a whole, and says where the contacts of a relay stand', () => {
    expect(inHabit('paths').tables).toMatchObject([{ ref: 'K1', open: [2, 3], closed: [] }])
    expect(inHabit('rails').tables).toMatchObject([{ ref: 'K1', open: [1, 2], closed: [] }])
  })
  it('joins all wires of a path: from each end of a wire one comes to both rails', () => {
    for (const layout of ['paths', 'rails'] as const) {
      const { wires, rungs, contacts } = inHabit(layout)
      for (const { id } of rungs) {
        const own = wires.filter((w) => w.rung === id)
        const ends = new Map<string, number>()
        for (const { points } of own)
          for (const p of [points[0], points[points.length - 1]])
            ends.set(p.join(), (ends.get(p.join()) ?? 0) + 1)
        // loose ends are at contacts, at coils and at the rails only: two each
        const loose = [...ends.values()].filter((n) => n === 1).length
        expect(loose).toBe(2 * contacts.filter((c) => c.rung === id).length + 2 + 2)
      }
    }
  })
  it('no contact lies on another', () => {
    for (const layout of ['paths', 'rails'] as const) {
      const { contacts } = inHabit(layout)
      for (const [i, a] of contacts.entries())
        for (const b of contacts.slice(i + 1)) {
          const apart =
            a.box.x + a.box.w <= b.box.x ||
            b.box.x + b.box.w <= a.box.x ||
            a.box.y + a.box.h <= b.box.y ||
            b.box.y + b.box.h <= a.box.y
          expect(apart, `${a.name} and ${b.name}`).toBe(true)
        }
    }
  })
  it('knows through which of its parts current flows', () => {
    const parsed = parseExpression('/S2 · (S1 + K1)')
    const flows = (...closed: string[]) =>
      [
        ...carryingNodes(
          parsed.ok ? parsed.expression : undefined,
          (c) => closed.includes(c.name) !== (c.kind === 'contact' && c.closed),
        ),
      ].sort()
    // 0 all, 1 S2, 2 both, 3 S1, 4 K1
    expect(flows('K1')).toEqual([0, 1, 2, 4])
    expect(flows('K1', 'S1')).toEqual([0, 1, 2, 3, 4])
    expect(flows()).toEqual([])
    expect(flows('K1', 'S2')).toEqual([])
  })
})

describe('edits of a control', () => {
  it('name new devices by their letters, beside what is on the sheet', () => {
    expect(addDevice(sheet, 'push-button').id).toBe('S3')
    expect(addDevice(sheet, 'contactor').id).toBe('Q1')
  })
  it('put contacts in series and parallel, invert them and take them out', () => {
    const path = (edit: Parameters<typeof editContact>[3], index = 1) =>
      editContact(sheet, 'R1', index, edit).control.rungs[0].contacts
    expect(path({ does: 'series', ref: 'P1' })).toBe('/S2 · (S1 · P1 + K1)')
    expect(path({ does: 'parallel', ref: 'K1' }, 0)).toBe('(/S2 + K1) · (S1 + K1)')
    expect(path({ does: 'invert' })).toBe('/S2 · (/S1 + K1)')
    expect(path({ does: 'remove' })).toBe('/S2 · K1')
    expect(path({ does: 'replace', ref: 'S2' })).toBe('/S2 · (S2 + K1)')
    const empty = addRung(sheet)
    expect(
      editContact(empty.sheet, empty.id, 0, { does: 'series', ref: 'S1' }).control.rungs[2].contacts,
    ).toBe('S1')
  })
  it('keep what was typed where it does not read, and find names in either way', () => {
    const named = changeDevice(sheet, 'S1', { designation: 'Start-1' })
    expect(contactsToText(named, '/S2 · (S1 + K1)')).toBe('/S2 · (Start-1 + K1)')
    expect(contactsFromText(named, '/s2*(start-1 or k1)')).toBe('/S2 · (S1 + K1)')
    expect(contactsFromText(named, 'S1 +')).toBe('S1 +')
    expect(contactsFromText(named, 'S1 + S99')).toBe('S1 + S99')
    expect(coilsFromText(named, 'k1, P1 ,X9')).toEqual(['K1', 'P1', 'X9'])
  })
  it('leave the contacts of a deleted device, with a finding at each place', () => {
    const without = removeDevice(sheet, 'S1')
    expect(without.control.rungs[0].contacts).toContain('S1')
    expect(checkControl(without)).toMatchObject([{ rule: 'control-contact', location: { control: 'R1' } }])
  })
  it('move paths, and say where something is used', () => {
    expect(moveRung(sheet, 'R2', -1).control.rungs.map((r) => r.id)).toEqual(['R2', 'R1'])
    expect(moveRung(sheet, 'R1', -1)).toBe(sheet)
    expect(usesOf(sheet, 'K1').map((u) => u.what)).toEqual([
      'Path 1: normally open contact',
      'Path 1: coil',
      'Path 2: normally open contact',
    ])
  })
})

describe('the drawing of a step sequence', () => {
  const steps = ['X0', 'X1', 'X2', 'X3'].map((id) => ({ id, name: '', initial: id === 'X0', actions: [] }))
  const transitions = [
    { id: 't0', from: ['X0'], to: ['X1', 'X2'], condition: 'S1' },
    { id: 't1', from: ['X1', 'X2'], to: ['X3'], condition: '' },
    { id: 't2', from: ['X3'], to: ['X0'], condition: '/S1' },
  ]
  const sequence = { id: 'G1', name: '', steps, transitions }
  const charted = controlSheet(devices, [], { sequences: [sequence] })
  it('has simultaneous steps beside each other, below the one that they follow', () => {
    const { steps: drawn, transitions: bars } = drawSequence(charted, sequence)
    const box = (id: string) => drawn.find((s) => s.id === id)!.box
    expect(box('X1').y).toBe(box('X2').y)
    expect(box('X1').x).not.toBe(box('X2').x)
    expect(box('X3').y).toBeGreaterThan(box('X1').y)
    expect(bars.map((t) => t.text)).toEqual(['S1', 'always', '/S1'])
  })
  it('loses no transition with a step that is taken out beside another', () => {
    const [left] = removeStep(charted, 'G1', 'X2').control.sequences
    expect(left.transitions).toMatchObject([
      { from: ['X0'], to: ['X1'] },
      { from: ['X1'], to: ['X3'] },
      { from: ['X3'], to: ['X0'] },
    ])
  })
})
