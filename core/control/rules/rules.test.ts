import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText } from '../../sheet/read'
import type { Sheet } from '../../sheet/schema'
import { checkControl } from '../check'
import { switchesAtStart } from '../start'
import { controlSheet } from '../testing'

const sound = controlSheet(
  {
    S1: ['push-button', { purpose: 'start' }],
    S2: ['push-button', { purpose: 'stop' }],
    K1: ['relay'],
    P1: ['lamp'],
  },
  ['/S2 · (S1 + K1) -> K1', 'K1 -> P1'],
)

describe('design rules of the control', () => {
  const found = (...args: Parameters<typeof controlSheet>) =>
    checkControl(controlSheet(...args)).map((f) => f.rule)
  it.each([
    ['coil-without-path', { S1: ['push-button'], K1: ['relay'], K2: ['relay'] }, ['S1 · K2 · K1 -> K1']],
    ['device-without-use', { S1: ['push-button'], S2: ['push-button'], P1: ['lamp'] }, ['S1 -> P1']],
    ['stop-wired-open', { S1: ['emergency-stop'], P1: ['lamp'] }, ['S1 -> P1']],
    [
      'start-without-effect',
      { S1: ['push-button', { purpose: 'start' }], K1: ['relay'], P1: ['lamp'], S3: ['push-button'] },
      ['S1 · K1 -> P1', 'S3 · /S3 -> K1'],
    ],
    ['seal-in-without-stop', { S1: ['push-button'], K1: ['relay'] }, ['S1 + K1 -> K1']],
  ] as const)('%s', (rule, own, paths) => {
    expect(found(own, paths)).toContain(rule)
    // and not where all is as it should be
    expect(checkControl(sound).map((f) => f.rule)).not.toContain(rule)
  })
})

describe('a start button', () => {
  const press = () => {
    const read = readSheetText(
      readFileSync(new URL('../../../demo/sheets/blade-press-switches.json', import.meta.url), 'utf8'),
    )
    if (!read.ok) throw new Error()
    return read.sheet
  }
  const rules = (sheet: Sheet) => checkControl(sheet).map((f) => f.rule)
  it('does nothing where a limit switch stands beside the place where its rod begins', () => {
    const sheet = press()
    expect([...switchesAtStart(sheet)].sort()).toEqual(['B2', 'B3'])
    expect(rules(sheet)).not.toContain('start-without-effect')
    const moved = {
      ...sheet,
      components: sheet.components.map((c) =>
        c.id === 'B3' ? { ...c, parameters: { ...c.parameters, at: '30 mm' } } : c,
      ),
    }
    expect(rules(moved)).toContain('start-without-effect')
  })
})
