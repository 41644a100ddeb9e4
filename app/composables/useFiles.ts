/** Sheets out of the application and into it, in every format. Writers are loaded when they are asked for. */
import fontPlain from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-400-normal.woff?url'
import fontPacked from '@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-400-normal.woff2?url'
import { uint8ArrayToBase64 } from 'uint8array-extras'
import { locationText } from '@oar-bench/core/sheet/finding'
import { readSheetText, writeSheetText, type ReadResult } from '@oar-bench/core/sheet/read'
import { useEditorUi } from '../stores/editorUi'
import { useSheetChecks } from '../stores/sheetChecks'
import { useSheetDocument } from '../stores/sheetDocument'
import { useSimulationRuns } from '../stores/simulationRuns'
import { useUnits } from './useUnits'

/** Dots to a millimetre of a PNG: about 300 to an inch. */
const DOTS = 12
const LARGEST_SIDE = 12_000
const LARGEST_FILE = 20e6

export const exportFormats = {
  json: { label: 'Sheet file', note: 'all of it, to be read again' },
  svg: { label: 'SVG drawing', note: 'true to scale; can be read again' },
  pdf: { label: 'PDF page', note: 'with frame and title block' },
  report: { label: 'Report, PDF', note: 'checks, parts, schedule, run' },
  dxf: { label: 'DXF drawing', note: 'layers and blocks' },
  png: { label: 'PNG picture', note: '300 dots to the inch' },
  partsXlsx: { label: 'Parts list, XLSX', note: '' },
  partsCsv: { label: 'Parts list, CSV', note: '' },
  netlist: { label: 'Netlist, CSV', note: 'pipes from port to port' },
} as const
export type ExportFormat = keyof typeof exportFormats

export function useFiles() {
  const sheetDocument = useSheetDocument()
  const checks = useSheetChecks()
  const editor = useEditorUi()
  const runs = useSimulationRuns()
  const { show } = useUnits()

  const bytes = async (url: string) => (await fetch(url)).arrayBuffer()
  async function drawingOptions() {
    const packed = new Uint8Array(await bytes(fontPacked))
    const woff2Base64 = uint8ArrayToBase64(packed)
    return {
      font: { family: 'Barlow Semi Condensed', woff2Base64 },
      settings: editor.settings,
      lineNames: editor.lineNames,
    }
  }
  /** @param marks colours of what is highlighted, by id */
  const svgText = async (sheet = sheetDocument.sheet, marks?: ReadonlyMap<string, string>) =>
    (await import('@oar-bench/core/formats/svg')).sheetToSvg(sheet, show, {
      ...(await drawingOptions()),
      marks,
    })
  const pageText = async () =>
    (await import('@oar-bench/core/formats/svg')).pageToSvg(sheetDocument.sheet, show, await drawingOptions())
  const parts = async () =>
    (await import('@oar-bench/core/formats/lists')).partsList(sheetDocument.sheet, show)
  const csvFile = async (rows: (string | number)[][]) =>
    // the mark lets spreadsheets see that it is UTF-8
    new Blob(['\uFEFF', (await import('@oar-bench/core/formats/csv')).csv(rows)], { type: 'text/csv' })

  const writers: Record<ExportFormat, () => Promise<{ blob: Blob; ending: string }>> = {
    json: async () => ({
      blob: new Blob([writeSheetText(sheetDocument.sheet)], { type: 'application/json' }),
      ending: '.json',
    }),
    svg: async () => ({ blob: new Blob([await svgText()], { type: 'image/svg+xml' }), ending: '.svg' }),
    pdf: async () => {
      const { sheetToPdf } = await import('@oar-bench/core/formats/pdf')
      const file = await sheetToPdf(sheetDocument.sheet, show, await bytes(fontPlain))
      return { blob: new Blob([new Uint8Array(file)], { type: 'application/pdf' }), ending: '.pdf' }
    },
    report: async () => {
      const { reportToPdf } = await import('@oar-bench/core/formats/report')
      await checks.whenDone()
      if (checks.problem) throw new Error(checks.problem)
      const shown = runs.outdated ? undefined : runs.shown?.result
      const of = {
        sheet: sheetDocument.sheet,
        findings: [...checks.findings, ...checks.accepted],
        machine: sheetDocument.machine?.name,
        run: shown,
      }
      const file = await reportToPdf(of, show, await bytes(fontPlain))
      return { blob: new Blob([new Uint8Array(file)], { type: 'application/pdf' }), ending: '-report.pdf' }
    },
    dxf: async () => {
      const { sheetToDxf } = await import('@oar-bench/core/formats/dxf')
      return {
        blob: new Blob([sheetToDxf(sheetDocument.sheet, show)], { type: 'image/vnd.dxf' }),
        ending: '.dxf',
      }
    },
    png: async () => ({ blob: await picture(await svgText()), ending: '.png' }),
    partsXlsx: async () => {
      const { workbook } = await import('@oar-bench/core/formats/xlsx')
      return { blob: await workbook(await parts(), 'Parts', [9, 9, 34, 46, 40]), ending: '-parts.xlsx' }
    },
    partsCsv: async () => ({ blob: await csvFile(await parts()), ending: '-parts.csv' }),
    netlist: async () => {
      const { netlistRows } = await import('@oar-bench/core/formats/lists')
      return { blob: await csvFile(netlistRows(sheetDocument.sheet)), ending: '-netlist.csv' }
    },
  }

  /** @param ending what is put behind the title of the sheet */
  function download(blob: Blob, ending: string) {
    const link = document.createElement('a')
    link.href = URL.createObjectURL(blob)
    link.download = (sheetDocument.sheet.title.replace(/[^\w-]+/g, '-').toLowerCase() || 'sheet') + ending
    link.click()
    URL.revokeObjectURL(link.href)
  }

  /** Downloads the sheet in a format. */
  async function exportSheet(format: ExportFormat) {
    try {
      const { blob, ending } = await writers[format]()
      download(blob, ending)
      editor.showMessage('')
    } catch (error) {
      editor.showMessage(
        `The ${exportFormats[format].label} could not be written: ${(error as Error).message}`,
      )
    }
  }

  /** Puts the sheet of a file in the place of what is open. @returns whether it did */
  async function importSheet(file: File): Promise<boolean> {
    if (file.size > LARGEST_FILE) {
      editor.showMessage('Nothing was changed. That file is larger than 20 MB; it is not a sheet.')
      return false
    }
    const text = await file.text()
    const found: ReadResult = /^\s*</.test(text)
      ? (await import('@oar-bench/core/formats/svg')).readSvg(text)
      : readSheetText(text)
    if (!found.ok) {
      const [first] = found.problems
      const where = locationText(first.location)
      editor.showMessage(`Nothing was changed. ${where ? `${where}: ` : ''}${first.message}`)
      return false
    }
    sheetDocument.apply(found.sheet)
    editor.showMessage('')
    return true
  }
  return { exportSheet, importSheet, svgText, pageText, csvFile, download }
}

/** An SVG as the picture that the browser makes of it. */
async function picture(svg: string): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    const millimetres = (name: string) => Number(new RegExp(` ${name}="([\\d.]+)mm"`).exec(svg)![1])
    const [width, height] = [millimetres('width'), millimetres('height')]
    const dots = Math.min(DOTS, LARGEST_SIDE / Math.max(width, height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(width * dots)
    canvas.height = Math.round(height * dots)
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    return await new Promise((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the picture is too large')))),
    )
  } finally {
    URL.revokeObjectURL(url)
  }
}
