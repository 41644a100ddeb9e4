import { pressureBalance } from '../answers'
import { poppetSection } from '../section-elements'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { checkParameters, checkValveMotion } from '../directional/check'
import { checkBeside, pressureBody, settingFaults, settingInput, INPUT } from './body'
import { dashed } from '../symbol'

const STATE = indices('opening', 'checkOpening')
const OUTPUT = indices('flow', 'held')
const CONDITION = indices('open')

const [HELD, OUT, X] = [0, 1, 2]
/** It opens fully over this share of its setting. */
/** Opening at which it counts as open, and as far from wide open. */
const OPEN = 0.01
/** Share of the setting that the pilot must take over to count as what opens it. */
const PILOTED = 0.25
const RANGE = 0.2
/** A spring backed right off still pushes this much, Pa. */
const LOWEST_SETTING = 1e5

/**
 * Holds at 1, exhausts to 2. Not vented: d = p_1 + R·p_X − p_set − (1 + R)·p_2, back pressure adds to the setting;
 * vented: d = p_1 + R·p_X − p_set − p_2. Range 20 % of the setting; a check 2→1 beside it.
 */
export const counterbalanceValve = defineKind({
  name: 'counterbalance-valve',
  label: 'Counterbalance and brake valve',
  family: 'pressure',
  searchTerms: [
    'counterbalance',
    'brake valve',
    'over centre',
    'overcentre',
    'over-centre',
    'load control',
    'motion control',
    'cbv',
  ],
  designationLetter: 'V',
  description:
    'Holds the load at 1 and lets it down only as far as the pressure at X on the other side of the actuator asks.',
  guide: {
    acts: 'The load pressure at 1 and the pilot from the other side, times its ratio, open it together against the spring; lowering needs pump pressure.',
    fails:
      'Set too low or with a high ratio it hunts with a springy load; set below the load pressure it lets the load down by itself.',
    mistakes:
      'Fitted at the valve and not at the cylinder, so that a burst hose drops the load; back pressure behind an unvented one; a closed centre that traps its pilot: use one that vents A and B.',
  },
  ports: [
    { name: '1', domain: 'oil', role: 'load' },
    { name: '2', domain: 'oil', role: 'to the directional valve' },
    { name: 'X', domain: 'oil', role: 'pilot from the other side' },
  ],
  parameters: {
    setting: quantity('Setting', 'pressure', '180 bar', 1e5, 700e5, {
      note: 'about 1.3 times the pressure of the largest load, without pilot',
    }),
    pilotRatio: quantity('Pilot ratio', 'ratio', '3', 0, 20, {
      note: '3 to 4 for swinging loads, 8 and more for steady ones and motors',
    }),
    vented: {
      type: 'switch',
      label: 'Vented spring chamber',
      default: false,
      note: 'back pressure at 2 then counts once instead of 1 + R times',
    },
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '10 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '10 ms', 1e-4, 1),
    ...checkParameters('Check'),
  },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    sizingTargets: {
      counterbalanceSetting: 'setting',
      pilotRatio: 'pilotRatio',
      counterbalanceFlow: 'ratedFlow',
      crossPortSetting: 'setting',
    },
    pilotPorts: ['X'],
    loadHolding: [
      { port: '1', outletPort: '2', pilot: 'X', ratio: 'pilotRatio', setting: 'setting', vented: 'vented' },
    ],
    restrictions: [{ from: '1', to: '2', element: 'spring' }],
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    paths: [
      { from: '1', to: '2', type: 'switched' },
      { from: '2', to: '1', type: 'oneWay' },
    ],
  },
  safetyNote:
    'No single valve may be relied on under a raised load: use a mechanical lock where people can be under it.',
  symbol: (values) => ({
    shapes: [
      ...pressureBody({ flow: 'down', pilot: 'top', drain: values.vented ? 'vented' : 'bottom' }),
      dashed([-4, 1], [-2, 1]),
      ...checkBeside(7, 0, 'up', values.crackingPressure > 0),
    ],
    ports: {
      '1': { x: 0, y: -4, side: 'up' },
      '2': { x: 0, y: 4, side: 'down' },
      X: { x: -4, y: 1, side: 'left' },
    },
    box: { x: -3, y: -3.5, w: 11.2, h: 7 },
  }),
  caption: (values, show) => [show(values.setting, 'pressure'), `${values.pilotRatio} : 1`],
  section: (values) =>
    poppetSection({
      inlet: { name: '1, load', pressure: (l) => l.p[HELD] },
      outlet: { name: '2', pressure: (l) => l.p[OUT] },
      opening: (l) => l.x[STATE.opening],
      above: {
        name: values.vented ? 'spring side, vented' : '2, spring side',
        pressure: (l) => (values.vented ? 0 : l.p[OUT]),
      },
      piston: {
        name: 'X',
        pressure: (l) => l.p[X],
        pushes: (l) => values.pilotRatio * l.p[X] > PILOTED * l.u[INPUT.setting],
      },
      note: 'Its check valve for the way in is not drawn.',
    }),
  model(values) {
    const moveCheck = checkValveMotion(values)
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const free = pathCoefficient(values.checkFlow, values.checkDrop)
    const back = values.vented ? 1 : 1 + values.pilotRatio
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
        checkOpening: { label: 'check opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow 1 to 2', quantity: 'flow' },
        held: { label: 'pressure held', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        open: { label: 'open', severity: 'info', begins: 'opens', ends: 'shuts', worst: 'flow' },
      }),
      evaluate(l) {
        const drop = l.p[HELD] - l.p[OUT]
        const driving = l.p[HELD] + values.pilotRatio * l.p[X] - l.u[INPUT.setting] - back * l.p[OUT]
        l.dx[STATE.opening] =
          (smoothRamp(driving / (RANGE * Math.max(l.u[INPUT.setting], LOWEST_SETTING))) -
            l.x[STATE.opening]) /
          values.timeConstant
        moveCheck(l, STATE.checkOpening, OUT, HELD)
        const flow =
          (l.x[STATE.opening] * coefficient + l.x[STATE.checkOpening] * free) * smoothSquareRoot(drop)
        l.q[HELD] = flow
        l.q[OUT] = -flow
        l.q[X] = 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[HELD]
        l.o[OUTPUT.held] = l.p[HELD]
        l.c[CONDITION.open] = l.x[STATE.opening] - 0.01
        l.power[Power.heat] = l.q[HELD] * (l.p[HELD] - l.p[OUT])
      },
      // what the pilot needs while it holds the valve open: R·p_X = setting + back·p_2 − p_1 + what the flow needs
      holds(l) {
        const needed = l.u[INPUT.setting] + back * l.p[OUT] - l.p[HELD]
        const opening = l.x[STATE.opening]
        const helps = values.pilotRatio * l.p[X] > PILOTED * l.u[INPUT.setting]
        const terms = [
          {
            label: 'pilot for its setting',
            value: l.u[INPUT.setting] / values.pilotRatio,
            role: 'pilot' as const,
          },
          { label: 'pilot for the back pressure at 2', value: (back * l.p[OUT]) / values.pilotRatio },
          { label: 'taken off by the load pressure at 1', value: -l.p[HELD] / values.pilotRatio },
          { label: 'more at this flow', value: l.p[X] - needed / values.pilotRatio },
        ]
        return [
          {
            port: X,
            by: 'valve',
            leads: needed > 0 && helps && opening > OPEN && opening < 1 - OPEN,
            terms,
            behind: [],
          },
        ]
      },
      balances: (l) => [
        pressureBalance(
          'opens',
          {
            'load pressure at 1': l.p[HELD],
            [`pilot at X, ${values.pilotRatio} times`]: values.pilotRatio * l.p[X],
          },
          { spring: l.u[INPUT.setting], [`back pressure at 2, ${back} times`]: back * l.p[OUT] },
        ),
      ],
    }
  },
  describeState(l, values, show) {
    if (l.x[STATE.checkOpening] > 0.01)
      return `Its check is open: ${show(-l.q[HELD], 'flow')} go to the load.`
    const needed =
      (l.u[INPUT.setting] + (values.vented ? 1 : 1 + values.pilotRatio) * l.p[OUT] - l.p[HELD]) /
      Math.max(values.pilotRatio, 1e-9)
    return l.x[STATE.opening] > 0.01
      ? `Open ${Math.round(l.x[STATE.opening] * 100)} %, letting down ${show(l.q[HELD], 'flow')} from ${show(l.p[HELD], 'pressure')}.`
      : `Shut, holding ${show(l.p[HELD], 'pressure')}; ${show(Math.max(0, needed), 'pressure')} at its pilot begin to open it.`
  },
})
