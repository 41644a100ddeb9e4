import { describe, expect, it } from 'vitest'
import { showIn } from '../units/text'
import { ioRows, pathsText } from './control-lists'
import { sheetToDxf } from './dxf'
import { plotControl } from './control-plot'
import { demo, sequence } from './plc/testing/sheets'
import { sheetToSvg } from './svg'

const press = demo('blade-press-switches')
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
    const meaning = (name: string) =>
      ioRows(press)
        .find((row) => row[1] === name)!
        .at(-1)
    expect(meaning('S10')).toBe('TRUE: not pressed; FALSE: pressed, or its wire is broken')
    expect(meaning('S12')).toBe('TRUE: pressed; FALSE: not pressed, or its wire is broken')
    expect(meaning('1-1S3')).toBe('TRUE: acted; FALSE: not acted, or its wire is broken')
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
