/** Inputs that several cards share. */
import { holdings, speedControls, workWays, type Holding } from './brief/brief'
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

/** Options of a card out of the words of the brief, with the numbers by which formulas know them. */
export const optionsOf = <T extends string>(
  words: Readonly<Record<T, string>>,
  numbers: Readonly<Record<T, number>>,
): Record<string, readonly [value: number, label: string]> =>
  Object.fromEntries((Object.keys(numbers) as T[]).map((name) => [name, [numbers[name], words[name]]]))

/** In which direction workpiece and load table are met: 0 out, 1 back. */
export const workWayOption = () =>
  option('', 'Workpiece met', 'ratio', optionsOf(workWays, { out: 0, back: 1 }), 'out', {
    from: 'motion.workWay',
  })

/** What holds a motion, as it is compared in formulas. */
const HELD: Readonly<Record<Holding, number>> = {
  none: 0,
  spool: 1,
  pilotCheck: 2,
  counterbalance: 3,
  brake: 4,
  lock: 5,
  brakeAndValve: 6,
}
export const holdingOption = () =>
  option('', 'Held by', 'ratio', optionsOf(holdings, HELD), 'spool', { from: 'motion.holding' })

/** 1 where people may be under or in front of what moves. */
export const peopleOption = () =>
  option('', 'People under or in front of it', 'ratio', { no: [0, 'no'], yes: [1, 'yes'] }, 'no', {
    from: 'motion.people',
  })

/** Where flow controls limit the speed: 0 nowhere, 1 out, 2 back, 3 both ways; 4 only the hand that leads it. */
export const speedControlOption = () =>
  option(
    '',
    'Speed limited by',
    'ratio',
    optionsOf(speedControls, { none: 0, out: 1, back: 2, both: 3, lever: 4 }),
    'none',
    { from: 'motion.speedControl' },
  )

/** Forces that resist a cylinder on its way back. @param resisting @param moving examples, with units */
export const backForces = (resisting: string, moving: string) => ({
  forceBack: input('Fᵣ', 'Force that resists, back', 'force', resisting, 0, 1e8, {
    from: 'linear-load.forceBack',
    note: 'on the rod side',
  }),
  forceMovingBack: input('F_mᵣ', 'Force while it only moves, back', 'force', moving, 0, 1e8, {
    from: 'linear-load.forceMovingBack',
  }),
})
/** Loads that a cylinder holds at rest, both ways. */
export const heldLoads = {
  heldOut: input('F_h', 'Load to be held against moving out', 'force', '0 N', 0, 1e8, {
    from: 'linear-load.heldOut',
    note: 'on the rod side',
  }),
  heldBack: input('F_hᵣ', 'Load to be held against moving back', 'force', '0 N', 0, 1e8, {
    from: 'linear-load.heldBack',
    note: 'on the piston side',
  }),
}
/** Torques that are held at rest, both ways. @param back example, with unit */
export const heldTorques = (back = '0 N·m', note?: string) => ({
  heldOut: input('T_h', 'Torque to be held against turning out', 'torque', '0 N·m', 0, 1e8, {
    from: 'rotary-load.heldOut',
    note,
  }),
  heldBack: input('T_hᵣ', 'Torque to be held against turning back', 'torque', back, 0, 1e8, {
    from: ['rotary-load.heldBack', 'winch-load.heldBack'],
    note,
  }),
})
/** Pressures that a load induces on both sides of a cylinder at rest, and the areas there. @param back example, with unit */
export const inducedPressures = (back: string) => ({
  inducedOut: input('p_h', 'Pressure that a load induces on the rod side', 'pressure', '0 bar', 0, 1500e5, {
    from: 'cylinder-motion.inducedOut',
  }),
  inducedBack: input('p_hᵣ', 'Pressure that a load induces on the piston side', 'pressure', back, 0, 1500e5, {
    from: 'cylinder-motion.inducedBack',
  }),
  capArea: input('A₁', 'Area of the piston side', 'area', '50.27 cm²', 1e-6, 4, {
    from: 'cylinder-motion.capArea',
    required: true,
  }),
  rodArea: input('A₂', 'Area of the rod side', 'area', '34.36 cm²', 0, 4, {
    from: 'cylinder-motion.rodArea',
  }),
})
