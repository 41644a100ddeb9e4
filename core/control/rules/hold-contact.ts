import { nameOf } from '../../sheet/schema'
import { refsIn } from '../expression'
import { targetsOf } from '../program'
import { areReleased, momentaryInputs, restStatesOf } from '../rest-states'
import { dependsOn, nameOfRef, type ControlRule } from './rule'

export const holdContactMissing: ControlRule = {
  id: 'hold-contact-missing',
  reason:
    'A relay that a start button pulls in drops out with the button, unless a contact of its own holds it.',
  check({ sheet, read: { program } }) {
    const rest = restStatesOf(sheet, program)
    const released = areReleased(program)
    const starts = new Set(
      program.devices.flatMap(({ device, values }, i) =>
        values.purpose === 'start' && momentaryInputs(program, i).length ? [device.id] : [],
      ),
    )
    return program.paths.flatMap(({ id, expression, coils }) =>
      coils.flatMap((coil) => {
        const target = program.targets[coil]
        if (!('device' in target) || !program.devices[target.device].type.settlesAtStart) return []
        const refs = refsIn(expression)
        const start = refs.find((ref) => starts.has(ref))
        const own = program.devices[target.device].device
        if (start === undefined || refs.includes(own.id)) return []
        // another path may hold it
        if (
          program.paths.some(
            (p) => p.coils.includes(coil) && p.id !== id && refsIn(p.expression).includes(own.id),
          )
        )
          return []
        const name = nameOf(own)
        if (rest.find([{ target: coil, is: true }], released) === 'none')
          return [
            {
              severity: 'warning' as const,
              message: `${name} has no contact that holds it: it drops out when ${nameOfRef(sheet, start)} is released.`,
              remedy: `Put a contact of ${name} beside ${nameOfRef(sheet, start)}, or say that the button is held: its purpose is then another one.`,
              location: { control: id },
            },
          ]
        // what stands in its place follows it, or holds something else
        const others = refs.filter((ref) => {
          const source = program.sources.get(ref)
          if (source?.from !== 'device' || ref === own.id) return false
          return program.devices[source.device].type.settlesAtStart
        })
        const wrong = others.find((ref) => {
          const source = program.sources.get(ref)
          if (source?.from !== 'device') return false
          const [coilOf] = targetsOf(program, source.device)
          if (coilOf === undefined) return false
          const alone = rest.find(
            [
              { target: coil, is: true },
              { target: coilOf, is: true },
            ],
            released,
          )
          const without = rest.find(
            [
              { target: coil, is: true },
              { target: coilOf, is: false },
            ],
            released,
          )
          // it is held by that relay only, which comes without it
          return alone instanceof Map && without === 'none' && !dependsOn(program, coilOf, own.id)
        })
        if (wrong === undefined) return []
        return [
          {
            severity: 'warning' as const,
            message: `${name} is held by a contact of ${nameOfRef(sheet, wrong)}, and not by one of its own: it drops out when ${nameOfRef(sheet, start)} is released, unless ${nameOfRef(sheet, wrong)} is in.`,
            remedy: `Take a contact of ${name} in its place.`,
            location: { control: id },
          },
        ]
      }),
    )
  },
}
