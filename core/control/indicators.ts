/** What shows a state to people: lamps and horns. */
import { nameOf, type Sheet } from '../sheet/schema'
import { resolveDevice } from './terminals'

export interface Indicator {
  readonly id: string
  readonly name: string
  /** Signal of a run that is above a half while it is on. */
  readonly signal: string
  readonly colour: string
}

export const indicatorsOf = ({ control }: Sheet): Indicator[] =>
  control.devices.flatMap((device) => {
    const { resolved } = resolveDevice(device)
    if (!resolved || resolved.type.place !== 'operator' || !resolved.type.coils || resolved.type.inputs)
      return []
    return [
      {
        id: device.id,
        name: [nameOf(device), device.label].filter(Boolean).join(' '),
        signal: `${device.id}.current`,
        colour: String(resolved.values.colour ?? 'white'),
      },
    ]
  })
