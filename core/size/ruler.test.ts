import { describe, expect, it } from 'vitest'
import { readBrief } from './brief/read'
import { sizeMachine } from './graph'
import { rulerOf, spread } from './ruler'

describe('the ruler of pressures', () => {
  it('has moving, working, limiting and rated pressures in their order', () => {
    const entries = rulerOf(
      sizeMachine(
        readBrief({ values: { stroke: '600 mm', workingPressure: '190 bar', bucklingLength: '1' } }),
      ),
    )
    const pressures = entries.map((e) => e.pressure)
    expect(pressures).toEqual([...pressures].sort((a, b) => a - b))
    const of = (mark: string) =>
      entries.filter((e) => e.mark === mark).map((e) => Math.round(e.pressure / 1e5))
    expect(of('moving')).toEqual([14, 30])
    expect(of('limit')).toEqual([160, 169])
    expect(of('rating')).toEqual([169, 250])
    expect(entries.find((e) => e.mark === 'limit')!.label).toBe('Relief valve: pressure at which it opens')
  })
  it('moves labels apart and keeps their order', () => {
    expect(spread([300, 200, 100], 20, 0, 400)).toEqual([300, 200, 100])
    expect(spread([300, 299, 298], 20, 0, 400)).toEqual([300, 280, 260])
    const full = spread([30, 20, 10], 20, 5, 400)
    expect(full[2]).toBe(5)
    expect(full[0]).toBe(45)
  })
})
