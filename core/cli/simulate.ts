/**
 * Headless runner, see `USAGE`. --steady solves the rest that the commands of an instant lead to.
 * Exit code 0 when the run finished, 2 with a plain message on a bad file, circuit or argument, or where a result cannot be written.
 */
import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { resultToCsv } from '../formats/csv'
import { resultToJson } from '../formats/result-json'
import { setParameter } from '../sheet/edit'
import { locationText, type Finding } from '../sheet/finding'
import { issueText } from '../sheet/issue-text'
import { readSheetText } from '../sheet/read'
import { resolveComponent } from '../sheet/resolve'
import { actionText, type Action } from '../simulate/actions'
import { dutyOf } from '../simulate/duty'
import { faultsOf } from '../simulate/operable'
import { compileMachine, devicesOf, operatingPointOfMachine } from '../control/run'
import { continueRun, simulationOf } from '../simulate/run'
import { parseAction, readAction } from '../simulate/recorded-actions'
import { recordedActionSchema, type RecordedAction, type Sheet } from '../sheet/schema'
import { readText, Refused, runProgram, writeText } from './files'
import { readSnapshot, snapshotKey, writeSnapshot } from './snapshot-file'
import type { OperatingPoint } from '../simulate/operating-point'
import type { RunResult } from '../simulate/result'
import type { Simulation } from '../simulate/simulation'
import type { Snapshot } from '../simulate/snapshot'
import { parseQuantity, showNumber, showQuantity } from '../units/text'
import { shownUnit } from '../units/quantities'

const USAGE = `simulate FILE [--schedule ID] [--until SECONDS] [--set ID.PARAMETER=VALUE ...] [--break ID.FAULT=VALUE[@SECONDS] ...]
    [--do "TIME ID.NAME=VALUE" ...] [--press ID@SECONDS ...] [--release ID@SECONDS ...] [--actions FILE.json] [--save-at SECONDS SNAPSHOT] [--from SNAPSHOT]
    [--every TIME] [--tolerance RELATIVE] [--steady SECONDS] [--csv OUT] [--json OUT] [--signals ID,ID,...]
  --do gives an input, a fault or a parameter another value while it runs ("2 V3.setting=95 bar", "3 L7.burst=4 mm",
  "4 V1.command=release"); --press and --release work a button of the control; --actions reads such a list as a schedule keeps it. --save-at keeps the state at an instant,
  and --from goes on from it in another process, to the last bit as this one did.
  --until may lie beyond the schedule: its commands then stay as they are.
  --signals names the signals that are written to CSV and JSON; all where nothing is said.`
const LONGEST_RUN = 86_400

function main(): void {
  const { values, positionals, snapshotFile } = readArguments()
  if (positionals.length !== 1) throw new Refused(`Usage: ${USAGE}`)
  const read = readSheetText(readText(positionals[0]))
  if (!read.ok) throw new Refused(read.problems.map(findingText).join('\n'))
  let sheet = read.sheet
  for (const change of values.set ?? []) {
    const match = /^([^.=]+)\.([^.=]+)=(.*)$/.exec(change)
    if (!match) throw new Refused(`--set takes ID.PARAMETER=VALUE, not "${change}".`)
    const [, id, parameter, value] = match
    if (!sheet.components.some((c) => c.id === id)) throw new Refused(`--set: no component "${id}".`)
    sheet = setParameter(sheet, id, parameter, value === 'true' ? true : value === 'false' ? false : value)
  }
  for (const fault of values.break ?? []) sheet = breakOnPurpose(sheet, fault, values.schedule)
  const until = values.until === undefined ? undefined : Number(values.until)
  if (until !== undefined && !(until > 0)) throw new Refused('--until takes a number of seconds above 0.')
  if (until !== undefined && until > LONGEST_RUN)
    throw new Refused(`--until takes at most ${LONGEST_RUN} s, a day.`)
  const buttons = [
    ...(values.press ?? []).map((text) => buttonAction('--press', text, 1)),
    ...(values.release ?? []).map((text) => buttonAction('--release', text, 0)),
  ]
  sheet = withActions(sheet, values.schedule, [...(values.do ?? []), ...buttons], values.actions)
  sheet = withSettings(sheet, values.schedule, values)
  if (values.steady !== undefined) return steady(sheet, values.schedule, Number(values.steady))
  // what goes on elsewhere may burst any line there
  const kept = values['save-at'] !== undefined || values.from !== undefined
  const { compiled, findings } = compileMachine(sheet, values.schedule, kept ? { burstable: true } : {})
  for (const f of findings) process.stderr.write(`${findingText(f)}\n`)
  if (!compiled) throw new Refused('The sheet cannot be simulated as it is.')
  const started = performance.now()
  const saveAt = values['save-at'] === undefined ? undefined : Number(values['save-at'])
  if (saveAt !== undefined && !(saveAt >= 0 && saveAt <= LONGEST_RUN))
    throw new Refused('--save-at takes a number of seconds and the file of the snapshot.')
  const simulation = simulationOf(compiled)
  const key = snapshotKey(sheet, compiled.schedule.id)
  if (values.from) goOnFrom(simulation, readSnapshot(values.from, key), compiled.actions)
  if (saveAt !== undefined) {
    if (saveAt < simulation.time)
      throw new Refused(`--save-at: ${saveAt} s lies before ${simulation.time} s, where it goes on.`)
    simulation.advanceBeyond(saveAt)
    writeText(snapshotFile!, writeSnapshot(simulation.snapshot(), key))
  }
  const result = continueRun(simulation, until ?? compiled.settings.duration)
  const wall = (performance.now() - started) / 1000
  const signals = values.signals === undefined ? undefined : chosenSignals(values.signals, result)
  print(sheet, result, wall)
  if (values.csv) writeText(values.csv, resultToCsv(result, signals))
  if (values.json) writeText(values.json, resultToJson(sheet, result, signals))
  if (result.stopped) throw new Refused(result.stopped.message)
}

function readArguments() {
  try {
    const parsed = parseArgs({
      allowPositionals: true,
      tokens: true,
      options: {
        schedule: { type: 'string' },
        until: { type: 'string' },
        set: { type: 'string', multiple: true },
        do: { type: 'string', multiple: true },
        press: { type: 'string', multiple: true },
        release: { type: 'string', multiple: true },
        actions: { type: 'string' },
        'save-at': { type: 'string' },
        from: { type: 'string' },
        break: { type: 'string', multiple: true },
        steady: { type: 'string' },
        csv: { type: 'string' },
        json: { type: 'string' },
        signals: { type: 'string' },
        every: { type: 'string' },
        tolerance: { type: 'string' },
      },
    })
    // --save-at takes two words: the instant, and the file that follows it
    const at = parsed.tokens.findIndex((t) => t.kind === 'option' && t.name === 'save-at')
    const next = at < 0 ? undefined : parsed.tokens[at + 1]
    if (at >= 0 && next?.kind !== 'positional')
      throw new Error('--save-at takes a number of seconds and the file of the snapshot.')
    const positionals = parsed.tokens.flatMap((t) => (t.kind === 'positional' && t !== next ? [t.value] : []))
    const snapshotFile = next?.kind === 'positional' ? next.value : undefined
    return { values: parsed.values, positionals, snapshotFile }
  } catch (error) {
    throw new Refused(`${(error as Error).message}\nUsage: ${USAGE}`)
  }
}

/** The schedule with another sample interval or tolerance, where asked for; the checks then look at both. */
function withSettings(
  sheet: Sheet,
  scheduleId: string | undefined,
  { every, tolerance }: { readonly every?: string; readonly tolerance?: string },
): Sheet {
  const relative = tolerance === undefined ? undefined : Number(tolerance)
  if (relative !== undefined && !(relative >= 1e-10 && relative <= 1e-2))
    throw new Refused('--tolerance takes a number from 1e-10 to 1e-2.')
  if (every !== undefined) {
    const parsed = parseQuantity(/[a-z]/.test(every) ? every : `${every} s`, 'time')
    if (!parsed.ok || !(parsed.si > 0)) throw new Refused('--every takes a time above 0, such as "10 ms".')
  }
  const target = scheduleId ?? sheet.schedules[0]?.id
  return {
    ...sheet,
    schedules: sheet.schedules.map((s) =>
      s.id === target
        ? {
            ...s,
            ...(every === undefined ? {} : { every: /[a-z]/.test(every) ? every : `${every} s` }),
            ...(relative === undefined ? {} : { tolerance: relative }),
          }
        : s,
    ),
  }
}

/** The ids in a list parted by commas. @throws Refused where one is no signal of the run */
function chosenSignals(list: string, { signals }: RunResult): ReadonlySet<string> {
  const known = new Set(signals.map((s) => s.id))
  const chosen = list.split(',').map((id) => id.trim())
  for (const id of chosen)
    if (!known.has(id)) {
      const near = signals.filter((s) => s.id.toLowerCase().includes(id.toLowerCase())).slice(0, 5)
      throw new Refused(
        `--signals: the run has no signal "${id}"${near.length ? `; it has ${near.map((s) => s.id).join(', ')}` : ''}.`,
      )
    }
  return new Set(chosen)
}

/** Writes a file. @throws Refused with a plain message; what was printed before stands */
/** Goes on from a snapshot: what was planned when it was taken, and what is asked for now. */
function goOnFrom(simulation: Simulation, snapshot: Snapshot, actions: readonly Action[]): void {
  simulation.restore(snapshot)
  const planned = new Set(snapshot.queue.map(({ action }) => JSON.stringify(action)))
  for (const action of actions)
    if (action.at < simulation.time)
      process.stderr.write(
        `warning: ${actionText(action)} at ${action.at} s is not done: the snapshot was taken at ${simulation.time} s\n`,
      )
    else if (!planned.has(JSON.stringify(action))) simulation.plan(action)
}

/** A button of the control that is pressed or released, in the form of an action. */
function buttonAction(option: string, text: string, value: number): string {
  const match = /^([^@]+)@([\d.eE+-]+)$/.exec(text)
  if (!match) throw new Refused(`${option} takes ID@SECONDS, not "${text}".`)
  return `${match[2]} ${match[1]}.pressed=${value}`
}

/** The schedule with things that are done by hand. */
function withActions(
  sheet: Sheet,
  scheduleId: string | undefined,
  doing: readonly string[],
  file: string | undefined,
): Sheet {
  const devices = devicesOf(sheet)
  const listed: RecordedAction[] = file === undefined ? [] : readActionFile(file)
  const written = doing.map((text) => {
    const parsed = parseAction(sheet, text, devices)
    if ('message' in parsed) throw new Refused(`--do: ${parsed.message}`)
    return parsed.value
  })
  const actions = [...listed, ...written]
  for (const action of actions) {
    const read = readAction(sheet, action, devices)
    if ('message' in read)
      throw new Refused(`${listed.includes(action) ? '--actions' : '--do'}, ${action.at}: ${read.message}`)
  }
  const target = scheduleId ?? sheet.schedules[0]?.id
  return {
    ...sheet,
    schedules: sheet.schedules.map((s) =>
      s.id === target ? { ...s, actions: [...s.actions, ...actions] } : s,
    ),
  }
}
function readActionFile(file: string): RecordedAction[] {
  try {
    const data: unknown = JSON.parse(readFileSync(file, 'utf8'))
    const list = Array.isArray(data) ? data : (data as { actions?: unknown } | null)?.actions
    const parsed = recordedActionSchema.array().max(5000).safeParse(list)
    if (!parsed.success) throw new Error(issueText(parsed.error.issues[0], 'the list'))
    return parsed.data
  } catch (error) {
    throw new Refused(`--actions ${file}: ${(error as Error).message}`)
  }
}

/** Adds a fault to the schedule, from its start or from a time on. */
function breakOnPurpose(sheet: Sheet, text: string, scheduleId: string | undefined): Sheet {
  const match = /^([^.=@]+)\.([^.=@]+)=([^@]*)(?:@(.+))?$/.exec(text)
  if (!match) throw new Refused(`--break takes ID.FAULT=VALUE or ID.FAULT=VALUE@SECONDS, not "${text}".`)
  const [, id, name, value, when = '0'] = match
  const component = sheet.components.find((c) => c.id === id)
  const device = devicesOf(sheet).find((d) => d.id === id)
  const resolved = component && resolveComponent(component).resolved
  const faults = component ? (resolved ? faultsOf(resolved).map(({ spec }) => spec) : []) : device?.faults
  if (!faults) throw new Refused(`--break: no component "${id}".`)
  if (!faults.some((f) => f.name === name))
    throw new Refused(
      `--break: ${id} has no fault "${name}"${faults.length ? `; it has ${faults.map((f) => f.name).join(', ')}` : ''}.`,
    )
  const track = {
    component: id,
    input: name,
    points: [{ at: /[a-z]/.test(when) ? when : `${when} s`, value, shape: 'step' as const }],
  }
  const target = scheduleId ?? sheet.schedules[0]?.id
  return {
    ...sheet,
    schedules: sheet.schedules.map((s) => (s.id === target ? { ...s, tracks: [...s.tracks, track] } : s)),
  }
}

function steady(sheet: Sheet, scheduleId: string | undefined, at: number): void {
  if (!(at >= 0)) throw new Refused('--steady takes a number of seconds.')
  let point: OperatingPoint
  try {
    point = operatingPointOfMachine(sheet, scheduleId, at)
  } catch (error) {
    throw new Refused((error as Error).message)
  }
  const out = (line = '') => process.stdout.write(`${line}\n`)
  out(`${sheet.title}, at rest with the commands of ${at} s`)
  if (devicesOf(sheet).length) out('warning: the control is not worked out here: its coils have no current')
  if (!point.atRest)
    out(`warning: it does not come to rest; this is how it was after ${point.time.toPrecision(3)} s`)
  out()
  for (const { signal, value } of point.values.values()) {
    if (signal.role === 'mode') continue
    out(
      `${signal.id.padEnd(36)}${showNumber(value, signal.quantity, 'metric', 6).padStart(12)}  ${shownUnit(signal.quantity, 'metric').symbol}`,
    )
  }
}

const findingText = (f: Finding) =>
  `${f.severity}: ${locationText(f.location)}: ${f.message}${f.remedy ? ` ${f.remedy}` : ''}`

function print(sheet: Sheet, r: RunResult, wall: number): void {
  const out = (line = '') => process.stdout.write(`${line}\n`)
  out(`${sheet.title}, schedule ${r.schedule}, ${r.duration} s`)
  out()
  out(
    `${'key figure'.padEnd(36)}${'end'.padStart(12)}${'min'.padStart(12)}${'at s'.padStart(9)}${'max'.padStart(12)}${'at s'.padStart(9)}  unit`,
  )
  r.signals.forEach((s, i) => {
    if (s.role === 'mode') return
    const e = r.extremes[i]
    const number = (v: number) => showNumber(v, s.quantity, 'metric', 6).padStart(12)
    const time = (t: number) => t.toFixed(4).padStart(9)
    out(
      `${s.id.padEnd(36)}${number(e.end)}${number(e.min)}${time(e.minAt)}${number(e.max)}${time(e.maxAt)}  ${
        shownUnit(s.quantity, 'metric').symbol
      }`,
    )
  })
  out()
  out('conditions')
  for (const c of r.conditions) {
    const where = c.node === undefined ? (c.component ?? c.pipe) : 'line'
    const worst = c.worst
      ? `, ${c.worst.label} ${showQuantity(c.worst.value, c.worst.quantity, 'metric', 5)}`
      : ''
    const span =
      c.end > c.start ? `${c.start.toFixed(4)} to ${c.end.toFixed(4)} s` : `${c.start.toFixed(4)} s`
    out(`  ${span}  ${where}: ${c.label}${worst}`)
  }
  if (!r.conditions.length) out('  none')
  out()
  const kJ = (v: number) => `${(v / 1000).toPrecision(5)} kJ`
  out(
    `energy: shafts in ${kJ(r.energy.input)}, useful out ${kJ(r.energy.useful)}, heat ${kJ(r.energy.heat)}, stored ${kJ(r.energy.stored)}, error ${(100 * r.energy.error).toPrecision(2)} %`,
  )
  for (const h of r.energy.heatBy) out(`  heat ${h.id}: ${kJ(h.heat)}`)
  const fastest = [...r.lineLoads].filter(({ flow }) => flow > 0).sort((a, b) => b.drop - a.drop)
  if (fastest.length) {
    out('lines: greatest speed, and the pressure drop that it takes')
    for (const l of fastest)
      out(
        `  ${l.name}: ${l.speed.toFixed(2)} m/s at ${l.at.toFixed(3)} s, ${showQuantity(l.drop, 'pressure', 'metric', 4)}${l.model === 'lossFree' ? ', not counted' : ''}`,
      )
  }
  out(
    `oil: from tanks ${(r.oil.supplied * 1000).toPrecision(5)} L, stored ${(r.oil.stored * 1000).toPrecision(5)} L, error ${(100 * r.oil.error).toPrecision(2)} %`,
  )
  const duty = dutyOf(sheet, r)
  for (const m of duty.motors)
    out(
      `motor ${m.component}: ${m.starts} starts, ${m.startsPerHour.toPrecision(3)} an hour; runs ${m.running.toFixed(1)} s, loaded ${(100 * m.loadedShare).toFixed(0)} %`,
    )
  for (const s of duty.switches)
    if (s.cycles) out(`switch ${s.component}: ${s.cycles} times, ${s.cyclesPerHour.toPrecision(3)} an hour`)
  for (const warning of r.warnings) out(`warning: ${warning}`)
  const s = r.statistics
  out(
    `solver: ${s.steps} steps, ${s.rejected} rejected, ${s.evaluations} evaluations, ${s.factorisations} factorisations, ${s.events} events; ${(wall * 1000).toFixed(0)} ms, ${(r.duration / wall).toFixed(0)} x real time`,
  )
}

// whoever reads the output may stop reading: head, less
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error
  process.exit(0)
})
await runProgram(main)
