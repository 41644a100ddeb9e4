import { describe, expect, it } from 'vitest'
import { readBrief } from './brief/read'
import { candidatesOf, curvesOf, priceRatio } from './candidates'
import { findCard } from './cards'
import { freeCard, noDecisions, sizeMachine } from './graph'

const brief = readBrief({ values: { stroke: '600 mm', workingPressure: '190 bar', bucklingLength: '1' } })
const decisions = noDecisions()
const sizing = sizeMachine(brief, decisions)

describe('candidates', () => {
  it('are the sizes around the one needed, with what each does on the machine', () => {
    const { columns, rows } = candidatesOf(sizing.find('cylinder-bore@motion')!, 'bore', {
      brief,
      decisions,
      sizing,
    })
    expect(rows.map((r) => Math.round(r.value * 1000))).toEqual([63, 80, 100])
    expect(rows.map((r) => r.chosen)).toEqual([false, true, false])
    const of = (label: string) => rows.map((r) => r.results[columns.findIndex((c) => c.label === label)]!)
    // the pump and its motor follow the bore
    expect(of('Displacement').map((v) => Math.round(v * 1e6))).toEqual([16, 25, 40])
    // 60 kN on 63 mm need more than the 162 bar that a class of 190 leaves
    expect(of('Pressure with this bore')[0]).toBeGreaterThan(160e5)
    expect(rows[0].warnings.join()).toContain('more than the working pressure that there is')
    expect(rows[1].warnings).toEqual([])
    // (100 / 80)^(2 · 0.6) = 1.307
    expect(rows.map((r) => Number(r.price!.toFixed(2)))).toEqual([0.75, 1, 1.31])
    expect(priceRatio('power', 2, 1)).toBeCloseTo(1.516, 3)
    expect(priceRatio('pressure', 2, 1)).toBeUndefined()
  })
  it('keep a size that is in no series among them', () => {
    const odd = { ...decisions, values: { 'cylinder-bore@motion': { bore: '90 mm' } } }
    const own = sizeMachine(brief, odd)
    const { rows } = candidatesOf(own.find('cylinder-bore@motion')!, 'bore', {
      brief,
      decisions: odd,
      sizing: own,
    })
    expect(rows.find((r) => r.chosen)!.value).toBeCloseTo(0.09, 9)
    expect(rows.find((r) => r.computed)!.value).toBeCloseTo(0.08, 9)
  })
  it('of a card by itself compare on that card', () => {
    const { columns, rows } = candidatesOf(freeCard(findCard('cylinder-bore')!, {}), 'bore')
    expect(columns.map((c) => c.label)).toEqual(['Pressure with this bore', 'Pressure margin'])
    expect(rows).toHaveLength(3)
  })
})

describe('curves of a card', () => {
  it('follow an input with the sizes held, and show the limits', () => {
    const node = sizing.find('cylinder-buckling@motion')!
    const [reached, limit] = curvesOf(node, 0)
    expect(limit).toMatchObject({ limit: true, quantity: 'ratio' })
    expect(new Set(limit.points.map(([, y]) => y)).size).toBe(1)
    for (let i = 1; i < reached.points.length; i++)
      expect(reached.points[i][1]).toBeLessThan(reached.points[i - 1][1])
    // at the stroke of the brief the curve has the value of the card
    const near = reached.points.reduce((a, b) => (Math.abs(b[0] - 0.6) < Math.abs(a[0] - 0.6) ? b : a))
    expect(near[1] / node.values.reached).toBeCloseTo(1, 1)
  })
  it('are there for every card with its defaults', () => {
    for (const card of sizing.nodes.map((n) => n.card))
      card.charts.forEach((_, i) =>
        expect(curvesOf(freeCard(card, {}), i).length, card.id).toBeGreaterThan(0),
      )
  })
})
