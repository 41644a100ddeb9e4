import { describe, expect, it } from 'vitest'
import { circuit, powerUnit, powerUnitPipes } from '../testing'
import { changePipe } from './edit'
import { buildNetlist } from './netlist'
import type { Sheet } from './schema'

const base = circuit(powerUnit, powerUnitPipes)
const id = (kind: string) => base.components.find((c) => c.kind === kind)!.id
const pump = id('fixed-pump')
const relief = id('relief-valve-direct')
const line = base.pipes.find((p) => 'component' in p.to && p.to.component === relief)!

describe('netlist', () => {
  it('makes one node of what loss-free pipes join, and names it', () => {
    const { netlist, problems } = buildNetlist(base)
    expect(problems).toEqual([])
    expect(netlist.nodeOf.get(`${pump}.P`)).toBe(netlist.nodeOf.get(`${relief}.P`))
    const node = netlist.nodes[netlist.nodeOf.get(`${pump}.P`)!]
    expect(node.name).toBe(`${pump}.P`)
    expect(node.domain).toBe('oil')
    expect(node.pipes).toEqual([line.id])
    // 1 m of 12 mm
    expect(node.volume).toBeCloseTo((Math.PI / 4) * 0.012 ** 2, 12)
    const named = buildNetlist(changePipe(base, line.id, { name: 'pump line', volume: '2 L' })).netlist
    expect(named.nodes[named.nodeOf.get(`${pump}.P`)!]).toMatchObject({ name: 'pump line', volume: 0.002 })
  })
  it('keeps shafts and oil apart', () => {
    const { netlist } = buildNetlist(base)
    const shafts = netlist.nodes.filter((n) => n.domain === 'shaft')
    expect(shafts).toHaveLength(1)
    expect(shafts[0].volume).toBe(0)
    const wrong: Sheet = {
      ...base,
      pipes: [
        ...base.pipes,
        {
          ...line,
          id: 'X',
          lineType: 'working',
          from: { component: pump, port: 'W' },
          to: { component: pump, port: 'P' },
        },
      ],
    }
    expect(buildNetlist(wrong).problems).toContainEqual(
      expect.objectContaining({ rule: 'domain', location: { pipe: 'X' } }),
    )
  })
  it('splits a line where a pipe has friction, half its oil at each end', () => {
    const { netlist } = buildNetlist(changePipe(base, line.id, { lineModel: 'friction', length: '2 m' }))
    const [a, b] = [netlist.nodeOf.get(`${pump}.P`)!, netlist.nodeOf.get(`${relief}.P`)!]
    expect(a).not.toBe(b)
    expect(netlist.pipes).toEqual([expect.objectContaining({ from: a, to: b, length: 2, bore: 0.012 })])
    for (const node of [a, b]) {
      expect(netlist.nodes[node].volume).toBeCloseTo((Math.PI / 4) * 0.012 ** 2, 12)
      expect(netlist.nodes[node].pipes).toEqual([line.id])
    }
  })
  it('gives lines of one name different names', () => {
    const twice = {
      ...base,
      pipes: base.pipes.map((p) => (p.lineType === 'shaft' ? p : { ...p, name: 'line' })),
    }
    const names = buildNetlist(twice).netlist.nodes.map((n) => n.name)
    expect(new Set(names).size).toBe(names.length)
    expect(names).toEqual(expect.arrayContaining(['line', 'line (2)', 'line (3)']))
  })
  it('says which pipe has a port or a value that does not work', () => {
    const port = {
      ...base,
      pipes: base.pipes.map((p) => (p.id === line.id ? { ...p, to: { component: relief, port: 'Q' } } : p)),
    }
    expect(buildNetlist(port).problems).toContainEqual(
      expect.objectContaining({
        location: { pipe: line.id },
        message: expect.stringContaining('no port "Q"'),
      }),
    )
    for (const change of [
      { length: '2 kg' },
      { bore: '0 mm' },
      { volume: '-1 L' },
      { lineModel: 'friction' as const, length: '0 m' },
    ]) {
      const { problems } = buildNetlist(changePipe(base, line.id, change))
      expect(problems[0]).toMatchObject({ severity: 'error', location: { pipe: line.id } })
    }
  })
})
