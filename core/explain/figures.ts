/** Figures that can be asked about at an instant, and how each is read while the circuit is solved on from there. */
import { nameOf } from '../sheet/schema'
import type { Element } from '../simulate/circuit/elements'
import type { Quantity } from '../units/quantities'
import { MOVES, MOVES_SHARE } from './movers'
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
 * shaft, how long and how far that goes on; the heat of all. @param moments shows the instant @param line none where no oil comes
 */
export function figuresAt(moments: Moments, line: number | undefined, component?: string): NamedFigure[] {
  const element = component === undefined ? undefined : moments.element(component)
  const own = element ? signalsOf(element).filter(({ quantity }) => ASKED.has(quantity)) : []
  return [
    ...(line === undefined
      ? []
      : [{ label: 'this pressure', quantity: 'pressure', figure: { kind: 'pressure', line } } as const]),
    ...own.map(({ name, label, quantity }): NamedFigure => ({
      label: `its ${label}`,
      quantity,
      figure: { kind: 'signal', component: component!, name },
    })),
    ...(element ? untilStill(moments, element) : []),
    { label: 'the heat of the machine', quantity: 'power', figure: { kind: 'heat' } },
  ]
}

const signalsOf = ({ model, states }: Element) => [...(model.outputs ?? []), ...states]

/** How long an element, or what hangs on its shaft, goes on moving, and how far. */
function untilStill(moments: Moments, element: Element): NamedFigure[] {
  const { nodes, elements } = moments.network
  const shafts = element.nodes.filter((node) => nodes[node].domain === 'shaft')
  const onShaft = elements.filter((e) => e !== element && e.nodes.some((node) => shafts.includes(node)))
  const movers = [element, ...onShaft].flatMap((mover) => {
    const movement = mover.resolved?.kind.traits?.movement
    return movement && Math.abs(signalValue(moments, mover.id, movement.speed)) >= MOVES
      ? [{ mover, speed: movement.speed, position: movement.position }]
      : []
  })
  if (!movers.length) return []
  const [{ mover: first, speed: firstSpeed }] = movers
  const placed = movers.find(({ position }) => position !== undefined)
  const quantity = placed && signalsOf(placed.mover).find(({ name }) => name === placed.position)?.quantity
  return [
    {
      label: 'the time until it stands still',
      quantity: 'time',
      figure: { kind: 'untilStill', component: first.id, speed: firstSpeed },
    },
    ...(placed && quantity
      ? [
          {
            label: `${placed.mover === element ? 'its way' : `the way of ${nameOf(placed.mover.resolved!.component)}`} until it stands still`,
            quantity,
            figure: {
              kind: 'untilStill',
              component: placed.mover.id,
              speed: placed.speed,
              position: placed.position,
            },
          } as const,
        ]
      : []),
  ]
}

/** Value of an output or a state of a component, SI; NaN where it has none of that name. @param moments its network stands observed */
const signalValue = ({ network }: Moments, component: string, name: string): number =>
  readerOf(network, component, name)?.(network) ?? Number.NaN

/** Share of a figure below which a change of it is none: what the tolerance of the solver leaves open. */
export const NO_CHANGE: Readonly<Record<Figure['kind'], number>> = {
  pressure: 5e-4,
  signal: 5e-4,
  heat: 5e-4,
  untilStill: 5e-3,
}

/** Reads a figure while the circuit is solved on. */
export interface Reading {
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
