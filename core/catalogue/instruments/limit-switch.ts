import { stuckContact } from '../faults'
import { defineKind, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { circle, dashed, line } from '../symbol'
import { isInRange, rangeSwitch, switchBox } from './switch'

const OUTPUT = indices('on')
const CONDITION = indices('tripped')

/**
 * On while the rod's cam is on its roller: from `at` to `at + width`; the reset region, by which it goes off later than it went on, lies at both ends.
 */
export const limitSwitch = defineKind({
  name: 'limit-switch',
  label: 'Limit switch',
  family: 'instruments',
  searchTerms: ['limit switch', 'position switch', 'proximity switch', 'end switch', 'lim'],
  designationLetter: 'S',
  description: 'Switches while the rod is in its region, and releases a little later than it operates.',
  ports: [{ name: 'R', domain: 'rod', role: 'rod that is watched' }],
  parameters: {
    at: quantity('Switched on at', 'length', '395 mm', -20, 40, { note: 'position of the rod' }),
    width: quantity('over', 'length', '20 mm', 1e-5, 20),
    reset: quantity('Reset range', 'length', '2 mm', 0, 1, {
      note: 'how far it must go back to switch off',
    }),
  },
  faults: [
    stuckContact,
    {
      name: 'drift',
      label: 'cam offset',
      form: 'drift',
      quantity: 'length',
      min: -1,
      max: 1,
      beforeEvaluate(l, amount) {
        l.p[0] += amount
      },
    },
  ],
  traits: {
    isOn: isInRange,
    range: ({ at, width, reset }) => [at - reset, at + width + reset],
  },
  symbol: () => ({
    shapes: [...switchBox('G'), line([-1.5, 0], [-2, 0]), circle(-2.4, 0, 0.4), dashed([-2.8, 0], [-4, 0])],
    ports: { R: { x: -4, y: 0, side: 'left' } },
    box: { x: -2.8, y: -1.5, w: 4.3, h: 3 },
  }),
  caption: (v, show) => [show(v.at, 'length')],
  model(v) {
    const { watch, ...range } = rangeSwitch(v.at, v.width, v.reset)
    return {
      ...range,
      outputs: outputSpecs(OUTPUT, {
        on: { label: 'on', quantity: 'ratio' },
      }),
      conditions: conditionSpecs(CONDITION, {
        tripped: { label: 'on', severity: 'info', begins: 'switches on', ends: 'switches off' },
      }),
      evaluate(l) {
        l.q[0] = 0
        watch(l, l.p[0])
      },
      observe(l) {
        l.o[OUTPUT.on] = isInRange(l) ? 1 : 0
        l.c[CONDITION.tripped] = isInRange(l) ? 0.5 : -0.5
      },
    }
  },
  describeState: (l, v, show) =>
    l.o[OUTPUT.on]
      ? `On: the rod is at ${show(l.p[0], 'length')}.`
      : `Off: the rod is at ${show(l.p[0], 'length')}, it goes on at ${show(v.at, 'length')}.`,
})
