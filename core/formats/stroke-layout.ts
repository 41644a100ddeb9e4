/** Where the lines and labels of a stroke–step diagram lie, in the units of whoever draws it. */
import type { StrokeRow, StrokeSteps } from '../explain/stroke-steps'

type XY = readonly [x: number, y: number]

export interface StrokeSpace {
  /** Left end and length of the time axis. */
  readonly left: number
  readonly width: number
  /** Upper edge of the first row, height of a row, and from one row to the next. */
  readonly top: number
  readonly row: number
  readonly pitch: number
  /** Width of a letter, and least distance of two step numbers. */
  readonly letter: number
  readonly apart: number
}
export interface StrokeLayout {
  readonly rows: readonly {
    readonly row: StrokeRow
    readonly top: number
    readonly simulated: readonly XY[]
    readonly intended: readonly XY[]
  }[]
  /** Labels are left out where there is no room for them. */
  readonly steps: readonly { readonly x: number; readonly text?: string }[]
  readonly signals: readonly { readonly x: number; readonly text?: string }[]
}

export function strokeLayout(
  { duration, rows, steps, signals }: StrokeSteps,
  { left, width, top, row: height, pitch, letter, apart }: StrokeSpace,
): StrokeLayout {
  const xAt = (t: number) => left + (width * t) / (duration || 1)
  return {
    rows: rows.map((row, i) => {
      const upper = top + i * pitch
      const [least, most] = row.range
      const points = (list: StrokeRow['simulated']) =>
        list.map(([t, place]): XY => [
          xAt(t),
          upper + height - (height * (place - least)) / (most - least || 1),
        ])
      return { row, top: upper, simulated: points(row.simulated), intended: points(row.intended) }
    }),
    steps: spaced(steps.map((t, i) => ({ x: xAt(t), text: String(i + 1), needs: apart }))),
    signals: spaced(signals.map(({ at, name }) => ({ x: xAt(at), text: name, needs: letter * name.length }))),
  }
}

/** Leaves out the labels that would touch the one before. @param labels from left to right, centred */
function spaced(labels: readonly { readonly x: number; readonly text: string; readonly needs: number }[]) {
  let last = { x: -Infinity, needs: 0 }
  return labels.map((label) => {
    const { x, text, needs } = label
    if (x - last.x < (needs + last.needs) / 2) return { x }
    last = label
    return { x, text }
  })
}
