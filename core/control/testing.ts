/** Controls for tests. */
import { controlSchema, emptySheet, type Sheet } from '../sheet/schema'
import type { Expression } from './expression'
import { Logic, type LogicState, type Surroundings } from './logic'
import { readControl } from './program'

/** A sheet with a control: devices as "id type", paths as "contacts -> coils". */
export function withControl(
  sheet: Sheet,
  devices: Readonly<Record<string, readonly [type: string, parameters?: Record<string, string | boolean>]>>,
  paths: readonly string[],
  more: Partial<Sheet['control']> = {},
): Sheet {
  return {
    ...sheet,
    control: controlSchema.parse({
      devices: Object.entries(devices).map(([id, [type, parameters = {}]]) => ({ id, type, parameters })),
      rungs: paths.map((path, i) => {
        const [contacts, coils = ''] = path.split('->').map((part) => part.trim())
        return { id: `R${i + 1}`, contacts, coils: coils ? coils.split(/\s*,\s*/) : [] }
      }),
      ...more,
    }),
  }
}
export const controlSheet = (
  ...args: Parameters<typeof withControl> extends [Sheet, ...infer R] ? R : never
) => withControl(emptySheet('Test'), ...args)

/** A control that is worked by hand: time passes only where it is told to. */
export class Bench {
  readonly logic: Logic
  readonly state: LogicState
  time = 0
  /** What happened, as "0.015 K1 pulls in". */
  readonly events: string[] = []
  private readonly inputs = new Map<string, number>()
  private readonly on = new Set<string>()
  private readonly around: Surroundings = {
    isOn: (component) => this.on.has(component),
    input: (id, name) => this.inputs.get(`${id}.${name}`) ?? 0,
  }

  constructor(sheet: Sheet) {
    const { program, findings } = readControl(sheet)
    if (findings.length) throw new Error(findings.map((f) => f.message).join('\n'))
    this.logic = new Logic(program)
    this.state = this.logic.initial()
    this.logic.settle(this.state, this.around)
  }
  set(id: string, name: string, value: number): this {
    this.inputs.set(`${id}.${name}`, value)
    return this.solve()
  }
  press(id: string): this {
    return this.set(id, 'pressed', 1)
  }
  release(id: string): this {
    return this.set(id, 'pressed', 0)
  }
  /** A switch of the sheet. */
  switch(component: string, on: boolean): this {
    if (on) this.on.add(component)
    else this.on.delete(component)
    return this.solve()
  }
  /** Lets time pass. */
  wait(seconds: number): this {
    const end = this.time + seconds
    for (let next = this.next(); next <= end; next = this.next()) {
      this.time = next
      this.note(this.logic.expire(this.state, next, undefined, this.around))
      this.solve()
    }
    this.time = end
    return this
  }
  private next(): number {
    return this.logic.nextDue(this.state, this.time)
  }
  private solve(): this {
    this.note(this.logic.solve(this.state, this.around, this.time))
    return this
  }
  private note(changes: readonly { device: string; what: string }[]): void {
    for (const { device, what } of changes)
      this.events.push(`${Number(this.time.toFixed(6))} ${device} ${what}`)
  }
  /** Whether a device has acted, a path or a coil has current, or a step is active. */
  is(ref: string): boolean {
    const { program } = this.logic
    const device = program.devices.findIndex((d) => d.device.id === ref)
    if (device >= 0 && program.devices[device].type.closed) return this.state.devices[device].on
    const path = program.paths.findIndex((p) => p.id === ref)
    if (path >= 0) return this.state.paths[path]
    const target = program.targets.findIndex((t) => t.ref === ref)
    if (target >= 0) return this.state.currents[target]
    const [id, step] = ref.split('.')
    const s = program.sequences.findIndex((q) => q.id === id)
    return this.state.steps[s].active[program.sequences[s].steps.findIndex((x) => x.id === step)]
  }
}

/** Whether current passes, read from the tree: what the logic is held against. @param contact whether a contact that is normally open is closed @param active whether a step has been active so long */
export function passes(
  expression: Expression | undefined,
  contact: (name: string) => boolean,
  active: (name: string, seconds: number) => boolean = () => false,
): boolean {
  if (!expression) return true
  switch (expression.kind) {
    case 'contact':
      return contact(expression.name) !== expression.closed
    case 'active':
      return active(expression.name, expression.seconds)
    case 'series':
      return expression.parts.every((part) => passes(part, contact, active))
    case 'parallel':
      return expression.parts.some((part) => passes(part, contact, active))
  }
}
