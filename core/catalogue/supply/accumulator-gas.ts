import { ATMOSPHERE } from '../../units/quantities'
import { blockedStore, drifted } from '../faults'
import { defineKind, Power, quantity, type Local } from '../kind'
import { polygon } from '../symbol'
import {
  accumulatorCare,
  accumulatorSymbol,
  CLOSING_SHARE,
  inlet,
  inletParameters,
  ratingParameter,
} from './accumulator'

const P = 0
const [OIL, TEMPERATURE] = [0, 1]
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
  words: ['accumulator', 'bladder', 'nitrogen', 'piston accumulator', 'diaphragm', 'acc'],
  letter: 'Z',
  description: 'Stores oil against a cushion of nitrogen. Below its precharge it is empty.',
  ports: [{ name: 'P', domain: 'oil', role: 'line' }],
  parameters: {
    volume: quantity('Gas volume', 'volume', '10 L', 1e-5, 10),
    precharge: quantity('Precharge', 'pressure', '90 bar', 1e5, 700e5, {
      note: 'gauge; about 0.9 of the lowest working pressure for a bladder',
    }),
    process: {
      type: 'choice',
      label: 'Gas behaves',
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
    startPressure: quantity('Starts charged to', 'pressure', '0 bar', 0, 700e5, {
      note: 'below the precharge it starts empty',
    }),
    maxPressure: ratingParameter,
  },
  inputs: [
    {
      name: 'precharge',
      label: 'precharge',
      quantity: 'pressure',
      rest: 'precharge',
      min: 1e5,
      max: 700e5,
    },
  ],
  traits: { stores: { port: 'P', least: 'precharge' }, rating: 'maxPressure' },
  faults: [drifted(0, 'gas lost or filled up by'), blockedStore(OIL)],
  care: `${accumulatorCare} Nitrogen only.`,
  validate(v) {
    return v.startPressure > v.maxPressure
      ? [{ parameter: 'startPressure', message: 'It would start above its highest pressure.' }]
      : []
  },
  // the hollow triangle marks gas
  symbol: () => accumulatorSymbol([polygon('none', [0, -0.6], [-0.6, -1.7], [0.6, -1.7])]),
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
      const filled = l.u[0] + ATMOSPHERE
      const temperature = thermal ? l.x[TEMPERATURE] : START_TEMPERATURE
      const left = Math.max(values.volume - l.x[OIL], 1e-4 * values.volume)
      return thermal
        ? filled * (values.volume / left) * (temperature / START_TEMPERATURE) - ATMOSPHERE
        : filled * (values.volume / left) ** n - ATMOSPHERE
    }
    const into = inlet(values)
    return {
      states: [
        {
          name: 'oil',
          label: 'oil in it',
          quantity: 'volume',
          initial: startOil,
          scale: values.volume * 1e-2,
          holdsOil: true,
        },
        ...(thermal
          ? [
              {
                name: 'temperature',
                label: 'gas temperature',
                quantity: 'temperature' as const,
                initial: START_TEMPERATURE,
                scale: 10,
              },
            ]
          : []),
      ],
      outputs: [
        { name: 'gas', label: 'gas pressure', quantity: 'pressure' },
        { name: 'flow', label: 'flow in', quantity: 'flow' },
      ],
      conditions: [
        { name: 'empty', label: 'empty', severity: 'info' },
        { name: 'full', label: 'nine tenths full: near its end', severity: 'warning' },
        { name: 'overPressure', label: 'above its highest pressure', severity: 'danger', worst: 'gas' },
      ],
      evaluate(l) {
        const flow = into(l.p[P], gasPressure(l), l.x[OIL])
        l.q[P] = flow
        l.dx[OIL] = flow
        if (thermal) {
          const temperature = l.x[TEMPERATURE]
          const left = Math.max(values.volume - l.x[OIL], 1e-4 * values.volume)
          l.dx[TEMPERATURE] =
            (START_TEMPERATURE - temperature) / values.heatTime + (GAMMA_LESS_ONE * temperature * flow) / left
        }
      },
      observe(l) {
        l.o[0] = gasPressure(l)
        l.o[1] = l.q[P]
        l.c[0] = 2 * CLOSING_SHARE * values.volume - l.x[OIL]
        l.c[1] = l.x[OIL] - 0.9 * values.volume
        l.c[2] = l.p[P] - values.maxPressure
        l.power[Power.stored] = l.o[0] * l.q[P]
        l.power[Power.heat] = (l.p[P] - l.o[0]) * l.q[P]
      },
    }
  },
  say(l, values, show) {
    if (l.x[OIL] < 2 * CLOSING_SHARE * values.volume)
      return `Empty: the line is below its precharge of ${show(l.u[0], 'pressure')}.`
    const way = l.q[P] >= 0 ? 'takes' : 'gives'
    return `Holds ${show(l.x[OIL], 'volume')} at ${show(l.o[0], 'pressure')} and ${way} ${show(Math.abs(l.q[P]), 'flow')}.`
  },
})
