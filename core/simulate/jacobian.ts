/** The Jacobian of a network, assembled from local differences: one small dense block an element. */
import type { Local, Model } from '../catalogue/kind'
import type { Board } from './board'
import { patternOf, positionIn, type Pattern } from './linear'
import type { Element } from './elements'

const DIFFERENCE = 1e-7
/** Derivatives are kept while nothing moves by more than this share of its scale. */
const QUIET = 1e-5

interface Block {
  readonly evaluate: Model['evaluate']
  readonly local: Local
  /**
   * Its variables on the board: potentials at ports whose nodes have a state, then its own states. The flows and rates found
   * at the same indices are its targets.
   */
  readonly places: Int32Array
  /** States of the nodes of those that are ports. */
  readonly portRows: Int32Array
  readonly floors: Float64Array
  /** Positions in the matrix: [variable · targets + target]. */
  readonly at: Int32Array
  /** Variables, inputs and modes where its derivatives were last taken, and how far each variable may go before they are taken anew. */
  readonly from: Float64Array
  readonly fromInput: Float64Array
  readonly fromMode: Int32Array
  readonly reach: Float64Array
  /** Derivatives of the flows and rates: [variable · targets + target]; and of the volumes at its ports, where these swell. */
  readonly dFlow: Float64Array
  readonly dVolume: Float64Array
  readonly swells: boolean
  /** Flows and rates there, and volumes at its ports. */
  readonly base: Float64Array
  readonly baseVolume: Float64Array
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
    private readonly board: Board,
    nodeState: Int32Array,
    scale: Float64Array,
    private readonly nodeStates: number,
  ) {
    const drafts = elements.flatMap((element, index) => {
      const ports = [...element.nodes.keys()].filter((i) => nodeState[element.nodes[i]] >= 0)
      const start = board.starts[index]
      const places = Int32Array.from([
        ...ports.map((i) => start.ports + i),
        ...element.states.map((_, i) => board.p.length + start.states + i),
      ])
      const portRows = Int32Array.from(ports, (i) => nodeState[element.nodes[i]])
      const rows = [...portRows, ...element.states.map((_, i) => element.firstState + i)]
      return rows.length ? [{ element, places, portRows, rows }] : []
    })
    const n = scale.length
    const pattern = patternOf(
      n,
      drafts.flatMap(({ rows }) => rows.flatMap((i) => rows.map((j) => [i, j] as const))),
    )
    this.pattern = pattern
    this.diagonal = Int32Array.from({ length: n }, (_, i) => positionIn(pattern, i, i))
    this.blocks = drafts.map(({ element, places, portRows, rows }): Block => {
      const { local, model } = element
      const floors = Float64Array.from(rows, (row) => scale[row])
      return {
        evaluate: model.evaluate,
        local,
        places,
        portRows,
        floors,
        at: Int32Array.from(rows.flatMap((column) => rows.map((row) => positionIn(pattern, row, column)))),
        from: new Float64Array(rows.length).fill(Number.NaN),
        fromInput: new Float64Array(local.u.length),
        fromMode: new Int32Array(local.mode.length),
        reach: floors.map((floor) => QUIET * floor),
        dFlow: new Float64Array(rows.length ** 2),
        dVolume: new Float64Array(rows.length * portRows.length),
        swells: model.swells ?? false,
        base: new Float64Array(rows.length),
        baseVolume: new Float64Array(portRows.length),
      }
    })
  }

  /**
   * At the point where the elements were last evaluated: ∂f/∂y of rates f = s·ΣQ at nodes and ẋ of elements. What the
   * elements have found there is no longer on the board afterwards.
   * @param stiffness s of each node's state
   * @param swelling of each node's state: how s falls with the volume, −∂s/∂V/s·ΣQ
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

  private addSwelling(
    { at, dVolume, portRows, from }: Block,
    values: Float64Array,
    swelling: Float64Array,
  ): void {
    for (let variable = 0, k = 0; variable < from.length; variable++)
      for (let i = 0; i < portRows.length; i++, k++)
        values[at[variable * from.length + i]] += dVolume[k] * swelling[portRows[i]]
  }

  /** Whether the derivatives of a block still hold: nothing has moved since by more than does not matter. */
  private quiet({ places, from, fromInput, fromMode, reach, local }: Block): boolean {
    const { given } = this.board
    for (let i = 0; i < places.length; i++) {
      const moved = given[places[i]] - from[i]
      if (!(moved <= reach[i] && -moved <= reach[i])) return false
    }
    const { u, mode } = local
    for (let i = 0; i < fromMode.length; i++) if (mode[i] !== fromMode[i]) return false
    for (let i = 0; i < fromInput.length; i++) if (u[i] !== fromInput[i]) return false
    return true
  }

  private differentiate(block: Block): void {
    const { evaluate, local, places, portRows, floors, from, fromInput, fromMode, dFlow, base } = block
    const { dVolume, baseVolume, swells } = block
    const { given, found, v } = this.board
    const { u, mode } = local
    const count = places.length
    const ports = portRows.length
    for (let i = 0; i < fromMode.length; i++) fromMode[i] = mode[i]
    for (let i = 0; i < fromInput.length; i++) fromInput[i] = u[i]
    for (let i = 0; i < count; i++) {
      from[i] = given[places[i]]
      base[i] = found[places[i]]
    }
    if (swells) for (let i = 0; i < ports; i++) baseVolume[i] = v[places[i]]
    for (let variable = 0, k = 0, m = 0; variable < count; variable++) {
      const place = places[variable]
      const value = from[variable]
      const size = value < 0 ? -value : value
      const step = DIFFERENCE * (size > floors[variable] ? size : floors[variable])
      given[place] = value + step
      evaluate(local)
      given[place] = value
      const inverse = 1 / step
      for (let i = 0; i < count; i++, k++) dFlow[k] = (found[places[i]] - base[i]) * inverse
      if (swells) for (let i = 0; i < ports; i++, m++) dVolume[m] = (v[places[i]] - baseVolume[i]) * inverse
    }
  }
}
