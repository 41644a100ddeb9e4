/** What a kind reports of the pushes in it: the sum changes sign where the part begins to move. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Fluid } from '../fluid/fluid'
import { resolveFluid } from '../sheet/resolve'
import { emptySheet } from '../sheet/schema'
import { CircuitArrays } from '../simulate/circuit/arrays'
import { bar, withDefaults } from '../testing'
import { kinds } from './index'
import { netOf } from './answers'
import type { Local } from './kind'

const fluid = new Fluid(resolveFluid(emptySheet('Test').fluid).data)

/** A component of a kind by itself, with its inputs at rest, to be evaluated at any pressures. */
function alone(name: string, values: Record<string, string | number | boolean> = {}) {
  const { kind, values: standard } = withDefaults({ name })
  const used = { ...standard, ...values } as typeof standard
  const model = kind.model(used, fluid)
  const inputs = kind.inputs ?? []
  return {
    kind,
    model,
    values: used as Record<string, number>,
    /** @param pressures at its ports, bar @param states @param commands by name of the input */
    at(pressures: Record<string, number>, states: number[] = [], commands: Record<string, number> = {}) {
      const [local] = new CircuitArrays([{ model, ports: kind.ports.length, inputs: inputs.length }]).locals
      kind.ports.forEach((port, i) => (local.p[i] = (pressures[port.name] ?? 0) * bar))
      model.states?.forEach(({ initial }, i) => (local.x[i] = states[i] ?? initial))
      model.dryFriction?.forEach((on, i) => {
        local.slide[i] = Math.sign('velocity' in on ? local.x[on.velocity] : local.p[on.port])
      })
      inputs.forEach(({ name, rest }, i) => {
        local.u[i] = commands[name] ?? (typeof rest === 'string' ? Number(used[rest]) : rest)
      })
      model.evaluate?.(local)
      // a valve that snaps changes its mode before it opens
      for (let i = 0; i < local.g.length; i++) if (local.g[i] > 0) model.switch?.(local, i, 1)
      model.evaluate?.(local)
      model.observe?.(local)
      return local
    },
    net: (local: Local) => netOf(model.balances!(local)[0]),
    name: (local: Local) => model.balances!(local)[0]?.name,
  }
}
const pressure = fc.double({ min: 0, max: 300, noNaN: true })

/** Kinds whose first state is what a spring holds shut, or open. */
const opening = [...kinds.keys()].filter((name) => {
  const { model } = alone(name)
  return (
    model.balances && ['opening', 'excessOpening', 'bypass', 'lift'].includes(model.states?.[0]?.name ?? '')
  )
})

describe('a balance', () => {
  it('is given by every valve that opens by itself', () => {
    expect(opening).toEqual(
      expect.arrayContaining([
        'relief-valve-direct',
        'sequence-valve',
        'counterbalance-valve',
        'reducing-valve',
        'priority-valve',
        'flow-control-3-way',
        'brake',
      ]),
    )
  })

  it.each(opening)('changes sign where it begins to move: %s', (name) => {
    const part = alone(name)
    fc.assert(
      fc.property(fc.array(pressure, { minLength: 6, maxLength: 6 }), (p) => {
        const pressures = Object.fromEntries(part.kind.ports.map((port, i) => [port.name, p[i]]))
        // from where it would move: shut for what opens, open for what closes
        const closes = part.name(part.at(pressures)) === 'closes'
        const local = part.at(pressures, [closes ? 1 : 0])
        const net = part.net(local)
        // its corners are rounded over a small part of its range
        if (Math.abs(net) < 0.02 * Math.max(...local.p, 100 * bar)) return
        expect(Math.abs(local.dx[0]) > 1e-9).toBe(net > 0)
      }),
      { numRuns: 60 },
    )
  })

  it.each(['accumulator-gas', 'accumulator-spring', 'accumulator-weight'])(
    'of a store changes sign where it takes oil: %s',
    (name) => {
      const part = alone(name)
      fc.assert(
        fc.property(pressure, fc.double({ min: 0.1, max: 0.9, noNaN: true }), (p, share) => {
          const local = part.at({ P: p }, [share * part.values.volume])
          const net = part.net(local)
          if (Math.abs(net) > 1) expect(Math.sign(local.q[0])).toBe(Math.sign(net))
        }),
      )
    },
  )

  it.each(['double-pilot-check', 'cross-port-relief'])(
    'of each side changes sign where it opens: %s',
    (name) => {
      const part = alone(name)
      fc.assert(
        fc.property(fc.array(pressure, { minLength: 6, maxLength: 6 }), (p) => {
          const local = part.at(
            Object.fromEntries(part.kind.ports.map((port, i) => [port.name, p[i]])),
            [0, 0],
          )
          part.model.balances!(local).forEach((balance, side) => {
            const net = netOf(balance)
            if (Math.abs(net) < 0.02 * Math.max(...local.p, 100 * bar)) return
            expect(local.dx[side] > 1e-9).toBe(net > 0)
          })
        }),
        { numRuns: 60 },
      )
    },
  )

  it('of a section changes sign where a port relief opens', () => {
    const part = alone('valve-section', { portReliefs: true })
    const reliefs = ['reliefA', 'reliefB'].map((name) => part.model.states!.findIndex((s) => s.name === name))
    fc.assert(
      fc.property(pressure, pressure, fc.double({ min: 0, max: 20, noNaN: true }), (a, b, tank) => {
        const local = part.at({ A: a, B: b, T: tank })
        part.model.balances!(local).forEach((balance, side) => {
          const net = netOf(balance)
          if (Math.abs(net) > 6 * bar) expect(local.dx[reliefs[side]] > 1e-9).toBe(net > 0)
        })
      }),
    )
    expect(alone('valve-section', { portReliefs: false }).model.balances!(part.at({}))).toEqual([])
  })

  it('of a section lets nothing open that it does not have', () => {
    const rates = (values: Record<string, boolean>) => {
      const { model, at } = alone('valve-section', values)
      const { dx } = at({ A: 300, B: -0.8 })
      return model.states!.flatMap(({ name }, i) => (dx[i] > 0 ? [name] : []))
    }
    expect(rates({ portReliefs: true, suction: true })).toEqual(['reliefA', 'suctionB'])
    expect(rates({ portReliefs: false, suction: false })).toEqual([])
    // one that is taken out in flight shuts as fast as it answers
    const { model, at } = alone('valve-section', { portReliefs: false, suction: false })
    const { dx } = at({}, [0, 0, 1, 1, 1, 1])
    expect(model.states!.slice(2).map((_, i) => dx[2 + i] <= -500)).toEqual([true, true, true, true])
  })

  it('of a two-stage pump changes sign where it unloads its large stage, and back at its reset', () => {
    const part = alone('two-stage-pump')
    fc.assert(
      fc.property(pressure, (p) => {
        const local = part.at({ P: p }, [1])
        // it has unloaded: from then on its reset counts
        const reset = local.mode[0] ? part.values.differential : 1
        expect(part.net(local)).toBeCloseTo(p * bar - reset * part.values.changeOver, 3)
        expect(local.dx[0] < -1e-9).toBe(p * bar > part.values.changeOver)
      }),
    )
  })

  it('of a pump control changes sign where it takes the stroke back', () => {
    for (const name of ['pressure-compensated-pump', 'load-sensing-pump']) {
      const part = alone(name)
      fc.assert(
        fc.property(pressure, fc.double({ min: 0, max: 100, noNaN: true }), (p, load) => {
          const local = part.at({ P: p, X: load }, [1])
          const nets = part.model.balances!(local).map(netOf)
          if (nets.some((net) => Math.abs(net) < 3 * bar)) return
          // either of two controls takes it back
          expect(local.dx[0] < -1e-9).toBe(nets.some((net) => net > 0))
        }),
      )
    }
  })

  it.each([0.1, -0.1])('of a cylinder has the sign of its acceleration, at %d m/s', (velocity) => {
    const part = alone('cylinder-double-acting', { loadForce: 20e3 })
    const [position, speed] = ['position', 'velocity'].map((name) =>
      part.model.states!.findIndex((s) => s.name === name),
    )
    fc.assert(
      fc.property(pressure, pressure, (a, b) => {
        const states: number[] = []
        states[position] = 0.1
        states[speed] = velocity
        const local = part.at({ A: a, B: b }, states)
        const net = part.net(local)
        if (Math.abs(net) > 50) expect(Math.sign(local.dx[speed])).toBe(Math.sign(net))
      }),
    )
  })

  it('of a shuttle valve changes sign where the ball crosses', () => {
    const part = alone('shuttle-valve')
    fc.assert(
      fc.property(pressure, pressure, (a, b) => {
        const local = part.at({ A: a, B: b })
        if (Math.abs(a - b) > 1e-6) expect(Math.sign(local.dx[0])).toBe(Math.sign(part.net(local)))
      }),
    )
  })

  it('of a flow control changes sign where its edge gets the drop it needs', () => {
    const part = alone('flow-control-2-way', { bypass: false })
    fc.assert(
      fc.property(pressure, pressure, (a, b) => {
        const local = part.at({ A: a, B: b })
        const net = part.net(local)
        if (Math.abs(net) > 0.5 * bar) expect(local.q[0] > 0.98 * part.values.flow).toBe(net > 0)
      }),
    )
  })

  it.each([
    ['pre', 'A'],
    ['post', 'X'],
  ])('of a metering section changes sign where oil passes, or is enough: %s', (compensation, against) => {
    const part = alone('load-sensing-section', { compensation })
    fc.assert(
      fc.property(pressure, fc.double({ min: 5, max: 200, noNaN: true }), (p, load) => {
        const local = part.at({ P: p, A: Math.min(load, p - 3), [against]: load }, [1], { command: 1 })
        const net = part.net(local)
        if (Math.abs(net) < 0.5 * bar) return
        const least = compensation === 'pre' ? 0.98 * part.values.flow : 0
        expect(local.q[0] > least).toBe(net > 0)
      }),
    )
    // in neutral there is nothing to compensate
    expect(part.name(part.at({ P: 100 }))).toBeUndefined()
  })

  it.each([
    ['pressure at X alone', { actuation: 'pilot', actuationB: 'pilot' }, 'X', 'Y', 1],
    ['pressure at Y alone', { actuation: 'pilot', actuationB: 'pilot' }, 'Y', 'X', -1],
  ])('of a piloted spool changes sign where it reaches its position: %s', (_, values, at, other, end) => {
    const part = alone('directional-valve-4-3', values)
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 0.99, noNaN: true }),
        (p, share) => {
          const local = part.at({ [at]: p, [other]: share * p }, [end])
          const net = part.net(local)
          expect(part.name(local)).toBe(`is shifted fully to position ${end > 0 ? 'a' : 'b'}`)
          // at full travel the spring brings it back unless the pilot holds it there
          if (Math.abs(net) > 1) expect(Math.abs(local.dx[0]) < 1e-9).toBe(net > 0)
        },
      ),
    )
  })

  it('of a pilot stage says whether the coil could shift the spool, and whether it does', () => {
    const part = alone('directional-valve-4-3', { actuation: 'solenoidPilot' })
    const needed = part.values.shiftPressure / bar
    const waiting = part.at({ P: needed + 2, T: 3 })
    expect(part.name(waiting)).toBe('can be shifted fully')
    expect(part.net(waiting) / bar).toBeCloseTo(-1, 9)
    for (const supply of [needed - 1, needed + 1]) {
      const local = part.at({ P: supply }, [1], { command: 1 })
      expect(part.name(local)).toBe('is shifted fully')
      expect(Math.abs(local.dx[0]) < 1e-9).toBe(part.net(local) > 0)
    }
  })

  it('is not given by a spool that a coil moves by itself', () => {
    expect(alone('directional-valve-4-3').model.balances).toBeUndefined()
  })
})
