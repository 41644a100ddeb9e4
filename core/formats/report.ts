/** The report of a sheet: findings and accepted warnings, parts, schedule and results of the run. */
import { PDFDocument } from 'pdf-lib'
import type { Show } from '../catalogue/kind'
import { reasonOf } from '../check'
import { locationText, type Finding } from '../sheet/finding'
import { nameOf, type Sheet } from '../sheet/schema'
import type { RunResult } from '../simulate/result'
import { scheduleRows } from './csv-read'
import { partsList } from './lists'
import { Faces, type PdfFile } from './faces'
import type { LetteringFont } from './lettering-fonts'
import { describe } from './pdf'
import { PageWriter } from './pdf-pages'

export interface Section {
  readonly heading: string
  readonly words?: readonly string[]
  /** A table, its heading first, and the share of the width that each column has. */
  readonly table?: { readonly shares: readonly number[]; readonly rows: readonly (readonly string[])[] }
}

export interface ReportContent {
  readonly sheet: Sheet
  readonly findings: readonly Finding[]
  readonly machine?: string
  /** The run that is shown, where there is one and it belongs to this sheet. */
  readonly run?: RunResult
}

export function reportSections({ sheet, findings, run }: ReportContent, show: Show): Section[] {
  const named = new Map(sheet.components.map((c) => [c.id, nameOf(c)]))
  const place = (f: Finding) => named.get(f.location.component ?? '') ?? locationText(f.location)
  const open = findings.filter((f) => !f.accepted)
  const accepted = findings.filter((f) => f.accepted)
  const { fluid } = sheet
  const schedule = sheet.schedules.find((s) => s.id === run?.schedule) ?? sheet.schedules[0]
  const parts = partsList(sheet, show, run)
  return [
    {
      heading: 'Checks',
      words: open.length ? undefined : ['The design rules find nothing that is open.'],
      table: open.length
        ? {
            shares: [0.12, 0.13, 0.45, 0.3],
            rows: [
              ['', 'At', 'Finding', 'Remedy'],
              ...open.map((f) => [f.severity, place(f), f.message, f.remedy ?? '']),
            ],
          }
        : undefined,
    },
    ...(accepted.length
      ? [
          {
            heading: 'Accepted',
            table: {
              shares: [0.13, 0.42, 0.45],
              rows: [
                ['At', 'Finding', 'Accepted because; what the rule is for'],
                ...accepted.map((f) => [place(f), f.message, `${f.accepted}\n${reasonOf(f.rule) ?? ''}`]),
              ],
            },
          },
        ]
      : []),
    {
      heading: 'Oil',
      words: [
        `${fluid.name}. ${fluid.viscosity40} at 40 °C, ${fluid.viscosity100} at 100 °C, ${fluid.density15} at 15 °C; ${fluid.temperature} at the start. Bulk modulus ${fluid.bulkModulus}, free air ${fluid.freeAir}.`,
      ],
    },
    {
      heading: 'Parts',
      table: { shares: [0.08, 0.08, 0.24, 0.4, 0.2], rows: parts.map((row) => row.map(String)) },
    },
    ...(schedule
      ? [
          {
            heading: `Schedule: ${schedule.name}`,
            words: [
              `${schedule.duration}, begins ${schedule.start === 'steadyState' ? 'at rest with its first commands' : 'from the values on the sheet'}.`,
            ],
            table: { shares: [0.2, 0.25, 0.15, 0.2, 0.2], rows: scheduleRows(sheet, schedule) },
          },
        ]
      : []),
    ...(run ? runSections(run, named, show) : []),
  ]
}

function runSections(run: RunResult, named: ReadonlyMap<string, string>, show: Show): Section[] {
  const who = (id: string | undefined) => (id === undefined ? '' : (named.get(id) ?? id))
  const time = (t: number) => show(t, 'time')
  const pressures = run.signals.flatMap((signal, i) => (signal.role === 'pressure' ? [{ signal, i }] : []))
  const percent = (share: number) => `${(100 * share).toPrecision(2)} %`
  const { energy, oil } = run
  return [
    {
      heading: 'Run',
      words: [
        run.finished ? `It ran for ${time(run.duration)}.` : (run.stopped?.message ?? 'It stopped early.'),
        `Energy put in ${show(energy.input, 'energy')}, useful ${show(energy.useful, 'energy')}, heat ${show(energy.heat, 'energy')}, stored ${show(energy.stored, 'energy')}; the account is off by ${percent(energy.error)}, that of the oil by ${percent(oil.error)}.`,
        ...run.warnings,
      ],
    },
    {
      heading: 'Pressures of the lines',
      table: {
        shares: [0.4, 0.3, 0.3],
        rows: [
          ['Line', 'Least', 'Highest'],
          ...pressures.map(({ signal, i }) => [
            signal.label,
            `${show(run.extremes[i].min, 'pressure')} at ${time(run.extremes[i].minAt)}`,
            `${show(run.extremes[i].max, 'pressure')} at ${time(run.extremes[i].maxAt)}`,
          ]),
        ],
      },
    },
    ...(run.conditions.length
      ? [
          {
            heading: 'What happened',
            table: {
              shares: [0.12, 0.2, 0.38, 0.3],
              rows: [
                ['', 'When', 'What', 'At its worst'],
                ...run.conditions.map((c) => [
                  c.severity,
                  c.end > c.start ? `${time(c.start)} to ${time(c.end)}` : time(c.start),
                  [who(c.component) || (c.node === undefined ? '' : run.lines[c.node]), c.label]
                    .filter(Boolean)
                    .join(': '),
                  c.worst ? `${c.worst.label} ${show(c.worst.value, c.worst.quantity)}` : '',
                ]),
              ],
            },
          },
        ]
      : []),
  ]
}

const CARE =
  'Results support and never replace the judgement of a qualified person; local codes govern the machine.'

/** @param fonts those that its letters may need */
export async function reportToPdf(
  of: ReportContent,
  show: Show,
  fonts: readonly LetteringFont[],
): Promise<PdfFile> {
  const document = await PDFDocument.create()
  const title = [of.machine, of.sheet.title].filter((t, i, all) => t && all.indexOf(t) === i).join(': ')
  describe(document, { ...of.sheet, title }, 'Report: ')
  const sections = reportSections(of, show)
  const { page } = of.sheet
  const faces = await Faces.embed(document, fonts, JSON.stringify([title, page, sections]))
  const writer = new PageWriter(document, faces)
  writer.text(title, 18)
  const block = [
    page.number && `Drawing ${page.number}`,
    page.issue && `issue ${page.issue}`,
    page.date,
    page.drawnBy && `drawn by ${page.drawnBy}`,
    page.approvedBy && `approved by ${page.approvedBy}`,
  ].filter(Boolean)
  if (block.length) writer.text(block.join(', '))
  writer.text(CARE)
  for (const { heading, words, table } of sections) {
    writer.heading(heading)
    for (const text of words ?? []) writer.text(text)
    if (table) writer.table(table.shares, table.rows)
  }
  writer.numberPages()
  return { bytes: await document.save(), missing: [...faces.missing] }
}
