import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fontkit from '@pdf-lib/fontkit'
import DxfParser, { type ICircleEntity, type IInsertEntity } from 'dxf-parser'
import ExcelJS from 'exceljs'
import { describe, expect, it } from 'vitest'
import { kinds } from '../catalogue'
import {
  changePipe,
  addComponent,
  mirror,
  rotate,
  setParameter,
  acceptWarning,
  setDesignation,
} from '../sheet/edit'
import { readSheetText } from '../sheet/read'
import { emptySheet, SHEET_VERSION, type PipeEnd, type Sheet } from '../sheet/schema'
import { check, compile } from '../simulate/compile'
import { Simulation } from '../simulate/simulation'
import { circuit, idOf, powerUnit, powerUnitPipes, runSheet, timed, track } from '../testing'
import { letteringFonts } from '../cli/fonts'
import { showIn } from '../units/text'
import { csv } from './csv'
import { sheetToDxf } from './dxf'
import { fontsFor } from './lettering-fonts'
import { netlistRows, partsList } from './lists'
import { pageOf } from './page'
import { sheetToPdf } from './pdf'
import { visibleParts } from './clip'
import { allStrokes, plotSheet } from './plot'
import { reportToPdf } from './report'
import { readSvg, sheetToSvg } from './svg'
import { workbook } from './xlsx'

const show = showIn('metric')
const unit: Sheet = { ...circuit(powerUnit, powerUnitPipes), title: 'Power unit <"A" & B>' }
/** One of every kind, turned and mirrored in turn. */
const everyKind = [...kinds.keys()].reduce((sheet, kind, i) => {
  const added = addComponent(sheet, kind, { x: 30 * (i % 9), y: 30 * Math.floor(i / 9) })
  const turned = i % 2 ? rotate(added.sheet, [added.id]) : added.sheet
  return i % 3 ? mirror(turned, [added.id]) : turned
}, emptySheet('Every kind'))
describe('the sheet file', () => {
  it('of version 1 is read with what came in later at its defaults', () => {
    const old = {
      format: 'oar-bench-sheet',
      version: 1,
      title: 'Old',
      joints: [{ id: 'J1', x: 0, y: 0 }],
      pipes: [{ id: 'L1', line: 'pilot', from: { joint: 'J1' }, to: { joint: 'J1' } }],
    }
    const read = readSheetText(JSON.stringify(old))
    if (!read.ok) throw new Error(read.problems[0].message)
    expect(read.sheet).toMatchObject({
      version: SHEET_VERSION,
      page: { size: 'A3' },
      acceptedWarnings: [],
      junctions: [{ id: 'J1' }],
      pipes: [{ lineType: 'pilot', from: { junction: 'J1' } }],
    })
  })
  it('of version 4 has its fields renamed, and loses nothing', () => {
    const { junctions, pipes, schedules } = unit
    const end = (e: PipeEnd) => ('junction' in e ? { joint: e.junction } : e)
    const old: Record<string, unknown> = {
      ...unit,
      version: 4,
      joints: junctions,
      pipes: pipes.map((pipe) => {
        const { lineType, from, to, ...others } = pipe
        return { ...others, line: lineType, shaped: true, from: end(from), to: end(to) }
      }),
      schedules: [{ ...schedules[0], start: 'settled' }],
      silenced: [{ rule: 'open-port', place: 'P1', reason: 'later' }],
    }
    delete old.junctions
    delete old.acceptedWarnings
    expect(readSheetText(JSON.stringify(old))).toEqual({
      ok: true,
      sheet: {
        ...unit,
        pipes: pipes.map((pipe) => ({ ...pipe, manualRoute: true })),
        schedules: [{ ...schedules[0], start: 'steadyState' }],
        acceptedWarnings: [{ rule: 'open-port', location: 'P1', reason: 'later' }],
      },
    })
  })
  it.each([
    ['pipes that are no list', { pipes: 7 }, 'pipes'],
    ['a pipe that is nothing', { pipes: [null] }, 'pipes'],
    ['a start of no meaning', { schedules: [{ id: 'a', start: 'constructor' }] }, 'start'],
    ['a field of no meaning', { toString: 1 }, 'toString'],
  ])('of version 4 with %s is refused, and says where', (_words, fields, where) => {
    const read = readSheetText(JSON.stringify({ format: 'oar-bench-sheet', version: 4, ...fields }))
    expect(read.ok ? '' : read.problems[0].message).toContain(where)
  })
  it.each([
    ['a version of no meaning', 'version', 0],
    ['paper of no standard', 'page', { size: 'B7' }],
    [
      'an accepted warning without its reason',
      'acceptedWarnings',
      [{ rule: 'open-port', location: '', reason: '' }],
    ],
  ])('with %s is refused', (_words, field, value) => {
    const read = readSheetText(JSON.stringify({ ...unit, [field]: value }))
    expect(read.ok ? '' : read.problems[0].message).toContain(field)
  })
})

describe('a sheet file that is made to take long', () => {
  const many = (n: number) => Object.fromEntries(Array.from({ length: n }, (_, i) => [`p${i}`, '1 m']))
  const deep = (n: number): unknown => (n ? [deep(n - 1)] : 1)
  it.each([
    [
      'too many parameters',
      { components: [{ id: 'a', kind: 'note', parameters: many(300) }] },
      /more than 200/,
    ],
    ['very many parameters', { components: [{ id: 'a', kind: 'note', parameters: many(9000) }] }, /far more/],
    ['lists in lists', { components: deep(40) }, /nested too deep/],
    ['endless fields', many(9000), /far more/],
  ])('is refused: %s', (_words, fields, message) => {
    const read = readSheetText(JSON.stringify({ format: 'oar-bench-sheet', version: 5, ...fields }))
    expect(read.ok ? '' : read.problems[0].message).toMatch(message)
  })
})

describe('a plot', () => {
  it('draws equal symbols as one block, and turned ones as another', () => {
    const sheet = ['tank', 'tank'].reduce((s) => addComponent(s, 'reservoir').sheet, emptySheet('Tanks'))
    expect(plotSheet(sheet, show).blocks.size).toBe(1)
    expect(plotSheet(rotate(sheet, [sheet.components[0].id]), show).blocks.size).toBe(2)
  })
  it('leaves settings out where asked', () => {
    const letters = (settings: boolean) =>
      allStrokes(plotSheet(unit, show, { settings })).flatMap(({ layer, ink }) =>
        layer === 'lettering' && ink.shape === 'letters' ? [ink.text] : [],
      )
    expect(letters(true)).toContain('16 cm³/rev')
    expect(letters(false)).toEqual(unit.components.map((c) => c.designation))
  })
})

describe('SVG', () => {
  it('gives the sheet back without loss, whatever its texts hold', () => {
    for (const sheet of [unit, everyKind])
      expect(readSvg(sheetToSvg(sheet, show))).toEqual({ ok: true, sheet })
  })
  it('is true to the module: 2.5 mm', () => {
    const svg = sheetToSvg(unit, show)
    const [, width] = /width="([\d.]+)mm"/.exec(svg)!
    const [, , , w] = /viewBox="(\S+) (\S+) (\S+) /.exec(svg)!
    expect(Number(width) / Number(w)).toBeCloseTo(2.5, 3)
  })
  it('without a sheet in it, or with a broken one, is refused', () => {
    const words = (text: string) => {
      const read = readSvg(text)
      return read.ok ? '' : read.problems[0].message
    }
    expect(words('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>')).toContain(
      'picture only',
    )
    expect(words('<sheet xmlns="urn:oar-bench:sheet">{&quot;format&quot;:</sheet>')).toContain('not JSON')
  })
})

describe('marks in an SVG', () => {
  it('lie under what stands out, and nothing else is marked', () => {
    const [part, pipe] = [unit.components[0], unit.pipes[0]]
    const marks = new Map([
      [part.id, '#123456'],
      [pipe.id, '#654321'],
      ['not there', '#000000'],
    ])
    const svg = sheetToSvg(unit, show, { marks })
    expect(
      [...svg.matchAll(/data-mark="([^"]+)".* (?:fill|stroke)="(#\d+)"/g)].map((m) => m.slice(1)),
    ).toEqual([
      [part.id, '#123456'],
      [pipe.id, '#654321'],
    ])
    expect(svg.indexOf('id="marks"')).toBeLessThan(svg.indexOf('id="symbols"'))
    expect(readSvg(svg)).toEqual({ ok: true, sheet: unit })
    expect(sheetToSvg(unit, show)).not.toContain('marks')
  })
})

describe('DXF', () => {
  const read = (sheet: Sheet) => new DxfParser().parseSync(sheetToDxf(sheet, show))!
  it('opens in another reader with layers, blocks and text', () => {
    const dxf = read(unit)
    expect(Object.keys(dxf.tables.layer.layers)).toEqual(
      expect.arrayContaining(['working', 'pilot', 'drain', 'hose', 'shaft', 'rod', 'symbols', 'lettering']),
    )
    const of = (type: string) => dxf.entities.filter((e) => e.type === type)
    expect(of('INSERT')).toHaveLength(unit.components.length)
    expect(of('TEXT').map((e) => (e as unknown as { text: string }).text)).toEqual(
      expect.arrayContaining(['16 cm³/rev', 'Circuit diagram']),
    )
    expect(of('LWPOLYLINE').map((e) => e.layer)).toEqual(expect.arrayContaining(['working', 'shaft']))
    for (const insert of of('INSERT') as unknown as { name: string }[])
      expect(dxf.blocks[insert.name].entities.length).toBeGreaterThan(0)
  })
  it('puts a line where the page has it, in millimetres, y upwards', () => {
    const pipe = read(unit).entities.find((e) => e.layer === 'working') as unknown as {
      vertices: { x: number; y: number }[]
    }
    const plot = plotSheet(unit, show)
    const { scale, origin, height } = pageOf(unit, plot.boxes)
    const [first] = plot.strokes
    if (first.ink.shape !== 'line') throw new Error('no line')
    first.ink.points.forEach(([x, y], i) => {
      expect(pipe.vertices[i].x).toBeCloseTo(origin[0] + 2.5 * scale * x, 6)
      expect(pipe.vertices[i].y).toBeCloseTo(height - origin[1] - 2.5 * scale * y, 6)
    })
  })
  it('has designations as attributes, layers with widths and colours, and its extents', () => {
    const text = sheetToDxf(unit, show).replace(/\r/g, '').replace(/^ +/gm, '')
    expect(text).toMatch(/\nATTRIB\n[\s\S]*?\n1-1P1\n[\s\S]*?\nDESIGNATION\n/)
    expect(text).toMatch(/\$EXTMAX\n10\n420\n20\n297\n/)
    const { layers } = read(unit).tables.layer
    expect(layers.pilot.color).not.toBe(layers.working.color)
    expect(text).toMatch(/\nframe-70\n[\s\S]{0,120}?\n370\n70\n/)
  })
  it('has blocks of their true size, brought to that of the page by their inserts, and a TrueType font', () => {
    // a larger paper has another scale, and the same blocks
    const blocksOn = (size: 'A4' | 'A2') => {
      const sheet = { ...unit, page: { ...unit.page, size } }
      const dxf = read(sheet)
      const scale = pageOf(sheet, plotSheet(sheet, show).boxes).scale
      const inserts = dxf.entities.filter((e): e is IInsertEntity => e.type === 'INSERT')
      expect(inserts.length).toBeGreaterThan(0)
      for (const { xScale, yScale } of inserts) {
        expect(xScale).toBeCloseTo(scale, 9)
        expect(yScale).toBeCloseTo(scale, 9)
      }
      return {
        scale,
        blocks: Object.values(dxf.blocks).map((b) =>
          JSON.stringify(b.entities, (k, v: unknown) => (/andle/.test(k) ? undefined : v)),
        ),
      }
    }
    const [small, large] = [blocksOn('A4'), blocksOn('A2')]
    expect(small.scale).not.toBeCloseTo(large.scale, 3)
    expect(small.blocks).toEqual(large.blocks)
    const text = sheetToDxf(unit, show).replace(/\r/g, '').replace(/^ +/gm, '')
    expect(text).toMatch(/\nSTYLE\n[\s\S]*?\n3\n[\w-]+\.ttf\n/)
    // the circle of a pump has a radius of two modules of 2.5 mm in its block
    const pump = addComponent(emptySheet('Pump'), 'fixed-pump').sheet
    const circles = Object.values(read(pump).blocks)
      .flatMap((block) => block.entities ?? [])
      .filter((e): e is ICircleEntity => e.type === 'CIRCLE')
    const [[, inks]] = [...plotSheet(pump, show).blocks]
    const radii = inks.flatMap((ink) => (ink.shape === 'circle' ? [2.5 * ink.r] : []))
    expect(circles.map((c) => c.radius)).toEqual(radii)
  })
  it('shows nothing through what is filled: the rod ends at the piston', () => {
    const sheet = addComponent(emptySheet('Ram'), 'cylinder-double-acting').sheet
    const [[, inks]] = [...plotSheet(sheet, show).blocks]
    expect(inks.some((ink) => 'fill' in ink && ink.fill === 'paper')).toBe(true)
    const lines = (list: typeof inks) => list.filter((ink) => ink.shape === 'line').length
    expect(lines(visibleParts(inks))).toBeGreaterThan(lines(inks))
    expect(visibleParts(visibleParts(inks))).toEqual(visibleParts(inks))
  })
  it('writes out what the format would take for control sequences', () => {
    const odd = setDesignation(unit, unit.components[0].id, 'A%%d\\P^B')
    expect(sheetToDxf(odd, show)).toContain('A%\\U+0025d\\U+005CP\\U+005EB')
  })
  it('has a hose hang through', () => {
    const [pipe] = unit.pipes.filter((p) => p.lineType === 'working')
    const hosed = changePipe(unit, pipe.id, { lineType: 'hose' })
    const on = (sheet: Sheet) => read(sheet).entities.filter((e) => e.layer === 'hose')
    expect(on(unit)).toEqual([])
    // with a dot at each end
    expect(on(hosed).map((e) => e.type)).toEqual(['LWPOLYLINE', 'ARC', 'LWPOLYLINE', 'CIRCLE', 'CIRCLE'])
    // the part is level: it hangs down, and a drawing has its y upwards
    const arc = on(hosed)[1] as unknown as { startAngle: number; endAngle: number }
    expect([arc.startAngle, arc.endAngle].map((a) => Math.round((a * 180) / Math.PI))).toEqual([210, 330])
  })
  it('holds every kind', () => {
    const dxf = read(everyKind)
    expect(dxf.entities.filter((e) => e.type === 'INSERT')).toHaveLength(kinds.size)
  })
})

describe('PDF', () => {
  it('is one page of its paper whose text can be found', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'sheet-'))
    const file = join(folder, 'sheet.pdf')
    const page = { ...unit.page, number: 'YD-0042', drawnBy: 'Drawing office' }
    writeFileSync(file, (await sheetToPdf({ ...unit, page }, show, letteringFonts)).bytes)
    const text = spawnSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).stdout
    for (const words of [
      'Power unit <"A" & B>',
      'YD-0042',
      'Drawing office',
      '1-1P1',
      '16 cm³/rev',
      '1 of 1',
    ])
      expect(text).toContain(words)
    const info = spawnSync('pdfinfo', [file], { encoding: 'utf8' }).stdout
    expect(info).toMatch(/Title:\s+Power unit <"A" & B>/)
    expect(info).toMatch(/Subject:\s+Circuit diagram, YD-0042/)
    expect(info).toMatch(/Author:\s+Drawing office/)
    expect(info).toMatch(/Pages:\s+1/)
    expect(info).toMatch(/Page size:\s+1190\.55 x 841\.89/)
    const drawn = spawnSync('pdftoppm', ['-r', '20', '-gray', file], { encoding: 'buffer' }).stdout
    expect(drawn.filter((byte) => byte < 128).length).toBeGreaterThan(500)
  })
  it('draws every kind, in the letters of several scripts; for what is in no font it says which', async () => {
    const sheet = { ...everyKind, title: 'Łódź, Žďár, Γερανός, Кран 壓' }
    const file = join(mkdtempSync(join(tmpdir(), 'sheet-')), 'sheet.pdf')
    const { bytes, missing } = await sheetToPdf(sheet, show, letteringFonts)
    writeFileSync(file, bytes)
    const text = spawnSync('pdftotext', [file, '-'], { encoding: 'utf8' }).stdout
    expect(text).toContain('Łódź, Žďár, Γερανός, Кран ?')
    expect(missing).toEqual(['壓'])
  })
  it('has the signs of mathematics, and all letters of the fonts that come with it', async () => {
    const signs = 'p ≥ 5, ≤ 7, ≈ ≠ ∆p ∞ √ → ↔ Δ Ω µ ± × · ″'
    const file = join(mkdtempSync(join(tmpdir(), 'sheet-')), 'sheet.pdf')
    const { bytes, missing } = await sheetToPdf({ ...unit, title: signs }, show, letteringFonts)
    writeFileSync(file, bytes)
    expect(missing).toEqual([])
    expect(spawnSync('pdftotext', [file, '-'], { encoding: 'utf8' }).stdout).toContain('p ≥ 5, ≤ 7, ≈ ≠ ∆p ∞')
    // what a font of signs says that it has is in its file, so that none of it becomes a question mark
    const [font] = letteringFonts.filter(({ family }) => family === 'Noto Sans Math')
    const own = new Set(fontkit.create(await font.plain()).characterSet)
    for (let code = 0x2030; code < 0x2400; code++)
      if (!fontsFor(String.fromCodePoint(code), [font]).missing.length)
        expect(own, code.toString(16)).toContain(code)
  })
})

describe('lists', () => {
  it('count equal parts once', () => {
    const rows = partsList(unit, show)
    expect(rows[0]).toEqual(['Position', 'Quantity', 'Part', 'Settings and sizes', 'Designations'])
    const tanks = rows.find((r) => r[2] === 'Reservoir')!
    expect(tanks.slice(1)).toEqual([1, 'Reservoir', '', '1-1Z1'])
    // drawn twice, and one tank all the same
    expect(unit.components.filter((c) => c.kind === 'reservoir')).toHaveLength(2)
    expect(rows.find((r) => r[2] === 'Pump, fixed displacement')!.slice(1, 4)).toEqual([
      1,
      'Pump, fixed displacement',
      '16 cm³/rev',
    ])
  })
  it('say what a run has made of a setting, beside what is drawn', () => {
    const relief = idOf(unit, 'relief-valve-direct')
    const pump = idOf(unit, 'fixed-pump')
    const { compiled } = compile(unit)
    const simulation = new Simulation(compiled!)
    const textOf = (id: string) => {
      const { designation } = unit.components.find((c) => c.id === id)!
      return String(partsList(unit, show, simulation.result()).find((row) => row[4] === designation)![3])
    }
    const before = textOf(relief)
    expect(before).not.toContain('end of the run')
    simulation.set(relief, 'setting', 80e5)
    expect(textOf(relief)).toBe(`${before}; Setting at the end of the run: 80 bar`)
    simulation.setParameter(relief, 'setting', '95 bar')
    simulation.release(relief, 'setting')
    expect(textOf(relief)).toBe(`${before}; Setting at the end of the run: 95 bar`)
    simulation.setParameter(pump, 'displacement', '20 cm³/rev')
    expect(textOf(pump)).toMatch(/Displacement at the end of the run: 20 cm³\/rev$/)
    // put back to what is drawn, there is nothing to say
    simulation.setParameter(
      relief,
      'setting',
      unit.components.find((c) => c.id === relief)!.parameters.setting,
    )
    expect(textOf(relief)).toBe(before)
  })
  it('name both ends of every pipe', () => {
    const rows = netlistRows(unit)
    expect(rows).toHaveLength(unit.pipes.length + 1)
    expect(rows[1].slice(3, 7)).toEqual(['1-1Z1', 'T', '1-1P1', 'S'])
  })
  it('as a workbook read the same in another program', async () => {
    const rows = partsList(unit, show)
    const bytes = await workbook(rows, 'Parts')
    const book = new ExcelJS.Workbook()
    await book.xlsx.load(bytes.slice().buffer)
    const read: unknown[][] = []
    book
      .getWorksheet('Parts')!
      .eachRow((row) => read.push(rows[0].map((_, i) => row.getCell(i + 1).value ?? '')))
    expect(read).toEqual(rows)
    const { pageSetup } = book.getWorksheet('Parts')!
    expect(pageSetup).toMatchObject({ orientation: 'landscape', fitToPage: true, fitToHeight: 0 })
    expect(pageSetup.printTitlesRow).toBe('1:1')
    expect(book.getWorksheet('Parts')!.getCell('D2').alignment).toMatchObject({ wrapText: true })
  })
  it('as CSV quote what needs it, and are no formulas', () => {
    expect(csv([['a,b', 'say "x"', '=1+1', -3, '-2', 'two\nlines']])).toBe(
      '"a,b","say ""x""",\'=1+1,-3,-2,"two\nlines"\r\n',
    )
    const style = { separator: ';', decimal: ',' } as const
    expect(csv([['a;b', 'c,d', 'tab\there', '1;=1+1', 1.5]], style)).toBe(
      '"a;b";"c,d";"tab\there";"1;=1+1";1,5\r\n',
    )
    expect(csv([[1.5]], { separator: ',', decimal: ',' })).toBe('"1,5"\r\n')
  })
})

describe('report', () => {
  it('tells checks, what was accepted and why, parts, schedule and run, on pages that are numbered', async () => {
    const valve = idOf(unit, 'relief-valve-direct')
    const marked = acceptWarning(
      setParameter({ ...unit, page: { ...unit.page, number: 'YD-0042' } }, valve, 'setting', '160 psi'),
      'unit-slip',
      valve,
      'it is meant so, and is a reason long enough to be wrapped within its column of the table',
    )
    const sheet = timed(marked, 0.2, [track(idOf(unit, 'electric-motor'), 'speed', [0.1, '900 rpm'])])
    const file = join(mkdtempSync(join(tmpdir(), 'report-')), 'report.pdf')
    const of = { sheet, findings: check(sheet), machine: 'Rig', run: runSheet(sheet) }
    writeFileSync(file, (await reportToPdf(of, show, letteringFonts)).bytes)
    const text = spawnSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).stdout
    for (const words of [
      'Rig: Power unit',
      'Drawing YD-0042',
      'it is meant so, and is a reason long',
      'was 160 bar meant?',
      'Relief valve, direct-acting',
      '900 rpm',
      'It ran for 0.2 s',
      'Pressures of the lines',
      'qualified person',
    ])
      expect(text).toContain(words)
    const pages = Number(/Pages:\s+(\d+)/.exec(spawnSync('pdfinfo', [file], { encoding: 'utf8' }).stdout)![1])
    expect(text).toContain(`${pages} of ${pages}`)
  })
  it('goes on to further pages, and says where a run stopped', async () => {
    const stopped = {
      ...runSheet(timed(unit, 0.1, [])),
      finished: false,
      stopped: { message: 'The run stopped at 1 s.' },
    }
    const file = join(mkdtempSync(join(tmpdir(), 'report-')), 'report.pdf')
    writeFileSync(
      file,
      (
        await reportToPdf(
          { sheet: everyKind, findings: check(everyKind), run: stopped },
          show,
          letteringFonts,
        )
      ).bytes,
    )
    const text = spawnSync('pdftotext', [file, '-'], { encoding: 'utf8' }).stdout
    expect(text).toContain('The run stopped at 1 s.')
    expect(text).toMatch(/3 of \d+/)
  })
})
