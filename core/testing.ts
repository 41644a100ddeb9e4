/** Small circuits for tests, built with the same edits as the interface uses. */
import { addComponent, connect } from './sheet/edit'
import { emptySheet, type Sheet } from './sheet/schema'
import { compile } from './simulate/compile'
import type { RunResult } from './simulate/result'
import { run } from './simulate/run'

/** A sheet from "id kind" lines and "id.port id.port" lines. */
export function circuit(
  components: Record<string, [kind: string, parameters?: Record<string, string | boolean>]>,
  pipes: readonly string[],
): Sheet {
  let sheet = emptySheet('Test')
  let x = 0
  const ids = new Map<string, string>()
  for (const [name, [kind, parameters]] of Object.entries(components)) {
    const added = addComponent(sheet, kind, { x, y: 0, parameters: parameters ?? {} })
    sheet = added.sheet
    ids.set(name, added.id)
    x += 20
  }
  const end = (text: string) => {
    const [name, port] = text.split('.')
    return { component: ids.get(name)!, port }
  }
  for (const text of pipes) {
    const [from, to] = text.split(' ')
    const laid = connect(sheet, end(from), end(to))
    if ('problem' in laid) throw new Error(`${text}: ${laid.problem}`)
    sheet = laid.sheet
  }
  return sheet
}

export const powerUnit = {
  tank: ['reservoir'],
  motor: ['electric-motor'],
  pump: ['fixed-pump'],
  relief: ['relief-valve-direct'],
  back: ['reservoir'],
} satisfies Parameters<typeof circuit>[0]
export const powerUnitPipes = ['tank.T pump.S', 'motor.W pump.W', 'pump.P relief.P', 'relief.T back.T']

export const messages = (sheet: Sheet, scheduleId?: string) =>
  compile(sheet, scheduleId).findings.map((f) => `${f.severity} ${f.rule}: ${f.message}`)

export function runSheet(sheet: Sheet): RunResult {
  const { compiled, findings } = compile(sheet)
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return run(compiled)
}
