/** The list of kinds. Adding a kind is its file and one line here; nothing else knows it by name. */
import type { Kind } from './kind'
import { reservoir } from './supply/reservoir'
import { liftValve } from './directional/lift-valve'
import { shaftCoupling } from './lines/shaft-coupling'
import { thermometer } from './instruments/thermometer'
import { levelGauge } from './instruments/level-gauge'
import { differentialGauge } from './instruments/differential-gauge'
import { speedTransducer } from './instruments/speed-transducer'
import { angleTransducer } from './instruments/angle-transducer'
import { shaftLimitSwitch } from './instruments/shaft-limit-switch'
import { suctionStrainer } from './conditioning/suction-strainer'
import { foreignSupply } from './sources/foreign-supply'
import { continuation } from './sources/continuation'
import { loadLock } from './actuators/load-lock'
import { reservoirWide } from './supply/reservoir-wide'
import { electricMotor } from './supply/electric-motor'
import { fixedPump } from './supply/fixed-pump'
import { overCentrePump } from './supply/over-centre-pump'
import { loadSensingPump } from './supply/load-sensing-pump'
import { accumulatorGas } from './supply/accumulator-gas'
import { pressureCompensatedPump } from './supply/pressure-compensated-pump'
import { variablePumpManual } from './supply/variable-pump-manual'
import { inductionMotor } from './supply/induction-motor'
import { accumulatorSafetyBlock } from './supply/accumulator-safety-block'
import { accumulatorSpring } from './supply/accumulator-spring'
import { accumulatorWeight } from './supply/accumulator-weight'
import { combustionEngine } from './supply/combustion-engine'
import { handPump } from './supply/hand-pump'
import { twoStagePump } from './supply/two-stage-pump'
import { cylinderDoubleActing } from './actuators/cylinder-double-acting'
import { hydraulicMotor } from './actuators/hydraulic-motor'
import { cylinderSingleActing } from './actuators/cylinder-single-acting'
import { cylinderDoubleRod } from './actuators/cylinder-double-rod'
import { cylinderPlunger } from './actuators/cylinder-plunger'
import { cylinderTelescopic } from './actuators/cylinder-telescopic'
import { semiRotary } from './actuators/semi-rotary'
import { brake } from './actuators/brake'
import { hydraulicMotorVariable } from './actuators/hydraulic-motor-variable'
import { rackActuator } from './actuators/rack-actuator'
import { rotatingLoad } from './actuators/rotating-load'
import { winchLoad } from './actuators/winch-load'
import { directionalValve43 } from './directional/directional-valve-4-3'
import { directionalValve42 } from './directional/directional-valve-4-2'
import { directionalValve32 } from './directional/directional-valve-3-2'
import { directionalValve22 } from './directional/directional-valve-2-2'
import { checkValve } from './directional/check-valve'
import { hoseRuptureValve } from './directional/hose-rupture-valve'
import { pilotOperatedCheck } from './directional/pilot-operated-check'
import { shuttleValve } from './directional/shuttle-valve'
import { ballValve } from './directional/ball-valve'
import { proportionalValve } from './directional/proportional-valve'
import { bankOutlet } from './directional/bank-outlet'
import { directionalValve53 } from './directional/directional-valve-5-3'
import { doublePilotCheck } from './directional/double-pilot-check'
import { pilotToCloseCheck } from './directional/pilot-to-close-check'
import { poppetValve } from './directional/poppet-valve'
import { loadSensingSection } from './directional/load-sensing-section'
import { valveSection } from './directional/valve-section'
import { reliefValveDirect } from './pressure/relief-valve-direct'
import { reliefValvePilotOperated } from './pressure/relief-valve-pilot-operated'
import { reliefValveVented } from './pressure/relief-valve-vented'
import { unloadingValve } from './pressure/unloading-valve'
import { counterbalanceValve } from './pressure/counterbalance-valve'
import { reducingValve } from './pressure/reducing-valve'
import { sequenceValve } from './pressure/sequence-valve'
import { backPressureValve } from './pressure/back-pressure-valve'
import { crossPortRelief } from './pressure/cross-port-relief'
import { loadUnloadingValve } from './pressure/load-unloading-valve'
import { pressureCompensator } from './pressure/pressure-compensator'
import { reliefValveProportional } from './pressure/relief-valve-proportional'
import { reliefValveTwoStage } from './pressure/relief-valve-two-stage'
import { shockValve } from './pressure/shock-valve'
import { throttleCheck } from './flow/throttle-check'
import { orifice } from './flow/orifice'
import { needleValve } from './flow/needle-valve'
import { flowControl2Way } from './flow/flow-control-2-way'
import { decelerationValve } from './flow/deceleration-valve'
import { flowControl3Way } from './flow/flow-control-3-way'
import { flowDividerGear } from './flow/flow-divider-gear'
import { flowDividerSpool } from './flow/flow-divider-spool'
import { priorityValve } from './flow/priority-valve'
import { proportionalThrottle } from './flow/proportional-throttle'
import { filter } from './conditioning/filter'
import { breather } from './conditioning/breather'
import { cooler } from './conditioning/cooler'
import { diffuser } from './conditioning/diffuser'
import { heater } from './conditioning/heater'
import { plug } from './lines/plug'
import { burst } from './lines/burst'
import { enclosure } from './lines/enclosure'
import { note } from './lines/note'
import { quickCoupling } from './lines/quick-coupling'
import { rotaryJoint } from './lines/rotary-joint'
import { testPoint } from './lines/test-point'
import { pressureGauge } from './instruments/pressure-gauge'
import { pressureSwitch } from './instruments/pressure-switch'
import { flowMeter } from './instruments/flow-meter'
import { flowTransducer } from './instruments/flow-transducer'
import { gaugeWithShutOff } from './instruments/gauge-with-shut-off'
import { levelSwitch } from './instruments/level-switch'
import { loadCell } from './instruments/load-cell'
import { limitSwitch } from './instruments/limit-switch'
import { positionTransducer } from './instruments/position-transducer'
import { pressureTransducer } from './instruments/pressure-transducer'
import { temperatureSwitch } from './instruments/temperature-switch'
import { temperatureTransducer } from './instruments/temperature-transducer'
import { pressureSource } from './sources/pressure-source'
import { flowSource } from './sources/flow-source'

/** Kinds as the rest of the program handles them: parameter values by name. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each kind's own value type is erased here
export type AnyKind = Kind<any>

const list: readonly AnyKind[] = [
  reservoir,
  reservoirWide,
  electricMotor,
  fixedPump,
  overCentrePump,
  loadSensingPump,
  accumulatorGas,
  pressureCompensatedPump,
  variablePumpManual,
  inductionMotor,
  accumulatorSafetyBlock,
  accumulatorSpring,
  accumulatorWeight,
  combustionEngine,
  handPump,
  twoStagePump,
  cylinderDoubleActing,
  hydraulicMotor,
  cylinderSingleActing,
  cylinderDoubleRod,
  cylinderPlunger,
  cylinderTelescopic,
  semiRotary,
  brake,
  loadLock,
  hydraulicMotorVariable,
  rackActuator,
  rotatingLoad,
  winchLoad,
  directionalValve43,
  liftValve,
  directionalValve42,
  directionalValve32,
  directionalValve22,
  checkValve,
  hoseRuptureValve,
  pilotOperatedCheck,
  shuttleValve,
  ballValve,
  proportionalValve,
  bankOutlet,
  directionalValve53,
  doublePilotCheck,
  pilotToCloseCheck,
  poppetValve,
  valveSection,
  loadSensingSection,
  reliefValveDirect,
  reliefValvePilotOperated,
  reliefValveVented,
  unloadingValve,
  counterbalanceValve,
  reducingValve,
  sequenceValve,
  backPressureValve,
  crossPortRelief,
  loadUnloadingValve,
  pressureCompensator,
  reliefValveProportional,
  reliefValveTwoStage,
  shockValve,
  throttleCheck,
  orifice,
  needleValve,
  flowControl2Way,
  decelerationValve,
  flowControl3Way,
  flowDividerGear,
  flowDividerSpool,
  priorityValve,
  proportionalThrottle,
  filter,
  suctionStrainer,
  breather,
  cooler,
  diffuser,
  heater,
  plug,
  burst,
  enclosure,
  note,
  quickCoupling,
  rotaryJoint,
  shaftCoupling,
  testPoint,
  pressureGauge,
  differentialGauge,
  pressureSwitch,
  flowMeter,
  flowTransducer,
  gaugeWithShutOff,
  levelSwitch,
  levelGauge,
  limitSwitch,
  shaftLimitSwitch,
  loadCell,
  positionTransducer,
  speedTransducer,
  angleTransducer,
  pressureTransducer,
  temperatureSwitch,
  temperatureTransducer,
  thermometer,
  pressureSource,
  flowSource,
  foreignSupply,
  continuation,
]

export const kinds: ReadonlyMap<string, AnyKind> = new Map(list.map((kind) => [kind.name, kind]))
/** The kind that has a role on the sheet. */
export function kindInRole(role: NonNullable<AnyKind['role']>): AnyKind {
  const kind = list.find((each) => each.role === role)
  if (!kind) throw new Error(`No kind has the role "${role}".`)
  return kind
}
export const findKind = (name: string): AnyKind | undefined => kinds.get(name)
