/** The Jacobian of a network, assembled from local differences: one small dense block an element. */
import type { Local } from '../../catalogue/kind'
import type { CircuitArrays } from './arrays'
import type { Element } from './elements'
import { patternOf, positionIn, type Pattern } from '../numerics/linear'

const DIFFERENCE = 1e-7
/**
 * Derivatives are kept while nothing moves by more than this share of its scale. At ten times as much the demo takes as many steps, but
 * some random circuits twenty times as many.
 */
const QUIET = 1e-5

/** Derivatives that still hold, and the point where they were taken; plain data. */
export interface DerivativesData {
  readonly from: Float64Array
  readonly fromInput: Float64Array
  readonly fromMode: Int32Array
  readonly slopes: Float64Array
  readonly volumeSlopes: Float64Array
}

/** An element; what is known of it lies in the arrays of `LocalDifferences`, from these places on. */
interface Block {
  readonly element: number
  readonly evaluate: (l: Local) => void
  readonly local: Local
  /** Its first variable, how many there are, and how many of them are ports. */
  readonly first: number
  readonly count: number
  readonly ports: number
  /** Its first derivative: [variable · count + target]. */
  readonly firstSlope: number
  readonly firstInput: number
  readonly inputs: number
  readonly firstMode: number
  readonly modes: number
  readonly hasVariableVolume: boolean
}

export class LocalDifferences {
  readonly pattern: Pattern
  readonly diagonal: Int32Array
  private readonly blocks: Block[]
  private swelling: readonly Block[]
  /**
   * Of each variable its place in the arrays: potentials at ports whose nodes have a state, then states of the element. The
   * flows and rates found at the same places are the targets.
   */
  private readonly places: Int32Array
  /** State of each variable. */
  private readonly rows: Int32Array
  private readonly scales: Float64Array
  /** Variables, inputs and modes where the derivatives were last taken. */
  private readonly from: Float64Array
  private readonly fromInput: Float64Array
  private readonly fromMode: Int32Array
  /** Flows and rates there, and volumes at ports. */
  private readonly base: Float64Array
  private readonly baseVolume: Float64Array
  /** Derivatives of flows and rates, and of volumes where these swell; their positions in the matrix. */
  private readonly slopes: Float64Array
  private readonly volumeSlopes: Float64Array
  private readonly at: Int32Array

  /**
   * @param nodeState state of each node, −1 where it has none; the states of nodes come first
   * @param scale size of each state that matters
   */
  constructor(
    elements: readonly Element[],
    private readonly arrays: CircuitArrays,
    nodeState: Int32Array,
    scale: Float64Array,
    private readonly nodeStates: number,
  ) {
    const places: number[] = []
    const rows: number[] = []
    const pairs: [number, number][] = []
    this.blocks = elements.flatMap((element, index): Block[] => {
      const { model, local, states, nodes, firstState } = element
      const ports = [...nodes.keys()].filter((i) => nodeState[nodes[i]] >= 0)
      const count = ports.length + states.length
      if (!model.evaluate || !count) return []
      const start = arrays.offsets[index]
      const own = [...ports.map((i) => nodeState[nodes[i]]), ...states.map((_, i) => firstState + i)]
      const block: Block = {
        element: index,
        evaluate: model.evaluate,
        local,
        first: places.length,
        count,
        ports: ports.length,
        firstSlope: pairs.length,
        firstInput: start.inputs,
        inputs: element.inputsRead,
        firstMode: start.modes,
        modes: local.mode.length,
        hasVariableVolume: model.hasVariableVolume ?? false,
      }
      places.push(
        ...ports.map((i) => start.ports + i),
        ...states.map((_, i) => arrays.p.length + start.states + i),
      )
      rows.push(...own)
      for (const column of own) for (const row of own) pairs.push([row, column])
      return [block]
    })
    this.swelling = this.blocks.filter((block) => block.hasVariableVolume)
    this.places = Int32Array.from(places)
    this.rows = Int32Array.from(rows)
    this.scales = Float64Array.from(rows, (row) => scale[row])
    const pattern = patternOf(scale.length, pairs)
    this.pattern = pattern
    this.diagonal = Int32Array.from({ length: scale.length }, (_, i) => positionIn(pattern, i, i))
    this.at = Int32Array.from(pairs, ([row, column]) => positionIn(pattern, row, column))
    this.from = new Float64Array(rows.length).fill(Number.NaN)
    this.fromInput = new Float64Array(arrays.u.length)
    this.fromMode = new Int32Array(arrays.mode.length)
    this.base = new Float64Array(rows.length)
    this.baseVolume = new Float64Array(rows.length)
    this.slopes = new Float64Array(pairs.length)
    this.volumeSlopes = new Float64Array(pairs.length)
  }

  /** An element has another model of the same shape: its derivatives are no longer valid. */
  replace(index: number, { model, inputsRead }: Element): void {
    const { blocks, from } = this
    const at = blocks.findIndex((block) => block.element === index)
    if (at < 0 || !model.evaluate) return
    const block = {
      ...blocks[at],
      evaluate: model.evaluate,
      inputs: inputsRead,
      hasVariableVolume: model.hasVariableVolume ?? false,
    }
    blocks[at] = block
    this.swelling = blocks.filter((each) => each.hasVariableVolume)
    from.fill(Number.NaN, block.first, block.first + block.count)
    this.volumeSlopes.fill(0, block.firstSlope, block.firstSlope + block.count * block.count)
  }

  /** Derivatives of some elements are no longer valid. @param elements their indices */
  forget(elements: readonly number[]): void {
    for (const { element, first, count } of this.blocks)
      if (elements.includes(element)) this.from.fill(Number.NaN, first, first + count)
  }

  save(): DerivativesData {
    const { from, fromInput, fromMode, slopes, volumeSlopes } = this
    return {
      from: from.slice(),
      fromInput: fromInput.slice(),
      fromMode: fromMode.slice(),
      slopes: slopes.slice(),
      volumeSlopes: volumeSlopes.slice(),
    }
  }
  load(saved: DerivativesData): void {
    this.from.set(saved.from)
    this.fromInput.set(saved.fromInput)
    this.fromMode.set(saved.fromMode)
    this.slopes.set(saved.slopes)
    this.volumeSlopes.set(saved.volumeSlopes)
  }

  /**
   * At the point where the elements were last evaluated: ∂f/∂y of rates f = s·ΣQ at nodes and ẋ of elements. What the
   * elements have found there is no longer in the arrays afterwards.
   * @param stiffness s of each node's state
   * @param swelling of each node's state: how s falls with the volume, −∂s/∂V/s·ΣQ
   */
  assemble(values: Float64Array, stiffness: Float64Array, swelling: Float64Array): void {
    const { blocks, nodeStates, at, slopes, volumeSlopes, rows } = this
    const { rowStart } = this.pattern
    for (let b = 0; b < blocks.length; b++) if (!this.quiet(blocks[b])) this.differentiate(blocks[b])
    values.fill(0)
    for (let k = 0; k < at.length; k++) values[at[k]] += slopes[k]
    for (const { first, count, ports, firstSlope } of this.swelling)
      for (let variable = 0; variable < count; variable++)
        for (let i = 0, k = firstSlope + variable * count; i < ports; i++, k++)
          values[at[k]] += volumeSlopes[k] * swelling[rows[first + i]]
    for (let row = 0; row < nodeStates; row++) {
      const factor = -stiffness[row]
      for (let k = rowStart[row]; k < rowStart[row + 1]; k++) values[k] *= factor
    }
  }

  /** Whether the derivatives of a block still hold: nothing has moved since by more than does not matter. */
  private quiet({ first, count, firstInput, inputs, firstMode, modes }: Block): boolean {
    const { places, from, scales, fromInput, fromMode } = this
    const { modelInputs, u, mode } = this.arrays
    for (let i = first; i < first + count; i++) {
      const moved = modelInputs[places[i]] - from[i]
      const reach = QUIET * scales[i]
      if (!(moved <= reach && -moved <= reach)) return false
    }
    for (let i = firstMode; i < firstMode + modes; i++) if (mode[i] !== fromMode[i]) return false
    for (let i = firstInput; i < firstInput + inputs; i++) if (u[i] !== fromInput[i]) return false
    return true
  }

  private differentiate(block: Block): void {
    const { evaluate, local, first, count, ports, firstSlope, hasVariableVolume } = block
    const { firstInput, inputs, firstMode, modes } = block
    const { places, from, scales, fromInput, fromMode, base, baseVolume, slopes, volumeSlopes } = this
    const { modelInputs, modelOutputs, v, u, mode } = this.arrays
    const end = first + count
    for (let i = firstMode; i < firstMode + modes; i++) fromMode[i] = mode[i]
    for (let i = firstInput; i < firstInput + inputs; i++) fromInput[i] = u[i]
    for (let i = first; i < end; i++) {
      from[i] = modelInputs[places[i]]
      base[i] = modelOutputs[places[i]]
    }
    if (hasVariableVolume) for (let i = first; i < first + ports; i++) baseVolume[i] = v[places[i]]
    for (let variable = first, k = firstSlope; variable < end; variable++) {
      const place = places[variable]
      const value = from[variable]
      const size = value < 0 ? -value : value
      const scale = scales[variable]
      const step = DIFFERENCE * (size > scale ? size : scale)
      modelInputs[place] = value + step
      evaluate(local)
      modelInputs[place] = value
      const inverse = 1 / step
      if (hasVariableVolume)
        for (let i = 0; i < ports; i++)
          volumeSlopes[k + i] = (v[places[first + i]] - baseVolume[first + i]) * inverse
      for (let i = first; i < end; i++, k++) slopes[k] = (modelOutputs[places[i]] - base[i]) * inverse
    }
  }
}
