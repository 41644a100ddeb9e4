import { ATMOSPHERE } from '../../units/quantities'
import { blocked } from '../faults'
import { defineKind, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { tankIndex, tankParameter } from '../tank'
import { line, polygon } from '../symbol'

const OUTPUT = indices('let', 'clogged')
const CONDITION = indices('needed')

/** Index of its fault among the inputs: it has no commands. */
const CLOGGED = 0

/**
 * Lets air in and out as the oil level moves. With the air space V_a taken as tight since the start, the tank would come to
 * p = p_atm·(V_a0/V_a) − p_atm, which is reported. A clogged one shuts in the air that is there then: see OilState.
 */
export const breather = defineKind({
  name: 'breather',
  label: 'Breather',
  family: 'conditioning',
  searchTerms: ['breather', 'air filter', 'filler', 'vent'],
  designationLetter: 'Z',
  description: 'Lets air into the tank and out of it as the level falls and rises, and keeps the dirt out.',
  ports: [],
  parameters: {
    airSpace: quantity('Initial air volume above the oil', 'volume', '30 L', 1e-4, 1000),
    allowed: quantity('Maximum tank pressure', 'pressure', '0.2 bar', 1e3, 5e5, {
      note: 'either way; reported where a clogged breather would pass it',
    }),
    tank: tankParameter(),
  },
  traits: { tankBreather: true },
  faults: [
    {
      ...blocked('clogged'),
      label: 'clogged (the only breather of its tank)',
    },
  ],
  symbol: () => ({
    shapes: [
      polygon('none', [-1, -1.6], [1, -1.6], [0, 0]),
      polygon('paper', [-1.2, 1.2], [0, 0], [1.2, 1.2], [0, 2.4]),
      { ...line([0, 0], [0, 2.4]), dash: 'pilot' },
    ],
    ports: {},
    box: { x: -1.2, y: -1.6, w: 2.4, h: 4 },
  }),
  model(v, fluid) {
    const tank = tankIndex(v)
    const start = fluid.tankVolume
    return {
      breathing: { tank, airSpace: v.airSpace, shut: (l) => l.u[CLOGGED] },
      outputs: outputSpecs(OUTPUT, {
        let: { label: 'air admitted', quantity: 'volume' },
        clogged: { label: 'tank pressure if it were clogged', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        needed: { label: 'clogged, it would overload the tank', severity: 'info', worst: 'clogged' },
      }),
      observe(l) {
        l.o[OUTPUT.let] = start - fluid.tanks[tank]
        const space = Math.max(v.airSpace + l.o[OUTPUT.let], 1e-3 * v.airSpace)
        l.o[OUTPUT.clogged] = ATMOSPHERE * (v.airSpace / space - 1)
        l.c[CONDITION.needed] = Math.abs(l.o[OUTPUT.clogged]) - v.allowed
      },
    }
  },
  describeState: (l, _v, show) =>
    l.o[OUTPUT.let] >= 0
      ? `Has let in ${show(l.o[OUTPUT.let], 'volume')} of air.`
      : `Has let out ${show(-l.o[OUTPUT.let], 'volume')} of air.`,
})
