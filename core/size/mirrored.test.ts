/** A machine turned upside down, and one whose ways are exchanged: sized as the mirror of the first. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { GRAVITY } from '../units/quantities'
import { resultsOf } from './apply'
import { briefSchema, type Brief, type Motion } from './brief/brief'
import { sizeMachine, type SizedNode } from './graph'

const swapped = {
  out: 'back',
  back: 'out',
  wait: 'wait',
  none: 'none',
  both: 'both',
  lever: 'lever',
} as const
const negative = (text: string | undefined) =>
  text === undefined ? undefined : text.startsWith('-') ? text.slice(1) : `-${text}`

/** The motion with its ways exchanged: what drove it out drives it back. */
function mirroredMotion(motion: Motion): Motion {
  const { forceOut, forceBack, torqueOut, torqueBack, outTime, backTime, slope } = motion.values
  const values = {
    ...motion.values,
    forceOut: forceBack,
    forceBack: forceOut,
    torqueOut: torqueBack,
    torqueBack: torqueOut,
    outTime: backTime,
    backTime: outTime,
    slope: negative(slope),
  }
  return {
    ...motion,
    workWay: swapped[motion.workWay],
    speedControl: swapped[motion.speedControl],
    values: Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined)),
  }
}
const mirrored = (brief: Brief): Brief => ({
  ...brief,
  motions: brief.motions.map(mirroredMotion),
  cycle: brief.cycle.map((s) => ({ ...s, way: swapped[s.way] })),
})

const amount = (least: number, most: number, unit: string) =>
  fc.integer({ min: least, max: most }).map((n) => `${n} ${unit}`)
const shared = {
  people: fc.boolean(),
  holding: fc.constantFrom('spool', 'pilotCheck', 'counterbalance', 'lock'),
  speedControl: fc.constantFrom('none', 'out', 'back', 'both'),
}
const straight = (actuators: readonly string[]) =>
  fc.record({
    ...shared,
    actuator: fc.constantFrom(...actuators),
    workWay: fc.constantFrom('out', 'back'),
    mounting: fc.constantFrom('pivotedPivoted', 'fixedFixed'),
    values: fc.record({
      stroke: amount(50, 1500, 'mm'),
      outTime: amount(2, 30, 's'),
      backTime: amount(2, 30, 's'),
      mass: amount(0, 4000, 'kg'),
      slope: fc.constantFrom('90 °', '-90 °', '0 °', '35 °', '-20 °'),
      forceOut: amount(-20, 60, 'kN'),
      forceBack: amount(-20, 60, 'kN'),
      friction: amount(0, 900, 'N'),
      workForce: amount(0, 80, 'kN'),
    }),
  })
const turning = fc.record({
  ...shared,
  holding: fc.constantFrom('spool', 'brake', 'counterbalance'),
  actuator: fc.constantFrom('motor', 'vane'),
  values: fc.record({
    angle: amount(30, 120, '°'),
    outTime: amount(2, 30, 's'),
    backTime: amount(2, 30, 's'),
    torqueOut: amount(-3000, 5000, 'N·m'),
    torqueBack: amount(-3000, 5000, 'N·m'),
    frictionTorque: amount(0, 200, 'N·m'),
    inertia: amount(0, 800, 'kg·m²'),
    gear: fc.constantFrom('1', '8'),
  }),
})
const briefs = (motion: fc.Arbitrary<unknown>) =>
  fc
    .record({
      motion,
      supply: fc.constantFrom('fixedPump', 'compensated', 'loadSensing', 'accumulator'),
    })
    .map(({ motion, supply }) =>
      briefSchema.parse({
        values: { maximumPressure: '210 bar' },
        supply,
        motions: [{ id: 'm', name: 'Motion', ...(motion as object) }],
        cycle: [
          { id: '1', motion: 'm', way: 'out' },
          { id: '2', motion: 'm', way: 'back' },
        ],
      }),
    )

const rounded = (value: number) => Number(value.toPrecision(9))
/** What a card gives to the sheet, and how often it says that something must not be built so. */
const summary = (node: SizedNode) => ({
  id: node.id,
  results: resultsOf(node)
    .map((r) => `${r.sized} ${rounded(r.value)}`)
    .sort(),
  problems: node.problems.length,
  errors: node.warnings.filter((w) => w.severity === 'error').length,
  warnings: node.warnings.length,
})

/** A lift held by a counterbalance valve with people under it, a clamp and a hoist, supplied by one fixed pump. */
const three = (slope: string): Brief =>
  briefSchema.parse({
    values: { maximumPressure: '160 bar' },
    motions: [
      {
        id: 'lift',
        name: 'Lift',
        actuator: 'doubleActing',
        holding: 'counterbalance',
        people: true,
        mounting: 'pivotedPivoted',
        values: {
          stroke: '800 mm',
          outTime: '8 s',
          mass: '2.5 t',
          slope,
          holdTime: '10 min',
          accuracy: '5 mm',
        },
      },
      {
        id: 'hoist',
        name: 'Hoist',
        actuator: 'winch',
        holding: 'brake',
        people: true,
        values: {
          stroke: '5 m',
          outTime: '20 s',
          mass: '3000 kg',
          slope: '90 °',
          drum: '400 mm',
          gear: '24',
        },
      },
    ],
    cycle: ['lift', 'hoist'].flatMap((motion) => [
      { id: `${motion}1`, motion, way: 'out' },
      { id: `${motion}2`, motion, way: 'back' },
    ]),
  })

describe('a load over people', () => {
  it('that hangs below the rod is held by the rod side', () => {
    const sizing = sizeMachine(three('-90 °'))
    const of = (id: string) => sizing.find(id)!.values
    const held = 2500 * GRAVITY
    // the rod side lifts it with the pressure that a class of 160 bar leaves, and carries it at 1.3 times its pressure
    expect(of('cylinder-motion@lift').pressureBack).toBeLessThanOrEqual(of('pressure-levels').available)
    expect(of('cylinder-motion@lift').inducedOut).toBeCloseTo(held / of('cylinder-motion@lift').rodArea, 3)
    expect(of('counterbalance@lift').setting).toBeGreaterThanOrEqual(
      (1.3 * held) / of('cylinder-motion@lift').rodArea,
    )
    expect(of('cylinder-bore@lift').bore).toBeGreaterThanOrEqual(0.063)
    expect(of('cylinder-drift@lift').drift).toBeGreaterThan(0)
    // tension: the load alone pulls at the rod
    expect(of('cylinder-buckling@lift').rodTension).toBeGreaterThan(0.015)
  })
  it.each(['90 °', '-90 °'])(
    'runs faster than asked with one pump for all, at a slope of %s: an error',
    (slope) => {
      const sizing = sizeMachine(three(slope))
      const control = sizing.find('flow-control@lift')!
      const { delivered } = sizing.find('pump-displacement')!.values
      const { speedOut, speedBack } = sizing.find('cylinder-result@lift')!.values
      const { capArea, rodArea } = sizing.find('cylinder-motion@lift')!.values
      expect(speedOut).toBeCloseTo(delivered / capArea, 9)
      expect(speedBack).toBeCloseTo(delivered / rodArea, 9)
      expect(control.warnings.filter((w) => w.severity === 'error').map((w) => w.variable)).toEqual([
        'ratioOut',
        'ratioBack',
      ])
      // cushions and valves are computed for these speeds
      expect(sizing.find('cylinder-cushion@lift')!.values.speed).toBeCloseTo(speedOut, 9)
      expect(sizing.find('directional-valve@lift')!.values.returnBack).toBeCloseTo(capArea * speedBack, 9)
      // a flow control that the brief names ends that, and is sized
      const limited = three(slope)
      limited.motions[0].speedControl = 'both'
      const after = sizeMachine(limited)
      expect(after.find('cylinder-result@lift')!.values.speedBack).toBeCloseTo(0.1, 9)
      expect(after.find('flow-control@lift')!.warnings.filter((w) => w.severity === 'error')).toEqual([])
      expect(
        resultsOf(after.find('flow-control@lift')!)
          .map((r) => r.sized)
          .sort(),
      ).toEqual(['flowSetting', 'flowSetting', 'orifice', 'orifice'])
      expect(resultsOf(control)).toEqual([])
    },
  )
  it('on a rope has a brake of twice the load, and its speed is limited by something', () => {
    const sizing = sizeMachine(three('90 °'))
    // 3 t on 200 mm through 24: 245.2 N·m
    expect(sizing.find('holding-brake@hoist')!.values.torque).toBeCloseTo((2 * 3000 * GRAVITY * 0.2) / 24, 6)
    expect(sizing.find('flow-control@hoist')!.warnings.map((w) => w.variable)).toContain('inducedBack')
    // what brakes it does not open while it hauls: 272 N·m at the motor
    const braking = sizing.find('motor-braking@hoist')!.values
    expect(braking.setting).toBeGreaterThanOrEqual(1.1 * braking.needed * (1 - 1e-9))
  })
})

describe('a mirrored brief', () => {
  it.each([
    ['with rods at both ends of the piston', straight(['doubleRod'])],
    ['of motors and vane actuators', turning],
  ])('%s has the sizes of the first', (_what, motions) => {
    fc.assert(
      fc.property(briefs(motions), (brief) => {
        const [a, b] = [brief, mirrored(brief)].map((each) => sizeMachine(each).nodes.map(summary))
        expect(b).toEqual(a)
      }),
      { numRuns: 150 },
    )
  })

  it('of a cylinder with one rod is sized for the side that carries each load', () => {
    fc.assert(
      fc.property(briefs(straight(['doubleActing'])), fc.boolean(), (first, turned) => {
        const brief = turned ? mirrored(first) : first
        const sizing = sizeMachine(brief)
        const [motion] = brief.motions
        const number = (name: keyof Motion['values']) => Number.parseFloat(motion.values[name] ?? '0')
        const weight = number('mass') * GRAVITY * Math.sin((number('slope') * Math.PI) / 180)
        const [out, back] = [number('forceOut') * 1e3 + weight, number('forceBack') * 1e3 - weight]
        const bore = sizing.find('cylinder-bore@m')!
        const { values, warnings } = sizing.find('cylinder-motion@m')!
        if (bore.values.bore === undefined || values.rodArea === undefined) {
          expect([...bore.problems, ...sizing.find('cylinder-buckling@m')!.problems]).not.toEqual([])
          return
        }
        // what resists is within the working pressure, on its own area, or it is said that it is not
        const available = sizing.find('pressure-levels')!.values.available
        const isTooHigh = Math.max(values.pressureOut, values.pressureBack) > available * (1 + 1e-6)
        expect(warnings.some((w) => w.variable.startsWith('pressure') && w.severity === 'error')).toBe(
          isTooHigh,
        )
        expect(values.pressureOut * values.capArea).toBeGreaterThanOrEqual(out)
        expect(values.pressureBack * values.rodArea).toBeGreaterThanOrEqual(back)
        // what drives is held by the other side
        expect(values.inducedOut * values.rodArea).toBeCloseTo(Math.max(0, -out), 3)
        expect(values.inducedBack * values.capArea).toBeCloseTo(Math.max(0, -back), 3)
        const induced = Math.max(values.inducedOut, values.inducedBack)
        const valve = sizing.find('counterbalance@m')
        if (valve)
          if (induced > 0) expect(valve.values.setting).toBeGreaterThanOrEqual(1.3 * induced * (1 - 1e-9))
          else expect(valve.values.setting).toBeUndefined()
        const drift = sizing.find('cylinder-drift@m')
        if (drift && motion.holding !== 'lock') expect(drift.values.drift > 0).toBe(induced > 0)
      }),
      { numRuns: 200 },
    )
  })
})
