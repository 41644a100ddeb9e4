import type { XY } from '@oar-bench/core/sheet/geometry'

/** The nearest whole modules. */
export const toGrid = (at: XY): [number, number] => [Math.round(at[0]), Math.round(at[1])]

/** A step of one module by an arrow key. */
export const arrowSteps: Readonly<Record<string, readonly [number, number] | undefined>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
