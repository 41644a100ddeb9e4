import { describe, expect, it } from 'vitest'
import { controlSheet } from '../control/testing'
import { compareSheets } from './compare'

describe('two states of a control', () => {
  it('differ in devices, paths, requirements and how they are drawn', () => {
    const before = controlSheet({ S1: ['push-button'], K1: ['relay'] }, ['S1 -> K1'])
    const after = controlSheet(
      { S1: ['push-button', { latching: true }], K2: ['relay'] },
      ['S1 · /K2 -> K2', 'K2 -> K2'],
      { layout: 'rails', requirements: [{ id: 'N1', name: 'both', never: 'K2 · S1', assumed: false }] },
    )
    const changes = compareSheets(before, after).map((c) => `${c.what} ${c.name}: ${c.details.join('; ')}`)
    expect(changes).toEqual([
      'added K2: relay',
      'added Path 2: K2 → K2',
      'added both: must never be: K2 · S1',
      'removed K1: relay',
      'changed S1: latching: none → yes',
      'changed Path 1: contacts: S1 → S1 · /K2; coils: K1 → K2',
      'changed Drawing of the control: layout: paths → rails',
    ])
  })
})
