/** The machines of the yard in words and tables: every schedule gives a walkthrough that can be read, and the tables agree with it. */
import { describe, expect, it } from 'vitest'
import { energyOf, totalOf } from '../core/explain/energy'
import { Moments } from '../core/explain/moment'
import { stateTable } from '../core/explain/state-table'
import { strokeSteps } from '../core/explain/stroke-steps'
import { walkthroughOf } from '../core/explain/walkthrough'
import { lineRoles } from '../core/sheet/line-roles'
import { buildNetlist } from '../core/sheet/netlist'
import { showIn } from '../core/units/text'
import { demoMachines } from './machines'
import { runDemo } from './golden'

const show = showIn('metric')
const machines = demoMachines()
const variants = machines.flatMap((m) => m.variants.map((v) => [m.name, v.name, v.sheet] as const))
const walked = (machine: string, variant: number, schedule = 0) => {
  const { name, sheet } = machines.find((m) => m.name === machine)!.variants[variant]
  const result = runDemo(machine, name, sheet.schedules[schedule].id)
  return walkthroughOf(new Moments(sheet, result), result, show)
}
const allTexts = (states: ReturnType<typeof walked>) =>
  states.flatMap((s) => [s.summary, ...s.sentences.map((x) => x.text)])

describe('the walkthrough of every first schedule', () => {
  it.each(variants)('%s, %s', (machine, variant, sheet) => {
    const result = runDemo(machine, variant, sheet.schedules[0].id)
    const moments = new Moments(sheet, result)
    const states = walkthroughOf(moments, result, show)
    expect(states.length).toBeGreaterThan(1)
    expect(states.length).toBeLessThan(40)
    for (const text of allTexts(states)) {
      expect(text).not.toMatch(/NaN|undefined|Infinity|\[object|; ;|: :|\.\./)
      expect(text).toMatch(/^[A-Z0-9].*\.$/s)
    }
    // a power that is told is that of the state
    const account = energyOf(moments, result, 0, result.duration)
    expect(totalOf(account.input)).toBeGreaterThanOrEqual(0)
    expect(Math.abs(totalOf(account.heat) - result.energy.heat)).toBeLessThan(
      0.05 * Math.max(result.energy.heat, 100),
    )
  })
})

describe('what a fitter reads', () => {
  it('the large stage of the shavings press is unloaded as the pressure rises', () => {
    const states = walked('Shavings press', 0)
    const change = states.find((s) => s.cause === '1-0V3 opens and unloads the pump')!
    expect(change.sentences.map((s) => s.text).join(' ')).toMatch(/1-1A1 extends .* against/)
    const [before] = states.slice(states.indexOf(change) - 1)
    expect(Math.abs(before.moving[0].speed)).toBeGreaterThan(3 * Math.abs(change.moving[0].speed))
  })
  it('the boat goes down on what the pilot of its counterbalance valve needs', () => {
    const down = walked('Boat lift', 0).find((s) => s.moving.some((m) => m.direction < 0))!
    expect(down.sentences.map((s) => s.text)).toContainEqual(
      expect.stringMatching(/^1-0S1: .*; 1-1V2 sets it: its pilot needs as much to hold it open\.$/),
    )
  })
  it('the clamp stays shut in while the squeeze goes back, where the switches see to it', () => {
    const states = walked('Blade press', 3)
    const back = states.filter((s) => s.moving.some((m) => m.part === 'A2' && m.direction < 0))
    expect(back.length).toBeGreaterThan(0)
    const texts = back.flatMap((s) => s.sentences.map((x) => x.text))
    expect(texts).toContainEqual(expect.stringMatching(/^1-1A1 stands still: .*shut in by/))
  })
  it('the low side of the winch stands at its charge relief, hauling or standing', () => {
    const texts = allTexts(walked('Slipway winch', 0)).filter((t) => t.startsWith('1-1S2: 18'))
    expect(texts.length).toBeGreaterThan(2)
    for (const text of texts) expect(text).toContain('1-0V3 sets it, at its setting of 20 bar')
  })
})

describe('strokes against the brief', () => {
  const strokes = (variant: number) => {
    const { name, sheet } = machines.find((m) => m.name === 'Blade press')!.variants[variant]
    const { brief } = machines.find((m) => m.name === 'Blade press')!
    return strokeSteps(sheet, runDemo('Blade press', name, sheet.schedules[0].id), brief, show)
  }
  it('find what each way of clamping and working gets wrong', () => {
    const kinds = (variant: number) => new Set(strokes(variant).differences.map((d) => d.kind))
    // one sequence valve: the wrong order back, and the clamp loses its force
    expect([...kinds(0)]).toEqual(expect.arrayContaining(['overlap', 'force', 'confirmation']))
    // two: the right order, and nothing that confirms it
    expect([...kinds(1)]).toEqual(['confirmation'])
    // pressure and limit switches: as intended
    expect([...kinds(3)]).toEqual([])
    expect(strokes(3).signals.length).toBeGreaterThan(2)
  })
})

describe('the table of states', () => {
  it('of the blade press has each state once, with a steady point where nothing moves', () => {
    const { sheet } = machines.find((m) => m.name === 'Blade press')!.variants[0]
    const table = stateTable(sheet, (id) => runDemo('Blade press', 'One sequence valve', id), show)
    expect(new Set(table.rows.map((r) => JSON.stringify(r.cells.map((c) => c.text ?? c.value)))).size).toBe(
      table.rows.length,
    )
    const speeds = table.columns.flatMap((c, i) => (c.group === 'motion' ? [i] : []))
    for (const row of table.rows) {
      if (speeds.every((i) => Math.abs(row.cells[i].value) < 1e-4)) expect(row.outcome).toBe('steady')
      for (const cell of row.cells) expect(Number.isFinite(cell.value)).toBe(true)
    }
  })
})

describe('what lines are for', () => {
  const rolesOf = (machine: string) => {
    const { sheet } = machines.find((m) => m.name === machine)!.variants[0]
    const { netlist } = buildNetlist(sheet)
    const roles = lineRoles(sheet, netlist)
    return (line: string) => roles.get(netlist.nodes.findIndex((n) => n.name === line))
  }
  it('is found from what they join', () => {
    const winch = rolesOf('Slipway winch')
    expect(winch('charge line')?.role).toBe('charge')
    expect(winch('line A')?.role).toBe('working')
    expect(winch('motor case line')?.role).toBe('case')
    const crane = rolesOf('Quay crane')
    expect(crane('load signal')?.role).toBe('signal')
    expect(crane('pump line')).toEqual({ role: 'supply', pump: '1-0P1' })
    const dredge = rolesOf('Mud dredge')
    expect(dredge('pump line 2')).toEqual({ role: 'supply', pump: '2-0P1' })
    expect(dredge('suction line 1')?.role).toBe('suction')
    expect(dredge('tank line')?.role).toBe('return')
  })
})
