import { stuckContact } from '../faults'
import { angleRate, angleState, shaftAngleParameters } from './shaft-angle'
import { defineKind, quantity, conditionSpecs, indices, outputSpecs, stateSpecs } from '../kind'
import { circle, line } from '../symbol'
import { isInRange, rangeSwitch, switchBox } from './switch'

const STATE = indices('angle')
const OUTPUT = indices('on')
const CONDITION = indices('tripped')

const W = 0

/** On while the cam of the shaft is on its roller: φ̇ = ω/i, from `at` to `at + width`, going off later by the reset range. */
export const shaftLimitSwitch = defineKind({
  name: 'shaft-limit-switch',
  label: 'Limit switch on a shaft',
  family: 'instruments',
  searchTerms: ['limit switch', 'cam switch', 'rotary limit switch', 'angle switch'],
  designationLetter: 'S',
  description: 'Switches while a shaft stands in its range of angles.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft that is watched' }],
  parameters: {
    ...shaftAngleParameters(),
    at: quantity('Switched on at', 'angle', '90 °', -1e3, 1e3),
    width: quantity('over', 'angle', '10 °', 1e-4, 1e3),
    reset: quantity('Reset range', 'angle', '1 °', 0, 10, {
      note: 'how far it must go back to switch off',
    }),
  },
  faults: [stuckContact],
  traits: {
    isOn: isInRange,
    range: ({ at, width, reset }) => [at - reset, at + width + reset],
  },
  symbol: () => ({
    shapes: [
      ...switchBox('G'),
      line([-1.5, 0], [-2, 0]),
      circle(-2.4, 0, 0.4),
      line([-2.8, -0.25], [-4, -0.25]),
      line([-2.8, 0.25], [-4, 0.25]),
    ],
    ports: { W: { x: -4, y: 0, side: 'left' } },
    box: { x: -2.8, y: -1.5, w: 4.3, h: 3 },
  }),
  caption: (v, show) => [show(v.at, 'angle')],
  model(v) {
    const { watch, ...range } = rangeSwitch(v.at, v.width, v.reset)
    return {
      ...range,
      states: stateSpecs(STATE, {
        angle: angleState(v),
      }),
      outputs: outputSpecs(OUTPUT, { on: { label: 'on', quantity: 'ratio' } }),
      conditions: conditionSpecs(CONDITION, {
        tripped: { label: 'on', severity: 'info', begins: 'switches on', ends: 'switches off' },
      }),
      evaluate(l) {
        l.q[W] = 0
        l.dx[STATE.angle] = angleRate(l, v)
        watch(l, l.x[STATE.angle])
      },
      observe(l) {
        l.o[OUTPUT.on] = isInRange(l) ? 1 : 0
        l.c[CONDITION.tripped] = isInRange(l) ? 0.5 : -0.5
      },
    }
  },
  describeState: (l, v, show) =>
    l.o[OUTPUT.on]
      ? `On: the shaft is at ${show(l.x[STATE.angle], 'angle')}.`
      : `Off: the shaft is at ${show(l.x[STATE.angle], 'angle')}, it goes on at ${show(v.at, 'angle')}.`,
})
