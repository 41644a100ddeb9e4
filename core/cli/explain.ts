/**
 * Answers about a run without a browser, see `USAGE`. Exit code 0, or 2 with a plain message on a bad file, circuit or argument.
 */
import { parseArgs } from 'node:util'
import { answerPressure, lineOfPlace, type PressureAnswer } from '../explain/answer'
import { Trials } from '../explain/knobs'
import { energyOf, steadyText, steadyTemperature, totalOf, type EnergyShare } from '../explain/energy'
import { Moments } from '../explain/moment'
import { pilotText } from '../explain/pilots'
import { stateTable } from '../explain/state-table'
import { walkthroughOf } from '../explain/walkthrough'
import {
  addendName,
  cautions,
  fixedByText,
  instantText,
  listedAddends,
  partName,
  pathText,
  standingText,
} from '../explain/words'
import type { Sheet } from '../sheet/schema'
import { csv } from '../formats/csv'
import { stateRows } from '../formats/state-rows'
import { repeatsText, walkthroughToMarkdown } from '../formats/walkthrough-text'
import { showIn } from '../units/text'
import { printLine, readSheetFile, Refused, runOf, runProgram, writeText } from './files'

const USAGE = `explain FILE [--schedule ID] --at SECONDS (--gauge DESIGNATION | --port ID.PORT | --net NAME) [--knobs] [--json]
  shows what sets the pressure there at that instant of the run, as a sum, and where the oil comes from and goes.
  --knobs shows what one step of each setting, size and load would do to it.
explain FILE [--schedule ID] --walkthrough [--json | --md OUT]
  the run as states: what begins each, what moves, by which oil, at what pressures, what stands still and why.
explain FILE --states [--json | --csv OUT]
  the operating point of each state that the schedules reach.
explain FILE [--schedule ID] --energy [--json]
  where the energy of the run goes, by component, and the oil temperature at which it would stay.`
const show = showIn('metric')
const EXCLUSIVE = ['at', 'walkthrough', 'states', 'energy'] as const

function readArguments() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        schedule: { type: 'string' },
        at: { type: 'string' },
        gauge: { type: 'string' },
        port: { type: 'string' },
        net: { type: 'string' },
        json: { type: 'boolean' },
        knobs: { type: 'boolean' },
        walkthrough: { type: 'boolean' },
        states: { type: 'boolean' },
        energy: { type: 'boolean' },
        md: { type: 'string' },
        csv: { type: 'string' },
      },
    })
  } catch (error) {
    throw new Refused(`${(error as Error).message}\nUsage: ${USAGE}`)
  }
}

function main(): void {
  const { values, positionals } = readArguments()
  if (positionals.length !== 1) throw new Refused(`Usage: ${USAGE}`)
  const modes = EXCLUSIVE.filter((mode) => values[mode] !== undefined)
  if (modes.length > 1) throw new Refused(`Give one of ${modes.map((m) => `--${m}`).join(' and ')}.`)
  if (values.md !== undefined && !values.walkthrough) throw new Refused('--md goes with --walkthrough.')
  if (values.csv !== undefined && !values.states) throw new Refused('--csv goes with --states.')
  if (values.walkthrough) return walkthrough(readSheetFile(positionals[0]), values)
  if (values.states) return states(readSheetFile(positionals[0]), values)
  if (values.energy) return energy(readSheetFile(positionals[0]), values)
  const at = Number(values.at)
  if (values.at === undefined || !(at >= 0))
    throw new Refused(`--at takes an instant of the run, in seconds.`)
  if ([values.gauge, values.port, values.net].filter((v) => v !== undefined).length !== 1)
    throw new Refused('Give one of --gauge, --port and --net.')
  const sheet = readSheetFile(positionals[0])
  const result = runOf(sheet, values.schedule)
  if (at > result.duration) throw new Refused(`The run ends at ${result.duration} s; --at ${at} lies beyond.`)
  const place = ((): number => {
    try {
      return lineOfPlace(sheet, result, values)
    } catch (error) {
      throw new Refused((error as Error).message)
    }
  })()
  const moments = new Moments(sheet, result)
  moments.showRecorded(result, at)
  const answer = answerPressure(moments, result, place)
  const knobs = values.knobs
    ? new Trials(moments, { kind: 'pressure', line: place }).knobs().knobs
    : undefined
  if (values.json)
    printLine(JSON.stringify({ ...asJson(sheet, answer), ...(knobs ? { knobs } : {}) }, null, 2))
  else {
    print(sheet, answer)
    for (const k of knobs ?? [])
      printLine(
        `  ${k.label} ${show(k.from, k.quantity)} to ${show(k.to, k.quantity)}: ${k.effect > 0 ? '+' : ''}${show(k.effect, 'pressure')}`,
      )
  }
}

interface Options {
  readonly schedule?: string
  readonly json?: boolean
  readonly md?: string
  readonly csv?: string
}

function walkthrough(sheet: Sheet, { schedule, json, md }: Options): void {
  const result = runOf(sheet, schedule)
  const found = walkthroughOf(new Moments(sheet, result), result, show)
  if (md !== undefined) {
    const name = sheet.schedules.find((s) => s.id === result.schedule)?.name || result.schedule
    writeText(md, walkthroughToMarkdown(found, { title: `${sheet.title}: walkthrough`, line: name }, show))
  } else if (json)
    printLine(
      JSON.stringify(
        found.map(({ t, end, cause, summary, moving, sentences, repeats }) => ({
          t,
          end,
          cause,
          summary,
          moving,
          sentences: sentences.map(({ text }) => text),
          ...(repeats ? { repeats } : {}),
        })),
        null,
        2,
      ),
    )
  else
    for (const state of found) {
      printLine(`${instantText(state.t, show)}  ${state.summary}`)
      for (const { text } of state.sentences) printLine(`    ${text}`)
      const repeats = repeatsText(state, show)
      if (repeats) printLine(`    ${repeats}`)
    }
}

function states(sheet: Sheet, { json, csv: out }: Options): void {
  const table = stateTable(sheet, (id) => runOf(sheet, id), show, sheet.states)
  const rows = stateRows(sheet, table, show)
  if (out !== undefined) writeText(out, csv(rows))
  else if (json) printLine(JSON.stringify(table, null, 2))
  else
    for (const row of rows.slice(1)) {
      printLine(String(row[0]))
      row.slice(1).forEach((value, i) => {
        if (value !== '') printLine(`    ${rows[0][i + 1]}: ${value}`)
      })
    }
}

function energy(sheet: Sheet, { schedule, json }: Options): void {
  const result = runOf(sheet, schedule)
  const account = energyOf(new Moments(sheet, result), result, 0, result.duration)
  const steady = steadyTemperature(sheet, result.schedule)
  if (json) return printLine(JSON.stringify({ ...account, steady }, null, 2))
  const list = (label: string, shares: readonly EnergyShare[]) => {
    printLine(`${label}: ${show(totalOf(shares), 'energy', 3)}`)
    for (const { part, energy: amount } of shares)
      if (amount > 1) printLine(`    ${partName(sheet, part)}: ${show(amount, 'energy', 3)}`)
  }
  list('Put in', account.input)
  list('Given back by loads and stores', account.given)
  list('Work on loads', account.work)
  list('Heat', account.heat)
  list('Kept', account.kept)
  printLine(steadyText(steady, show))
}

function asJson(sheet: Sheet, { name, time, stack, path, piloted, shutIn }: PressureAnswer) {
  return {
    line: name,
    time,
    pressure: stack.pressure,
    stack: stack.addends.map((a) => ({ part: a.part, label: a.label, value: a.value })),
    fixedBy: stack.fixedBy,
    error: stack.error,
    words: fixedByText(sheet, stack, show, shutIn),
    path,
    piloted,
  }
}

function print(
  sheet: Sheet,
  { name, time, stack, path, standing, piloted, shutIn, hunting }: PressureAnswer,
): void {
  printLine(`${name} at ${show(time, 'time')}: ${show(stack.pressure, 'pressure')}`)
  for (const addend of listedAddends(stack))
    printLine(`  ${show(addend.value, 'pressure').padStart(12)}  ${addendName(sheet, addend)}`)
  printLine(fixedByText(sheet, stack, show, shutIn))
  for (const line of [
    ...cautions(stack, hunting),
    ...pathText(sheet, path, show),
    ...standingText(sheet, standing, show),
    ...pilotText(sheet, piloted, show),
  ])
    printLine(line)
}

await runProgram(main)
