import { nameOf } from '../../sheet/schema'
import { refsIn } from '../expression'
import { readsItsOwn } from '../program'
import { areReleased, restStatesOf } from '../rest-states'
import { contactNames, dependsOn, targetName, type ControlRule } from './rule'

export const stopPastHold: ControlRule = {
  id: 'stop-without-effect',
  reason:
    'A stop takes the current of what it stands before: the path that keeps a motion on must lead through it.',
  check({ sheet, read: { program } }) {
    const rest = restStatesOf(sheet, program)
    const released = areReleased(program)
    const stops = program.devices.flatMap(({ device, values, type }, index) =>
      values.purpose === 'stop' && !type.stopsMotion ? [{ device, index }] : [],
    )
    return stops.flatMap(({ device, index }) => {
      const before = program.paths.filter(({ expression }) => refsIn(expression).includes(device.id))
      const kept = program.targets.flatMap((target, i) => {
        if (!('component' in target) || !dependsOn(program, i, device.id)) return []
        const found = rest.find([{ target: i, is: true }], (other, stand) =>
          other === index
            ? Object.values(stand.inputs).every((value) => value > 0.5)
            : released(other, stand),
        )
        if (found === 'none' || found === 'unknown') return []
        const holding = before.filter((path) => readsItsOwn(program, path))
        return [{ name: targetName(sheet, program, i), holding }]
      })
      if (!kept.length) return []
      const path = kept.flatMap(({ holding }) => holding)[0] ?? before[0]
      return [
        {
          severity: 'warning' as const,
          message: `With ${nameOf(device)} pressed and every other button released, ${kept.map((k) => k.name).join(' and ')} can keep current: the contacts that hold it lie beside ${nameOf(device)}${path?.expression ? ` (${contactNames(sheet, path.expression)})` : ''}.`,
          remedy: `Put /${nameOf(device)} in series with the hold contact as well, before the branches part.`,
          location: { control: path?.id ?? device.id },
        },
      ]
    })
  },
}
