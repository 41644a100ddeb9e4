/** Results against sums done by hand; each says how. */
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { parseQuantity } from '../units/text'
import { readValue } from './card'
import { cards, findCard } from './cards'
import { evaluateCard } from './evaluate'
import { solveCard } from './solve'

function size(id: string, written: Readonly<Record<string, string>> = {}) {
  const card = findCard(id)!
  const given: Record<string, number> = {}
  for (const [name, text] of Object.entries(written)) {
    const read = readValue(card.variables[name], text)
    if ('message' in read) throw new Error(read.message)
    given[name] = read.value
  }
  return evaluateCard(card, given)
}
const [bar, litre, cc, minute] = [1e5, 1e-3, 1e-6, 60]
const warned = (id: string, written: Readonly<Record<string, string>>, at: string) =>
  size(id, written).warnings.some((w) => w.variable === at)

describe('cylinder', () => {
  it('bore: 60 kN at 160 bar', () => {
    // A = 60000 / (0.93 · 150e5 − 5e5) = 44.61 cm² → 75.4 mm → 80 mm, 50.27 cm²
    const { values } = size('cylinder-bore', { force: '60 kN', maximumPressure: '160 bar' })
    expect(values.area).toBeCloseTo(60000 / (0.93 * 150e5 - 5e5), 9)
    expect(values.bore).toBeCloseTo(0.08, 12)
    // (60000 / 50.27e-4 + 5e5) / 0.93 + 10e5 = 143.7 bar
    expect(values.pressure / bar).toBeCloseTo((60000 / 50.265e-4 / bar + 5) / 0.93 + 10, 1)
  })
  it('bore with two rods: each side lacks the rod', () => {
    // 44.61 cm² beside a rod of 45 mm: √(4 · 44.61 / π + 4.5²) = 8.778 cm → 100 mm, less the rod
    const { values } = size('cylinder-bore', { force: '60 kN', kind: 'doubleRod', rod: '45 mm' })
    expect(values.boreNeeded).toBeCloseTo(Math.sqrt((4 * 44.61e-4) / Math.PI + 0.045 ** 2), 5)
    expect(values.bore).toBeCloseTo(0.1, 12)
    expect(values.pistonArea).toBeCloseTo((Math.PI * (0.1 ** 2 - 0.045 ** 2)) / 4, 12)
  })
  it('bore of a load that hangs below the rod: the rod side lifts it', () => {
    // 25 kN back: 25000 / (0.93 · 150e5 − 5e5) = 18.59 cm² beside a rod of 45 mm → √(4 · 18.59 / π + 4.5²) = 6.627 cm → 80 mm
    const { values } = size('cylinder-bore', { force: '0 N', forceBack: '25 kN', rod: '45 mm' })
    expect(values.areaBack).toBeCloseTo(18.587e-4, 7)
    expect(values.boreNeeded).toBeCloseTo(0.066269, 6)
    expect(values.bore).toBeCloseTo(0.08, 12)
  })
  it('telescopic: the last stage carries the load, the first takes the oil', () => {
    // stages of 50, 75 and 100 mm, 0.4 m each: π/4 · 0.4 · (0.0025 + 0.005625 + 0.01) = 5.694 L
    const { values } = size('telescopic-stages', {
      last: '50 mm',
      stages: '3',
      step: '25 mm',
      force: '25 kN',
    })
    expect(values.first).toBeCloseTo(0.1, 12)
    expect(values.oil / litre).toBeCloseTo((Math.PI / 4) * 0.4 * 18.125, 9)
    // 25 kN / (0.93 · 19.63 cm²) = 136.9 bar, a quarter of it on the first stage
    expect(values.lastPressure / bar).toBeCloseTo(250000 / (0.93 * 1963.495), 3)
    expect(values.lastPressure / values.firstPressure).toBeCloseTo(4, 9)
    expect(values.faster).toBeCloseTo(4, 9)
    const motion = size('cylinder-motion', {
      kind: 'telescopic',
      bore: '100 mm',
      last: '50 mm',
      forceOut: '25 kN',
    })
    expect(motion.values.flowOut).toBeCloseTo((Math.PI / 4) * 0.1 ** 2 * motion.values.speedOut, 12)
    expect(motion.values.pressureOut / bar).toBeCloseTo(250000 / (0.93 * 1963.495) + 10, 3)
  })
  it('load on the sheet: without a mass the rod moves, 7850 · π/4 · 0.045² · 0.6 = 7.49 kg', () => {
    expect(size('sheet-load').values.moved).toBeCloseTo(7.4909, 3)
    expect(size('sheet-load', { mass: '450 kg' }).values.moved).toBeCloseTo(450, 9)
  })
  it('says that a bore is too small for the way out', () => {
    expect(warned('cylinder-motion', { bore: '63 mm', forceOut: '60 kN' }, 'pressureOut')).toBe(true)
    expect(warned('cylinder-motion', { bore: '80 mm', forceOut: '60 kN' }, 'pressureOut')).toBe(false)
  })
  it('says what keeps a bore from being found', () => {
    expect(
      size('cylinder-bore', { force: '60 kN', maximumPressure: '14 bar' }).problems[0].message,
    ).toContain('take the whole working pressure')
    expect(
      size('cylinder-bore', { force: '50 MN', maximumPressure: '100 bar' }).problems[0].message,
    ).toContain('large enough')
    expect(warned('cylinder-bore', { force: '60 kN', bore: '63 mm' }, 'bore')).toBe(true)
  })
  it('buckling of a slender rod is that of Euler', () => {
    // ⌀ 25, both pivoted, 1.5 m: F = π³ · E · d⁴ / (64 · L²) = 17.66 kN
    const { values } = size('cylinder-buckling', {
      rod: '25 mm',
      stroke: '1.5 m',
      overhang: '0 mm',
      force: '5 kN',
      bore: '50 mm',
    })
    expect(values.bucklingForce).toBeCloseTo((Math.PI ** 3 * 210e9 * 0.025 ** 4) / (64 * 1.5 ** 2), 3)
    expect(values.slenderness).toBeCloseTo(240, 9)
  })
  it('buckling of a stocky rod is that of Johnson, and meets Euler at the limit', () => {
    // ⌀ 50, K = 1, 0.5 m: λ = 40; σ = 355 · (1 − 355 · 40² / (4 · π² · 210000)) = 330.7 N/mm²
    const { values } = size('cylinder-buckling', {
      rod: '50 mm',
      stroke: '0.5 m',
      overhang: '0 mm',
      bore: '80 mm',
    })
    expect(values.stress / 1e6).toBeCloseTo(355 * (1 - (355 * 1600) / (4 * Math.PI ** 2 * 210000)), 6)
    const at = (length: number) =>
      evaluateCard(findCard('cylinder-buckling')!, { rod: 0.05, stroke: length, overhang: 0 }).values.stress
    const limit = (Math.PI * Math.sqrt((2 * 210e9) / 355e6) * 0.05) / 4
    expect(at(limit * 0.999999) / at(limit * 1.000001)).toBeCloseTo(1, 4)
  })
  it('buckling by Tetmajer, and ends that are held differently', () => {
    const { values } = size('cylinder-buckling', {
      rod: '50 mm',
      stroke: '0.5 m',
      overhang: '0 mm',
      method: 'tetmajer',
      bore: '80 mm',
    })
    expect(values.stress / 1e6).toBeCloseTo(335 - 0.62 * 40, 9)
    const force = (mounting: string) =>
      size('cylinder-buckling', { rod: '25 mm', stroke: '2 m', overhang: '0 mm', mounting, bore: '50 mm' })
        .values.bucklingForce
    // a fixed–free column carries a quarter, a fixed–fixed one four times
    expect(force('fixedFree') / force('pivotedPivoted')).toBeCloseTo(0.25, 9)
    expect(force('fixedFixed') / force('pivotedPivoted')).toBeCloseTo(4, 1)
  })
  it('chooses a rod that reaches the safety', () => {
    for (const stroke of ['200 mm', '800 mm', '2 m', '4 m'])
      for (const method of ['johnson', 'tetmajer'])
        expect(
          size('cylinder-buckling', { stroke, method, bore: '200 mm', smallest: '0 %' }).warnings,
        ).toEqual([])
  })
  it('flows and pressures both ways', () => {
    // 80/45, 600 mm in 6 s and 5 s: 50.27 cm² · 10 cm/s = 30.16 L/min; 34.36 cm² · 12 cm/s = 24.74 L/min
    const { values } = size('cylinder-motion', {})
    expect((values.flowOut * minute) / litre).toBeCloseTo(30.16, 2)
    expect((values.flowBack * minute) / litre).toBeCloseTo(24.74, 2)
    expect((values.returnBack * minute) / litre).toBeCloseTo(36.19, 2)
    // (60000 + 5e5 · 34.36e-4) / (50.27e-4 · 0.93) + 10e5 = 142.0 bar
    expect(values.pressureOut / bar).toBeCloseTo(142.0, 1)
    // blocked rod side without load: 160 · 50.27 / 34.36 = 234.1 bar
    expect(values.intensified / bar).toBeCloseTo(234.1, 1)
    expect(
      size('cylinder-motion', { kind: 'doubleRod' }).values.flowOut /
        size('cylinder-motion', { kind: 'doubleRod' }).values.flowBack,
    ).toBeCloseTo(5 / 6, 9)
    expect(size('cylinder-motion', { kind: 'plunger' }).values.flowBack).toBe(0)
  })
  it('regenerative: the rod counts alone', () => {
    // 30 L/min on the section of a 56 mm rod, 24.63 cm²: 203 mm/s
    const { values } = size('cylinder-regenerative', { rod: '56 mm', flow: '30 L/min' })
    expect(values.speed).toBeCloseTo(5e-4 / ((Math.PI * 0.056 ** 2) / 4), 9)
    expect(values.speed / values.plain).toBeCloseTo(80 ** 2 / 56 ** 2, 9)
  })
  it('natural frequency of a symmetrical cylinder', () => {
    // equal areas in the middle, no lines: c = 2 · K · A / (s / 2) = 4 · K · A / s
    const { values } = size('cylinder-frequency', {
      capArea: '20 cm²',
      rodArea: '20 cm²',
      stroke: '1 m',
      deadVolume: '0 L',
      mass: '1000 kg',
      bulk: '1400 MPa',
    })
    const c = (4 * 1.4e9 * 20e-4) / 1
    expect(values.frequency).toBeCloseTo(Math.sqrt(c / 1000) / (2 * Math.PI), 3)
    expect(values.ramp).toBeCloseTo(6 / values.frequency, 9)
  })
  it('cushion: all energy goes into the oil', () => {
    // 1000 kg at 0.3 m/s = 45 J over 20 mm and 20 cm²: 11.25 bar mean of the mass alone, doubled at its peak
    const { values } = size('cylinder-cushion', {
      mass: '1000 kg',
      speed: '300 mm/s',
      drivingPressure: '0 bar',
      cushionArea: '20 cm²',
    })
    expect(values.mean / bar).toBeCloseTo(11.25, 9)
    expect(values.peak / bar).toBeCloseTo(22.5, 9)
  })
  it('loads: a slope of −90° is the mirror of 90°', () => {
    // 2.5 t at standard gravity: 24.517 kN; 100 mm/s in 0.2 s: 1.25 kN
    const up = size('linear-load', { mass: '2.5 t', slope: '90 °' }).values
    expect(up.forceOut / 1e3).toBeCloseTo(24.516625 + 1.25, 9)
    expect(up.drivingBack / 1e3).toBeCloseTo(24.516625, 9)
    expect([up.forceBack, up.drivingOut, up.heldOut]).toEqual([0, 0, 0])
    const down = size('linear-load', { mass: '2.5 t', slope: '-90 °' }).values
    expect(down.forceBack).toBeCloseTo(up.forceOut, 9)
    expect(down.drivingOut).toBeCloseTo(up.drivingBack, 9)
    // friction helps to hold what moves and is not counted on for what stands
    const slow = size('linear-load', { mass: '2.5 t', slope: '90 °', friction: '4 kN' }).values
    expect(slow.drivingBack / 1e3).toBeCloseTo(20.516625, 9)
    expect(slow.heldBack / 1e3).toBeCloseTo(24.516625, 9)
    // a load table that pulls the rod out drives the way out
    expect(size('linear-load', { tableLeast: '-8 kN' }).values.drivingOut).toBeCloseTo(8000, 9)
  })
  it('forces of a cylinder: pressure on one side less back pressure on the other', () => {
    // 120 bar · 50.27 cm² · 0.93 − 5 bar · 34.36 cm²; back 120 · 34.36 · 0.93 − 5 · 50.27; 108 bar with a tenth in hand
    const { values } = size('cylinder-force')
    expect(values.forceOut).toBeCloseTo(54378.22, 1)
    expect(values.forceBack).toBeCloseTo(35833.79, 1)
    expect(values.allowedOut).toBeCloseTo(48768.59, 1)
  })
  it('oil volumes: the rod is the difference', () => {
    // 600 mm · 50.27 cm² = 3.016 L, of which the rod of 45 mm takes 600 mm · 15.9 cm² = 0.954 L
    const { values } = size('cylinder-volumes')
    expect(values.volumeOut / litre).toBeCloseTo(3.0162, 4)
    expect(values.difference / litre).toBeCloseTo(0.6 * (50.27 - 34.36) * 0.1, 9)
  })
  it('resulting motion: the speed asked for times what the supply sends', () => {
    const { values } = size('cylinder-result', { ratioOut: '150 %', ratioBack: '90 %' })
    expect([values.speedOut, values.speedBack]).toEqual([0.1 * 1.5, 0.12 * 0.9])
    expect(values.timeOut).toBeCloseTo(4, 9)
    // (60 kN + 5 bar · 34.36 cm²) / (50.27 cm² · 0.93)
    expect(values.chamber / bar).toBeCloseTo((60000 + 5e5 * 34.36e-4) / (50.27e-4 * 0.93) / bar, 9)
    expect(warned('cylinder-result', { ratioBack: '90 %' }, 'speedBack')).toBe(true)
    expect(warned('cylinder-result', {}, 'speedBack')).toBe(false)
  })
  it('drift by leakage', () => {
    // 50 bar, a spool with 20 cm³/min at 100 bar → 10 cm³/min; on 50 cm² 2 mm/min
    const { values } = size('cylinder-drift', { inducedBack: '50 bar', capArea: '50 cm²', time: '60 s' })
    expect(values.drift).toBeCloseTo(2e-3, 6)
    // hanging: the rod side holds, on 25 cm² twice as far
    const hanging = { inducedOut: '50 bar', inducedBack: '0 bar', rodArea: '25 cm²', time: '60 s' }
    expect(size('cylinder-drift', hanging).values.drift).toBeCloseTo(4e-3, 6)
    // a seat lets through 0.1 of 20 cm³/min, a lock nothing
    expect(size('cylinder-drift', { ...hanging, holding: 'pilotCheck' }).values.drift).toBeCloseTo(2e-5, 7)
    expect(size('cylinder-drift', { ...hanging, holding: 'lock' }).values.drift).toBe(0)
  })
})

describe('motors', () => {
  it('displacement from torque', () => {
    // started without load, 2 · π · 200 / (140e5 · 0.9) = 99.7 cm³ → 100; 100 · 300 / 0.94 = 31.9 L/min
    const { values } = size('motor-displacement', {
      torqueOut: '200 N·m',
      torqueBack: '0 N·m',
      speedOut: '300 rpm',
      underLoad: 'no',
    })
    expect(values.displacement / cc).toBeCloseTo(100, 9)
    expect((values.flowOut * minute) / litre).toBeCloseTo(30 / 0.94, 6)
    // 200 · 31.416 rad/s = 6.283 kW
    expect(values.power).toBeCloseTo(200 * 10 * Math.PI, 6)
  })
  it('motor: speed over torque falls by the leakage, which grows with the pressure', () => {
    // at the torque of the brief the speed of the brief; without torque that of the whole flow, 1 / 0.94
    const at = (looked: string) =>
      size('motor-displacement', { looked, torqueOut: '200 N·m', speedOut: '300 rpm' }).values
    expect((at('200 N·m').speedAtOut * 60) / (2 * Math.PI)).toBeCloseTo(300, 6)
    expect((at('0 N·m').speedAtOut * 60) / (2 * Math.PI)).toBeCloseTo(300 / 0.94, 6)
    // T = V · Δp · η / (2 · π)
    const { runningTorque, displacement, difference } = at('0 N·m')
    expect(runningTorque).toBeCloseTo((displacement * difference * 0.9) / (2 * Math.PI), 9)
  })
  it('braking: J · ω / t through the displacement', () => {
    // 5 kg·m², 300 rpm in 1 s: 157.1 N·m; 2 · π · 157.1 · 0.9 / 100e-6 = 88.8 bar, and the inlet
    const { values } = size('motor-braking', {})
    expect(values.setting / bar).toBeCloseTo((2 * Math.PI * 5 * 10 * Math.PI * 0.9) / 100e-6 / bar + 2, 6)
    expect(values.angle).toBeCloseTo((10 * Math.PI) / 2, 9)
  })
  it('braking: not below what driving needs', () => {
    // 100 N·m through 100 cm³ at 90 %: 69.8 bar and the inlet, a tenth above it 79.0 bar
    const { values } = size('motor-braking', { inertia: '1 kg·m²' })
    expect(values.needed / bar).toBeCloseTo(71.8132, 4)
    expect(values.setting / bar).toBeCloseTo(71.8132 * 1.1, 3)
    // it stops sooner than in 1 s: J · ω / ((p − p₁) · V / (2 · π · η))
    const torque = ((71.8132 * 1.1 - 2) * bar * 100e-6) / (2 * Math.PI * 0.9)
    expect(values.timeReached).toBeCloseTo((10 * Math.PI) / torque, 4)
    const low = size('motor-braking', { setting: '60 bar' }).warnings
    expect(low.find((w) => w.variable === 'setting')).toMatchObject({ severity: 'error' })
    expect(low[0].message).toContain('opens while the motor drives')
  })
  it('holding brake: twice the load, and how far it slips', () => {
    // 100 N·m on 1 kg·m²: from 31.4 to 41.4 rad/s in 0.1 s; then 200 − 100 N·m stop it in ω² / 2 / 100
    const { values } = size('holding-brake')
    expect(values.torque).toBeCloseTo(200, 9)
    expect(values.before).toBeCloseTo(3.64159, 5)
    expect(values.slip).toBeCloseTo(3.64159 + 8.57639, 4)
    expect(size('holding-brake', { factor: 'half' }).values.torque).toBeCloseTo(150, 9)
    expect(warned('holding-brake', { factor: 'half', people: 'yes' }, 'factor')).toBe(true)
    expect(warned('holding-brake', { torque: '90 N·m' }, 'torque')).toBe(true)
  })
  it('load of a rotation: through a gear, each way by its sign', () => {
    // 1000 N·m that drive out, less 100 friction, through 10 at 95 %; back against 1100 N·m
    const { values } = size('rotary-load', {
      torqueOut: '-1000 N·m',
      torqueBack: '1000 N·m',
      frictionTorque: '100 N·m',
      gear: '10',
    })
    expect(values.drivingOut).toBeCloseTo(85.5, 9)
    expect(values.heldOut).toBeCloseTo(100, 9)
    expect(values.motorTorqueBack).toBeCloseTo(1100 / 9.5, 9)
    expect([values.motorTorqueOut, values.drivingBack, values.heldBack]).toEqual([0, 0, 0])
    // 100 kg·m² from rest to 180° in 30 s within 2 s
    expect(size('rotary-load', { inertia: '100 kg·m²' }).values.accelerating).toBeCloseTo(
      (100 * Math.PI) / 30 / 2,
      9,
    )
  })
  it('motor, resulting motion', () => {
    const { values } = size('motor-result', { ratioOut: '110 %' })
    expect(values.speed).toBeCloseTo(11 * Math.PI, 9)
    // 2 · π · 200 / (100 cm³ · 0.9) + 5 bar
    expect(values.pressure / bar).toBeCloseTo((2 * Math.PI * 200) / (100e-6 * 0.9) / bar + 5, 9)
  })
  it('load of a winch', () => {
    // 20 kN on a drum of 400 mm: 4 kN·m; by 20 and 90 %: 222.2 N·m; 12 m/min: 1 rad/s · 20
    const { values } = size('winch-load', {})
    expect(values.motorTorqueOut).toBeCloseTo(4000 / 18, 9)
    expect(values.motorSpeedOut).toBeCloseTo(20, 9)
  })
  it('vane and rack', () => {
    // 2000 N·m at 85 bar and 85 %: 276.8 cm³/rad; two vanes of 100/50 mm are 2 · b · 0.0075 / 2 a radian
    const { values } = size('semi-rotary', {})
    const q = 2000 / (85e5 * 0.85)
    expect(values.width).toBeCloseTo(q / 0.0075, 9)
    expect((Math.PI * values.rackBore ** 2) / 4).toBeCloseTo(q / 0.06, 9)
    expect(values.volume).toBeCloseTo((q * Math.PI) / 2, 12)
    expect(values.pressureOut / bar).toBeCloseTo(100, 9)
    expect(warned('semi-rotary', { vanes: '2.5' }, 'vanes')).toBe(true)
  })
})

describe('pumps and drives', () => {
  it('displacement, and the speed that a locked pump gives', () => {
    // 30 / (1450 · 0.92) = 22.5 → 25 cm³; 25 · 1450 · 0.92 = 33.35 L/min
    const card = findCard('pump-displacement')!
    const { values } = size('pump-displacement', {})
    expect(values.displacement / cc).toBeCloseTo(25, 9)
    expect((values.delivered * minute) / litre).toBeCloseTo(33.35, 6)
    const solution = solveCard(
      card,
      { displacement: 16 * cc },
      { name: 'delivered', value: 30 / 60000 },
      'speed',
    )
    expect('value' in solution && (solution.value * 60) / (2 * Math.PI)).toBeCloseTo(30000 / (16 * 0.92), 3)
  })
  it('a high–low pump needs a smaller motor than one pump', () => {
    // 40 L/min, a quarter at 160 bar: 10 cm³ and 22.5 → 25 cm³ at 1450 rpm
    const { values } = size('high-low-pump', {})
    expect(values.highDisplacement / cc).toBeCloseTo(8, 9)
    const q = (v: number) => (v * 1450 * 0.92) / 60e6
    const before = ((q(8) + q(values.lowDisplacement / cc)) * 40e5) / 0.92 ** 2
    const after = (q(8) * 160e5 + q(values.lowDisplacement / cc) * 3e5) / 0.92 ** 2
    expect(values.shaftPower).toBeCloseTo(Math.max(before, after), 6)
    expect(values.saving).toBeGreaterThan(0.5)
  })
  it('motor: 30 L/min at 180 bar and 85 % are 10.6 kW', () => {
    const { values } = size('electric-motor', {})
    expect(values.shaftPower).toBeCloseTo(((30 / 60000) * 180e5) / 0.85, 6)
    expect(values.motor).toBeCloseTo(11000, 6)
    expect(values.horsepower / 745.69987158227).toBeCloseTo(15, 6)
    // P / (√3 · U · cos φ · η)
    expect(values.ratedCurrent).toBeCloseTo(11000 / (Math.sqrt(3) * 400 * 0.84 * 0.89), 6)
  })
  it('inlet: pressure of the air at altitude, and a thick oil', () => {
    // ISO 2533 at 2000 m: 79.5 kPa
    expect(size('pump-inlet', { altitude: '2000 m' }).values.atmosphere / 1000).toBeCloseTo(79.5, 1)
    // laminar: Δp = 128 · ν · ρ · L · Q / (π · d⁴), without fittings
    const { values } = size('pump-inlet', { fittings: '0', bore: '31 mm' })
    expect(values.loss).toBeCloseTo(
      (128 * values.viscosity * 870 * 1 * (35 / 60000)) / (Math.PI * 0.031 ** 4),
      4,
    )
    expect(warned('pump-inlet', { altitude: '4000 m', temperature: '-10 °C' }, 'inletPressure')).toBe(true)
  })
  it('charge pump: leakage grows as the oil thins and the cases wear', () => {
    const { values } = size('charge-pump', {})
    expect(values.displacement / cc).toBeCloseTo(10, 9)
    expect(values.worn).toBeCloseTo(((2 / 60000) * 2 * 46e-6) / values.hotViscosity, 12)
    expect(warned('charge-pump', { leakage: '8 L/min' }, 'left')).toBe(true)
  })
  it('closed circuit: pump, torque and reliefs', () => {
    // 70 L/min at 1450 rpm and 95 %: 50.8 → 63 cm³; 63 cm³ · 200 bar / (2 · π · 0.92); 220 bar and 15 %: 253 → 255 bar
    const { values } = size('closed-circuit-pump')
    expect(values.displacement / cc).toBeCloseTo(63, 9)
    expect(values.torque).toBeCloseTo(217.973, 3)
    expect(values.relief / bar).toBeCloseTo(255, 9)
    expect(warned('closed-circuit-pump', {}, 'relief')).toBe(true)
    expect(warned('closed-circuit-pump', { class: '260 bar' }, 'relief')).toBe(false)
  })
  it('compensated pump: the load, a reserve and the band', () => {
    // 130 · 1.1 + 5 = 148 → 150 bar; 150 bar · 2 L/min at 50 %: 1 kW standing by
    const { values } = size('compensated-pump')
    expect(values.compensator / bar).toBeCloseTo(150, 9)
    expect(values.standby).toBeCloseTo(1000, 6)
  })
  it('r.m.s. of a list: 11, 4 and 1 kW for 10, 20 and 30 s', () => {
    // √((121 · 10 + 16 · 20 + 1 · 30) / 60) = 5.099 kW; mean 220 / 60
    const { values } = size('rms-power')
    expect(values.rms).toBeCloseTo(5099.02, 1)
    expect(values.mean).toBeCloseTo(3666.667, 2)
    expect(values.greatest).toBe(11000)
  })
  it('consumer: its pressure and the loss to it', () => {
    const { values } = size('consumer')
    expect(values.pressureOut / bar).toBeCloseTo(105, 9)
    expect(values.volume / litre).toBeCloseTo(20 / 6, 9)
  })
  it('working pressure: the highest of all', () => {
    const three = { cylinderOut: '90 bar', motorBack: '120 bar', consumers: '100 bar' }
    expect(size('working-pressure', three).values.highest / bar).toBeCloseTo(120, 9)
    expect(size('working-pressure', { ...three, rotaryOut: '130 bar' }).values.highest / bar).toBeCloseTo(
      130,
      9,
    )
  })
  it('load sensing: margin and compensator', () => {
    const { values } = size('load-sensing', {})
    expect(values.margin / bar).toBeCloseTo(20, 9)
    expect(values.compensator / bar).toBeCloseTo(175, 9)
  })
  it('hand pump', () => {
    // 2 L at 25 cm³ and 90 %: 88.9 strokes; 60 bar on ⌀ 20: 1885 N · 40 / 600 / 0.85
    const { values } = size('hand-pump', {})
    expect(values.strokes).toBeCloseTo(2000 / 22.5, 9)
    expect(values.force).toBeCloseTo((60e5 * Math.PI * 1e-4 * 40) / 600 / 0.85, 6)
  })
})

describe('accumulators', () => {
  it('isothermal: p · V is constant', () => {
    // precharge 90 bar abs, 100 to 200 bar abs: V₀ · 90 · (1/100 − 1/200)
    const { values } = size('accumulator-volume', {
      low: '99 bar',
      high: '199 bar',
      air: '1 bar',
      discharging: '1',
    })
    expect(values.usable).toBeCloseTo(90 / 100 - 90 / 200, 9)
    expect(values.needed).toBeCloseTo(2e-3 / 0.45, 9)
  })
  it('adiabatic: less oil than isothermal, by the exponent', () => {
    const { values } = size('accumulator-volume', { low: '99 bar', high: '199 bar', air: '1 bar' })
    expect(values.usable).toBeCloseTo((90 / 200) * (200 / 100) ** (1 / 1.4) - 90 / 200, 9)
  })
  it('real nitrogen gives less at high pressure', () => {
    const at = (gas: string) =>
      size('accumulator-volume', { low: '200 bar', high: '350 bar', discharging: '1', gas }).values.usable
    expect(at('real')).toBeLessThan(at('ideal'))
  })
  it('oil in it: none below the precharge, p · V constant above', () => {
    const at = (looked: string) => size('accumulator-volume', { looked, air: '1 bar', low: '99 bar' }).values
    expect(at('50 bar').content).toBe(0)
    const { content, volume } = at('179 bar')
    expect(content / volume).toBeCloseTo(1 - 90 / 180, 9)
  })
  it('most starts come at half the flow of the pump', () => {
    const { values } = size('accumulator-cycle', {})
    const starts = (q: number) =>
      evaluateCard(findCard('accumulator-cycle')!, { displacement: values.displacement, consumption: q })
        .values.starts
    const half = values.pumpFlow / 2
    expect(starts(half)).toBeCloseTo(values.mostStarts, 12)
    expect(starts(half * 0.9)).toBeLessThan(starts(half))
    expect(starts(half * 1.1)).toBeLessThan(starts(half))
  })
  it('precharge follows the temperature', () => {
    // (90 + 1.01325) · 293.15 / 318.15 − 1.01325 = 82.85 bar
    expect(size('precharge-temperature', {}).values.filling / bar).toBeCloseTo(
      (91.01325 * 293.15) / 318.15 - 1.01325,
      6,
    )
  })
})

describe('accumulators for ripple and strokes', () => {
  it('pulsation: what one piston gives too much, within two per cent', () => {
    // 0.12 · 25 / 3 = 1 cm³; 0.02215 of the gas volume → 45.1 cm³ → 0.16 L
    const { values } = size('accumulator-pulsation')
    expect(values.oil / cc).toBeCloseTo(1, 9)
    expect(values.usable).toBeCloseTo(0.0221525, 6)
    expect(values.volume / litre).toBeCloseTo(0.16, 9)
  })
  it('strokes: 3 of 1 L and 0.1 L/min for 2 minutes', () => {
    expect(size('accumulator-strokes', { strokes: '3', time: '120 s' }).values.oil / litre).toBeCloseTo(
      3.2,
      9,
    )
  })
})

describe('valves', () => {
  it('relief: both conventions name the same valve', () => {
    // 142 · 1.1 = 156.2 → 160 where it opens, of which 160 / 0.8 = 200 at rated flow; 156.2 / 0.8 = 195.25 → 200
    const written = { working: '142 bar', override: '20 %' }
    const rated = size('relief-setting', written).values
    expect(rated.setting / bar).toBeCloseTo(200, 9)
    expect(size('relief-setting', written).unrounded.setting / bar).toBeCloseTo(195.25, 9)
    const cracking = size('relief-setting', { ...written, settingAt: 'cracking' }).values
    expect(cracking.setting / bar).toBeCloseTo(160, 9)
    expect(cracking.full).toBeCloseTo(rated.full, 3)
    // 30 of 31.5 L/min: 160 + 40 · 30 / 31.5 = 198.1 bar, above a class of 160
    expect((rated.rated * minute) / litre).toBeCloseTo(31.5, 9)
    expect(rated.highest / bar).toBeCloseTo(198.095, 3)
    expect(warned('relief-setting', written, 'highest')).toBe(true)
    expect(warned('relief-setting', { ...written, class: '200 bar' }, 'highest')).toBe(false)
  })
  it('relief at partial flow: a quarter of the flow is a quarter of the override', () => {
    // 150 bar at rated flow, 20 %: opens at 120 bar; 120 + 30 · 10 / 40
    expect(size('relief-override').values.pressure / bar).toBeCloseTo(127.5, 9)
    expect(size('relief-override', { flow: '0 L/min' }).values.pressure / bar).toBeCloseTo(120, 9)
    expect(warned('relief-override', { flow: '50 L/min' }, 'flow')).toBe(true)
  })
  it('pressure levels: what a class leaves', () => {
    // 160 · 0.94 = 150.4 bar; / 1.1 = 136.7 bar; a controlled pump takes 25 bar of it
    expect(size('pressure-levels').values.available / bar).toBeCloseTo(136.727, 3)
    expect(size('pressure-levels', { supply: 'loadSensing' }).values.available / bar).toBeCloseTo(111.727, 3)
    expect(size('pressure-levels', { relief: 'direct' }).values.available / bar).toBeCloseTo(128 / 1.1, 6)
  })
  it('highest pressures: the largest counts, against class and ratings', () => {
    const { values } = size('highest-pressures', { held: '170 bar' })
    expect(values.highest / bar).toBeCloseTo(170, 9)
    expect(values.ofClass).toBeCloseTo(170 / 160, 9)
    expect(warned('highest-pressures', { held: '170 bar' }, 'held')).toBe(true)
    expect(size('highest-pressures').warnings).toEqual([])
    expect(warned('highest-pressures', { pumpLine: '155 bar', cylinders: '150 bar' }, 'cylinders')).toBe(true)
  })
  it('directional: the drop grows with the square, and the way back takes the larger flow', () => {
    const { values } = size('directional-valve', {})
    expect((values.rated * minute) / litre).toBeCloseTo(40, 9)
    expect(values.dropReturnBack / bar).toBeCloseTo(5 * (37 / 40) ** 2, 6)
  })
  it('counterbalance: the pressure to lower opens it by the equation of the valve', () => {
    const { values } = size('counterbalance', {})
    // 60 · 1.3 = 78 → 80 bar; 17 L/min in for 25 L/min out
    expect(values.setting / bar).toBeCloseTo(80, 9)
    expect(values.lowering / bar).toBeCloseTo(9.61538, 5)
    const [r, phi] = [4, 17 / 25]
    // p₁ + R · p_X = p_set + (1 + R) · p₂ with p₁ = induced + φ · p_X
    expect(values.induced + phi * values.lowering + r * values.lowering).toBeCloseTo(
      values.setting + 5 * 5e5,
      0,
    )
  })
  it('counterbalance: the side that the load presses on counts', () => {
    const hanging = { inducedOut: '100 bar', inducedBack: '0 bar', greatestOut: '20 kN', leastOut: '5 kN' }
    const { values } = size('counterbalance', hanging)
    expect(values.setting / bar).toBeCloseTo(130, 9)
    // a quarter of the load: 25 bar; 30 L/min in for 20 out
    expect(values.least / bar).toBeCloseTo(25, 9)
    expect(values.areaRatio).toBeCloseTo(1.5, 9)
    expect(values.loweringEmpty / bar).toBeCloseTo((130 - 25 + 25) / 5.5, 6)
    expect(warned('counterbalance', { ...hanging, class: '120 bar' }, 'setting')).toBe(true)
    expect(warned('counterbalance', { ...hanging, inducedBack: '10 bar' }, 'side')).toBe(true)
    // without a load it holds nothing: no setting at all
    const none = size('counterbalance', { inducedOut: '0 bar', inducedBack: '0 bar' })
    expect(none.values.setting).toBeUndefined()
    expect(none.problems[0].message).toContain('No load drives this motion')
  })
  it('pilot check: it opens at the pressure that is named', () => {
    const { values } = size('pilot-check', {})
    const x = values.pilot
    const blocked = values.induced + values.areaRatio * x
    // (p_A − p_B) + R · (p_X − p_A) − p_crack = 0
    expect(5e5 - blocked + 3 * (x - 5e5) - 1e5).toBeCloseTo(0, 0)
    expect(warned('pilot-check', { ratio: '0.6' }, 'ratio')).toBe(true)
  })
  it('flow control: orifice from the equation, intensified without load', () => {
    // out 15 in, 10 back at 80 of 150 bar: 70 · 15 / 10 = 105 bar at the outlet → ⌀ 1.397; without load 225 bar
    const { values } = size('flow-control', { limits: 'both' })
    expect(values.dropOut / bar).toBeCloseTo(105, 9)
    expect(values.diameterOut * 1e3).toBeCloseTo(1.39687, 4)
    expect(values.unloadedOut / bar).toBeCloseTo(225, 9)
    // back 12 in, 18 out at 30 of 150 bar: 120 · 12 / 18 = 80 bar → ⌀ 2.006
    expect(values.dropBack / bar).toBeCloseTo(80, 9)
    expect(values.diameterBack * 1e3).toBeCloseTo(2.00593, 4)
    // in the inlet the load leaves 70 bar for the whole flow
    const inlet = size('flow-control', { method: 'meterIn' }).values
    expect([inlet.dropOut / bar, (inlet.throttledOut * minute) / litre].map(Math.round)).toEqual([70, 15])
    // beside it goes what the pump gives too much, at the pressure of the load
    const beside = size('flow-control', { method: 'bleedOff' }).values
    expect([beside.dropOut / bar, (beside.throttledOut * minute) / litre].map(Math.round)).toEqual([80, 15])
  })
  it('flow control: how fast it runs with all that the pump gives', () => {
    // 30 L/min for 15 and 12 that were asked for: 200 and 250 %
    const { values, warnings } = size('flow-control')
    expect([values.ratioOut, values.ratioBack]).toEqual([2, 2.5])
    expect((values.returnBack * minute) / litre).toBeCloseTo(45, 9)
    expect(warnings.map((w) => [w.variable, w.severity])).toEqual([
      ['ratioOut', 'warning'],
      ['ratioBack', 'warning'],
    ])
    const people = size('flow-control', { people: 'yes', limits: 'out' })
    expect(people.values.ratioOut).toBe(1)
    expect(people.warnings.map((w) => [w.variable, w.severity])).toEqual([['ratioBack', 'error']])
    // a little more is said of nothing
    expect(size('flow-control', { pump: '17 L/min', askedBack: '15 L/min' }).warnings).toEqual([])
    expect(warned('flow-control', { inducedBack: '20 bar' }, 'inducedBack')).toBe(true)
    expect(warned('flow-control', { inducedBack: '20 bar', holding: 'counterbalance' }, 'inducedBack')).toBe(
      false,
    )
  })
  it('sequence: a band, or none', () => {
    const { values } = size('sequence-setting', {})
    expect([values.low / bar, values.high / bar, values.setting / bar].map(Math.round)).toEqual([
      70, 135, 100,
    ])
    expect(warned('sequence-setting', { relief: '80 bar' }, 'band')).toBe(true)
  })
  it('reducing valve and pressure switch', () => {
    // 10 kN on 50.27 cm² at 93 %: 21.4 → 25 bar
    expect(size('reducing-valve', {}).values.setting / bar).toBeCloseTo(25, 9)
    expect(warned('pressure-switch', { relief: '100 bar' }, 'set')).toBe(true)
    expect(size('pressure-switch', {}).warnings).toEqual([])
  })
})

describe('lines, tank and heat', () => {
  it('velocity and loss', () => {
    // 30 L/min in 13 mm: 3.767 m/s
    expect(size('line-loss', {}).values.speed).toBeCloseTo(5e-4 / ((Math.PI * 0.013 ** 2) / 4), 9)
    // below Re 2000 Hagen–Poiseuille, above 4000 Blasius
    const laminar = size('line-loss', { flow: '10 L/min', fittings: '0' }).values
    expect(laminar.loss).toBeCloseTo(
      (128 * laminar.viscosity * 870 * 5 * (10 / 60000)) / (Math.PI * 0.013 ** 4),
      4,
    )
    const turbulent = size('line-loss', { flow: '150 L/min', fittings: '0' }).values
    expect(turbulent.friction).toBeCloseTo(0.3164 / turbulent.reynolds ** 0.25, 12)
  })
  it.each([
    ['line-pressure', 11.2838, 12],
    ['line-return', 17.8412, 18],
    ['line-drain', 25.2313, 27],
  ])('%s: √(4 · Q / (π · v)) for 30 L/min at 5, 2 and 1 m/s', (id, needed, bore) => {
    const { values } = size(id)
    expect(values.boreNeeded * 1e3).toBeCloseTo(needed, 3)
    expect(values.bore * 1e3).toBeCloseTo(bore, 9)
    expect(values.speed).toBeCloseTo(5e-4 / ((Math.PI * (bore * 1e-3) ** 2) / 4), 9)
  })
  it('hose: half a turn, two straight ends and half the travel, longer by its shortening', () => {
    // (π · 130 + 120 + 200) / 0.96 = 758.8 mm
    expect(size('hose-length').values.length * 1e3).toBeCloseTo(758.757, 2)
  })
  it('tube of 20 mm outside: 200 bar · 20 · 4 / 720 N/mm² = 2.22 → 2.5 mm', () => {
    const { values } = size('tube-outside')
    expect(values.wallNeeded * 1e3).toBeCloseTo(2.22222, 4)
    expect(values.wall * 1e3).toBeCloseTo(2.5, 9)
    expect(values.bore * 1e3).toBeCloseTo(15, 9)
    expect(values.rating / bar).toBeCloseTo((2 * 360e6 * 2.5) / (4 * 20) / bar, 6)
    expect(size('tube-outside', { outside: '4 mm', pressure: '1000 bar' }).problems).not.toEqual([])
  })
  it('tubes and hoses: by what the standards let them carry', () => {
    const { values } = size('line-types', { pressure: '200 bar', surges: '10 %' })
    expect(values.wanted / bar).toBeCloseTo(220, 9)
    const lines = findCard('line-types')!.assess!(values)
    const of = (name: string) => lines.find((l) => l.name.includes(name))!
    // 12.5 mm: 160, 275 and 415 bar; a tube of 15 mm and 1.5 mm carries 2 · 360 · 1.5 / (4 · 15) = 180 bar
    expect([of('1SN').fits, of('2SN').fits, of('4SP').fits]).toEqual([false, true, true])
    expect(of('2SN').for[0]).toContain('275 bar')
    expect(of('15 × 1.5')).toMatchObject({ fits: false })
    expect(of('15 × 1.5').against[0]).toContain('180 bar')
  })
  it('wall by Barlow', () => {
    // p · D / (2 · R_m / S) with D = d + 2 · s is the wall itself
    const { values } = size('line-wall', {})
    const s = values.wallNeeded
    expect((200e5 * (0.013 + 2 * s)) / ((2 * 360e6) / 4)).toBeCloseTo(s, 12)
  })
  it('surge by Joukowsky', () => {
    const { values } = size('water-hammer', { closing: '1 ms', modulus: '1000 GPa' })
    const wave = Math.sqrt(1.5e9 / 870 / (1 + (1.5e9 * 13) / (1e12 * 1.5)))
    expect(values.surge).toBeCloseTo(870 * wave * 4, 0)
    // ten times the return of the wave: a tenth
    const slow = size('water-hammer', { closing: `${values.reflection * 10} s`, modulus: '1000 GPa' }).values
    expect(slow.surge / values.surge).toBeCloseTo(0.1, 6)
  })
  it('power: the parts add up to what the shaft puts in, however the machine is supplied', () => {
    for (const supply of [
      'fixedPump',
      'highLow',
      'compensated',
      'loadSensing',
      'closedCircuit',
      'accumulator',
    ]) {
      const { values } = size('heat-input', { supply })
      const { whole, parts } = findCard('heat-input')!.split!
      expect(parts.reduce((sum, name) => sum + values[name], 0)).toBeCloseTo(values[whole], 6)
    }
    // 25 of 35 L/min at 5 bar: 208 W
    expect(size('heat-input').values.unusedLoss).toBeCloseTo((25e-3 / 60) * 5e5, 6)
  })
  it('heat: what cools at the settled temperature is what is put in', () => {
    const { values } = size('heat-balance', {})
    expect(values.transfer * (values.temperature - 303.15)).toBeCloseTo(2000, 6)
    expect(
      values.transfer * (values.withCooler - 303.15) + values.cooler * (values.withCooler - 298.15),
    ).toBeCloseTo(2000, 6)
    expect(values.withCooler - 273.15).toBeLessThanOrEqual(60)
  })
  it('temperature over time: by one time constant', () => {
    // 2 kW over 40 W/K from 30 °C: 80 °C; 870 · 0.1 · 1900 / 40 = 4132.5 s; after an hour 54.89 °C; 60 °C after τ · ln 3
    const { values } = size('temperature-time')
    expect(values.steady - 273.15).toBeCloseTo(80, 9)
    expect(values.timeConstant).toBeCloseTo(4132.5, 6)
    expect(values.after - 273.15).toBeCloseTo(54.8916, 3)
    expect(values.until).toBeCloseTo(4540.015, 2)
    expect(warned('temperature-time', { wanted: '85 °C' }, 'wanted')).toBe(true)
  })
  it('filter: cold oil asks for a larger one', () => {
    // 40 L/min · 0.5 bar · 133.8 / 46 / (30 % of 2.5 bar) = 77.6 → 80 L/min
    const { values } = size('filter-size')
    expect((values.rated * minute) / litre).toBeCloseTo(80, 9)
    expect(values.drop / bar).toBeCloseTo((0.5 * 40 * 133.838) / (80 * 46), 4)
    expect(warned('filter-size', { temperature: '-10 °C', rated: '40 L/min' }, 'drop')).toBe(true)
  })
  it('cooler: what the tank does not take at the temperature wanted', () => {
    // 5 kW; 100 L are 12 · 5 · 0.1^(2/3) = 12.93 W/K: (5000 − 12.93 · 30) / 35 = 131.8 → 160 W/K
    const { values } = size('heat-balance', { shaft: '6 kW', useful: '1 kW' })
    expect(values.needed).toBeCloseTo((5000 - 12.9266 * 30) / 35, 2)
    expect(values.cooler).toBeCloseTo(160, 9)
    expect(size('heat-balance', { shaft: '1.1 kW', useful: '1 kW' }).values.needed).toBe(0)
  })
  it('reservoir: levels move by the differential volume', () => {
    const { values } = size('tank-volume', {})
    // 35 L/min · 3 min / 0.85 = 123.5 → 125 L
    expect(values.volume / litre).toBeCloseTo(125, 9)
    expect(values.highest - values.lowest).toBeCloseTo((0.4 * 1) / 125, 9)
  })
  it('viscosity passes through its two points', () => {
    const { values } = size('oil-viscosity', { usual: '40 °C', hottest: '100 °C' })
    expect(values.working).toBeCloseTo(46e-6, 9)
    expect(values.hot).toBeCloseTo(6.8e-6, 9)
  })
})

describe('units', () => {
  it.each([
    ['cylinder-bore', { force: '60 kN', maximumPressure: '160 bar' }],
    ['line-loss', { flow: '30 L/min', bore: '13 mm', length: '5 m' }],
    ['pump-displacement', { flow: '30 L/min', speed: '1450 rpm' }],
  ])('%s gives the same whatever they are', (id, written: Readonly<Record<string, string>>) => {
    const card = findCard(id)!
    const us: Record<string, string> = {
      force: 'lbf',
      pressure: 'psi',
      flow: 'gpm',
      length: 'in',
      rotationalSpeed: 'rad/s',
    }
    const converted = Object.fromEntries(
      Object.entries(written).map(([name, text]) => {
        const { quantity } = card.variables[name]
        const read = parseQuantity(text, quantity)
        if (!read.ok) throw new Error(read.message)
        const one = parseQuantity(`1 ${us[quantity]}`, quantity)
        return [name, `${read.si / (one.ok ? one.si : NaN)} ${us[quantity]}`]
      }),
    )
    const [a, b] = [size(id, written).values, size(id, converted).values]
    for (const name of Object.keys(a))
      expect(Math.abs(b[name] - a[name]), name).toBeLessThanOrEqual(1e-9 * Math.abs(a[name]))
  })
})

describe('every card', () => {
  it('has a figure computed by hand in this file', () => {
    const text = readFileSync(new URL(import.meta.url), 'utf8')
    const missing = cards.filter(({ id }) => !text.includes(`'${id}'`)).map(({ id }) => id)
    expect(missing).toEqual([])
  })
})
