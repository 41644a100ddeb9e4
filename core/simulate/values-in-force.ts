/**
 * The values of a component as they are in force at an instant: a parameter that an input commands (a setting, a speed, a load) has the value
 * of that input then, whatever is drawn. What shows or judges a component during a run reads these.
 */
import type { Value } from '../sheet/resolve'

interface Commanded {
  readonly inputs?: readonly { readonly name: string; readonly rest: number | string }[]
}
/** The inputs of a kind that command a parameter: index of the input, and the parameter. */
export const commandedParameters = ({ inputs = [] }: Commanded) =>
  inputs.flatMap(({ rest }, input) => (typeof rest === 'string' ? [{ input, parameter: rest }] : []))

/** @param values as drawn, or as changed in flight @param inputs of the component in the order of its kind, SI */
export function valuesInForce<V extends Readonly<Record<string, Value>>>(
  kind: Commanded,
  values: V,
  inputs: ArrayLike<number>,
): V {
  const commanded = commandedParameters(kind).filter(({ input }) => input < inputs.length)
  if (!commanded.length) return values
  return {
    ...values,
    ...Object.fromEntries(
      commanded.map(({ input, parameter }) => [
        parameter,
        // a switch that a schedule works is drawn as yes or no
        typeof values[parameter] === 'boolean' ? inputs[input] > 0.5 : inputs[input],
      ]),
    ),
  }
}
