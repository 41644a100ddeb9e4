import { nameOf } from '../../sheet/schema'
import { possibleMotion } from '../possible'
import { Names, offeredCoils, sheetInputs } from '../terminals'
import type { ControlRule } from './rule'

export const emergencyStopIncomplete: ControlRule = {
  id: 'emergency-stop-incomplete',
  reason: 'Pressed, an emergency stop takes the current of everything that moves (ISO 13850).',
  check({ sheet, read: { program } }) {
    const names = new Names([...offeredCoils(sheet), ...sheetInputs(sheet, 'signal')])
    return program.devices
      .filter(({ type }) => type.stopsMotion)
      .flatMap(({ device }) => {
        const left = possibleMotion(program, new Set([device.id]))
        if (!left.length) return []
        return [
          {
            severity: 'warning' as const,
            message: `With ${nameOf(device)} pressed, ${left.map(names.nameOf).join(', ')} can still have current.`,
            remedy: `Put /${nameOf(device)}, or a contact of a relay that it drops, in series with it.`,
            location: { control: device.id },
          },
        ]
      })
  },
}
export const noEmergencyStop: ControlRule = {
  id: 'no-emergency-stop',
  reason: 'Whoever sees danger must be able to stop the machine at once.',
  check({ sheet, read: { program } }) {
    if (!program.targets.some((t) => 'component' in t) && !program.driving.length) return []
    if (program.devices.some(({ type }) => type.stopsMotion)) return []
    if (!sheet.control.rungs.length && !sheet.control.sequences.length) return []
    return [
      {
        severity: 'warning',
        message: 'The control has no emergency stop.',
        remedy:
          'Place one, and put its normally closed contact before everything that moves; or say why there is none.',
        location: {},
      },
    ]
  },
}
