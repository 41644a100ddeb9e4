import { pressureBalance } from '../answers'
import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  eventSpecs,
} from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { pressureBody, settingFaults, settingInput, INPUT } from './body'

const STATE = indices('opening')
const EVENT = indices('snap')
const OUTPUT = indices('flow')
const CONDITION = indices('unloaded')

const [P, T, X, Y] = [0, 1, 2, 3]

/**
 * Remote pilot: with k = 1 d = p_X − p_Y − p_set, φ* = ramp(d/r); with a differential k < 1 φ* goes to 1 when
 * p_X − p_Y reaches p_set and to 0 when it falls below k·p_set. τ·dφ/dt = φ* − φ; Q = φ·path(p_P − p_T).
 */
export const unloadingValve = defineKind({
  name: 'unloading-valve',
  label: 'Unloading valve',
  family: 'pressure',
  searchTerms: ['unloader', 'unloading', 'high low', 'accumulator charging', 'uv'],
  designationLetter: 'V',
  description:
    'Lets the pump line at P go to tank when the pressure at X reaches its setting, until it falls to its reset.',
  guide: {
    acts: 'Pressure at X opens it wide at the setting and keeps it open until it has fallen to the reset; meanwhile the pump runs to tank nearly free.',
    fails:
      'A leaking check or store lets the pressure fall quickly: it loads and unloads many times a minute.',
    mistakes:
      'The check between it and the store left out, so that the store empties through it; X taken before the check, so that it chatters.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'line that is unloaded' },
    { name: 'T', domain: 'oil', role: 'tank line' },
    { name: 'X', domain: 'oil', role: 'remote pilot' },
    { name: 'Y', domain: 'oil', role: 'drain of the spring chamber', mayStayOpen: true },
  ],
  parameters: {
    setting: quantity('Setting', 'pressure', '100 bar', 1e5, 700e5, {
      note: 'pilot pressure at which it opens',
    }),
    differential: quantity('Reseating pressure', 'share', '85 %', 0.1, 1, {
      note: 'of the setting; 100 % opens in proportion over the range',
    }),
    range: quantity('Pressure rise to full opening', 'pressure', '5 bar', 1e4, 100e5, {
      note: 'without a differential',
    }),
    drain: {
      type: 'choice',
      label: 'Drain',
      default: 'internal',
      choices: { internal: 'internal, to T', external: 'external, at Y' },
    },
    ratedFlow: quantity('Rated flow', 'flow', '60 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '4 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '10 ms', 1e-4, 1),
  },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    sizingTargets: { unloadSetting: 'setting' },
    pilotPorts: ['X'],
    drainPorts: ['Y'],
    pressureSettings: [{ does: 'unloads', parameter: 'setting', port: 'P' }],
    paths: [{ from: 'P', to: 'T', type: 'switched' }],
  },
  symbol: (values) => ({
    shapes: pressureBody({
      flow: 'down',
      pilot: 'left',
      drain: values.drain === 'external' ? 'right' : 'bottom',
    }),
    ports: {
      P: { x: 0, y: -4, side: 'up' },
      T: { x: 0, y: 4, side: 'down' },
      X: { x: -4, y: 0, side: 'left' },
      ...(values.drain === 'external' ? { Y: { x: 5, y: 0, side: 'right' } as const } : {}),
    },
    box: { x: -3, y: -3, w: 7.4, h: 6 },
  }),
  caption: (values, show) => [show(values.setting, 'pressure')],
  model(values) {
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const snaps = values.differential < 1
    const drain = values.drain === 'external' ? Y : T
    return {
      idlePorts: drain === Y ? [] : [Y],
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        unloaded: {
          label: 'open: the pump is unloaded',
          severity: 'info',
          begins: 'opens and unloads the pump',
          ends: 'shuts: the pump works again',
          worst: 'flow',
        },
      }),
      eventFunctions: eventSpecs(EVENT, { snap: { label: 'opens', report: 1 } }).slice(0, snaps ? 1 : 0),
      modes: snaps ? [0] : [],
      evaluate(l) {
        const pilot = l.p[X] - l.p[drain]
        let wanted: number
        if (snaps) {
          l.g[EVENT.snap] = pilot - (l.mode[0] ? values.differential : 1) * l.u[INPUT.setting]
          wanted = l.mode[0]
        } else wanted = smoothRamp((pilot - l.u[INPUT.setting]) / values.range)
        l.dx[STATE.opening] = (wanted - l.x[STATE.opening]) / values.timeConstant
        const flow = l.x[STATE.opening] * coefficient * smoothSquareRoot(l.p[P] - l.p[T])
        l.q[P] = flow
        l.q[T] = -flow
        l.q[X] = 0
        l.q[Y] = 0
      },
      switch(l, _index, direction) {
        l.mode[0] = direction > 0 ? 1 : 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[P]
        l.c[CONDITION.unloaded] = l.x[STATE.opening] - 0.01
        l.power[Power.heat] = l.q[P] * (l.p[P] - l.p[T])
      },
      balances: (l) => [
        pressureBalance(
          'opens',
          { 'pressure at X': l.p[X] },
          {
            [snaps && l.mode[0] ? 'spring, once open' : 'spring']:
              (snaps && l.mode[0] ? values.differential : 1) * l.u[INPUT.setting],
            [drain === Y ? 'pressure at Y' : 'pressure at T']: l.p[drain],
          },
        ),
      ],
    }
  },
  describeState(l, _values, show) {
    const pilot = show(l.p[X], 'pressure')
    return l.x[STATE.opening] > 0.01
      ? `Open ${Math.round(l.x[STATE.opening] * 100)} %, sending ${show(l.q[P], 'flow')} to tank; its pilot has ${pilot}.`
      : `Shut; its pilot has ${pilot} of ${show(l.u[INPUT.setting], 'pressure')}.`
  },
})
