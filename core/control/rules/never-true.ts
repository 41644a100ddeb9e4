import { readsItsOwn } from '../program'
import { restStatesOf } from '../rest-states'
import { contactNames, type ControlRule } from './rule'

export const pathNeverTrue: ControlRule = {
  id: 'path-never-true',
  reason:
    'A path that never carries current while the control rests does nothing, or flickers as relays change over.',
  check({ sheet, read: { program } }) {
    const rest = restStatesOf(sheet, program)
    return program.paths.flatMap((path, i) => {
      const { id, expression, coils } = path
      // a relay that breaks its own coil never rests, which another rule says
      if (!expression || !coils.length || readsItsOwn(program, path)) return []
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
