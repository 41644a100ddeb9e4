import { ATMOSPHERE } from '../../units/quantities'
import { defineKind, Power, quantity } from '../kind'
import { pathCoefficient, rootDrop } from '../laws'
import { line, polygon, type Point } from '../symbol'

const P = 0
const [OIL, TEMPERATURE] = [0, 1]
/** Oil below this share of the volume leaves more and more slowly: the bag closes the port. */
const CLOSING_SHARE = 1e-3
/** Ratio of specific heats of nitrogen less one. */
const GAMMA_LESS_ONE = 0.4
const START_TEMPERATURE = 313.15

/** An upright capsule of half-width 1.5 from y = −3 to 3. */
const capsule: Point[] = Array.from({ length: 41 }, (_, i): Point => {
  const a = (i / 40) * 2 * Math.PI
  const y = 1.5 * Math.sin(a)
  return [1.5 * Math.cos(a), y + (y < 0 ? -1.5 : 1.5)]
})

/**
 * Gas under a bag or piston: p_g·V_g^n = p_0·V_0^n, absolute, n = 1 isothermal, 1.4 adiabatic; or with heat,
 * p_g = p_0·(V_0/V_g)·(T/T_0), dT/dt = (T_w − T)/τ_g − 0.4·(T/V_g)·dV_g/dt. V_oil = V_0 − V_g; it is empty below its
 * precharge. Q = path(p_P − p_g).
 */
export const accumulatorGas = defineKind({
  name: 'accumulator-gas',
  label: 'Accumulator, gas-loaded',
  family: 'supply',
  words: ['accumulator', 'bladder', 'nitrogen', 'piston accumulator', 'diaphragm'],
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
    ratedFlow: quantity('Inlet, rated flow', 'flow', '200 L/min', 1e-6, 0.5),
    ratedDrop: quantity('at pressure drop', 'pressure', '4 bar', 1e4, 50e5),
    startPressure: quantity('Starts charged to', 'pressure', '0 bar', 0, 700e5, {
      note: 'below the precharge it starts empty',
    }),
    maxPressure: quantity('Highest pressure allowed', 'pressure', '330 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded',
    }),
  },
  care: 'Stored energy: shut off, discharge to tank and check the gauge before any work. A pressure vessel under its own code; nitrogen only.',
  validate(v) {
    return v.startPressure > v.maxPressure
      ? [{ parameter: 'startPressure', message: 'It would start above its highest pressure.' }]
      : []
  },
  symbol: () => ({
    shapes: [
      polygon('paper', ...capsule),
      line([-1.5, 0], [1.5, 0]),
      // the hollow triangle marks gas
      polygon('none', [0, -0.6], [-0.6, -1.7], [0.6, -1.7]),
      line([0, 3], [0, 4]),
    ],
    ports: { P: { x: 0, y: 4, side: 'down' } },
    box: { x: -1.5, y: -3, w: 3, h: 6 },
    reading: 'oil',
  }),
  caption: (values, show) => [
    show(values.volume, 'volume'),
    `${show(values.precharge, 'pressure')} precharge`,
  ],
  model(values) {
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const absolute0 = values.precharge + ATMOSPHERE
    const thermal = values.process === 'thermal'
    const n = values.process === 'adiabatic' ? 1.4 : 1
    const start = values.startPressure + ATMOSPHERE
    const startOil = start > absolute0 ? values.volume * (1 - (absolute0 / start) ** (1 / n)) : 0
    const gasPressure = (oil: number, temperature: number) => {
      const left = Math.max(values.volume - oil, 1e-4 * values.volume)
      return thermal
        ? absolute0 * (values.volume / left) * (temperature / START_TEMPERATURE) - ATMOSPHERE
        : absolute0 * (values.volume / left) ** n - ATMOSPHERE
    }
    const flowIn = (p: number, oil: number, temperature: number) => {
      const flow = coefficient * rootDrop(p - gasPressure(oil, temperature))
      if (flow >= 0) return flow
      const share = oil / (CLOSING_SHARE * values.volume)
      return flow * (share < 0 ? 0 : share > 1 ? 1 : share)
    }
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
        const temperature = thermal ? l.x[TEMPERATURE] : START_TEMPERATURE
        const flow = flowIn(l.p[P], l.x[OIL], temperature)
        l.q[P] = flow
        l.dx[OIL] = flow
        if (thermal) {
          const left = Math.max(values.volume - l.x[OIL], 1e-4 * values.volume)
          l.dx[TEMPERATURE] =
            (START_TEMPERATURE - temperature) / values.heatTime + (GAMMA_LESS_ONE * temperature * flow) / left
        }
      },
      observe(l) {
        l.o[0] = gasPressure(l.x[OIL], thermal ? l.x[TEMPERATURE] : START_TEMPERATURE)
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
      return `Empty: the line is below its precharge of ${show(values.precharge, 'pressure')}.`
    const way = l.q[P] >= 0 ? 'takes' : 'gives'
    return `Holds ${show(l.x[OIL], 'volume')} at ${show(l.o[0], 'pressure')} and ${way} ${show(Math.abs(l.q[P]), 'flow')}.`
  },
})
