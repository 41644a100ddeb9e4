import { card, failure, input, option, relation, step, warning } from '../../card'
import { heldTorques } from '../../common-inputs'

/** Vane actuators and racks: volume for an angle, and what they take. */
export const semiRotary = card({
  id: 'semi-rotary',
  title: 'Vane or rack actuator',
  group: 'rotary',
  scope: 'motion',
  applies: { actuators: ['vane', 'rack'] },
  about: 'The volume that gives the torque, the dimensions that have it, and flow and pressure both ways.',
  source: 'torque is volume a radian times pressure; vane between two radii; rack on a pitch radius',
  answer: 'volume',
  demand: {
    out: {
      flow: 'flowOut',
      pressure: 'pressureOut',
      idlePressure: 'idle',
      speed: ['rotary-load.speedOut'],
      load: ['rotary-load.machineTorqueOut'],
    },
    back: {
      flow: 'flowBack',
      pressure: 'pressureBack',
      idlePressure: 'idle',
      speed: ['rotary-load.speedBack'],
      load: ['rotary-load.machineTorqueBack'],
    },
  },
  variables: {
    kind: option('', 'Actuator', 'ratio', { vane: [0, 'vane'], rack: [1, 'rack and pinion'] }, 'vane', {
      from: 'motion.actuator',
    }),
    torqueOut: input('T', 'Torque, out', 'torque', '2000 N·m', 0, 1e8, {
      from: 'rotary-load.motorTorqueOut',
      required: true,
    }),
    torqueBack: input('Tᵣ', 'Torque, back', 'torque', '2000 N·m', 0, 1e8, {
      from: 'rotary-load.motorTorqueBack',
    }),
    angle: input('φ', 'Angle', 'angle', '90 °', 1e-3, 2 * Math.PI, { from: 'motion.travel', required: true }),
    timeOut: input('t', 'Time out', 'time', '5 s', 0.01, 86400, { from: 'motion.outTime', required: true }),
    timeBack: input('tᵣ', 'Time back', 'time', '5 s', 0.01, 86400, {
      from: ['motion.backTime', 'motion.outTime'],
    }),
    ...heldTorques(),
    maximumPressure: input('p', 'Working pressure, at most', 'pressure', '100 bar', 1e5, 700e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
      required: true,
    }),
    lineLoss: input('Δp_l', 'Pressure loss of valve and lines', 'pressure', '10 bar', 0, 200e5),
    backPressure: input('p₂', 'Back pressure at the outlet', 'pressure', '5 bar', 0, 200e5),
    efficiency: input('η_hm', 'Hydro-mechanical efficiency', 'share', '85 %', 0.3, 1),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '95 %', 0.3, 1, { note: 'a rack 100 %' }),
    vanes: input('z', 'Vanes', 'ratio', '2', 1, 4),
    outer: input('R', 'Outer radius of the vane', 'length', '100 mm', 5e-3, 2),
    inner: input('r', 'Radius of the shaft', 'length', '50 mm', 1e-3, 2),
    pitchRadius: input('r_p', 'Pitch radius of the pinion', 'length', '60 mm', 5e-3, 2),
    difference: step('Δp', 'Pressure difference', 'pressure', 'maximumPressure - lineLoss - backPressure'),
    perRadian: step(
      'q',
      'Volume a radian',
      'volume',
      'max(max(torqueOut, torqueBack) / (difference * efficiency), 1.2 * max(heldOut, heldBack) / maximumPressure)',
      { note: 'to turn the load, or to hold it with a fifth in hand' },
    ),
    volume: step('V', 'Volume of the angle', 'volume', 'perRadian * angle', { sized: 'rotaryVolume' }),
    width: step('b', 'Width of the vanes', 'length', '2 * perRadian / (vanes * (outer^2 - inner^2))'),
    rackBore: step('D', 'Bore of the rack', 'length', 'sqrt(4 * perRadian / (pi * pitchRadius))'),
    idle: step('pᵢ', 'Pressure without load', 'pressure', 'backPressure + lineLoss'),
    actual: step('q₁', 'Volume a radian of the volume that is chosen', 'volume', 'volume / angle'),
    pressureOut: step('pₑ', 'Pressure, out', 'pressure', 'torqueOut / (actual * efficiency) + idle', {
      ruler: 'working',
    }),
    pressureBack: step('pᵣ', 'Pressure, back', 'pressure', 'torqueBack / (actual * efficiency) + idle', {
      ruler: 'working',
    }),
    inducedOut: step('p_h', 'Pressure that a load induces, turning out', 'pressure', 'heldOut / actual'),
    inducedBack: step('p_hᵣ', 'Pressure that a load induces, turning back', 'pressure', 'heldBack / actual'),
    flowOut: step('Q', 'Flow, out', 'flow', 'volume / timeOut / (kind == 1 ? 1 : volumetric)'),
    flowBack: step('Qᵣ', 'Flow, back', 'flow', 'volume / timeBack / (kind == 1 ? 1 : volumetric)'),
  },
  relations: [
    relation('difference', 'difference > 0', 'Losses and back pressure take the whole working pressure.'),
    relation('inner', 'inner < outer', 'The shaft must be thinner than the vane reaches.'),
  ],
  warnings: [
    warning('vanes', 'vanes != round(vanes)', 'The number of vanes is a whole number.'),
    warning('angle', 'kind == 0 and angle > 2 * pi * 0.97 / vanes', 'So many vanes cannot turn so far.'),
    failure(
      'volume',
      'max(pressureOut, pressureBack) > maximumPressure * 1.0001',
      'With this volume the torque needs more than the working pressure that there is.',
    ),
  ],
  compare: ['pressureOut', 'flowOut'],
})
