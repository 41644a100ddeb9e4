/** Sheets out of the application and into it, in every format. Writers are loaded when they are asked for. */
import { embeddedFonts, type ExportFormat, type ExportSource } from '@oar-bench/core/formats/registry'
import { locationText } from '@oar-bench/core/sheet/finding'
import { readSheet, readSheetText, type ReadResult } from '@oar-bench/core/sheet/read'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { useEditorUi } from '../stores/editorUi'
import { useSheetChecks } from '../stores/sheetChecks'
import { useSheetDocument } from '../stores/sheetDocument'
import { useSimulationRuns } from '../stores/simulationRuns'
import { letteringFonts } from '../utils/letteringFonts'
import { useCsvStyle } from './useCsvStyle'
import { useRunQuestions } from './useRunAnswers'
import { useUnits } from './useUnits'

const LARGEST_SIDE = 12_000
const LARGEST_FILE = 20e6

export function useFiles() {
  const sheetDocument = useSheetDocument()
  const checks = useSheetChecks()
  const editor = useEditorUi()
  const runs = useSimulationRuns()
  const { show } = useUnits()
  const csvStyle = useCsvStyle()
  const questions = useRunQuestions()

  const options = () => ({ settings: editor.settings, lineNames: editor.lineNames })
  const source = (): ExportSource => ({
    sheet: sheetDocument.sheet,
    show,
    options: options(),
    fonts: letteringFonts,
    csv: csvStyle.value,
    machine: sheetDocument.machine?.name,
    schedule: sheetDocument.sheet.schedules.find((s) => s.id === sheetDocument.scheduleId),
    run: runs.outdated ? undefined : runs.shown?.result,
    async findings() {
      await checks.whenDone()
      if (checks.problem) throw new Error(checks.problem)
      return [...checks.findings, ...checks.accepted]
    },
    rasterize: picture,
    answers: {
      walkthrough: () => questions.walkthrough(shownRun()),
      energy: () => questions.energy(shownRun(), 0, shownRun().result.duration),
      states: () => questions.states(),
      strokes: () => questions.strokes(shownRun()),
    },
  })
  const shownRun = () => {
    if (!runs.shown) throw new Error('run the sheet first')
    return runs.shown
  }
  const svgOptions = async (sheet: Sheet) => ({
    ...options(),
    fonts: await embeddedFonts({ sheet, fonts: letteringFonts }),
  })
  /** @param marks colours of what is highlighted, by id */
  const svgText = async (sheet = sheetDocument.sheet, marks?: ReadonlyMap<string, string>) =>
    (await import('@oar-bench/core/formats/svg')).sheetToSvg(sheet, show, {
      ...(await svgOptions(sheet)),
      marks,
    })
  /** The sheet on its paper, and what is to be known of the page. */
  async function pageText() {
    const { sheet } = sheetDocument
    const { pageToSvg } = await import('@oar-bench/core/formats/svg')
    return pageToSvg(sheet, show, await svgOptions(sheet))
  }
  const csvFile = async (rows: (string | number)[][]) =>
    // the mark lets spreadsheets see that it is UTF-8
    new Blob(['\uFEFF', (await import('@oar-bench/core/formats/csv')).csv(rows, csvStyle.value)], {
      type: 'text/csv',
    })

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
      if (format.needsRun && !source().run) {
        editor.showMessage(`${format.label}: run the sheet first.`)
        return
      }
      const { content, warning } = await format.write(source())
      download(new Blob([content as BlobPart], { type: format.mediaType }), format.ending)
      editor.showMessage(warning ?? '')
    } catch (error) {
      editor.showMessage(`The ${format.label} could not be written: ${(error as Error).message}`)
    }
  }

  /** Puts the sheet of a file in the place of what is open. @returns whether it did */
  async function importSheet(file: File): Promise<boolean> {
    if (file.size > LARGEST_FILE) {
      editor.showMessage('Nothing was changed. That file is larger than 20 MB; it is not a sheet.')
      return false
    }
    const text = await file.text()
    if (/<Project[\s>]/.test(text)) return importControl(text)
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
  /** Puts paths and step sequences of a file in the place of those that are there. */
  async function importControl(text: string): Promise<boolean> {
    const read = (await import('@oar-bench/core/formats/plc/read')).controlFromXml(text)
    if (!read.ok) {
      editor.showMessage(`Nothing was changed. ${read.message}`)
      return false
    }
    const { sheet } = sheetDocument
    const { devices, rungs, sequences } = read.control
    const next = readSheet({ ...sheet, control: { ...sheet.control, devices, rungs, sequences } })
    if (!next.ok) {
      editor.showMessage(`Nothing was changed. ${next.problems[0].message}`)
      return false
    }
    sheetDocument.apply(next.sheet)
    editor.showMessage('')
    return true
  }
  return { exportSheet, importSheet, svgText, pageText, csvFile, download }
}

/** An SVG as the picture that the browser makes of it. @param wanted dots to a millimetre; fewer where it would be too large */
async function picture(svg: string, wanted: number): Promise<{ png: Uint8Array; dots: number }> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    const millimetres = (name: string) => Number(new RegExp(` ${name}="([\\d.]+)mm"`).exec(svg)![1])
    const [width, height] = [millimetres('width'), millimetres('height')]
    const dots = Math.min(wanted, LARGEST_SIDE / Math.max(width, height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(width * dots)
    canvas.height = Math.round(height * dots)
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    const blob = await new Promise<Blob>((resolve, reject) =>
      canvas.toBlob((b) => (b ? resolve(b) : reject(new Error('the picture is too large')))),
    )
    return { png: new Uint8Array(await blob.arrayBuffer()), dots }
  } finally {
    URL.revokeObjectURL(url)
  }
}
