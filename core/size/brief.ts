/** What the machine must do: the values from which everything is sized. */
import { z } from 'zod'
import { quantity, type Parameter, type Values } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'
import { readParameter, type Value } from '../sheet/resolve'

const motion = { group: 'Motion' }
const load = { group: 'Load' }
const choices = { group: 'Decisions' }

export const briefParameters = {
  stroke: quantity('Stroke', 'length', '600 mm', 1e-3, 20, motion),
  advanceTime: quantity('Time to advance', 'time', '6 s', 0.05, 3600, motion),
  returnTime: quantity('Time to return', 'time', '5 s', 0.05, 3600, motion),
  pressForce: quantity('Maximum force, extending', 'force', '60 kN', 1, 1e8, {
    ...load,
    note: 'at the end of the pressing stroke',
  }),
  returnForce: quantity('Force, retracting', 'force', '4 kN', 0, 1e8, load),
  mass: quantity('Moved mass', 'mass', '450 kg', 0.1, 1e7, load),
  pressStroke: quantity('Stroke over which the force rises', 'length', '150 mm', 1e-4, 20, {
    ...load,
    note: 'the last part of the stroke, from no force to the greatest',
  }),
  bucklingLength: quantity('Free buckling length factor', 'ratio', '1', 0.5, 2, {
    ...load,
    note: '0.5 both ends fixed, 0.7 one fixed one pivoted, 1 both pivoted, 2 one end free',
  }),
  rodOverhang: quantity('Additional buckling length', 'length', '250 mm', 0, 10, {
    ...load,
    note: 'added to the stroke for the length that can buckle',
  }),
  bucklingSafety: quantity('Safety against buckling', 'ratio', '3.5', 1, 10, choices),
  workingPressure: quantity('Maximum working pressure', 'pressure', '160 bar', 5e5, 700e5, choices),
  lineLoss: quantity('Pressure loss to the cylinder', 'pressure', '10 bar', 0, 100e5, {
    ...choices,
    note: 'valve and lines, at full flow',
  }),
  backPressure: quantity('Back pressure on the other side', 'pressure', '5 bar', 0, 200e5, choices),
  reliefMargin: quantity('Relief above working pressure', 'share', '10 %', 0, 1, {
    ...choices,
    note: 'cracking pressure above the working pressure, so that no oil is lost while it works',
  }),
  reliefOverride: quantity('Relief override', 'share', '20 %', 0.005, 0.6, {
    ...choices,
    note: 'about 20 % direct-acting, 6 % pilot-operated',
  }),
  settingAt: {
    type: 'choice',
    label: 'Relief setting defined at',
    group: 'Decisions',
    default: 'ratedFlow',
    choices: { ratedFlow: 'rated flow', cracking: 'cracking' },
  },
  shaftSpeed: quantity('Shaft speed', 'rotationalSpeed', '1500 rpm', 1, 1000, choices),
  cylinderEfficiency: quantity('Cylinder efficiency', 'share', '93 %', 0.3, 1, {
    group: 'Efficiencies',
    note: 'seal friction',
  }),
  volumetricEfficiency: quantity('Pump, volumetric', 'share', '92 %', 0.3, 1, { group: 'Efficiencies' }),
  hydromechanicalEfficiency: quantity('Pump, hydro-mechanical', 'share', '92 %', 0.3, 1, {
    group: 'Efficiencies',
  }),
} as const satisfies Record<string, Parameter>

export type BriefValues = Values<typeof briefParameters>

export const briefSchema = z.strictObject({
  purpose: z.string().max(4000).default('').describe('What the machine must do, in which order.'),
  never: z.string().max(4000).default('').describe('What must never happen.'),
  onLoss: z.string().max(4000).default('').describe('What happens when power or oil is lost.'),
  values: z.record(z.string().max(64), z.string().max(60)).default({}),
})
export type Brief = z.infer<typeof briefSchema>

/** Reads a brief's values; each problem names its field in `place.parameter`. */
export function resolveBrief(brief: Brief): { values?: BriefValues; problems: Finding[] } {
  const problems: Finding[] = []
  const values: Record<string, Value> = {}
  const add = (parameter: string, message: string) =>
    problems.push({ rule: 'brief', severity: 'error', message, location: { parameter } })
  for (const [name, parameter] of Object.entries(briefParameters)) {
    const read = readParameter(parameter, brief.values[name])
    if ('message' in read) add(name, read.message)
    else values[name] = read.value
  }
  if (!problems.length && (values.pressStroke as number) > (values.stroke as number))
    add('pressStroke', 'The force cannot rise over more than the whole stroke.')
  if (!problems.length && (values.workingPressure as number) <= (values.lineLoss as number))
    add('lineLoss', 'The losses take the whole working pressure.')
  return problems.length ? { problems } : { values: values as unknown as BriefValues, problems }
}
