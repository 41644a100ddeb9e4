import { vaneSection } from '../section-elements'
import { defineKind, quantity } from '../kind'
import { circle, line } from '../symbol'
import { flowTriangle, rotationArrow, shaftStub } from '../symbol-elements'
import {
  rotaryFaults,
  rotaryInputs,
  rotaryModel,
  rotaryMotions,
  rotaryMovement,
  rotaryParameters,
  rotaryPorts,
  rotaryProblems,
  describeRotaryActuator,
} from './rotary-actuator'

/** Vane in a chamber: D_r is its displacement over its whole angle. The equations are those of rotary-actuator.ts. */
export const semiRotary = defineKind({
  name: 'semi-rotary',
  label: 'Semi-rotary vane actuator',
  family: 'actuators',
  searchTerms: ['rotary actuator', 'vane actuator', 'rudder', 'swing'],
  designationLetter: 'A',
  description: 'Turns through part of a turn: oil at A one way, at B the other.',
  ports: rotaryPorts,
  parameters: {
    displacement: quantity('Displacement over the full angle', 'volume', '1 L', 1e-6, 10),
    ...rotaryParameters,
    leakage: quantity('Vane leakage at 100 bar', 'flow', '0.2 L/min', 0, 1e-2, { group: 'Losses' }),
  },
  inputs: rotaryInputs,
  faults: rotaryFaults,
  traits: {
    measures: { speed: 'speed', pressure: 'highest', load: 'torque' },
    movement: rotaryMovement,
    sizingTargets: { rotaryVolume: 'displacement' },
    ratedPressure: 'maxPressure',
    motions(v) {
      return rotaryMotions(v, v.displacement / v.range)
    },
  },
  validate: rotaryProblems,
  symbol: () => ({
    shapes: [
      { shape: 'arc', at: [0, 0], r: 3, from: 180, to: 360 },
      line([-3, 0], [3, 0]),
      flowTriangle(-1.8, -1.732, 0, -1),
      flowTriangle(1.8, -1.732, 0, -1),
      circle(0, -0.5, 0.5),
      ...rotationArrow(0, -0.5, 1.6, 240, 300),
      line([-2, 0], [-2, 3]),
      line([2, 0], [2, 3]),
      ...shaftStub(3, 4),
    ],
    ports: {
      A: { x: -2, y: 3, side: 'down' },
      B: { x: 2, y: 3, side: 'down' },
      W: { x: 4, y: 0, side: 'right' },
    },
    box: { x: -3, y: -3, w: 6, h: 4 },
    reading: 'angle',
  }),
  caption: (values, show) => [show(values.displacement, 'volume'), show(values.range, 'angle')],
  section: (values) =>
    vaneSection({
      pressureA: (l) => l.p[0],
      pressureB: (l) => l.p[1],
      share: (l) => l.x[0] / values.range,
    }),
  model: (values, fluid) =>
    rotaryModel(values, fluid, values.displacement / values.range, values.leakage / 100e5),
  describeState: (l, _values, show) => describeRotaryActuator(l, show),
})
