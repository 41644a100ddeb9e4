/** Files and failures of the command-line programs. */
import { readFileSync, statSync, writeFileSync } from 'node:fs'
import { compileMachine } from '../control/run'
import { locationText } from '../sheet/finding'
import { readSheetText } from '../sheet/read'
import type { Sheet } from '../sheet/schema'
import type { RunResult } from '../simulate/result'
import { run } from '../simulate/run'

const LARGEST_FILE = 50e6

/** What ends a program with exit code 2 and its message. */
export class Refused extends Error {}

/** @throws Refused where it cannot be read or is larger than 50 MB */
export function readText(path: string): string {
  try {
    if (statSync(path).size > LARGEST_FILE) throw new Error('the file is larger than 50 MB')
    return readFileSync(path, 'utf8')
  } catch (error) {
    throw new Refused(`Cannot read ${path}: ${(error as Error).message}`)
  }
}
/** @throws Refused where it cannot be written */
export function writeText(path: string, content: string | Uint8Array): void {
  try {
    writeFileSync(path, content)
  } catch (error) {
    throw new Refused(`Cannot write ${path}: ${(error as Error).message}`)
  }
}
/** @throws Refused with the problems of a file that is no sheet */
export function readSheetFile(path: string): Sheet {
  const read = readSheetText(readText(path))
  if (!read.ok) throw new Refused(read.problems.map((p) => p.message).join('\n'))
  return read.sheet
}

/** @throws Refused with the errors of a sheet that cannot be run */
export function runOf(sheet: Sheet, schedule?: string): RunResult {
  const { compiled, findings } = compileMachine(sheet, schedule)
  if (!compiled)
    throw new Refused(
      `The sheet cannot be run as it is:\n${findings
        .filter((f) => f.severity === 'error')
        .map((f) => `${locationText(f.location)}: ${f.message}`)
        .join('\n')}`,
    )
  return run(compiled)
}

/** Writes a line to standard output. */
export const printLine = (line = '') => void process.stdout.write(`${line}\n`)

/** A reader that has seen enough (`| head`) ends the program quietly. */
export function endQuietlyWithReader(): void {
  process.stdout.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'EPIPE') throw error
    process.exit(0)
  })
}

/** Does something that may be refused: the message goes to standard error, and the exit code is 2. */
export async function runProgram(main: () => void | Promise<void>): Promise<void> {
  endQuietlyWithReader()
  try {
    await main()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    process.stderr.write(`${error.message}\n`)
    process.exitCode = 2
  }
}
