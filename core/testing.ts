/** Small circuits for tests, built with the same edits as the interface uses. */
import { addComponent, connect } from './sheet/edit'
import type { Kind } from './catalogue/kind'
import { resolveComponent, type ResolvedComponent } from './sheet/resolve'
import { emptySheet, type Sheet, type Track } from './sheet/schema'
import { compile } from './simulate/compile'
import { signalIndex, valueAt, type RunResult } from './simulate/result'
import { run } from './simulate/run'

/** A component of a kind as it comes from the palette. */
export const withDefaults = ({ name }: Pick<Kind, 'name'>): ResolvedComponent =>
  resolveComponent({ id: 'X1', kind: name, x: 0, y: 0, rotation: 0, mirrored: false, parameters: {} })
    .resolved!

/** The sheet with lines that take no pressure: what is tested are its components. */
export const lossFree = (sheet: Sheet): Sheet => ({
  ...sheet,
  pipes: sheet.pipes.map((pipe) => ({ ...pipe, lineModel: 'lossFree' as const })),
})

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
  return lossFree(sheet)
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

export const bar = 1e5
export const lpm = 1 / 60000
/** The id of the n-th component of a kind. */
export const idOf = (sheet: Sheet, kind: string, n = 0) =>
  sheet.components.filter((c) => c.kind === kind)[n].id
/** A signal at a time, at its end, and its greatest and least. */
export const at = (r: RunResult, id: string, t: number) => valueAt(r, found(r, id), t)
export const end = (r: RunResult, id: string) => r.extremes[found(r, id)].end
export const most = (r: RunResult, id: string) => r.extremes[found(r, id)].max
export const least = (r: RunResult, id: string) => r.extremes[found(r, id)].min
function found(r: RunResult, id: string): number {
  const index = signalIndex(r, id)
  if (index < 0) throw new Error(`No signal ${id}; there are ${r.signals.map((s) => s.id).join(', ')}`)
  return index
}
export const track = (
  component: string,
  input: string,
  ...points: [number, string, ('step' | 'ramp')?][]
): Track => ({
  component,
  input,
  points: points.map(([t, value, shape = 'step']) => ({ at: `${t} s`, value, shape })),
})
export const timed = (sheet: Sheet, duration: number, tracks: Track[], every = '5 ms'): Sheet => ({
  ...sheet,
  schedules: [{ ...sheet.schedules[0], duration: `${duration} s`, every, tolerance: 1e-6, tracks }],
})
/** The run ended as it should, and its accounts close. @throws Error with what is off */
export function balanced(r: RunResult): void {
  if (!r.finished) throw new Error(r.stopped?.message)
  if (r.oil.error > 1e-3) throw new Error(`oil off by ${r.oil.error}`)
  if (r.energy.error > 1e-6) throw new Error(`energy off by ${r.energy.error}`)
}

/** The boat lift with the pilot of its check drained to where the oil that comes down raises the pressure: it hunts. */
export const drainedInternally = (boatLift: Sheet): Sheet => ({
  ...boatLift,
  components: boatLift.components
    .filter(({ id }) => id !== 'T5')
    .map((c) => (c.id === 'V3' ? { ...c, parameters: { ...c.parameters, drain: 'internal' } } : c)),
  pipes: boatLift.pipes.filter(({ id }) => id !== 'L25'),
})
