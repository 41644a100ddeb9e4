import { GRAVITY } from '../../units/quantities'
import { blockedStore } from '../faults'
import { defineKind, quantity } from '../kind'
import { circleArea } from '../flow-laws'
import { rectangle } from '../symbol'
import {
  accumulatorSafetyNote,
  accumulatorModel,
  accumulatorSymbol,
  inletParameters,
  ratingParameter,
  STATE,
  OUTPUT,
} from './accumulator'

/**
 * A weight on a plunger: p = m·g/A whatever its filling, with the friction of its packing, a share of p, against the motion. The rest as
 * accumulator.ts; the inertia of the weight is left out.
 */
export const accumulatorWeight = defineKind({
  name: 'accumulator-weight',
  label: 'Accumulator, weight-loaded',
  family: 'supply',
  searchTerms: ['weight accumulator', 'accumulator', 'dead weight'],
  designationLetter: 'Z',
  description: 'Stores oil under a weight: its pressure is the same full or empty.',
  ports: [{ name: 'P', domain: 'oil', role: 'line' }],
  parameters: {
    mass: quantity('Weight', 'mass', '5 t', 1, 1e7),
    plunger: quantity('Plunger', 'length', '100 mm', 1e-3, 3, { note: 'its diameter' }),
    volume: quantity('Oil volume when full', 'volume', '10 L', 1e-5, 100),
    friction: quantity('Seal friction', 'share', '2 %', 0, 0.3, { note: 'of its pressure' }),
    ...inletParameters,
    startFilled: quantity('Initial fill', 'share', '0 %', 0, 1),
    maxPressure: ratingParameter,
  },
  traits: { energyStorage: { port: 'P' }, ratedPressure: 'maxPressure' },
  faults: [blockedStore(STATE.oil)],
  safetyNote: accumulatorSafetyNote,
  symbol: () => accumulatorSymbol([rectangle(-1, -3, 2, 2, 'ink')]),
  caption: (v, show) => [show(v.mass, 'mass'), show(v.volume, 'volume')],
  model(v) {
    const pressure = (v.mass * GRAVITY) / circleArea(v.plunger)
    return accumulatorModel(
      v,
      // as long as the line is within its friction, the packing holds it
      (_oil, l) => Math.min(Math.max(l.p[0], pressure * (1 - v.friction)), pressure * (1 + v.friction)),
      { pressure: () => pressure, energy: (oil) => pressure * oil },
      v.startFilled * v.volume,
      'weight',
    )
  },
  describeState: (l, v, show) =>
    `Filled ${Math.round((100 * l.x[STATE.oil]) / v.volume)} %, its weight pushes with ${show(l.o[OUTPUT.stored], 'pressure')}.`,
})
