import { nameOf } from '../../sheet/schema'
import { contactUses, type ControlRule } from './rule'

export const stopWiredOpen: ControlRule = {
  id: 'stop-wired-open',
  reason:
    'A stop whose contact closes to stop does nothing once its wire is broken (IEC 60204-1, ISO 13850).',
  check({ sheet, read: { program } }) {
    const stops = program.devices.filter(({ type, values }) => type.stopsMotion || values.purpose === 'stop')
    return contactUses(sheet).flatMap(({ ref, closed, owner }) => {
      const stop = stops.find(({ device }) => device.id === ref)
      if (!stop || closed) return []
      const name = nameOf(stop.device)
      return [
        {
          severity: 'warning' as const,
          message: `${name} stops the machine and is wired normally open.`,
          remedy: `Take its normally closed contact: /${name}.`,
          location: { control: owner },
        },
      ]
    })
  },
}
