import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText } from '../../sheet/read'
import type { Sheet } from '../../sheet/schema'
import { checkControl } from '../check'
import { switchesAtStart } from '../start'
import { switchFacts } from '../facts'
import { controlSheet, withControl } from '../testing'

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
    [
      'path-never-true',
      { S1: ['push-button'], K1: ['relay'], K2: ['relay'], P1: ['lamp'] },
      ['S1 -> K1', 'S1 · /K1 -> K2', 'K1 · K2 -> P1'],
    ],
    ['path-never-true', { S1: ['selector'], P1: ['lamp'] }, ['S1.0 · S1.1 -> P1']],
    [
      'hold-contact-missing',
      { S1: ['push-button', { purpose: 'start' }], K1: ['relay'], P1: ['lamp'] },
      ['S1 -> K1', 'K1 -> P1'],
    ],
    [
      'hold-contact-missing',
      {
        S1: ['push-button', { purpose: 'start' }],
        S2: ['push-button', { purpose: 'start' }],
        K1: ['relay'],
        K2: ['relay'],
      },
      ['S1 + K2 -> K1', 'S2 + K2 -> K2'],
    ],
    ['relay-never-rests', { S1: ['selector'], K1: ['relay'] }, ['S1.1 · /K1 -> K1']],
    ['relay-never-rests', { K1: ['relay'], K2: ['relay'] }, ['/K2 -> K1', 'K1 -> K2']],
  ] as const)('%s', (rule, own, paths) => {
    expect(found(own, paths)).toContain(rule)
    // and not where all is as it should be
    expect(checkControl(sound).map((f) => f.rule)).not.toContain(rule)
  })
})

describe('a stop', () => {
  const lift = (path: string) => {
    const read = readSheetText(
      readFileSync(new URL('../../../demo/sheets/blade-press-switches.json', import.meta.url), 'utf8'),
    )
    if (!read.ok) throw new Error()
    const devices = {
      S0: ['push-button', { purpose: 'stop' }],
      S1: ['push-button', { purpose: 'start' }],
      K1: ['relay'],
    } as const
    return checkControl(withControl(read.sheet, devices, [path, 'K1 -> V2.coilA']))
      .filter((f) => f.rule === 'stop-without-effect')
      .map((f) => f.message)
  }
  it('that stands beside the hold contact is found, and one before both branches is not', () => {
    expect(lift('/S0 · S1 + K1 -> K1')[0]).toContain('With S0 pressed')
    expect(lift('/S0 · (S1 + K1) -> K1')).toEqual([])
  })
})

describe('the names of contacts', () => {
  it('relays that follow each other and timers that flash are no rings that never rest', () => {
    const rules = (...args: Parameters<typeof controlSheet>) =>
      checkControl(controlSheet(...args)).map((f) => f.rule)
    expect(
      rules({ S1: ['push-button'], K1: ['relay'], K2: ['timer'] }, ['S1 · /K2 -> K1', 'K1 -> K2']),
    ).not.toContain('relay-never-rests')
    expect(
      rules({ S1: ['push-button'], S2: ['push-button'], K1: ['relay'], K2: ['relay'] }, [
        'S1 · /K2 -> K1',
        'S2 · /K1 -> K2',
      ]),
    ).not.toContain('relay-never-rests')
  })
  it('a follower may hold the relay that pulls it in', () => {
    const rules = checkControl(
      controlSheet({ S1: ['push-button', { purpose: 'start' }], K1: ['relay'], K2: ['relay'] }, [
        'S1 + K2 -> K1',
        'K1 -> K2',
      ]),
    ).map((f) => f.rule)
    expect(rules).not.toContain('hold-contact-missing')
  })
  it('two end switches of one rod are never both on', () => {
    const found = (file: string) => {
      const read = readSheetText(
        readFileSync(new URL(`../../../demo/sheets/${file}.json`, import.meta.url), 'utf8'),
      )
      if (!read.ok) throw new Error()
      const [first] = switchFacts(read.sheet)
      const path = `${first.all[0]} · ${first.all[1]} -> P9`
      return checkControl(withControl(read.sheet, { P9: ['lamp'] }, [path])).map((f) => f.rule)
    }
    expect(found('blade-press-switches')).toContain('path-never-true')
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
