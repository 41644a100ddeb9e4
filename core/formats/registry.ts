/** Every format that a sheet and its run are written in. Menu, command search and the runner are made from this list. */
import type { Show } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'
import { writeSheetText } from '../sheet/read'
import type { Schedule, Sheet } from '../sheet/schema'
import type { RunResult } from '../simulate/result'
import type { EnergyAccount } from '../explain/energy'
import type { StateTable } from '../explain/state-table'
import type { StrokeSteps } from '../explain/stroke-steps'
import type { WalkthroughState } from '../explain/walkthrough'
import type { CsvStyle, Rows } from './csv'
import type { PdfFile } from './faces'
import { fontsFor, type LetteringFont } from './lettering-fonts'
import type { PlotOptions } from './plot'
import type { SvgOptions } from './svg'

/** What is written, and what is needed for it. */
export interface ExportSource {
  readonly sheet: Sheet
  readonly show: Show
  readonly options: PlotOptions
  readonly fonts: readonly LetteringFont[]
  readonly csv: CsvStyle
  readonly machine?: string
  readonly schedule?: Schedule
  /** The run that is shown, where there is one. */
  readonly run?: RunResult
  /** Findings of the checks, accepted ones included. */
  findings(): Promise<readonly Finding[]>
  /** Answers about the run that is shown, and the states of the machine. */
  readonly answers: {
    walkthrough(): Promise<readonly WalkthroughState[]>
    energy(): Promise<EnergyAccount>
    states(): Promise<StateTable>
    /** Against the brief of the machine; of a sheet alone only as simulated. */
    strokes(): Promise<StrokeSteps>
  }
  /** An SVG as a PNG. @param dots to a millimetre */
  rasterize(svg: string, dots: number): Promise<{ png: Uint8Array; dots: number }>
}
export interface ExportedFile {
  readonly content: string | Uint8Array
  /** What whoever opens the file should know. */
  readonly warning?: string
}

export interface ExportFormat {
  readonly name: string
  readonly label: string
  readonly note: string
  readonly group: 'Drawing' | 'Control' | 'Lists' | 'Run'
  /** Put behind the title of the sheet. */
  readonly ending: string
  readonly mediaType: string
  readonly needsRun?: true
  /** Only where the machine has a control. */
  readonly needsControl?: true
  write(source: ExportSource): Promise<ExportedFile>
}

/** Dots to a millimetre of a PNG: about 300 to an inch. */
const DOTS = 12

/** Says which letters and which fields are not as they were written, and whether the letters of the drawing are too small. */
function shortcomings({
  missing,
  cut = [],
  smallLetters,
}: Omit<PdfFile, 'bytes'>): Pick<ExportedFile, 'warning'> {
  const warnings = []
  if (smallLetters) warnings.push(smallLetters)
  if (cut.length) warnings.push(`There is no room for all of these fields: ${cut.join(', ')}.`)
  if (missing.length) warnings.push(unknownLetters(missing))
  return warnings.length ? { warning: warnings.join(' ') } : {}
}
async function dxfPage(sheet: Sheet, show: Show, options: PlotOptions): Promise<ExportedFile> {
  const { sheetToDxf } = await import('./dxf')
  const { pageOf, smallLetters } = await import('./page')
  const { plotSheet } = await import('./plot')
  const page = pageOf(sheet, plotSheet(sheet, show, options).boxes)
  return {
    content: sheetToDxf(sheet, show, options),
    ...shortcomings({ missing: [], cut: page.cut, smallLetters: smallLetters(page) }),
  }
}
const unknownLetters = (missing: readonly string[]) =>
  `No font has ${missing.length > 1 ? 'these letters' : 'this letter'}: ${missing.join(' ')}. A question mark stands for each.`

/** Base64 in pieces that a call can take. */
function base64(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000))
  return btoa(text)
}
/** The fonts that all written on a sheet needs, to be put into an SVG. */
export async function embeddedFonts({
  sheet,
  fonts,
}: Pick<ExportSource, 'sheet' | 'fonts'>): Promise<SvgOptions['fonts']> {
  const { used } = fontsFor(JSON.stringify(sheet), fonts)
  return Promise.all(
    used.map(async ({ family, range, packed }) => ({ family, range, woff2Base64: base64(await packed()) })),
  )
}

/** Title and line of a document about the run. */
const runHeading = ({ sheet, machine, run }: ExportSource, what: string) => ({
  title: `${sheet.title}: ${what}`,
  line: [machine, run && (sheet.schedules.find((s) => s.id === run.schedule)?.name || run.schedule)]
    .filter(Boolean)
    .join(' · '),
})

/** The sheet with a title block for its control. */
const controlPage = (sheet: Sheet): Sheet => ({
  ...sheet,
  page: { ...sheet.page, documentType: 'Control diagram' },
})
export const hasControl = ({ control }: Sheet) => control.rungs.length + control.sequences.length > 0

const CSV = 'text/csv'
const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'

/** A table in both of its formats. */
function table(
  name: string,
  label: string,
  group: ExportFormat['group'],
  rows: (source: ExportSource) => Promise<Rows>,
  more: Pick<ExportFormat, 'needsRun' | 'needsControl'> = {},
): ExportFormat[] {
  const ending = `-${name}`
  return [
    {
      name: `${name}Csv`,
      label: `${label}, CSV`,
      note: '',
      group,
      ending: `${ending}.csv`,
      mediaType: CSV,
      ...more,
      // the mark lets spreadsheets see that it is UTF-8
      write: async (source) => ({
        content: `\uFEFF${(await import('./csv')).csv(await rows(source), source.csv)}`,
      }),
    },
    {
      name: `${name}Xlsx`,
      label: `${label}, XLSX`,
      note: '',
      group,
      ending: `${ending}.xlsx`,
      mediaType: XLSX,
      ...more,
      write: async (source) => ({
        content: await (await import('./xlsx')).workbook(await rows(source), label),
      }),
    },
  ]
}

export const exportFormats: readonly ExportFormat[] = [
  {
    name: 'json',
    label: 'Sheet file',
    note: 'all of it, to be read again',
    group: 'Drawing',
    ending: '.json',
    mediaType: 'application/json',
    write: async ({ sheet }) => ({ content: writeSheetText(sheet) }),
  },
  {
    name: 'svg',
    label: 'SVG drawing',
    note: 'can be read again',
    group: 'Drawing',
    ending: '.svg',
    mediaType: 'image/svg+xml',
    async write(source) {
      const { sheetToSvg } = await import('./svg')
      const fonts = await embeddedFonts(source)
      return { content: sheetToSvg(source.sheet, source.show, { ...source.options, fonts }) }
    },
  },
  {
    name: 'pdf',
    label: 'PDF page',
    note: 'with frame and title block',
    group: 'Drawing',
    ending: '.pdf',
    mediaType: 'application/pdf',
    async write({ sheet, show, fonts, options }) {
      const { sheetToPdf } = await import('./pdf')
      const { bytes, ...file } = await sheetToPdf(sheet, show, fonts, options)
      return { content: bytes, ...shortcomings(file) }
    },
  },
  {
    name: 'dxf',
    label: 'DXF page',
    note: 'layers and blocks',
    group: 'Drawing',
    ending: '.dxf',
    mediaType: 'image/vnd.dxf',
    async write({ sheet, show, options }) {
      return dxfPage(sheet, show, options)
    },
  },
  {
    name: 'png',
    label: 'PNG picture',
    note: '300 dots to the inch',
    group: 'Drawing',
    ending: '.png',
    mediaType: 'image/png',
    async write(source) {
      const { sheetToSvg } = await import('./svg')
      const { withResolution } = await import('./png')
      const fonts = await embeddedFonts(source)
      const svg = sheetToSvg(source.sheet, source.show, { ...source.options, fonts })
      const { png, dots } = await source.rasterize(svg, DOTS)
      return { content: withResolution(png, dots) }
    },
  },
  {
    name: 'controlSvg',
    label: 'SVG drawing of the control',
    note: '',
    group: 'Control',
    ending: '-control.svg',
    mediaType: 'image/svg+xml',
    needsControl: true,
    async write(source) {
      const { sheetToSvg } = await import('./svg')
      const fonts = await embeddedFonts(source)
      return { content: sheetToSvg(source.sheet, source.show, { fonts, subject: 'control' }) }
    },
  },
  {
    name: 'controlPdf',
    label: 'PDF page of the control',
    note: 'in the same frame',
    group: 'Control',
    ending: '-control.pdf',
    mediaType: 'application/pdf',
    needsControl: true,
    async write({ sheet, show, fonts }) {
      const { sheetToPdf } = await import('./pdf')
      const { bytes, ...file } = await sheetToPdf(controlPage(sheet), show, fonts, { subject: 'control' })
      return { content: bytes, ...shortcomings(file) }
    },
  },
  {
    name: 'controlDxf',
    label: 'DXF page of the control',
    note: '',
    group: 'Control',
    ending: '-control.dxf',
    mediaType: 'image/vnd.dxf',
    needsControl: true,
    async write({ sheet, show }) {
      return dxfPage(controlPage(sheet), show, { subject: 'control' })
    },
  },
  {
    name: 'controlXml',
    label: 'IEC 61131-10 XML',
    note: 'paths and step sequences',
    group: 'Control',
    ending: '-control.xml',
    mediaType: 'application/xml',
    needsControl: true,
    write: async ({ sheet }) => ({ content: (await import('./plc/write')).controlToXml(sheet) }),
  },
  {
    name: 'controlText',
    label: 'Paths as text',
    note: 'to be read',
    group: 'Control',
    ending: '-control.txt',
    mediaType: 'text/plain',
    needsControl: true,
    write: async ({ sheet }) => ({ content: (await import('./control-lists')).pathsText(sheet) }),
  },
  ...table(
    'io',
    'Inputs and outputs',
    'Control',
    async ({ sheet }) => (await import('./control-lists')).ioRows(sheet),
    {
      needsControl: true,
    },
  ),
  {
    name: 'report',
    label: 'Report, PDF',
    note: 'checks, parts, schedule, run',
    group: 'Lists',
    ending: '-report.pdf',
    mediaType: 'application/pdf',
    async write(source) {
      const { reportToPdf } = await import('./report')
      const { sheet, machine, run, show, fonts } = source
      const { bytes, missing } = await reportToPdf(
        { sheet, findings: [...(await source.findings())], machine, run },
        show,
        fonts,
      )
      return { content: bytes, ...shortcomings({ missing }) }
    },
  },
  ...table('parts', 'Parts list', 'Lists', async ({ sheet, show, run }) =>
    (await import('./lists')).partsList(sheet, show, run),
  ),
  ...table('netlist', 'Netlist', 'Lists', async ({ sheet }) => (await import('./lists')).netlistRows(sheet)),
  ...table('schedule', 'Schedule', 'Run', async ({ sheet, schedule }) => {
    const { scheduleRows } = await import('./csv-read')
    return scheduleRows(sheet, schedule ?? sheet.schedules[0])
  }),
  {
    name: 'walkthroughPdf',
    label: 'Walkthrough, PDF',
    note: 'what happens in the run, and why',
    group: 'Run',
    ending: '-walkthrough.pdf',
    mediaType: 'application/pdf',
    needsRun: true,
    async write(source) {
      const { walkthroughToPdf } = await import('./walkthrough-pdf')
      const { bytes, missing } = await walkthroughToPdf(
        source.sheet,
        await source.answers.walkthrough(),
        runHeading(source, 'walkthrough'),
        source.fonts,
        source.show,
      )
      return { content: bytes, ...shortcomings({ missing }) }
    },
  },
  {
    name: 'walkthroughMd',
    label: 'Walkthrough, Markdown',
    note: 'text',
    group: 'Run',
    ending: '-walkthrough.md',
    mediaType: 'text/markdown',
    needsRun: true,
    async write(source) {
      const { walkthroughToMarkdown } = await import('./walkthrough-text')
      const states = await source.answers.walkthrough()
      return { content: walkthroughToMarkdown(states, runHeading(source, 'walkthrough'), source.show) }
    },
  },
  {
    name: 'statesPdf',
    label: 'State table, PDF',
    note: 'each state with its operating point',
    group: 'Run',
    ending: '-states.pdf',
    mediaType: 'application/pdf',
    async write(source) {
      const { statesToPdf } = await import('./state-rows')
      const { bytes, missing } = await statesToPdf(
        source.sheet,
        await source.answers.states(),
        runHeading({ ...source, run: undefined }, 'state table'),
        source.fonts,
        source.show,
      )
      return { content: bytes, ...shortcomings({ missing }) }
    },
  },
  ...table('states', 'State table', 'Run', async ({ sheet, show, answers }) =>
    (await import('./state-rows')).stateRows(sheet, await answers.states(), show),
  ),
  {
    name: 'strokesSvg',
    label: 'Strokes and steps, SVG',
    note: 'stroke–step diagram',
    group: 'Run',
    ending: '-strokes.svg',
    mediaType: 'image/svg+xml',
    needsRun: true,
    async write(source) {
      const { plotToSvg } = await import('./svg')
      const { plotStrokes } = await import('./stroke-plot')
      const plot = plotStrokes(
        runHeading(source, 'strokes and steps').title,
        await source.answers.strokes(),
        source.show,
      )
      return { content: plotToSvg(plot, { fonts: await embeddedFonts(source) }) }
    },
  },
  {
    name: 'strokesPdf',
    label: 'Strokes and steps, PDF',
    note: 'with what differs from the brief',
    group: 'Run',
    ending: '-strokes.pdf',
    mediaType: 'application/pdf',
    needsRun: true,
    async write(source) {
      const { strokesToPdf } = await import('./stroke-plot')
      const { bytes, missing } = await strokesToPdf(
        await source.answers.strokes(),
        runHeading(source, 'strokes and steps'),
        source.fonts,
        source.show,
      )
      return { content: bytes, ...shortcomings({ missing }) }
    },
  },
  ...table(
    'strokes',
    'Strokes and steps',
    'Run',
    async ({ answers }) => (await import('./stroke-plot')).strokeRows(await answers.strokes()),
    { needsRun: true },
  ),
  ...table(
    'energy',
    'Energy',
    'Run',
    async ({ sheet, answers }) => (await import('./energy-rows')).energyRows(sheet, await answers.energy()),
    { needsRun: true },
  ),
  ...table('run', 'Run', 'Run', async ({ run }) => (await import('./csv')).resultRows(run!), {
    needsRun: true,
  }),
]
