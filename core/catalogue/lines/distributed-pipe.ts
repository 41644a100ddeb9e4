/** A pipe in segments: pressure waves run in it. */
import type { Fluid } from '../../fluid/fluid'
import { CAVITATION_PRESSURE } from '../../fluid/fluid'
import { ATMOSPHERE } from '../../units/quantities'
import { conditionSpecs, indices, outputSpecs, Power, type Local, type Model, type StateSpec } from '../kind'
import { pipeFriction, type PipeValues } from './pipe'

const OUTPUT = indices('flow', 'lowest', 'highest')
const CONDITION = indices('cavitation')

const SEGMENTS = 24
/** Differences between segments, Pa and m³/s, that count as none where slopes are limited. */
const FLAT_PRESSURE = 1e3
const FLAT_SPEED = 1e-3

/** Slope between neighbours that brings no new extremes (G. D. van Albada 1982). */
const limited = (before: number, after: number, flat: number): number => {
  const [a, b, e] = [before * before, after * after, flat * flat]
  return ((a + e) * after + (b + e) * before) / (a + b + 2 * e)
}

/**
 * One-dimensional flow of slightly compressible oil in N segments of length Δx:
 *   ∂p/∂t = −(K/A)·∂Q/∂x        ∂Q/∂t = −(A/ρ)·(∂p/∂x + friction),   1/K = 1/K_e + C_w
 * as finite volumes: between segments pressure and flow follow from the waves that meet there (S. K. Godunov), with limited slopes
 * (B. van Leer), a = √(K/ρ), Z = ρ·a/A:
 *   p* = (p_l + p_r)/2 + Z·(Q_l − Q_r)/2,   Q* = (Q_l + Q_r)/2 + (p_l − p_r)/(2·Z)
 * At its ends p* is the pressure of the line. So a closed end reflects at once: the surge ρ·a·Δv does not depend on N.
 * Friction as in a pipe, at the flow of each segment (quasi-steady).
 * @param wall compliance of its wall for each m³ of oil, C_w, 1/Pa
 */
export function distributedModel(values: PipeValues, wall: number, fluid: Fluid): Model {
  const area = (Math.PI * values.bore * values.bore) / 4
  const n = SEGMENTS
  const step = values.length / n
  const volume = area * step
  const friction = pipeFriction({ length: step, bore: values.bore }, fluid)
  const places = Int32Array.from({ length: n }, (_, i) => i)
  const modulus = new Float64Array(n)
  const impedance = new Float64Array(n)
  const [pressureSlope, flowSlope] = [new Float64Array(n), new Float64Array(n)]
  /** Pressure and flow between the segments, ends included. */
  const [betweenP, betweenQ] = [new Float64Array(n + 1), new Float64Array(n + 1)]
  const flat = area * FLAT_SPEED
  const pressures = new Float64Array(n)

  const exchange = (l: Local) => {
    const { x, p } = l
    for (let i = 0; i < n; i++) pressures[i] = x[i]
    fluid.bulkModuli(pressures, places, modulus)
    for (let i = 0; i < n; i++) {
      const stiffness = 1 / (1 / modulus[i] + wall)
      modulus[i] = stiffness
      impedance[i] = Math.sqrt(stiffness * fluid.density) / area
    }
    for (let i = 0; i < n; i++) {
      const inner = i > 0 && i < n - 1
      pressureSlope[i] = inner ? limited(x[i] - x[i - 1], x[i + 1] - x[i], FLAT_PRESSURE) : 0
      flowSlope[i] = inner ? limited(x[n + i] - x[n + i - 1], x[n + i + 1] - x[n + i], flat) : 0
    }
    betweenP[0] = p[0]
    betweenQ[0] = x[n] + (p[0] - x[0]) / impedance[0]
    for (let i = 1; i < n; i++) {
      const left = x[i - 1] + 0.5 * pressureSlope[i - 1]
      const right = x[i] - 0.5 * pressureSlope[i]
      const flowLeft = x[n + i - 1] + 0.5 * flowSlope[i - 1]
      const flowRight = x[n + i] - 0.5 * flowSlope[i]
      const z = 0.5 * (impedance[i - 1] + impedance[i])
      betweenP[i] = 0.5 * (left + right + z * (flowLeft - flowRight))
      betweenQ[i] = 0.5 * (flowLeft + flowRight + (left - right) / z)
    }
    betweenP[n] = p[1]
    betweenQ[n] = x[2 * n - 1] + (x[n - 1] - p[1]) / impedance[n - 1]
  }

  const states: StateSpec[] = [
    ...Array.from({ length: n }, (_, i) => ({
      name: `pressure${i + 1}`,
      label: `pressure in segment ${i + 1} of ${n}`,
      quantity: 'pressure' as const,
      initial: 0,
      scale: 10e5,
    })),
    ...Array.from({ length: n }, (_, i) => ({
      name: `flow${i + 1}`,
      label: `flow in segment ${i + 1} of ${n}`,
      quantity: 'flow' as const,
      initial: 0,
      scale: area,
    })),
  ]
  return {
    states,
    outputs: outputSpecs(OUTPUT, {
      flow: { label: 'flow', quantity: 'flow' },
      lowest: { label: 'lowest pressure in it', quantity: 'pressure' },
      highest: { label: 'highest pressure in it', quantity: 'pressure' },
    }),
    conditions: conditionSpecs(CONDITION, {
      cavitation: { label: 'cavitation in the pipe: below 0.3 bar absolute', severity: 'warning' },
    }),
    evaluate(l) {
      exchange(l)
      const { x, dx } = l
      for (let i = 0; i < n; i++) {
        dx[i] = (modulus[i] / volume) * (betweenQ[i] - betweenQ[i + 1])
        dx[n + i] =
          (area / (fluid.density * step)) * (betweenP[i] - betweenP[i + 1] - friction.loss(x[n + i]))
      }
      l.q[0] = betweenQ[0]
      l.q[1] = -betweenQ[n]
    },
    storesOil: (l) => {
      let sum = 0
      for (let i = 0; i < n; i++) sum += volume * (fluid.strain(l.x[i]) + wall * l.x[i])
      return sum
    },
    observe(l) {
      exchange(l)
      const { x } = l
      let lowest = Infinity
      let highest = -Infinity
      let lost = 0
      let stored = 0
      let energy = 0
      const inertia = (fluid.density * step) / area
      for (let i = 0; i < n; i++) {
        energy +=
          0.5 * inertia * x[n + i] * x[n + i] + volume * (fluid.strainEnergy(x[i]) + 0.5 * wall * x[i] * x[i])
        if (x[i] < lowest) lowest = x[i]
        if (x[i] > highest) highest = x[i]
        const loss = friction.loss(x[n + i]) * x[n + i]
        lost += loss
        stored += x[i] * (betweenQ[i] - betweenQ[i + 1]) + x[n + i] * (betweenP[i] - betweenP[i + 1]) - loss
      }
      // waves shorter than a segment are lost between the segments
      const shortWaves = betweenP[0] * betweenQ[0] - betweenP[n] * betweenQ[n] - stored - lost
      l.o[OUTPUT.flow] = l.q[0]
      l.o[OUTPUT.lowest] = lowest
      l.o[OUTPUT.highest] = highest
      l.c[CONDITION.cavitation] = CAVITATION_PRESSURE - (lowest + ATMOSPHERE)
      l.power[Power.stored] = stored
      l.energy[0] = energy
      l.power[Power.heat] = lost + shortWaves
    },
  }
}
