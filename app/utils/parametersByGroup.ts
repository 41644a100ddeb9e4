import type { Parameter, Parameters } from '@oar-bench/core/catalogue/kind'

/** Parameters with their names under the headings of their groups; those without a group have the heading ''. */
export function parametersByGroup(parameters: Parameters): [string, [string, Parameter][]][] {
  const groups = new Map<string, [string, Parameter][]>()
  for (const [name, parameter] of Object.entries(parameters)) {
    const group = parameter.group ?? ''
    groups.set(group, [...(groups.get(group) ?? []), [name, parameter]])
  }
  return [...groups.entries()]
}
