import { pressureBalance } from '../answers'
import { ATMOSPHERE } from '../../units/quantities'
import { blockedStore, drifted } from '../faults'
import {
  defineKind,
  Power,
  quantity,
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

const STATE = indices('oil', 'temperature')
const OUTPUT = indices('gas', 'flow')
const CONDITION = indices('empty', 'full', 'overPressure')
const INPUT = indices('precharge')

const P = 0
/** Ratio of specific heats of nitrogen less one. */
const GAMMA_LESS_ONE = 0.4
const START_TEMPERATURE = 313.15

/**
 * Gas under a bag or piston: p_g·V_g^n = p_0·V_0^n, absolute, n = 1 isothermal, 1.4 adiabatic; or with heat,
 * p_g = p_0·(V_0/V_g)·(T/T_0), dT/dt = (T_w − T)/τ_g − 0.4·(T/V_g)·dV_g/dt. V_oil = V_0 − V_g; it is empty below its
 * precharge. Q = path(p_P − p_g).
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
  faults: [drifted(INPUT.precharge, 'gas lost or filled up by'), blockedStore(STATE.oil)],
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
    const thermal = values.process === 'thermal'
    const n = values.process === 'adiabatic' ? 1.4 : 1
    const start = values.startPressure + ATMOSPHERE
    const absolute0 = values.precharge + ATMOSPHERE
    const startOil = start > absolute0 ? values.volume * (1 - (absolute0 / start) ** (1 / n)) : 0
    const gasPressure = (l: Local) => {
      const filled = l.u[INPUT.precharge] + ATMOSPHERE
      const temperature = thermal ? l.x[STATE.temperature] : START_TEMPERATURE
      const left = Math.max(values.volume - l.x[STATE.oil], 1e-4 * values.volume)
      return thermal
        ? filled * (values.volume / left) * (temperature / START_TEMPERATURE) - ATMOSPHERE
        : filled * (values.volume / left) ** n - ATMOSPHERE
    }
    const into = inlet(values)
    /** Heat capacity of the gas at constant volume, J/K. */
    const heatCapacity = (l: Local) =>
      ((l.u[INPUT.precharge] + ATMOSPHERE) * values.volume) / START_TEMPERATURE / GAMMA_LESS_ONE
    /** Energy of the gas, J: of its temperature; without heat exchange by itself, what its oil has put in. */
    const gasEnergy = (l: Local) => {
      if (thermal) return heatCapacity(l) * l.x[STATE.temperature]
      const filled = (l.u[INPUT.precharge] + ATMOSPHERE) * values.volume
      const ratio = values.volume / Math.max(values.volume - l.x[STATE.oil], 1e-4 * values.volume)
      return n === 1 ? filled * Math.log(ratio) : (filled / (n - 1)) * (ratio ** (n - 1) - 1)
    }
    return {
      states: stateSpecs(STATE, {
        oil: {
          label: 'oil volume',
          quantity: 'volume',
          initial: startOil,
          scale: values.volume * 1e-2,
          storesOil: true,
        },
        temperature: {
          label: 'gas temperature',
          quantity: 'temperature',
          initial: START_TEMPERATURE,
          scale: 10,
        },
      }).slice(0, thermal ? 2 : 1),
      outputs: outputSpecs(OUTPUT, {
        gas: { label: 'gas pressure', quantity: 'pressure' },
        flow: { label: 'flow in', quantity: 'flow' },
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
        const flow = into(l.p[P], gasPressure(l), l.x[STATE.oil])
        l.q[P] = flow
        l.dx[STATE.oil] = flow
        if (thermal) {
          const temperature = l.x[STATE.temperature]
          const left = Math.max(values.volume - l.x[STATE.oil], 1e-4 * values.volume)
          l.dx[STATE.temperature] =
            (START_TEMPERATURE - temperature) / values.heatTime + (GAMMA_LESS_ONE * temperature * flow) / left
        }
      },
      // against the atmosphere as well, which takes part in its absolute pressure
      stores: (l) => gasEnergy(l) - ATMOSPHERE * l.x[STATE.oil],
      observe(l) {
        l.o[OUTPUT.gas] = gasPressure(l)
        l.o[OUTPUT.flow] = l.q[P]
        l.c[CONDITION.empty] = 2 * CLOSING_SHARE * values.volume - l.x[STATE.oil]
        l.c[CONDITION.full] = l.x[STATE.oil] - 0.9 * values.volume
        l.c[CONDITION.overPressure] = l.p[P] - values.maxPressure
        // its vessel takes and gives the heat of the gas
        const toVessel = thermal
          ? (heatCapacity(l) * (l.x[STATE.temperature] - START_TEMPERATURE)) / values.heatTime
          : 0
        l.power[Power.stored] = l.o[OUTPUT.gas] * l.q[P] - toVessel
        l.power[Power.heat] = (l.p[P] - l.o[OUTPUT.gas]) * l.q[P] + toVessel
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
