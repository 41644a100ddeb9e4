/** All types of control devices; this list is the only place that knows them all. */
import type { DeviceType } from '../device'
import { alarm } from './alarm'
import { counter } from './counter'
import { emergencyStop } from './emergency-stop'
import { horn, lamp } from './indicator'
import { positionController } from './position-controller'
import { pushButton } from './push-button'
import { contactor, relay } from './relay'
import { selector } from './selector'
import { supply } from './supply'
import { timer } from './timer'
import { valueContact } from './value-contact'

// a type is used with the values that were read by its own parameters
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyDeviceType = DeviceType<any>
export const deviceTypes: readonly AnyDeviceType[] = [
  pushButton,
  emergencyStop,
  selector,
  relay,
  contactor,
  timer,
  counter,
  lamp,
  horn,
  alarm,
  positionController,
  valueContact,
  supply,
]
export const findDeviceType = (name: string): AnyDeviceType | undefined =>
  deviceTypes.find((type) => type.name === name)
