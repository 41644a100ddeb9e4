import { leak, reversed, stuck } from '../faults'
import {
  conditionSpecs,
  defineKind,
  eventSpecs,
  indices,
  outputSpecs,
  Power,
  quantity,
  stateSpecs,
} from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { line } from '../symbol'
import { checkInLine, restriction } from '../symbol-elements'

const STATE = indices('opening')
const OUTPUT = indices('flow')
const CONDITION = indices('shut')
const EVENT = indices('shuts')

const [A, B] = [0, 1]
/** A shut one is pushed open again from the side of the hose by this much, Pa. */
const REOPENS = 0.5e5

/**
 * Screwed into the port of a cylinder, it stands open by its spring: Q = φ·path(p_A − p_B). Where oil leaves the cylinder faster than set, the
 * drop over its plate passes Δp_r·(Q_shut/q_r)², and it snaps shut, τ·dφ/dt = −φ; it stays so until the pressure of the hose is again
 * above that of the cylinder.
 */
export const hoseRuptureValve = defineKind({
  name: 'hose-rupture-valve',
  label: 'Hose-rupture valve',
  family: 'directional',
  searchTerms: [
    'hose rupture',
    'hose burst valve',
    'pipe rupture',
    'velocity fuse',
    'line rupture',
    'burst valve',
  ],
  designationLetter: 'V',
  description: 'Shuts where oil leaves an actuator faster than it may: when its hose has burst.',
  guide: {
    acts: 'A plate that a spring holds off its seat; the drop of a flow that is too large pushes it shut.',
    fails:
      'Set too close to the lowering speed it stops a sound machine; set too far off, a leak never shuts it.',
    mistakes:
      'Set in a pipe away from the cylinder, where what bursts lies before it; two on one load set differently, so that one side stops first.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'to the actuator' },
    { name: 'B', domain: 'oil', role: 'to the hose' },
  ],
  parameters: {
    closingFlow: quantity('Closing flow, A to B', 'flow', '60 L/min', 1e-6, 0.2, {
      note: 'about 1.5 times the flow of lowering',
    }),
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '3 bar', 1e4, 50e5),
    response: quantity('Response', 'time', '20 ms', 1e-4, 1),
  },
  faults: [leak(A, B, 'leaks shut'), stuck(STATE.opening), reversed(A, B)],
  traits: {
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  safetyNote:
    'It stops a load that falls, hard: its cylinder and what carries it must stand that. It holds no load that leaks, and is no safeguard under a raised load.',
  symbol: () => ({
    shapes: [
      ...checkInLine([0, 3], [0, -3], { spring: true }),
      // open as long as little passes
      ...restriction(-1.4, 0.1, 'sharp', 'vertical', 0.7),
      line([0, 2], [-1.4, 2], [-1.4, -1.9], [0, -1.9]),
    ],
    ports: { A: { x: 0, y: -3, side: 'up' }, B: { x: 0, y: 3, side: 'down' } },
    box: { x: -2, y: -2, w: 3.2, h: 4.2 },
  }),
  caption: (values, show) => [`shuts at ${show(values.closingFlow, 'flow')}`],
  model(values) {
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const closingDrop = values.ratedDrop * (values.closingFlow / values.ratedFlow) ** 2
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 1, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, { flow: { label: 'flow A to B', quantity: 'flow' } }),
      conditions: conditionSpecs(CONDITION, {
        shut: {
          label: 'shut: oil left the actuator too fast',
          severity: 'danger',
          begins: 'shuts',
          ends: 'opens again',
        },
      }),
      eventFunctions: eventSpecs(EVENT, {
        shuts: { label: 'shuts', report: 1, value: 'flow' },
      }),
      modes: [0],
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const flow = l.x[STATE.opening] * coefficient * smoothSquareRoot(drop)
        l.q[A] = flow
        l.q[B] = -flow
        l.dx[STATE.opening] = ((l.mode[0] ? 0 : 1) - l.x[STATE.opening]) / values.response
        l.g[EVENT.shuts] = l.mode[0] ? drop + REOPENS : drop - closingDrop
      },
      switch(l, _index, direction) {
        l.mode[0] = direction > 0 ? 1 : 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.c[CONDITION.shut] = l.mode[0] - 0.5
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
    }
  },
  describeState: (l, values, show) =>
    l.mode[0]
      ? `Shut: more than ${show(values.closingFlow, 'flow')} left the actuator; it holds ${show(l.p[A] - l.p[B], 'pressure')}.`
      : `Open, passing ${show(l.q[A], 'flow')} from the actuator; it shuts at ${show(values.closingFlow, 'flow')}.`,
})
