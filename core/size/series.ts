/** Standard series from which sizes are chosen: data with their source. SI. */
import type { Quantity } from '../units/quantities'

export interface Series {
  readonly label: string
  readonly source: string
  readonly quantity: Quantity
  /** Rising, SI. */
  readonly values: readonly number[]
  /** Its values are marks of a scale, not sizes that are made: anything between them can be set. */
  readonly continuous?: true
}

const scaled = (factor: number, list: readonly number[]) =>
  list.map((v) => Number((v * factor).toPrecision(12)))
const millimetres = (label: string, source: string, list: readonly number[]): Series => ({
  label,
  source,
  quantity: 'length',
  values: scaled(1e-3, list),
})
/** Preferred numbers R10 of ISO 3 between two powers of ten. */
const R10 = [1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8]
const r10 = (from: number, decades: number) =>
  Array.from({ length: decades }, (_, i) => scaled(10 ** i * from, R10)).flat()
const steps = (from: number, to: number, by: number) =>
  Array.from({ length: Math.round((to - from) / by) + 1 }, (_, i) => Number((from + i * by).toPrecision(12)))

const HORSEPOWER = 745.69987158227

const builtIn = {
  bores: millimetres(
    'Cylinder bores',
    'ISO 3320',
    [8, 10, 12, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125, 140, 160, 180, 200, 220, 250, 280, 320, 360, 400],
  ),
  rods: millimetres(
    'Piston rods',
    'ISO 3320',
    [
      4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 22, 25, 28, 32, 36, 40, 45, 50, 56, 63, 70, 80, 90, 100, 110, 125,
      140, 160, 180, 200, 220, 250, 280, 320, 360,
    ],
  ),
  strokes: millimetres(
    'Cylinder strokes',
    'ISO 4393, basic series with its supplements',
    [
      25, 50, 80, 100, 125, 160, 200, 250, 320, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000,
      5000,
    ],
  ),
  displacements: {
    label: 'Displacements of pumps and motors',
    source: 'ISO 3662',
    quantity: 'displacement',
    values: [...scaled(1e-6, [1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8]), ...r10(1e-5, 2), 1e-3],
  },
  motorPowers: {
    label: 'Electric motors, kilowatts',
    source: 'IEC 60072-1',
    quantity: 'power',
    values: scaled(
      1e3,
      [
        0.37, 0.55, 0.75, 1.1, 1.5, 2.2, 3, 4, 5.5, 7.5, 11, 15, 18.5, 22, 30, 37, 45, 55, 75, 90, 110, 132,
        160, 200, 250, 315,
      ],
    ),
  },
  horsepowers: {
    label: 'Electric motors, horsepower',
    source: 'usual ratings of integral-horsepower motors',
    quantity: 'power',
    values: scaled(
      HORSEPOWER,
      [
        0.5, 0.75, 1, 1.5, 2, 3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 75, 100, 125, 150, 200, 250, 300,
        400,
      ],
    ),
  },
  settings: {
    label: 'Pressure settings',
    source: 'steps of 5 bar, as a gauge is read',
    quantity: 'pressure',
    values: scaled(1e5, steps(5, 700, 5)),
    continuous: true,
  },
  accumulatorVolumes: {
    label: 'Gas volumes of accumulators',
    source: 'preferred numbers, ISO 3',
    quantity: 'volume',
    values: scaled(
      1e-3,
      [0.16, 0.25, 0.32, 0.5, 0.63, 1, 1.6, 2.5, 4, 5, 6.3, 10, 16, 20, 25, 32, 50, 63, 100, 160, 200],
    ),
  },
  tankVolumes: {
    label: 'Reservoirs',
    source: 'preferred numbers, ISO 3',
    quantity: 'volume',
    values: scaled(
      1e-3,
      [
        6.3, 10, 16, 25, 40, 63, 80, 100, 125, 160, 200, 250, 320, 400, 500, 630, 800, 1000, 1250, 1600, 2000,
        2500, 3150, 4000, 5000, 6300, 8000, 10000,
      ],
    ),
  },
  valveFlows: {
    label: 'Rated flows of valves',
    source: 'preferred numbers, ISO 3',
    quantity: 'flow',
    values: scaled(1 / 60000, [
      ...R10,
      ...scaled(10, R10),
      ...scaled(100, R10),
      ...scaled(1000, [1, 1.25, 1.6, 2]),
    ]),
  },
  pipeBores: millimetres(
    'Inside diameters of steel tubes',
    'outside diameters and walls of ISO 10763',
    [
      2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 13, 14, 15, 16, 17, 18, 19, 20, 22, 24, 25, 27, 28, 30, 31, 32, 34, 36,
      38, 40, 46, 50, 60, 70, 80, 90, 100, 125, 150,
    ],
  ),
  hoseBores: millimetres(
    'Hose sizes',
    'ISO 4397',
    [5, 6.3, 8, 10, 12.5, 16, 19, 25, 31.5, 38, 51, 63, 76, 102],
  ),
  tubeWalls: millimetres(
    'Tube walls',
    'ISO 10763',
    [0.5, 0.8, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12.5, 16, 20],
  ),
  orifices: millimetres('Orifice diameters', 'drill sizes, steps of a tenth of a millimetre', [
    ...steps(0.3, 3, 0.1),
    ...steps(3.2, 6, 0.2),
    ...steps(6.5, 20, 0.5),
  ]),
  filterRatings: millimetres(
    'Filter ratings',
    'usual ratings at β = 200, ISO 16889',
    [0.003, 0.005, 0.006, 0.01, 0.016, 0.02, 0.025],
  ),
  coolers: {
    label: 'Coolers',
    source: 'preferred numbers, ISO 3',
    quantity: 'heatTransfer',
    values: [...r10(10, 2), 1000, 1250, 1600, 2000, 2500, 3150, 4000],
  },
} as const satisfies Record<string, Series>

export type SeriesName = keyof typeof builtIn
export const standardSeries: Readonly<Record<SeriesName, Series>> = builtIn
/** All series that are in force: the standard ones, or those of the workspace in their place. */
export type SeriesSet = Readonly<Record<SeriesName, Series>>

/**
 * The value of a series next to a needed one, or none where the series ends before it.
 * A hair of slack lets through what differs by rounding only.
 */
export function nextInSeries(
  values: readonly number[],
  needed: number,
  rounding: 'up' | 'down' = 'up',
): number | undefined {
  const slack = 1e-9 * Math.abs(needed)
  return rounding === 'up'
    ? values.find((v) => v >= needed - slack)
    : values.filter((v) => v <= needed + slack).at(-1)
}

/** Values of a series around one: one below, itself and one above where there are as many. @returns rising, at most `count` */
export function aroundInSeries(values: readonly number[], chosen: number, count = 3): readonly number[] {
  const at = values.findIndex((v) => v >= chosen * (1 - 1e-9))
  const middle = at < 0 ? values.length - 1 : at
  const first = Math.max(0, Math.min(middle - Math.floor(count / 2), values.length - count))
  return values.slice(first, first + count)
}
