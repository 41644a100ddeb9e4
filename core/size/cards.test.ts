import { describe, expect, it } from 'vitest'
import { kinds } from '../catalogue'
import { defaultValue, type Card } from './card'
import { cards, findCard } from './cards'
import { evaluateCard } from './evaluate'
import { machineFieldNames, motionFieldNames } from './brief/brief'
import { linkExists, linkNames } from './graph'
import { solveCard } from './solve'
import { standardSeries, type SeriesName } from './series'
import { inTradeUnits } from './trade'

const entries = (card: Card) => Object.entries(card.variables)
const numericInputs = (card: Card) => entries(card).filter(([, v]) => v.role === 'input' && !v.options)

describe.each(cards.map((card) => [card.id, card] as const))('card %s', (_id, card) => {
  it('computes all of its values from its defaults', () => {
    const { problems, values } = evaluateCard(card, {})
    expect(problems).toEqual([])
    for (const [name] of entries(card)) expect(values[name], name).toSatisfy(Number.isFinite)
  })
  it('links to what there is, and reads each of its inputs', () => {
    const read = new Set(entries(card).flatMap(([, v]) => (v.role === 'input' ? [] : v.formula.names)))
    for (const { when } of card.warnings) when.names.forEach((name) => read.add(name))
    // what an assessment takes is read by it
    const watched = new Proxy(evaluateCard(card, {}).values, {
      get: (values, name) => (read.add(String(name)), values[String(name)]),
    })
    card.assess?.(watched)
    for (const [name, v] of entries(card)) {
      if (v.role !== 'input') continue
      expect(read.has(name), name).toBe(true)
      for (const link of v.from) expect(linkExists(link), link).toBe(true)
    }
    for (const name of card.compare) if (name.includes('.')) expect(linkExists(name), name).toBe(true)
    for (const links of card.demand ? [card.demand.out, card.demand.back] : [])
      for (const link of [...links.speed, ...links.load]) expect(linkExists(link), link).toBe(true)
  })
  it('tells its variables apart by symbol', () => {
    const symbols = entries(card).flatMap(([, v]) => (v.symbol ? [v.symbol] : []))
    expect(symbols.filter((s, i) => symbols.indexOf(s) !== i)).toEqual([])
    expect(card.about).toMatch(/\.$/)
    expect(card.source).not.toBe('')
  })
  it('gives an input back from each result that depends on it', () => {
    const given = Object.fromEntries(
      numericInputs(card).map(([name, v]) => [name, v.role === 'input' ? defaultValue(v) : 0]),
    )
    // solving goes through settings that are not rounded
    const unrounded = { continuous: true }
    const { values } = evaluateCard(card, given, unrounded)
    let compared = 0
    for (const [name, variable] of entries(card)) {
      if (variable.role !== 'step') continue
      for (const [unknown, input] of numericInputs(card)) {
        if (input.role !== 'input') continue
        const changed = [0.997, 1.003].every((factor) => {
          const x = Math.min(Math.max(given[unknown] * factor, input.min), input.max)
          const moved = evaluateCard(card, { ...given, [unknown]: x }, unrounded).values[name]
          return moved !== undefined && Math.abs(moved - values[name]) > 1e-4 * Math.abs(values[name])
        })
        // where a rounded size or a limit lies between, the result does not tell the input
        if (!changed || values[name] === 0 || given[unknown] === 0) continue
        compared++
        const solution = solveCard(card, given, { name, value: values[name] }, unknown)
        expect(solution, `${unknown} from ${name}`).toHaveProperty('value')
        if (!('value' in solution)) continue
        const found = [solution.value, ...solution.others]
        const nearest = Math.min(...found.map((x) => Math.abs(x - given[unknown])))
        expect(nearest, `${unknown} from ${name}`).toBeLessThanOrEqual(2e-4 * Math.abs(given[unknown]) + 1e-9)
        const back = evaluateCard(card, { ...given, [unknown]: solution.value }, unrounded).values[name]
        expect(back / values[name]).toBeCloseTo(1, 5)
      }
    }
    // a card that only gathers what others give has nothing by itself
    if (numericInputs(card).some(([name]) => given[name] !== 0)) expect(compared).toBeGreaterThan(0)
  })
  it('gives the same by the constants of the trade', () => {
    const { values } = evaluateCard(card, {})
    for (const [name, v] of entries(card)) {
      if (v.role !== 'step' || !v.trade) continue
      const result = inTradeUnits(card, v, values)!
      // 231, 1714 and 63025 are exact to the places that are written
      expect(result.si / values[name], name).toBeCloseTo(1, 3)
    }
  })
})

describe('the cards together', () => {
  it('have names of their own', () => {
    expect(new Set(cards.map((c) => c.id)).size).toBe(cards.length)
    expect(findCard('cylinder-bore')?.title).toBe('Bore')
    expect(findCard('none')).toBeUndefined()
  })
  it('hand to the sheet only what some component takes, of the same quantity', () => {
    const targets = [...kinds.values()].flatMap((kind) =>
      Object.entries(kind.traits?.sizingTargets ?? {}).map(
        ([sized, parameter]) => [sized, kind.parameters[parameter]] as const,
      ),
    )
    const given = new Set<string>()
    for (const card of cards)
      for (const [name, v] of entries(card)) {
        if (v.role === 'input' || !v.sized) continue
        given.add(v.sized)
        const own = targets.filter(([sized]) => sized === v.sized)
        expect(own.length, `${card.id}.${name}`).toBeGreaterThan(0)
        for (const [, parameter] of own)
          expect(parameter).toMatchObject({ type: 'quantity', quantity: v.quantity })
      }
    // and nothing on a sheet waits for what no card gives
    for (const [sized] of targets) expect(given, sized).toContain(sized)
  })
  it('read every value of the brief, but for those that only the cycle reads', () => {
    const links = new Set(
      cards.flatMap((card) => entries(card).flatMap(([, v]) => (v.role === 'input' ? v.from : []))),
    )
    const byCycle = ['cycleTime']
    for (const name of machineFieldNames)
      if (!byCycle.includes(name)) expect(links, name).toContain(`brief.${name}`)
    // travel and times reach the cards as the movement
    const byMovement = [
      'stroke',
      'angle',
      'outSpeed',
      'backSpeed',
      'outRotation',
      'backRotation',
      'workStroke',
    ]
    for (const name of motionFieldNames)
      if (!byMovement.includes(name)) expect(links, name).toContain(`motion.${name}`)
    expect(linkNames().filter((link) => !links.has(link))).toEqual([])
  })
  it('choose from series of their quantity, which rise', () => {
    for (const { values, source } of Object.values(standardSeries)) {
      expect(source).not.toBe('')
      for (let i = 1; i < values.length; i++) expect(values[i]).toBeGreaterThan(values[i - 1])
    }
    for (const card of cards)
      for (const [, v] of entries(card))
        if (v.role === 'choice') expect(standardSeries[v.series as SeriesName].quantity).toBe(v.quantity)
  })
})
