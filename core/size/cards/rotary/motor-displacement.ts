import { card, chart, choice, failure, input, option, relation, step, trade, warning } from '../../card'
import { heldTorques } from '../../common-inputs'

/** Displacement of a hydraulic motor from torque and pressure, and what it takes. */
export const motorDisplacement = card({
  id: 'motor-displacement',
  title: 'Hydraulic motor',
  group: 'rotary',
  scope: 'motion',
  applies: { actuators: ['motor', 'winch'] },
  about: 'The displacement that gives the torque, and the flow and power at its speed.',
  source: 'T = V · Δp / (2 · π), Q = V · n; displacements of ISO 3662',
  answer: 'displacement',
  demand: {
    out: {
      flow: 'flowOut',
      pressure: 'pressureOut',
      idlePressure: 'idle',
      speed: ['rotary-load.speedOut', 'winch-load.ropeSpeedOut'],
      load: ['rotary-load.machineTorqueOut', 'winch-load.pullOut'],
    },
    back: {
      flow: 'flowBack',
      pressure: 'pressureBack',
      idlePressure: 'idle',
      speed: ['rotary-load.speedBack', 'winch-load.ropeSpeedBack'],
      load: ['rotary-load.machineTorqueBack', 'winch-load.pullBack'],
    },
  },
  variables: {
    torqueOut: input('T', 'Torque, out', 'torque', '200 N·m', 0, 1e8, {
      from: ['rotary-load.motorTorqueOut', 'winch-load.motorTorqueOut'],
      required: true,
    }),
    torqueBack: input('Tᵣ', 'Torque, back', 'torque', '100 N·m', 0, 1e8, {
      from: ['rotary-load.motorTorqueBack', 'winch-load.motorTorqueBack'],
    }),
    speedOut: input('ω', 'Speed of the motor, out', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: ['rotary-load.motorSpeedOut', 'winch-load.motorSpeedOut'],
      required: true,
    }),
    speedBack: input('ωᵣ', 'Speed of the motor, back', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: ['rotary-load.motorSpeedBack', 'winch-load.motorSpeedBack'],
      required: true,
    }),
    ...heldTorques(),
    maximumPressure: input('p', 'Working pressure, at most', 'pressure', '160 bar', 1e5, 700e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
      required: true,
    }),
    lineLoss: input('Δp_l', 'Pressure loss of valve and lines', 'pressure', '15 bar', 0, 200e5),
    backPressure: input('p₂', 'Back pressure at the outlet', 'pressure', '5 bar', 0, 200e5),
    mechanical: input('η_hm', 'Hydro-mechanical efficiency', 'share', '90 %', 0.2, 1),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '94 %', 0.2, 1),
    starting: input('η_s', 'Efficiency when starting', 'share', '75 %', 0.1, 1, {
      note: 'axial piston about 85 %, gear 70 %, gerotor 75 %',
    }),
    looked: input('T_l', 'Torque that is looked at', 'torque', '150 N·m', 0, 1e8, {
      from: ['rotary-load.motorTorqueOut', 'winch-load.motorTorqueOut'],
    }),
    caseShare: input('k_c', 'Share of the leakage that leaves by the case', 'share', '50 %', 0, 1),
    difference: step(
      'Δp',
      'Pressure difference at the motor',
      'pressure',
      'maximumPressure - lineLoss - backPressure',
    ),
    underLoad: option('', 'Starts', 'ratio', { yes: [1, 'under load'], no: [0, 'without load'] }, 'yes'),
    displacementHeld: step(
      'V_h',
      'Displacement that holds the load',
      'displacement',
      '1.2 * 2 * pi * max(heldOut, heldBack) / maximumPressure',
      { note: 'a fifth in hand, so that the valve that holds it can be set above it' },
    ),
    displacementNeeded: step(
      'V₀',
      'Displacement needed to turn it',
      'displacement',
      '2 * pi * max(torqueOut, torqueBack) / (difference * (underLoad == 1 ? min(starting, mechanical) : mechanical))',
      {
        trade: trade(
          '2 * pi * 12 * max(torqueOut, torqueBack) / (difference * (underLoad == 1 ? min(starting, mechanical) : mechanical))',
          'in³/rev',
          {
            torqueOut: 'lbf·ft',
            torqueBack: 'lbf·ft',
            difference: 'psi',
            mechanical: '',
            starting: '',
            underLoad: '',
          },
        ),
      },
    ),
    displacement: choice(
      'V',
      'Displacement',
      'displacement',
      'displacements',
      'max(displacementNeeded, displacementHeld)',
      {
        sized: 'motorDisplacement',
      },
    ),
    startingTorque: step(
      'T_s',
      'Torque when starting',
      'torque',
      'displacement * difference * starting / (2 * pi)',
      {
        trade: trade('displacement * difference * starting / (24 * pi)', 'lbf·ft', {
          difference: 'psi',
          displacement: 'in³/rev',
          starting: '',
        }),
      },
    ),
    idle: step('pᵢ', 'Pressure without load', 'pressure', 'backPressure + lineLoss'),
    pressureOut: step(
      'pₑ',
      'Pressure, out',
      'pressure',
      '2 * pi * torqueOut / (displacement * mechanical) + idle',
      { ruler: 'working' },
    ),
    pressureBack: step(
      'pᵣ',
      'Pressure, back',
      'pressure',
      '2 * pi * torqueBack / (displacement * mechanical) + idle',
      { ruler: 'working' },
    ),
    inducedOut: step(
      'p_h',
      'Pressure that a load induces, turning out',
      'pressure',
      '2 * pi * heldOut / displacement',
      { note: 'at the outlet of the way out; friction not counted on' },
    ),
    inducedBack: step(
      'p_hᵣ',
      'Pressure that a load induces, turning back',
      'pressure',
      '2 * pi * heldBack / displacement',
      { note: 'at the outlet of the way back; friction not counted on' },
    ),
    flowOut: step('Q', 'Flow, out', 'flow', 'displacement * speedOut / (2 * pi) / volumetric', {
      trade: trade('displacement * speedOut / (231 * volumetric)', 'gpm', {
        displacement: 'in³/rev',
        speedOut: 'rpm',
        volumetric: '',
      }),
    }),
    flowBack: step('Qᵣ', 'Flow, back', 'flow', 'displacement * speedBack / (2 * pi) / volumetric', {
      trade: trade('displacement * speedBack / (231 * volumetric)', 'gpm', {
        displacement: 'in³/rev',
        speedBack: 'rpm',
        volumetric: '',
      }),
    }),
    caseFlow: step('Q_c', 'Flow of the case drain', 'flow', 'flowOut * (1 - volumetric) * caseShare'),
    power: step('P', 'Power at the shaft', 'power', 'torqueOut * speedOut', {
      trade: trade('12 * torqueOut * speedOut / 63025', 'hp', { torqueOut: 'lbf·ft', speedOut: 'rpm' }),
    }),
    runningTorque: step(
      'T_m',
      'Torque running, at the maximum pressure',
      'torque',
      'displacement * difference * mechanical / (2 * pi)',
      {
        trade: trade('displacement * difference * mechanical / (24 * pi)', 'lbf·ft', {
          difference: 'psi',
          displacement: 'in³/rev',
          mechanical: '',
        }),
      },
    ),
    slip: step(
      'Q_l',
      'Leakage at the torque that is looked at',
      'flow',
      'torqueOut > 0 ? flowOut * (1 - volumetric) * looked / torqueOut : 0',
      { note: 'laminar: in proportion to the pressure' },
    ),
    speedAtOut: step(
      'ω₁',
      'Speed with the flow out',
      'rotationalSpeed',
      '2 * pi * max(0, flowOut - slip) / displacement',
    ),
    speedAtBack: step(
      'ω₂',
      'Speed with the flow back',
      'rotationalSpeed',
      '2 * pi * max(0, flowBack - slip) / displacement',
    ),
    margin: step('M', 'Pressure margin', 'share', '1 - max(pressureOut, pressureBack) / maximumPressure'),
  },
  relations: [
    relation('difference', 'difference > 0', 'Losses and back pressure take the whole working pressure.'),
  ],
  warnings: [
    warning(
      'startingTorque',
      'underLoad == 1 and startingTorque < max(torqueOut, torqueBack)',
      'At standstill the motor gives less than the torque that is needed running: take the next size, or start without load.',
    ),
    warning(
      'speedOut',
      'min(speedOut, speedBack) < 1',
      'Below about 10 rev/min most motors turn by jerks: choose a slow-running one or a gear.',
    ),
    failure(
      'displacement',
      'max(pressureOut, pressureBack) > maximumPressure * 1.000001',
      'With this displacement the torque needs more than the working pressure that there is.',
    ),
  ],
  compare: [
    'pressureOut',
    'margin',
    'flowOut',
    'startingTorque',
    'pump-displacement.displacement',
    'electric-motor.motor',
  ],
  charts: [
    chart(
      'Speed over torque, up to the torque at the maximum pressure',
      'looked',
      '0',
      'runningTorque',
      ['speedAtOut', 'speedAtBack'],
      [],
      {
        out: ['torqueOut', 'speedOut'],
        back: ['torqueBack', 'speedBack'],
        'starting torque': ['startingTorque', '0'],
      },
    ),
    chart(
      'Pressure over torque',
      'torqueOut',
      '0',
      '1.5 * max(torqueOut, 1)',
      ['pressureOut'],
      ['maximumPressure'],
    ),
  ],
})
