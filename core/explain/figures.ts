/** Figures that can be asked about at an instant, and how each is read while the circuit is solved on from there. */
import type { Element } from '../simulate/circuit/elements'
import type { Quantity } from '../units/quantities'
import { MOVES, MOVES_SHARE, type Mover } from './movers'
import { readerOf, type Moments } from './moment'
import { powerNow } from './power'

/** What is asked about. */
export type Figure =
  | { readonly kind: 'pressure'; readonly line: number }
  /** An output or a state of a component. */
  | { readonly kind: 'signal'; readonly component: string; readonly name: string }
  /** All heat of the circuit, W. */
  | { readonly kind: 'heat' }
  /** How long a moving part goes on, s, or how far, in the unit of its position. Signals are outputs or states of the component. */
  | {
      readonly kind: 'untilStill'
      readonly component: string
      readonly speed: string
      readonly position?: string
    }

/** A figure with its name. */
export interface NamedFigure {
  readonly label: string
  readonly quantity: Quantity
  readonly figure: Figure
}

/** Quantities of a part worth asking about. */
const ASKED: ReadonlySet<Quantity> = new Set(['speed', 'rotationalSpeed', 'flow', 'force', 'torque', 'power'])

/**
 * What can be asked about a place: its pressure; speeds, flows and forces of the part that is selected; where it moves, or what hangs on its
 * shaft, how long and how far that goes on; the heat of all.
 * @param moments shows the instant @param movers of the same run @param line none where no oil comes
 */
export function figuresAt(
  moments: Moments,
  movers: readonly Mover[],
  line: number | undefined,
  component?: string,
): NamedFigure[] {
  const element = component === undefined ? undefined : moments.element(component)
  const own = element ? signalsOf(element).filter(({ quantity }) => ASKED.has(quantity)) : []
  const mover = movers.find((m) => m.component === component || m.driven.includes(component ?? ''))
  return [
    ...(line === undefined
      ? []
      : [{ label: 'this pressure', quantity: 'pressure', figure: { kind: 'pressure', line } } as const]),
    ...own.map(({ name, label, quantity }): NamedFigure => ({
      label: `its ${label}`,
      quantity,
      figure: { kind: 'signal', component: component!, name },
    })),
    ...(mover ? untilStill(moments, mover, component!) : []),
    { label: 'the heat of the machine', quantity: 'power', figure: { kind: 'heat' } },
  ]
}

const signalsOf = ({ model, states }: Element) => [...(model.outputs ?? []), ...states]

/** How long a mover goes on, and how far. @param asked the part that is asked about: itself, or a motor on its shaft */
function untilStill(moments: Moments, { component, name, movement }: Mover, asked: string): NamedFigure[] {
  const { speed, position } = movement
  if (Math.abs(signalValue(moments, component, speed)) < MOVES) return []
  const way = signalsOf(moments.element(component)!).find((signal) => signal.name === position)
  const figure = { kind: 'untilStill', component, speed } as const
  return [
    { label: 'the time until it stands still', quantity: 'time', figure },
    ...(way
      ? [
          {
            label: `${component === asked ? 'its way' : `the way of ${name}`} until it stands still`,
            quantity: way.quantity,
            figure: { ...figure, position },
          } as const,
        ]
      : []),
  ]
}

/** Value of an output or a state of a component, SI; NaN where it has none of that name. @param moments its network stands observed */
const signalValue = ({ network }: Moments, component: string, name: string): number =>
  readerOf(network, component, name)?.(network) ?? Number.NaN

/** Share of a figure below which a change of it is none: what the tolerance of the solver leaves open, more where it is followed for long. */
const NO_CHANGE = 5e-4
const NO_CHANGE_UNTIL_STILL = 5e-3
/** Pa that no gauge shows. */
const NO_PRESSURE_CHANGE = 1e3
/** Change of a figure below which it is none, in its unit. @param now the figure as it is */
export const leastChange = ({ kind }: Figure, now: number): number =>
  Math.max(
    (kind === 'untilStill' ? NO_CHANGE_UNTIL_STILL : NO_CHANGE) * Math.abs(now),
    kind === 'pressure' ? NO_PRESSURE_CHANGE : 0,
  )

/** Reads a figure while the circuit is solved on. */
interface Reading {
  /** s that are solved at most. */
  readonly horizon: number
  readonly maximumSteps: number
  /** Takes an accepted step, s since the instant asked about; the network stands observed at its end. @returns true where that is enough */
  take(from: number, to: number): boolean
  /** NaN where the figure does not exist. */
  readonly value: number
}

export const readingOf = (figure: Figure, moments: Moments): Reading =>
  figure.kind === 'untilStill' ? new UntilStill(figure, moments) : new MeanOfEnd(figure, moments)

/** s that are solved: pressures settle, a rod at 0.2 m/s moves by a few centimetres. */
const HORIZON = 0.25
/** Share of it at its end over which the figure is averaged. */
const AVERAGED = 0.4

class MeanOfEnd implements Reading {
  readonly horizon = HORIZON
  readonly maximumSteps = 2000
  private sum = 0
  private span = 0

  constructor(
    private readonly figure: Exclude<Figure, { kind: 'untilStill' }>,
    private readonly moments: Moments,
  ) {}

  take(from: number, to: number): boolean {
    if (to > (1 - AVERAGED) * HORIZON) {
      this.sum += this.now() * (to - from)
      this.span += to - from
    }
    return false
  }

  private now(): number {
    const { figure, moments } = this
    if (figure.kind === 'pressure') return moments.network.potential[figure.line]
    if (figure.kind === 'heat') return powerNow(moments.network).heat
    return signalValue(moments, figure.component, figure.name)
  }

  get value(): number {
    return this.span > 0 ? this.sum / this.span : Number.NaN
  }
}

/** s that a motion is followed. */
export const LONGEST_MOTION = 60
/** s for which a part must stand: one that swings back has not come to rest. */
const STANDS = 0.2
/** A part that has come to rest moves again from so many times the speed on: a small rebound of the oil is none. */
const REBOUND = 3

class UntilStill implements Reading {
  readonly horizon = LONGEST_MOTION
  readonly maximumSteps = 20_000
  private readonly start: number
  private before: number
  private fastest: number
  /** Instant from which it has stood still, and where it was then. */
  private stood: { at: number; position: number } | undefined
  private done = false

  constructor(
    private readonly figure: Extract<Figure, { kind: 'untilStill' }>,
    private readonly moments: Moments,
  ) {
    this.before = this.fastest = Math.abs(signalValue(moments, figure.component, figure.speed))
    this.start = this.position()
  }

  private position(): number {
    const { component, position } = this.figure
    return position === undefined ? 0 : signalValue(this.moments, component, position)
  }

  take(from: number, to: number): boolean {
    const { component, speed } = this.figure
    const now = Math.abs(signalValue(this.moments, component, speed))
    this.fastest = Math.max(this.fastest, now)
    const still = Math.max(MOVES, MOVES_SHARE * this.fastest)
    if (now >= (this.stood ? REBOUND : 1) * still) this.stood = undefined
    else {
      // linear within the step
      const share = this.before > now ? Math.max(0, this.before - still) / (this.before - now) : 0
      this.stood ??= { at: from + share * (to - from), position: this.position() }
    }
    this.before = now
    this.done = this.stood !== undefined && to - this.stood.at >= STANDS
    return this.done
  }

  get value(): number {
    if (!this.done || !this.stood) return Number.NaN
    return this.figure.position === undefined ? this.stood.at : Math.abs(this.stood.position - this.start)
  }
}
