/** Inputs that several cards share. */
import { speedControls, type Holding } from './brief/brief'
import { choice, input, option, step, trade } from './card'
import type { LineService } from './lines'

/** How the machine is supplied: 0 and 1 are fixed pumps, which set the speed of what they drive. */
export const supplyInput = (note?: string) =>
  option(
    '',
    'Supplied by',
    'ratio',
    {
      fixedPump: [0, 'a fixed pump'],
      highLow: [1, 'a high–low pump'],
      compensated: [2, 'a pressure-compensated pump'],
      loadSensing: [3, 'a load-sensing pump'],
      closedCircuit: [4, 'a closed circuit'],
      accumulator: [5, 'an accumulator'],
    },
    'fixedPump',
    { from: 'brief.supply', note },
  )

/** Viscosity of the oil at its two reference temperatures. */
export const viscosityInputs = {
  viscosity40: input('ν₄₀', 'Viscosity at 40 °C', 'viscosity', '46 mm²/s', 1e-6, 1e-3, {
    from: 'brief.viscosity40',
  }),
  viscosity100: input('ν₁₀₀', 'Viscosity at 100 °C', 'viscosity', '6.8 mm²/s', 1e-6, 1e-3, {
    from: 'brief.viscosity100',
  }),
}

/** Bore of tube and hose for a velocity: what the cards of lines have after their flow. */
export const boreVariables = (velocity: string, note: string, service: LineService) => ({
  velocity: input('v₀', 'Velocity that is allowed', 'speed', velocity, 0.05, 15, { note }),
  boreNeeded: step('d₀', 'Bore needed', 'length', 'sqrt(4 * flow / (pi * velocity))', {
    trade: trade('sqrt(0.4085 * flow / velocity)', 'in', { flow: 'gpm', velocity: 'ft/s' }),
  }),
  bore: choice('d', 'Bore of the tube', 'length', 'pipeBores', 'boreNeeded', { service, atLeast: true }),
  hose: choice('d_h', 'Hose', 'length', 'hoseBores', 'boreNeeded'),
  speed: step('v', 'Velocity in the tube', 'speed', '4 * flow / (pi * bore^2)', {
    trade: trade('0.4085 * flow / bore^2', 'ft/s', { flow: 'gpm', bore: 'in' }),
  }),
})

/** The kind of a cylinder, of which area and flow depend. */
export const cylinderKind = () =>
  option(
    '',
    'Cylinder',
    'ratio',
    {
      doubleActing: [0, 'double-acting, one rod'],
      doubleRod: [1, 'double-acting, two rods'],
      singleActing: [2, 'single-acting'],
      plunger: [3, 'plunger'],
      telescopic: [4, 'telescopic'],
    },
    'doubleActing',
    { from: 'motion.actuator' },
  )

/** In which direction workpiece and load table are met: 0 out, 1 back. */
export const workWayOption = () =>
  option('', 'Workpiece met', 'ratio', { out: [0, 'going out'], back: [1, 'coming back'] }, 'out', {
    from: 'motion.workWay',
  })

/** What holds a motion, as it is compared in formulas. */
const HELD: Readonly<Record<Holding, readonly [value: number, label: string]>> = {
  none: [0, 'nothing'],
  spool: [1, 'a closed spool'],
  pilotCheck: [2, 'a pilot-operated check valve'],
  counterbalance: [3, 'a counterbalance valve'],
  brake: [4, 'a brake'],
  lock: [5, 'a mechanical lock'],
  brakeAndValve: [6, 'a brake, and lowered by a counterbalance valve'],
}
export const holdingOption = () => option('', 'Held by', 'ratio', HELD, 'spool', { from: 'motion.holding' })

/** 1 where somebody may be under or in front of what moves. */
export const peopleOption = () =>
  option('', 'People under or in front of it', 'ratio', { no: [0, 'no'], yes: [1, 'yes'] }, 'no', {
    from: 'motion.people',
  })

/** Where flow controls limit the speed: 0 nowhere, 1 out, 2 back, 3 both ways; 4 only somebody who leads it. */
export const speedControlOption = () =>
  option(
    '',
    'Speed limited by',
    'ratio',
    {
      none: [0, speedControls.none],
      out: [1, speedControls.out],
      back: [2, speedControls.back],
      both: [3, speedControls.both],
      lever: [4, speedControls.lever],
    },
    'none',
    { from: 'motion.speedControl' },
  )
