/** What happens to a simulation from outside: a list of actions is a recording that can be replayed. */
import type { RawValue } from '../sheet/resolve'

export type Action =
  | {
      /** s */
      readonly at: number
      readonly kind: 'set'
      readonly component: string
      /** Name of an input, or of a fault. */
      readonly target: string
      /** SI */
      readonly value: number
    }
  | {
      readonly at: number
      /** Gives an input back to its schedule. */
      readonly kind: 'release'
      readonly component: string
      readonly target: string
    }
  | {
      readonly at: number
      readonly kind: 'parameter'
      readonly component: string
      /** Name of a parameter. */
      readonly target: string
      /** As in a sheet file: "95 bar". */
      readonly value: RawValue
    }
