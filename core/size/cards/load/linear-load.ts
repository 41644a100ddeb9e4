import { card, failure, input, step } from '../../card'
import { workWayOption } from '../../common-inputs'

/**
 * The four loads of a straight motion: each way it is resisted or driven, each with its greatest and its least. Every card that reads a
 * load names which of the four it uses.
 */
export const linearLoad = card({
  id: 'linear-load',
  title: 'Load of the motion',
  group: 'load',
  scope: 'motion',
  applies: { actuators: ['linear', 'winch'] },
  about:
    'The four loads of the motion: what resists it and what drives it, out and back, each at its greatest and its least.',
  source: 'Newton’s second law; weight with standard gravity',
  answer: 'forceOut',
  variables: {
    constantOut: input('F₀', 'Force against it, out', 'force', '0 N', -1e8, 1e8, { from: 'motion.forceOut' }),
    constantBack: input('F₀ᵣ', 'Force against it, back', 'force', '0 N', -1e8, 1e8, {
      from: 'motion.forceBack',
    }),
    mass: input('m', 'Moved mass', 'mass', '0 kg', 0, 1e7, { from: 'motion.mass' }),
    leastMass: input('m₀', 'Moved mass, least', 'mass', '0 kg', 0, 1e7, { from: 'motion.leastMass' }),
    slope: input('α', 'Slope', 'angle', '0 °', -Math.PI / 2, Math.PI / 2, { from: 'motion.slope' }),
    friction: input('F_f', 'Friction of guides', 'force', '0 N', 0, 1e8, { from: 'motion.friction' }),
    workWay: workWayOption(),
    work: input('F_w', 'Force of the workpiece', 'force', '0 N', 0, 1e8, { from: 'motion.workForce' }),
    table: input('F_t', 'Greatest force of the load table', 'force', '0 N', -1e8, 1e8, {
      from: 'motion.tableForce',
    }),
    tableLeast: input('F_t₀', 'Least force of the load table', 'force', '0 N', -1e8, 1e8, {
      from: 'motion.tableLeast',
    }),
    travel: input('s', 'Stroke', 'length', '500 mm', 1e-3, 5000, { from: 'motion.travel', required: true }),
    outTime: input('t', 'Time out', 'time', '5 s', 0.01, 86400, { from: 'motion.outTime', required: true }),
    backTime: input('tᵣ', 'Time back', 'time', '5 s', 0.01, 86400, {
      from: ['motion.backTime', 'motion.outTime'],
      required: true,
    }),
    ramp: input('t_a', 'Time to accelerate', 'time', '0.2 s', 0.001, 60, { from: 'motion.ramp' }),
    weight: step('F_G', 'Part of the weight along the stroke', 'force', 'mass * 9.80665 * sin(slope)'),
    leastWeight: step('F_G₀', 'The same of the least mass', 'force', 'leastMass * 9.80665 * sin(slope)'),
    speedOut: step('v', 'Speed out', 'speed', 'travel / outTime'),
    speedBack: step('vᵣ', 'Speed back', 'speed', 'travel / backTime'),
    inertiaOut: step('F_a', 'Force to accelerate the mass, out', 'force', 'mass * speedOut / ramp'),
    inertiaBack: step('F_aᵣ', 'Force to accelerate the mass, back', 'force', 'mass * speedBack / ramp'),
    movingOut: step('F₁', 'Steady force, out', 'force', 'constantOut + weight + friction', {
      note: 'negative where it is driven',
    }),
    movingBack: step('F₁ᵣ', 'Steady force, back', 'force', 'constantBack - weight + friction', {
      note: 'negative where it is driven',
    }),
    workOut: step('F₂', 'Workpiece and table, out', 'force', 'workWay == 0 ? work + table : 0'),
    workBack: step('F₂ᵣ', 'Workpiece and table, back', 'force', 'workWay == 1 ? work + table : 0'),
    forceOut: step(
      'F',
      'Greatest force that resists, out',
      'force',
      'max(0, movingOut + max(workOut, inertiaOut))',
      { note: 'the mass is accelerated at the start, the workpiece met at the end' },
    ),
    forceBack: step(
      'Fᵣ',
      'Greatest force that resists, back',
      'force',
      'max(0, movingBack + max(workBack, inertiaBack))',
    ),
    forceMoving: step('F_m', 'Force while it only moves, out', 'force', 'max(0, movingOut)', {
      note: 'without workpiece and table',
    }),
    forceMovingBack: step('F_mᵣ', 'Force while it only moves, back', 'force', 'max(0, movingBack)', {
      note: 'without workpiece and table',
    }),
    drivingOut: step(
      'F_d',
      'Greatest force that drives it, out',
      'force',
      'max(0, -(movingOut + (workWay == 0 ? min(0, tableLeast) : 0)))',
    ),
    drivingBack: step(
      'F_dᵣ',
      'Greatest force that drives it, back',
      'force',
      'max(0, -(movingBack + (workWay == 1 ? min(0, tableLeast) : 0)))',
    ),
    leastDrivingOut: step(
      'F_d₀',
      'Least force that drives it, out',
      'force',
      'max(0, -(constantOut + leastWeight + friction))',
    ),
    leastDrivingBack: step(
      'F_d₀ᵣ',
      'Least force that drives it, back',
      'force',
      'max(0, -(constantBack - leastWeight + friction))',
    ),
    heldOut: step(
      'F_h',
      'Force to be held against moving out',
      'force',
      'max(0, -(constantOut + weight + (workWay == 0 ? min(0, tableLeast) : 0)))',
      { note: 'at rest, friction not counted on' },
    ),
    heldBack: step(
      'F_hᵣ',
      'Force to be held against moving back',
      'force',
      'max(0, -(constantBack - weight + (workWay == 1 ? min(0, tableLeast) : 0)))',
      { note: 'at rest, friction not counted on' },
    ),
    stoppingOut: step(
      'F_s',
      'Force to be held while it is stopped, out',
      'force',
      'drivingOut > 0 ? drivingOut + inertiaOut : max(0, inertiaOut - max(0, movingOut))',
    ),
    stoppingBack: step(
      'F_sᵣ',
      'Force to be held while it is stopped, back',
      'force',
      'drivingBack > 0 ? drivingBack + inertiaBack : max(0, inertiaBack - max(0, movingBack))',
    ),
  },
  warnings: [failure('leastMass', 'leastMass > mass', 'The least moved mass is larger than the moved mass.')],
})
