import { pressureBalance } from '../answers'
import { poppetSection } from '../section-elements'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { circleArea, pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { circle, dashed, line, rectangle } from '../symbol'
import { checkInLine, enclosureLine } from '../symbol-elements'
import { leak, reversed, stuck } from '../faults'
import { checkNominal, checkParameters } from './check'

const STATE = indices('opening', 'decompression')
const OUTPUT = indices('flow', 'held')
const CONDITION = indices('overPressure')

const [A, B, X, Y] = [0, 1, 2, 3]

/**
 * Free flow A to B; the pilot at X opens it the other way. The pilot piston only pushes:
 * d = (p_A − p_B) + R·max(0, p_X − p_Y) − p_crack, p_Y = p_A where it is drained internally;
 * τ·dφ/dt = ramp(d/p_open) − φ; Q = φ·path(p_A − p_B), both ways. A decompression poppet in its seat opens in the same way with its own
 * ratio R_d, as a sharp-edged orifice from B to A: it takes the pressure from what is held before the main seat opens.
 */
export const pilotOperatedCheck = defineKind({
  name: 'pilot-operated-check',
  label: 'Check valve, pilot to open',
  family: 'directional',
  searchTerms: ['pilot check', 'poc', 'pilot operated check', 'load holding', 'lock valve', 'pocv'],
  designationLetter: 'V',
  description: 'Lets oil pass from A to B and holds it back the other way until pressure at X opens it.',
  guide: {
    acts: 'As a check; pressure at X on a larger piston pushes it open for the way back.',
    fails:
      'Pressure behind it (at A) works against the pilot: it may not open, or flutter. Trapped oil that warms raises the pressure it holds.',
    mistakes:
      'A directional valve that does not relieve A in its centre; a pilot drained internally where the oil that comes back raises the pressure at A, so that it opens and shuts in turns: drain it externally, at Y; a load that runs ahead: use a counterbalance valve; no relief for oil that warms while locked in.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet of the free flow' },
    { name: 'B', domain: 'oil', role: 'held side' },
    { name: 'X', domain: 'oil', role: 'pilot to open' },
    { name: 'Y', domain: 'oil', role: 'drain of the pilot piston', mayStayOpen: true },
  ],
  parameters: {
    ...checkParameters(),
    pilotRatio: quantity('Pilot ratio', 'ratio', '3', 1, 100, { note: 'pilot area to seat area' }),
    decompression: {
      type: 'switch',
      label: 'Decompression poppet',
      default: false,
      note: 'opens first, and lets the held pressure down before the main seat opens',
    },
    decompressionRatio: quantity('Pilot ratio of the decompression poppet', 'ratio', '13', 1, 200),
    decompressionSize: quantity('Decompression poppet, as orifice diameter', 'length', '1.5 mm', 1e-4, 0.02),
    drain: {
      type: 'choice',
      label: 'Pilot piston drained',
      default: 'internal',
      choices: { internal: 'internally, to A', external: 'externally, at Y' },
      note: 'back pressure at A works against an internally drained pilot',
    },
    maxPressure: quantity('Maximum pressure', 'pressure', '350 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at B',
    }),
  },
  idleParameters: (v) => (v.decompression ? [] : ['decompressionRatio', 'decompressionSize']),
  validate: (v) =>
    v.decompression && v.decompressionRatio <= v.pilotRatio
      ? [
          {
            parameter: 'decompressionRatio',
            message: 'The decompression poppet opens first: its ratio lies above that of the main seat.',
          },
        ]
      : [],
  faults: [leak(B, A, 'leaks shut'), stuck(STATE.opening), reversed(A, B)],
  traits: {
    sizingTargets: { checkRatio: 'pilotRatio' },
    pilotPorts: ['X'],
    loadHolding: [{ port: 'B', outletPort: 'A', pilot: 'X', ratio: 'pilotRatio' }],
    nominalPoint: checkNominal,
    drainPorts: ['Y'],
    ratedPressure: 'maxPressure',
    paths: [
      { from: 'A', to: 'B', type: 'oneWay' },
      { from: 'B', to: 'A', type: 'switched' },
    ],
  },
  safetyNote:
    'No single valve may be relied on under a raised load: use a mechanical lock where people can be under it. Oil stays trapped under pressure at B.',
  forms: true,
  symbol: (values, form) => ({
    shapes: [
      ...(form === 'detailed'
        ? [
            enclosureLine(-2.4, -2.5, 4.8, 5),
            // the pilot piston with its rod towards the ball
            rectangle(-2, 0.6, 1, 0.9),
            line([-1.5, 0.6], [-1.5, 1.5]),
            line([-1, 1.05], [0, 1.05], [0, 0.75]),
            dashed([-3, 1], [-2, 1]),
          ]
        : [dashed([-3, 1], [-0.45, 1])]),
      ...checkInLine([0, 3], [0, -3], { spring: values.crackingPressure > 0 }),
      // a smaller seat in the larger one
      ...(values.decompression ? [circle(0, 0, 0.3)] : []),
      ...(values.drain === 'external'
        ? [
            form === 'detailed'
              ? dashed([3, 1], [1.4, 1], [1.4, 1.9], [-1.25, 1.9], [-1.25, 1.5])
              : dashed([3, 1], [0.45, 1]),
          ]
        : []),
    ],
    ports: {
      A: { x: 0, y: 3, side: 'down' },
      B: { x: 0, y: -3, side: 'up' },
      X: { x: -3, y: 1, side: 'left' },
      ...(values.drain === 'external' ? { Y: { x: 3, y: 1, side: 'right' } as const } : {}),
    },
    box: { x: -2, y: -2, w: 4, h: 4 },
  }),
  caption: (values) => [
    `${values.pilotRatio} : 1${values.decompression ? `, ${values.decompressionRatio} : 1 first` : ''}`,
  ],
  section: (values) =>
    poppetSection({
      inlet: { name: 'A', pressure: (l) => l.p[A] },
      outlet: { name: 'B, held', pressure: (l) => l.p[B] },
      opening: (l) => l.x[STATE.opening],
      above: { name: 'B, spring side', pressure: (l) => l.p[B] },
      piston: {
        name: 'X',
        pressure: (l) => l.p[X],
        pushes: (l) => l.p[X] > (values.drain === 'external' ? l.p[Y] : l.p[A]) && l.x[STATE.opening] > 0.01,
      },
    }),
  model(values, fluid) {
    const small = values.decompression ? circleArea(values.decompressionSize) : 0
    const coefficient = pathCoefficient(values.checkFlow, values.checkDrop)
    const external = values.drain === 'external'
    return {
      idlePorts: external ? [] : [Y],
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
        decompression: { label: 'decompression poppet', quantity: 'share', initial: 0, scale: 1 },
      }).slice(0, values.decompression ? 2 : 1),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
        held: { label: 'pressure held', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'held' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const push = l.p[X] - (external ? l.p[Y] : l.p[A])
        const driving = drop + (push > 0 ? values.pilotRatio * push : 0) - values.crackingPressure
        l.dx[STATE.opening] =
          (smoothRamp(driving / values.openingRange) - l.x[STATE.opening]) / values.checkResponse
        let flow = l.x[STATE.opening] * coefficient * smoothSquareRoot(drop)
        if (small > 0) {
          const first = drop + (push > 0 ? values.decompressionRatio * push : 0) - values.crackingPressure
          l.dx[STATE.decompression] =
            (smoothRamp(first / values.openingRange) - l.x[STATE.decompression]) / values.checkResponse
          if (drop < 0)
            flow += l.x[STATE.decompression] * small * fluid.orificeFactor * smoothSquareRoot(drop)
        }
        l.q[A] = flow
        l.q[B] = -flow
        l.q[X] = 0
        l.q[Y] = 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.o[OUTPUT.held] = l.p[B]
        l.c[CONDITION.overPressure] = l.p[B] - values.maxPressure
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
      balances(l) {
        const push = Math.max(0, l.p[X] - (external ? l.p[Y] : l.p[A]))
        return [
          pressureBalance(
            'opens',
            {
              'pressure at A': l.p[A],
              [`pilot over ${external ? 'its drain' : 'A'}, ${values.pilotRatio} times`]:
                values.pilotRatio * push,
            },
            { 'pressure held at B': l.p[B], spring: values.crackingPressure },
          ),
        ]
      },
    }
  },
  describeState(l, values, show) {
    const push = l.p[X] - (values.drain === 'external' ? l.p[Y] : l.p[A])
    if (l.x[STATE.opening] < 0.01)
      return `Shut, holding ${show(Math.max(0, l.p[B]), 'pressure')}; a pilot of ${show(
        Math.max(0, (l.p[B] - l.p[A] + values.crackingPressure) / values.pilotRatio),
        'pressure',
      )} above its drain opens it.`
    const way = l.q[A] >= 0 ? 'A to B' : 'B to A'
    const cause =
      push > 0 && l.q[A] < 0 ? `held open by ${show(push, 'pressure')} at its pilot` : 'opened by the flow'
    return `Open ${Math.round(l.x[STATE.opening] * 100)} %, ${cause}, passing ${show(Math.abs(l.q[A]), 'flow')} from ${way}.`
  },
})
