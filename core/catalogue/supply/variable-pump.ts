/** Variable pumps in open circuits: what they share but for what sets their stroke. */
import type { Fluid } from '../../fluid/fluid'
import {
  Power,
  quantity,
  type Local,
  type Model,
  type SymbolForm,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
} from '../kind'
import { inletFilling, starvation } from '../flow-laws'
import { leakageSlope, shaftTorque } from '../displacement-machine'
import { arrow, dashed, line, rectangle, spring, type Shape } from '../symbol'

export const STATE = indices('position')
const outputNames = ['delivery', 'shaftPower'] as const
export const OUTPUT = indices(...outputNames)
const conditionNames = ['starved', 'overPressure'] as const
const CONDITION = indices(...conditionNames)

export const clamp01 = (v: number) => (v < 0 ? 0 : v > 1 ? 1 : v)

/** The controller beside the pump: a box, or in full its two positions, its spring and the line from the outlet. */
export const pumpController = (form: SymbolForm | undefined): Shape[] =>
  form === 'detailed'
    ? [
        rectangle(3.6, -1, 1.2, 1.6),
        rectangle(4.8, -1, 1.2, 1.6),
        ...arrow([4.2, 0.4], [4.2, -0.8]),
        ...arrow([5.2, -0.8], [5.6, 0.4]),
        line([3, 0], [3.6, 0]),
        dashed([0, -3.4], [3.2, -3.4], [3.2, -0.6], [3.6, -0.6]),
        spring(6, -0.5, 1, 0.7),
        ...arrow([5.9, 0.3], [7.1, -1.3]),
      ]
    : [rectangle(3.6, -1, 1.6, 2), line([3, 0], [3.6, 0])]

export const variablePumpParameters = () =>
  ({
    strokeTime: quantity('Swivel time constant', 'time', '40 ms', 1e-3, 5),
    volumetricEfficiency: quantity('Volumetric efficiency', 'share', '95 %', 0.3, 1, {
      group: 'Losses',
      note: 'at the rated speed and pressure; wear lowers it',
    }),
    ratedSpeed: quantity('at speed', 'rotationalSpeed', '1500 rpm', 1, 1000, { group: 'Losses' }),
    ratedPressure: quantity('at pressure', 'pressure', '250 bar', 1e5, 700e5, { group: 'Losses' }),
    hydromechanicalEfficiency: quantity('Hydro-mechanical efficiency', 'share', '92 %', 0.3, 1, {
      group: 'Losses',
    }),
    drag: quantity('Friction torque without pressure', 'torque', '0 N·m', 0, 1e4, {
      group: 'Losses',
      note: 'of seals and bearings, beside what the efficiency counts; it stops a set that is switched off',
    }),
    maxPressure: quantity('Maximum pressure', 'pressure', '315 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded',
    }),
  }) as const

export interface VariablePumpValues {
  readonly displacement: number
  readonly strokeTime: number
  readonly volumetricEfficiency: number
  readonly ratedSpeed: number
  readonly ratedPressure: number
  readonly hydromechanicalEfficiency: number
  readonly drag: number
  readonly maxPressure: number
}

/** Names of what these pumps put out and report, for a kind that adds to them. */
export const pumpNames = { outputs: outputNames, conditions: conditionNames } as const

/**
 * Q = D·n·u·f(P_S) − C_L·(p_P − p_S), C_L = (1 − η_v)·D·n_r/p_r scaled with ν_ref/ν; T = D·u·(p_P − p_S)/(2π·η_hm) + T_d·tanh(ω/ω_t);
 * the stroke u follows what is wanted with a lag.
 * @param ports indices of S, P and W @param wanted the stroke asked for, 0 to 1
 */
export function variablePumpModel(
  values: VariablePumpValues,
  fluid: Fluid,
  ports: { readonly S: number; readonly P: number; readonly W: number },
  initial: number,
  wanted: (l: Local) => number,
): Model {
  const { S, P, W } = ports
  const perRadian = values.displacement / (2 * Math.PI)
  const { volumetricEfficiency, ratedSpeed, ratedPressure } = values
  const leakage = leakageSlope(volumetricEfficiency, perRadian, ratedSpeed, ratedPressure)
  const eta = values.hydromechanicalEfficiency
  return {
    states: stateSpecs(STATE, {
      position: { label: 'stroke', quantity: 'share', initial, scale: 1 },
    }),
    outputs: outputSpecs(OUTPUT, {
      delivery: { label: 'delivery', quantity: 'flow' },
      shaftPower: { label: 'shaft power', quantity: 'power' },
    }),
    conditions: conditionSpecs(CONDITION, {
      starved: { label: 'starved at its inlet', severity: 'warning' },
      overPressure: { label: 'above its maximum pressure', severity: 'danger' },
    }),
    evaluate(l) {
      const speed = l.p[W]
      const drop = l.p[P] - l.p[S]
      const u = l.x[STATE.position]
      const flow =
        perRadian * speed * u * inletFilling(speed >= 0 ? l.p[S] : l.p[P]) -
        leakage * fluid.leakageFactor * drop
      l.q.fill(0)
      l.q[S] = flow
      l.q[P] = -flow
      l.q[W] = shaftTorque(perRadian * u * drop, speed, eta, values.drag)
      l.dx[STATE.position] = (wanted(l) - u) / values.strokeTime
    },
    observe(l) {
      l.o[OUTPUT.delivery] = -l.q[P]
      l.o[OUTPUT.shaftPower] = l.q[W] * l.p[W]
      l.c[CONDITION.starved] = l.p[W] > 0 ? starvation(l.p[S]) : -1
      l.c[CONDITION.overPressure] = l.p[P] - values.maxPressure
      l.power[Power.heat] = l.o[OUTPUT.shaftPower] + l.p[S] * l.q[S] + l.p[P] * l.q[P]
    },
  }
}
