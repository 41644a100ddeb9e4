/**
 * Types of pumps against what is asked of them: usual limits of catalogues of industrial pumps, as a first choice only. A maker's
 * data sheet decides.
 */
import type { Assessment } from './card'

interface PumpType {
  readonly name: string
  /** Highest continuous pressure, Pa; displacements, m³/rev; shaft speeds, rad/s. */
  readonly pressure: number
  readonly displacement: readonly [number, number]
  readonly speed: readonly [number, number]
  readonly variable: boolean
  /** Overall efficiency at its best point. */
  readonly efficiency: number
  /** Coarsest filter fineness that it lives with, m. */
  readonly fineness: number
  /** Highest viscosity at the start, m²/s. */
  readonly viscosity: number
  /** 1 quiet to 3 loud. */
  readonly noise: 1 | 2 | 3
  /** 1 cheap to 5 dear, for the same displacement. */
  readonly price: 1 | 2 | 3 | 4 | 5
  readonly remark: string
}

const RPM = (2 * Math.PI) / 60
const [bar, cc, mm2, micron] = [1e5, 1e-6, 1e-6, 1e-6]
export const pumpTypes: readonly PumpType[] = [
  {
    name: 'External gear pump',
    pressure: 250 * bar,
    displacement: [0.5 * cc, 200 * cc],
    speed: [500 * RPM, 3500 * RPM],
    variable: false,
    efficiency: 0.85,
    fineness: 25 * micron,
    viscosity: 2000 * mm2,
    noise: 3,
    price: 1,
    remark: 'robust and tolerant of dirt',
  },
  {
    name: 'Internal gear pump',
    pressure: 320 * bar,
    displacement: [3 * cc, 250 * cc],
    speed: [400 * RPM, 3000 * RPM],
    variable: false,
    efficiency: 0.89,
    fineness: 20 * micron,
    viscosity: 2000 * mm2,
    noise: 1,
    price: 3,
    remark: 'little pulsation',
  },
  {
    name: 'Vane pump, fixed',
    pressure: 210 * bar,
    displacement: [5 * cc, 250 * cc],
    speed: [600 * RPM, 2700 * RPM],
    variable: false,
    efficiency: 0.86,
    fineness: 20 * micron,
    viscosity: 860 * mm2,
    noise: 1,
    price: 2,
    remark: 'its cartridge is exchanged in place',
  },
  {
    name: 'Vane pump, variable',
    pressure: 160 * bar,
    displacement: [5 * cc, 150 * cc],
    speed: [800 * RPM, 1800 * RPM],
    variable: true,
    efficiency: 0.82,
    fineness: 20 * micron,
    viscosity: 800 * mm2,
    noise: 1,
    price: 3,
    remark: 'for machine tools',
  },
  {
    name: 'Axial piston pump, fixed',
    pressure: 350 * bar,
    displacement: [5 * cc, 1000 * cc],
    speed: [300 * RPM, 4000 * RPM],
    variable: false,
    efficiency: 0.92,
    fineness: 10 * micron,
    viscosity: 1000 * mm2,
    noise: 3,
    price: 4,
    remark: 'efficient, bent axis also as a motor',
  },
  {
    name: 'Axial piston pump, variable',
    pressure: 350 * bar,
    displacement: [10 * cc, 1000 * cc],
    speed: [500 * RPM, 3500 * RPM],
    variable: true,
    efficiency: 0.9,
    fineness: 10 * micron,
    viscosity: 1000 * mm2,
    noise: 3,
    price: 4,
    remark: 'every controller, closed circuits',
  },
  {
    name: 'Radial piston pump',
    pressure: 500 * bar,
    displacement: [0.5 * cc, 100 * cc],
    speed: [200 * RPM, 2000 * RPM],
    variable: false,
    efficiency: 0.91,
    fineness: 10 * micron,
    viscosity: 1000 * mm2,
    noise: 2,
    price: 5,
    remark: 'the highest pressures',
  },
]

export interface PumpDemand {
  readonly pressure: number
  readonly displacement: number
  readonly speed: number
  readonly variable: boolean
  /** Viscosity at the coldest start, m²/s. */
  readonly viscosity: number
  /** Fineness of the filter, m. */
  readonly fineness: number
}
const NOISE = { 1: 'quiet', 2: 'middling', 3: 'loud' } as const

/** Each type with what speaks against it and for it; those that fit first, the cheaper before the dearer. */
export function assessPumps(demand: PumpDemand): Assessment[] {
  return pumpTypes
    .map((type) => {
      const against = [
        ...(demand.pressure > type.pressure ? [`only up to ${Math.round(type.pressure / bar)} bar`] : []),
        ...(demand.displacement < type.displacement[0] * 0.999 ? ['not made so small'] : []),
        ...(demand.displacement > type.displacement[1] * 1.001 ? ['not made so large'] : []),
        ...(demand.speed < type.speed[0] * 0.999 ? ['turns too slowly to suck'] : []),
        ...(demand.speed > type.speed[1] * 1.001 ? ['turns too fast'] : []),
        ...(demand.variable && !type.variable ? ['its flow cannot be set'] : []),
        ...(demand.viscosity > type.viscosity ? ['the oil is too thick at the coldest start'] : []),
        ...(demand.fineness > type.fineness * 1.001
          ? [`needs a filter of ${Math.round(type.fineness / micron)} µm or finer`]
          : []),
      ]
      return {
        name: type.name,
        fits: against.length === 0,
        against,
        for: [
          type.remark,
          NOISE[type.noise],
          `about ${Math.round(type.efficiency * 100)} %`,
          `price class ${type.price} of 5`,
        ],
        rank: type.price + (type.variable && !demand.variable ? 1 : 0),
      }
    })
    .sort((a, b) => Number(b.fits) - Number(a.fits) || a.against.length - b.against.length || a.rank - b.rank)
    .map(({ name, fits, against, for: pro }) => ({ name, fits, against, for: pro }))
}
