import { nameOf } from '../../sheet/schema'
import { contactsOf } from '../expression'
import { possibleTargets } from '../possible'
import type { ControlRule } from './rule'

export const sealInWithoutStop: ControlRule = {
  id: 'seal-in-without-stop',
  reason: 'A relay that holds itself stays in until something opens its path: a person must be able to.',
  check({ read: { program } }) {
    const stops = program.devices.filter(({ type, values }) => type.stopsMotion || values.purpose === 'stop')
    return program.paths.flatMap(({ id, expression, coils }, i) =>
      coils.flatMap((coil) => {
        const target = program.targets[coil]
        if (!('device' in target)) return []
        const { device } = program.devices[target.device]
        const holdsItself = contactsOf(expression).some(
          (c) => c.kind === 'contact' && !c.closed && c.name === device.id,
        )
        if (!holdsItself) return []
        const opened = stops.some((stop) => !possibleTargets(program, new Set([stop.device.id]))[coil])
        if (opened) return []
        return [
          {
            severity: 'warning' as const,
            message: `${nameOf(device)} holds itself in path ${i + 1}, and no stop opens that path.`,
            remedy: 'Put the normally closed contact of a stop in series.',
            location: { control: id },
          },
        ]
      }),
    )
  },
}
