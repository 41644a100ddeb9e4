/** Answers about the machines of the yard: sums at every gauge of every schedule, and what fixes the pressures that everyone asks about. */
import { describe, expect, it } from 'vitest'
import { restOf } from '../core/catalogue/answers'
import { findKind } from '../core/catalogue'
import { answerPressure, lineOfPlace } from '../core/explain/answer'
import { Moments } from '../core/explain/moment'
import { LinePorts, pressureStack } from '../core/explain/stack'
import { demoMachines } from './machines'
import { runDemo } from './golden'

const INSTANTS = 50
const bar = 1e5

const all = demoMachines().flatMap((m) =>
  m.variants.flatMap((v) => v.sheet.schedules.map((s) => [m.name, v.name, s.id, v.sheet] as const)),
)

describe('the sums of all pressures', () => {
  it.each(all)('%s, %s, %s', (machine, variant, schedule, sheet) => {
    const result = runDemo(machine, variant, schedule)
    const moments = new Moments(sheet, result)
    const gauges = new Set(
      sheet.components
        .filter((c) => findKind(c.kind)?.family === 'instruments')
        .flatMap((c) => {
          const line = Object.entries(result.lineOfPort).find(([key]) => key.startsWith(`${c.id}.`))?.[1]
          return line === undefined ? [] : [line]
        }),
    )
    let asked = 0
    for (let k = 0; k < INSTANTS; k++) {
      moments.showRecorded(result, (result.duration * (k + 0.5)) / INSTANTS)
      const { network } = moments
      const ports = new LinePorts(network)
      network.nodes.forEach(({ domain }, line) => {
        if (domain !== 'oil' || network.nodeState[line] < 0) return
        const { error, pressure, addends, fixedBy } = pressureStack(ports, line)
        expect(Math.abs(error)).toBeLessThan(Math.max(1e-3 * Math.abs(pressure), 0.1 * bar))
        // it does not go round through a load, and what sets it has a name
        const loads = addends.filter(({ label }) => label === 'load').map(({ part }) => part)
        expect(new Set(loads).size).toBe(loads.length)
        if (!['trapped', 'void'].includes(fixedBy.kind)) expect(fixedBy.part).toBeTruthy()
        if (gauges.has(line)) asked++
      })
      for (const element of network.elements) {
        const { model, local } = element
        for (const hold of model.holds?.(local) ?? []) expect(Math.abs(restOf(hold, local.p))).toBeLessThan(1)
        if (!model.ways) continue
        element.nodes.forEach((node, port) => {
          if (network.nodes[node].domain === 'oil')
            expect(Math.abs(ports.keptAt({ element, port }))).toBeLessThan(
              1e-8 + 1e-6 * Math.abs(local.q[port]),
            )
        })
      }
    }
    if (gauges.size) expect(asked).toBeGreaterThan(0)
  })
})

describe('what fixes a pressure', () => {
  const fixedAt = (machine: string, variant: number, schedule: number, port: string, t: number) => {
    const m = demoMachines().find(({ name }) => name === machine)!
    const { name, sheet } = m.variants[variant]
    const result = runDemo(machine, name, sheet.schedules[schedule].id)
    const moments = new Moments(sheet, result)
    moments.showRecorded(result, t)
    return answerPressure(moments, result, lineOfPlace(sheet, result, { port })).stack
  }
  it('a load-sensing pump keeps its margin above the load that is signalled to it', () => {
    const { fixedBy, addends } = fixedAt('Quay crane', 0, 0, 'P1.P', 4)
    expect(fixedBy).toEqual({ kind: 'pumpControl', part: 'P1' })
    const labels = addends.map((a) => `${a.part} ${a.label}`)
    expect(labels).toContain('A1 load')
    expect(labels).toContain('P1 margin over the load signal')
  })
  it('the clamp of the blade press is held by the oil that its pilot check shuts in', () => {
    expect(fixedAt('Blade press', 3, 0, 'A1.A', 7).fixedBy.kind).toBe('trapped')
  })
  it('the low side of the slipway winch stands at its charge relief', () => {
    const { addends } = fixedAt('Slipway winch', 0, 0, 'H1.A', 5)
    expect(addends.some((a) => a.label === 'setting' && Math.abs(a.value / bar - 20) < 0.1)).toBe(true)
  })
  it('a lowered boat is held by its load, through the valve that lets it down', () => {
    expect(fixedAt('Boat lift', 0, 0, 'A1.A', 12).fixedBy).toEqual({ kind: 'load', part: 'A1' })
  })
})
