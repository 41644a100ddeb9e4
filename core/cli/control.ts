/**
 * The control of a sheet without a browser, see `USAGE`. Exit code 0 where nothing is found and all is proved, 1 where something is found
 * or not proved, 2 with a plain message on a bad file or argument.
 */
import { parseArgs } from 'node:util'
import { checkControl } from '../control/check'
import { eventWords } from '../control/counterexample'
import { operationFindings } from '../control/operation'
import { prove, type Prover } from '../control/prove'
import { readControl } from '../control/program'
import { ioRows, pathsText } from '../formats/control-lists'
import { csv } from '../formats/csv'
import { controlToXml } from '../formats/plc/write'
import { controlFromXml } from '../formats/plc/read'
import { hasControl } from '../formats/registry'
import { locationText } from '../sheet/finding'
import { writeSheetText } from '../sheet/read'
import type { Sheet } from '../sheet/schema'
import type { Brief } from '../size/brief/brief'
import { readBrief } from '../size/brief/read'
import { printLine, readSheetFile, readText, Refused, runProgram, writeText } from './files'

const USAGE = `control FILE [--check] [--brief FILE] [--json] [--text] [--xml OUT] [--io OUT.csv] [--import FILE.xml --sheet OUT.json]
  --check prints findings and proofs, with --brief also what the brief asks of the operation and the control does not do; --text the paths; --xml writes IEC 61131-10, --io the list of inputs and outputs.
  --import takes paths and step sequences from such a file, --sheet writes the sheet with them.`

/** ms. */
const PROGRESS_EVERY = 2000

function readArguments() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        check: { type: 'boolean' },
        brief: { type: 'string' },
        json: { type: 'boolean' },
        text: { type: 'boolean' },
        xml: { type: 'string' },
        io: { type: 'string' },
        import: { type: 'string' },
        sheet: { type: 'string' },
      },
    })
  } catch (error) {
    throw new Refused(`${(error as Error).message}\nUsage: ${USAGE}`)
  }
}

function main(): void {
  const { values, positionals } = readArguments()
  if (positionals.length !== 1) throw new Refused(`Usage: ${USAGE}`)
  let sheet = readSheetFile(positionals[0])
  if (values.import !== undefined) {
    const imported = controlFromXml(readText(values.import))
    if (!imported.ok) throw new Refused(`${values.import}: ${imported.message}`)
    // what must never be is no part of such a file, and stays
    const { requirements } = sheet.control
    sheet = { ...sheet, control: { ...sheet.control, ...imported.control, requirements } }
  }
  if (values.sheet !== undefined) writeText(values.sheet, writeSheetText(sheet))
  if (!hasControl(sheet) && !sheet.control.requirements.length)
    throw new Refused('The sheet has no control: no path and no step sequence.')
  if (values.xml !== undefined) writeText(values.xml, controlToXml(sheet))
  if (values.io !== undefined) writeText(values.io, csv(ioRows(sheet)))
  if (values.text) process.stdout.write(pathsText(sheet))
  if (values.check) process.exitCode = check(sheet, values.json === true, readBriefFile(values.brief))
}

/** Says on the error output how far it is, and what is refuted as soon as that is known. */
function progressLine() {
  let shown = performance.now()
  const said = new Set<string>()
  return (states: number, prover: Prover) => {
    if (performance.now() - shown < PROGRESS_EVERY) return
    shown = performance.now()
    process.stderr.write(`${states} states …\n`)
    for (const { id, name, outcome } of prover.proofs())
      if (outcome === 'refuted' && !said.has(id)) {
        said.add(id)
        process.stderr.write(`refuted: never ${name}\n`)
      }
  }
}

/** @throws Refused where it cannot be read */
function readBriefFile(path: string | undefined): Brief | undefined {
  if (path === undefined) return undefined
  try {
    return readBrief(JSON.parse(readText(path)))
  } catch (error) {
    if (error instanceof Refused) throw error
    throw new Refused(`${path}: ${(error as Error).message}`)
  }
}

function check(sheet: Sheet, json: boolean, brief?: Brief): number {
  const findings = checkControl(sheet)
  const readable = !readControl(sheet).findings.length
  const proofs = readable ? prove(sheet, progressLine()) : []
  const open = findings.filter((f) => !f.accepted)
  const operation = brief ? operationFindings(sheet, brief.operation, proofs) : []
  const bad =
    open.length > 0 ||
    operation.length > 0 ||
    proofs.some((p) => !['proved', 'watched', 'chance'].includes(p.outcome))
  if (json)
    printLine(
      JSON.stringify(
        {
          findings: open,
          operation,
          proofs: proofs.map((p) => ({ ...p, words: p.events.map((e) => eventWords(sheet, e)) })),
        },
        null,
        2,
      ),
    )
  else {
    for (const f of open)
      printLine(`${f.severity}: ${locationText(f.location)}: ${f.message}${f.remedy ? ` ${f.remedy}` : ''}`)
    for (const f of findings.filter((one) => one.accepted))
      printLine(`accepted: ${f.message} Because: ${f.accepted}`)
    for (const text of operation) printLine(`brief: ${text}`)
    for (const p of proofs) {
      printLine(`${p.outcome}: never ${p.name}${p.states ? ` (${p.states} states)` : ''}`)
      for (const e of p.events) printLine(`  ${eventWords(sheet, e)}`)
    }
  }
  return bad ? 1 : 0
}

await runProgram(main)
