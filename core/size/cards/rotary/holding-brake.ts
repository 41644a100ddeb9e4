import { card, failure, input, option, step, warning } from '../../card'
import { heldTorques, peopleOption } from '../../common-inputs'

/** Torque of the brake that holds a motor or winch, and how far the load slips before it holds. */
export const holdingBrake = card({
  id: 'holding-brake',
  title: 'Holding brake',
  group: 'rotary',
  scope: 'motion',
  applies: { actuators: ['rotary', 'winch'], holding: ['brake', 'brakeAndValve'] },
  about:
    'The torque of the brake by the greatest load that it must hold, its safety, and how far the load moves until it holds.',
  source:
    'static torque times a safety; free acceleration until the brake is applied, constant torque after it',
  answer: 'torque',
  variables: {
    ...heldTorques('100 N·m', 'at the shaft of the brake'),
    people: peopleOption(),
    factor: option(
      'S',
      'Safety of the brake',
      'ratio',
      { half: [1.5, '1.5 times the load'], twice: [2, 'twice the load'] },
      'twice',
      { note: '1.5 without people under or in front of it, 2 for hoists and with people there' },
    ),
    speed: input('ω', 'Greatest speed when the brake falls in', 'rotationalSpeed', '300 rpm', 0, 2000, {
      from: ['motor-result.speedBack', 'motor-displacement.speedBack'],
      note: 'on a loss of oil; when it is stopped in time it hardly turns',
    }),
    inertia: input('J', 'Inertia at the motor', 'inertia', '1 kg·m²', 1e-6, 1e9, {
      from: ['rotary-load.motorInertia', 'winch-load.motorInertia'],
    }),
    response: input('t_r', 'Time until it is applied', 'time', '100 ms', 0, 10),
    held: step('T', 'Greatest torque to be held', 'torque', 'max(heldOut, heldBack)'),
    torque: step('T_B', 'Braking torque needed', 'torque', 'factor * held', {
      sized: 'brakeTorque',
      atLeast: true,
      sizedWhen: 'held > 0',
    }),
    safety: step('S₁', 'Safety that is reached', 'ratio', 'held > 0 ? torque / held : 1e6'),
    faster: step('ω₁', 'Speed when it is applied', 'rotationalSpeed', 'speed + held / inertia * response', {
      note: 'the load drives it on meanwhile',
    }),
    before: step('φ₁', 'Turned until it is applied', 'angle', '(speed + faster) / 2 * response'),
    stopping: step(
      'φ₂',
      'Turned while it brakes',
      'angle',
      'torque > held ? min(1e7, inertia * faster^2 / (2 * (torque - held))) : 1e7',
    ),
    slip: step('φ', 'Turned until it holds', 'angle', 'min(1e7, before + stopping)', {
      note: 'at the motor, from the greatest speed',
    }),
    heat: step('E', 'Heat of the brake', 'energy', 'torque * min(1e6, stopping)'),
  },
  warnings: [
    failure('torque', 'held > 0 and torque <= held', 'The brake does not hold the load: it slips on and on.'),
    failure(
      'factor',
      'people == 1 and held > 0 and safety < 2',
      'With people under or in front of it the brake holds at least twice the load.',
    ),
    warning(
      'torque',
      'people == 0 and torque > held and safety < 1.5',
      'Less than one and a half times the load: wear and oil on the lining use that up.',
    ),
    warning(
      'held',
      'held == 0',
      'No load drives this motion, so the brake has nothing to hold: check slope, mass and signs of the torques.',
    ),
  ],
  notes: ['A brake holds; it is not sized to stop a running load again and again.'],
})
