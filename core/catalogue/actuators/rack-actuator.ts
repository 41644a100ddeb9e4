import { defineKind, quantity } from '../kind'
import { circleArea } from '../flow-laws'
import { circle, line, rectangle, type Shape } from '../symbol'
import { dot, rotationArrow, shaftStub } from '../symbol-elements'
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

interface RackValues {
  readonly bore: number
  readonly pinion: number
  readonly racks: string
}
const perRadian = (v: RackValues) => (v.racks === 'two' ? 2 : 1) * circleArea(v.bore) * v.pinion

/** Pistons drive a rack, the rack a pinion: D_r = n·A·r. Tight, so without internal leakage. The equations are those of rotary-actuator.ts. */
export const rackActuator = defineKind({
  name: 'rack-actuator',
  label: 'Rotary actuator, rack and pinion',
  family: 'actuators',
  searchTerms: ['rack', 'pinion', 'rotary actuator', 'swing', 'steering gear'],
  designationLetter: 'A',
  description: 'A rack between pistons turns a pinion: oil at A one way, at B the other.',
  ports: rotaryPorts,
  parameters: {
    bore: quantity('Bore', 'length', '63 mm', 1e-3, 1),
    pinion: quantity('Pitch radius of the pinion', 'length', '40 mm', 1e-3, 2),
    racks: {
      type: 'choice',
      label: 'Racks',
      default: 'one',
      choices: { one: 'one', two: 'two, opposite each other' },
    },
    ...rotaryParameters,
  },
  inputs: rotaryInputs,
  faults: rotaryFaults,
  traits: {
    movement: rotaryMovement,
    ratedPressure: 'maxPressure',
    motions(v) {
      return rotaryMotions(v, perRadian(v))
    },
  },
  validate: rotaryProblems,
  symbol(values) {
    /** A rack with its two pistons in a cylinder whose middle is at y. */
    const rack = (y: number): Shape[] => [
      rectangle(-4, y - 1, 8, 2),
      rectangle(-3, y - 1, 0.8, 2),
      rectangle(2.2, y - 1, 0.8, 2),
      line([-2.2, y], [2.2, y]),
    ]
    const two = values.racks === 'two'
    return {
      shapes: [
        ...rack(0),
        ...(two ? rack(-4) : []),
        ...shaftStub(1.6, two ? 7 : 5, -2),
        circle(0, -2, 1.6),
        dot(0, -2),
        ...rotationArrow(0, -2, 1, 150, 390),
        line([-3.5, 1], [-3.5, 1.6], [-3, 1.6], [-3, 3]),
        line([3.5, 1], [3.5, 1.6], [3, 1.6], [3, 3]),
        // the opposite rack is driven the other way
        ...(two
          ? [
              line([3.5, -5], [3.5, -5.6], [-5.4, -5.6], [-5.4, 2], [-3, 2]),
              line([-3.5, -5], [-3.5, -6.2], [6, -6.2], [6, 2], [3, 2]),
              dot(-3, 2),
              dot(3, 2),
            ]
          : []),
      ],
      ports: {
        A: { x: -3, y: 3, side: 'down' },
        B: { x: 3, y: 3, side: 'down' },
        W: { x: two ? 7 : 5, y: -2, side: 'right' },
      },
      box: two ? { x: -5.5, y: -6.3, w: 11.6, h: 8.3 } : { x: -4, y: -4, w: 8, h: 6 },
      reading: 'angle',
    }
  },
  caption: (v, show) => [`⌀ ${show(v.bore, 'length')}`, show(v.range, 'angle')],
  model: (v, fluid) => rotaryModel(v, fluid, perRadian(v), 0),
  describeState: (l, _v, show) => describeRotaryActuator(l, show),
})
