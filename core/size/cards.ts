/**
 * The sizing of one cylinder drive, card by card, in the order in which it is done by hand.
 * Buckling after Euler (slender) and Johnson (stocky), as in J. Shigley, Mechanical Engineering
 * Design, chapter "Columns"; the rest are the definitions of pressure, flow and power.
 */
import { isSlender, YIELD, YOUNG } from '../catalogue/column'
import { briefParameters, type BriefValues } from './brief'
import { step, type Card, type Step, type Term } from './card'
import { bores, displacements, motorPowers, nextInSeries, rods } from './series'
import type { Quantity } from '../units/quantities'

/** A rod thicker than this share of its bore makes an area ratio above 2. */
const WIDE_ROD_RATIO = Math.SQRT1_2

const of = (value: number, quantity: Quantity): Term => ({ value, quantity })
type Remark = Card['remarks'][number]
const note = (text: string): Remark => ({ severity: 'note', text })
const warning = (text: string): Remark => ({ severity: 'warning', text })

/** All cards for a brief. A card whose series ends gives no answer, and those after it are left out. */
export function sizingCards(v: BriefValues): Card[] {
  const cards: Card[] = []
  const cylinder = boreCard(v)
  cards.push(cylinder.card)
  if (!cylinder.bore) return cards
  const rod = rodCard(v, cylinder.bore)
  cards.push(rod.card)
  if (!rod.rod) return cards
  const flow = flowCard(v, cylinder.bore, rod.rod)
  cards.push(flow.card)
  const pump = pumpCard(v, flow.flow, flow.cap, flow.annulus)
  cards.push(pump.card)
  if (!pump.displacement) return cards
  const relief = reliefCard(v, cylinder.workingPressure, flow.cap, flow.annulus)
  cards.push(relief.card, motorCard(v, pump.displacement, relief.full), loadCard(v))
  return cards
}

function boreCard(v: BriefValues) {
  const [bp, ef] = [v.backPressure, v.cylinderEfficiency]
  const area = step('A₁', 'piston area needed', 'area', 'F / (η · (p − Δp) − p₂)', {
    F: of(v.pressForce, 'force'),
    η: of(ef, 'share'),
    p: of(v.workingPressure, 'pressure'),
    Δp: of(v.lineLoss, 'pressure'),
    'p₂': of(bp, 'pressure'),
  })
  const diameter = step('D', 'bore needed', 'length', '√(4 · A₁ / π)', { 'A₁': of(area.value, 'area') })
  const bore = area.value > 0 ? nextInSeries(bores, diameter.value) : undefined
  const steps: Step[] = [area, diameter]
  let workingPressure = v.workingPressure
  if (bore) {
    const chosen = step('A₁', 'piston area of that bore', 'area', 'π · D² / 4', { D: of(bore, 'length') })
    const pressure = step('p', 'working pressure at the pump', 'pressure', '(F / A₁ + p₂) / η + Δp', {
      F: of(v.pressForce, 'force'),
      'A₁': of(chosen.value, 'area'),
      'p₂': of(bp, 'pressure'),
      η: of(ef, 'share'),
      Δp: of(v.lineLoss, 'pressure'),
    })
    workingPressure = pressure.value
    steps.push(chosen, pressure)
  }
  const card: Card = {
    id: 'bore',
    title: 'Bore of the cylinder',
    steps,
    answer: bore === undefined ? undefined : { ...of(bore, 'length'), label: 'Bore' },
    source: 'next larger bore of ISO 3320',
    remarks: [
      ...(area.value <= 0 ? [warning('Losses and back pressure leave no pressure to push with.')] : []),
      ...(area.value > 0 && !bore
        ? [warning('No standard bore is large enough: raise the working pressure.')]
        : []),
      note('The back pressure is taken on the full piston area, on the safe side.'),
    ],
    gives: bore === undefined ? [] : [{ sized: 'bore', label: 'Bore', ...of(bore, 'length') }],
  }
  return { card, bore, workingPressure }
}

function rodCard(v: BriefValues, bore: number) {
  const length = step('L', 'length that can buckle', 'length', 'K · (s + l)', {
    K: of(v.bucklingLength, 'ratio'),
    s: of(v.stroke, 'length'),
    l: of(v.rodOverhang, 'length'),
  })
  const force = step('F', 'force to withstand', 'force', 'S · Fₘ', {
    S: of(v.bucklingSafety, 'ratio'),
    Fₘ: of(v.pressForce, 'force'),
  })
  const slender = step(
    'd',
    'rod against buckling, slender (Euler)',
    'length',
    '√(√(64 · F · L² / (π³ · E)))',
    {
      F: of(force.value, 'force'),
      L: of(length.value, 'length'),
      E: of(YOUNG, 'stress'),
    },
  )
  const stocky = step(
    'd',
    'rod against buckling, stocky (Johnson)',
    'length',
    '√(4 · F / (π · R) + 4 · R · L² / (π² · E))',
    {
      F: of(force.value, 'force'),
      R: of(YIELD, 'stress'),
      E: of(YOUNG, 'stress'),
      L: of(length.value, 'length'),
    },
  )
  const used = isSlender(slender.value, length.value) ? slender : stocky
  const rod = rods.find((d) => d >= used.value * (1 - 1e-9) && d < bore)
  const steps: Step[] = [length, force, used]
  if (rod) {
    const capacity = isSlender(rod, length.value)
      ? step('Fₖ', 'buckling load of the chosen rod', 'force', 'π³ · E · d⁴ / (64 · L²)', {
          E: of(YOUNG, 'stress'),
          d: of(rod, 'length'),
          L: of(length.value, 'length'),
        })
      : step(
          'Fₖ',
          'buckling load of the chosen rod',
          'force',
          'π · d² / 4 · (R − 4 · R² · L² / (π² · E · d²))',
          {
            R: of(YIELD, 'stress'),
            d: of(rod, 'length'),
            L: of(length.value, 'length'),
            E: of(YOUNG, 'stress'),
          },
        )
    const safety = step('S', 'safety reached', 'ratio', 'Fₖ / Fₘ', {
      Fₖ: of(capacity.value, 'force'),
      Fₘ: of(v.pressForce, 'force'),
    })
    const ratio = step('φ', 'area ratio A₁ : A₂', 'ratio', 'D² / (D² − d²)', {
      D: of(bore, 'length'),
      d: of(rod, 'length'),
    })
    steps.push(capacity, safety, ratio)
  }
  const card: Card = {
    id: 'rod',
    title: 'Rod against buckling',
    steps,
    answer: rod === undefined ? undefined : { ...of(rod, 'length'), label: 'Rod' },
    source: `next thicker rod of ISO 3320; steel, E = 210 GPa, yield 350 MPa`,
    remarks: [
      ...(rod === undefined
        ? [
            warning(
              'No standard rod inside this bore is stiff enough: shorten or guide the rod, or take a larger bore.',
            ),
          ]
        : []),
      ...(rod !== undefined && rod / bore > WIDE_ROD_RATIO
        ? [
            note(
              'The rod is thick for its bore: metering out can raise the rod-side pressure far above the pump pressure.',
            ),
          ]
        : []),
      note('Side load and a bent rod lower the buckling load. A qualified person confirms the mounting.'),
    ],
    gives: rod === undefined ? [] : [{ sized: 'rod', label: 'Rod', ...of(rod, 'length') }],
  }
  return { card, rod }
}

function flowCard(v: BriefValues, bore: number, rod: number) {
  const out = step('v₁', 'speed out', 'speed', 's / t₁', {
    s: of(v.stroke, 'length'),
    't₁': of(v.advanceTime, 'time'),
  })
  const back = step('v₂', 'speed back', 'speed', 's / t₂', {
    s: of(v.stroke, 'length'),
    't₂': of(v.returnTime, 'time'),
  })
  const cap = step('A₁', 'piston area', 'area', 'π · D² / 4', { D: of(bore, 'length') })
  const annulus = step('A₂', 'ring area', 'area', 'π · (D² − d²) / 4', {
    D: of(bore, 'length'),
    d: of(rod, 'length'),
  })
  const flowOut = step('Q₁', 'flow to extend', 'flow', 'A₁ · v₁', {
    'A₁': of(cap.value, 'area'),
    'v₁': of(out.value, 'speed'),
  })
  const flowBack = step('Q₂', 'flow to retract', 'flow', 'A₂ · v₂', {
    'A₂': of(annulus.value, 'area'),
    'v₂': of(back.value, 'speed'),
  })
  const flow = step('Q', 'flow needed', 'flow', 'max(Q₁, Q₂)', {
    'Q₁': of(flowOut.value, 'flow'),
    'Q₂': of(flowBack.value, 'flow'),
  })
  const returned = step('Qᵣ', 'greatest flow to tank, retracting', 'flow', 'A₁ · v₂', {
    'A₁': of(cap.value, 'area'),
    'v₂': of(back.value, 'speed'),
  })
  const card: Card = {
    id: 'flow',
    title: 'Flow',
    steps: [out, back, cap, annulus, flowOut, flowBack, flow, returned],
    answer: { ...of(flow.value, 'flow'), label: 'Flow' },
    source: 'area and speed; starting and stopping take a little more',
    remarks: [note('Size the return filter and the valve for the flow to tank, not for the pump.')],
    gives: [],
  }
  return { card, flow: flow.value, cap: cap.value, annulus: annulus.value }
}

function pumpCard(v: BriefValues, flow: number, cap: number, annulus: number) {
  const needed = step('V', 'displacement needed', 'displacement', 'Q / (ω / (2 · π) · ηᵥ)', {
    Q: of(flow, 'flow'),
    ω: of(v.shaftSpeed, 'rotationalSpeed'),
    ηᵥ: of(v.volumetricEfficiency, 'share'),
  })
  const displacement = nextInSeries(displacements, needed.value)
  const steps: Step[] = [needed]
  if (displacement) {
    const delivered = step('Q', 'flow of that pump', 'flow', 'V · ω / (2 · π) · ηᵥ', {
      V: of(displacement, 'displacement'),
      ω: of(v.shaftSpeed, 'rotationalSpeed'),
      ηᵥ: of(v.volumetricEfficiency, 'share'),
    })
    const time = (symbol: string, meaning: string, area: number) =>
      step(symbol, meaning, 'time', 's · A / Q', {
        s: of(v.stroke, 'length'),
        A: of(area, 'area'),
        Q: of(delivered.value, 'flow'),
      })
    steps.push(delivered, time('t₁', 'time to advance then', cap), time('t₂', 'time to return then', annulus))
  }
  const card: Card = {
    id: 'pump',
    title: 'Displacement of the pump',
    steps,
    answer:
      displacement === undefined ? undefined : { ...of(displacement, 'displacement'), label: 'Displacement' },
    source: 'next displacement of ISO 3662',
    remarks:
      displacement === undefined
        ? [warning('No displacement of the series is large enough: use several pumps or more speed.')]
        : [],
    gives:
      displacement === undefined
        ? []
        : [
            { sized: 'displacement', label: 'Displacement', ...of(displacement, 'displacement') },
            { sized: 'shaftSpeed', label: 'Shaft speed', ...of(v.shaftSpeed, 'rotationalSpeed') },
          ],
  }
  return { card, displacement }
}

const RELIEF_STEP = 5e5

function reliefCard(v: BriefValues, extending: number, cap: number, annulus: number) {
  const retracting = step(
    'pᵣ',
    'working pressure, retracting',
    'pressure',
    '(Fᵣ + p₂ · A₁) / (A₂ · η) + Δp',
    {
      Fᵣ: of(v.returnForce, 'force'),
      'p₂': of(v.backPressure, 'pressure'),
      'A₁': of(cap, 'area'),
      'A₂': of(annulus, 'area'),
      η: of(v.cylinderEfficiency, 'share'),
      Δp: of(v.lineLoss, 'pressure'),
    },
  )
  const working = step('p', 'working pressure', 'pressure', 'max(pₑ, pᵣ)', {
    pₑ: of(extending, 'pressure'),
    pᵣ: of(retracting.value, 'pressure'),
  })
  const crack = step('pᵪ', 'cracking pressure, at least', 'pressure', 'p · (1 + m)', {
    p: of(working.value, 'pressure'),
    m: of(v.reliefMargin, 'share'),
  })
  const needed = step('pᶠ', 'pressure at rated flow, at least', 'pressure', 'pᵪ / (1 − o)', {
    pᵪ: of(crack.value, 'pressure'),
    o: of(v.reliefOverride, 'share'),
  })
  const atCracking = v.settingAt === 'cracking'
  const setting = Math.ceil((atCracking ? crack.value : needed.value) / RELIEF_STEP - 1e-9) * RELIEF_STEP
  const full = atCracking ? setting / (1 - v.reliefOverride) : setting
  const card: Card = {
    id: 'relief',
    title: 'Relief setting',
    steps: [retracting, working, crack, needed],
    answer: {
      ...of(setting, 'pressure'),
      label: `Setting at ${briefParameters.settingAt.choices[v.settingAt]}`,
    },
    source: 'rounded up to 5 bar',
    remarks: [
      note(
        'Some offices name the pressure at which the valve starts to open, others that at rated flow. The sheet says which; keep both in mind when a knob is set on the machine.',
      ),
    ],
    gives: [{ sized: 'reliefSetting', label: 'Setting', ...of(setting, 'pressure') }],
  }
  return { card, full }
}

function motorCard(v: BriefValues, displacement: number, full: number): Card {
  const power = step('P', 'shaft power at full relief pressure', 'power', 'V · ω / (2 · π) · p / η', {
    V: of(displacement, 'displacement'),
    ω: of(v.shaftSpeed, 'rotationalSpeed'),
    p: of(full, 'pressure'),
    η: of(v.hydromechanicalEfficiency, 'share'),
  })
  const chosen = nextInSeries(motorPowers, power.value)
  return {
    id: 'motor',
    title: 'Power of the motor',
    steps: [power],
    answer: chosen === undefined ? undefined : { ...of(chosen, 'power'), label: 'Motor' },
    source: 'next power of IEC 60072; continuous duty at the relief pressure, on the safe side',
    remarks: chosen === undefined ? [warning('No motor of the series is strong enough.')] : [],
    gives:
      chosen === undefined ? [] : [{ sized: 'motorPower', label: 'Rated power', ...of(chosen, 'power') }],
  }
}

function loadCard(v: BriefValues): Card {
  const start = step('x', 'work-piece met at', 'length', 's − sₚ', {
    s: of(v.stroke, 'length'),
    sₚ: of(v.pressStroke, 'length'),
  })
  const stiffness = step('k', 'stiffness of the work-piece', 'stiffness', 'F / sₚ', {
    F: of(v.pressForce, 'force'),
    sₚ: of(v.pressStroke, 'length'),
  })
  return {
    id: 'load',
    title: 'The load on the sheet',
    steps: [start, stiffness],
    answer: { ...of(stiffness.value, 'stiffness'), label: 'Stiffness' },
    source: 'a force that rises in a straight line over the last part of the stroke',
    remarks: [note('So that the run meets the load of the brief.')],
    gives: [
      { sized: 'stroke', label: 'Stroke', ...of(v.stroke, 'length') },
      { sized: 'mass', label: 'Moved mass', ...of(v.mass, 'mass') },
      { sized: 'workPieceAt', label: 'Workpiece contact position', ...of(start.value, 'length') },
      { sized: 'workPieceStiffness', label: 'Workpiece stiffness', ...of(stiffness.value, 'stiffness') },
    ],
  }
}
