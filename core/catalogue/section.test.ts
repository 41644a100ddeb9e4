/** Sections and cards of kinds. */
import { describe, expect, it } from 'vitest'
import { kinds } from '.'
import { Fluid } from '../fluid/fluid'
import { resolveFluid } from '../sheet/resolve'
import { emptySheet } from '../sheet/schema'
import { CircuitArrays } from '../simulate/circuit/arrays'
import { bar, withDefaults } from '../testing'
import { showIn } from '../units/text'
import { drawSection } from './section'

const show = showIn('metric')
const fluid = new Fluid(resolveFluid(emptySheet('Test').fluid).data)

/** A kind with a section, and values to draw it from. */
const sectioned = [...kinds.values()].flatMap((kind) => {
  const { values } = withDefaults(kind)
  const section = kind.section?.(values)
  if (!section) return []
  const model = kind.model(values, fluid)
  const [local] = new CircuitArrays([{ model, ports: kind.ports.length, inputs: kind.inputs?.length ?? 0 }])
    .locals
  return [{ name: kind.name, section, local }]
})

describe('the inside of a part', () => {
  it('is drawn for what people take apart to understand', () => {
    expect(sectioned.map(({ name }) => name)).toEqual(
      expect.arrayContaining([
        'relief-valve-pilot-operated',
        'relief-valve-vented',
        'sequence-valve',
        'reducing-valve',
        'counterbalance-valve',
        'pilot-operated-check',
        'directional-valve-4-3',
        'proportional-valve',
        'load-sensing-section',
        'fixed-pump',
        'load-sensing-pump',
        'over-centre-pump',
        'semi-rotary',
      ]),
    )
  })
  it.each(sectioned)('takes pressures from the ports, and moves: $name', ({ section, local }) => {
    local.p.forEach((_, i) => (local.p[i] = (i + 1) * 10 * bar))
    const before = drawSection(section, local, 0, show)
    for (const { pressure, points } of before.oil) {
      expect(Number.isFinite(pressure)).toBe(true)
      for (const [x, y] of points) {
        expect(x).toBeGreaterThanOrEqual(-1)
        expect(x).toBeLessThanOrEqual(before.width + 1)
        expect(y).toBeGreaterThanOrEqual(-1)
        expect(y).toBeLessThanOrEqual(before.height + 1)
      }
    }
    expect(before.labels.some(({ text }) => / bar$/.test(text))).toBe(true)
    local.x.fill(0.6)
    local.p.forEach((_, i) => (local.p[i] *= 5))
    const after = drawSection(section, local, 0.37, show)
    expect(after.parts).not.toEqual(before.parts)
    // a spring keeps its fixed end
    after.springs.forEach((spring, i) => expect(spring[0]).toEqual(before.springs[i][0]))
  })
})

describe('the section of a metering section', () => {
  it('has its compensator as far open as it leaves of the drop to the edge', () => {
    const { kind, values } = withDefaults({ name: 'load-sensing-section' })
    const model = kind.model(values, fluid)
    const [local] = new CircuitArrays([{ model, ports: 5, inputs: 1 }]).locals
    // P, T, X, A, B: a load of 60 bar, and 7 bar on the edge
    local.p.set([120, 2, 100, 60, 5].map((p) => p * bar))
    local.x[0] = 0.7
    const texts = drawSection(kind.section!(values)!, local, 0, show).labels.map(({ text }) => text)
    expect(texts).toEqual(
      expect.arrayContaining(['load 60 bar', 'after it 67 bar', 'open 12 %', 'P 120 bar']),
    )
    // not enough pressure for it: wide open
    local.p[0] = 64 * bar
    const wide = drawSection(kind.section!(values)!, local, 0, show).labels.map(({ text }) => text)
    expect(wide).toEqual(expect.arrayContaining(['after it 64 bar', 'open 100 %']))
  })
})

describe('the section of a metering section that shares', () => {
  const { kind, values } = withDefaults({ name: 'load-sensing-section' })
  const sharing = { ...values, compensation: 'post' }
  const [local] = new CircuitArrays([{ model: kind.model(sharing, fluid), ports: 5, inputs: 1 }]).locals
  const texts = () => drawSection(kind.section!(sharing)!, local, 0, show).labels.map(({ text }) => text)

  it('holds the signal and its spring after the edge, and throttles from there to a lighter load', () => {
    // P, T, X, A, B: another section reports 100 bar, this one has 60 at A
    local.p.set([120, 2, 100, 60, 5].map((p) => p * bar))
    local.x[0] = 0.7
    // 7 of the 47 bar from after its edge to A
    expect(texts()).toEqual(
      expect.arrayContaining([
        'signal 100 bar',
        'after edge 107 bar',
        'to A 60 bar',
        'open 15 %',
        'P 120 bar',
      ]),
    )
    // the other way: the heaviest load itself, at which it stands wide open
    local.x[0] = -0.7
    local.p.set([120, 2, 100, 5, 100].map((p) => p * bar))
    expect(texts()).toEqual(expect.arrayContaining(['after edge 107 bar', 'to B 100 bar', 'open 100 %']))
  })
  it('is shut where the pump does not reach the signal and the spring, and in neutral', () => {
    local.p.set([104, 2, 100, 5, 60].map((p) => p * bar))
    expect(local.x[0]).toBe(-0.7)
    expect(texts()).toEqual(expect.arrayContaining(['after edge 104 bar', 'open 0 %']))
    local.p[0] = 120 * bar
    local.x[0] = 0
    expect(texts()).toEqual(expect.arrayContaining(['after edge 2 bar', 'open 0 %']))
  })
})

describe('the card of a kind', () => {
  const guided = [...kinds.values()].filter((k) => ['pressure', 'flow', 'directional'].includes(k.family))
  it.each(guided.map((k) => [k.name, k] as const))('is there, in words of its own: %s', (_, { guide }) => {
    expect(guide).toBeDefined()
    for (const text of Object.values(guide!)) expect(text).toMatch(/^[A-Z].{30,}\.$/)
  })
  it('says something else of each', () => {
    for (const key of ['acts', 'mistakes'] as const)
      expect(new Set(guided.map((k) => k.guide![key])).size).toBe(guided.length)
  })
})
