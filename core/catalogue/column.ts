/** A rod that is pressed, as a column. */
/** Rod steel: modulus of elasticity and yield strength, Pa (usual values for hard-chromed bar). */
export const YOUNG = 210e9
export const YIELD = 350e6

/** Whether a round rod fails by Euler: L/i at least π·√(2E/R), with the radius of gyration i = d/4. */
export const isSlender = (diameter: number, length: number) =>
  (4 * length) / diameter >= Math.PI * Math.sqrt((2 * YOUNG) / YIELD)

/**
 * The force at which a round rod buckles, N: Euler's π³·E·d⁴/(64·L²) where it is slender, Johnson's parabola where it is stocky
 * (J. Shigley, Mechanical Engineering Design, chapter "Columns").
 * @param diameter m @param length that can buckle, m
 */
export function bucklingLoad(diameter: number, length: number): number {
  if (isSlender(diameter, length)) return (Math.PI ** 3 * YOUNG * diameter ** 4) / (64 * length ** 2)
  const area = (Math.PI * diameter ** 2) / 4
  return area * (YIELD - ((YIELD * 4 * length) / (diameter * 2 * Math.PI)) ** 2 / YOUNG)
}
