import { heldAtSetting } from '../answers'
import { blocked } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
} from '../kind'
import { circleArea, pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { portRelief } from '../pressure/port-relief'
import { heldSetting } from '../pressure/relief-law'
import { line, polygon } from '../symbol'
import { dot, enclosureLine, reliefInLine } from '../symbol-elements'

const STATE = indices('opening')
const OUTPUT = indices('toAccumulator', 'toTank')
const CONDITION = indices('guarding', 'shutOff')
const INPUT = indices('open', 'bleed')

const [P, A, T] = [0, 1, 2]

/**
 * Between an accumulator and its system: a shut-off path P–A, a relief A→T that guards the vessel (port-relief.ts), and a bleed A→T as a sharp
 * edge. All of them are worked by hand or by a schedule; de-energised, its bleed may open by itself.
 */
export const accumulatorSafetyBlock = defineKind({
  name: 'accumulator-safety-block',
  label: 'Safety block of an accumulator',
  family: 'supply',
  searchTerms: ['safety block', 'accumulator shut-off', 'bleed', 'vessel relief'],
  designationLetter: 'V',
  description: 'Shuts an accumulator off, guards it with its own relief valve and lets it down to tank.',
  ports: [
    { name: 'P', domain: 'oil', role: 'system line' },
    { name: 'A', domain: 'oil', role: 'accumulator' },
    { name: 'T', domain: 'oil', role: 'tank line' },
  ],
  parameters: {
    setting: quantity('Relief setting', 'pressure', '250 bar', 2e5, 700e5, {
      note: 'not above what the vessel is allowed',
    }),
    reliefFlow: quantity('Relief, rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    ratedFlow: quantity('Shut-off, rated flow', 'flow', '200 L/min', 1e-6, 0.5),
    ratedDrop: quantity('at pressure drop', 'pressure', '1 bar', 1e4, 50e5),
    bleed: quantity('Bleed, as orifice diameter', 'length', '3 mm', 1e-4, 0.02),
  },
  inputs: inputSpecs(INPUT, {
    open: {
      label: 'shut-off',
      quantity: 'share',
      rest: 1,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'open', action: 'is opened to its vessel' },
        { value: 0, label: 'shut', action: 'is shut off from its vessel' },
      ],
    },
    bleed: {
      label: 'bleed',
      quantity: 'share',
      rest: 0,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'open', action: 'has its bleed opened' },
        { value: 0, label: 'shut', action: 'has its bleed shut' },
      ],
    },
  }),
  faults: [blocked()],
  traits: {
    safetyBlockPort: 'A',
    pressureSettings: [{ does: 'limits', parameter: 'setting', port: 'A' }],
    paths: [
      { from: 'P', to: 'A', type: 'switched' },
      { from: 'A', to: 'T', type: 'relief' },
    ],
  },
  safetyNote:
    'Before any work: shut off, open the bleed, read zero on the gauge, and only then loosen a fitting.',
  symbol: () => ({
    shapes: [
      enclosureLine(-5, -4, 12.5, 8),
      // shut-off in the line
      line([-3, 5], [-3, 1.2]),
      polygon('paper', [-3.7, 1.2], [-2.3, 1.2], [-3.7, -0.8], [-2.3, -0.8]),
      line([-3, -0.8], [-3, -5]),
      // relief and bleed to the tank line
      line([-3, -3], [3, -3]),
      ...reliefInLine(3, -3, 2.6, 1, 2.5),
      line([3, 2.6], [3, 5]),
      line([0, -3], [0, -0.8]),
      polygon('ink', [-0.6, -0.8], [0.6, -0.8], [-0.6, 1], [0.6, 1]),
      line([0, 1], [0, 2.6], [3, 2.6]),
      dot(-3, -3),
      dot(0, -3),
      dot(3, 2.6),
    ],
    ports: {
      P: { x: -3, y: 5, side: 'down' },
      A: { x: -3, y: -5, side: 'up' },
      T: { x: 3, y: 5, side: 'down' },
    },
    box: { x: -5, y: -4, w: 12.5, h: 8 },
  }),
  caption: (v, show) => [show(v.setting, 'pressure')],
  model(v, fluid) {
    const line = pathCoefficient(v.ratedFlow, v.ratedDrop)
    const relief = portRelief({ ratedFlow: v.reliefFlow, override: 0.1, timeConstant: 2e-3 })
    const settings = Float64Array.of(v.setting)
    const bleed = circleArea(v.bleed)
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'relief opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        toAccumulator: { label: 'flow to the accumulator', quantity: 'flow' },
        toTank: { label: 'flow to tank', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        guarding: {
          label: 'its relief valve limits the vessel pressure',
          severity: 'warning',
          worst: 'toTank',
        },
        shutOff: { label: 'accumulator shut off under pressure', severity: 'warning' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[T]
        const through = l.u[INPUT.open] * line * smoothSquareRoot(l.p[P] - l.p[A])
        const away = l.u[INPUT.bleed] * bleed * fluid.orificeFactor * smoothSquareRoot(drop)
        l.q[P] = through
        l.q[A] = away - through
        l.q[T] = -away
        relief.add(l, STATE.opening, A, T, settings, 0)
      },
      observe(l) {
        l.o[OUTPUT.toAccumulator] = l.q[P]
        l.o[OUTPUT.toTank] = -l.q[T]
        l.c[CONDITION.guarding] = relief.flow(l.x[STATE.opening], l.p[A] - l.p[T]) - 1e-3 * v.reliefFlow
        l.c[CONDITION.shutOff] = l.u[INPUT.open] < 0.01 ? l.p[A] - 5e5 : -1
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[A] * l.q[A] + l.p[T] * l.q[T]
      },
      holds: (l) => [
        heldAtSetting(
          l.p,
          A,
          heldSetting(v.setting),
          [{ port: T, factor: 1, label: 'behind it' }],
          relief.flow(l.x[STATE.opening], l.p[A] - l.p[T]) > 1e-3 * v.reliefFlow,
        ),
      ],
      balances: (l) => [
        relief.balance(
          'opens its relief valve',
          { port: 'A', pressure: l.p[A] },
          { port: 'T', pressure: l.p[T] },
          v.setting,
        ),
      ],
    }
  },
  describeState: (l, _v, show) =>
    l.u[INPUT.bleed] > 0.01
      ? `Bleeds ${show(l.o[OUTPUT.toTank], 'flow')} to tank; ${show(l.p[A], 'pressure')} left.`
      : l.u[INPUT.open] < 0.01
        ? `Shut off, with ${show(l.p[A], 'pressure')} in the accumulator.`
        : `Open: ${show(Math.abs(l.o[OUTPUT.toAccumulator]), 'flow')} ${l.o[OUTPUT.toAccumulator] >= 0 ? 'to' : 'from'} the accumulator at ${show(l.p[A], 'pressure')}.`,
})
