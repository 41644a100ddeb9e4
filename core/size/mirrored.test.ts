/** A machine turned upside down, and one whose ways are exchanged: sized as the mirror of the first. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { GRAVITY } from '../units/quantities'
import { resultsOf } from './apply'
import { briefSchema, type Brief, type Motion } from './brief/brief'
import { sizeMachine, type SizedNode } from './graph'

const swapped = { out: 'back', back: 'out', wait: 'wait', none: 'none', both: 'both' } as const
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
