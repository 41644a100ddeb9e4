/** Pieces to an octave, as a power of two; x is found among them by the leading bits of its number format. */
const BITS = 6
const PIECES = 1 << BITS
/** Bits of the mantissa in the upper word of a double that say nothing of the piece. */
const REST = 20 - BITS
const FIELDS = 5

/** One double seen as two words. */
const double = new Float64Array(1)
const words = new Int32Array(double.buffer)
const UPPER = new Uint8Array(Uint32Array.of(1).buffer)[0] === 1 ? 1 : 0
const pieceOf = (x: number) => {
  double[0] = x
  return words[UPPER] >> REST
}

/**
 * A smooth function of x > 0 from a table, where the function itself takes longer than the rest of a line's equations.
 * Cubic pieces through value and slope, C¹: for what follows powers between −2 and 2 their relative error is below 1e-8.
 */
export class Tabulated {
  private readonly first: number
  private readonly count: number
  private readonly table: Float64Array

  /** @param lowest @param highest x > 0 between which the table answers; beyond, the function does */
  constructor(
    private readonly value: (x: number) => number,
    private readonly slope: (x: number) => number,
    lowest: number,
    highest: number,
  ) {
    const start = 2 ** Math.floor(Math.log2(lowest))
    const octaves = Math.ceil(Math.log2(highest / start))
    this.first = pieceOf(start)
    this.count = octaves * PIECES
    this.table = new Float64Array(this.count * FIELDS)
    for (let i = 0; i < this.count; i++) {
      const octave = start * 2 ** Math.floor(i / PIECES)
      const width = octave / PIECES
      const x = octave + (i % PIECES) * width
      const [y0, y1] = [value(x), value(x + width)]
      const [s0, s1] = [slope(x), slope(x + width)]
      const mean = (y1 - y0) / width
      this.table.set(
        [x, y0, s0, (3 * mean - 2 * s0 - s1) / width, (s0 + s1 - 2 * mean) / width ** 2],
        i * FIELDS,
      )
    }
  }

  /**
   * The function, and where asked its slope, at each of some places of an array; one call for many, since a number that
   * leaves a function is put on the heap.
   * @param shift is added to the numbers of x; below `least` they count as that, and the slope is 0
   */
  read(
    x: Float64Array,
    places: Int32Array,
    { shift, least }: { readonly shift: number; readonly least: number },
    values: Float64Array,
    slopes?: Float64Array,
  ): void {
    const { table, first, count } = this
    for (let m = 0; m < places.length; m++) {
      const i = places[m]
      const asked = x[i] + shift
      const at = asked > least ? asked : least
      const piece = pieceOf(at) - first
      if (piece < 0 || piece >= count) {
        values[i] = this.value(at)
        if (slopes) slopes[i] = asked > least ? this.slope(at) : 0
        continue
      }
      const k = piece * FIELDS
      const d = at - table[k]
      values[i] = table[k + 1] + d * (table[k + 2] + d * (table[k + 3] + d * table[k + 4]))
      if (slopes) slopes[i] = asked > least ? table[k + 2] + d * (2 * table[k + 3] + 3 * d * table[k + 4]) : 0
    }
  }
}
