/** The alarm panel of a run: which alarms stand at an instant, since when, and which came first. */
import { nameOf, type Sheet } from '../sheet/schema'
import { sampleAt, signalIndex, type RunResult } from '../simulate/result'
import { ALARM } from './devices/alarm'
import { resolveDevice } from './terminals'

export interface StandingAlarm {
  readonly id: string
  readonly name: string
  readonly severity: 'early' | 'trip'
  readonly state: 'unacknowledged' | 'acknowledged' | 'gone'
  /** s */
  readonly since: number
  /** It came while no other stood. */
  readonly first: boolean
}
const STATES = ['clear', 'unacknowledged', 'acknowledged', 'gone'] as const

/** Devices of the alarm panel. */
export const alarmDevices = ({ control }: Sheet) =>
  control.devices.flatMap((device) => {
    const { resolved } = resolveDevice(device)
    return resolved?.type.name === 'alarm' ? [resolved] : []
  })

/** Alarms that stand at an instant, the one that came first at the top. @param t s */
export function alarmsAt(
  sheet: Sheet,
  result: Pick<RunResult, 'times' | 'columns' | 'signals'>,
  t: number,
): StandingAlarm[] {
  const { index } = sampleAt(result.times, t)
  const standing = alarmDevices(sheet).flatMap(({ device, values }) => {
    const column = result.columns[signalIndex(result, `${device.id}.state`)]
    const state = STATES[Math.round(column?.[index] ?? ALARM.clear)]
    if (!column || state === 'clear') return []
    let from = index
    while (from > 0 && column[from - 1] !== ALARM.clear) from--
    return [
      {
        id: device.id,
        name: device.label || nameOf(device),
        severity: values.severity as StandingAlarm['severity'],
        state,
        since: result.times[from],
      },
    ]
  })
  const earliest = Math.min(...standing.map(({ since }) => since))
  return standing
    .map((a) => ({ ...a, first: standing.length > 1 && a.since === earliest }))
    .sort((a, b) => a.since - b.since)
}
