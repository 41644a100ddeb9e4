import { ATMOSPHERE } from '../../units/quantities'
import { CAVITATION_PRESSURE } from '../../fluid/fluid'
import { defineKind, Power, quantity } from '../kind'
import { adjustable, circle, dashed, flowTriangle, line, rectangle, shaftStub } from '../symbol'

const [S, P, X, W] = [0, 1, 2, 3]
const clamp = (v: number) => (v < 0 ? 0 : v > 1 ? 1 : v)

/**
 * u* = min of the compensator clamp((p_c − p_P)/b) and the load sensing clamp((p_X + m − p_P)/b + ½),
 * stroke follows u* with a lag; Q = D·n·u·f(P_S) − C_L·(p_P − p_S), T as a fixed pump of displacement D·u.
 */
export const loadSensingPump = defineKind({
  name: 'load-sensing-pump',
  label: 'Pump, variable, load-sensing',
  family: 'supply',
  words: ['load sensing', 'ls pump', 'pressure compensated', 'variable pump'],
  letter: 'P',
  description: 'Gives what keeps its pressure a margin above the highest load at X, up to its compensator.',
  ports: [
    { name: 'S', domain: 'oil', role: 'suction line' },
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'X', domain: 'oil', role: 'load signal', mayStayOpen: true },
    { name: 'W', domain: 'shaft', role: 'shaft' },
  ],
  parameters: {
    displacement: quantity('Displacement, full stroke', 'displacement', '45 cm³/rev', 1e-8, 5e-3),
    margin: quantity('Margin', 'pressure', '20 bar', 1e5, 100e5, {
      note: 'above the load signal, at half stroke; 14 to 25 bar is usual',
    }),
    compensator: quantity('Compensator setting', 'pressure', '250 bar', 5e5, 700e5, { note: 'zero stroke' }),
    band: quantity('Control band', 'pressure', '5 bar', 1e4, 50e5, { note: 'full to zero stroke' }),
    strokeTime: quantity('Lag of the stroke', 'time', '40 ms', 1e-3, 5),
    volumetricEfficiency: quantity('Volumetric efficiency', 'share', '95 %', 0.3, 1, {
      group: 'Losses',
      note: 'at the rated speed and pressure; wear lowers it',
    }),
    ratedSpeed: quantity('at speed', 'rotationalSpeed', '1500 rpm', 1, 1000, { group: 'Losses' }),
    ratedPressure: quantity('at pressure', 'pressure', '250 bar', 1e5, 700e5, { group: 'Losses' }),
    hydromechanicalEfficiency: quantity('Hydro-mechanical efficiency', 'share', '92 %', 0.3, 1, {
      group: 'Losses',
    }),
    maxPressure: quantity('Highest pressure allowed', 'pressure', '315 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded',
    }),
  },
  traits: { draws: ['S'], sized: { displacement: 'displacement' } },
  symbol: () => ({
    shapes: [
      circle(0, 0, 3),
      flowTriangle(0, -3, 0, -1),
      line([0, -3], [0, -4]),
      line([0, 3], [0, 4]),
      ...shaftStub(-4, -3),
      ...adjustable(0, 0, 2.8),
      // the controller with its load signal
      rectangle(3.6, -1, 1.6, 2),
      line([3, 0], [3.6, 0]),
      dashed([5.2, 0], [7, 0]),
    ],
    ports: {
      S: { x: 0, y: 4, side: 'down' },
      P: { x: 0, y: -4, side: 'up' },
      X: { x: 7, y: 0, side: 'right' },
      W: { x: -4, y: 0, side: 'left' },
    },
    box: { x: -3, y: -3, w: 9, h: 6 },
    captionAt: { x: 3.4, y: 2.6, anchor: 'start' },
  }),
  caption: (values, show) => [
    show(values.displacement, 'displacement'),
    `${show(values.compensator, 'pressure')}, margin ${show(values.margin, 'pressure')}`,
  ],
  model(values, fluid) {
    const perRadian = values.displacement / (2 * Math.PI)
    const leakage =
      (((1 - values.volumetricEfficiency) * perRadian * values.ratedSpeed) / values.ratedPressure) *
      fluid.leakageFactor
    const eta = values.hydromechanicalEfficiency
    const wanted = (p: number, load: number) =>
      Math.min(
        clamp((values.compensator - p) / values.band),
        clamp((load + values.margin - p) / values.band + 0.5),
      )
    return {
      states: [{ name: 'stroke', label: 'stroke', quantity: 'share', initial: 1, scale: 1 }],
      outputs: [
        { name: 'delivery', label: 'delivery', quantity: 'flow' },
        { name: 'shaftPower', label: 'shaft power', quantity: 'power' },
        { name: 'marginNow', label: 'pressure above the load signal', quantity: 'pressure' },
      ],
      conditions: [
        { name: 'starved', label: 'starved at its inlet', severity: 'warning' },
        { name: 'overPressure', label: 'above its highest pressure', severity: 'danger' },
        { name: 'compensating', label: 'at its compensator', severity: 'info' },
      ],
      evaluate(l) {
        const speed = l.p[W]
        const drop = l.p[P] - l.p[S]
        const u = l.x[0]
        const filling = (l.p[S] + ATMOSPHERE) / CAVITATION_PRESSURE
        const flow = perRadian * speed * u * clamp(filling) - leakage * drop
        l.q[S] = flow
        l.q[P] = -flow
        l.q[X] = 0
        const ideal = perRadian * u * drop
        l.q[W] = ideal * (ideal * speed >= 0 ? 1 / eta : eta)
        l.dx[0] = (wanted(l.p[P], l.p[X]) - u) / values.strokeTime
      },
      observe(l) {
        l.o[0] = -l.q[P]
        l.o[1] = l.q[W] * l.p[W]
        l.o[2] = l.p[P] - l.p[X]
        l.c[0] = l.p[W] > 0 ? CAVITATION_PRESSURE - (l.p[S] + ATMOSPHERE) : -1
        l.c[1] = l.p[P] - values.maxPressure
        l.c[2] = l.p[P] - (values.compensator - values.band)
        l.power[Power.heat] = l.o[1] + l.p[S] * l.q[S] + l.p[P] * l.q[P]
      },
    }
  },
  say: (l, values, show) =>
    `At ${Math.round(l.x[0] * 100)} % stroke, delivering ${show(l.o[0], 'flow')}, ${show(l.o[2], 'pressure')} above the load signal${
      l.p[P] > values.compensator - values.band ? '; its compensator holds it back' : ''
    }.`,
})
