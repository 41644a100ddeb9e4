import { refsIn } from '../rest-states'
import { contactNames, restStatesOf, type ControlRule } from './rule'

export const pathNeverTrue: ControlRule = {
  id: 'path-never-true',
  reason:
    'A path that never carries current while the control rests does nothing, or flickers as relays change over.',
  check({ sheet, read: { program } }) {
    const rest = restStatesOf(sheet, program)
    return program.paths.flatMap(({ id, expression, coils }, i) => {
      // a relay that breaks its own coil never rests, which another rule says
      const breaksItself = coils.some((coil) => {
        const target = program.targets[coil]
        return 'device' in target && refsIn(expression).includes(program.devices[target.device].device.id)
      })
      if (!expression || !coils.length || breaksItself) return []
      if (rest.find([{ expression, is: true }]) !== 'none') return []
      return [
        {
          severity: 'warning' as const,
          message: `Path ${i + 1} can never carry current at rest: its contacts (${contactNames(sheet, expression)}) are never closed together.`,
          remedy: 'Look for a contact of the wrong relay or switch, or of the wrong kind.',
          location: { control: id },
        },
      ]
    })
  },
}
