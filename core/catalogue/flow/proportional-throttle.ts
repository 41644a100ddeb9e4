import { lost, stuck } from '../faults'
import { defineKind, quantity, indices, stateSpecs, inputSpecs } from '../kind'
import { notchOpening, spoolRate } from '../flow-laws'
import { adjustable, line, rectangle } from '../symbol'
import { solenoid } from '../directional/spool'
import { throttledModel, throttledParameters, throttlesBothWays } from './throttled'

const STATE = indices('spool')
const INPUT = indices('command')

/** Its opening follows an electric command at constant speed; beyond its dead band φ = ((y − y_0)/(1 − y_0))^e; Q = φ·path(p_A − p_B). */
export const proportionalThrottle = defineKind({
  name: 'proportional-throttle',
  label: 'Throttle valve, proportional',
  family: 'flow',
  searchTerms: ['proportional throttle', 'electric throttle', 'proportional flow'],
  designationLetter: 'V',
  description: 'A throttle opened as far as it is commanded.',
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    ...throttledParameters('40 L/min', '5 bar'),
    deadBand: quantity('Dead band', 'share', '10 %', 0, 0.5),
    exponent: quantity('Notch exponent', 'ratio', '1.5', 0.5, 4),
    shiftTime: quantity('Time for full stroke', 'time', '80 ms', 1e-3, 5),
  },
  inputs: inputSpecs(INPUT, {
    command: { label: 'command', quantity: 'share', rest: 0, min: 0, max: 1 },
  }),
  faults: [stuck(STATE.spool, 'spool sticks'), lost(INPUT.command)],
  traits: { restrictions: throttlesBothWays, paths: [{ from: 'A', to: 'B', type: 'switched' }] },
  symbol: () => ({
    shapes: [
      rectangle(-2, -2, 4, 4),
      line([0, 3], [0, -3]),
      line([-0.9, -0.6], [-0.3, 0], [-0.9, 0.6]),
      line([0.9, -0.6], [0.3, 0], [0.9, 0.6]),
      ...solenoid(2, -1),
      ...adjustable(3, -0.9, 1),
      line([-2.4, -1.8], [-2.4, 1.8]),
      line([2.4, 0.2], [2.4, 1.8]),
    ],
    ports: { A: { x: 0, y: 3, side: 'down' }, B: { x: 0, y: -3, side: 'up' } },
    box: { x: -2.4, y: -2, w: 6.4, h: 4 },
  }),
  caption: (v, show) => [show(v.ratedFlow, 'flow')],
  model(v) {
    const notch = notchOpening(v)
    return throttledModel(v, (l) => notch(l.x[STATE.spool]), {
      states: stateSpecs(STATE, {
        spool: { label: 'spool position', quantity: 'share', initial: 0, scale: 1 },
      }),
      evaluate(l) {
        l.dx[STATE.spool] = spoolRate(l.x[STATE.spool], l.u[INPUT.command], v.shiftTime)
      },
    })
  },
  describeState: (l, _v, show) =>
    `Spool at ${Math.round(l.x[STATE.spool] * 100)} %, passing ${show(Math.abs(l.q[0]), 'flow')} at a drop of ${show(Math.abs(l.p[0] - l.p[1]), 'pressure')}.`,
})
