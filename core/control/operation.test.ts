import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText } from '../sheet/read'
import { operationSchema } from '../size/brief/brief'
import type { Proof } from './explore'
import { operationFindings } from './operation'
import { withControl } from './testing'

const read = readSheetText(
  readFileSync(new URL('../../demo/sheets/blade-press-switches.json', import.meta.url), 'utf8'),
)
if (!read.ok) throw new Error('the sheet does not read')
const { sheet } = read
const start = { purpose: 'start' }
const found = (
  operation: Parameters<typeof operationSchema.parse>[0],
  devices: Parameters<typeof withControl>[1],
  paths: readonly string[],
  proofs: readonly Proof[] = [],
) => operationFindings(withControl(sheet, devices, paths), operationSchema.parse(operation), proofs)

describe('a control against the operation of the brief', () => {
  const two = { S1: ['push-button', start], S2: ['push-button', start], K1: ['relay'] } as const
  it('with both hands: one button, two side by side, and two in series', () => {
    const one = { S1: ['push-button', start], K1: ['relay'] } as const
    const asked = { start: 'twoHand' }
    expect(found(asked, one, ['S1 + K1 -> K1', 'K1 -> V2.coilA'])[0]).toContain('one start button, S1')
    expect(found(asked, two, ['S1 + S2 + K1 -> K1', 'K1 -> V2.coilA'])[0]).toContain(
      'S1 and S2 can start it alone',
    )
    expect(found(asked, two, ['S1 · S2 + K1 -> K1', 'K1 -> V2.coilA'])).toEqual([])
  })
  it('held or pressed once', () => {
    const holding = ['S1 + K1 -> K1', 'K1 -> V2.coilA']
    const falling = ['S1 -> K1', 'K1 -> V2.coilA']
    expect(found({ start: 'holdToRun' }, two, holding)[0]).toContain('can keep moving')
    expect(found({ start: 'holdToRun' }, two, falling)).toEqual([])
    expect(found({ start: 'press' }, two, falling)[0]).toContain('nothing keeps moving')
    expect(found({ start: 'press' }, two, holding)).toEqual([])
  })
  it('stops, modes and what starts again', () => {
    const paths = ['S1 + K1 -> K1', 'K1 -> V2.coilA']
    const asked = { stop: 'emergencyStop', cycle: 'selector' }
    expect(found(asked, two, paths)).toHaveLength(3)
    const whole = {
      ...two,
      S0: ['push-button', { purpose: 'stop' }],
      S3: ['selector'],
      S10: ['emergency-stop'],
    } as const
    expect(found(asked, whole, paths)).toEqual([])
    const restart = (outcome: Proof['outcome']): Proof[] => [
      { id: 'restart', name: '', outcome, states: 1, events: [] },
    ]
    expect(found({ restart: 'byPress' }, two, paths, restart('refuted'))[0]).toContain('starts by itself')
    expect(found({ restart: 'byPress' }, two, paths, restart('proved'))).toEqual([])
    expect(found({ restart: 'automatic' }, two, paths, restart('proved'))[0]).toContain('never does')
  })
  it('says nothing where nothing is given', () =>
    expect(found({}, two, ['S1 -> K1', 'K1 -> V2.coilA'])).toEqual([]))
})
