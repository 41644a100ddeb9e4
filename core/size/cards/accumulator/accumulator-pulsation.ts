import { card, choice, input, step } from '../../card'

/** Accumulator that smooths the pulsation of a pump. */
export const accumulatorPulsation = card({
  id: 'accumulator-pulsation',
  title: 'Pulsation damper',
  group: 'accumulator',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'Gas volume that keeps the ripple of a piston pump within a share of the pressure.',
  source: 'adiabatic change of state for the oil that one piston gives too much',
  answer: 'volume',
  variables: {
    displacement: input('V', 'Displacement of the pump', 'displacement', '25 cm³/rev', 1e-7, 0.01, {
      from: 'pump-displacement.displacement',
    }),
    pistons: input('z', 'Pistons or teeth', 'ratio', '3', 1, 20),
    factor: input('k', 'Part of a piston’s oil that fluctuates', 'ratio', '0.12', 0.001, 1, {
      note: 'single 0.6, double 0.25, three pistons 0.12, nine 0.01',
    }),
    pressure: input('p', 'Mean pressure', 'pressure', '160 bar', 1e5, 700e5, { from: 'cycle.pressure' }),
    ripple: input('δ', 'Ripple that is left, either way', 'share', '2 %', 0.001, 0.5),
    prechargeShare: input('k₀', 'Precharge, share of the mean pressure', 'share', '70 %', 0.2, 0.95),
    exponent: input('n', 'Exponent', 'ratio', '1.4', 1, 2),
    air: input('p_a', 'Pressure of the air', 'pressure', '1.01325 bar', 0.5e5, 1.1e5),
    oil: step('ΔV', 'Oil that fluctuates', 'volume', 'factor * displacement / pistons'),
    precharge: step('p₀', 'Precharge', 'pressure', 'prechargeShare * (pressure + air) - air'),
    usable: step(
      'ΔV/V₀',
      'Share of the gas volume',
      'ratio',
      '((precharge + air) / ((pressure + air) * (1 - ripple)))^(1 / exponent) - ((precharge + air) / ((pressure + air) * (1 + ripple)))^(1 / exponent)',
    ),
    volume: choice('V₀', 'Gas volume', 'volume', 'accumulatorVolumes', 'oil / usable'),
  },
})
