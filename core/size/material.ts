/** Rod steel: modulus of elasticity and yield strength, Pa (usual values for hard-chromed bar). */
export const YOUNG = 210e9
export const YIELD = 350e6
/** A rod thicker than this share of its bore makes an area ratio above 2. */
export const WIDE_ROD_RATIO = Math.SQRT1_2
