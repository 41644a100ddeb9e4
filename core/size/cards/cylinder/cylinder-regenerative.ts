import { card, input, relation, step, trade } from '../../card'

/** A cylinder whose rod side feeds its piston side. */
export const cylinderRegenerative = card({
  id: 'cylinder-regenerative',
  title: 'Regenerative advance',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'], onRequest: true },
  about: 'Speed and force while the oil of the rod side is led to the piston side.',
  source: 'continuity and balance of forces; both sides at one pressure',
  answer: 'speed',
  relations: [relation('rod', 'rod < bore', 'The rod must be thinner than the bore.')],
  variables: {
    bore: input('D', 'Bore', 'length', '80 mm', 1e-3, 2, { from: 'cylinder-bore.bore' }),
    rod: input('d', 'Rod', 'length', '56 mm', 1e-3, 2, { from: 'cylinder-buckling.rod' }),
    flow: input('Q', 'Flow of the pump', 'flow', '30 L/min', 1e-7, 1, {
      from: ['pump-displacement.delivered', 'cycle.peakFlow'],
    }),
    pressure: input('p', 'Pressure', 'pressure', '100 bar', 0, 700e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
    }),
    loss: input('Δp', 'Loss from rod side to piston side', 'pressure', '10 bar', 0, 200e5),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, {
      from: 'cylinder-bore.efficiency',
    }),
    rodSection: step('A₃', 'Section of the rod', 'area', 'pi * rod^2 / 4', {
      trade: trade('0.7854 * rod^2', 'in²', { rod: 'in' }),
    }),
    rodArea: step('A₂', 'Area, retracting', 'area', 'pi * (bore^2 - rod^2) / 4'),
    speed: step('v', 'Speed, regenerative', 'speed', 'flow / rodSection', {
      trade: trade('flow * 231 / (60 * rodSection)', 'in/s', { flow: 'gpm', rodSection: 'in²' }),
    }),
    plain: step('v₀', 'Speed without', 'speed', 'flow / (rodSection + rodArea)'),
    capFlow: step('Q₁', 'Flow at the piston side', 'flow', 'speed * (rodSection + rodArea)', {
      note: 'the line there is sized for it',
    }),
    force: step('F', 'Force, regenerative', 'force', '(pressure * rodSection - loss * rodArea) * efficiency'),
  },
})
