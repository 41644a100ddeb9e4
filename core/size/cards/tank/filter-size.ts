import { card, choice, input, option, step, warning } from '../../card'
import { viscosityInputs } from '../../common-inputs'

/** Filter size and fineness from a target cleanliness. */
export const filterSize = card({
  id: 'filter-size',
  title: 'Filter',
  group: 'tank',
  scope: 'machine',
  applies: {},
  about: 'Fineness for a target cleanliness, and a rated flow that leaves room before the bypass opens.',
  source: 'cleanliness codes of ISO 4406, filtration ratio of ISO 16889; fineness by usual practice',
  answer: 'rated',
  variables: {
    target: option(
      'x',
      'Target cleanliness, ISO 4406',
      'length',
      {
        c16: [3e-6, '16/14/11 — servo valves, 3 µm'],
        c17: [5e-6, '17/15/12 — proportional valves, 5 µm'],
        c18: [6e-6, '18/16/13 — piston pumps at high pressure, 6 µm'],
        c19: [10e-6, '19/17/14 — piston and vane pumps, 10 µm'],
        c20: [16e-6, '20/18/15 — gear pumps, directional valves, 16 µm'],
        c21: [20e-6, '21/19/16 — low pressure, 20 µm'],
      },
      'c19',
    ),
    flow: input('Q', 'Largest flow through it', 'flow', '40 L/min', 0, 1, {
      from: ['line-return.flow', 'cycle.peakFlow'],
      required: true,
    }),
    bypass: input('p_b', 'Bypass opens', 'pressure', '2.5 bar', 0.1e5, 20e5),
    clean: input('k', 'Share of it for the clean element, cold', 'share', '30 %', 0.05, 0.9),
    ...viscosityInputs,
    temperature: input('ϑ', 'Oil temperature', 'temperature', '20 °C', 233.15, 393.15),
    ratedDrop: input('Δp_r', 'Drop at rated flow and 46 mm²/s', 'pressure', '0.5 bar', 0.01e5, 20e5),
    fineness: choice('x₁', 'Fineness, β = 200', 'length', 'filterRatings', 'target', { rounding: 'down' }),
    viscosity: step('ν', 'Viscosity', 'viscosity', 'viscosity(temperature, viscosity40, viscosity100)', {
      source: 'ASTM D341',
    }),
    rated: choice(
      'q_r',
      'Rated flow',
      'flow',
      'valveFlows',
      'flow * ratedDrop * viscosity / (46e-6 * clean * bypass)',
      { sized: 'filterFlow', atLeast: true },
    ),
    drop: step('Δp', 'Drop of the clean element', 'pressure', 'ratedDrop * flow / rated * viscosity / 46e-6'),
    left: step('k_l', 'Left for dirt', 'share', '1 - drop / bypass'),
  },
  warnings: [
    warning(
      'drop',
      'drop >= bypass',
      'At this temperature the bypass opens with a clean element: nothing is filtered.',
    ),
  ],
  compare: ['drop', 'left'],
})
