/** Tubes and hoses that carry a pressure at a bore: data of the standards, with what speaks for and against each. */
import type { Assessment } from './card'
import { showQuantity } from '../units/text'

/** Maximum working pressures, bar, by inside diameter, mm (ISO 1436 types 1SN and 2SN, ISO 3862 types 4SP and 4SH). */
const HOSES: readonly { readonly name: string; readonly pressures: Readonly<Record<string, number>> }[] = [
  {
    name: 'Hose, one wire braid (ISO 1436 1SN)',
    pressures: { 6.3: 225, 8: 215, 10: 180, 12.5: 160, 16: 130, 19: 105, 25: 88, 31.5: 63, 38: 50, 51: 40 },
  },
  {
    name: 'Hose, two wire braids (ISO 1436 2SN)',
    pressures: { 6.3: 400, 8: 350, 10: 330, 12.5: 275, 16: 250, 19: 215, 25: 165, 31.5: 125, 38: 90, 51: 80 },
  },
  {
    name: 'Hose, four wire spirals (ISO 3862 4SP)',
    pressures: { 6.3: 450, 10: 445, 12.5: 415, 16: 350, 19: 350, 25: 280, 31.5: 210, 38: 185, 51: 165 },
  },
  {
    name: 'Hose, four heavy wire spirals (ISO 3862 4SH)',
    pressures: { 19: 420, 25: 380, 31.5: 325, 38: 290, 51: 250 },
  },
]
/** Outside diameters and walls of usual precision steel tubes, mm (ISO 10763). */
const TUBES: readonly (readonly [outside: number, walls: readonly number[]])[] = [
  [6, [1, 1.5]],
  [8, [1, 1.5, 2]],
  [10, [1, 1.5, 2]],
  [12, [1, 1.5, 2]],
  [15, [1.5, 2]],
  [16, [1.5, 2, 3]],
  [18, [1.5, 2]],
  [20, [2, 2.5, 3]],
  [22, [1.5, 2]],
  [25, [2.5, 3, 4]],
  [28, [2, 3]],
  [30, [3, 4]],
  [35, [2, 3]],
  [38, [3, 4, 5]],
  [42, [2, 3]],
  [50, [4, 5, 6]],
]

/**
 * Tubes and hoses of at least a bore, by whether they carry a pressure.
 * @param pressure Pa @param bore m @param strength tensile strength of the tube, Pa @param safety against bursting
 */
export function assessLines(pressure: number, bore: number, strength: number, safety: number): Assessment[] {
  const bar = (p: number) => showQuantity(p, 'pressure', 'metric')
  const verdict = (name: string, rating: number, inside: number, forIt: string): Assessment => ({
    name,
    fits: rating >= pressure,
    against: rating >= pressure ? [] : [`Carries ${bar(rating)}, not ${bar(pressure)}.`],
    for: [`${bar(rating)} at ${showQuantity(inside, 'length', 'metric')} inside.`, forIt],
  })
  const hoses = HOSES.flatMap(({ name, pressures }) => {
    const sizes = Object.entries(pressures)
      .map(([size, p]) => [Number(size) * 1e-3, p * 1e5] as const)
      .sort((a, b) => a[0] - b[0])
    const found = sizes.find(([size]) => size >= bore * (1 - 1e-9))
    return found ? [verdict(name, found[1], found[0], 'Follows a moving part.')] : []
  })
  const fitting = TUBES.flatMap(([outside, walls]) =>
    walls.map((wall) => ({ outside, wall, inside: (outside - 2 * wall) * 1e-3 })),
  ).filter(({ inside }) => inside >= bore * (1 - 1e-9))
  // of each wall the narrowest tube that is wide enough; the first that carries the pressure counts most
  const tubes = fitting
    .map((t) => ({ ...t, rating: (2 * strength * t.wall) / (safety * t.outside) }))
    .sort((a, b) => a.outside - b.outside || a.wall - b.wall)
  const carrying = tubes.find(({ rating }) => rating >= pressure)
  const shown = [...new Set([tubes[0], carrying].filter((t) => t !== undefined))]
  return [
    ...shown.map(({ outside, wall, rating, inside }) =>
      verdict(`Steel tube ${outside} × ${wall} (ISO 10763)`, rating, inside, 'Stiff, and ages slowly.'),
    ),
    ...hoses,
  ]
}
