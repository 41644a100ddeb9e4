/** Designations: one for a part, and a part for one. */
import { readParameter } from '../sheet/resolve'
import { nameOf, type SheetComponent } from '../sheet/schema'
import { itemOf } from '../sheet/shared-item'
import type { Parameter } from '../catalogue/kind'
import type { RefusingRule, Rule } from './rule'

export const designationTwice: Rule = {
  id: 'designation-twice',
  reason: 'Parts list, labels on the machine and circuit diagram find a part by its designation alone.',
  check({ netlist }) {
    const first = new Map<string, SheetComponent>()
    return netlist.components.flatMap(({ component, kind }) => {
      if (kind.excludedFromPartsList || !component.designation) return []
      const other = first.get(component.designation)
      if (!other) {
        first.set(component.designation, component)
        return []
      }
      const item = itemOf(component)?.name
      if (item !== undefined && itemOf(other)?.name === item) return []
      return [
        {
          severity: 'warning' as const,
          message: `${component.designation} stands at two parts (${other.id} and ${component.id}).`,
          remedy: 'Give one of them another designation.',
          location: { component: component.id },
        },
      ]
    })
  },
}

export const onePart: RefusingRule = {
  refuses: true,
  id: 'one-part',
  reason: 'A tank may be drawn as often as is useful; it remains one tank with one designation.',
  check({ netlist }) {
    const first = new Map<string, (typeof netlist.components)[number]>()
    return netlist.components.flatMap((resolved) => {
      const { component, kind, values } = resolved
      const item = itemOf(component)
      if (!item) return []
      const other = first.get(item.name)
      if (!other) {
        first.set(item.name, resolved)
        return []
      }
      const found = []
      if (other.component.designation !== component.designation)
        found.push({
          severity: 'warning' as const,
          message: `${nameOf(other.component)} and ${nameOf(component)} are one part with two designations.`,
          remedy: `Write ${nameOf(other.component)} at both, or make them different tanks.`,
          location: { component: component.id },
        })
      for (const parameter of item.agreeing) {
        if (values[parameter] === other.values[parameter]) continue
        const written = other.component.parameters[parameter]
        const usual = (kind.parameters as Record<string, Parameter>)[parameter]
        const value = written ?? ('default' in usual ? String(usual.default) : '')
        found.push({
          severity: 'error' as const,
          message: `${kind.label} ${nameOf(component)} is the same part as ${other.component.id}, with another value: ${usual.label}.`,
          remedy: 'Give both symbols the same value, or make them different parts.',
          location: { component: component.id, parameter },
          ...(typeof value === 'string' && 'value' in readParameter(usual, value)
            ? {
                fix: {
                  label: `Set to ${value}`,
                  does: 'setParameter' as const,
                  component: component.id,
                  parameter,
                  value,
                },
              }
            : {}),
        })
      }
      return found
    })
  },
}
