/**
 * What would change a figure: every setting, size and load by one step, each by solving again from the same state with that value
 * changed. Inputs stay as they are; what follows is looked at after a short time, when pressures have followed and rods have hardly moved.
 */
import type { Parameter } from '../catalogue/kind'
import { resolveComponent } from '../sheet/resolve'
import { nameOf } from '../sheet/schema'
import { Chattering } from '../simulate/circuit/event-functions'
import type { Network } from '../simulate/circuit/network'
import { StepFailure, Stepper } from '../simulate/stepper'
import { siUnit, type Quantity } from '../units/quantities'
import { readingOf, type Figure } from './figures'
import type { Moments } from './moment'

export interface Knob {
  readonly part: string
  readonly parameter: string
  /** In words: "1-0V1 setting". */
  readonly label: string
  readonly quantity: Quantity
  /** Value now and after one step, SI. */
  readonly from: number
  readonly to: number
  /** What the step does to the figure, in its SI unit. */
  readonly effect: number
}
export interface Knobs {
  /** The figure as it is, solved on alike; NaN where it does not exist, and then there are no knobs. */
  readonly now: number
  /** The strongest first. */
  readonly knobs: readonly Knob[]
}

const TOLERANCE = 1e-3
const FIRST_STEP = 1e-4
/** One step: a setting by 10 bar, anything else by a tenth. */
const PRESSURE_STEP = 10e5
const SHARE_STEP = 0.1

/** Quantities of loads: what hangs on a rod, a shaft or a rope. */
const LOADS: ReadonlySet<Quantity> = new Set(['force', 'torque', 'mass', 'inertia'])

/** A value of a component that a designer may choose. */
interface Choice {
  readonly part: string
  readonly parameter: string
  readonly label: string
  readonly quantity: Quantity
  readonly min: number
  readonly max: number
  readonly now: number
  /** Index of the input that it gives the value at rest, where it does. */
  readonly input?: number
}

/** Settings, loads and sizes of all components, as they are at the instant. */
function choicesOf({ network }: Moments): Choice[] {
  return network.elements.flatMap((element): Choice[] => {
    const { resolved } = element
    if (!resolved) return []
    const { kind, values, component } = resolved
    const inputs = new Map(
      element.inputs.flatMap((input, i) =>
        input.restParameter === undefined ? [] : [[input.restParameter, element.firstInput + i] as const],
      ),
    )
    const sizes = new Set([
      ...Object.values(kind.traits?.sizingTargets ?? {}),
      ...(kind.traits?.nominalPoint ? [kind.traits.nominalPoint.flow] : []),
    ])
    const idle = new Set<string>(kind.idleParameters?.(values) ?? [])
    return Object.entries(kind.parameters as Record<string, Parameter>).flatMap(
      ([name, parameter]): Choice[] => {
        const input = inputs.get(name)
        if (parameter.type !== 'quantity' || idle.has(name)) return []
        if (input === undefined && !sizes.has(name) && !LOADS.has(parameter.quantity)) return []
        const now = input === undefined ? (values[name] as number) : network.arrays.u[input]
        // one step of nothing is nothing
        if (!Number.isFinite(now) || now === 0) return []
        const { label, quantity, min, max } = parameter
        const words = `${nameOf(component)} ${label.charAt(0).toLowerCase()}${label.slice(1)}`
        return [
          {
            part: component.id,
            parameter: name,
            label: words,
            quantity,
            min,
            max,
            now,
            ...(input === undefined ? {} : { input }),
          },
        ]
      },
    )
  })
}

const stepped = ({ quantity, now, max }: Choice) =>
  Math.min(max, quantity === 'pressure' ? now + PRESSURE_STEP : now * (1 + SHARE_STEP))

/** The circuit at an instant, which can be solved on with something changed, and goes back to that instant each time. */
export class Trials {
  private readonly y: Float64Array
  private readonly modes: Int32Array
  private readonly time: number
  private readonly network: Network

  /** @param moments shows the instant; it must be shown again before it is asked anything else */
  constructor(
    private readonly moments: Moments,
    private readonly figure: Figure,
  ) {
    this.network = moments.network
    this.y = moments.state()
    this.modes = this.network.arrays.mode.slice()
    this.time = moments.time
  }

  choices(): Choice[] {
    return choicesOf(this.moments)
  }

  /** The figure with a value changed, or as it is. @returns NaN where that cannot be solved or is not allowed */
  figureWith(choice?: Choice, value = 0): number {
    const undo = choice ? this.change(choice, value) : undefined
    if (choice && !undo) return Number.NaN
    try {
      return this.solve()
    } finally {
      // a part is given its value back where it stood
      this.restore()
      undo?.()
      this.restore()
    }
  }

  /** @returns what changes it back; nothing where it is not allowed */
  private change(choice: Choice, value: number): (() => void) | undefined {
    const { network, time } = this
    if (choice.input !== undefined) {
      const { input } = choice
      const before = network.arrays.u[input]
      const put = (to: number) => {
        network.inputs.set(input, to, 'hand')
        network.unfreezeInputs()
        network.freezeInputs(time)
      }
      put(value)
      return () => put(before)
    }
    const index = network.elements.findIndex((e) => e.id === choice.part)
    const { resolved: before, inputsRead, inputs } = network.elements[index]
    const component = before!.component
    const { resolved, problems } = resolveComponent({
      ...component,
      parameters: {
        ...component.parameters,
        [choice.parameter]: `${value} ${siUnit(choice.quantity)}`.trim(),
      },
    })
    if (!resolved || problems.length) return undefined
    const faulty = inputsRead === inputs.length && (before!.kind.faults?.length ?? 0) > 0
    try {
      network.replace(index, resolved, faulty, time, this.y)
    } catch {
      return undefined
    }
    return () => network.replace(index, before!, faulty, time, this.y)
  }

  private restore(): void {
    const { network } = this
    network.arrays.mode.set(this.modes)
    network.modesLoaded()
    network.evaluate(this.time, this.y)
  }

  /** Solves on with the inputs as they stand, and reads the figure. */
  private solve(): number {
    const { network, time } = this
    network.observe(time, this.y)
    const reading = readingOf(this.figure, this.moments)
    const end = time + reading.horizon
    const stepper = new Stepper(network, TOLERANCE, false)
    const { integrator, events } = stepper
    const y = Float64Array.from(this.y)
    let t = time
    try {
      events.initialise(t, y)
      integrator.restart(t, y, FIRST_STEP)
      for (let steps = 0; t < end && steps < reading.maximumSteps; steps++) {
        const share = stepper.step(end)
        const reached = stepper.timeAt(share)
        y.set(stepper.y)
        network.observe(reached, y)
        if (reading.take(t - time, reached - time)) break
        t = reached
        if (share === 1) continue
        events.switchAll(t, y)
        integrator.restart(t, y, FIRST_STEP)
      }
    } catch (error) {
      if (!(error instanceof StepFailure || error instanceof Chattering)) throw error
      return Number.NaN
    }
    return reading.value
  }

  /** All that has an effect, the strongest first. @param progress called with the share that is done; false ends it */
  knobs(progress?: (share: number) => boolean | void): Knobs {
    const choices = this.choices()
    const now = this.figureWith()
    const knobs: Knob[] = []
    if (Number.isNaN(now)) return { now, knobs }
    for (const [i, choice] of choices.entries()) {
      const to = stepped(choice)
      if (to === choice.now) continue
      const effect = this.figureWith(choice, to) - now
      if (Number.isFinite(effect)) {
        const { part, parameter, label, quantity, now: from } = choice
        knobs.push({ part, parameter, label, quantity, from, to, effect })
      }
      if (progress?.((i + 1) / choices.length) === false) break
    }
    return { now, knobs: knobs.sort((a, b) => Math.abs(b.effect) - Math.abs(a.effect)) }
  }

  /**
   * The value of one setting, size or load that gives the figure a wanted value, by a bracketed root (bisection).
   * @returns nothing where none of its range does
   */
  valueFor(part: string, parameter: string, wanted: number): { value: number; figure: number } | undefined {
    const choice = this.choices().find((c) => c.part === part && c.parameter === parameter)
    if (!choice) return undefined
    const tried = FACTORS.map((factor) => choice.now * factor)
      .filter((value) => value >= choice.min && value <= choice.max)
      .map((value) => ({ value, figure: this.figureWith(choice, value) }))
      .filter(({ figure }) => Number.isFinite(figure))
    const at = tried.findIndex(
      ({ figure }, i) => i + 1 < tried.length && (figure - wanted) * (tried[i + 1].figure - wanted) <= 0,
    )
    if (at < 0) return undefined
    let [low, high] = [tried[at], tried[at + 1]]
    for (let i = 0; i < BISECTIONS; i++) {
      const value = (low.value + high.value) / 2
      const middle = { value, figure: this.figureWith(choice, value) }
      if (!Number.isFinite(middle.figure)) return undefined
      if ((low.figure - wanted) * (middle.figure - wanted) <= 0) high = middle
      else low = middle
    }
    return Math.abs(low.figure - wanted) < Math.abs(high.figure - wanted) ? low : high
  }
}

/** Shares of the present value that are tried first. */
const FACTORS = [0.1, 0.25, 0.5, 0.75, 0.9, 1, 1.1, 1.25, 1.5, 2, 3, 5]
const BISECTIONS = 12
