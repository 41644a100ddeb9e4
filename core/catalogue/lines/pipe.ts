/** What a pipe is to the engine: a volume, and where its loss counts, a flow resistance, with the inertia of its oil or without. */
import { frictionFactor } from '../flow-laws'
import { Power, type Model, indices, outputSpecs, stateSpecs } from '../kind'
import type { Fluid } from '../../fluid/fluid'

const STATE = indices('flow')
const OUTPUT = indices('flow')

export interface PipeValues {
  /** m */
  readonly length: number
  /** m */
  readonly bore: number
}

/** A high-pressure hose widens as if its oil had this bulk modulus beside its own, Pa: about 5 % of its volume at 300 bar. */
const HOSE_MODULUS = 6e8
/** Modulus of elasticity of the materials of pipes, Pa. */
const ELASTICITY = { steel: 210e9, stainless: 195e9, copper: 120e9, aluminium: 70e9 } as const

/** The wall of a pipe. */
interface Wall {
  /** Bore and thickness of the wall, m. */
  readonly bore: number
  readonly wall?: number
  readonly material?: keyof typeof ELASTICITY
}
/**
 * Compliance of the wall of a line for each m³ of its oil, 1/Pa: that of a hose; of a pipe D/(s·E), where wall and material are given
 * (D. J. Korteweg 1878).
 */
export const wallCompliance = (line: string, { bore, wall, material }: Wall) =>
  (line === 'hose' ? 1 / HOSE_MODULUS : 0) + (wall && material ? bore / (wall * ELASTICITY[material]) : 0)

/** Area of the bore, m². */
const boreArea = (bore: number) => (Math.PI * bore * bore) / 4

const [LAMINAR, TURBULENT] = [2000, 4000]
/** f·Re² at the two Reynolds numbers. */
const [LAMINAR_END, TURBULENT_BEGIN] = [64 * LAMINAR, 0.3164 * TURBULENT ** 1.75]
const BLASIUS_POWER = 4 / 7
/** The Reynolds number at which f(Re)·Re² has a value: the law of friction the other way round. */
function reynoldsAt(square: number): number {
  if (square <= LAMINAR_END) return square / 64
  if (square >= TURBULENT_BEGIN) return (square / 0.3164) ** BLASIUS_POWER
  // between them f is straight in log Re: Newton's method, from where f lies in the middle
  let re = Math.sqrt(square / 0.036)
  const slope = (0.3164 * TURBULENT ** -0.25 - 0.032) / Math.LN2
  for (let i = 0; i < 4; i++) {
    const f = frictionFactor(re)
    re -= (f * re * re - square) / (2 * re * f + re * slope)
  }
  return re
}

/**
 * Friction loss of a straight pipe (Darcy–Weisbach): Δp = f(Re)·(L/d)·(ρ/2)·(Q/A)·|Q/A|, and the flow at a pressure drop.
 */
export function pipeFriction({ length, bore }: PipeValues, fluid: Pick<Fluid, 'density' | 'viscosity'>) {
  const area = boreArea(bore)
  const wetted = bore / area
  const dynamic = length / bore / (2 * area * area)
  const laminar = (128 * length) / (Math.PI * bore ** 4)
  const shape = (2 * bore ** 3) / length
  return {
    /** @param flow m³/s @returns Pa */
    loss(flow: number): number {
      const size = flow < 0 ? -flow : flow
      const { density, viscosity } = fluid
      const re = (wetted * size) / viscosity
      return re < LAMINAR
        ? laminar * density * viscosity * flow
        : dynamic * density * frictionFactor(re) * flow * size
    },
    /** @param drop Pa @returns m³/s */
    flow(drop: number): number {
      const size = drop < 0 ? -drop : drop
      const { density, viscosity } = fluid
      const square = (size * shape) / (density * viscosity * viscosity)
      if (square <= LAMINAR_END) return drop / (laminar * density * viscosity)
      const flow = (reynoldsAt(square) * viscosity) / wetted
      return drop < 0 ? -flow : flow
    },
  }
}

/** A pipe whose friction counts and whose oil has no inertia: Q follows from p_1 − p_2, see `pipeFriction`. */
export function frictionModel(values: PipeValues, fluid: Fluid): Model {
  const friction = pipeFriction(values, fluid)
  return {
    outputs: outputSpecs(OUTPUT, { flow: { label: 'flow', quantity: 'flow' } }),
    evaluate(l) {
      const flow = friction.flow(l.p[0] - l.p[1])
      l.q[0] = flow
      l.q[1] = -flow
    },
    observe(l) {
      l.o[OUTPUT.flow] = l.q[0]
      l.power[Power.heat] = friction.loss(l.q[0]) * l.q[0]
    },
  }
}

/** A pipe with friction and the inertia of its oil: (ρL/A)·dQ/dt = p_1 − p_2 − Δp(Q), see `pipeFriction`. */
export function pipeModel(values: PipeValues, fluid: Fluid): Model {
  const area = boreArea(values.bore)
  const column = values.length / area
  const friction = pipeFriction(values, fluid)
  return {
    states: stateSpecs(STATE, {
      flow: { label: 'flow', quantity: 'flow', initial: 0, scale: area * 1 },
    }),
    evaluate(l) {
      const flow = l.x[STATE.flow]
      l.dx[STATE.flow] = (l.p[0] - l.p[1] - friction.loss(flow)) / (fluid.density * column)
      l.q[0] = flow
      l.q[1] = -flow
    },
    observe(l) {
      const flow = l.x[STATE.flow]
      l.energy[0] = 0.5 * fluid.density * column * flow * flow
      l.power[Power.stored] = fluid.density * column * flow * l.dx[STATE.flow]
      l.power[Power.heat] = friction.loss(flow) * flow
    },
  }
}
