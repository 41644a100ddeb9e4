/** The elements of a drawn circuit: its components with their models, and its pipes. */
import type { InputSpec, Local, Model, StateSpec } from '../catalogue/kind'
import { pipeModel } from '../catalogue/lines/pipe'
import type { Fluid } from '../fluid/fluid'
import { portKey, type Netlist } from '../sheet/netlist'
import type { ResolvedComponent } from '../sheet/resolve'
import { withFaults, type Fault } from './faults'
import type { InputSignal } from './inputs'

/** An input of a component that a schedule may drive; or, where it is set, one of its faults. */
export interface Input {
  readonly component: string
  readonly spec: Omit<InputSpec, 'rest'>
  readonly signal: InputSignal
}

/** An element before its states are numbered. */
export interface Part {
  /** Component id, or `pipe:<id>`. */
  readonly id: string
  readonly resolved?: ResolvedComponent
  readonly pipe?: string
  readonly portNames: readonly string[]
  readonly nodes: Int32Array
  /** Whether each port holds its node's potential. */
  readonly imposes: readonly boolean[]
  readonly model: Model
  readonly inputs: readonly Input[]
}
export interface Element extends Part {
  readonly local: Local
  readonly firstState: number
  readonly states: readonly StateSpec[]
}

export function partsOf(netlist: Netlist, fluid: Fluid, inputs: readonly Input[]): Part[] {
  const components = netlist.components.map((resolved): Part => {
    const { component, kind, values } = resolved
    const own = inputs.filter((i) => i.component === component.id)
    const nodeOf = (port: string) => netlist.nodeOf.get(portKey(component.id, port))!
    const commands = (kind.inputs ?? []).map((spec) => own.find((i) => i.spec === spec)!)
    const faults = (kind.faults ?? []).flatMap((fault): Fault[] => {
      const input = own.find((i) => i.spec === fault)
      if (!input) return []
      commands.push(input)
      return [{ spec: fault, input: commands.length - 1 }]
    })
    return {
      id: component.id,
      resolved,
      portNames: kind.ports.map((p) => p.name),
      nodes: Int32Array.from(kind.ports, ({ name }) => nodeOf(name)),
      imposes: kind.ports.map((p) => p.imposes ?? false),
      model: withFaults(kind.model(values, fluid), faults, fluid, values),
      inputs: commands,
    }
  })
  const pipes = netlist.pipes.map((pipe): Part => ({
    id: `pipe:${pipe.pipe.id}`,
    pipe: pipe.pipe.id,
    portNames: ['1', '2'],
    nodes: Int32Array.of(pipe.from, pipe.to),
    imposes: [false, false],
    model: pipeModel(pipe, fluid),
    inputs: [],
  }))
  return [...components, ...pipes]
}

/** Nodes that have no state: a part holds their potential, or nothing is there but an idle port, which stays at 0. */
export function heldNodes(parts: readonly Part[], netlist: Netlist): Set<number> {
  const held = new Set<number>()
  for (const { nodes, imposes, model } of parts)
    nodes.forEach((index, port) => {
      const node = netlist.nodes[index]
      const idle = model.idlePorts?.includes(port) && node.ports.length === 1 && !node.pipes.length
      if (imposes[port] || idle) held.add(index)
    })
  return held
}
