/** The calculation of a machine as a document: what was given, each formula with its numbers, what was chosen and why. */
import type { CalculationReport, ReportSection, ReportValue } from '../size/report'
import type { PdfFile } from './faces'
import { withIndices } from './indices'
import type { LetteringFont } from './lettering-fonts'
import { PageWriter, textDocument } from './pdf-pages'

/** The line under the title: variant, revision, date. */
export interface CalculationHeading {
  readonly title: string
  readonly line: string
  readonly author?: string
}

const sentence = (values: readonly ReportValue[]) =>
  `${values.map((v) => `${v.label} ${v.value}${v.origin === 'brief' ? '' : ` (${v.origin})`}`).join('; ')}.`
const equation = ({ symbol, formula, numbers, given }: ReportSection['steps'][number]) => {
  if (given) return 'given'
  // a formula that only names a value has nothing to put in
  const parts = [...new Set([formula, numbers])].filter(Boolean)
  return [symbol, ...parts].filter(Boolean).join(' = ')
}

/** @param fonts those that its letters may need */
export async function calculationToPdf(
  report: CalculationReport,
  { title, line, author }: CalculationHeading,
  fonts: readonly LetteringFont[],
): Promise<PdfFile> {
  const { document, faces } = await textDocument(
    title,
    fonts,
    JSON.stringify([title, line, author, report]),
    author,
  )
  const writer = new PageWriter(document, faces, withIndices)
  writer.text(title, 18)
  writer.text(line)
  for (const note of report.notes) writer.text(note)
  writer.heading('Brief')
  for (const { label, text } of report.statements) writer.text(`${label}: ${text}`)
  writer.text(sentence(report.conditions))
  for (const { name, values } of report.motions) writer.text(`${name}: ${sentence(values)}`)
  for (const section of report.sections) writeSection(writer, section)
  writer.numberPages()
  return { bytes: await document.save(), missing: [...faces.missing] }
}

function writeSection(writer: PageWriter, section: ReportSection): void {
  const { title, about, inputs, steps, remarks, reason, sheet, source } = section
  writer.heading(title)
  writer.text(about)
  if (inputs.length)
    writer.text(
      `${inputs.map((v) => `${[v.label, v.symbol].filter(Boolean).join(' ')} = ${v.value} (${v.origin})`).join('; ')}.`,
    )
  if (steps.length)
    writer.table(
      [0.3, 0.52, 0.18],
      [['Result', 'By', 'Value'], ...steps.map((step) => [step.label, equation(step), step.value])],
    )
  for (const remark of remarks) writer.text(`To be thought about: ${remark}`)
  if (reason) writer.text(`Chosen because: ${reason}`)
  if (sheet.length) writer.text(`On the sheet: ${sheet.join('; ')}.`)
  writer.text(`Source: ${source}.`)
}
