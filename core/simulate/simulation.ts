/**
 * A circuit that is stepped from outside. It owns network, integrator, event functions, oil state, control and observers; runs, live
 * runs, replays and operating points are short users of it.
 *
 * Actions take effect at the present time of the integrator. A step is cut short only by what is due (schedule, control, planned actions)
 * and by the instant that `advance` is called with; `advanceBeyond` ends where a step ends, so that observing changes nothing.
 */
import { resolveComponent, type RawValue } from '../sheet/resolve'
import { showIn, showQuantity } from '../units/text'
import { actionText, type Action } from './actions'
import { BURST_INPUT } from './circuit/bursting'
import { Chattering, EventFunctions } from './circuit/event-functions'
import type { Element } from './circuit/elements'
import { InstantRates } from './circuit/instant-rates'
import { outOfRange } from './circuit/input-signal'
import { Network } from './circuit/network'
import { OilState } from './circuit/oil-state'
import type { Compiled } from './compile'
import type { Control, Readings } from './control-interface'
import { DueQueue } from './due-queue'
import { changeText, inputChange } from './event-text'
import type { Statistics } from './numerics/rosenbrock'
import { Balances } from './observers/balances'
import { Conditions } from './observers/conditions'
import { EventLog } from './observers/event-log'
import { Hunting } from './observers/hunting'
import { LineLoads } from './observers/line-loads'
import { Recorder } from './observers/recorder'
import { BALANCE_WARNING, type Condition, type RunEvent, type RunResult } from './result'
import { findSteadyState } from './steady-state'
import type { Changed, Snapshot, Stop } from './snapshot'
import { StepFailure, Stepper, type StepVisitor } from './stepper'

/** An input of a schedule that changes by less, relative, goes on as it went. */
const SAME_INPUT = 1e-9
/** The first step after something has switched is no longer, s. */
const LONGEST_FIRST_STEP = 1e-3
/** The same where only forces have changed, s. */
const LONGEST_ON_FORCES = 5e-3
/** While an input runs along a ramp no step is longer, s: what follows it is accounted for by Simpson's rule. */
const LONGEST_ON_A_RAMP = 0.1
/** Rounds of control and circuit answering each other at one instant. */
const MOST_ROUNDS = 50

/** Why a call of `advance` came back. */
export type Advance =
  | { readonly reason: 'reached' }
  /** An event function changed sign, or something was due. */
  | { readonly reason: 'event' }
  | { readonly reason: 'stopped' }

export interface SimulationOptions {
  readonly control?: Control
  /**
   * No step is longer, s: an action takes effect at the present time of the integrator, which is at most so far ahead of what is shown. A replay
   * needs the same.
   */
  readonly longestStep?: number
  /** Values of all samples that are kept; older ones are then merged without losing peaks. */
  readonly room?: number
}

export class Simulation {
  readonly network: Network
  readonly recorder: Recorder
  /** What was done from outside, in order. */
  readonly actions: Action[] = []
  /** What happened, in order. */
  readonly events = new EventLog()
  /** Set where it cannot go on. */
  stopped?: Stop
  private readonly stepper: Stepper
  private readonly oil: OilState
  private readonly conditions: Conditions
  private readonly hunting: Hunting
  private readonly lineLoads: LineLoads
  /** Whether what has switched at this instant changes forces only. */
  private onlyForces = false
  private readonly balances: Balances
  private readonly queue = new DueQueue<Action>()
  private readonly control?: Control
  private longestStep: number
  /** Rates at the start of the step, in its middle, and at its end. */
  private before: InstantRates
  private readonly middle: InstantRates
  private after: InstantRates
  private readonly changed = new Map<string, Changed>()
  private readonly warnings: string[] = []
  private readonly inputsBefore: Float64Array
  private readonly inputsUpToNow: Float64Array
  private readonly visitor: StepVisitor
  private readonly readings: Readings

  constructor(
    readonly compiled: Compiled,
    options: SimulationOptions = {},
  ) {
    const { settings, tank } = compiled
    const network = new Network(compiled)
    this.network = network
    this.control = options.control ?? compiled.control?.create()
    this.longestStep = options.longestStep ?? Infinity
    this.inputsBefore = new Float64Array(network.arrays.u.length)
    this.inputsUpToNow = new Float64Array(network.arrays.u.length)
    this.readings = {
      isOn: (component) => {
        const element = this.element(component)
        return element?.resolved?.kind.traits?.isOn?.(element.local) ?? false
      },
      input: (component, name) => network.arrays.u[network.inputs.find(component, name)],
      watched: (index) => network.watch!.value(index),
    }
    if (settings.steadyState) {
      if (this.control) {
        // the rest is that of the outputs with which control begins
        new EventFunctions(network).initialise(0, network.initial)
        this.letControlReact(0, false)
      }
      const rest = findSteadyState(network, settings.tolerance)
      if (!rest.converged)
        this.warnings.push(
          `It did not come to rest with its first commands: the run begins as it was after ${rest.time.toPrecision(3)} s of them.`,
        )
    }
    this.stepper = new Stepper(network, settings.tolerance, true)
    this.oil = new OilState(network, tank)
    this.before = new InstantRates(network)
    this.middle = new InstantRates(network, this.before)
    this.after = new InstantRates(network, this.before)
    // one of limited room goes on for as long as somebody looks
    const expected =
      options.room === undefined ? Math.ceil(settings.duration / settings.every) + 2 : undefined
    this.recorder = new Recorder(network, settings.every, options.room, expected)
    this.conditions = new Conditions(network)
    this.visitor = {
      atMidpoint: () => this.middle.store(),
      afterInterval: (from, to) => this.passed(from, to),
    }
    const { integrator, events, y } = this.stepper
    network.activateInputs(0)
    integrator.restart(0, y, Math.min(LONGEST_FIRST_STEP, settings.duration * 1e-3))
    this.runWithChatterStop(() => {
      events.initialise(0, integrator.y)
      this.iterateControlAndEvents()
      y.set(integrator.y)
    })
    network.observe(0, y)
    this.balances = new Balances(network)
    this.hunting = new Hunting(network)
    this.lineLoads = new LineLoads(network, compiled.lineSpeeds, this.recorder.highest)
    this.updateObservers(0)
    this.queueScheduleBreak()
  }

  get time(): number {
    return this.stepper.integrator.t
  }
  get statistics(): Readonly<Statistics> {
    return this.stepper.integrator.statistics
  }
  /** The present state, in the order of the network. */
  get state(): Float64Array {
    return this.stepper.integrator.y
  }

  /** Integrates to an instant, or to the next event if that is first. @param to s */
  advance(to: number): Advance {
    while (!this.stopped && this.time < to) if (this.step(to)) return { reason: 'event' }
    return { reason: this.stopped ? 'stopped' : 'reached' }
  }

  /** Integrates with whole steps until it reaches a time or is beyond it; `observeAt` then reads any instant within the last step. */
  advanceBeyond(to: number): Advance {
    while (!this.stopped && this.time < to) this.step(Infinity)
    return { reason: this.stopped ? 'stopped' : 'reached' }
  }

  /** Earliest instant that can be observed: the start of the last step, s. */
  get observableFrom(): number {
    return Math.min(this.stepper.integrator.tOld, this.time)
  }
  /** Puts the network where the circuit was at an instant of the last step; changes nothing of what follows. @param t s */
  observeAt(t: number): void {
    const { integrator, length, y } = this.stepper
    if (t >= this.time || length === 0) {
      this.network.observe(this.time, integrator.y)
      return
    }
    integrator.interpolate(Math.max(0, (t - integrator.tOld) / length), y)
    this.network.clampPressures(y)
    this.network.observe(Math.max(t, integrator.tOld), y)
  }

  /**
   * One step, at most to `limit`, and all that happens at its end.
   * @returns whether something happened there: an event, or what was due
   */
  step(limit: number): boolean {
    const { stepper, recorder, network, oil, balances, before, middle, after } = this
    const { integrator } = stepper
    if (this.stopped) return false
    if (recorder.nextSample <= this.time * (1 + 1e-12)) {
      network.observe(this.time, integrator.y)
      recorder.sample(this.time)
    }
    let share: number
    const due = this.queue.next
    // an action was done where a step ended: planned, it must not change the steps that lead there
    const action = this.queue.nextOf('user')
    try {
      const moving = network.inputs.movingCount > 0 ? LONGEST_ON_A_RAMP : Infinity
      const longest = this.time + Math.min(this.longestStep, moving, oil.longestStep(before))
      share = stepper.step(Math.min(limit, this.queue.nextExcept('user'), longest), this.visitor, action)
    } catch (error) {
      if (!(error instanceof StepFailure)) throw error
      this.stop(error.message, error.state)
      return false
    }
    after.store()
    const t = stepper.timeAt(share)
    this.sampleWithin(t, share)
    const h = t - integrator.tOld
    balances.stepAccepted(h, before, middle, after)
    oil.endInterval(t, h, before, middle, after)
    this.before = after
    this.after = before
    if (oil.tooHot) this.stopTooHot()
    if (this.compiled.onBurst === 'stop') this.stopWhereItBursts()
    if (share < 1) {
      integrator.interpolate(share, stepper.y)
      network.clampPressures(stepper.y)
      integrator.restart(t, stepper.y)
      integrator.statistics.events++
      this.onlyForces = true
      this.runWithChatterStop(() => this.iterateControlAndEvents())
      integrator.h = Math.min(integrator.h, this.onlyForces ? LONGEST_ON_FORCES : LONGEST_FIRST_STEP)
      this.updateObservers(t)
      if (due > t) return true
    }
    if (due > t) return false
    this.executeDueActions()
    return true
  }

  /**
   * Gives an input of a component, or one of its faults, a value from now on. @param value SI
   * @throws Error in plain words where there is no such input or it cannot have that value
   */
  set(component: string, target: string, value: number): void {
    const input = this.inputIndex(component, target)
    const { spec } = this.network.inputs.inputs[input]
    const problem = Number.isFinite(value) ? outOfRange(spec, value) : 'is no number.'
    if (problem)
      throw new Error(
        `${component}, ${spec.label}: ${Number.isFinite(value) ? showQuantity(value, spec.quantity, 'metric') : value} ${problem}`,
      )
    this.execute({ at: this.time, kind: 'set', component, target, value })
  }
  /** Gives an input back to its schedule. @throws Error where there is no such input */
  release(component: string, target: string): void {
    this.inputIndex(component, target)
    this.execute({ at: this.time, kind: 'release', component, target })
  }
  /**
   * Changes a parameter of a component from now on. @param value as in a sheet file: "95 bar"
   * @throws Error in plain words where the value will not do, or cannot be changed while it runs
   */
  setParameter(component: string, target: string, value: RawValue): void {
    this.execute({ at: this.time, kind: 'parameter', component, target, value })
  }
  /** Sets how long a step may be at the most, s: how far it may be ahead of what is shown. */
  setLongestStep(value: number): void {
    if (!(value > 0)) throw new Error(`A step of ${value} s is not possible.`)
    this.execute({ at: this.time, kind: 'longestStep', value })
  }
  /** Has an action done when its instant comes. @throws Error where that is past */
  plan(action: Action): void {
    if (action.at < this.time)
      throw new Error(`An action at ${action.at} s comes too late: it is ${this.time} s.`)
    this.queue.add({ at: action.at, source: 'user', action })
    if (action.at === this.time) this.executeDueActions()
  }

  snapshot(): Snapshot {
    const { stepper, network, oil, before, queue, control, recorder, conditions, balances } = this
    return {
      time: this.time,
      integrator: stepper.integrator.save(),
      modes: network.arrays.mode.slice(),
      events: stepper.events.save(),
      derivatives: network.saveDerivatives(),
      inputs: network.inputs.save(),
      oil: oil.save(),
      rates: before.save(),
      changed: Object.fromEntries(this.changed),
      queue: queue.save(),
      done: this.actions.length,
      eventsListed: this.events.count,
      longestStep: this.longestStep,
      ...(control ? { control: control.save() } : {}),
      ...(network.watch ? { watched: network.watch.save() } : {}),
      recorder: recorder.save(),
      conditions: conditions.save(),
      hunting: this.hunting.save(),
      lineLoads: this.lineLoads.save(),
      balances: balances.save(),
      warnings: [...this.warnings],
      ...(this.stopped ? { stopped: this.stopped } : {}),
    }
  }

  /** Goes on from a snapshot of a simulation of the same circuit, to the last bit as that did. */
  restore(saved: Snapshot): void {
    const { stepper, network, oil, before, queue, control, recorder, conditions, balances } = this
    const { integrator, events, y } = stepper
    integrator.load(saved.integrator)
    y.set(saved.integrator.y)
    const { t } = integrator
    network.arrays.mode.set(saved.modes)
    network.modesLoaded()
    for (const id of new Set([...this.changed.keys(), ...Object.keys(saved.changed)]))
      this.rebuild(id, saved.changed[id] ?? { parameters: {}, faulty: false })
    network.inputs.load(saved.inputs)
    network.activateInputs(t)
    events.load(saved.events)
    before.load(saved.rates)
    oil.load(saved.oil, t)
    oil.beginInterval(t, before)
    network.loadDerivatives(saved.derivatives)
    queue.load(saved.queue)
    if (control) {
      control.load(saved.control)
      this.writeDeviceOutputs()
    }
    if (saved.watched) network.watch?.load(saved.watched)
    recorder.excludeAllBut(saved.recorder.included)
    for (const [id, input] of saved.recorder.included) recorder.include(this.element(id)!, input)
    recorder.load(saved.recorder)
    conditions.load(saved.conditions)
    this.hunting.load(saved.hunting)
    this.lineLoads.load(saved.lineLoads)
    balances.load(saved.balances)
    this.actions.splice(saved.done)
    this.events.truncate(saved.eventsListed)
    this.longestStep = saved.longestStep
    this.warnings.splice(0, this.warnings.length, ...saved.warnings)
    this.stopped = saved.stopped
    network.observe(t, y)
  }

  /** What it has found so far; it may go on afterwards. */
  result(): RunResult {
    const { network, recorder, balances, compiled } = this
    const { netlist, schedule } = compiled
    network.observe(this.time, this.state)
    const energy = balances.energy()
    const oil = balances.oil()
    const warnings = [...this.warnings, ...(this.events.warning ? [this.events.warning] : [])]
    for (const [name, error] of [
      ['energy', energy.error],
      ['oil', oil.error],
    ] as const)
      if (error > BALANCE_WARNING)
        warnings.push(`The ${name} balance is off by ${(100 * error).toPrecision(2)} %: ${this.cause(name)}.`)
    return {
      schedule: schedule.id,
      duration: this.time,
      finished: !this.stopped,
      stopped: this.stopped,
      warnings,
      ...recorder.recording(this.time),
      signals: [...recorder.signals],
      extremes: recorder.extremes(),
      conditions: this.conditionsSoFar(),
      events: this.events.list(),
      actions: [...this.actions],
      energy,
      oil,
      lineLoads: this.lineLoads.loads(),
      statistics: { ...this.statistics },
      lines: netlist.nodes.map((n) => n.name),
      lineOfPort: Object.fromEntries(netlist.nodeOf),
      lineOfPipe: Object.fromEntries(netlist.nodeOfPipe),
    }
  }

  /** Conditions so far, in the order of their starts. */
  conditionsSoFar(): Condition[] {
    return [...this.conditions.list(), ...this.hunting.list(), ...this.lineLoads.list()].sort(
      (a, b) => a.start - b.start,
    )
  }

  /** Why the accounts do not close: lines where the equations no longer hold, or steps that are too rough. */
  private cause(name: 'energy' | 'oil'): string {
    const found = this.conditions.list().filter((c) => c.node !== undefined)
    const names = (condition: string) => {
      const lines = new Set(
        found.filter((c) => c.name === condition).map((c) => this.network.nodes[c.node!].name),
      )
      return lines.size ? [...lines].slice(0, 3).join(', ') : undefined
    }
    const burst = names('bursts')
    if (burst)
      return `${burst} went beyond any pressure that a line holds, where oil is no longer what the equations say`
    const empty = names('emptied')
    if (empty) return `${empty} ran empty, and what flowed then was no oil`
    const [most] = name === 'energy' ? this.balances.energy().missing : []
    const of = most ? `what ${most.id} takes in is not what it keeps, gives and loses; ` : ''
    return `${of}ask for a more accurate step`
  }

  /** Ends it here: what it has found so far stays. @param state whose error was in the way, −1 for none */
  stop(message: string, state = -1): void {
    const where = state >= 0 ? this.network.describeState(state) : undefined
    this.stopped = {
      message: `The run stopped at ${this.time.toPrecision(5)} s: ${message}${where ? ` (${where.label})` : ''}.`,
      component: where?.component,
      pipe: where?.pipe,
    }
  }

  private element(component: string): Element | undefined {
    return this.network.elements.find((e) => e.id === component)
  }
  private inputIndex(component: string, target: string): number {
    const { inputs } = this.network
    const input = inputs.find(component, target)
    if (input >= 0) return input
    const line = this.compiled.netlist.nodeOfPipe.get(component)
    if (line !== undefined && target === BURST_INPUT.name) {
      const hole = inputs.find(this.network.nodes[line].pipes[0], target)
      if (hole >= 0) return hole
    }
    const element = this.element(component)
    if (!element) throw new Error(`There is no component "${component}".`)
    const names = element.inputs.map((i) => i.spec.name)
    throw new Error(
      `${component} has no input or fault "${target}"${names.length ? `; it has ${names.join(', ')}` : ''}.`,
    )
  }

  /** Conditions and extremes of a part of the last step; the network is observed at its end, and is left so. */
  private passed(from: number, to: number): void {
    const { stepper, conditions, recorder } = this
    const t = stepper.timeAt(to)
    if (conditions.crossed()) {
      conditions.observe(stepper.evaluateAt(conditions.locate(from, to, stepper.length, stepper.evaluate)))
      stepper.evaluate(to)
      conditions.observe(t)
    } else conditions.goOn(t)
    recorder.observe(t)
    this.hunting.observe(t)
    this.lineLoads.observe(t)
  }

  /** Takes the samples that lie within the last step; one that falls on its end is taken with what holds after it. */
  private sampleWithin(end: number, share: number): void {
    const { recorder, stepper } = this
    while (recorder.nextSample < end * (1 - 1e-12)) {
      const at = recorder.nextSample
      const within = (at - stepper.integrator.tOld) / stepper.length
      stepper.evaluateAt(Math.min(share, Math.max(0, within)))
      recorder.sample(at)
    }
  }

  /** Takes what holds at an instant, after all that happened there, for what follows. */
  private updateObservers(t: number): void {
    const { network, oil, before, conditions, recorder } = this
    oil.updateAirPressure(t)
    network.observe(t, this.state)
    before.store()
    oil.beginInterval(t, before)
    conditions.observe(t)
    recorder.observe(t)
  }

  /** Switches what has changed sides, lets control answer, and again, until nothing changes any more. */
  private iterateControlAndEvents(): void {
    const { stepper, network, control } = this
    const { integrator, events } = stepper
    const { t, y } = integrator
    for (let round = 0; ; round++) {
      events.switchAll(t, y, this.reportEvent)
      if (!control || !this.letControlReact(t)) return
      if (round >= MOST_ROUNDS) {
        this.stop('control and circuit answer each other without end')
        return
      }
      this.onlyForces = false
      network.activateInputs(t)
    }
  }

  /** @param listed whether it is listed as an event @returns whether an input, or a range that is watched, is another */
  private letControlReact(t: number, listed = true): boolean {
    const { network, queue } = this
    const { outputs, nextDue, events = [], ranges } = this.control!.react(t, this.readings)
    queue.clear('control')
    if (nextDue < Infinity) queue.add({ at: nextDue, source: 'control' })
    if (listed) for (const { device, what } of events) this.log('control', device || undefined, what)
    this.writeDeviceOutputs()
    let changed = ranges !== undefined && network.watch !== undefined && network.watch.setRanges(ranges)
    for (const { component, input, value } of outputs) {
      const index = this.inputIndex(component, input)
      if (network.inputs.sourceOf(index) === 'hand') continue
      if (network.inputs.sourceOf(index) === 'control' && network.arrays.u[index] === value) continue
      // what control takes over as it stands is nothing that happens
      if (listed && network.arrays.u[index] !== value) this.logInput('control', index, value)
      network.inputs.set(index, value, 'control')
      changed = true
    }
    if (changed) network.invalidate()
    return changed
  }
  /** Puts what is recorded of the devices of the control where the recorder reads it. */
  private writeDeviceOutputs(): void {
    const { values, conditions } = this.control!
    if (!values) return
    let k = 0
    let n = 0
    for (const { id } of this.compiled.control?.devices ?? []) {
      const { o, c } = this.element(id)!.local
      for (let i = 0; i < o.length; i++) o[i] = values[k++]
      for (let i = 0; i < c.length; i++) c[i] = conditions?.[n++] ? 0.5 : -0.5
    }
  }

  private readonly reportEvent = (element: Element, index: number, direction: 1 | -1): void => {
    this.conditions.event(this.time, element, index, direction)
    const spec = element.model.eventFunctions![index]
    if (!spec.onlyForces) this.onlyForces = false
    if (!spec.report) return
    this.log('circuit', element.id, direction === spec.report ? spec.label : `${spec.label}, ended`)
  }
  private log(source: RunEvent['source'], component: string | undefined, what: string): void {
    this.events.add({ at: this.time, source, component, what })
  }
  /** An input that has another value now. @param value SI @param component by which it was named */
  private logInput(source: RunEvent['source'], index: number, value: number, component?: string): void {
    const input = this.network.inputs.inputs[index]
    const change = inputChange(input, value)
    const text = changeText(change, showIn('metric'))
    const what = component === undefined ? text : `${component}.${text}`
    this.events.add({ at: this.time, source, component: component ?? input.component, what, change })
  }

  /** Runs what may chatter; where it does, the simulation stops and says who. */
  private runWithChatterStop(work: () => void): void {
    try {
      work()
    } catch (error) {
      if (!(error instanceof Chattering)) throw error
      this.stop(error.message)
      this.stopped = { ...this.stopped!, component: error.elements[0].id }
    }
  }

  private queueScheduleBreak(): void {
    this.queue.clear('schedule')
    const at = this.network.inputs.nextBreak(this.time)
    if (at < Infinity) this.queue.add({ at, source: 'schedule' })
  }

  /** All that is due now, one after another. */
  private executeDueActions(): void {
    for (let due = this.queue.pop(this.time); due; due = this.queue.pop(this.time)) {
      if (due.action) {
        try {
          this.execute({ ...due.action, at: this.time })
        } catch (error) {
          this.warnings.push(`At ${this.time.toPrecision(5)} s: ${(error as Error).message}`)
        }
      } else this.applyInputChanges()
      this.queueScheduleBreak()
    }
  }

  /** Does an action now, and keeps it. */
  private execute(action: Action): void {
    const { network, balances } = this
    network.observe(this.time, this.state)
    if (action.kind === 'longestStep') this.longestStep = action.value
    else if (action.kind === 'parameter') {
      const parameters = { ...this.changed.get(action.component)?.parameters, [action.target]: action.value }
      balances.beforeChange()
      this.rebuild(action.component, {
        parameters,
        faulty: this.changed.get(action.component)?.faulty ?? false,
      })
      network.evaluate(this.time, this.state)
      balances.afterChange()
    } else {
      const input = this.inputIndex(action.component, action.target)
      if (action.kind === 'release') network.inputs.release(input)
      else {
        if (network.inputs.inputs[input].fault && action.value !== 0) {
          this.refuseIdleFault(action.component, network.inputs.inputs[input].spec)
          this.attachFaults(action.component, input)
        }
        if (network.inputs.inputs[input].spec === BURST_INPUT) this.includeHole(input)
        network.inputs.set(input, action.value, 'hand')
      }
    }
    this.actions.push(action)
    if (action.kind === 'set')
      this.logInput('user', this.inputIndex(action.component, action.target), action.value, action.component)
    else if ('component' in action) this.log('user', action.component, actionText(action))
    this.applyInputChanges('component' in action ? action.component : undefined)
    this.queueScheduleBreak()
  }

  /** Records the hole of a line from now on. */
  private includeHole(input: number): void {
    const hole = this.network.elements.find((e) => e.inputs[0] === this.network.inputs.inputs[input])!
    this.recorder.include(hole, 0)
  }

  /** @throws Error where the component, as it is set, has no such thing that could fail */
  private refuseIdleFault(component: string, { name, label }: { name: string; label: string }): void {
    const { resolved } = this.element(component)!
    if (resolved?.kind.idleFaults?.(resolved.values).includes(name))
      throw new Error(`${component} has no such thing as it is set: ${label}`)
  }

  /** Puts a component's faults around its model, if they are not yet. */
  private attachFaults(component: string, input: number): void {
    const element = this.element(component)!
    this.recorder.include(element, input - element.firstInput)
    // a device of the control has no model to put a fault around: the control asks for it
    if (!element.resolved || element.inputsRead === element.inputs.length) return
    this.rebuild(component, { parameters: this.changed.get(component)?.parameters ?? {}, faulty: true })
  }

  /** Builds one element with changed parameters or faults in place. @throws Error where its shape would change */
  private rebuild(id: string, changed: Changed): void {
    const { network, compiled, stepper, oil } = this
    const index = network.elements.findIndex((e) => e.id === id)
    const original = compiled.netlist.components.find((c) => c.component.id === id)
    if (index < 0 || !original) throw new Error(`There is no component "${id}".`)
    const { component } = original
    const { resolved, problems } = resolveComponent({
      ...component,
      parameters: { ...component.parameters, ...changed.parameters },
    })
    if (!resolved || problems.length) throw new Error(problems.map((p) => p.message).join(' '))
    const element = network.elements[index]
    const scheduledFault = element.inputs.some((i) => i.fault && i.signal.times.length > 0)
    network.replace(index, resolved, changed.faulty || scheduledFault, this.time, stepper.integrator.y)
    element.inputs.forEach(({ restParameter }, i) => {
      if (restParameter)
        network.inputs.rest[element.firstInput + i] = resolved.values[restParameter] as number
    })
    this.changed.set(id, changed)
    oil.refresh()
  }

  /**
   * Inputs, events and control at the present instant, where an input or an element has changed.
   * @param byHand component that a person has just changed: its inputs follow from that, and not from a schedule
   */
  private applyInputChanges(byHand?: string): void {
    const { network, stepper, inputsBefore, inputsUpToNow } = this
    const { integrator } = stepper
    const { u } = network.arrays
    inputsBefore.set(u)
    // what moves steadily up to here has not jumped
    network.inputs.evaluateAt(this.time)
    inputsUpToNow.set(u)
    network.activateInputs(this.time)
    let jumped = false
    for (let i = 0; i < u.length; i++)
      if (u[i] !== inputsBefore[i]) {
        jumped = true
        const { component } = network.inputs.inputs[i]
        const isSame = Math.abs(u[i] - inputsUpToNow[i]) <= SAME_INPUT * Math.max(1, Math.abs(u[i]))
        if (component === byHand || isSame || network.inputs.sourceOf(i) !== 'schedule') continue
        this.logInput('schedule', i, u[i])
      }
    this.oil.updateAirPressure(this.time)
    this.runWithChatterStop(() => this.iterateControlAndEvents())
    stepper.y.set(integrator.y)
    integrator.restart(
      this.time,
      stepper.y,
      jumped ? Math.min(integrator.h, LONGEST_FIRST_STEP) : integrator.h,
    )
    this.updateObservers(this.time)
  }

  private stopWhereItBursts(): void {
    const node = this.conditions.bursting()
    if (node < 0) return
    const { name, ports, pipes } = this.network.nodes[node]
    this.stop(
      `${name} would burst, beyond ${showQuantity(this.network.burstPressure[node], 'pressure', 'metric')}, four times its lowest rating`,
    )
    this.stopped = { ...this.stopped!, component: ports[0]?.component, pipe: pipes[0] }
  }

  private stopTooHot(): void {
    const { heatBy } = this.balances.energy()
    const most = heatBy.find((h) => this.network.elements.some((e) => e.id === h.id))
    this.stop(
      `the oil has reached 150 °C, beyond what its equations hold for${most ? `; most of the heat comes from ${most.id}` : ''}`,
    )
    this.stopped = { ...this.stopped!, component: most?.id }
  }
}
