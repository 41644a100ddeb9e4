import { yesNo } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  conditionSpecs,
  eventSpecs,
  indices,
  outputSpecs,
  stateSpecs,
} from '../kind'
import { line, rectangle } from '../symbol'

const STATE = indices('twist')
const OUTPUT = indices('torque')
const CONDITION = indices('broken')
const EVENT = indices('breaks')

const [V, W] = [0, 1]
/** Twist at the breaking torque, rad, and its damping as a share of what is critical for the inertia at its ends. */
const TWIST = 0.05
const INERTIA = 0.01
const DAMPING = 0.3

/**
 * T = k·φ + d·(ω_V − ω_W) until |T| passes its breaking torque; from then on no torque. k so that it twists by 0.05 rad there.
 */
export const shaftCoupling = defineKind({
  name: 'shaft-coupling',
  label: 'Shaft coupling',
  family: 'lines',
  searchTerms: ['coupling', 'shaft coupling', 'shear pin', 'bell housing'],
  designationLetter: 'Z',
  description: 'Joins two shafts up to the torque at which it breaks.',
  ports: [
    { name: 'V', domain: 'shaft', role: 'driving shaft' },
    { name: 'W', domain: 'shaft', role: 'driven shaft' },
  ],
  parameters: {
    breaking: quantity('Breaking torque', 'torque', '400 N·m', 0.1, 1e7),
  },
  faults: [
    {
      name: 'broken',
      label: 'broken',
      form: 'lost',
      ...yesNo,
      afterEvaluate(l, amount) {
        if (amount <= 0.5) return
        l.q.fill(0)
        l.dx.fill(0)
      },
    },
  ],
  symbol: () => ({
    shapes: [
      line([-3, -0.25], [-0.6, -0.25]),
      line([-3, 0.25], [-0.6, 0.25]),
      line([0.6, -0.25], [3, -0.25]),
      line([0.6, 0.25], [3, 0.25]),
      rectangle(-0.6, -1.2, 0.4, 2.4),
      rectangle(0.2, -1.2, 0.4, 2.4),
    ],
    ports: { V: { x: -3, y: 0, side: 'left' }, W: { x: 3, y: 0, side: 'right' } },
    box: { x: -1, y: -1.2, w: 2, h: 2.4 },
  }),
  caption: (v, show) => [show(v.breaking, 'torque')],
  model(v) {
    const stiffness = v.breaking / TWIST
    const damping = 2 * DAMPING * Math.sqrt(stiffness * INERTIA)
    return {
      alikeAtStart: [V, W],
      modes: [0],
      states: stateSpecs(STATE, {
        twist: { label: 'twist', quantity: 'angle', initial: 0, scale: TWIST },
      }),
      outputs: outputSpecs(OUTPUT, { torque: { label: 'torque', quantity: 'torque' } }),
      conditions: conditionSpecs(CONDITION, {
        broken: { label: 'broken', severity: 'danger' },
      }),
      eventFunctions: eventSpecs(EVENT, {
        breaks: { label: 'breaks', report: 1, value: 'torque' },
      }),
      evaluate(l) {
        const difference = l.p[V] - l.p[W]
        const torque = stiffness * l.x[STATE.twist] + damping * difference
        l.g[EVENT.breaks] = l.mode[0] ? 1 : Math.abs(torque) - v.breaking
        l.dx[STATE.twist] = l.mode[0] ? 0 : difference
        l.q[V] = l.mode[0] ? 0 : torque
        l.q[W] = -l.q[V]
      },
      switch(l, _index, direction) {
        if (direction > 0) l.mode[0] = 1
      },
      observe(l) {
        l.o[OUTPUT.torque] = l.q[V]
        l.c[CONDITION.broken] = l.mode[0] - 0.5
        l.energy[0] = 0.5 * stiffness * l.x[STATE.twist] ** 2
        l.power[Power.stored] = l.mode[0] ? 0 : stiffness * l.x[STATE.twist] * l.dx[STATE.twist]
        l.power[Power.heat] = l.mode[0] ? 0 : damping * (l.p[V] - l.p[W]) ** 2
      },
    }
  },
  describeState: (l, v, show) =>
    l.mode[0]
      ? 'Broken: it passes no torque.'
      : `Passes ${show(l.o[OUTPUT.torque], 'torque')}; it breaks at ${show(v.breaking, 'torque')}.`,
})
