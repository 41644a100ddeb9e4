import { card, input, step } from '../../card'
import { supplyInput } from '../../common-inputs'

/** Mean power at the shaft and at the actuators over the cycle. */
export const heatInput = card({
  id: 'heat-input',
  title: 'Power over the cycle',
  group: 'tank',
  scope: 'machine',
  applies: {},
  about:
    'What the shaft puts in on average by the way the machine is supplied, and what the actuators take out.',
  source:
    'a fixed pump gives its flow all the time; a variable one what is asked for, at a pressure above it',
  answer: 'lost',
  variables: {
    supply: supplyInput(),
    flow: input('Q', 'Flow of the pump', 'flow', '35 L/min', 0, 1, {
      from: [
        'pump-displacement.delivered',
        'high-low-pump.delivered',
        'closed-circuit-pump.delivered',
        'accumulator-cycle.pumpFlow',
      ],
    }),
    meanFlow: input('Q_m', 'Mean flow used', 'flow', '10 L/min', 0, 1, { from: 'cycle.meanFlow' }),
    useful: input('P_q', 'Mean hydraulic power of the motions', 'power', '1 kW', 0, 1e7, {
      from: 'cycle.meanPower',
    }),
    pressure: input('p', 'Working pressure', 'pressure', '150 bar', 0, 700e5, {
      from: [
        'load-sensing.compensator',
        'compensated-pump.compensator',
        'cycle.pressure',
        'brief.maximumPressure',
      ],
    }),
    idle: input('p₀', 'Pressure in neutral', 'pressure', '5 bar', 0, 300e5, {
      note: 'unloaded; the relief setting where the pump is not unloaded',
    }),
    margin: input('m', 'Pressure above the load', 'pressure', '20 bar', 0, 100e5, {
      from: 'load-sensing.margin',
    }),
    overall: input('η', 'Overall efficiency of the pump', 'share', '85 %', 0.1, 1, {
      from: 'electric-motor.overall',
    }),
    actuators: input('η_a', 'Efficiency of the actuators', 'share', '90 %', 0.1, 1),
    unused: step('Q_u', 'Flow that is not used', 'flow', 'supply <= 1 ? max(0, flow - meanFlow) : 0'),
    hydraulic: step(
      'P_h',
      'Mean hydraulic power',
      'power',
      'supply <= 1 ? useful + unused * idle : (supply == 2 ? meanFlow * pressure : (supply == 3 ? useful + meanFlow * margin : (supply == 5 ? meanFlow * pressure : useful)))',
    ),
    shaftMean: step('P_s', 'Mean shaft power', 'power', 'hydraulic / overall'),
    usefulMean: step('P_u', 'Mean power taken out', 'power', 'useful * actuators'),
    pumpLoss: step('P₁', 'Lost in the pump', 'power', 'shaftMean - hydraulic'),
    unusedLoss: step('P₂', 'Lost with oil that is not used', 'power', 'supply <= 1 ? unused * idle : 0'),
    throttledLoss: step(
      'P₃',
      'Lost in valves, from the pressure of the pump to that of the motions',
      'power',
      'hydraulic - useful - unusedLoss',
    ),
    actuatorLoss: step('P₄', 'Lost in the actuators', 'power', 'useful - usefulMean'),
    lost: step('P', 'Lost', 'power', 'shaftMean - usefulMean'),
    efficiency: step('η_s', 'Share that does work', 'share', 'shaftMean > 0 ? usefulMean / shaftMean : 0'),
  },
  split: {
    title: 'Where the power of the shaft goes',
    whole: 'shaftMean',
    parts: ['usefulMean', 'actuatorLoss', 'throttledLoss', 'unusedLoss', 'pumpLoss'],
  },
})
