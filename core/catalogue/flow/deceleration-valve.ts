import { stuck } from '../faults'
import { defineKind, quantity, indices, stateSpecs } from '../kind'
import { circle, dashed, line, rectangle } from '../symbol'
import { restriction, spring } from '../symbol-elements'
import { throttledModel, throttledParameters, throttlesBothWays } from './throttled'

const STATE = indices('opening')

const ROD = 2

/**
 * A cam on the rod shuts it along the stroke: φ = 1 before the cam meets the roller, falling in a straight line to φ_end over the cam's
 * rise, and staying there; Q = φ·path(p_A − p_B).
 */
export const decelerationValve = defineKind({
  name: 'deceleration-valve',
  label: 'Deceleration valve, cam-operated',
  family: 'flow',
  searchTerms: ['deceleration', 'cam valve', 'roller throttle', 'rapid approach'],
  designationLetter: 'V',
  description: 'A cam on the rod closes it over a part of the stroke, so that the motion slows.',
  guide: {
    acts: 'A cam presses its spool shut over the last part of the stroke; the check lets the way back start freely.',
    fails: 'Shut too quickly it makes a pressure peak; worn, it no longer slows.',
    mistakes:
      'The cam steeper than the mass allows; the rated pressure of the rod side forgotten while it closes.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
    { name: 'R', domain: 'rod', role: 'rod with the cam' },
  ],
  parameters: {
    ...throttledParameters('40 L/min', '3 bar'),
    from: quantity('Start of closing', 'length', '300 mm', -20, 20, { note: 'position of the rod' }),
    over: quantity('Rise of the cam', 'length', '50 mm', 1e-4, 5),
    left: quantity('Opening held', 'share', '5 %', 0, 1),
  },
  faults: [stuck(STATE.opening, 'spool sticks')],
  traits: { restrictions: throttlesBothWays, paths: [{ from: 'A', to: 'B', type: 'open' }] },
  symbol: () => ({
    shapes: [
      rectangle(-2, -2, 4, 4),
      line([0, 3], [0, -3]),
      ...restriction(0, 0, 'sharp'),
      spring(2, 0, 2, 1.2),
      line([-2, 0], [-3, 0]),
      circle(-3.5, 0, 0.5),
      dashed([-4, 0], [-6, 0]),
    ],
    ports: {
      A: { x: 0, y: 3, side: 'down' },
      B: { x: 0, y: -3, side: 'up' },
      R: { x: -6, y: 0, side: 'left' },
    },
    box: { x: -4, y: -2, w: 8, h: 4 },
  }),
  caption: (v, show) => [`from ${show(v.from, 'length')}`],
  model: (v) =>
    throttledModel(v, (l) => l.x[STATE.opening], {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 1, scale: 1 },
      }),
      evaluate(l) {
        const pressed = (l.p[ROD] - v.from) / v.over
        const wanted = 1 - (1 - v.left) * (pressed < 0 ? 0 : pressed > 1 ? 1 : pressed)
        // the roller follows the cam as fast as the spool can
        l.dx[STATE.opening] = (wanted - l.x[STATE.opening]) / 5e-3
        l.q[ROD] = 0
      },
    }),
  describeState: (l, _v, show) =>
    `Open ${Math.round(l.x[STATE.opening] * 100)} %, passing ${show(Math.abs(l.q[0]), 'flow')}.`,
})
