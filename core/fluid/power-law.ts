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
 * x^e from a table, since the library's power takes longer than the rest of a line's equations. Cubic pieces through
 * value and slope, C¹: their relative error is below 1e-8 for exponents between −2 and 2.
 */
export class PowerLaw {
  private readonly first: number
  private readonly count: number
  private readonly table: Float64Array

  /** @param lowest @param highest x > 0 between which the table answers; beyond, the library does */
  constructor(
    private readonly exponent: number,
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
      const [y0, y1] = [x ** exponent, (x + width) ** exponent]
      const [s0, s1] = [(exponent * y0) / x, (exponent * y1) / (x + width)]
      const mean = (y1 - y0) / width
      this.table.set(
        [x, y0, s0, (3 * mean - 2 * s0 - s1) / width, (s0 + s1 - 2 * mean) / width ** 2],
        i * FIELDS,
      )
    }
  }

  /** @param x above 0 */
  at(x: number): number {
    const piece = pieceOf(x) - this.first
    if (piece < 0 || piece >= this.count) return x ** this.exponent
    const { table } = this
    const k = piece * FIELDS
    const d = x - table[k]
    return table[k + 1] + d * (table[k + 2] + d * (table[k + 3] + d * table[k + 4]))
  }
}
