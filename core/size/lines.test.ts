import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText } from '../sheet/read'
import { applyBore, boreOf, lineServices, pipesFor, wideEnough, type LineService } from './lines'

const read = readSheetText(
  readFileSync(new URL('../../demo/sheets/shavings-press.json', import.meta.url), 'utf8'),
)
if (!read.ok) throw new Error('the sheet does not read')
const { sheet } = read
const services = Object.keys(lineServices) as LineService[]

describe('lines by what they serve', () => {
  it('each oil pipe that carries flow serves one thing', () => {
    const all = services.flatMap((service) => pipesFor(sheet, service).map((p) => p.id))
    expect(new Set(all).size).toBe(all.length)
    const oil = sheet.pipes.filter((p) => ['working', 'drain', 'hose'].includes(p.lineType))
    // the two lines to the gauges carry no flow
    const gauges = sheet.components.filter((c) => c.kind === 'pressure-gauge').map((c) => c.id)
    const toGauges = oil.filter((p) =>
      [p.from, p.to].some((e) => 'component' in e && gauges.includes(e.component)),
    )
    expect(toGauges).toHaveLength(2)
    expect(all.sort()).toEqual(
      oil
        .filter((p) => !toGauges.includes(p))
        .map((p) => p.id)
        .sort(),
    )
  })
  it('tells suction, pressure and return by the ports that they join', () => {
    const joins = (service: LineService) =>
      pipesFor(sheet, service).flatMap((p) =>
        [p.from, p.to].flatMap((e) => ('port' in e ? [`${e.component}.${e.port}`] : [])),
      )
    expect(joins('suction')).toContain('P1.S')
    expect(joins('pressure')).toContain('P1.P')
    expect(joins('return').some((end) => end.endsWith('.T'))).toBe(true)
    expect(joins('return')).not.toContain('P1.S')
  })
  it('takes a bore into all lines of a service and no other', () => {
    const wider = applyBore(sheet, 'return', 0.031)
    expect(pipesFor(wider, 'return').every((p) => p.bore === '31 mm')).toBe(true)
    expect(pipesFor(wider, 'pressure').map((p) => p.bore)).toEqual(
      pipesFor(sheet, 'pressure').map((p) => p.bore),
    )
    expect(wideEnough(pipesFor(wider, 'return'), 0.03)).toBe(true)
    expect(wideEnough(pipesFor(wider, 'return'), 0.032)).toBe(false)
    expect(boreOf({ ...wider.pipes[0], bore: 'wide' })).toBeUndefined()
  })
})
