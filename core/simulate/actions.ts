/** What happens to a simulation from outside: a list of actions is a recording that can be replayed. */
import { z } from 'zod'

const at = z.number().min(0).describe('s')
const component = z.string().min(1).max(80)
/** Name of an input, a fault or a parameter. */
const target = z.string().min(1).max(80)

export const actionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ at, kind: z.literal('set'), component, target, value: z.number().describe('SI') }),
  z
    .strictObject({ at, kind: z.literal('release'), component, target })
    .describe('Gives an input back to its schedule.'),
  z.strictObject({
    at,
    kind: z.literal('parameter'),
    component,
    target,
    value: z
      .union([z.string().max(2000), z.boolean(), z.array(z.tuple([z.string(), z.string()]))])
      .describe('As in a sheet file: "95 bar".'),
  }),
  z
    .strictObject({ at, kind: z.literal('longestStep'), value: z.number().positive() })
    .describe('From now on no step is longer, s: how far the integrator may be ahead of what is shown.'),
])
export type Action = z.infer<typeof actionSchema>

/** What an action does, in words with the names of the sheet file: "V1.command = 1", "V3.setting = 95 bar". */
export function actionText(action: Action): string {
  switch (action.kind) {
    case 'set':
      return `${action.component}.${action.target} = ${action.value}`
    case 'release':
      return `${action.component}.${action.target} released`
    case 'parameter':
      return `${action.component}.${action.target} = ${action.value}`
    case 'longestStep':
      return `steps up to ${action.value} s`
  }
}
