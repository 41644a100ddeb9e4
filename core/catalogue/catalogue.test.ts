import { describe, expect, it } from 'vitest'
import { findKind, kinds, type AnyKind } from '.'
import { netOf } from './answers'
import { MOST_SIGNALS, POWERS, type Local, type Model, type Parameter } from './kind'
import { withFaults } from '../simulate/circuit/faults'
import { Fluid } from '../fluid/fluid'
import { readParameter, resolveFluid, type Value } from '../sheet/resolve'
import { fluidSchema } from '../sheet/schema'
import type { Quantity } from '../units/quantities'
import { showQuantity } from '../units/text'
import { withDefaults } from '../testing'

/** Choices that change what a component does and that ISO 1219-1 has no sign for, or that are no part of the component. */
const notDrawn: Readonly<Record<string, string>> = {
  tank: 'which tank it belongs to is shown by its designation',
  edges: 'how the edges open: the symbol has no sign for a curve',
  crossover: 'what is open between two positions has no sign in the row of boxes',
  settingAt: 'how a catalogue states the setting: the valve is the same',
  'accumulator-gas.process': 'how the gas is computed: the vessel is the same',
  'accumulator-gas.gas': 'how the gas is computed: the vessel is the same',
  'cooler.on': 'whether it is switched on at the start of a run',
}
/** The values with each of their choices and switches in turn set otherwise. */
function withEachChoice(
  kind: AnyKind,
  values: Readonly<Record<string, Value>>,
): Readonly<Record<string, Value>>[] {
  return Object.entries(kind.parameters as Record<string, Parameter>).flatMap(([name, p]) =>
    p.type === 'choice'
      ? Object.keys(p.choices).map((value) => ({ ...values, [name]: value }))
      : p.type === 'switch'
        ? [{ ...values, [name]: !values[name] }]
        : [],
  )
}

const fluid = new Fluid(resolveFluid(fluidSchema.parse({})).data)
const defaults = (parameters: Record<string, Parameter>) =>
  Object.fromEntries(
    Object.entries(parameters).map(([name, p]) => {
      const read = readParameter(p, undefined)
      if ('message' in read) throw new Error(`${name}: ${read.message}`)
      return [name, read.value as Value]
    }),
  )

/** A component somewhere in the middle of its work. */
function localOf(kind: AnyKind, model: Model): Local {
  const count = kind.ports.length
  return {
    p: Float64Array.from({ length: count }, (_, i) => (kind.ports[i].domain === 'oil' ? 2e5 + 3e5 * i : 150)),
    x: Float64Array.from(model.states ?? [], (s) => s.initial + 0.3 * s.scale),
    u: Float64Array.from(kind.inputs ?? [], () => 0.5),
    mode: Int32Array.from(model.modes ?? []),
    q: new Float64Array(count),
    v: new Float64Array(count),
    a: new Float64Array(count),
    e: new Float64Array(count),
    h: new Float64Array(count),
    f: new Float64Array(count),
    dx: new Float64Array(model.states?.length ?? 0),
    g: new Float64Array(model.eventFunctions?.length ?? 0),
    o: new Float64Array(model.outputs?.length ?? 0),
    c: new Float64Array(model.conditions?.length ?? 0),
    power: new Float64Array(POWERS),
    energy: new Float64Array(1),
    slide: new Float64Array(model.dryFriction?.length ?? 0),
    holdForward: new Float64Array(model.dryFriction?.length ?? 0),
    holdBack: new Float64Array(model.dryFriction?.length ?? 0),
    held: new Float64Array(model.dryFriction?.length ?? 0),
  }
}

describe.each([...kinds.values()].map((kind) => [kind.name, kind] as const))('%s', (_name, kind) => {
  const values = defaults(kind.parameters)
  const symbol = kind.symbol(values)
  const model = kind.model(values, fluid)
  it('has defaults that are allowed and go together', () => expect(kind.validate?.(values) ?? []).toEqual([]))
  it('draws every port on the module grid, outside or on its outline', () => {
    const names = kind.ports.map((p) => p.name)
    expect(names).toEqual(expect.arrayContaining(Object.keys(symbol.ports)))
    // a port that may stay open need not be drawn where it has no use
    for (const port of kind.ports) if (!port.mayStayOpen) expect(symbol.ports).toHaveProperty(port.name)
    const { x, y, w, h } = symbol.box
    for (const port of Object.values(symbol.ports)) {
      expect(Number.isInteger(port.x) && Number.isInteger(port.y)).toBe(true)
      expect(port.x > x && port.x < x + w && port.y > y && port.y < y + h).toBe(false)
    }
  })
  it('says in a sentence what it is doing, at rest and at work', () => {
    const show = (si: number, q: Quantity) => showQuantity(si, q, 'metric')
    for (const command of [-1, 0, 0.5, 1]) {
      const local = localOf(kind, model)
      local.u.fill(command)
      if (local.x.length) local.x[0] = command
      model.evaluate?.(local)
      model.observe?.(local)
      const words = kind.describeState!(local, values, show)
      expect(words).toMatch(/^[A-Z0-9].*\.$/)
      expect(words).not.toMatch(/NaN|undefined|null|–/)
    }
    for (const line of kind.caption?.(values, show) ?? []) expect(line).not.toMatch(/NaN|undefined/)
  })
  // what a pilot opens is found by trying pressures; the balances of motors are those of torques found before
  const isTried = kind.traits?.pilotPorts !== undefined || kind.name.startsWith('cylinder')
  if (isTried)
    it('has balances that follow a pressure tried at its ports, without an evaluation', () => {
      const local = localOf(kind, model)
      model.evaluate?.(local)
      model.observe?.(local)
      const nets = () => model.balances?.(local).map(netOf) ?? []
      const before = nets()
      const moved = kind.ports.some(({ domain }, port) => {
        if (domain !== 'oil') return false
        local.p[port] += 1e6
        const now = nets()
        local.p[port] -= 1e6
        return now.some((net, i) => net !== before[i])
      })
      expect(moved).toBe(before.length > 0)
    })
  it('names its signals, conditions and instants once', () => {
    const names = [
      ...(kind.inputs ?? []).map((i) => i.name),
      ...(model.states ?? []).map((i) => i.name),
      ...(model.outputs ?? []).map((i) => i.name),
    ]
    expect(new Set(names).size).toBe(names.length)
    expect(names.length + kind.ports.length + (model.modes?.length ?? 0)).toBeLessThan(MOST_SIGNALS)
    const told = [...(model.conditions ?? []), ...(model.eventFunctions ?? [])].map((i) => i.name)
    expect(new Set(told).size).toBe(told.length)
    for (const c of model.conditions ?? [])
      if (c.worst) expect((model.outputs ?? []).map((o) => o.name)).toContain(c.worst)
    for (const g of model.eventFunctions ?? [])
      if (g.value)
        expect([...(model.states ?? []), ...(model.outputs ?? [])].map((o) => o.name)).toContain(g.value)
  })
  // most kinds impose nothing
  if (model.impose)
    it('imposes what its inputs and the oil say, whatever its pressures and states are', () => {
      const imposed = (start: number) => {
        const local = localOf(kind, model)
        local.p.fill(start)
        local.q.fill(start)
        local.x.fill(start)
        local.mode.fill(start > 0 ? 1 : 0)
        local.u.fill(0.5)
        model.impose!(local)
        return kind.ports.flatMap(({ imposes }, i) =>
          imposes && !model.idlePorts?.includes(i) ? [local.p[i]] : [],
        )
      }
      expect(imposed(0.3)).toEqual(imposed(-0.2))
    })
  it('lets no parameter stand that no equation reads', () => {
    const read = new Set<string>()
    const watched = (start: Record<string, Value>) =>
      new Proxy(start, {
        get(target, name) {
          read.add(String(name))
          return target[String(name)]
        },
      })
    const parameters = Object.entries(kind.parameters as Record<string, Parameter>)
    // each choice and each end of a range in turn, since some values count only with them
    const variants = parameters.flatMap(([name, p]) => {
      const others =
        p.type === 'switch'
          ? [!values[name]]
          : p.type === 'choice'
            ? Object.keys(p.choices)
            : p.type === 'table'
              ? [{ x: [0, 1], y: [1, 2] }]
              : p.type === 'text'
                ? ['some words']
                : [p.min, p.max]
      return others.map((value) => ({ ...values, [name]: value }))
    })
    for (const start of [values, ...variants]) {
      const watching = kind.model(watched(start), fluid)
      for (const x of [0, 0.5, 1]) {
        const local = localOf(kind, watching)
        local.x.fill(x)
        local.u.fill(x)
        local.mode.fill(x > 0.7 ? 1 : 0)
        local.slide.fill(x > 0.7 ? 1 : 0)
        watching.impose?.(local)
        watching.evaluate?.(local)
        watching.observe?.(local)
      }
    }
    for (const input of kind.inputs ?? []) if (typeof input.rest === 'string') read.add(input.rest)
    // what has no oil at all may be there for its drawing alone, and so may what is grouped under it
    if (!kind.ports.length) kind.symbol(watched(values))
    const ofDrawing = parameters.filter(([, p]) => p.group === 'Drawing').map(([name]) => name)
    if (ofDrawing.length) {
      const before = new Set(read)
      read.clear()
      kind.symbol(watched(values))
      const shown = ofDrawing.filter((name) => read.has(name))
      read.clear()
      for (const name of [...before, ...shown]) read.add(name)
    }
    for (const [name] of parameters) expect([...read], `${kind.name}: ${name}`).toContain(name)
  })
  it('reads nothing at a port that it calls idle', () => {
    for (const port of model.idlePorts ?? []) {
      if (port >= kind.ports.length) continue
      const at = (p: number) => {
        const local = localOf(kind, model)
        local.p[port] = p
        model.evaluate?.(local)
        return [...local.q, ...local.dx].join()
      }
      expect(at(0)).toBe(at(5e6))
      expect(kind.ports[port].mayStayOpen).toBe(true)
    }
  })
  it('swells with its states exactly where it says so', () => {
    const volumesAt = (share: number) => {
      const local = localOf(kind, model)
      local.x.fill(share)
      local.p.fill(share * 1e7)
      model.evaluate?.(local)
      return [...local.v].join()
    }
    expect(new Set([0.1, 0.2, 0.3].map(volumesAt)).size).toBe(model.hasVariableVolume ? 3 : 1)
  })
  it('has the same ports in both of its forms, and more to show in detail', () => {
    if (!kind.forms) return
    const variants = [values, ...withEachChoice(kind, values)]
    for (const v of variants)
      expect(Object.keys(kind.symbol(v, 'detailed').ports)).toEqual(Object.keys(kind.symbol(v).ports))
    // some of them differ only with one of their choices: a valve whose solenoid is piloted
    const richer = variants.filter(
      (v) => kind.symbol(v, 'detailed').shapes.length > kind.symbol(v, 'simplified').shapes.length,
    )
    expect(richer.length).toBeGreaterThan(0)
  })
  it('shows every choice that changes what it does', () => {
    const contexts = [values, ...withEachChoice(kind, values)]
    const drawn = (v: Readonly<Record<string, Value>>) =>
      JSON.stringify([kind.symbol(v, 'simplified').shapes, kind.symbol(v, 'detailed').shapes])
    for (const [name, p] of Object.entries(kind.parameters as Record<string, Parameter>)) {
      if (p.type !== 'choice' && p.type !== 'switch') continue
      const options = p.type === 'switch' ? [true, false] : Object.keys(p.choices)
      const alike = options.flatMap((a, i) =>
        options
          .slice(i + 1)
          .filter((b) => contexts.every((c) => drawn({ ...c, [name]: a }) === drawn({ ...c, [name]: b })))
          .map((b) => `${String(a)} = ${String(b)}`),
      )
      if (`${kind.name}.${name}` in notDrawn || name in notDrawn)
        expect(alike.length, `${kind.name}.${name} is drawn and need not be listed`).toBeGreaterThan(0)
      else expect(alike, `${kind.name}.${name}`).toEqual([])
    }
  })
  it('draws a line to every port that it shows, with every choice', () => {
    const choices = Object.entries(kind.parameters as Record<string, Parameter>).flatMap(([name, p]) =>
      p.type === 'choice'
        ? Object.keys(p.choices).map((value) => ({ ...values, [name]: value }))
        : p.type === 'switch'
          ? [{ ...values, [name]: !values[name] }]
          : [],
    )
    for (const drawn of [values, ...choices]) {
      const { shapes, ports } = kind.symbol(drawn)
      const points = shapes.flatMap((s) => ('points' in s ? s.points : []))
      for (const [name, port] of Object.entries(ports)) {
        const off = kind.ports.find((p) => p.name === name)!.domain === 'shaft' ? 0.25 : 0
        const met = points.some(
          ([x, y]) => Math.abs(x - port.x) < 1e-9 && Math.abs(Math.abs(y - port.y) - off) < 1e-9,
        )
        expect(met, `${kind.name} ${name} ${JSON.stringify(drawn)}`).toBe(true)
      }
    }
  })
  it('moves parts by signals that its model has', () => {
    const names = [...(model.states ?? []), ...(model.outputs ?? [])].map((s) => s.name)
    for (const part of Object.values(symbol.parts ?? {})) expect(names).toContain(part.signal)
    for (const shape of symbol.shapes)
      if (shape.part) expect(Object.keys(symbol.parts!)).toContain(shape.part)
    if (symbol.reading) expect(names).toContain(symbol.reading)
  })
  it('has inputs, traits and words that name what is there', () => {
    for (const input of kind.inputs ?? [])
      if (typeof input.rest === 'string') expect(kind.parameters).toHaveProperty(input.rest)
    const ports = kind.ports.map((p) => p.name)
    for (const path of kind.traits?.paths ?? [])
      expect(ports).toEqual(expect.arrayContaining([path.from, path.to]))
    for (const port of [
      ...(kind.traits?.deliveryPorts ?? []),
      ...(kind.traits?.suctionPorts ?? []),
      ...(kind.traits?.tankPorts ?? []),
    ])
      expect(ports).toContain(port)
    for (const name of Object.values(kind.traits?.sizingTargets ?? {}))
      expect(kind.parameters).toHaveProperty(name)
    expect(kind.description).toMatch(/\.$/)
  })
  it('can be broken in ways that change it and lose no oil inside', () => {
    const names = [...(kind.inputs ?? []), ...(kind.faults ?? [])].map((i) => i.name)
    expect(new Set(names).size).toBe(names.length)
    for (const fault of kind.faults ?? []) {
      expect(fault.min <= 0 && fault.max > 0, fault.name).toBe(true)
      const at = (amount: number, top: number, falling: boolean) => {
        const input = kind.inputs?.length ?? 0
        const broken = withFaults(model, [{ spec: fault, input }], fluid, values)
        const local = { ...localOf(kind, model), u: new Float64Array(input + 1) }
        kind.inputs?.forEach((spec, i) => {
          local.u[i] = typeof spec.rest === 'string' ? (values[spec.rest] as number) : spec.rest || spec.max
        })
        local.u[input] = amount
        local.x.forEach((_, i) => (local.x[i] = 0.41 + 0.2 * i))
        local.p.forEach((p, i) => {
          const rank = falling ? i : local.p.length - 1 - i
          const { domain, mayStayOpen } = kind.ports[i]
          local.p[i] = domain !== 'oil' ? p : falling && mayStayOpen ? 0 : top / (1 + 3 * rank)
        })
        local.mode.fill(falling ? 1 : 0)
        const full = fluid.tanks[0]
        fluid.tanks[0] = 0.9 * full
        broken.impose?.(local)
        const imposed = kind.ports.some((port) => port.imposes) ? local.p.join() : ''
        broken.evaluate?.(local)
        broken.observe?.(local)
        fluid.tanks[0] = full
        return { ...local, imposed, shut: model.breathing?.shut(local) }
      }
      const situations = [4e5, 1.5e6, 8e6, 1.2e7, 2.6e7].flatMap((top) =>
        [true, false].map((f) => [top, f] as const),
      )
      const all = (amount: number) =>
        situations
          .map(([top, falling]) => at(amount, top, falling))
          .map((l) => [...l.q, ...l.dx, ...l.a, ...l.g, ...l.o, ...l.holdForward, l.imposed, l.shut].join())
          .join()
      expect(all(fault.max), `${kind.name} ${fault.name}`).not.toBe(all(0))
      const failed = at(fault.max, 1.2e7, true)
      if (fault.form !== 'leak' && fault.form !== 'blocked') continue
      const sum = (l: Local) =>
        kind.ports.reduce((s, p, i) => s + (p.domain === 'oil' ? l.q[i] - l.e[i] : 0), 0)
      if (!(model.states ?? []).some((s) => s.storesOil) && kind.family !== 'actuators')
        expect(Math.abs(sum(failed))).toBeLessThan(1e-12)
    }
  })
  it('loses no oil: what flows in flows out or moves a chamber', () => {
    const local = localOf(kind, model)
    model.evaluate?.(local)
    model.observe?.(local)
    for (const list of [local.q, local.v, local.dx, local.g, local.o, local.c, local.power])
      expect([...list].every(Number.isFinite)).toBe(true)
    if (kind.ports.some((p) => p.imposes)) return
    // the growth of the chambers, by moving the states a little along their rates
    const before = local.v.slice()
    const sum = kind.ports.reduce((s, p, i) => s + (p.domain === 'oil' ? local.q[i] : 0), 0)
    const h = 1e-6
    for (let i = 0; i < local.x.length; i++) local.x[i] += h * local.dx[i]
    model.evaluate?.(local)
    const kept = (model.states ?? []).reduce((s, state, i) => s + (state.storesOil ? local.dx[i] : 0), 0)
    const growth = kept + local.v.reduce((s, v, i) => s + (v - before[i]) / h, 0)
    expect(Math.abs(sum - growth)).toBeLessThan(1e-6)
  })
})

// the pilot pushes the path towards the spring, into the line
it('the unloader of the two-stage pump has its path on the side of the pilot, away from the spring', () => {
  const kind = findKind('two-stage-pump')!
  const lines = kind
    .symbol(withDefaults(kind).values)
    .shapes.flatMap((shape) => (shape.shape === 'line' ? [shape] : []))
  const path = lines.find(({ points: [a, b] }) => a[1] === -1.5 && b[1] === 1.5)!
  const line = lines.find(({ points }) => points.at(-1)![1] === -1.5 && points[0][1] < -1.5)!
  const pilot = lines.find(({ points, dash }) => dash === 'pilot' && points.at(-1)![1] === 0)!
  const side = (x: number) => Math.sign(x - line.points[0][0])
  expect(side(path.points[0][0])).toBe(side(pilot.points.at(-1)![0]))
})
