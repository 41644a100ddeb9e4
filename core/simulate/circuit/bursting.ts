/** Where a line would burst: above four times the lowest rating of its components and pipes. */
import { Power, type Model } from '../../catalogue/kind'
import { circleArea, smoothSquareRoot } from '../../catalogue/flow-laws'
import type { Fluid } from '../../fluid/fluid'
import { portKey, type Netlist } from '../../sheet/netlist'

/** Burst pressure over rated pressure: the usual safety factor of hoses (ISO 1436, ISO 18752) and the least of fittings. */
export const BURST_FACTOR = 4
/** Rating of a line in which nothing says one, Pa. */
const UNRATED = 400e5
/** Hole that a burst opens, as an orifice diameter, m. */
const HOLE = 6e-3

/** Pressure at which each node's line would burst, Pa; Infinity where it is no oil. */
export function burstPressures({ nodes, nodeOf, components }: Netlist): Float64Array {
  const ratings = Float64Array.from(nodes, ({ rating }) => rating)
  for (const { component, kind, values } of components) {
    const parameter = kind.traits?.ratedPressure
    if (!parameter) continue
    for (const port of kind.ports) {
      if (port.domain !== 'oil') continue
      const node = nodeOf.get(portKey(component.id, port.name))!
      ratings[node] = Math.min(ratings[node], values[parameter] as number)
    }
  }
  return ratings.map((rating, i) =>
    nodes[i].domain === 'oil' ? BURST_FACTOR * (rating < Infinity ? rating : UNRATED) : Infinity,
  )
}

/** A line that opens to the surroundings once it has burst, and stays so: Q = C_d·A·√(2/ρ)·√p as a sharp edge, never inwards. */
export function burstingModel(limit: number, fluid: Fluid): Model {
  const area = circleArea(HOLE)
  return {
    states: [
      {
        name: 'spilled',
        label: 'oil spilled',
        quantity: 'volume',
        initial: 0,
        isCounter: true,
        scale: 1e-4,
        storesOil: true,
      },
    ],
    modes: [0],
    eventFunctions: [{ name: 'bursts', label: 'bursts', report: 0 }],
    evaluate(l) {
      const flow = l.mode[0] ? area * fluid.orificeFactor * smoothSquareRoot(l.p[0]) : 0
      l.q[0] = flow > 0 ? flow : 0
      l.dx[0] = l.q[0]
      l.g[0] = l.mode[0] ? 1 : l.p[0] - limit
    },
    switch(l, _index, direction) {
      if (direction > 0) l.mode[0] = 1
    },
    observe(l) {
      l.power[Power.heat] = l.p[0] * l.q[0]
    },
  }
}

/** The input that bursts a line by hand: the hole, as the diameter of an orifice, m; 0 while the line is sound. */
export const BURST_INPUT = {
  name: 'burst',
  label: 'burst, hole',
  quantity: 'length',
  min: 0,
  max: 0.1,
} as const

/** A line that can be burst by hand: Q = C_d·A·√(2/ρ)·√p as a sharp edge, never inwards. It has no state, so that a sound line changes no step. */
export const burstableModel = (fluid: Fluid): Model => ({
  evaluate(l) {
    const flow = l.u[0] > 0 ? circleArea(l.u[0]) * fluid.orificeFactor * smoothSquareRoot(l.p[0]) : 0
    l.q[0] = flow > 0 ? flow : 0
    l.e[0] = l.q[0]
  },
  observe(l) {
    l.power[Power.heat] = l.p[0] * l.q[0]
  },
})
