/**
 * Writes a sheet in every format that the application has, see `usage`.
 * Exit code 0 when all was written, 2 with a plain message on a bad file or argument, or where a file cannot be written.
 */
import { parseArgs } from 'node:util'
import { energyOf } from '../explain/energy'
import { Moments } from '../explain/moment'
import { stateTable } from '../explain/state-table'
import { strokeSteps } from '../explain/stroke-steps'
import { emptyBrief } from '../size/brief/brief'
import { walkthroughOf } from '../explain/walkthrough'
import { exportFormats, type ExportSource } from '../formats/registry'
import { readSheetText } from '../sheet/read'
import { pageSchema, type PageSettings } from '../sheet/schema'
import { checkMachine } from '../control/run'
import { showIn } from '../units/text'
import { unitSystems } from '../units/quantities'
import { letteringFonts } from './fonts'
import { readSheetFile, Refused, runOf, runProgram, writeText } from './files'
import { rasterize } from './picture'

/** The option of a format: partsCsv is --parts-csv. */
const optionOf = (name: string) => name.replace(/[A-Z]/g, (capital) => `-${capital.toLowerCase()}`)
const papers = pageSchema.shape.size.unwrap().options
const separators = { comma: ',', semicolon: ';', tab: '\t' } as const
const units = unitSystems

const usage = `export FILE ${exportFormats.map(({ name }) => `[--${optionOf(name)} OUT]`).join(' ')}
    [--paper ${papers.join('|').replaceAll(' ', '-')}] [--upright] [--title TEXT] [--number TEXT] [--issue TEXT] [--units ${units.join('|')}]
    [--line-names] [--no-settings] [--separator ${Object.keys(separators).join('|')}] [--decimal point|comma] [--schedule ID]
  --run-csv, --run-xlsx and --report run the schedule first.`

function readArguments() {
  const text = { type: 'string' } as const
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        ...Object.fromEntries(exportFormats.map(({ name }) => [optionOf(name), text])),
        paper: text,
        upright: { type: 'boolean' },
        title: text,
        number: text,
        issue: text,
        units: text,
        'line-names': { type: 'boolean' },
        'no-settings': { type: 'boolean' },
        separator: text,
        decimal: text,
        schedule: text,
      },
    })
  } catch (error) {
    throw new Refused(`${(error as Error).message}\nUsage: ${usage}`)
  }
}

/** One of some words, or a message that names them. */
function oneOf<T extends string>(option: string, value: string | undefined, words: readonly T[]): T {
  if (value === undefined) return words[0]
  const found = words.find((word) => word === value || word.replaceAll(' ', '-') === value)
  if (!found) throw new Refused(`--${option} is one of ${words.join(', ')}, not "${value}".`)
  return found
}

async function main(): Promise<void> {
  const { values: options, positionals } = readArguments()
  // all options but three hold text
  const values = options as Record<string, string | undefined>
  if (positionals.length !== 1) throw new Refused(`Usage: ${usage}`)
  const wanted = exportFormats.filter(({ name }) => values[optionOf(name)] !== undefined)
  if (!wanted.length) throw new Refused(`Nothing to write was named.\nUsage: ${usage}`)
  const given = readSheetFile(positionals[0])
  const page: Partial<PageSettings> = {
    ...(values.paper === undefined ? {} : { size: oneOf('paper', values.paper, papers) }),
    ...(options.upright ? { upright: true } : {}),
    ...(values.number === undefined ? {} : { number: values.number }),
    ...(values.issue === undefined ? {} : { issue: values.issue }),
  }
  const changed = readSheetText(
    JSON.stringify({ ...given, title: values.title ?? given.title, page: { ...given.page, ...page } }),
  )
  if (!changed.ok) throw new Refused(changed.problems.map((p) => p.message).join('\n'))
  const { sheet } = changed
  const schedule = sheet.schedules.find((s) => s.id === (values.schedule ?? sheet.schedules[0].id))
  if (!schedule) throw new Refused(`--schedule: there is no schedule "${values.schedule}".`)
  const needsRun = wanted.some((format) => format.needsRun || format.name === 'report')
  const show = showIn(oneOf('units', values.units, units))
  const run = needsRun ? runOf(sheet, schedule.id) : undefined
  const result = () => run!
  const moments = () => new Moments(sheet, result())
  const source: ExportSource = {
    sheet,
    schedule,
    show,
    options: { lineNames: !!options['line-names'], settings: !options['no-settings'] },
    fonts: letteringFonts,
    csv: {
      separator: separators[oneOf('separator', values.separator, ['comma', 'semicolon', 'tab'])],
      decimal: oneOf('decimal', values.decimal, ['point', 'comma']) === 'comma' ? ',' : '.',
    },
    findings: () => Promise.resolve(checkMachine(sheet)),
    rasterize,
    answers: {
      walkthrough: () => Promise.resolve(walkthroughOf(moments(), result(), show)),
      energy: () => Promise.resolve(energyOf(moments(), result(), 0, result().duration)),
      strokes: () => Promise.resolve(strokeSteps(sheet, result(), emptyBrief(), show)),
      states: () => Promise.resolve(stateTable(sheet, (id) => runOf(sheet, id), show, sheet.states)),
    },
    ...(run ? { run } : {}),
  }
  for (const format of wanted) {
    const { content, warning } = await format.write(source)
    const path = values[optionOf(format.name)]!
    writeText(path, content)
    if (warning) process.stderr.write(`${path}: ${warning}\n`)
  }
}

await runProgram(main)
