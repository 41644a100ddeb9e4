import { card, chart, input, step, warning } from '../../card'

/** Pressure surge when a valve shuts. */
export const waterHammer = card({
  id: 'water-hammer',
  title: 'Pressure surge',
  group: 'line',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'How far the pressure shoots up when the flow in a line is stopped.',
  source: 'Joukowsky; closing times longer than one return of the wave lessen it in proportion',
  answer: 'surge',
  variables: {
    speed: input('v', 'Velocity that is stopped', 'speed', '4 m/s', 0, 50, { from: 'line-pressure.speed' }),
    bore: input('d', 'Bore', 'length', '13 mm', 1e-3, 1, { from: 'line-pressure.bore' }),
    wall: input('s', 'Wall', 'length', '1.5 mm', 1e-4, 0.1, { from: 'line-wall.wall' }),
    length: input('L', 'Length', 'length', '10 m', 0.01, 10000, { from: 'line-loss.length' }),
    closing: input('t_s', 'Closing time', 'time', '30 ms', 1e-4, 600),
    density: input('ρ', 'Density', 'density', '870 kg/m³', 500, 1500),
    bulk: input('K', 'Bulk modulus of the oil', 'stress', '1500 MPa', 1e8, 3e9),
    modulus: input('E', 'Modulus of the tube', 'stress', '210 GPa', 1e6, 1e12, {
      note: 'a hose about 0.1 GPa',
    }),
    working: input('p', 'Pressure before', 'pressure', '150 bar', 0, 1000e5, { from: 'cycle.pressure' }),
    rating: input('p_R', 'Rating of the line', 'pressure', '250 bar', 1e5, 2000e5, {
      from: 'line-wall.rating',
    }),
    wave: step(
      'a',
      'Speed of the wave',
      'speed',
      'sqrt(bulk / density / (1 + bulk * bore / (modulus * wall)))',
    ),
    reflection: step('t_r', 'Time of one return', 'time', '2 * length / wave'),
    surge: step('Δp', 'Surge', 'pressure', 'density * wave * speed * min(1, reflection / closing)'),
    peak: step('p_m', 'Peak pressure', 'pressure', 'working + surge'),
  },
  warnings: [
    warning(
      'peak',
      'peak > rating',
      'The surge goes above the rating of the line: shut more slowly, or set a relief valve or an accumulator close by.',
    ),
  ],
  charts: [chart('Peak over closing time', 'closing', 'closing / 5', 'closing * 10', ['peak'], ['rating'])],
})
