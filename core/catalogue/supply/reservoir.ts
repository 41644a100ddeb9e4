import { ATMOSPHERE } from '../../units/quantities'
import { yesNo } from '../faults'
import { defineKind, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { tankIndex, tankParameter } from '../tank'
import { line } from '../symbol'

const OUTPUT = indices('oil', 'temperature')
const CONDITION = indices('dry')

/** Over this share of the least volume the suction changes from oil to air. */
const MOUTH = 0.05

/**
 * Holds its line at a pressure: p = p_tank (gauge). Any number on a sheet are one tank drawn often, or two.
 * A line below the level whose end comes out of the oil draws air: its pressure falls to no pressure at all.
 */
export const reservoir = defineKind({
  name: 'reservoir',
  label: 'Reservoir',
  family: 'supply',
  searchTerms: ['tank', 'oil tank', 'return to tank', 'res'],
  designationLetter: 'Z',
  description: 'The oil tank. Draw it wherever a line starts from or returns to tank.',
  ports: [{ name: 'T', domain: 'oil', role: 'line to the tank', imposes: true }],
  parameters: {
    pressure: quantity('Tank pressure', 'pressure', '0 bar', 0, 10e5, {
      note: '0 for a vented tank; the air pressure above the oil for a pressurised one',
    }),
    line: {
      type: 'choice',
      label: 'Line ends',
      default: 'below',
      choices: { below: 'below the oil level', above: 'above the oil level' },
    },
    tank: tankParameter('all reservoirs of one tank share its oil; how much is in it stands with the fluid'),
    reach: quantity('Air ingestion below', 'volume', '10 L', 1e-5, 100, {
      note: 'oil left in the tank when the end of a line below the level comes out of it',
    }),
  },
  traits: { tankPorts: ['T'] },
  faults: [
    {
      name: 'lost',
      label: 'line torn off: air ingestion',
      form: 'lost',
      ...yesNo,
      afterImpose(l, amount) {
        if (amount > 0.5) l.p[0] = -ATMOSPHERE
      },
    },
  ],
  symbol: (values) => ({
    shapes: [
      line([-2, -1], [-2, 1], [2, 1], [2, -1]),
      line([0, -2], values.line === 'below' ? [0, 0.5] : [0, -1]),
      ...(values.pressure > 0 ? [line([-2, -1], [2, -1])] : []),
    ],
    ports: { T: { x: 0, y: -2, side: 'up' } },
    box: { x: -2, y: -1.2, w: 4, h: 2.2 },
  }),
  model(values, fluid) {
    const tank = tankIndex(values)
    const below = values.line === 'below'
    /** 1 where the line ends in oil, 0 where in air. */
    const oiled = () => {
      const s = (fluid.tanks[tank] - values.reach) / (MOUTH * values.reach) + 1
      return s < 0 ? 0 : s > 1 ? 1 : s
    }
    return {
      tank,
      ...(below ? { levelMattersBelow: values.reach } : {}),
      outputs: outputSpecs(OUTPUT, {
        oil: { label: 'oil in the tank', quantity: 'volume' },
        temperature: { label: 'oil temperature', quantity: 'temperature' },
      }),
      conditions: conditionSpecs(CONDITION, {
        dry: { label: 'air ingestion: oil level below the line', severity: 'danger' },
      }),
      impose(l) {
        const over = values.pressure + fluid.overTank[tank]
        l.p[0] = below ? over - (over + ATMOSPHERE) * (1 - oiled()) : over
      },
      observe(l) {
        l.o[OUTPUT.oil] = fluid.tanks[tank]
        l.o[OUTPUT.temperature] = fluid.temperature
        l.c[CONDITION.dry] = below ? 0.999 - oiled() : -1
      },
    }
  },
  describeState: (l, _values, show) =>
    `${l.q[0] >= 0 ? `Takes back ${show(l.q[0], 'flow')} from` : `Gives ${show(-l.q[0], 'flow')} to`} this line; ${show(l.o[OUTPUT.oil], 'volume')} in the tank.`,
})
