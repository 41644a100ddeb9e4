/** Receives what happens in a simulation and keeps something of it. It never changes the simulation. */
import type { InstantRates } from '../circuit/instant-rates'

export interface Observer<Saved> {
  /** The network is observed at t: in the middle and at the end of a step, at its start, after all that happened at an instant. */
  observe?(t: number): void
  /** An interval of length h, s, is over; rates at its start, middle and end. */
  stepAccepted?(h: number, before: InstantRates, middle: InstantRates, after: InstantRates): void
  /** Plain data that `load` continues from. */
  save(): Saved
  load(saved: Saved): void
}
