/** Sheets with a control for tests of its files. */
import { readFileSync } from 'node:fs'
import { controlSheet } from '../../../control/testing'
import { readSheetText } from '../../../sheet/read'
import type { Sheet } from '../../../sheet/schema'

export const demoFolder = new URL('../../../../demo/sheets/', import.meta.url)
/** A sheet of the demo. */
export const demo = (name: string): Sheet => {
  const read = readSheetText(readFileSync(new URL(`${name}.json`, demoFolder), 'utf8'))
  if (!read.ok) throw new Error(read.problems[0].message)
  return read.sheet
}
/** A sequence with a simultaneous branch beside two paths, and references that look alike. */
export const sequence = controlSheet(
  {
    S1: ['push-button'],
    S2: ['push-button', { latching: true }],
    'K-1': ['timer', { time: '2 s' }],
    K_1: ['relay'],
  },
  ['S1 · (/S2 + K-1) -> K_1', 'S2 -> K-1'],
  {
    sequences: [
      {
        id: 'G1',
        name: 'Cycle & more',
        steps: [
          { id: 'X0', name: 'Ready', initial: true, actions: [] },
          { id: 'X1', name: '', initial: false, actions: [] },
          { id: 'X2', name: '', initial: false, actions: [] },
        ],
        transitions: [
          { id: 't0', from: ['X0'], to: ['X1', 'X2'], condition: 'S1 · /S2 + K-1' },
          { id: 't1', from: ['X1', 'X2'], to: ['X0'], condition: 'G1.X1 for 2.5 s' },
        ],
      },
    ],
  },
)
