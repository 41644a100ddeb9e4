import { describe, expect, it } from 'vitest'
import type { InputSpec } from '../../catalogue/kind'
import { inputSignal } from './input-signal'

const spec: InputSpec = {
  name: 'force',
  label: 'load force',
  quantity: 'force',
  rest: 0,
  min: -1e5,
  max: 1e5,
}
type Point = { at: string; value: string; shape: 'step' | 'ramp' }
const signal = (points: Point[], rest = 5) =>
  inputSignal(points.length ? { component: 'A', input: 'force', points } : undefined, spec, rest, 'main')
const reading = (points: Point[], rest?: number) => {
  const { signal: s, problems } = signal(points, rest)
  expect(problems).toEqual([])
  return (t: number) => {
    const { start, from, slope } = s.segmentAt(t, rest ?? 5)
    return from + slope * (t - start)
  }
}
const step = (at: string, value: string): Point => ({ at, value, shape: 'step' })
const ramp = (at: string, value: string): Point => ({ at, value, shape: 'ramp' })

describe('a scheduled input', () => {
  it('has its rest value without a schedule and before it begins', () => {
    expect(reading([])(3)).toBe(5)
    expect(reading([step('2 s', '10 N')])(1.99)).toBe(5)
  })
  it('jumps at a step, at the very instant', () => {
    const at = reading([step('1 s', '10 N'), step('2 s', '-4 N')])
    expect([0.999, 1, 1.5, 2, 99].map(at)).toEqual([5, 10, 10, -4, -4])
  })
  it('runs straight along a ramp from the point before', () => {
    const at = reading([step('1 s', '0 N'), ramp('3 s', '10 N'), ramp('4 s', '10 N'), ramp('5 s', '0 N')])
    expect([1, 2, 3, 3.5, 4.25, 5, 9].map(at)).toEqual([0, 5, 10, 10, 7.5, 0, 0])
  })
  it('ramps from its rest value where a ramp comes first', () => {
    expect(reading([ramp('2 s', '9 N')], 1)(1)).toBe(5)
  })
  it('tells its slope and its breaks', () => {
    const { signal: s } = signal([step('1 s', '0 N'), ramp('3 s', '10 N')])
    expect(s.segmentAt(1, 5).slope).toBe(5)
    expect(s.segmentAt(3, 5).slope).toBe(0)
    expect([0, 1, 2.9, 3].map((t) => s.nextBreak(t))).toEqual([1, 3, 3, Infinity])
  })
  it('names what does not read', () => {
    const messages = (points: Point[]) => signal(points).problems.map((p) => p.message)
    expect(messages([step('soon', '1 N')])[0]).toContain('load force: Not a time')
    expect(messages([step('1 s', '1 bar')])[0]).toContain('Unknown unit "bar" for force')
    expect(messages([step('-1 s', '1 N')])[0]).toContain('before the start')
    expect(messages([step('2 s', '1 N'), step('1 s', '1 N')])[0]).toContain('must not go back')
    expect(messages([step('1 s', '1 MN')])[0]).toContain('outside -100 kN to 100 kN')
  })
})
