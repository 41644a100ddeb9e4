import { card, choice, input, step, trade, warning } from '../../card'

/** Rated flow of the directional valve of a motion, and what every path takes. */
export const directionalValve = card({
  id: 'directional-valve',
  title: 'Directional valve',
  group: 'valve',
  scope: 'motion',
  applies: {
    actuators: ['linear', 'rotary', 'winch'],
    supply: ['fixedPump', 'highLow', 'compensated', 'loadSensing', 'accumulator'],
  },
  about:
    'Rated flow of the valve at the greatest speed that can occur, and the pressure that each of its paths takes, the way back included.',
  source: 'flow in proportion to the root of the pressure drop',
  answer: 'rated',
  variables: {
    flowOut: input('Q', 'Flow in, out', 'flow', '30 L/min', 0, 1, {
      from: [
        'flow-control.flowOut',
        'cylinder-motion.flowOut',
        'motor-displacement.flowOut',
        'semi-rotary.flowOut',
      ],
      required: true,
    }),
    returnOut: input('Q₂', 'Flow back, out', 'flow', '20 L/min', 0, 1, {
      from: [
        'flow-control.returnOut',
        'cylinder-motion.returnOut',
        'motor-displacement.flowOut',
        'semi-rotary.flowOut',
      ],
    }),
    flowBack: input('Qᵣ', 'Flow in, back', 'flow', '25 L/min', 0, 1, {
      from: [
        'flow-control.flowBack',
        'cylinder-motion.flowBack',
        'motor-displacement.flowBack',
        'semi-rotary.flowBack',
      ],
    }),
    returnBack: input('Q₁ᵣ', 'Flow back, back', 'flow', '37 L/min', 0, 1, {
      from: [
        'flow-control.returnBack',
        'cylinder-motion.returnBack',
        'motor-displacement.flowBack',
        'semi-rotary.flowBack',
      ],
    }),
    drop: input('Δp', 'Drop allowed at the largest flow', 'pressure', '5 bar', 0.1e5, 100e5),
    ratedDrop: input('Δp_r', 'Drop of the rating', 'pressure', '5 bar', 0.1e5, 100e5),
    largest: step(
      'Q_m',
      'Largest flow of a path',
      'flow',
      'max(max(flowOut, returnOut), max(flowBack, returnBack))',
    ),
    rated: choice('q_r', 'Rated flow', 'flow', 'valveFlows', 'largest * sqrt(ratedDrop / drop)', {
      sized: 'valveFlow',
      atLeast: true,
    }),
    dropOut: step('Δp₁', 'Pressure line, out', 'pressure', 'ratedDrop * (flowOut / rated)^2', {
      trade: trade('ratedDrop * (flowOut / rated)^2', 'psi', {
        ratedDrop: 'psi',
        flowOut: 'gpm',
        rated: 'gpm',
      }),
    }),
    dropReturnOut: step('Δp₂', 'Return line, out', 'pressure', 'ratedDrop * (returnOut / rated)^2'),
    dropBack: step('Δp₃', 'Pressure line, back', 'pressure', 'ratedDrop * (flowBack / rated)^2'),
    dropReturnBack: step('Δp₄', 'Return line, back', 'pressure', 'ratedDrop * (returnBack / rated)^2'),
    lost: step('P', 'Power lost in it, out', 'power', 'dropOut * flowOut + dropReturnOut * returnOut'),
  },
  warnings: [
    warning(
      'dropReturnBack',
      'dropReturnBack > 2 * drop',
      'On the way back the piston side gives more flow than this valve is meant for: the return is slowed and heats the oil.',
    ),
  ],
  compare: ['dropOut', 'dropReturnBack', 'lost'],
})
