/**
 * Three machines sized from brief to pump with a textbook beside them: a ramp that hangs below its rod, a press that pushes, a winch.
 * The numbers on the right are worked out here, from the brief alone.
 */
import { describe, expect, it } from 'vitest'
import { readBrief } from './brief/read'
import { sizeMachine } from './graph'

const [G, bar, litre, minute] = [9.80665, 1e5, 1e-3, 60]
const circle = (d: number) => (Math.PI * d * d) / 4
const outAndBack = ['out', 'back'].map((way, i) => ({
  id: `s${i + 1}`,
  motion: 'm1',
  way,
  start: 'after',
  condition: '',
}))
function sized(motion: Record<string, unknown>, maximumPressure: string) {
  const brief = readBrief({
    version: 3,
    values: { maximumPressure },
    supply: 'fixedPump',
    motions: [{ id: 'm1', name: 'Motion', designation: 'A1', ...motion }],
    cycle: outAndBack,
  })
  const { nodes } = sizeMachine(brief)
  const find = (id: string) => nodes.find((n) => n.id === id || n.id === `${id}@m1`)!
  return {
    of: (card: string, name: string) => find(card).values[name]!,
    warned: (card: string) => find(card).warnings.map((w) => `${w.severity ?? ''} ${w.message}`),
  }
}
/** Equal to so many parts of itself. */
const near = (value: number, wanted: number, share = 1e-3) =>
  expect(Math.abs(value - wanted)).toBeLessThanOrEqual(share * Math.abs(wanted))

describe('a ramp of 1200 kg below its rod, 500 mm in 5 s each way, class 160 bar, people under it', () => {
  const { of, warned } = sized(
    {
      actuator: 'doubleActing',
      people: true,
      holding: 'counterbalance',
      values: { stroke: '500 mm', outTime: '5 s', backTime: '5 s', mass: '1200 kg', slope: '-90 °' },
    },
    '160 bar',
  )
  const weight = 1200 * G
  const lifting = weight + (1200 * 0.1) / 0.2
  /** Relief valve opens 6 % below the class, a tenth above the working pressure. */
  const working = (160 * 0.94) / 1.1
  it('is lifted and held by the rod side', () => {
    near(of('linear-load', 'drivingOut'), weight)
    near(of('linear-load', 'forceBack'), lifting)
    expect(of('linear-load', 'forceOut')).toBe(0)
    // 93 % of what is left after 10 bar in lines, less 5 bar on the other side
    near(of('cylinder-bore', 'areaBack'), lifting / ((0.93 * (working - 10) - 5) * bar))
    expect([of('cylinder-bore', 'bore'), of('cylinder-buckling', 'rod')]).toEqual([0.063, 0.045])
    const ring = circle(0.063) - circle(0.045)
    near(of('cylinder-motion', 'inducedOut'), weight / ring)
    // 1.3 times 77.1 bar: the next setting of 5 bar
    expect(of('counterbalance', 'setting') / bar).toBeCloseTo(105, 9)
    // opened by the pilot: p₂ + 4·p₁ = 105 + (1 + 4)·5, with p₂ = 77.1 + 2.042·p₁
    const areas = circle(0.063) / ring
    near(of('counterbalance', 'lowering') / bar, (105 + 25 - weight / ring / bar) / (4 + areas))
  })
  it('has a rod that the relief valve cannot buckle: Euler with a free end', () => {
    const length = 2 * (0.5 + 0.25)
    const euler = (Math.PI ** 3 * 210e9 * 0.045 ** 4) / 64 / length ** 2
    near(of('cylinder-buckling', 'bucklingForce'), euler)
    near(of('cylinder-buckling', 'reached'), euler / (160 * bar * circle(0.063)))
  })
  it('gets the pump for the way out, and runs back at twice the speed: an error with people under it', () => {
    const flow = circle(0.063) * 0.1
    near(of('pump-displacement', 'displacementNeeded'), flow / (1450 / 60) / 0.92)
    const delivered = (16e-6 * 1450 * 0.92) / 60
    near(of('pump-displacement', 'delivered'), delivered)
    const back = delivered / (circle(0.063) - circle(0.045))
    near(of('cylinder-result', 'speedBack'), back)
    near(of('flow-control', 'ratioBack'), back / 0.1)
    expect(warned('flow-control').join()).toMatch(/error/)
    // a share of the area: what comes back from the piston side goes through the valve
    near(of('directional-valve', 'largest') / (litre / minute), (back * circle(0.063)) / (litre / minute))
    expect(of('directional-valve', 'rated') / (litre / minute)).toBeCloseTo(50, 6)
  })
  it('has a motor for the pressure at which the relief valve passes the pump', () => {
    // opens at 94 % of 130 bar, rated for 25 L/min
    const delivered = 16 * 1.45 * 0.92
    const full = 130 * (0.94 + (0.06 * delivered) / 25)
    near(of('relief-setting', 'highest') / bar, full)
    near(of('electric-motor', 'shaftPower'), ((delivered * full) / 600 / 0.85) * 1000)
    expect(of('electric-motor', 'motor')).toBe(5500)
  })
})

describe('a press of 80 kN, 400 mm out in 4 s and back in 2.5 s, class 210 bar', () => {
  const { of } = sized(
    {
      actuator: 'doubleActing',
      holding: 'spool',
      values: {
        stroke: '400 mm',
        outTime: '4 s',
        backTime: '2.5 s',
        workForce: '80 kN',
        workStroke: '50 mm',
      },
    },
    '210 bar',
  )
  it('has bore, pressure and pump of the textbook', () => {
    const working = (210 * 0.94) / 1.1
    near(of('cylinder-bore', 'area'), 80e3 / ((0.93 * (working - 10) - 5) * bar))
    expect(of('cylinder-bore', 'bore')).toBe(0.1)
    const [piston, ring] = [circle(0.1), circle(0.1) - circle(0.063)]
    // (F/A + p₂·a/A)/η + losses
    near(of('cylinder-motion', 'pressureOut') / bar, (80e3 / piston / bar + (5 * ring) / piston) / 0.93 + 10)
    near(of('pump-displacement', 'displacementNeeded'), (piston * 0.1) / (1450 / 60) / 0.92)
    expect(of('pump-displacement', 'displacement')).toBeCloseTo(40e-6, 12)
    // the workpiece is met 50 mm before the end: 80 kN over 50 mm
    near(of('sheet-load', 'start'), 0.35)
    near(of('sheet-load', 'stiffness'), 80e3 / 0.05)
    // meter-out: the ring side at full pump pressure over the areas
    near(of('cylinder-motion', 'intensified') / bar, (210 * piston) / ring)
  })
})

describe('a winch that lifts 2 t by a drum of 300 mm and a gear of 30, 6 m in 24 s', () => {
  const { of } = sized(
    {
      actuator: 'winch',
      holding: 'brake',
      people: true,
      values: {
        stroke: '6 m',
        outTime: '24 s',
        backTime: '24 s',
        mass: '2 t',
        slope: '90 °',
        drum: '300 mm',
        gear: '30',
      },
    },
    '210 bar',
  )
  it('has torque, motor and brake of the textbook', () => {
    const pull = 2000 * G + (2000 * 0.25) / 0.2
    const torque = (pull * 0.15) / 30 / 0.9
    near(of('winch-load', 'motorTorqueOut'), torque)
    near(of('winch-load', 'motorSpeedOut') / (2 * Math.PI), (0.25 / (Math.PI * 0.3)) * 30)
    // it must start under load: 75 % of what is left of the pressure
    const difference = (210 * 0.94) / 1.1 - 15 - 5
    near(of('motor-displacement', 'displacementNeeded'), (torque * 2 * Math.PI) / (difference * bar * 0.75))
    expect(of('motor-displacement', 'displacement')).toBeCloseTo(80e-6, 12)
    near(of('motor-displacement', 'pressureOut') / bar, (torque * 2 * Math.PI) / (80e-6 * 0.9) / bar + 20)
    // the load is held without the help of friction in the gear, twice over
    const held = (2000 * G * 0.15) / 30
    near(of('holding-brake', 'held'), held)
    near(of('holding-brake', 'torque'), 2 * held)
    near(of('motor-displacement', 'inducedBack'), (held * 2 * Math.PI) / 80e-6)
    // what drives it while it is braked: less the friction of the gear
    near(of('motor-braking', 'driving'), held * 0.9)
    near(of('motor-displacement', 'flowOut'), (80e-6 * (0.25 / (Math.PI * 0.3)) * 30) / 0.94)
  })
})
