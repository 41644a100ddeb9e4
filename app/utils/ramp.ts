/**
 * The pressure ramp: from pale straw through river green to deep indigo. Lightness falls
 * (on dark paper: rises) steadily, so it reads in grey and without colour vision.
 */
type Colour = readonly [number, number, number]
const onLight: readonly Colour[] = [
  [236, 224, 186],
  [176, 203, 152],
  [86, 164, 146],
  [40, 115, 142],
  [45, 66, 118],
  [46, 22, 74],
]
const onDark: readonly Colour[] = [
  [62, 58, 92],
  [58, 88, 138],
  [48, 128, 150],
  [84, 172, 146],
  [172, 206, 138],
  [246, 232, 184],
]
export const RAMP_STEPS = 48

const between = (list: readonly Colour[], share: number) => {
  const at = Math.min(Math.max(share, 0), 1) * (list.length - 1)
  const i = Math.min(Math.floor(at), list.length - 2)
  const mix = (k: 0 | 1 | 2) => Math.round(list[i][k] + (at - i) * (list[i + 1][k] - list[i][k]))
  return `rgb(${mix(0)} ${mix(1)} ${mix(2)})`
}
const table = (list: readonly Colour[]) =>
  Array.from({ length: RAMP_STEPS + 1 }, (_, i) => between(list, i / RAMP_STEPS))
const tables = { light: table(onLight), dark: table(onDark) }

export const rampColours = (dark: boolean): readonly string[] => (dark ? tables.dark : tables.light)
/** The step of the ramp for a pressure; below zero gauge is step 0. */
export const rampStep = (pressure: number, full: number) =>
  Math.min(RAMP_STEPS, Math.max(0, Math.round((pressure / full) * RAMP_STEPS)))

/** A round number not below a value: one of the multiples times a power of ten. */
export function roundUp(value: number, multiples: readonly number[] = [1, 2, 2.5, 5, 10]): number {
  if (!(value > 0)) return 1
  const size = 10 ** Math.floor(Math.log10(value))
  return size * multiples.find((m) => m * size >= value * (1 - 1e-9))!
}
