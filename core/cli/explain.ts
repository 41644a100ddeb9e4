/**
 * Answers about a run without a browser, see `USAGE`. Exit code 0, or 2 with a plain message on a bad file, circuit or argument.
 */
import { parseArgs } from 'node:util'
import { answerPressure, lineOfPlace, type PressureAnswer } from '../explain/answer'
import { Trials } from '../explain/knobs'
import { Moments } from '../explain/moment'
import { addendName, cautions, fixedByText, listedAddends, pathText, standingText } from '../explain/words'
import { compileMachine } from '../control/run'
import type { Sheet } from '../sheet/schema'
import { run } from '../simulate/run'
import { showIn } from '../units/text'
import { printLine, readSheetFile, Refused, runProgram } from './files'

const USAGE = `explain FILE [--schedule ID] --at SECONDS (--gauge DESIGNATION | --port ID.PORT | --net NAME) [--knobs] [--json]
  tells what sets the pressure there at that instant of the run, as a sum, and where the oil comes from and goes.
  --knobs tells what one step of each setting, size and load would do to it.`
const show = showIn('metric')

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
      },
    })
  } catch (error) {
    throw new Refused(`${(error as Error).message}\nUsage: ${USAGE}`)
  }
}

function main(): void {
  const { values, positionals } = readArguments()
  if (positionals.length !== 1) throw new Refused(`Usage: ${USAGE}`)
  const at = Number(values.at)
  if (values.at === undefined || !(at >= 0))
    throw new Refused(`--at takes an instant of the run, in seconds.`)
  if ([values.gauge, values.port, values.net].filter((v) => v !== undefined).length !== 1)
    throw new Refused('Give one of --gauge, --port and --net.')
  const sheet = readSheetFile(positionals[0])
  const { compiled, findings } = compileMachine(sheet, values.schedule)
  if (!compiled) throw new Refused(findings.find((f) => f.severity === 'error')!.message)
  if (at > compiled.settings.duration)
    throw new Refused(`The run ends at ${compiled.settings.duration} s; --at ${at} lies beyond.`)
  const result = run(compiled)
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

function asJson(sheet: Sheet, { name, time, stack, path, shutIn }: PressureAnswer) {
  return {
    line: name,
    time,
    pressure: stack.pressure,
    stack: stack.addends.map((a) => ({ part: a.part, label: a.label, value: a.value })),
    fixedBy: stack.fixedBy,
    error: stack.error,
    words: fixedByText(sheet, stack, show, shutIn),
    path,
  }
}

function print(sheet: Sheet, { name, time, stack, path, standing, shutIn, hunting }: PressureAnswer): void {
  printLine(`${name} at ${show(time, 'time')}: ${show(stack.pressure, 'pressure')}`)
  for (const addend of listedAddends(stack))
    printLine(`  ${show(addend.value, 'pressure').padStart(12)}  ${addendName(sheet, addend)}`)
  printLine(fixedByText(sheet, stack, show, shutIn))
  for (const line of [
    ...cautions(stack, hunting),
    ...pathText(sheet, path, show),
    ...standingText(sheet, standing, show),
  ])
    printLine(line)
}

await runProgram(main)
