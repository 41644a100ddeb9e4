/** All cards, in the order in which they are worked through. */
import type { Card } from '../card'
import { linearLoad } from './load/linear-load'
import { consumer } from './load/consumer'
import { sheetLoad } from './load/sheet-load'
import { rotaryLoad } from './load/rotary-load'
import { winchLoad } from './load/winch-load'
import { cylinderBore } from './cylinder/cylinder-bore'
import { telescopicStages } from './cylinder/telescopic-stages'
import { cylinderBuckling } from './cylinder/cylinder-buckling'
import { cylinderMotion } from './cylinder/cylinder-motion'
import { cylinderVolumes } from './cylinder/cylinder-volumes'
import { cylinderCushion } from './cylinder/cylinder-cushion'
import { cylinderFrequency } from './cylinder/cylinder-frequency'
import { cylinderDrift } from './cylinder/cylinder-drift'
import { cylinderRegenerative } from './cylinder/cylinder-regenerative'
import { cylinderResult } from './cylinder/cylinder-result'
import { motorResult } from './rotary/motor-result'
import { motorDisplacement } from './rotary/motor-displacement'
import { semiRotary } from './rotary/semi-rotary'
import { motorBraking } from './rotary/motor-braking'
import { workingPressure } from './load/working-pressure'
import { pumpDisplacement } from './pump/pump-displacement'
import { compensatedPump } from './pump/compensated-pump'
import { highLowPump } from './pump/high-low-pump'
import { loadSensing } from './pump/load-sensing'
import { closedCircuitPump } from './pump/closed-circuit-pump'
import { chargePump } from './pump/charge-pump'
import { handPump } from './pump/hand-pump'
import { pumpInlet } from './pump/pump-inlet'
import { electricMotor } from './pump/electric-motor'
import { accumulatorStrokes } from './accumulator/accumulator-strokes'
import { accumulatorVolume } from './accumulator/accumulator-volume'
import { accumulatorCycle } from './accumulator/accumulator-cycle'
import { accumulatorPulsation } from './accumulator/accumulator-pulsation'
import { prechargeTemperature } from './accumulator/precharge-temperature'
import { reliefSetting } from './valve/relief-setting'
import { directionalValve } from './valve/directional-valve'
import { sequenceSetting } from './valve/sequence-setting'
import { counterbalance } from './valve/counterbalance'
import { pilotCheck } from './valve/pilot-check'
import { flowControl } from './valve/flow-control'
import { pressureSwitch } from './valve/pressure-switch'
import { reducingValve } from './valve/reducing-valve'
import { linePressure } from './line/line-pressure'
import { lineReturn } from './line/line-return'
import { lineDrain } from './line/line-drain'
import { lineLoss } from './line/line-loss'
import { lineWall } from './line/line-wall'
import { waterHammer } from './line/water-hammer'
import { hoseLength } from './line/hose-length'
import { tankVolume } from './tank/tank-volume'
import { heatInput } from './tank/heat-input'
import { heatBalance } from './tank/heat-balance'
import { filterSize } from './tank/filter-size'
import { oilViscosity } from './tank/viscosity'
import { pressureLevels } from './load/pressure-levels'
import { highestPressures } from './load/highest-pressures'
import { cylinderForce } from './cylinder/cylinder-force'
import { rmsPower } from './pump/rms-power'
import { reliefOverride } from './valve/relief-override'
import { temperatureTime } from './tank/temperature-time'
import { tubeOutside } from './line/tube-outside'
import { lineTypes } from './line/line-types'
import { holdingBrake } from './rotary/holding-brake'

export const cards: readonly Card[] = [
  linearLoad,
  sheetLoad,
  consumer,
  rotaryLoad,
  winchLoad,
  pressureLevels,
  cylinderBore,
  telescopicStages,
  cylinderBuckling,
  cylinderMotion,
  cylinderVolumes,
  cylinderCushion,
  cylinderFrequency,
  cylinderDrift,
  cylinderRegenerative,
  cylinderResult,
  cylinderForce,
  motorDisplacement,
  semiRotary,
  motorResult,
  motorBraking,
  holdingBrake,
  workingPressure,
  pumpDisplacement,
  compensatedPump,
  highLowPump,
  loadSensing,
  closedCircuitPump,
  chargePump,
  handPump,
  pumpInlet,
  electricMotor,
  rmsPower,
  accumulatorStrokes,
  accumulatorVolume,
  accumulatorCycle,
  accumulatorPulsation,
  prechargeTemperature,
  reliefSetting,
  reliefOverride,
  directionalValve,
  sequenceSetting,
  counterbalance,
  pilotCheck,
  flowControl,
  pressureSwitch,
  reducingValve,
  highestPressures,
  linePressure,
  lineReturn,
  lineDrain,
  lineLoss,
  lineWall,
  tubeOutside,
  lineTypes,
  waterHammer,
  hoseLength,
  tankVolume,
  heatInput,
  heatBalance,
  temperatureTime,
  filterSize,
  oilViscosity,
]

export const findCard = (id: string): Card | undefined => cards.find((card) => card.id === id)
