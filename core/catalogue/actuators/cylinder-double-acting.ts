import { GRAVITY } from '../../units/quantities'
import { defineKind, Power, quantity } from '../kind'
import { line, partOf, rectangle } from '../symbol'

const [A, B] = [0, 1]
const [X, V] = [0, 1]
/** Oil in each end of the barrel and its port at the stop, m³. */
const DEAD_VOLUME = 5e-5
/** Stiffness of an end stop, N/m. */
const STOP_STIFFNESS = 2e8
/** Speeds at which Stribeck friction fades and over which friction reverses, m/s. */
const STRIBECK_SPEED = 0.02
const REVERSAL_SPEED = 0.001
/** A contact ends when the gap is this wide, m, so that resting on a stop is one contact. */
const RELEASE_GAP = 1e-9

export const cylinderAreas = (bore: number, rod: number) => ({
  cap: (Math.PI * bore * bore) / 4,
  annulus: (Math.PI * (bore * bore - rod * rod)) / 4,
})

/**
 * V1 = V1d + A1·x, V2 = V2d + A2·(stroke − x); m·dv/dt = p1·A1 − p2·A2 − F_load − F_f(v) − F_stop.
 * F_f = (F_c + (F_s − F_c)·exp(−|v|/v_s))·tanh(v/v_t) + b·v.
 * F_stop = max(0, k·δ + c·δ̇) for δ ≥ 0, k = 2e8 N/m, c = 2√(k·m).
 */
export const cylinderDoubleActing = defineKind({
  name: 'cylinder-double-acting',
  label: 'Cylinder, double-acting',
  family: 'actuators',
  words: ['cylinder', 'ram', 'jack', 'actuator', 'press'],
  letter: 'A',
  description: 'Oil at A extends the rod, oil at B retracts it.',
  ports: [
    { name: 'A', domain: 'oil', role: 'cap side' },
    { name: 'B', domain: 'oil', role: 'rod side' },
  ],
  parameters: {
    bore: quantity('Bore', 'length', '63 mm', 1e-3, 2),
    rod: quantity('Rod', 'length', '36 mm', 1e-3, 2),
    stroke: quantity('Stroke', 'length', '400 mm', 1e-3, 20),
    start: quantity('Starts at', 'length', '0 mm', 0, 20, { note: '0 is retracted' }),
    mass: quantity('Moved mass', 'mass', '500 kg', 0.1, 1e7, { group: 'Load' }),
    loadForce: quantity('Constant force', 'force', '0 kN', -1e8, 1e8, {
      group: 'Load',
      note: 'positive opposes extension',
    }),
    angle: quantity('Angle above horizontal', 'angle', '0 °', -Math.PI / 2, Math.PI / 2, {
      group: 'Load',
      note: 'at 90° the rod points up and lifts its mass',
    }),
    springRate: quantity('Spring', 'stiffness', '0 N/mm', 0, 1e10, {
      group: 'Load',
      note: 'force grows from zero at the retracted end',
    }),
    damping: quantity('Damper', 'damping', '0 kN·s/m', 0, 1e9, { group: 'Load' }),
    workPieceAt: quantity('Work-piece met at', 'length', '0 mm', 0, 20, { group: 'Load' }),
    workPieceStiffness: quantity('Work-piece stiffness', 'stiffness', '0 kN/mm', 0, 1e11, {
      group: 'Load',
      note: '0 is no work-piece; it only pushes back',
    }),
    coulombFriction: quantity('Running friction', 'force', '0.4 kN', 0, 1e7, { group: 'Friction' }),
    breakawayFriction: quantity('Breakaway friction', 'force', '0.6 kN', 0, 1e7, {
      group: 'Friction',
    }),
    viscousFriction: quantity('Viscous friction', 'damping', '1 kN·s/m', 0, 1e8, {
      group: 'Friction',
    }),
    leakage: quantity('Piston leakage at 100 bar', 'flow', '0 L/min', 0, 1e-2, {
      group: 'Friction',
      note: 'past the piston, laminar',
    }),
    ratedPressure: quantity('Rated pressure', 'pressure', '250 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded on either side',
    }),
  },
  inputs: [
    {
      name: 'force',
      label: 'load force',
      quantity: 'force',
      rest: 'loadForce',
      min: -1e8,
      max: 1e8,
    },
  ],
  traits: {
    sized: {
      bore: 'bore',
      rod: 'rod',
      stroke: 'stroke',
      mass: 'mass',
      workPieceAt: 'workPieceAt',
      workPieceStiffness: 'workPieceStiffness',
    },
  },
  care: 'A raised or pressed load can move when a line opens. Support it mechanically before anyone reaches in.',
  validate(v) {
    const problems: { parameter: 'rod' | 'start' | 'workPieceAt' | 'breakawayFriction'; message: string }[] =
      []
    if (v.rod >= v.bore)
      problems.push({ parameter: 'rod', message: 'The rod must be thinner than the bore.' })
    if (v.start > v.stroke)
      problems.push({ parameter: 'start', message: 'The start lies beyond the stroke.' })
    if (v.breakawayFriction < v.coulombFriction)
      problems.push({
        parameter: 'breakawayFriction',
        message: 'Breakaway friction cannot be below running friction.',
      })
    return problems
  },
  symbol: () => ({
    shapes: [
      rectangle(-5, -1.5, 9, 3),
      {
        shape: 'oil',
        port: 'A',
        at: [-5, -1.5],
        size: [1, 3],
        stretch: { part: 'rod', edge: 'right' },
      },
      {
        shape: 'oil',
        port: 'B',
        at: [-3, -1.5],
        size: [7, 3],
        stretch: { part: 'rod', edge: 'left' },
      },
      rectangle(-5, -1.5, 9, 3, 'none'),
      ...partOf('rod', [rectangle(-4, -1.5, 1, 3), rectangle(-3, -0.4, 8, 0.8)]),
      line([-4, 1.5], [-4, 3]),
      line([3, 1.5], [3, 3]),
    ],
    ports: { A: { x: -4, y: 3, side: 'down' }, B: { x: 3, y: 3, side: 'down' } },
    box: { x: -5, y: -1.5, w: 10, h: 3 },
    captionAt: { x: -5, y: -4.8, anchor: 'start' },
    reading: 'position',
    parts: { rod: { signal: 'travelled', zero: 0, travel: 6, full: 1 } },
  }),
  caption: (v, show) => [
    `⌀ ${show(v.bore, 'length')} / ${show(v.rod, 'length')}`,
    `stroke ${show(v.stroke, 'length')}`,
  ],
  model(v, fluid) {
    const { cap, annulus } = cylinderAreas(v.bore, v.rod)
    const weight = v.mass * GRAVITY * Math.sin(v.angle)
    const stopDamping = 2 * Math.sqrt(STOP_STIFFNESS * v.mass)
    const leak = (v.leakage / 100e5) * fluid.leakageFactor
    const extraFriction = v.breakawayFriction - v.coulombFriction
    const friction = (speed: number) =>
      (v.coulombFriction + extraFriction * Math.exp(-Math.abs(speed) / STRIBECK_SPEED)) *
        Math.tanh(speed / REVERSAL_SPEED) +
      v.viscousFriction * speed
    const stop = (touching: number, depth: number, rate: number) =>
      touching ? Math.max(0, STOP_STIFFNESS * depth + stopDamping * rate) : 0
    const workPiece = (x: number) => (x > v.workPieceAt ? v.workPieceStiffness * (x - v.workPieceAt) : 0)
    return {
      states: [
        { name: 'position', label: 'stroke', quantity: 'length', initial: v.start, scale: 1e-3 },
        { name: 'velocity', label: 'speed', quantity: 'speed', initial: 0, scale: 0.01 },
      ],
      outputs: [
        { name: 'loadForce', label: 'load force', quantity: 'force' },
        { name: 'pushForce', label: 'force of the oil', quantity: 'force' },
        { name: 'capPressure', label: 'cap-side pressure', quantity: 'pressure' },
        { name: 'rodPressure', label: 'rod-side pressure', quantity: 'pressure' },
        { name: 'travelled', label: 'stroke share', quantity: 'share' },
      ],
      conditions: [
        {
          name: 'capOver',
          label: 'cap side above its rated pressure',
          severity: 'danger',
          worst: 'capPressure',
        },
        {
          name: 'rodOver',
          label: 'rod side above its rated pressure',
          severity: 'danger',
          worst: 'rodPressure',
        },
        {
          name: 'intensified',
          label: 'intensified: rod side above its rated pressure while extending',
          severity: 'warning',
          worst: 'rodPressure',
        },
      ],
      guards: [
        { name: 'retracted', label: 'reaches its retracted stop', report: 1, value: 'velocity' },
        { name: 'extended', label: 'reaches its extended stop', report: 1, value: 'velocity' },
        {
          name: 'contact',
          label: 'meets the work-piece',
          report: v.workPieceStiffness > 0 ? 1 : 0,
          value: 'velocity',
        },
      ],
      modes: [0, 0],
      evaluate(l) {
        const x = l.x[X]
        const speed = l.x[V]
        const leakage = leak * (l.p[A] - l.p[B])
        const load = l.u[0] + weight + v.springRate * x + v.damping * speed + workPiece(x)
        const stops = stop(l.mode[1], x - v.stroke, speed) - stop(l.mode[0], -x, -speed)
        const force = l.p[A] * cap - l.p[B] * annulus - load - friction(speed) - stops
        l.dx[X] = speed
        l.dx[V] = force / v.mass
        l.q[A] = cap * speed + leakage
        l.q[B] = -annulus * speed - leakage
        l.v[A] = DEAD_VOLUME + cap * Math.max(0, x)
        l.v[B] = DEAD_VOLUME + annulus * Math.max(0, v.stroke - x)
        l.g[0] = -x + (l.mode[0] ? RELEASE_GAP : 0)
        l.g[1] = x - v.stroke + (l.mode[1] ? RELEASE_GAP : 0)
        l.g[2] = v.workPieceStiffness > 0 ? x - v.workPieceAt : -1
      },
      switch(l, index, direction) {
        if (index < 2) l.mode[index] = direction > 0 ? 1 : 0
      },
      observe(l) {
        const x = l.x[X]
        const speed = l.x[V]
        const outer = l.u[0] + v.damping * speed + workPiece(x)
        const stops = stop(l.mode[1], x - v.stroke, speed) - stop(l.mode[0], -x, -speed)
        l.o[0] = outer + weight + v.springRate * x
        l.o[1] = l.p[A] * cap - l.p[B] * annulus
        l.o[2] = l.p[A]
        l.o[3] = l.p[B]
        l.o[4] = x / v.stroke
        l.c[0] = l.p[A] - v.ratedPressure
        l.c[1] = l.p[B] - v.ratedPressure
        l.c[2] = speed > REVERSAL_SPEED && l.p[B] > l.p[A] ? l.p[B] - v.ratedPressure : -1
        l.power[Power.useful] = outer * speed
        l.power[Power.stored] = (weight + v.springRate * x + v.mass * l.dx[V]) * speed
        l.power[Power.heat] = (friction(speed) + stops) * speed + leak * (l.p[A] - l.p[B]) * (l.p[A] - l.p[B])
      },
    }
  },
  say(l, _values, show) {
    const at = show(l.x[X], 'length')
    if (l.mode[1]) return `On its extended stop, pushed with ${show(l.o[1], 'force')}.`
    if (l.mode[0]) return `On its retracted stop.`
    if (Math.abs(l.x[V]) < 1e-3) return `Stands at ${at}, pushed with ${show(l.o[1], 'force')}.`
    return `${l.x[V] > 0 ? 'Extends' : 'Retracts'} at ${show(Math.abs(l.x[V]), 'speed')}, now at ${at}, against ${show(l.o[0], 'force')}.`
  },
})
