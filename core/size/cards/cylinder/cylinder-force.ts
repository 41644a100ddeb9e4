import { card, input, relation, step, trade } from '../../card'

/** What a cylinder that is there pushes, pulls, and may be loaded with. */
export const cylinderForce = card({
  id: 'cylinder-force',
  title: 'Forces of a cylinder',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'], onRequest: true },
  about: 'Force both ways at a pressure, and the load that it may move with a margin of pressure.',
  source: 'balance of forces at the piston',
  answer: 'forceOut',
  variables: {
    bore: input('D', 'Bore', 'length', '80 mm', 1e-3, 2, { from: 'cylinder-bore.bore' }),
    rod: input('d', 'Rod', 'length', '45 mm', 0, 2, { from: 'cylinder-buckling.rod' }),
    pressure: input('p', 'Pressure at the cylinder', 'pressure', '120 bar', 0, 1500e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
    }),
    backPressure: input('p₂', 'Back pressure on the other side', 'pressure', '5 bar', 0, 200e5, {
      from: 'cylinder-bore.backPressure',
    }),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, {
      from: 'cylinder-bore.efficiency',
    }),
    margin: input('m', 'Pressure kept in hand', 'share', '10 %', 0, 0.9),
    capArea: step('A₁', 'Area, extending', 'area', 'pi * bore^2 / 4', {
      trade: trade('0.7854 * bore^2', 'in²', { bore: 'in' }),
    }),
    rodArea: step('A₂', 'Area, retracting', 'area', 'pi * (bore^2 - rod^2) / 4'),
    forceOut: step(
      'F',
      'Force, out',
      'force',
      'max(0, pressure * capArea * efficiency - backPressure * rodArea)',
    ),
    forceBack: step(
      'Fᵣ',
      'Force, back',
      'force',
      'max(0, pressure * rodArea * efficiency - backPressure * capArea)',
    ),
    allowedOut: step(
      'F_a',
      'Load allowed, out',
      'force',
      'max(0, pressure * (1 - margin) * capArea * efficiency - backPressure * rodArea)',
    ),
    allowedBack: step(
      'F_aᵣ',
      'Load allowed, back',
      'force',
      'max(0, pressure * (1 - margin) * rodArea * efficiency - backPressure * capArea)',
    ),
  },
  relations: [relation('rod', 'rod < bore', 'The rod must be thinner than the bore.')],
})
