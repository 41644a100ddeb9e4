/** The assembled Jacobian against differences of the whole network. */
import { describe, expect, it } from 'vitest'
import { circuit, powerUnit, powerUnitPipes, timed, track } from '../../testing'
import type { Sheet } from '../../sheet/schema'
import { compile } from '../compile'
import { Simulation } from '../simulation'
import { continueRun } from '../run'

const moving = () => {
  const sheet = circuit(
    {
      ...powerUnit,
      valve: ['directional-valve-4-3'],
      ram: ['cylinder-double-acting', { stroke: '400 mm', mass: '300 kg', loadForce: '4 kN' }],
    },
    [...powerUnitPipes, 'pump.P valve.P', 'valve.T back.T', 'valve.A ram.A', 'valve.B ram.B'],
  )
  const valve = sheet.components.find((c) => c.kind === 'directional-valve-4-3')!.id
  // not wholly open: the end of the spool's way is a corner, where a difference to one side is another
  return timed(sheet, 1, [track(valve, 'command', [0.1, '0.9'])])
}
const withHoses = (sheet: Sheet): Sheet => ({
  ...sheet,
  pipes: sheet.pipes.map((p) => (p.lineType === 'working' ? { ...p, lineType: 'hose' as const } : p)),
})

describe.each([
  ['pipes', moving()],
  ['hoses', withHoses(moving())],
])('the Jacobian of a ram on %s', (_, sheet) => {
  it.each([0.13, 0.5])('is that of the rates, volumes and bulk moduli included, at %d s', (t) => {
    const compiled = compile(sheet).compiled!
    const simulation = new Simulation(compiled)
    continueRun(simulation, t)
    const { network } = simulation
    const { n, pattern } = network
    const y = simulation.state.slice()
    const rates = (state: number, by: number) => {
      const moved = Float64Array.from(y)
      moved[state] += by
      const rate = new Float64Array(n)
      network.rate(t, moved, rate)
      return rate
    }
    rates(0, 0)
    const values = new Float64Array(network.entries)
    network.jacobian(values)
    for (let row = 0; row < n; row++)
      for (let k = pattern.rowStart[row]; k < pattern.rowStart[row + 1]; k++) {
        const column = pattern.columns[k]
        const step = 1e-6 * Math.max(Math.abs(y[column]), network.scale[column])
        const slope = (rates(column, step)[row] - rates(column, -step)[row]) / (2 * step)
        // in shares of what the rate would be if the state moved by its scale
        const size = Math.max(Math.abs(slope), network.scale[row] / network.scale[column])
        expect(Math.abs(values[k] - slope) / size, `row ${row}, column ${column}`).toBeLessThan(1e-3)
      }
  })
})
