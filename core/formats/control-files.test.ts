import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { controlSheet } from '../control/testing'
import { readSheetText } from '../sheet/read'
import type { Sheet } from '../sheet/schema'
import { showIn } from '../units/text'
import { ioRows, pathsText } from './control-lists'
import { sheetToDxf } from './dxf'
import { controlToXml } from './plc-xml'
import { controlFromXml } from './plc-xml-read'
import { projectSchema } from './plc-xml-schema'
import { parseXml } from './xml'
import { plotControl } from './control-plot'
import { sheetToSvg } from './svg'

const demo = (name: string): Sheet => {
  const read = readSheetText(readFileSync(new URL(`../../demo/sheets/${name}.json`, import.meta.url), 'utf8'))
  if (!read.ok) throw new Error(read.problems[0].message)
  return read.sheet
}
const press = demo('blade-press-switches')
const sequence = controlSheet(
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

describe('IEC 61131-10 XML', () => {
  it.each([
    ['the blade press', press],
    ['a step sequence', sequence],
  ])('of %s has the structure of the standard and is read again', (_, sheet) => {
    const xml = controlToXml(sheet)
    expect(projectSchema.safeParse(parseXml(xml)).error?.issues).toBeUndefined()
    const read = controlFromXml(xml)
    if (!read.ok) throw new Error(read.message)
    const { devices, rungs, sequences } = sheet.control
    expect(read.control).toMatchObject({ devices, rungs, sequences })
  })
  it('has two names for two references that look alike', () => {
    const names = [...controlToXml(sequence).matchAll(/<Variable name="([^"]+)"/g)].map((m) => m[1])
    expect(new Set(names).size).toBeGreaterThan(4)
    expect(controlToXml(sequence)).toContain('<Variable name="K_1_2">')
  })
  const tree: fc.Arbitrary<string> = fc.letrec<{ any: string }>((tie) => ({
    any: fc.oneof(
      { maxDepth: 4 },
      fc.constantFrom('S1', '/S1', 'S2', '/S2', 'K1'),
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => `(${a} + ${b})`),
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => `(${a} · ${b})`),
    ),
  })).any
  it('keeps any path of contacts in series and parallel', () => {
    fc.assert(
      fc.property(tree, (contacts) => {
        const sheet = controlSheet({ S1: ['push-button'], S2: ['push-button'], K1: ['relay'] }, [
          `${contacts} -> K1`,
        ])
        const read = controlFromXml(controlToXml(sheet))
        if (!read.ok) throw new Error(read.message)
        // brackets that change nothing are not kept
        const again = controlFromXml(controlToXml({ ...sheet, control: read.control }))
        if (!again.ok) throw new Error(again.message)
        expect(again.control.rungs[0].contacts).toBe(read.control.rungs[0].contacts)
        expect(truthTable(read.control.rungs[0].contacts)).toEqual(truthTable(contacts))
      }),
      { numRuns: 200 },
    )
  })
  it('from elsewhere that is not understood is refused in words', () => {
    const message = (text: string) => {
      const read = controlFromXml(text)
      return read.ok ? '' : read.message
    }
    expect(message('no xml')).toMatch(/^This is not XML/)
    expect(message('<Project xmlns="x"/>')).toMatch(/root is not a Project of that namespace/)
    expect(message(controlToXml(press).replaceAll('Contact"', 'JumpLabel"'))).toMatch(
      /parts that are not understood here, at Project > Types > GlobalNamespace > Program Paths/,
    )
    expect(message(controlToXml(press).replace('operand="K3"', 'operand="K9"'))).toBe(
      'The file uses "K9", which it does not declare.',
    )
    expect(message(controlToXml(press).replace(/(refConnectionPointOutId)="2"/, '$1="4"'))).toMatch(
      /neither in series nor parallel/,
    )
  })
})
function truthTable(contacts: string): boolean[] {
  const meaning = new Function(
    'c',
    `return ${contacts
      .replace(/[SK]\d/g, (n) => `c("${n}")`)
      .replaceAll('·', '&&')
      .replaceAll('+', '||')
      .replaceAll('/', '!')}`,
  ) as (c: (name: string) => boolean) => boolean
  return [0, 1, 2, 3, 4, 5, 6, 7].map((n) =>
    meaning((name) => (n & [1, 2, 4][['S1', 'S2', 'K1'].indexOf(name)]) > 0),
  )
}

describe('lists of a control', () => {
  it('tell its paths in text', () => {
    expect(pathsText(press)).toContain('  1  /S10 · /S11 · /K3 · (S12 · 1-1S3 · 1-2S1 · B11 + K1)  ->  K1\n')
    expect(pathsText(sequence)).toContain('  X1 + X2 -> X0: G1.X1 for 2.5 s\n')
  })
  it('tell inputs and outputs with their places and contacts', () => {
    const rows = ioRows(press).map((row) => row.slice(0, 6).join(' | '))
    expect(rows).toContain('input | S10 | Emergency stop | Emergency stop | operator panel | NC')
    expect(rows).toContain('input | 1-1S3 | Limit switch | Limit switch | machine | NC and NO')
    expect(rows.filter((r) => r.startsWith('output'))).toHaveLength(6)
    // relays are within, and what only watches a run is not fitted
    expect(rows.some((r) => r.includes('| K1 |'))).toBe(false)
    expect(ioRows(demo('blade-press-sequence-relay')).some((row) => row.includes('B11'))).toBe(false)
  })
})

describe('the drawing of a control', () => {
  it.each(['paths', 'rails'] as const)('in the habit "%s" is written in every format', (layout) => {
    for (const symbols of ['iec60617', 'brackets'] as const) {
      const sheet = {
        ...press,
        control: {
          ...press.control,
          ...sequence.control,
          layout,
          symbols,
          rungs: press.control.rungs,
          devices: press.control.devices,
          sequences: [],
        },
      }
      const words = plotControl(sheet).strokes.flatMap(({ ink }) =>
        ink.shape === 'letters' ? [ink.text] : [],
      )
      for (const name of ['S10', '1-2S1', '1-1V1.a', 'K2']) expect(words).toContain(name)
      expect(sheetToSvg(sheet, showIn('metric'), { subject: 'control' })).toContain('>1-1V1.a<')
      expect(sheetToDxf(sheet, showIn('metric'), { subject: 'control' })).toContain('1-1V1.a')
    }
  })
})
