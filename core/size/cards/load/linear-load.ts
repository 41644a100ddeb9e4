import { card, input, step } from '../../card'

/** The forces that a cylinder or the rope of a winch meets each way, out of the load of the brief. */
export const linearLoad = card({
  id: 'linear-load',
  title: 'Load of the motion',
  group: 'load',
  scope: 'motion',
  applies: { actuators: ['linear', 'winch'] },
  about: 'What the motion has to push against, each way, and what drives it where the load helps.',
  source: 'Newton’s second law; weight with standard gravity',
  answer: 'forceOut',
  variables: {
    constantOut: input('F₀', 'Force against it, out', 'force', '0 N', -1e8, 1e8, { from: 'motion.forceOut' }),
    constantBack: input('F₀ᵣ', 'Force against it, back', 'force', '0 N', -1e8, 1e8, {
      from: 'motion.forceBack',
    }),
    mass: input('m', 'Moved mass', 'mass', '0 kg', 0, 1e7, { from: 'motion.mass' }),
    slope: input('α', 'Slope', 'angle', '0 °', -Math.PI / 2, Math.PI / 2, { from: 'motion.slope' }),
    friction: input('F_f', 'Friction of guides', 'force', '0 N', 0, 1e8, { from: 'motion.friction' }),
    work: input('F_w', 'Force of the workpiece', 'force', '0 N', 0, 1e8, { from: 'motion.workForce' }),
    table: input('F_t', 'Greatest force of the load table', 'force', '0 N', -1e8, 1e8, {
      from: 'motion.tableForce',
    }),
    travel: input('s', 'Stroke', 'length', '500 mm', 1e-3, 5000, { from: 'motion.travel', required: true }),
    outTime: input('t', 'Time out', 'time', '5 s', 0.01, 86400, { from: 'motion.outTime', required: true }),
    backTime: input('tᵣ', 'Time back', 'time', '5 s', 0.01, 86400, {
      from: ['motion.backTime', 'motion.outTime'],
      required: true,
    }),
    ramp: input('t_a', 'Time to accelerate', 'time', '0.2 s', 0.001, 60, { from: 'motion.ramp' }),
    weight: step('F_G', 'Part of the weight along the stroke', 'force', 'mass * 9.80665 * sin(slope)'),
    speedOut: step('v', 'Speed out', 'speed', 'travel / outTime'),
    speedBack: step('vᵣ', 'Speed back', 'speed', 'travel / backTime'),
    inertiaForce: step(
      'F_a',
      'Force to accelerate the mass',
      'force',
      'mass * max(speedOut, speedBack) / ramp',
    ),
    forceOut: step(
      'F',
      'Greatest force, out',
      'force',
      'max(0, constantOut + weight + friction + max(work + table, inertiaForce))',
      { note: 'the mass is accelerated at the start, the workpiece met at the end' },
    ),
    forceBack: step(
      'Fᵣ',
      'Greatest force, back',
      'force',
      'max(0, constantBack - weight + friction + inertiaForce)',
    ),
    forceMoving: step(
      'F_m',
      'Force while it only moves, out',
      'force',
      'max(0, constantOut + weight + friction)',
      {
        note: 'without workpiece and table',
      },
    ),
    drivingOut: step(
      'F_d',
      'Force that drives it, out',
      'force',
      'max(0, -(constantOut + weight + friction))',
    ),
    drivingBack: step(
      'F_dᵣ',
      'Force that drives it, back',
      'force',
      'max(0, weight - friction - constantBack)',
    ),
  },
})
