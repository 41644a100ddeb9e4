/** Variable pumps in open circuits: what they share but for what sets their stroke. */
import { type Balance, pressureBalance } from '../answers'
import type { Fluid } from '../../fluid/fluid'
import {
  Power,
  quantity,
  type Local,
  type Model,
  type PortSpec,
  type SymbolForm,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
} from '../kind'
import { inletFilling, starvation } from '../flow-laws'
import { leakageSlope, holdShaft, shaftTorque } from '../displacement-machine'
import { arrow, dashed, line, rectangle, type Shape, type SymbolDrawing, drained } from '../symbol'
import { adjustable, dot, spring } from '../symbol-elements'

export const STATE = indices('position')
const outputNames = ['delivery', 'shaftPower'] as const
export const OUTPUT = indices(...outputNames)
const conditionNames = ['starved', 'overPressure', 'caseOver'] as const
const CONDITION = indices(...conditionNames)

export const clamp01 = (v: number) => (v < 0 ? 0 : v > 1 ? 1 : v)

/** The case drain of a variable pump, for its ports. */
export const caseDrainPort = { name: 'L', domain: 'oil', role: 'case drain' } as const satisfies PortSpec
/** Its lead and its place on the symbol, where it is drained externally. */
export const caseDrainLead = (values: Pick<VariablePumpValues, 'caseDrain'>): Shape[] =>
  values.caseDrain === 'external' ? [drained([-2.6, 1.5], [-4, 1.5], [-4, 4])] : []
export const caseDrainPlace = (values: Pick<VariablePumpValues, 'caseDrain'>): SymbolDrawing['ports'] =>
  values.caseDrain === 'external' ? { L: { x: -4, y: 4, side: 'down' } } : {}

/** Where the line from the outlet to the controllers runs, and the end of their spools. */
const [SUPPLY, CONTROLLER] = [3.4, 4]
/** Side of the boxes of a controller drawn in full. */
const CONTROLLER_BOX = 2.5

/**
 * A controller in full, its middle at y: a 3/2 valve that its spring holds in the position where the stroking cylinder is drained, and
 * the outlet pressure pushes over, so that the cylinder fills and takes the stroke back.
 * @param signal the load signal acts beside the spring
 */
function controllerValve(y: number, signal: boolean): Shape[] {
  const [top, bottom] = [y - CONTROLLER_BOX / 2, y + CONTROLLER_BOX / 2]
  const rest = CONTROLLER + CONTROLLER_BOX
  const end = rest + CONTROLLER_BOX
  return [
    rectangle(CONTROLLER, top, CONTROLLER_BOX, CONTROLLER_BOX),
    ...arrow([CONTROLLER + 0.6, bottom], [CONTROLLER + 1.25, top]),
    line([CONTROLLER + 1.9, bottom], [CONTROLLER + 1.9, bottom - 0.6]),
    line([CONTROLLER + 1.5, bottom - 0.6], [CONTROLLER + 2.3, bottom - 0.6]),
    rectangle(rest, top, CONTROLLER_BOX, CONTROLLER_BOX),
    ...arrow([rest + 1.25, top], [rest + 1.9, bottom]),
    line([rest + 0.6, bottom], [rest + 0.6, bottom - 0.6]),
    line([rest + 0.2, bottom - 0.6], [rest + 1, bottom - 0.6]),
    // pushed by the outlet, and held by the spring at the other end
    dashed([SUPPLY, y], [CONTROLLER, y]),
    line([SUPPLY, y], [SUPPLY, bottom + 0.75], [rest + 0.6, bottom + 0.75], [rest + 0.6, bottom]),
    dot(SUPPLY, y),
    spring(end, signal ? y - 0.6 : y, 2, 0.9),
    ...adjustable(end + 1, signal ? y - 0.6 : y, 0.9),
    ...(signal ? [dashed([12, y], [11.4, y], [11.4, y + 0.7], [end, y + 0.7])] : []),
  ]
}

/** The controllers of a pump in full: load sensing above the pressure limit, or the limit alone; with the cylinder that takes the stroke back. */
function controllersInFull(loadSensing: boolean): Shape[] {
  const rest = CONTROLLER + CONTROLLER_BOX
  const [drained, filled] = [rest + 1.9, rest + 1.25]
  const last = loadSensing ? 4.8 : 0
  return [
    // the stroking cylinder, its rod on the adjusting arrow
    rectangle(CONTROLLER, -3.1, 2.4, 1.4),
    line([CONTROLLER + 1, -3.1], [CONTROLLER + 1, -1.7]),
    line([CONTROLLER + 1, -2.4], [2.4, -2.4]),
    line([CONTROLLER + 2.4, -2.4], [filled, -2.4], [filled, -1.25]),
    line([0, -3.5], [SUPPLY, -3.5], [SUPPLY, 0]),
    dot(0, -3.5),
    ...controllerValve(0, loadSensing),
    ...(loadSensing
      ? [
          line([drained, 1.25], [drained, 2.8], [filled, 2.8], [filled, last - 1.25]),
          line([SUPPLY, 2], [SUPPLY, last]),
          dot(SUPPLY, 2),
          ...controllerValve(last, false),
        ]
      : []),
    // drained into the case
    line([drained, last + 1.25], [drained, last + 2.6], [2, last + 2.6], [2, 2.24]),
  ]
}

/** The controller beside the pump: one box with what pushes at its two ends, or in full. */
export function pumpController(form: SymbolForm | undefined, loadSensing: boolean): Shape[] {
  if (form === 'detailed') return controllersInFull(loadSensing)
  const end = CONTROLLER + 2
  return [
    line([3, 0], [CONTROLLER, 0]),
    rectangle(CONTROLLER, -1, 2, 2),
    dashed([0, -3.5], [CONTROLLER + 1, -3.5], [CONTROLLER + 1, -1]),
    dot(0, -3.5),
    ...(loadSensing
      ? [spring(end, -0.6, 1, 0.6), dashed([7, 0], [end, 0])]
      : [spring(end, 0, 2, 1), ...adjustable(end + 1, 0, 0.9)]),
  ]
}
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
    caseDrain: {
      type: 'choice',
      label: 'Leakage drained',
      default: 'external',
      choices: { external: 'externally, at L', internal: 'internally, to the suction line' },
      group: 'Losses',
    },
    maxPressure: quantity('Maximum pressure', 'pressure', '315 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded',
    }),
    maxCasePressure: quantity('Maximum case pressure', 'pressure', '2 bar', 1e4, 50e5, {
      group: 'Rating',
      note: 'reported when exceeded where it is drained externally: the shaft seal fails',
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
  readonly caseDrain: 'external' | 'internal'
  readonly maxPressure: number
  readonly maxCasePressure: number
}

/** Names of what these pumps put out and report, for a kind that adds to them. */
export const pumpNames = { outputs: outputNames, conditions: conditionNames } as const

/**
 * Q_S = D·n·u·f(P_S), Q_P = Q_S − C_L·(p_P − p_L), the leakage leaves at the case drain L or, drained internally, to S; C_L = (1 − η_v)·D·n_r/p_r scaled with ν_ref/ν; T = D·u·(p_P − p_S)/(2π·η_hm) + T_d·sgn ω;
 * the stroke u follows what is wanted with a lag.
 * @param ports indices of S, P, W and L @param wanted the stroke asked for, 0 to 1
 */
export function variablePumpModel(
  values: VariablePumpValues,
  fluid: Fluid,
  ports: { readonly S: number; readonly P: number; readonly W: number; readonly L: number },
  initial: number,
  wanted: (l: Local) => number,
): Model {
  const { S, P, W, L } = ports
  const external = values.caseDrain === 'external'
  /** Where the leakage goes. */
  const drain = external ? L : S
  const perRadian = values.displacement / (2 * Math.PI)
  const { volumetricEfficiency, ratedSpeed, ratedPressure } = values
  const leakage = leakageSlope(volumetricEfficiency, perRadian, ratedSpeed, ratedPressure)
  const eta = values.hydromechanicalEfficiency
  return {
    idlePorts: external ? [] : [L],
    states: stateSpecs(STATE, {
      position: { label: 'stroke', quantity: 'share', initial, scale: 1 },
    }),
    dryFriction: [{ port: W }],
    outputs: outputSpecs(OUTPUT, {
      delivery: { label: 'delivery', quantity: 'flow' },
      shaftPower: { label: 'shaft power', quantity: 'power' },
    }),
    conditions: conditionSpecs(CONDITION, {
      starved: { label: 'starved at its inlet', severity: 'warning' },
      overPressure: { label: 'above its maximum pressure', severity: 'danger' },
      caseOver: { label: 'case above its maximum pressure', severity: 'danger' },
    }),
    evaluate(l) {
      const speed = l.p[W]
      const drop = l.p[P] - l.p[S]
      const u = l.x[STATE.position]
      const flow = perRadian * speed * u * inletFilling(speed >= 0 ? l.p[S] : l.p[P])
      const leaked = leakage * fluid.leakageFactor * (l.p[P] - l.p[drain])
      l.q.fill(0)
      l.q[S] = flow
      l.q[P] = leaked - flow
      l.q[drain] -= leaked
      const ideal = perRadian * u * drop
      l.q[W] = shaftTorque(ideal, l.slide[0], eta, values.drag)
      if (l.slide[0] === 0) holdShaft(l, 0, ideal, eta, values.drag)
      l.dx[STATE.position] = (wanted(l) - u) / values.strokeTime
    },
    observe(l) {
      l.o[OUTPUT.delivery] = -l.q[P]
      l.o[OUTPUT.shaftPower] = l.q[W] * l.p[W]
      l.c[CONDITION.starved] = l.p[W] > 0 ? starvation(l.p[S]) : -1
      l.c[CONDITION.overPressure] = l.p[P] - values.maxPressure
      l.c[CONDITION.caseOver] = external ? l.p[L] - values.maxCasePressure : -1
      l.power[Power.heat] =
        l.o[OUTPUT.shaftPower] + l.p[S] * l.q[S] + l.p[P] * l.q[P] + (external ? l.p[L] * l.q[L] : 0)
    },
  }
}

/** The pressure from which a compensator takes the stroke back. @param from Pa */
export const takesStrokeBack = (pressure: number, from: number): Balance =>
  pressureBalance('takes its stroke back', { 'pressure at P': pressure }, { compensator: from })
