/** Integrates a circuit from event to event: one step at a time, up to the first event function that changes sign in it. */
import { EventFunctions } from './circuit/event-functions'
import type { Network } from './circuit/network'
import { Rosenbrock } from './numerics/rosenbrock'

/** Beyond any share of a step. */
const NO_EVENT = 2

/** Receives the parts of an accepted step; the network is observed when it is called. */
export interface StepVisitor {
  /** The middle of the part of the step that holds. */
  atMidpoint(): void
  /** The end of an interval of the step, in shares of it. */
  afterInterval(from: number, to: number): void
}

/** A step size fell below what time can resolve. */
export class StepFailure extends Error {
  constructor(
    /** State whose error limited the step. */
    readonly state: number,
  ) {
    super('the step size fell to nothing')
  }
}

export class Stepper {
  readonly integrator: Rosenbrock
  readonly events: EventFunctions
  /** State where the network was last looked at. */
  readonly y: Float64Array

  /** @param observing whether outputs and conditions are wanted where it looks, and not only rates and events */
  constructor(
    private readonly network: Network,
    tolerance: number,
    private readonly observing: boolean,
  ) {
    this.integrator = new Rosenbrock(network, network.solver, network.scale)
    this.setTolerance(tolerance)
    this.events = new EventFunctions(network)
    this.y = Float64Array.from(network.initial)
  }

  /** @param tolerance relative; absolute, that share of the scale of each state */
  setTolerance(tolerance: number): void {
    this.network.setTolerance(tolerance)
    this.integrator.setTolerance(tolerance)
  }

  get length(): number {
    return this.integrator.tNew - this.integrator.tOld
  }
  /** Instant at a share of the last step, s. */
  timeAt(share: number): number {
    const { tOld, tNew } = this.integrator
    return share === 1 ? tNew : tOld + share * (tNew - tOld)
  }

  /** Puts the network at a share of the last step. @returns the instant, s */
  evaluateAt(share: number): number {
    const { integrator, network, y } = this
    integrator.interpolate(share, y)
    if (share < 1) network.clampPressures(y)
    const t = this.timeAt(share)
    if (this.observing) network.observe(t, y)
    else network.evaluate(t, y)
    return t
  }
  /** Made once: the loop creates no closures. */
  readonly evaluate = (share: number): void => void this.evaluateAt(share)

  /**
   * One step, at most to `limit`; and to `stop`, which shortens only a step that would pass it without an event before: steps that end
   * there by themselves are those that would be taken without it. Where an event function changes sign in it, only so far:
   * that is looked for in both halves where somebody follows the way, and else between its ends.
   * @returns the share of the step that holds: below 1 where it ends at an event @throws StepFailure
   */
  step(limit: number, visitor?: StepVisitor, stop = Infinity): number {
    const { integrator, events, evaluate } = this
    const start = stop < Infinity ? integrator.save() : undefined
    this.integrate(limit)
    if (start && integrator.tNew > stop && !(this.timeAt(this.firstEvent()) <= stop)) {
      integrator.load(start)
      this.integrate(Math.min(limit, stop))
    }
    if (!visitor) {
      const event = this.eventIn(0, 1)
      if (event <= 1) return event
      events.accept()
      return 1
    }
    const first = this.eventIn(0, 0.5)
    if (first <= 1) {
      evaluate(0.5 * first)
      visitor.afterInterval(0, 0.5 * first)
      visitor.atMidpoint()
      evaluate(first)
      visitor.afterInterval(0.5 * first, first)
      return first
    }
    visitor.afterInterval(0, 0.5)
    visitor.atMidpoint()
    const second = this.eventIn(0.5, 1)
    if (second <= 1) {
      evaluate(0.5 * second)
      visitor.atMidpoint()
      evaluate(second)
      visitor.afterInterval(0.5, second)
      return second
    }
    visitor.afterInterval(0.5, 1)
    events.accept()
    return 1
  }

  private integrate(limit: number): void {
    if (!this.integrator.step(limit)) throw new StepFailure(this.integrator.worst)
  }

  /** Share of the last step at which the first event function changes sign, or `NO_EVENT`. */
  private firstEvent(): number {
    const first = this.eventIn(0, 0.5)
    return first <= 1 ? first : this.eventIn(0.5, 1)
  }
  /** The same between two shares; the network then stands at the event, or at the second share. */
  private eventIn(from: number, to: number): number {
    const { events, evaluate, length } = this
    evaluate(to)
    return events.crossed() ? events.locate(from, to, length, evaluate) : NO_EVENT
  }
}
