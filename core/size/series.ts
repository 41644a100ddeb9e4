/** Standard series from which sizes are chosen. SI. */

const scaled = (factor: number, list: readonly number[]) => list.map((v) => v * factor)

/** Cylinder bores and rods, ISO 3320, m. */
export const bores = scaled(
  1e-3,
  [8, 10, 12, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125, 140, 160, 180, 200, 220, 250, 280, 320, 360, 400],
)
export const rods = scaled(
  1e-3,
  [
    4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 22, 25, 28, 32, 36, 40, 45, 50, 56, 63, 70, 80, 90, 100, 110, 125,
    140, 160, 180, 200, 220, 250, 280, 320, 360,
  ],
)
/** Geometric displacements of pumps, ISO 3662, m³/rev. */
export const displacements = scaled(
  1e-6,
  [
    1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10, 12.5, 16, 20, 25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200,
    250, 315, 400, 500, 630, 800, 1000,
  ],
)
/** Rated powers of electric motors, IEC 60072, W. */
export const motorPowers = scaled(
  1e3,
  [
    0.37, 0.55, 0.75, 1.1, 1.5, 2.2, 3, 4, 5.5, 7.5, 11, 15, 18.5, 22, 30, 37, 45, 55, 75, 90, 110, 132, 160,
    200,
  ],
)

/** The smallest of a series that is not below a value (a hair of slack for rounding), or none. */
export const nextInSeries = (series: readonly number[], value: number): number | undefined =>
  series.find((v) => v >= value * (1 - 1e-9))
