/** The Jacobian of a network, assembled from local differences: one small dense block an element. */
import type { Model } from '../catalogue/kind'
import { patternOf, positionIn, type Pattern } from './linear'
import type { Element } from './elements'

const DIFFERENCE = 1e-7
/** Derivatives are kept while nothing moves by more than this share of its scale. */
const QUIET = 1e-5

interface Block {
  readonly element: Element
  readonly evaluate: Model['evaluate']
  /** Ports whose potential is a state. With its own states they are its variables; their flows and its rates, in the same order, the targets. */
  readonly ports: Int32Array
  /** States of those ports' nodes. */
  readonly portRows: Int32Array
  readonly floors: Float64Array
  /** Positions in the matrix: [variable · targets + target]. */
  readonly at: Int32Array
  /** Variables, inputs and modes where its derivatives were last taken, and how far each variable may go before they are taken anew. */
  readonly from: Float64Array
  readonly fromInput: Float64Array
  readonly fromMode: Int32Array
  readonly reach: Float64Array
  /** Derivatives of the flows and rates: [variable · targets + target]; and of the volumes at its ports. */
  readonly dFlow: Float64Array
  readonly dVolume: Float64Array
  /** Whether any of its volumes depends on a variable. */
  swells: boolean
  readonly q0: Float64Array
  readonly v0: Float64Array
  readonly dx0: Float64Array
}

export class LocalDifferences {
  readonly pattern: Pattern
  readonly diagonal: Int32Array
  private readonly blocks: readonly Block[]

  /**
   * @param nodeState state of each node, −1 where it has none; the states of nodes come first
   * @param scale size of each state that matters
   */
  constructor(
    elements: readonly Element[],
    nodeState: Int32Array,
    scale: Float64Array,
    private readonly nodeStates: number,
  ) {
    const drafts = elements.flatMap((element) => {
      const ports = Int32Array.from(element.portNames.keys()).filter((i) => nodeState[element.nodes[i]] >= 0)
      const portRows = ports.map((i) => nodeState[element.nodes[i]])
      const rows = [...portRows, ...element.states.map((_, i) => element.firstState + i)]
      return rows.length ? [{ element, ports, portRows, rows }] : []
    })
    const n = scale.length
    const pattern = patternOf(
      n,
      drafts.flatMap(({ rows }) => rows.flatMap((i) => rows.map((j) => [i, j] as const))),
    )
    this.pattern = pattern
    this.diagonal = Int32Array.from({ length: n }, (_, i) => positionIn(pattern, i, i))
    this.blocks = drafts.map(({ element, ports, portRows, rows }): Block => {
      const { local } = element
      const floors = Float64Array.from(rows, (row) => scale[row])
      return {
        element,
        evaluate: element.model.evaluate,
        ports,
        portRows,
        floors,
        at: Int32Array.from(rows.flatMap((column) => rows.map((row) => positionIn(pattern, row, column)))),
        from: new Float64Array(rows.length).fill(Number.NaN),
        fromInput: new Float64Array(local.u.length),
        fromMode: new Int32Array(local.mode.length),
        reach: floors.map((floor) => QUIET * floor),
        dFlow: new Float64Array(rows.length ** 2),
        dVolume: new Float64Array(rows.length * ports.length),
        swells: false,
        q0: new Float64Array(local.q.length),
        v0: new Float64Array(local.v.length),
        dx0: new Float64Array(local.dx.length),
      }
    })
  }

  /**
   * At the point where the elements were last evaluated: ∂f/∂y of rates f = s·ΣQ at nodes and ẋ of elements.
   * @param stiffness s of each node's state
   * @param swelling of each node's state: ΣQ/V where s falls as 1/V, else 0
   */
  assemble(values: Float64Array, stiffness: Float64Array, swelling: Float64Array): void {
    const { blocks, nodeStates } = this
    const { rowStart } = this.pattern
    values.fill(0)
    for (let b = 0; b < blocks.length; b++) {
      const block = blocks[b]
      if (!this.quiet(block)) this.differentiate(block)
      const { at, dFlow } = block
      for (let k = 0; k < at.length; k++) values[at[k]] += dFlow[k]
      if (block.swells) this.addSwelling(block, values, swelling)
    }
    for (let row = 0; row < nodeStates; row++) {
      const factor = -stiffness[row]
      for (let k = rowStart[row]; k < rowStart[row + 1]; k++) values[k] *= factor
    }
  }

  private addSwelling(block: Block, values: Float64Array, swelling: Float64Array): void {
    const { at, dVolume, portRows, from } = block
    const ports = portRows.length
    for (let variable = 0, k = 0; variable < from.length; variable++)
      for (let i = 0; i < ports; i++, k++)
        values[at[variable * from.length + i]] += dVolume[k] * swelling[portRows[i]]
  }

  /** Whether the derivatives of a block still hold: nothing has moved since by more than does not matter. */
  private quiet(block: Block): boolean {
    const { ports, from, fromInput, fromMode, reach, element } = block
    const { p, x, u, mode } = element.local
    const count = ports.length
    for (let i = 0; i < count; i++) {
      const moved = p[ports[i]] - from[i]
      if (!(moved <= reach[i] && -moved <= reach[i])) return false
    }
    for (let i = 0; i < x.length; i++) {
      const moved = x[i] - from[count + i]
      if (!(moved <= reach[count + i] && -moved <= reach[count + i])) return false
    }
    for (let i = 0; i < fromMode.length; i++) if (mode[i] !== fromMode[i]) return false
    for (let i = 0; i < fromInput.length; i++) if (u[i] !== fromInput[i]) return false
    return true
  }

  private differentiate(block: Block): void {
    const { element, evaluate, ports, floors, from, fromInput, fromMode, dFlow, dVolume, q0, v0, dx0 } = block
    const { local } = element
    const { p, x, u, q, v, dx, mode } = local
    const count = ports.length
    for (let i = 0; i < fromMode.length; i++) fromMode[i] = mode[i]
    for (let i = 0; i < fromInput.length; i++) fromInput[i] = u[i]
    for (let i = 0; i < q.length; i++) {
      q0[i] = q[i]
      v0[i] = v[i]
    }
    for (let i = 0; i < count; i++) from[i] = p[ports[i]]
    for (let i = 0; i < x.length; i++) {
      from[count + i] = x[i]
      dx0[i] = dx[i]
    }
    let swells = false
    for (let variable = 0, k = 0, m = 0; variable < from.length; variable++) {
      const array = variable < count ? p : x
      const index = variable < count ? ports[variable] : variable - count
      const base = from[variable]
      const size = base < 0 ? -base : base
      const step = DIFFERENCE * (size > floors[variable] ? size : floors[variable])
      array[index] = base + step
      evaluate(local)
      array[index] = base
      const inverse = 1 / step
      for (let i = 0; i < count; i++) {
        const port = ports[i]
        const dv = v[port] - v0[port]
        if (dv !== 0) swells = true
        dVolume[m++] = dv * inverse
        dFlow[k++] = (q[port] - q0[port]) * inverse
      }
      for (let i = 0; i < dx.length; i++) dFlow[k++] = (dx[i] - dx0[i]) * inverse
    }
    block.swells = swells
    for (let i = 0; i < q.length; i++) {
      q[i] = q0[i]
      v[i] = v0[i]
    }
    for (let i = 0; i < dx.length; i++) dx[i] = dx0[i]
  }
}
