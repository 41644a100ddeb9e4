import { GRAVITY } from '../../units/quantities'
import { dragging } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
} from '../kind'
import { smoothPositivePart } from '../flow-laws'
import { circle, line, rectangle } from '../symbol'
import { shaftStub } from '../symbol-elements'

const STATE = indices('hauled')
const OUTPUT = indices('rope', 'pull')
const CONDITION = indices('slack')
const INPUT = indices('force')

const W = 0

/**
 * A rope on a drum behind a gear: v = ω·r/i. The load pulls with F = m·g·sin θ + F_r·sgn v + F_ext while the rope is taut; on the shaft
 * T = F·r/(i·η^σ) and J = m·(r/i)² + J_d, σ = ±1 as the drum lifts or is driven; at rest F_r and the gear hold it. A rope does not push: below zero force it is slack (the corner rounded over 2 % of m·g + F_r).
 */
export const winchLoad = defineKind({
  name: 'winch-load',
  label: 'Winch drum with rope and load',
  family: 'actuators',
  searchTerms: ['winch', 'rope', 'drum', 'hoist', 'slip', 'hull', 'load'],
  designationLetter: 'A',
  excludedFromPartsList: true,
  description: 'A drum and its rope, with a load on a slope or hanging, on a shaft.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft' }],
  parameters: {
    mass: quantity('Load', 'mass', '4 t', 1, 1e7),
    slope: quantity('Slope', 'angle', '8 °', -Math.PI / 2, Math.PI / 2, { note: '90° hangs' }),
    rolling: quantity('Rolling or sliding friction', 'force', '1 kN', 0, 1e7),
    force: quantity('Additional rope force', 'force', '0 kN', -1e8, 1e8, {
      note: 'positive opposes hauling: wind, waves, current',
    }),
    radius: quantity('Drum radius', 'length', '180 mm', 1e-3, 5, { note: 'to the middle of the rope' }),
    ratio: quantity('Gear ratio', 'ratio', '20', 0.1, 1000, {
      note: 'turns of the shaft for one of the drum',
    }),
    gearEfficiency: quantity('Efficiency of gear and drum', 'share', '90 %', 0.3, 1),
    drumInertia: quantity('Moment of inertia, drum and gear', 'inertia', '0.05 kg·m²', 1e-6, 1e5, {
      note: 'on the shaft',
    }),
  },
  inputs: inputSpecs(INPUT, {
    force: { label: 'additional rope force', quantity: 'force', rest: 'force', min: -1e8, max: 1e8 },
  }),
  safetyNote: 'Keep clear of a rope under load, and of everything that it holds.',
  faults: [dragging(W)],
  traits: {
    movement: { speed: 'rope', position: 'hauled', load: 'pull', forward: 'hauls', back: 'pays out' },
  },
  symbol: () => ({
    shapes: [
      ...shaftStub(-5, -3),
      rectangle(-3, -2, 5, 4),
      line([-3, -2.6], [-3, 2.6]),
      line([2, -2.6], [2, 2.6]),
      line([-1.6, -2], [-1.6, 2]),
      line([-0.4, -2], [-0.4, 2]),
      line([0.8, -2], [0.8, 2]),
      line([0.8, 2], [0.8, 4]),
      rectangle(-0.6, 4, 2.8, 1.6),
      circle(0.8, 3.8, 0.2, 'ink'),
    ],
    ports: { W: { x: -5, y: 0, side: 'left' } },
    box: { x: -3, y: -2.6, w: 5.2, h: 8.2 },
    captionAt: { x: 3, y: -0.6, anchor: 'start' },
    reading: 'hauled',
  }),
  caption: (v, show) => [show(v.mass, 'mass'), show(v.slope, 'angle')],
  model(v) {
    const arm = v.radius / v.ratio
    const [hauling, payingOut] = [1 / v.gearEfficiency, v.gearEfficiency]
    const weight = v.mass * GRAVITY * Math.sin(v.slope)
    const inertia = v.mass * arm * arm + v.drumInertia
    // smoothPositivePart is rounded over 2 % of this
    const corner = v.mass * GRAVITY + v.rolling
    const pull = (direction: number, other: number) =>
      corner * smoothPositivePart((weight + other + v.rolling * direction) / corner)
    // hauling the gear takes more than the rope, paying out it takes less
    const shaftTorque = (direction: number, force: number) =>
      force * arm * (direction > 0 ? hauling : direction < 0 ? payingOut : 1)
    return {
      dryFriction: [{ port: W }],
      states: stateSpecs(STATE, {
        hauled: { label: 'rope length hauled', quantity: 'length', initial: 0, isCounter: true, scale: 1e-2 },
      }),
      outputs: outputSpecs(OUTPUT, {
        rope: { label: 'rope speed', quantity: 'speed' },
        pull: { label: 'rope force', quantity: 'force' },
      }),
      conditions: conditionSpecs(CONDITION, {
        slack: { label: 'rope slack', severity: 'warning' },
      }),
      evaluate(l) {
        const speed = l.p[W] * arm
        l.dx[STATE.hauled] = speed
        const direction = l.slide[0]
        const torque = shaftTorque(direction, pull(direction, l.u[INPUT.force]))
        l.q[W] = torque
        if (direction === 0) {
          l.holdForward[0] = shaftTorque(1, pull(1, l.u[INPUT.force])) - torque
          l.holdBack[0] = torque - shaftTorque(-1, pull(-1, l.u[INPUT.force]))
        }
        l.v[W] = inertia
      },
      observe(l) {
        const speed = l.p[W] * arm
        const force = pull(l.slide[0], l.u[INPUT.force])
        l.o[OUTPUT.rope] = speed
        l.o[OUTPUT.pull] = force
        l.c[CONDITION.slack] = force <= 0 ? 1 : -1
        const useful = force > 0 ? l.u[INPUT.force] * speed : 0
        l.power[Power.useful] = useful
        l.power[Power.stored] = weight * speed
        l.energy[0] = weight * l.x[STATE.hauled]
        // rolling friction, the gear, and what the rounded corner leaves of a rope that goes slack
        l.power[Power.heat] = shaftTorque(l.slide[0], force) * l.p[W] - useful - l.power[Power.stored]
      },
    }
  },
  describeState: (l, _v, show) =>
    l.o[OUTPUT.pull] <= 0
      ? 'The rope is slack.'
      : Math.abs(l.o[OUTPUT.rope]) < 1e-3
        ? `Holds ${show(l.o[OUTPUT.pull], 'force')} with ${show(l.x[STATE.hauled], 'length')} hauled.`
        : `${l.o[OUTPUT.rope] > 0 ? 'Hauls' : 'Pays out'} at ${show(Math.abs(l.o[OUTPUT.rope]), 'speed')} against ${show(l.o[OUTPUT.pull], 'force')}.`,
})
