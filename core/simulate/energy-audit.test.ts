/** The energy balance is an audit: it can fail, says by how much, and whose account is wrong. */
import { describe, expect, it } from 'vitest'
import { Power, type Kind } from '../catalogue/kind'
import { circuit, idOf, powerUnit, powerUnitPipes, timed, track } from '../testing'
import { compile, type Compiled } from './compile'
import { run } from './run'

/** A load lifted and lowered, with a throttle, a line with friction and a relief that opens at the end stop. */
function machine(tolerance: number): Compiled {
  const drawn = circuit(
    {
      ...powerUnit,
      valve: ['directional-valve-4-3'],
      ram: ['cylinder-double-acting', { mass: '800 kg', angle: '90 °', stroke: '300 mm' }],
      tank3: ['reservoir'],
    },
    [...powerUnitPipes, 'pump.P valve.P', 'valve.T tank3.T', 'valve.A ram.A', 'valve.B ram.B'],
  )
  const [long] = drawn.pipes.filter((p) => 'component' in p.to && p.to.port === 'A')
  const sheet = {
    ...drawn,
    pipes: drawn.pipes.map((p) => (p === long ? { ...p, lineModel: 'friction' as const, length: '8 m' } : p)),
  }
  const valve = idOf(sheet, 'directional-valve-4-3')
  const { compiled, findings } = compile(
    timed(sheet, 4, [track(valve, 'command', [0, '0'], [0.2, '1'], [2.5, '-1'])]),
  )
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return { ...compiled, settings: { ...compiled.settings, tolerance } }
}
/** The machine with a kind whose heat is wrong by a share. */
function planted(kind: string, share: number): Compiled {
  const compiled = machine(1e-5)
  const components = compiled.netlist.components.map((resolved) => {
    if (resolved.kind.name !== kind) return resolved
    const wrong: Kind = {
      ...resolved.kind,
      model(values, fluid) {
        const model = resolved.kind.model(values, fluid)
        return {
          ...model,
          observe(l) {
            model.observe?.(l)
            l.power[Power.heat] *= 1 - share
          },
        }
      },
    }
    return { ...resolved, kind: wrong }
  })
  return { ...compiled, netlist: { ...compiled.netlist, components } }
}

describe('the energy audit', () => {
  it('is no identity: its error grows with the tolerance', () => {
    const errors = [1e-3, 1e-4, 1e-6, 1e-8].map((tolerance) => run(machine(tolerance)).energy.error)
    expect(errors[0]).toBeGreaterThan(0)
    expect(errors[1]).toBeLessThan(errors[0])
    expect(errors[2]).toBeLessThan(0.2 * errors[0])
    expect(errors[3]).toBeLessThan(0.02 * errors[0])
  })
  it.each(['fixed-pump', 'relief-valve-direct', 'directional-valve-4-3', 'cylinder-double-acting'])(
    'finds a loss that is wrong in one component, and names it: %s',
    (kind) => {
      const sound = run(machine(1e-5))
      expect(sound.energy.missing).toEqual([])
      const compiled = planted(kind, 0.3)
      const r = run(compiled)
      const id = compiled.netlist.components.find((c) => c.kind.name === kind)!.component.id
      expect(r.energy.missing.map((m) => m.id)).toEqual([id])
      expect(r.energy.error).toBeGreaterThan(1e-3)
      expect(r.warnings.join()).toContain(`what ${id} takes in is not what it keeps, gives and loses`)
      // by as much as was planted
      const heat = sound.energy.heatBy.find((h) => h.id === id)!.heat
      expect(r.energy.missing[0].energy / (0.3 * heat)).toBeCloseTo(1, 1)
    },
  )
})
