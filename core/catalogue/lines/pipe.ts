/** What a pipe is to the engine: a volume, and where it has friction, a flow resistance. */
import { frictionFactor } from '../flow-laws'
import { Power, type Model, indices, stateSpecs } from '../kind'
import type { Fluid } from '../../fluid/fluid'

const STATE = indices('flow')

export interface PipeValues {
  /** m */
  readonly length: number
  /** m */
  readonly bore: number
}

/** A high-pressure hose widens as if its oil had this bulk modulus beside its own, Pa: about 5 % of its volume at 300 bar. */
const HOSE_MODULUS = 6e8
/** By how much the wall of a line gives, m³/Pa: a hose does, a pipe does not. @param volume of its oil, m³ */
export const wallCompliance = (line: string, volume: number) => (line === 'hose' ? volume / HOSE_MODULUS : 0)

/** Volume of the bore, m³. */
export const pipeVolume = (v: PipeValues) => ((Math.PI * v.bore * v.bore) / 4) * v.length

/**
 * Friction loss of a straight pipe (Darcy–Weisbach) with the inertia of its oil:
 * (ρL/A)·dQ/dt = p_1 − p_2 − f(Re)·(L/d)·(ρ/2)·(Q/A)·|Q/A|.
 */
export function pipeModel(values: PipeValues, fluid: Fluid): Model {
  const area = (Math.PI * values.bore * values.bore) / 4
  const column = values.length / area
  const wetted = values.bore / area
  const dynamic = values.length / values.bore / (2 * area * area)
  const laminar = (128 * values.length) / (Math.PI * values.bore ** 4)
  const lossOf = (flow: number) => {
    const size = flow < 0 ? -flow : flow
    const { density, viscosity } = fluid
    const re = (wetted * size) / viscosity
    return re < 2000
      ? laminar * density * viscosity * flow
      : dynamic * density * frictionFactor(re) * flow * size
  }
  return {
    states: stateSpecs(STATE, {
      flow: { label: 'flow', quantity: 'flow', initial: 0, scale: area * 1 },
    }),
    evaluate(l) {
      const flow = l.x[STATE.flow]
      l.dx[STATE.flow] = (l.p[0] - l.p[1] - lossOf(flow)) / (fluid.density * column)
      l.q[0] = flow
      l.q[1] = -flow
    },
    stores: (l) => 0.5 * fluid.density * column * l.x[STATE.flow] ** 2,
    observe(l) {
      const flow = l.x[STATE.flow]
      l.power[Power.stored] = fluid.density * column * flow * l.dx[STATE.flow]
      l.power[Power.heat] = lossOf(flow) * flow
    },
  }
}
