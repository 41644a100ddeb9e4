import { lost, stuck } from '../faults'
import { defineKind, quantity, indices, stateSpecs, inputSpecs } from '../kind'
import { hysteresis } from '../directional/metering'
import { heldByFriction, notchOpening, spoolRate } from '../flow-laws'
import { line, partOf, rectangle } from '../symbol'
import { adjustable, restriction, solenoid, spring } from '../symbol-elements'
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
  guide: {
    acts: 'It opens as far as it is commanded; flow goes with the root of the pressure drop.',
    fails: 'Dead band and hysteresis of its solenoid; speed changes with the load.',
    mistakes: 'Taken for a flow control: it keeps an opening, not a flow.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    ...throttledParameters('40 L/min', '5 bar'),
    deadBand: quantity('Dead band', 'share', '10 %', 0, 0.5),
    exponent: quantity('Notch exponent', 'ratio', '1.5', 0.5, 4),
    shiftTime: quantity('Time for full stroke', 'time', '80 ms', 1e-3, 5),
    hysteresis: hysteresis(),
  },
  inputs: inputSpecs(INPUT, {
    command: { label: 'command', quantity: 'share', rest: 0, min: 0, max: 1, electric: 'signal' },
  }),
  faults: [stuck(STATE.spool, 'spool sticks'), lost(INPUT.command)],
  traits: {
    electricFaults: () => ['lost'],
    restrictions: throttlesBothWays,
    paths: [{ from: 'A', to: 'B', type: 'switched' }],
  },
  symbol: () => ({
    shapes: [
      ...partOf('spool', [
        // closed at rest, opened towards the solenoid
        rectangle(-2, -2, 4, 4),
        line([0, 2], [0, 1.1]),
        line([-0.45, 1.1], [0.45, 1.1]),
        line([0, -2], [0, -1.1]),
        line([-0.45, -1.1], [0.45, -1.1]),
        rectangle(2, -2, 4, 4),
        line([4, 2], [4, -2]),
        ...restriction(4, 0, 'sharp'),
        // any position between
        line([-2, -2.4], [6, -2.4]),
        line([-2, 2.4], [6, 2.4]),
        ...solenoid(6, -1),
        ...adjustable(7.5, -1, 1.4),
        spring(-4.2, 0, 2.2, 1.2),
      ]),
      line([0, 3], [0, 2]),
      line([0, -2], [0, -3]),
    ],
    ports: { A: { x: 0, y: 3, side: 'down' }, B: { x: 0, y: -3, side: 'up' } },
    box: { x: -4.2, y: -2.4, w: 13.2, h: 4.8 },
    captionAt: { x: -4, y: -3.2, anchor: 'end' },
    parts: { spool: { signal: 'spool', zero: 0, travel: -4, full: 1 } },
  }),
  caption: (v, show) => [show(v.ratedFlow, 'flow')],
  model(v) {
    const notch = notchOpening(v)
    return throttledModel(v, (l) => notch(l.x[STATE.spool]), {
      states: stateSpecs(STATE, {
        spool: { label: 'spool position', quantity: 'share', initial: 0, scale: 1 },
      }),
      evaluate(l) {
        const y = l.x[STATE.spool]
        l.dx[STATE.spool] = spoolRate(
          y,
          heldByFriction(y, l.u[INPUT.command], 0.5 * v.hysteresis),
          v.shiftTime,
        )
      },
    })
  },
  describeState: (l, _v, show) =>
    `Spool at ${Math.round(l.x[STATE.spool] * 100)} %, passing ${show(Math.abs(l.q[0]), 'flow')} at a drop of ${show(Math.abs(l.p[0] - l.p[1]), 'pressure')}.`,
})
