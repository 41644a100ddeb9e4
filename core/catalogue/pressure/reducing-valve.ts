import { throttlingSpoolSection } from '../section-elements'
import { heldAtSetting, pressureBalance } from '../answers'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { arrow, dashed, line } from '../symbol'
import { pressureBody, settingFaults, settingInput, INPUT } from './body'

const STATE = indices('opening', 'relieving')
const OUTPUT = indices('flow', 'relieved')
const CONDITION = indices('relieves')

const [P, A, Y] = [0, 1, 2]
/** A reducing-relieving valve relieves this far above its setting, Pa. */
const RELIEVES_ABOVE = 5e5

/**
 * Normally open; it shuts as its outlet rises: d = p_set − (p_A − p_Y), φ* = ramp(d/r); a reducing-relieving
 * valve opens A to Y at p_set + 5 bar over the same range. Q = φ·path(Δp).
 */
/** From this opening on it no longer reduces. */
const WIDE_OPEN = 0.98

export const reducingValve = defineKind({
  name: 'reducing-valve',
  label: 'Pressure reducing valve',
  family: 'pressure',
  searchTerms: ['reducing', 'pressure reducer', 'reducing relieving', 'pilot supply', 'prrv'],
  designationLetter: 'V',
  description: 'Keeps its outlet A down to its setting, whatever the higher pressure at P.',
  guide: {
    acts: 'Open at rest; the outlet pressure pushes it shut against its spring until just so much passes as keeps the setting.',
    fails:
      'A blocked drain makes the outlet follow the inlet. A plain one cannot lower a pressure that the load pushes up.',
    mistakes:
      'Drain led into a return line with pressure peaks; no check round it where oil must come back; expected to hold a clamp without a relieving stage.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'inlet' },
    { name: 'A', domain: 'oil', role: 'reduced outlet' },
    { name: 'Y', domain: 'oil', role: 'drain', mayStayOpen: true },
  ],
  parameters: {
    setting: quantity('Setting', 'pressure', '50 bar', 0, 700e5),
    range: quantity('Pressure drop to full closing', 'pressure', '5 bar', 1e4, 100e5),
    relieving: {
      type: 'switch',
      label: 'Relieving',
      default: true,
      note: 'at 5 bar above the setting, to the drain: then the drain must be led to tank',
    },
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '5 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '10 ms', 1e-4, 1),
  },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    sizingTargets: { reducedPressure: 'setting' },
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    drainPorts: ['Y'],
    pressureSettings: [{ does: 'reduces', parameter: 'setting', port: 'A' }],
    paths: [{ from: 'P', to: 'A', type: 'open' }],
  },
  symbol: (values) => ({
    shapes: [
      ...pressureBody({ open: true, flow: 'up', pilot: 'top', drain: 'right' }),
      // the way from A to the drain, beside the main way
      ...(values.relieving
        ? [
            ...arrow([0.9, -2], [0.9, -0.6]),
            line([0.9, -0.6], [1.6, -0.6], [1.6, 2], [1.6, 2.6]),
            dashed([1.6, 2.6], [4.5, 2.6], [4.5, 0]),
          ]
        : []),
    ],
    ports: {
      P: { x: 0, y: 4, side: 'down' },
      A: { x: 0, y: -4, side: 'up' },
      Y: { x: 5, y: 0, side: 'right' },
    },
    box: { x: -3, y: -3, w: 7.4, h: 6 },
  }),
  caption: (values, show) => [show(values.setting, 'pressure')],
  section: () =>
    throttlingSpoolSection({
      inlet: { name: 'P', pressure: (l) => l.p[P] },
      outlet: { name: 'A', pressure: (l) => l.p[A] },
      drain: { name: 'Y', pressure: (l) => l.p[Y] },
      opening: (l) => l.x[STATE.opening],
    }),
  model(values) {
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const relief = values.relieving ? coefficient : 0
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 1, scale: 1 },
        relieving: { label: 'opening to the drain', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow P to A', quantity: 'flow' },
        relieved: { label: 'flow to the drain', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        relieves: {
          label: 'relieves its outlet',
          severity: 'info',
          begins: 'relieves its outlet',
          ends: 'no longer relieves its outlet',
          worst: 'relieved',
        },
      }),
      evaluate(l) {
        const above = l.p[A] - l.p[Y] - l.u[INPUT.setting]
        l.dx[STATE.opening] = (smoothRamp(-above / values.range) - l.x[STATE.opening]) / values.timeConstant
        l.dx[STATE.relieving] =
          (smoothRamp((above - RELIEVES_ABOVE) / values.range) - l.x[STATE.relieving]) / values.timeConstant
        const through = l.x[STATE.opening] * coefficient * smoothSquareRoot(l.p[P] - l.p[A])
        const away = l.x[STATE.relieving] * relief * smoothSquareRoot(l.p[A] - l.p[Y])
        l.q[P] = through
        l.q[A] = away - through
        l.q[Y] = -away
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[P]
        l.o[OUTPUT.relieved] = -l.q[Y]
        l.c[CONDITION.relieves] = values.relieving ? l.o[OUTPUT.relieved] - 1e-3 * values.ratedFlow : -1
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[A] * l.q[A] + l.p[Y] * l.q[Y]
      },
      holds: (l) => [
        heldAtSetting(
          l.p,
          A,
          l.u[INPUT.setting],
          [{ port: Y, factor: 1, label: 'at its drain' }],
          l.x[STATE.opening] < WIDE_OPEN && l.p[P] > l.p[A],
        ),
      ],
      balances: (l) => [
        pressureBalance(
          'closes',
          { 'pressure at A': l.p[A] },
          { spring: l.u[INPUT.setting] - values.range, 'pressure at the drain': l.p[Y] },
        ),
      ],
    }
  },
  describeState: (l, values, show) =>
    l.o[OUTPUT.relieved] > 1e-3 * values.ratedFlow
      ? `Relieves ${show(l.o[OUTPUT.relieved], 'flow')} from its outlet at ${show(l.p[A], 'pressure')}.`
      : l.x[STATE.opening] > WIDE_OPEN
        ? `Wide open: its outlet has only ${show(l.p[A], 'pressure')}.`
        : `Throttles ${show(l.q[P], 'flow')} from ${show(l.p[P], 'pressure')} down to ${show(l.p[A], 'pressure')}.`,
})
