/** What the accumulators share but for what pushes on their oil: the way in, how they empty, how they are drawn. */
import { pressureBalance, type HoldBy } from '../answers'
import {
  Power,
  quantity,
  type Local,
  type Model,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
} from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { line, polygon, type Point, type Shape } from '../symbol'

export const STATE = indices('oil')
export const OUTPUT = indices('stored', 'flow')
const CONDITION = indices('empty', 'full', 'overPressure')

/** Oil below this share of the volume leaves more and more slowly: the port is closed by bag or piston. */
export const CLOSING_SHARE = 1e-3

export const inletParameters = {
  ratedFlow: quantity('Inlet, rated flow', 'flow', '200 L/min', 1e-6, 0.5),
  ratedDrop: quantity('at pressure drop', 'pressure', '4 bar', 1e4, 50e5),
} as const
export const ratingParameter = quantity('Maximum pressure', 'pressure', '330 bar', 1e5, 1000e5, {
  group: 'Rating',
  note: 'reported when exceeded',
})

export const accumulatorSafetyNote =
  'Stored energy: shut off, discharge to tank and check the gauge before any work. A pressure vessel under its own code.'

/** An upright capsule of half-width 1.5 from y = −3 to 3. */
/** A vessel 4 M wide and 8 M high, its middle at y = −1. */
const [RADIUS, TOP, MIDDLE, BOTTOM] = [2, -5, -1, 3]
const capsule: Point[] = Array.from({ length: 41 }, (_, i): Point => {
  const a = (i / 40) * 2 * Math.PI
  const y = RADIUS * Math.sin(a)
  return [RADIUS * Math.cos(a), y + (y < 0 ? TOP + RADIUS : BOTTOM - RADIUS)]
})
/** @param inside what marks the way it stores, above the line at y = −1 that parts it from the oil */
export const accumulatorSymbol = (inside: readonly Shape[]) =>
  ({
    shapes: [
      polygon('paper', ...capsule),
      line([-RADIUS, MIDDLE], [RADIUS, MIDDLE]),
      ...inside,
      line([0, BOTTOM], [0, 4]),
    ],
    ports: { P: { x: 0, y: 4, side: 'down' } },
    box: { x: -RADIUS, y: TOP, w: 2 * RADIUS, h: BOTTOM - TOP },
    reading: 'oil',
  }) as const

interface InletValues {
  readonly volume: number
  readonly ratedFlow: number
  readonly ratedDrop: number
}
/** Flow in from pressure p against what pushes back; an empty one gives nothing, a full one takes nothing. */
export function inlet(v: InletValues) {
  const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
  const end = CLOSING_SHARE * v.volume
  return (p: number, pushed: number, oil: number) => {
    const flow = coefficient * smoothSquareRoot(p - pushed)
    const left = (flow < 0 ? oil : v.volume - oil) / end
    return flow * (left < 0 ? 0 : left > 1 ? 1 : left)
  }
}

/**
 * An accumulator whose oil stands under a pressure that follows from how much there is: dV/dt = Q = path(p_P − p(V)).
 * @param pushed pressure of the oil in it by its volume, Pa @param kept the part of it that is given back, Pa, and the energy that this has
 * stored, J @param start oil at the start, m³ @param by what pushes
 */
export function accumulatorModel(
  v: InletValues & { readonly maxPressure: number },
  pushed: (oil: number, l: Local) => number,
  kept: { pressure(oil: number): number; energy(oil: number): number },
  start: number,
  by: Extract<HoldBy, 'gas' | 'spring' | 'weight'>,
): Model {
  const into = inlet(v)
  return {
    states: stateSpecs(STATE, {
      oil: {
        label: 'oil volume',
        quantity: 'volume',
        initial: start,
        scale: v.volume * 1e-2,
        storesOil: true,
      },
    }),
    outputs: outputSpecs(OUTPUT, {
      stored: { label: 'load pressure', quantity: 'pressure' },
      flow: { label: 'flow in', quantity: 'flow' },
    }),
    conditions: conditionSpecs(CONDITION, {
      empty: { label: 'empty', severity: 'info', begins: 'is empty', ends: 'is no longer empty' },
      full: { label: 'full', severity: 'warning' },
      overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'stored' },
    }),
    refuses: (l) =>
      l.x[STATE.oil] > v.volume
        ? `it holds ${(1000 * l.x[STATE.oil]).toFixed(1)} L of oil, more than ${(1000 * v.volume).toFixed(1)} L.`
        : undefined,
    evaluate(l) {
      l.q[0] = into(l.p[0], pushed(l.x[STATE.oil], l), l.x[STATE.oil])
      l.dx[STATE.oil] = l.q[0]
    },
    observe(l) {
      l.o[OUTPUT.stored] = pushed(l.x[STATE.oil], l)
      l.o[OUTPUT.flow] = l.q[0]
      l.c[CONDITION.empty] = 2 * CLOSING_SHARE * v.volume - l.x[STATE.oil]
      l.c[CONDITION.full] = l.x[STATE.oil] - (1 - 2 * CLOSING_SHARE) * v.volume
      l.c[CONDITION.overPressure] = l.p[0] - v.maxPressure
      const back = kept.pressure(l.x[STATE.oil])
      l.power[Power.stored] = back * l.q[0]
      l.energy[0] = kept.energy(l.x[STATE.oil])
      l.power[Power.heat] = (l.p[0] - back) * l.q[0]
    },
    balances: (l) => [
      pressureBalance('takes oil', { 'pressure at P': l.p[0] }, { [by]: l.o[OUTPUT.stored] }),
    ],
    holds: (l) => {
      const share = l.x[STATE.oil] / v.volume
      return [
        {
          port: 0,
          by,
          leads: share > 2 * CLOSING_SHARE && share < 1 - 2 * CLOSING_SHARE,
          terms: [
            { label: by, value: l.o[OUTPUT.stored] },
            { label: 'inlet', value: l.p[0] - l.o[OUTPUT.stored] },
          ],
          behind: [],
        },
      ]
    },
  }
}
