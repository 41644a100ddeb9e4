import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { exportFormats } from '../formats/registry'
import { sheetToPdf } from '../formats/pdf'
import { pageToSvg, readSvg } from '../formats/svg'
import { readSheetText } from '../sheet/read'
import { showIn } from '../units/text'
import { letteringFonts } from './fonts'
import { pixelsOf } from './picture'
import { root, runBundled } from './testing'

const sheetFile = join(root, 'demo/sheets/relief-rig.json')
const folder = mkdtempSync(join(tmpdir(), 'export-'))
const exported = (...args: string[]) => runBundled('export', ...args)
const optionOf = (name: string) => `--${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`

describe('the runner for exports', () => {
  it('writes every format in one call, without a browser', async () => {
    const files = exportFormats.map(({ name, ending }) => ({
      name,
      path: join(folder, `${name}${ending}`),
    }))
    const done = await exported(sheetFile, ...files.flatMap(({ name, path }) => [optionOf(name), path]))
    expect(done.err).toBe('')
    expect(done.code).toBe(0)
    const bytes = (name: string) => readFileSync(files.find((f) => f.name === name)!.path)
    const { sheet } = readSheetText(readFileSync(sheetFile, 'utf8')) as { sheet: unknown }
    expect(readSvg(bytes('svg').toString())).toEqual({ ok: true, sheet })
    expect(bytes('pdf').subarray(0, 5).toString()).toBe('%PDF-')
    expect(bytes('report').subarray(0, 5).toString()).toBe('%PDF-')
    // 12 dots to a millimetre: a chunk pHYs of 12000 to the metre
    const png = bytes('png')
    const at = png.indexOf('pHYs')
    expect(at).toBeGreaterThan(0)
    expect([png.readUInt32BE(at + 4), png.readUInt32BE(at + 8), png[at + 12]]).toEqual([12000, 12000, 1])
    expect(bytes('runCsv').toString().split('\r\n').length).toBeGreaterThan(100)
    expect(bytes('partsXlsx').subarray(0, 2).toString()).toBe('PK')
  })
  it('changes paper, title and style of a table', async () => {
    const [pdf, csv] = [join(folder, 'a.pdf'), join(folder, 'a.csv')]
    const done = await exported(
      sheetFile,
      ...['--pdf', pdf, '--paper', 'ANSI-B', '--title', 'Bench', '--parts-csv', csv],
      ...['--separator', 'semicolon', '--decimal', 'comma'],
    )
    expect(done.code).toBe(0)
    expect(readFileSync(csv, 'utf8')).toMatch(/^\uFEFFPosition;Quantity;Part/)
    const info = spawnSync('pdfinfo', [pdf], { encoding: 'utf8' }).stdout
    expect(info).toMatch(/Title:\s+Bench/)
    expect(info).toMatch(/Page size:\s+1224 x 792/)
  })
  it.each([
    [['nowhere.json', '--pdf', 'x'], /Cannot read nowhere\.json/],
    [[sheetFile], /Nothing to write was named/],
    [[sheetFile, '--pdf', 'x', '--paper', 'B7'], /--paper is one of A4, A3/],
    [[sheetFile, '--bitmap', 'x'], /Unknown option '--bitmap'/],
    [[sheetFile, '--pdf', '/nowhere/x.pdf'], /Cannot write \/nowhere\/x\.pdf/],
    [[sheetFile, '--svg', join(folder, 'b.svg'), '--title', 'a\nb'], /line break or a control character/],
  ])('refuses %j plainly', async (args, message) => {
    const done = await exported(...args)
    expect(done.code).toBe(2)
    expect(done.err).toMatch(message)
    expect(done.err).not.toMatch(/^\s+at /m)
  })
  it('says which letters are in no font', async () => {
    const odd = join(folder, 'odd.json')
    const read = readSheetText(readFileSync(sheetFile, 'utf8'))
    if (!read.ok) throw new Error('the demo sheet is read')
    writeFileSync(odd, JSON.stringify({ ...read.sheet, title: 'Prüfstand 壓' }))
    const done = await exported(odd, '--pdf', join(folder, 'odd.pdf'))
    expect(done.code).toBe(0)
    expect(done.err).toMatch(/No font has this letter: 壓/)
  })
})

describe('the page', () => {
  const dots = 4
  /** Share of the ink of one picture that has none near it in another. */
  const alone = (
    one: (x: number, y: number) => boolean,
    other: typeof one,
    width: number,
    height: number,
  ) => {
    let [ink, lone] = [0, 0]
    for (let y = 2; y < height - 2; y++)
      for (let x = 2; x < width - 2; x++) {
        if (!one(x, y)) continue
        ink++
        let near = false
        for (let dy = -2; dy <= 2 && !near; dy++)
          for (let dx = -2; dx <= 2 && !near; dx++) near = other(x + dx, y + dy)
        if (!near) lone++
      }
    return { ink, share: lone / ink }
  }
  it.each(['quay-crane', 'sluice-rotor', 'shavings-press-two-stage'])(
    'of %s is the same picture as PDF and as it is shown before it is printed',
    async (name) => {
      const read = readSheetText(readFileSync(join(root, `demo/sheets/${name}.json`), 'utf8'))
      if (!read.ok) throw new Error(read.problems[0].message)
      const show = showIn('metric')
      const shown = await pixelsOf(pageToSvg(read.sheet, show).svg, dots)
      const file = join(folder, `${name}.pdf`)
      writeFileSync(file, (await sheetToPdf(read.sheet, show, letteringFonts)).bytes)
      const { stdout } = spawnSync('pdftoppm', ['-r', String(dots * 25.4), '-gray', file], {
        encoding: 'buffer',
        maxBuffer: 1e8,
      })
      const [, width, height] = /^P5\s+(\d+)\s+(\d+)\s+255\s/
        .exec(stdout.toString('latin1', 0, 40))!
        .map(Number)
      expect(Math.abs(width - shown.width)).toBeLessThan(3)
      const start = stdout.length - width * height
      const printed = (x: number, y: number) => stdout[start + y * width + x] < 200
      const drawn = (x: number, y: number) => shown.pixels[4 * (y * shown.width + x)] < 200
      const [w, h] = [Math.min(width, shown.width), Math.min(height, shown.height)]
      for (const [one, other] of [
        [printed, drawn],
        [drawn, printed],
      ]) {
        const { ink, share } = alone(one, other, w, h)
        expect(ink).toBeGreaterThan(10_000)
        expect(share).toBeLessThan(0.01)
      }
    },
  )
})
