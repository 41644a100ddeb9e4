import {
  conditionSpecs,
  defineKind,
  indices,
  inputSpecs,
  outputSpecs,
  Power,
  quantity,
  stateSpecs,
} from '../kind'
import { circle, line, rectangle } from '../symbol'
import { flowTriangle, adjustable } from '../symbol-elements'

const STATE = indices('delivered')
const OUTPUT = indices('flow')
const CONDITION = indices('short')
const INPUT = indices('running')

const [P, T, X] = [0, 1, 2]
/** Band over which a compensator takes its stroke back, Pa, and a relief opens, as a share of its setting. */
const BAND = 8e5
const OVERRIDE = 0.1

/**
 * What another machine supplies: a flow up to a pressure, as a fixed pump with its relief, a pressure-compensated pump or a
 * load-sensing one. Q = q·clamp((p_limit − p)/band), following with a lag; p_limit = min(p_set, p_X + margin) with load sensing.
 * Above p_set its relief valve passes q·(p − p_set)/(0.1·p_set). T holds the pressure of its return.
 */
export const foreignSupply = defineKind({
  name: 'foreign-supply',
  label: 'Supply by another machine',
  family: 'sources',
  searchTerms: ['foreign supply', 'tractor', 'ring main', 'given supply', 'boundary', 'external supply'],
  designationLetter: 'Z',
  excludedFromPartsList: true,
  description:
    'A given supply at the boundary of what is drawn: its pump with flow and pressure, and the return to it.',
  ports: [
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'T', domain: 'oil', role: 'return line', imposes: true },
    { name: 'X', domain: 'oil', role: 'load signal', mayStayOpen: true },
  ],
  parameters: {
    pump: {
      type: 'choice',
      label: 'Its pump',
      default: 'fixed',
      choices: {
        fixed: 'fixed, for open centres',
        compensated: 'pressure compensated, for closed centres',
        loadSensing: 'load sensing',
      },
    },
    flow: quantity('Flow', 'flow', '40 L/min', 1e-6, 0.1),
    pressure: quantity('Highest pressure', 'pressure', '180 bar', 5e5, 700e5, {
      note: 'of its relief or its compensator',
    }),
    margin: quantity('Margin above the load signal', 'pressure', '20 bar', 1e5, 60e5),
    returnPressure: quantity('Pressure in its return', 'pressure', '2 bar', 0, 100e5),
    response: quantity('Response', 'time', '50 ms', 1e-3, 5),
  },
  idleParameters: (v) => (v.pump === 'loadSensing' ? [] : ['margin']),
  inputs: inputSpecs(INPUT, {
    running: {
      label: 'supply',
      quantity: 'ratio',
      rest: 1,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'running', action: 'starts' },
        { value: 0, label: 'off', action: 'is switched off' },
      ],
    },
  }),
  traits: {
    deliveryPorts: ['P'],
    tankPorts: ['T'],
    pressureSettings: [{ does: 'limits', parameter: 'pressure', port: 'P' }],
    paths: [{ from: 'P', to: 'T', type: 'relief' }],
    supply: (v) => ({ port: 'P', signal: 'X', pump: v.pump, flow: v.flow }),
  },
  symbol: (values) => ({
    shapes: [
      { ...rectangle(-4, -4, 8, 8, 'none'), dash: 'chain' as const },
      circle(-1, 0, 2),
      flowTriangle(-1, -2, 0, -1),
      line([-1, -2], [-1, -6]),
      line([2, -6], [2, 2.4]),
      line([1, 1.7], [1, 2.4], [3, 2.4], [3, 1.7]),
      ...(values.pump === 'fixed' ? [] : adjustable(-1, 0, 1.8)),
      ...(values.pump === 'loadSensing'
        ? [{ ...line([4, 0], [1, 0]), dash: 'pilot' as const }, line([4, 0], [6, 0])]
        : []),
    ],
    ports: {
      P: { x: -1, y: -6, side: 'up' },
      T: { x: 2, y: -6, side: 'up' },
      ...(values.pump === 'loadSensing' ? { X: { x: 6, y: 0, side: 'right' } as const } : {}),
    },
    box: { x: -4, y: -4, w: 8, h: 8 },
  }),
  caption: (v, show) => [show(v.flow, 'flow'), show(v.pressure, 'pressure')],
  model(v) {
    const sensing = v.pump === 'loadSensing'
    const band = v.pump === 'fixed' ? OVERRIDE * v.pressure : BAND
    return {
      idlePorts: sensing ? [] : [X],
      states: stateSpecs(STATE, {
        delivered: { label: 'share delivered', quantity: 'share', initial: 1, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, { flow: { label: 'flow delivered', quantity: 'flow' } }),
      conditions: conditionSpecs(CONDITION, {
        short: {
          label: 'at its highest pressure: all or part of its flow is held back',
          severity: 'info',
          begins: 'holds its flow back at its highest pressure',
          ends: 'gives its whole flow again',
        },
      }),
      impose(l) {
        l.p[T] = v.returnPressure
      },
      evaluate(l) {
        const limit = sensing ? Math.min(v.pressure, l.p[X] + v.margin) : v.pressure
        const share = (limit - l.p[P]) / band
        const wanted = l.u[INPUT.running] * (share < 0 ? 0 : share > 1 ? 1 : share)
        l.dx[STATE.delivered] = (wanted - l.x[STATE.delivered]) / v.response
        // its relief valve takes at once what the pump still gives above the highest pressure
        const over = (l.p[P] - v.pressure) / (OVERRIDE * v.pressure)
        l.q[P] = v.flow * ((over > 0 ? over : 0) - l.x[STATE.delivered])
        l.q[X] = 0
        // the oil is that of the other machine
        l.e[P] = l.q[P]
      },
      observe(l) {
        l.o[OUTPUT.flow] = -l.q[P]
        l.c[CONDITION.short] = l.p[P] - (v.pressure - band)
        // what it does to the oil comes from outside
        l.power[Power.input] = -l.p[P] * l.q[P]
      },
    }
  },
  describeState: (l, _v, show) =>
    `Delivers ${show(l.o[OUTPUT.flow], 'flow')} at ${show(l.p[P], 'pressure')}, and takes back ${show(l.q[T], 'flow')}.`,
})
