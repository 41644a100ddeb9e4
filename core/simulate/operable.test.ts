import { describe, expect, it } from 'vitest'
import { kinds } from '../catalogue'
import { addComponent, setParameter } from '../sheet/edit'
import { emptySheet } from '../sheet/schema'
import { circuit, idOf, messages, powerUnit, powerUnitPipes, timed, track } from '../testing'
import { compile } from './compile'
import { operableMachine } from './operable'
import { simulationOf } from './run'

const of = (kind: string, parameters: Record<string, string> = {}) => {
  const { sheet, id } = addComponent(emptySheet('s'), kind, { x: 0, y: 0 })
  return operableMachine(
    Object.entries(parameters).reduce((s, [name, value]) => setParameter(s, id, name, value), sheet),
  )
}

describe('what can be worked by hand', () => {
  it('is a lever that falls back, without what does nothing as the valve is worked', () => {
    const { operables, electric } = of('directional-valve-4-3', { actuation: 'lever' })
    expect(operables.map((o) => [o.spec.name, o.type, o.rest])).toEqual([['command', 'lever', 0]])
    expect(electric).toEqual([])
  })
  it('is each coil of a valve with coils, which a loss of the supply takes', () => {
    const { operables, electric } = of('directional-valve-4-3')
    expect(operables.map((o) => o.spec.name)).toContain('coilA')
    expect(electric).toHaveLength(1)
  })
  it('is a setting with turns between its least and what the valve is rated for', () => {
    const [relief] = of('relief-valve-direct').operables
    expect(relief).toMatchObject({
      type: 'setting',
      step: 1e5,
      rest: 160e5,
      knob: { least: 5e5, greatest: 210e5, turns: 5 },
    })
    expect(relief.knob!.greatest).toBeGreaterThan(relief.rest)
  })
  it('is a switch that stays, and a load in shares of what it is', () => {
    expect(of('induction-motor').operables[0]).toMatchObject({ type: 'switch', rest: 1 })
    expect(of('cylinder-double-acting', { loadForce: '40 kN' }).operables[0]).toMatchObject({
      type: 'load',
      step: 2000,
    })
  })
  it('steps within the range of every input of every kind, and every electric fault is one', () => {
    for (const kind of kinds.values()) {
      const { operables, faults, electric } = of(kind.name)
      for (const o of operables) {
        expect(o.step, o.key).toBeGreaterThan(0)
        expect(o.rest, o.key).toBeGreaterThanOrEqual(o.spec.min)
        expect(o.rest, o.key).toBeLessThanOrEqual(o.spec.max)
        if (o.knob) expect(o.knob.greatest, o.key).toBeGreaterThan(o.knob.least)
        if (o.type === 'lever') expect(o.rest, o.key).toBe(0)
      }
      const names = faults.map((f) => f.key)
      for (const key of electric) expect(names).toContain(key)
    }
  })
  it('is a fault only where the part has what fails', () => {
    const three = circuit({ ...powerUnit, tank: ['reservoir-wide', { lines: '3' }] }, [
      'tank.T1 pump.S',
      ...powerUnitPipes.slice(1),
    ])
    const id = idOf(three, 'reservoir-wide')
    const faults = () => operableMachine(three).faults.filter((f) => f.component === id)
    expect(faults().map((f) => f.spec.name)).toEqual(['lost1', 'lost2', 'lost3'])
    const withFault = (input: string) => timed(three, 1, [track(id, input, [0, '0'], [0.5, '1'])])
    expect(messages(withFault('lost2')).filter((m) => m.includes('lost') || m.includes('torn'))).toEqual([])
    expect(messages(withFault('lost7'))).toContainEqual(
      expect.stringMatching(
        /^error schedule: .* sets "line 7 torn off: air ingestion" of .*, which has no such thing/,
      ),
    )
    const { compiled } = compile(three)
    const simulation = simulationOf(compiled!)
    expect(() => simulation.set(id, 'lost7', 1)).toThrow(/no such thing as it is set: line 7 torn off/)
    simulation.set(id, 'lost2', 1)
  })
})
