/** The design rules of the control; this list is the only place that knows them all. */
import { coilWithoutPath } from './coil-without-path'
import { deviceWithoutUse } from './device-without-use'
import { emergencyStopIncomplete, noEmergencyStop } from './emergency-stop'
import { holdContactMissing } from './hold-contact'
import { relayNeverRests } from './never-rests'
import { pathNeverTrue } from './never-true'
import type { ControlRule } from './rule'
import { sealInWithoutStop } from './seal-in'
import { startWithoutEffect } from './start-without-effect'
import { stopPastHold } from './stop-past-hold'
import { stopWiredOpen } from './stop-wired-open'

export const controlRules: readonly ControlRule[] = [
  coilWithoutPath,
  deviceWithoutUse,
  stopWiredOpen,
  emergencyStopIncomplete,
  noEmergencyStop,
  sealInWithoutStop,
  startWithoutEffect,
  pathNeverTrue,
  stopPastHold,
  holdContactMissing,
  relayNeverRests,
]
