import { describe, expect, it } from 'vitest'
import { InputBank, type Input } from './input-bank'
import { inputSignal } from './input-signal'

const spec = { name: 'command', label: 'command', quantity: 'ratio', min: -1, max: 1 } as const
const switchSpec = {
  ...spec,
  min: 0,
  positions: [
    { value: 1, label: 'yes' },
    { value: 0, label: 'no' },
  ],
} as const
const input = (
  points: [string, string, ('step' | 'ramp')?][],
  rest = 0,
  of: Input['spec'] = spec,
): Input => ({
  component: 'V1',
  spec: of,
  signal: inputSignal(
    {
      component: 'V1',
      input: 'command',
      points: points.map(([at, value, shape = 'step']) => ({ at, value, shape })),
    },
    of,
    rest,
    'main',
  ).signal,
  rest,
  fault: false,
})
function bankOf(...inputs: Input[]) {
  const values = new Float64Array(inputs.length)
  const bank = new InputBank(inputs, values)
  return { bank, values, at: (t: number) => (bank.activateSegments(t), [...values]) }
}

describe('the inputs of a running circuit', () => {
  it('follow their schedules, and are at rest without one', () => {
    const { at, bank } = bankOf(input([['1 s', '1']]), input([], 0.3))
    expect([at(0), at(1), at(5)]).toEqual([
      [0, 0.3],
      [1, 0.3],
      [1, 0.3],
    ])
    expect([bank.nextBreak(0), bank.nextBreak(1)]).toEqual([1, Infinity])
  })
  it('move along ramps between breaks', () => {
    const { bank, values } = bankOf(
      input([
        ['1 s', '0'],
        ['2 s', '1', 'ramp'],
      ]),
    )
    bank.activateSegments(1)
    expect(bank.movingCount).toBe(1)
    bank.evaluateAt(1.25)
    expect(values[0]).toBeCloseTo(0.25, 12)
    bank.activateSegments(2)
    expect(bank.movingCount).toBe(0)
  })
  it('are taken by hand and by control, and given back', () => {
    const { bank, at } = bankOf(input([['1 s', '1']]))
    bank.set(0, -1, 'hand')
    expect([at(0), at(2)]).toEqual([[-1], [-1]])
    expect([bank.sourceOf(0), bank.nextBreak(0)]).toEqual(['hand', Infinity])
    bank.set(0, 0.5, 'control')
    expect([bank.sourceOf(0), at(2)]).toEqual(['control', [0.5]])
    bank.release(0)
    expect([bank.sourceOf(0), at(2)]).toEqual(['schedule', [1]])
  })
  it('stand still while they are frozen', () => {
    const { bank, at } = bankOf(
      input([
        ['1 s', '1'],
        ['2 s', '-1', 'ramp'],
      ]),
    )
    bank.freeze(1.5)
    expect(at(3)).toEqual([0])
    bank.unfreeze()
    expect(at(3)).toEqual([-1])
  })
  it('go on from what was saved', () => {
    const { bank, at } = bankOf(input([['1 s', '1']]), input([]))
    bank.set(1, 0.7, 'hand')
    const saved = structuredClone(bank.save())
    bank.release(1)
    bank.load(saved)
    expect(at(1)).toEqual([1, 0.7])
  })
  it('with only the values on and off change half way along a ramp, at an instant', () => {
    const { bank, at } = bankOf(
      input(
        [
          ['2 s', '1', 'ramp'],
          ['4 s', '0', 'ramp'],
        ],
        0,
        switchSpec,
      ),
    )
    expect([at(0.99), at(1), at(2.9), at(3), at(9)]).toEqual([[0], [1], [1], [0], [0]])
    expect([bank.nextBreak(0), bank.nextBreak(1), bank.nextBreak(3)]).toEqual([1, 3, Infinity])
  })
})
