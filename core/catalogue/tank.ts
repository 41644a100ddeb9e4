/** The sheet has up to two tanks; what stands in or on one says in which. A tank is drawn as often as its lines need. */
import { ATMOSPHERE } from '../units/quantities'
import type { Fluid } from '../fluid/fluid'
import { conditionSpecs, indices, outputSpecs, quantity, type ChoiceParameter, type Model } from './kind'

type Tank = 'first' | 'second'

export const tankParameter = (note?: string) => {
  const choices = { first: 'first tank', second: 'second tank' } as const
  const parameter = { type: 'choice', label: 'Tank', default: 'first', choices, note } as const
  return parameter satisfies ChoiceParameter
}
/** Its place among the tanks of the fluid. */
export const tankIndex = (v: { readonly tank: Tank }) => (v.tank === 'first' ? 0 : 1)

/** Where a line ends. */
export const lineEnd = (label: string) => {
  const choices = { below: 'below the oil level', above: 'above the oil level' } as const
  const parameter = { type: 'choice', label, default: 'below', choices } as const
  return parameter satisfies ChoiceParameter
}
export type LineEnd = 'below' | 'above'

/** Parameters of a tank, however it is drawn. */
export const reservoirParameters = () =>
  ({
    pressure: quantity('Tank pressure', 'pressure', '0 bar', 0, 10e5, {
      note: '0 for a vented tank; the air pressure above the oil for a pressurised one',
    }),
    tank: tankParameter('all symbols of one tank share its oil; how much is in it stands with the fluid'),
    reach: quantity('Air ingestion below', 'volume', '10 L', 1e-5, 100, {
      note: 'oil left in the tank when the end of a line below the level comes out of it',
    }),
  }) as const

interface ReservoirValues {
  readonly pressure: number
  readonly tank: Tank
  readonly reach: number
}

/** The symbols of a tank are one part with one designation; they agree on the pressure above the oil. */
export const reservoirItem = (v: ReservoirValues) => ({
  name: `tank-${v.tank}`,
  agreeing: ['pressure'] as const,
})

const OUTPUT = indices('oil', 'temperature')
const CONDITION = indices('dry')

/** Over this share of the least volume the suction changes from oil to air. */
const MOUTH = 0.05

/**
 * Holds its lines at a pressure: p = p_tank (gauge). A line below the level whose end comes out of the oil draws air: its
 * pressure falls to no pressure at all.
 * @param ends where the line at each port ends
 */
export function reservoirModel(values: ReservoirValues, fluid: Fluid, ends: readonly LineEnd[]): Model {
  const tank = tankIndex(values)
  const { pressure, reach } = values
  const below = ends.includes('below')
  /** 1 where a line below the level ends in oil, 0 where in air. */
  const oiled = () => {
    const s = (fluid.tanks[tank] - reach) / (MOUTH * reach) + 1
    return s < 0 ? 0 : s > 1 ? 1 : s
  }
  return {
    tank,
    ...(below ? { levelMattersBelow: reach } : {}),
    outputs: outputSpecs(OUTPUT, {
      oil: { label: 'oil in the tank', quantity: 'volume' },
      temperature: { label: 'oil temperature', quantity: 'temperature' },
    }),
    conditions: conditionSpecs(CONDITION, {
      dry: { label: 'air ingestion: oil level below the line', severity: 'danger' },
    }),
    impose(l) {
      const over = pressure + fluid.overTank[tank]
      const drawing = over - (over + ATMOSPHERE) * (1 - oiled())
      for (let i = 0; i < ends.length; i++) l.p[i] = ends[i] === 'below' ? drawing : over
    },
    observe(l) {
      l.o[OUTPUT.oil] = fluid.tanks[tank]
      l.o[OUTPUT.temperature] = fluid.temperature
      l.c[CONDITION.dry] = below ? 0.999 - oiled() : -1
    },
  }
}
/** Where `reservoirModel` puts out the oil in the tank. */
export const OIL = OUTPUT.oil
