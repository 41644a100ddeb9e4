import { blockedStore } from '../faults'
import { defineKind, quantity } from '../kind'
import { springBetween } from '../symbol-elements'
import {
  accumulatorSafetyNote,
  accumulatorModel,
  accumulatorSymbol,
  inletParameters,
  ratingParameter,
  STATE,
  OUTPUT,
} from './accumulator'

/** A spring on a piston: p = p_0 + (p_1 − p_0)·V_oil/V_0, empty below p_0. The rest as accumulator.ts. */
export const accumulatorSpring = defineKind({
  name: 'accumulator-spring',
  label: 'Accumulator, spring-loaded',
  family: 'supply',
  searchTerms: ['spring accumulator', 'accumulator', 'piston accumulator'],
  designationLetter: 'Z',
  description: 'Stores oil under a spring: its pressure rises in a straight line as it fills.',
  ports: [{ name: 'P', domain: 'oil', role: 'line' }],
  parameters: {
    volume: quantity('Oil volume when full', 'volume', '0.5 L', 1e-6, 1),
    preload: quantity('Pressure at start of filling', 'pressure', '10 bar', 0, 400e5),
    full: quantity('Pressure when full', 'pressure', '25 bar', 1e4, 400e5),
    ...inletParameters,
    startFilled: quantity('Initial fill', 'share', '0 %', 0, 1),
    maxPressure: ratingParameter,
  },
  traits: { energyStorage: { port: 'P', minimumPressure: 'preload' }, ratedPressure: 'maxPressure' },
  faults: [blockedStore(STATE.oil)],
  safetyNote: accumulatorSafetyNote,
  validate: (v) =>
    v.full <= v.preload
      ? [{ parameter: 'full', message: 'Full, its pressure must lie above that at which it begins to fill.' }]
      : [],
  symbol: () => accumulatorSymbol([springBetween([0, -5], [0, -1], 1.6)]),
  caption: (v, show) => [
    show(v.volume, 'volume'),
    `${show(v.preload, 'pressure')} to ${show(v.full, 'pressure')}`,
  ],
  model(v) {
    const rate = (v.full - v.preload) / v.volume
    const pressure = (oil: number) => v.preload + rate * oil
    const energy = (oil: number) => v.preload * oil + 0.5 * rate * oil * oil
    return accumulatorModel(v, pressure, { pressure, energy }, v.startFilled * v.volume, 'spring')
  },
  describeState: (l, v, show) =>
    `Filled ${Math.round((100 * l.x[STATE.oil]) / v.volume)} %, its spring pushes with ${show(l.o[OUTPUT.stored], 'pressure')}.`,
})
