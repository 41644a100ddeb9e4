/**
 * What a control does at an instant: contacts take their state, paths are solved, coils follow, and what gained or lost current
 * changes after its time. It knows neither circuit nor clock: runs and proofs use it alike.
 */
import { copyOfDevice, initialState, type DeviceState, type DeviceView } from './device'
import type { InputSpec } from '../catalogue/kind'
import { nameOf } from '../sheet/schema'
import type { ControlOutput } from '../simulate/control-interface'
import type { Expression } from './expression'
import type { ContactSource, Program } from './program'

/** What the control sees of the machine and of people. */
export interface Surroundings {
  isOn(component: string): boolean
  /** Value of an input or a fault of a device, a path or a sequence. */
  input(id: string, name: string): number
  /** Nothing has a fault: nobody is asked for them. */
  readonly sound?: true
}

/** All that the future depends on; plain data. */
export interface LogicState {
  readonly devices: readonly DeviceState[]
  /** Contacts as they are now, by the order of `Logic.contacts`. */
  readonly contacts: boolean[]
  /** Paths that carry current. */
  readonly paths: boolean[]
  /** Current of each target. */
  readonly currents: boolean[]
  /** Targets that a step has set. */
  readonly stored: boolean[]
  /** Steps of each sequence: whether active, and since when, s. */
  readonly steps: readonly { readonly active: boolean[]; readonly since: number[] }[]
}

// a type is used with the values that were read by its own parameters
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type AnyView = DeviceView<any>

/** Rounds at one instant after which what has no time of its own goes round without end. */
const MOST_ROUNDS = 100
/** Changes of relays before 0 s. */
const MOST_AT_START = 200
/** s: where something never rests, what does has rested after this time; and changes that are enough in any case. */
const LEAST_AT_START = 3
const MOST_IN_ALL = 20_000

type MutableView = { -readonly [K in keyof AnyView]: AnyView[K] } & { around?: Surroundings }
type Question = (state: LogicState, t: number) => boolean

/** Something changes without time passing. */
export class Unstable extends Error {}

export interface Change {
  readonly device: string
  readonly what: string
}

export class Logic {
  /** Contacts by their references. */
  readonly contacts: readonly string[]
  private readonly contactIndex: ReadonlyMap<string, number>
  private readonly sources: readonly ContactSource[]
  private readonly targetIndex: ReadonlyMap<string, number>
  private readonly canStick: readonly boolean[]
  private readonly canBurn: readonly boolean[]
  /** One for each device, made once: it looks at the state and the surroundings that were asked about last. */
  private readonly views: readonly MutableView[]
  /** What each expression asks for, with its contacts by their numbers. */
  private readonly questions = new Map<Expression, Question>()

  constructor(readonly program: Program) {
    this.contacts = [...program.sources.keys()]
    this.sources = [...program.sources.values()]
    this.contactIndex = new Map(this.contacts.map((ref, i) => [ref, i]))
    this.targetIndex = new Map(program.targets.map(({ ref }, i) => [ref, i]))
    const has = (name: string) =>
      program.devices.map(({ type }) => !!type.faults?.some((f) => f.name === name))
    this.canStick = has('stuck')
    this.canBurn = has('burnt')
    this.views = program.devices.map(({ device: { id }, values }): MutableView => {
      const view: MutableView = {
        values,
        state: initialState(0),
        input: (name) => view.around?.input(id, name) ?? 0,
      }
      return view
    })
  }

  /** Relays dropped, initial steps active. */
  initial(): LogicState {
    const { devices, targets, paths, sequences } = this.program
    return {
      devices: devices.map(({ type }) => initialState(type.coils?.length ?? 0)),
      contacts: this.contacts.map(() => false),
      paths: paths.map(() => false),
      currents: targets.map(() => false),
      stored: targets.map(() => false),
      steps: sequences.map(({ steps }) => ({
        active: steps.map((s) => s.initial),
        since: steps.map(() => 0),
      })),
    }
  }

  /** Resolves the state before 0 s: relays follow the switches as the machine stands. @returns false where they never rest */
  settle(state: LogicState, around: Surroundings): boolean {
    this.startSequences(state)
    this.solve(state, around, 0)
    const settles = (device: number) => this.program.devices[device].type.settlesAtStart === true
    let elapsed = 0
    for (let i = 0; i < MOST_AT_START || elapsed < LEAST_AT_START; i++) {
      const next = this.nextSettling(state)
      if (next === Infinity) return true
      if (i >= MOST_IN_ALL) return false
      // it happened before 0 s: the time that has passed is over for the others too, also where one of them never rests
      elapsed += next
      state.devices.forEach((device, k) => {
        if (settles(k)) device.due -= next
      })
      this.expire(state, 0, settles)
      this.solve(state, around, 0)
    }
    return false
  }
  /** Lets relays change, with everything else as it is, until none is about to. @param most changes that are followed @returns whether it rests */
  rest(state: LogicState, around: Surroundings, most: number): boolean {
    for (let n = 0; n < most; n++) {
      const next = this.nextSettling(state)
      if (next === Infinity) return true
      this.expire(state, next, (device) => this.program.devices[device].type.settlesAtStart === true, around)
      this.solve(state, around, next)
    }
    return this.nextSettling(state) === Infinity
  }
  private nextSettling(state: LogicState): number {
    return state.devices.reduce(
      (next, { due }, i) => (this.program.devices[i].type.settlesAtStart ? Math.min(next, due) : next),
      Infinity,
    )
  }
  private startSequences(state: LogicState): void {
    this.program.sequences.forEach(({ steps }, s) =>
      steps.forEach((_, i) => {
        if (state.steps[s].active[i]) this.activated(state, s, i)
      }),
    )
  }

  /** The next instant at which something changes by itself, s. */
  nextDue(state: LogicState, t: number): number {
    let next = Infinity
    for (const { due } of state.devices) next = Math.min(next, due)
    this.program.sequences.forEach(({ steps, transitions }, s) => {
      const { active, since } = state.steps[s]
      const at = (seconds: number, i: number) => {
        const due = since[i] + seconds
        if (active[i] && due > t) next = Math.min(next, due)
      }
      steps.forEach(({ actions }, i) => {
        for (const { time } of actions) if (time > 0) at(time, i)
      })
      for (const { condition } of transitions)
        this.eachTimed(condition, (owner, step, seconds) => owner === s && at(seconds, step))
    })
    // a path may ask how long a step has been active too
    for (const { expression } of this.program.paths)
      this.eachTimed(expression, (s, i, seconds) => {
        const due = state.steps[s].since[i] + seconds
        if (state.steps[s].active[i] && due > t) next = Math.min(next, due)
      })
    return next
  }
  private eachTimed(
    expression: Expression | undefined,
    visit: (sequence: number, step: number, seconds: number) => void,
  ): void {
    if (!expression || expression.kind === 'contact') return
    if (expression.kind === 'active') {
      const source = this.program.sources.get(expression.name)
      if (source?.from === 'step') visit(source.sequence, source.step, expression.seconds)
    } else for (const part of expression.parts) this.eachTimed(part, visit)
  }

  /** Devices that change by themselves at t. */
  due(state: LogicState, t: number): number[] {
    return state.devices.flatMap(({ due }, i) => (due <= t ? [i] : []))
  }

  /** Changes what is due at t. @param which of the devices */
  expire(
    state: LogicState,
    t: number,
    which: (device: number) => boolean = () => true,
    around?: Surroundings,
  ): Change[] {
    const changes: Change[] = []
    for (const i of this.due(state, t)) {
      if (!which(i)) continue
      const { type, device } = this.program.devices[i]
      const before = state.devices[i].on
      type.expire?.(this.view(state, i, around), t)
      const { on } = state.devices[i]
      if (on !== before && type.words)
        changes.push({ device: device.id, what: on ? type.words.on : type.words.off })
    }
    return changes
  }

  private view(state: LogicState, device: number, around?: Surroundings): AnyView {
    const view = this.views[device]
    view.state = state.devices[device]
    view.around = around
    return view
  }
  viewOf(state: LogicState, device: number, around: Surroundings): AnyView {
    return this.view(state, device, around)
  }

  /** Contacts, paths, coils and steps at t, until nothing changes any more. @throws Unstable */
  solve(state: LogicState, around: Surroundings, t: number): Change[] {
    const changes: Change[] = []
    this.program.devices.forEach(({ type }, i) => type.worked?.(this.view(state, i, around)))
    for (let round = 0; round < MOST_ROUNDS; round++) {
      this.updateContacts(state, around)
      const moved = this.clearTransitions(state, t, changes)
      const changed = this.solvePaths(state, around, t, changes)
      if (moved || changed) continue
      // coils may be asked for too
      this.updateContacts(state, around)
      return changes
    }
    throw new Unstable('steps or timers follow each other without any time passing')
  }

  private updateContacts(state: LogicState, around: Surroundings): void {
    this.sources.forEach((source, i) => {
      if (source.from === 'switch') state.contacts[i] = around.isOn(source.component)
      else if (source.from === 'coil') {
        const target = this.targetIndex.get(source.ref)
        state.contacts[i] = target !== undefined && state.currents[target]
      } else if (source.from === 'step') state.contacts[i] = state.steps[source.sequence].active[source.step]
      else {
        const { type, device } = this.program.devices[source.device]
        if (!around.sound && this.canStick[source.device] && around.input(device.id, 'stuck') > 0.5) return
        state.contacts[i] = type.closed?.(this.view(state, source.device, around), source.terminal) ?? false
      }
    })
  }

  /** Whether an expression passes current now. */
  passes(expression: Expression | undefined, state: LogicState, t: number): boolean {
    if (!expression) return true
    let question = this.questions.get(expression)
    if (!question) this.questions.set(expression, (question = this.questionOf(expression)))
    return question(state, t)
  }
  private questionOf(expression: Expression): Question {
    switch (expression.kind) {
      case 'contact': {
        const index = this.contactIndex.get(expression.name)
        const { closed } = expression
        return index === undefined ? () => closed : (state) => state.contacts[index] !== closed
      }
      case 'active': {
        const source = this.program.sources.get(expression.name)
        if (source?.from !== 'step') return () => false
        const { sequence, step } = source
        return (state, t) =>
          state.steps[sequence].active[step] && t >= state.steps[sequence].since[step] + expression.seconds
      }
      default: {
        const parts = expression.parts.map((part) => this.questionOf(part))
        return expression.kind === 'series'
          ? (state, t) => parts.every((part) => part(state, t))
          : (state, t) => parts.some((part) => part(state, t))
      }
    }
  }

  /** All transitions whose steps are active and whose conditions hold are cleared together (IEC 60848); of alternatives the first. */
  private clearTransitions(state: LogicState, t: number, changes: Change[]): boolean {
    let moved = false
    this.program.sequences.forEach(({ id, steps, transitions }, s) => {
      const { active } = state.steps[s]
      const leaving = new Set<number>()
      const entering = new Set<number>()
      for (const { from, to, condition } of transitions) {
        if (!from.every((i) => active[i] && !leaving.has(i)) || !this.passes(condition, state, t)) continue
        for (const i of from) leaving.add(i)
        for (const i of to) entering.add(i)
      }
      if (!leaving.size && !entering.size) return
      moved = true
      for (const i of leaving)
        if (!entering.has(i)) {
          active[i] = false
          changes.push({ device: id, what: `step ${steps[i].id} ends` })
        }
      for (const i of entering) {
        if (!active[i] || leaving.has(i)) {
          active[i] = true
          state.steps[s].since[i] = t
          this.activated(state, s, i)
          changes.push({ device: id, what: `step ${steps[i].id} begins` })
        }
      }
    })
    return moved
  }
  private activated(state: LogicState, sequence: number, step: number): void {
    for (const { target, qualifier } of this.program.sequences[sequence].steps[step].actions)
      if (qualifier === 'set') state.stored[target] = true
      else if (qualifier === 'reset') state.stored[target] = false
  }

  /** @returns whether a coil has gained or lost current */
  private solvePaths(state: LogicState, around: Surroundings, t: number, changes: Change[]): boolean {
    const { paths, targets, sequences, supply, devices } = this.program
    const live = supply < 0 || (devices[supply].type.closed?.(this.view(state, supply, around), '') ?? true)
    const wanted = targets.map((_, i) => state.stored[i])
    paths.forEach(({ id, expression, coils }, i) => {
      state.paths[i] =
        live && (around.sound || around.input(id, 'broken') < 0.5) && this.passes(expression, state, t)
      if (state.paths[i]) for (const coil of coils) wanted[coil] = true
    })
    sequences.forEach(({ steps }, s) => {
      const { active, since } = state.steps[s]
      steps.forEach(({ actions }, i) => {
        if (!active[i]) return
        for (const { target, qualifier, time } of actions)
          if (
            qualifier === 'while' ||
            (qualifier === 'delayed' && t >= since[i] + time) ||
            (qualifier === 'limited' && t < since[i] + time)
          )
            wanted[target] = true
      })
    })
    let changed = false
    targets.forEach((target, i) => {
      const now = live && wanted[i]
      if ('component' in target) {
        state.currents[i] = now
        return
      }
      const { type, device } = devices[target.device]
      const burnt = !around.sound && this.canBurn[target.device] && around.input(device.id, 'burnt') > 0.5
      state.currents[i] = now && !burnt
      const own = state.devices[target.device]
      if (own.coils[target.coil] === state.currents[i]) return
      own.coils[target.coil] = state.currents[i]
      const before = own.on
      type.currentChanged?.(this.view(state, target.device, around), target.coil, t)
      if (own.on !== before && type.words)
        changes.push({ device: device.id, what: own.on ? type.words.on : type.words.off })
      changed = true
    })
    return changed
  }

  /** What it gives the machine: current of coils and of what relays switch, values of amplifiers. @param driven which devices count */
  outputs(
    state: LogicState,
    driven: (device: Program['devices'][number]) => boolean = () => true,
  ): ControlOutput[] {
    const { targets, driving, devices } = this.program
    const around: Surroundings = { isOn: () => false, input: () => 0 }
    return [
      ...targets.flatMap((target, i): ControlOutput[] =>
        'component' in target
          ? [{ component: target.component, input: target.input, value: state.currents[i] ? target.on : 0 }]
          : [],
      ),
      ...driving
        .filter(({ device }) => driven(devices[device]))
        .map(({ device, component, input, on }): ControlOutput => {
          const value = on * devices[device].type.output!(this.viewOf(state, device, around))
          return { component, input, value }
        }),
    ]
  }

  private inputsOf(index: number): readonly InputSpec[] {
    const { type, values } = this.program.devices[index]
    const watched = this.program.watching.find(({ device }) => device === index)
    return (type.inputs?.(values) ?? []).map((spec: InputSpec) =>
      watched && type.measuredInputs?.includes(spec.name) ? { ...spec, quantity: watched.quantity } : spec,
    )
  }
  /** What a run can set of the control: operators, faults, broken wires. */
  runDevices() {
    const { devices, paths, sequences, requirements } = this.program
    return [
      ...devices.map(({ device, type, values }, i) => ({
        id: device.id,
        name: [nameOf(device), device.label].filter(Boolean).join(' '),
        inputs: this.inputsOf(i),
        faults: type.faults ?? [],
        outputs: [
          ...(type.contacts?.(values) ?? []).map(({ terminal, label }) => ({
            name: terminal || 'on',
            label,
            quantity: 'ratio' as const,
          })),
          ...(type.coils ?? []).map(({ terminal }) => ({
            name: terminal ? `current.${terminal}` : 'current',
            label: 'coil current',
            quantity: 'ratio' as const,
          })),
          ...(type.outputs ?? []),
        ],
        conditions: type.settlesAtStart ? [CHATTERS] : [],
      })),
      ...paths.map(({ id }, i) => ({
        id,
        name: `path ${i + 1}`,
        inputs: [],
        faults: [BROKEN],
        outputs: [{ name: 'current', label: 'current', quantity: 'ratio' as const }],
      })),
      ...sequences.map(({ id, steps }) => ({
        id,
        name: `sequence ${id}`,
        inputs: [],
        faults: [],
        outputs: steps.map((step) => ({
          name: step.id,
          label: `step ${step.id}`,
          quantity: 'ratio' as const,
        })),
      })),
      ...requirements.map(({ id, name, assumed }) => ({
        id,
        name,
        inputs: [],
        faults: [],
        outputs: [],
        conditions: [
          {
            name: 'violated',
            label: assumed ? `assumed never to be: ${name}` : `must never be: ${name}`,
            severity: 'danger' as const,
          },
        ],
      })),
    ]
  }
  /** Whether what must never be is there, by requirement. */
  violated(state: LogicState, t: number): boolean[] {
    return this.program.requirements.map(({ never }) => never !== undefined && this.passes(never, state, t))
  }
  /** Values of the outputs of all devices, in the order of `runDevices`. */
  outputValues(state: LogicState): number[] {
    const { devices, paths, sequences } = this.program
    const contactOf = (ref: string) => Number(state.contacts[this.contactIndex.get(ref)!] ?? false)
    return [
      ...devices.flatMap(({ device, type, values }, i) => [
        ...(type.contacts?.(values) ?? []).map(({ terminal }) =>
          contactOf(terminal ? `${device.id}.${terminal}` : device.id),
        ),
        ...(type.coils ?? []).map((_, c) => Number(state.devices[i].coils[c])),
        ...(type.outputs ?? []).map(() => state.devices[i].count),
      ]),
      ...paths.map((_, i) => Number(state.paths[i])),
      ...sequences.flatMap((_, s) => state.steps[s].active.map(Number)),
    ]
  }
}

/** A relay that never comes to rest. */
const CHATTERS = {
  name: 'chatters',
  label: 'goes on and off without rest',
  severity: 'warning',
} as const

/** A wire of a path is broken. */
const BROKEN = {
  name: 'broken',
  label: 'wire broken',
  form: 'lost',
  quantity: 'ratio',
  min: 0,
  max: 1,
  positions: [
    { value: 1, label: 'broken' },
    { value: 0, label: 'sound' },
  ],
} as const

export const copyOf = (state: LogicState): LogicState => ({
  devices: state.devices.map(copyOfDevice),
  contacts: [...state.contacts],
  paths: [...state.paths],
  currents: [...state.currents],
  stored: [...state.stored],
  steps: state.steps.map(({ active, since }) => ({ active: [...active], since: [...since] })),
})
