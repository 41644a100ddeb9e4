import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { root, runBundled } from './testing'

const press = join(root, 'demo/sheets/blade-press-switches.json')
let place: string
beforeAll(() => (place = mkdtempSync(join(tmpdir(), 'oar-bench-'))))
afterAll(() => rmSync(place, { recursive: true }))
/** The blade press with something changed in its control. */
function changed(name: string, change: (control: { rungs: { contacts: string }[] }) => void): string {
  const sheet = JSON.parse(readFileSync(press, 'utf8'))
  change(sheet.control)
  const path = join(place, name)
  writeFileSync(path, JSON.stringify(sheet))
  return path
}

describe('the control without a browser', { timeout: 60_000 }, () => {
  it('prints proofs, writes XML and the list of inputs and outputs, and reads the XML again', async () => {
    const [xml, io, back] = ['c.xml', 'io.csv', 'back.json'].map((file) => join(place, file))
    const { code, out } = await runBundled('control', press, '--check', '--xml', xml, '--io', io)
    expect(code).toBe(0)
    expect(out).toContain('proved: never both solenoids of 1-1V1 have current')
    expect(readFileSync(io, 'utf8')).toContain('output,1-2V1.a')
    expect((await runBundled('control', press, '--import', xml, '--sheet', back)).code).toBe(0)
    const rungs = (file: string) => JSON.parse(readFileSync(file, 'utf8')).control.rungs
    expect(rungs(back)).toEqual(rungs(press))
    const requirements = (file: string) => JSON.parse(readFileSync(file, 'utf8')).control.requirements
    expect(requirements(press)).not.toEqual([])
    expect(requirements(back)).toEqual(requirements(press))
  })
  it('ends with 1 where something is found or refuted, with 2 where it cannot be read', async () => {
    const open = changed('open.json', ({ rungs }) => (rungs[4].contacts = 'K1 · /K3'))
    const refuted = await runBundled('control', open, '--check', '--json')
    expect(refuted.code).toBe(1)
    const { proofs } = JSON.parse(refuted.out)
    expect(proofs.find((p: { id: string }) => p.id === 'N1')).toMatchObject({ outcome: 'refuted' })
    const wrong = changed('wrong.json', ({ rungs }) => (rungs[0].contacts = 'S12 S13'))
    const found = await runBundled('control', wrong, '--check')
    expect([found.code, found.out]).toEqual([
      1,
      expect.stringContaining('error: control R1: Path 1: Between two contacts'),
    ])
    expect((await runBundled('control', 'nowhere.json', '--check')).code).toBe(2)
    const none = await runBundled('control', join(root, 'demo/sheets/relief-rig.json'), '--check')
    expect([none.code, none.err]).toEqual([2, expect.stringContaining('The sheet has no control')])
    const other = join(place, 'other.xml')
    writeFileSync(other, '<Project xmlns="elsewhere"/>')
    const refused = await runBundled('control', press, '--import', other)
    expect([refused.code, refused.err]).toEqual([2, expect.stringContaining('This is no IEC 61131-10 file')])
  })
  it('is run by buttons that are pressed on the command line, with its events in the result', async () => {
    const json = join(place, 'run.json')
    const { code, out } = await runBundled(
      'simulate',
      press,
      ...['--schedule', 'jam', '--until', '2', '--press', 'S11@1', '--release', 'S11@1.2', '--json', json],
    )
    expect(code).toBe(0)
    expect(out).toContain('motor M1: 0 starts')
    const { events } = JSON.parse(readFileSync(json, 'utf8'))
    expect(events.map((e: { component: string; what: string }) => `${e.component} ${e.what}`)).toEqual(
      expect.arrayContaining([
        'K1 pulls in',
        'V2 coilA = 1',
        'S11 S11.pressed = 1',
        'K1 drops out',
        'V2 coilA = 0',
      ]),
    )
    const rest = await runBundled('simulate', press, '--steady', '0')
    expect([rest.code, rest.out]).toEqual([0, expect.stringContaining('the control is not worked out here')])
    const wrong = await runBundled('simulate', press, '--press', 'S77@1')
    expect([wrong.code, wrong.err]).toEqual([2, expect.stringContaining('S77')])
  })
})
