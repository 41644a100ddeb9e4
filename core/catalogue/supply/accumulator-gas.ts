import { pressureBalance } from '../answers'
import { GAS, gasState, idealGas, molarVolume, realNitrogen } from '../../fluid/nitrogen'
import { ATMOSPHERE } from '../../units/quantities'
import { blockedStore, drifted } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  type FaultSpec,
  type Local,
  indices,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
  stateSpecs,
} from '../kind'
import { polygon } from '../symbol'
import {
  accumulatorSafetyNote,
  accumulatorSymbol,
  CLOSING_SHARE,
  inlet,
  inletParameters,
  ratingParameter,
} from './accumulator'

const STATE = indices('oil', 'warming')
const OUTPUT = indices('gas', 'flow', 'temperature')
const CONDITION = indices('empty', 'full', 'overPressure')
const INPUT = indices('precharge')

const P = 0
/** Of the vessel, and of the gas as it was filled, K. */
const START_TEMPERATURE = 313.15

const blocked = blockedStore(STATE.oil)
/** Blocked, it is warmed only by the oil that still comes in. */
const blockedGas: FaultSpec = {
  ...blocked,
  afterEvaluate(l, amount, fluid, values) {
    blocked.afterEvaluate!(l, amount, fluid, values)
    if (l.x.length < 2) return
    const exchange = values.process === 'thermal' ? l.x[STATE.warming] / (values.heatTime as number) : 0
    l.dx[STATE.warming] = (l.dx[STATE.warming] + exchange) * (1 - amount) - exchange
  },
}

/** Above this rating the gas is no longer taken as an ideal one, Pa. */
const REAL_ABOVE = 200e5
/** Gas is never taken as pressed into less than this share of its volume. */
const LEAST_GAS = 0.02

/**
 * Gas under a bag or piston, n mol of it: V_oil = V_0 − V_g, p_g = p(T, V_g/n) − p_atm; it is empty below its precharge. Q = path(p_P − p_g).
 * Ideal: p = n·R·T/V_g, so p·V isothermal and p·V^1.4 adiabatic are constant. Real: nitrogen (`nitrogen.ts`).
 * Isothermal: T = T_w. Else n·c_v·dT/dt = T·(∂p/∂T)_v·Q − n·c_v·(T − T_w)/τ_g, adiabatic without the last part.
 */
export const accumulatorGas = defineKind({
  name: 'accumulator-gas',
  label: 'Accumulator, gas-loaded',
  family: 'supply',
  searchTerms: ['accumulator', 'bladder', 'nitrogen', 'piston accumulator', 'diaphragm', 'acc'],
  designationLetter: 'Z',
  description: 'Stores oil against a cushion of nitrogen. Below its precharge it is empty.',
  ports: [{ name: 'P', domain: 'oil', role: 'line' }],
  parameters: {
    volume: quantity('Gas volume', 'volume', '10 L', 1e-5, 10),
    precharge: quantity('Precharge', 'pressure', '90 bar', 1e5, 700e5, {
      note: 'gauge; about 0.9 of the lowest working pressure for a bladder',
    }),
    process: {
      type: 'choice',
      label: 'Gas model',
      default: 'thermal',
      choices: {
        isothermal: 'isothermal: slow, as in hours',
        adiabatic: 'adiabatic: quick, as in seconds',
        thermal: 'with its heat exchange',
      },
    },
    gas: {
      type: 'choice',
      label: 'Gas law',
      default: 'automatic',
      choices: {
        automatic: 'real nitrogen above a rating of 200 bar',
        ideal: 'ideal gas',
        real: 'real nitrogen',
      },
      note: 'near 300 bar nitrogen takes up less oil than an ideal gas',
    },
    heatTime: quantity('Time constant of its heat exchange', 'time', '30 s', 0.1, 3600, {
      note: 'bladder tens of seconds, piston longer',
    }),
    ...inletParameters,
    startPressure: quantity('Initial pressure', 'pressure', '0 bar', 0, 700e5, {
      note: 'below the precharge it starts empty',
    }),
    maxPressure: ratingParameter,
  },
  inputs: inputSpecs(INPUT, {
    precharge: { label: 'precharge', quantity: 'pressure', rest: 'precharge', min: 1e5, max: 700e5 },
  }),
  traits: {
    greatestFlow: (v) => v.ratedFlow,
    energyStorage: { port: 'P', minimumPressure: 'precharge' },
    ratedPressure: 'maxPressure',
    sizingTargets: { accumulatorVolume: 'volume', precharge: 'precharge' },
  },
  faults: [drifted(INPUT.precharge, 'gas lost or filled up by'), blockedGas],
  idleParameters: (v) => (v.process === 'thermal' ? [] : ['heatTime']),
  safetyNote: `${accumulatorSafetyNote} Nitrogen only.`,
  validate(v) {
    return v.startPressure > v.maxPressure
      ? [{ parameter: 'startPressure', message: 'It would start above its highest pressure.' }]
      : []
  },
  // the hollow triangle marks gas
  // gas: a hollow triangle
  symbol: () => accumulatorSymbol([polygon('paper', [0, -1.9], [-0.9, -3.4], [0.9, -3.4])]),
  caption: (values, show) => [
    show(values.volume, 'volume'),
    `${show(values.precharge, 'pressure')} precharge`,
  ],
  model(values) {
    const real = values.gas === 'real' || (values.gas === 'automatic' && values.maxPressure > REAL_ABOVE)
    const gas = real ? realNitrogen : idealGas
    const warms = values.process !== 'isothermal'
    const exchange = values.process === 'thermal' ? 1 / values.heatTime : 0
    /** Amount of gas, mol, at a precharge, Pa. */
    const amountAt = (precharge: number) =>
      values.volume / molarVolume(gas, precharge + ATMOSPHERE, START_TEMPERATURE)
    const known = { precharge: values.precharge, amount: amountAt(values.precharge) }
    const amountOf = (l: Local) => {
      const precharge = l.u[INPUT.precharge]
      if (precharge !== known.precharge) {
        known.precharge = precharge
        known.amount = amountAt(precharge)
      }
      return known.amount
    }
    const start = values.startPressure + ATMOSPHERE
    const startOil =
      values.startPressure > values.precharge
        ? values.volume - known.amount * molarVolume(gas, start, START_TEMPERATURE)
        : 0
    const state = gasState()
    /** Finds the state of the gas, see `GAS`. */
    const findGas = (l: Local) => {
      const left = values.volume - l.x[STATE.oil]
      const least = LEAST_GAS * values.volume
      state[GAS.temperature] = START_TEMPERATURE + (warms ? l.x[STATE.warming] : 0)
      state[GAS.volume] = (left > least ? left : least) / amountOf(l)
      gas.find(state)
    }
    const into = inlet(values)
    return {
      states: stateSpecs(STATE, {
        oil: {
          label: 'oil volume',
          quantity: 'volume',
          initial: startOil,
          scale: values.volume * 1e-2,
          storesOil: true,
        },
        warming: {
          label: 'gas warmer than its vessel by',
          quantity: 'temperatureDifference',
          initial: 0,
          scale: 10,
        },
      }).slice(0, warms ? 2 : 1),
      outputs: outputSpecs(OUTPUT, {
        gas: { label: 'gas pressure', quantity: 'pressure' },
        flow: { label: 'flow in', quantity: 'flow' },
        temperature: { label: 'gas temperature', quantity: 'temperature' },
      }),
      conditions: conditionSpecs(CONDITION, {
        empty: { label: 'empty', severity: 'info', begins: 'is empty', ends: 'is no longer empty' },
        full: { label: 'more than 90 % full', severity: 'warning' },
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'gas' },
      }),
      refuses: (l) =>
        l.x[STATE.oil] > values.volume
          ? `it holds ${(1000 * l.x[STATE.oil]).toFixed(1)} L of oil, more than ${(1000 * values.volume).toFixed(1)} L.`
          : undefined,
      evaluate(l) {
        findGas(l)
        const flow = into(l.p[P], state[GAS.pressure] - ATMOSPHERE, l.x[STATE.oil])
        l.q[P] = flow
        l.dx[STATE.oil] = flow
        if (!warms) return
        const capacity = amountOf(l) * state[GAS.heatCapacity]
        const pressed = (state[GAS.temperature] * state[GAS.pressureSlope] * flow) / capacity
        l.dx[STATE.warming] = pressed - l.x[STATE.warming] * exchange
      },
      observe(l) {
        findGas(l)
        const [temperature, volume] = [state[GAS.temperature], state[GAS.volume]]
        l.o[OUTPUT.gas] = state[GAS.pressure] - ATMOSPHERE
        l.o[OUTPUT.flow] = l.q[P]
        l.o[OUTPUT.temperature] = temperature
        l.c[CONDITION.empty] = 2 * CLOSING_SHARE * values.volume - l.x[STATE.oil]
        l.c[CONDITION.full] = l.x[STATE.oil] - 0.9 * values.volume
        l.c[CONDITION.overPressure] = l.p[P] - values.maxPressure
        // heat that passes between gas and vessel at different temperatures can no longer do all of its work
        const toVessel = warms ? amountOf(l) * state[GAS.heatCapacity] * l.x[STATE.warming] * exchange : 0
        const lost = (toVessel * (temperature - START_TEMPERATURE)) / temperature
        // what it can give back with its vessel at T_w, u − T_w·s; the atmosphere takes part in its absolute pressure
        const available =
          gas.energy(temperature, volume) - START_TEMPERATURE * gas.entropy(temperature, volume)
        l.energy[0] = amountOf(l) * available - ATMOSPHERE * l.x[STATE.oil]
        l.power[Power.stored] = l.o[OUTPUT.gas] * l.q[P] - lost
        l.power[Power.heat] = (l.p[P] - l.o[OUTPUT.gas]) * l.q[P] + lost
      },
      balances: (l) => [pressureBalance('takes oil', { 'pressure at P': l.p[P] }, { gas: l.o[OUTPUT.gas] })],
      holds: (l) => [
        {
          port: P,
          by: 'gas',
          leads: l.x[STATE.oil] > 2 * CLOSING_SHARE * values.volume,
          terms: [
            { label: 'gas', value: l.o[OUTPUT.gas] },
            { label: 'inlet', value: l.p[P] - l.o[OUTPUT.gas] },
          ],
          behind: [],
        },
      ],
    }
  },
  describeState(l, values, show) {
    if (l.x[STATE.oil] < 2 * CLOSING_SHARE * values.volume)
      return `Empty: the line is below its precharge of ${show(l.u[INPUT.precharge], 'pressure')}.`
    const way = l.q[P] >= 0 ? 'takes' : 'gives'
    return `Holds ${show(l.x[STATE.oil], 'volume')} at ${show(l.o[OUTPUT.gas], 'pressure')} and ${way} ${show(Math.abs(l.q[P]), 'flow')}.`
  },
})
