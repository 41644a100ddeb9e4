import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { emptySheet } from '../sheet/schema'
import { briefSchema } from '../size/brief'
import { circuit, powerUnit, powerUnitPipes, runSheet, timed } from '../testing'
import { encodeRun } from './run-file'
import { readWorkspace, writeWorkspace, type WorkspaceMachine } from './workspace'
import { unzip, zip } from './zip'

const sheet = circuit(powerUnit, powerUnitPipes)
const machine: WorkspaceMachine = {
  name: 'Lift',
  summary: 'Lifts & lowers',
  brief: briefSchema.parse({}),
  variants: [
    {
      name: 'First',
      sheet,
      revisions: [{ name: 'A', note: 'for review', createdAt: 1_760_000_000_000, sheet: emptySheet('Lift') }],
      runs: [
        {
          name: 'Run 1',
          createdAt: 1_760_000_000_001,
          sheet,
          data: encodeRun(runSheet(timed(sheet, 0.1, []))),
        },
      ],
    },
    { name: 'Second', sheet: emptySheet('Lift'), revisions: [], runs: [] },
  ],
}
const archive = (change: (files: Record<string, Uint8Array>) => void) => {
  const files = Object.fromEntries(unzip(writeWorkspace([machine])))
  change(files)
  return zipSync(files)
}

describe('a workspace as an archive', () => {
  it('comes back as it went out', () => {
    const [back] = readWorkspace(writeWorkspace([machine]))
    expect(back).toEqual(machine)
  })
  it('keeps equal sheets once', () => {
    const names = [...unzip(writeWorkspace([machine])).keys()]
    expect(names.filter((n) => n.endsWith('.json'))).toHaveLength(3)
  })
  const refusals: [string, Uint8Array | (() => Uint8Array), RegExp][] = [
    ['what is no archive', strToU8('hello'), /not an archive/],
    ['a damaged one', () => writeWorkspace([machine]).slice(0, 300), /not an archive/],
    ['one without its list', zip({ 'sheet.json': '{}' }), /no workspace\.json/],
    ['a list that is no JSON', zip({ 'workspace.json': '{' }), /not JSON/],
    ['a newer one', zip({ 'workspace.json': '{"version":9}' }), /reads up to version 1/],
    [
      'a sheet that is not there',
      () => archive((files) => delete files['machine-1/variant-1.json']),
      /no file "machine-1\/variant-1\.json"/,
    ],
    [
      'a sheet that does not read',
      () => archive((files) => (files['machine-1/variant-1.json'] = strToU8('{"format":"x"}'))),
      /variant-1\.json: This is not an Oar Bench sheet/,
    ],
    [
      'a run that is none',
      () => archive((files) => (files['machine-1/variant-1-run-1.run'] = strToU8('x'))),
      /run-1\.run: /,
    ],
    ['a name that leads up', zip({ '../workspace.json': '{}' }), /leads out of it/],
    ['a name from the root', zip({ '/etc/passwd': '' }), /leads out of it/],
    ['a name of another system', zip({ 'C:\\windows\\x': '' }), /leads out of it/],
    ['a file that swells', zip({ 'workspace.json': '0'.repeat(50e6) }), /unpacks to far more/],
  ]
  it.each(refusals)('is refused: %s', (_, bytes, words) => {
    expect(() => readWorkspace(typeof bytes === 'function' ? bytes() : bytes)).toThrow(words)
  })
  it('is refused for too many files or too much', () => {
    const many = zip(Object.fromEntries(Array.from({ length: 30 }, (_, i) => [`${i}.txt`, 'x'])))
    expect(() => unzip(many, { files: 20, bytes: 1e6 })).toThrow(/more than 20 files/)
    expect(() => unzip(zip({ a: 'xy'.repeat(1000) }), { files: 20, bytes: 1000 })).toThrow(
      /unpacks to more than/,
    )
  })
  it('gives no file more room than it says', () => {
    const bytes = zip({ 'a.txt': 'x'.repeat(5000) })
    // the size unpacked stands in the central directory, 24 bytes behind its signature
    const at = bytes.findIndex((_, i) => bytes[i] === 0x50 && bytes[i + 1] === 0x4b && bytes[i + 2] === 1)
    new DataView(bytes.buffer, bytes.byteOffset).setUint32(at + 24, 100, true)
    expect(unzip(bytes).get('a.txt')!.length).toBeLessThanOrEqual(100)
  })
})
