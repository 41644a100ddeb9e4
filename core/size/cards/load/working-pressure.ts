import { card, input, step } from '../../card'

/** The highest pressure that any motion needs, acceleration included. */
export const workingPressure = card({
  id: 'working-pressure',
  title: 'Highest working pressure',
  group: 'load',
  scope: 'machine',
  applies: {},
  about: 'The highest pressure that a motion of the machine needs, either way, with starting and workpiece.',
  source: 'the largest of the pressures of all motions',
  answer: 'highest',
  variables: {
    cylinderOut: input('p₁', 'Cylinders, extending', 'pressure', '0 bar', 0, 1500e5, {
      from: 'max:cylinder-motion.pressureOut',
    }),
    cylinderBack: input('p₂', 'Cylinders, retracting', 'pressure', '0 bar', 0, 1500e5, {
      from: 'max:cylinder-motion.pressureBack',
    }),
    motorOut: input('p₃', 'Motors, out', 'pressure', '0 bar', 0, 1500e5, {
      from: 'max:motor-displacement.pressureOut',
    }),
    motorBack: input('p₄', 'Motors, back', 'pressure', '0 bar', 0, 1500e5, {
      from: 'max:motor-displacement.pressureBack',
    }),
    rotaryOut: input('p₅', 'Rotary actuators, out', 'pressure', '0 bar', 0, 1500e5, {
      from: 'max:semi-rotary.pressureOut',
    }),
    rotaryBack: input('p₆', 'Rotary actuators, back', 'pressure', '0 bar', 0, 1500e5, {
      from: 'max:semi-rotary.pressureBack',
    }),
    consumers: input('p₇', 'Consumers', 'pressure', '0 bar', 0, 1500e5, {
      from: 'max:consumer.pressureOut',
    }),
    highest: step(
      'p',
      'Highest working pressure',
      'pressure',
      'max(max(max(cylinderOut, cylinderBack), max(motorOut, motorBack)), max(max(rotaryOut, rotaryBack), consumers))',
    ),
  },
})
