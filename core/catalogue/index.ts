/** The list of kinds. Adding a kind is its file and one line here; nothing else knows it by name. */
import type { Kind } from './kind'
import { cylinderDoubleActing } from './actuators/cylinder-double-acting'
import { filter } from './conditioning/filter'
import { checkValve } from './directional/check-valve'
import { directionalValve43 } from './directional/directional-valve-4-3'
import { orifice } from './flow/orifice'
import { throttleCheck } from './flow/throttle-check'
import { pressureGauge } from './instruments/pressure-gauge'
import { plug } from './lines/plug'
import { reliefValveDirect } from './pressure/relief-valve-direct'
import { reliefValvePilotOperated } from './pressure/relief-valve-pilot-operated'
import { electricMotor } from './supply/electric-motor'
import { fixedPump } from './supply/fixed-pump'
import { reservoir } from './supply/reservoir'
import { hydraulicMotor } from './actuators/hydraulic-motor'
import { overCentrePump } from './supply/over-centre-pump'
import { loadSensingPump } from './supply/load-sensing-pump'
import { pilotOperatedCheck } from './directional/pilot-operated-check'
import { sequenceValve } from './pressure/sequence-valve'
import { needleValve } from './flow/needle-valve'
import { pressureSource } from './sources/pressure-source'
import { flowSource } from './sources/flow-source'
import { directionalValve42 } from './directional/directional-valve-4-2'
import { directionalValve32 } from './directional/directional-valve-3-2'
import { directionalValve22 } from './directional/directional-valve-2-2'
import { reliefValveVented } from './pressure/relief-valve-vented'
import { unloadingValve } from './pressure/unloading-valve'
import { counterbalanceValve } from './pressure/counterbalance-valve'
import { reducingValve } from './pressure/reducing-valve'
import { accumulatorGas } from './supply/accumulator-gas'
import { pressureCompensatedPump } from './supply/pressure-compensated-pump'
import { variablePumpManual } from './supply/variable-pump-manual'
import { inductionMotor } from './supply/induction-motor'
import { shuttleValve } from './directional/shuttle-valve'
import { flowControl2Way } from './flow/flow-control-2-way'
import { pressureSwitch } from './instruments/pressure-switch'
import { flowMeter } from './instruments/flow-meter'
import { ballValve } from './directional/ball-valve'
import { cylinderSingleActing } from './actuators/cylinder-single-acting'
import { cylinderDoubleRod } from './actuators/cylinder-double-rod'
import { semiRotary } from './actuators/semi-rotary'
import { proportionalValve } from './directional/proportional-valve'

/** Kinds as the rest of the program handles them: parameter values by name. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each kind's own value type is erased here
export type AnyKind = Kind<any>

const list: readonly AnyKind[] = [
  reservoir,
  electricMotor,
  fixedPump,
  cylinderDoubleActing,
  directionalValve43,
  directionalValve42,
  directionalValve32,
  directionalValve22,
  checkValve,
  reliefValveDirect,
  reliefValvePilotOperated,
  reliefValveVented,
  unloadingValve,
  counterbalanceValve,
  reducingValve,
  throttleCheck,
  orifice,
  filter,
  plug,
  pressureGauge,
  hydraulicMotor,
  overCentrePump,
  loadSensingPump,
  pilotOperatedCheck,
  sequenceValve,
  needleValve,
  accumulatorGas,
  pressureCompensatedPump,
  variablePumpManual,
  inductionMotor,
  shuttleValve,
  flowControl2Way,
  pressureSwitch,
  flowMeter,
  ballValve,
  cylinderSingleActing,
  cylinderDoubleRod,
  semiRotary,
  proportionalValve,
  pressureSource,
  flowSource,
]

export const kinds: ReadonlyMap<string, AnyKind> = new Map(list.map((kind) => [kind.name, kind]))
export const findKind = (name: string): AnyKind | undefined => kinds.get(name)
