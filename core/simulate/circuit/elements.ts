/** The elements of a circuit: its components with their models, and its pipes with friction. */
import type { Local, Model, StateSpec } from '../../catalogue/kind'
import type { Fluid } from '../../fluid/fluid'
import { portKey, type Netlist } from '../../sheet/netlist'
import type { ResolvedComponent } from '../../sheet/resolve'
import { BURST_INPUT, burstableModel, burstingModel, burstPressures } from './bursting'
import type { CircuitDefinition } from './definition'
import { withFaults } from './faults'
import { SignalWatch } from './signal-watch'
import type { Input } from './input-bank'
import { InputSignal } from './input-signal'

/** An element before its states are numbered. */
export interface Part {
  /** Component id, or `pipe:<id>`. */
  readonly id: string
  readonly resolved?: ResolvedComponent
  readonly pipe?: string
  readonly portNames: readonly string[]
  readonly nodes: Int32Array
  /** Whether each port imposes its node's potential. */
  readonly imposes: readonly boolean[]
  readonly model: Model
  /** Commands, then faults. */
  readonly inputs: readonly Input[]
  /** Inputs that its model reads: without its faults while it is sound. */
  readonly inputsRead: number
  /** Of the engine: its modes are not recorded. */
  readonly internal?: true
}
export interface Element extends Part {
  readonly local: Local
  readonly firstState: number
  readonly firstInput: number
  readonly states: readonly StateSpec[]
}

/** The model of a component with its present values, sound or with its faults around it. */
export function modelOf(
  { kind, values }: ResolvedComponent,
  fluid: Fluid,
  inputs: readonly Input[],
  faulty: boolean,
): Pick<Part, 'model' | 'inputsRead'> {
  const model = kind.model(values, fluid)
  const commands = kind.inputs?.length ?? 0
  if (!faulty) return { model, inputsRead: commands }
  const faults = (kind.faults ?? []).map((spec, i) => ({ spec, input: commands + i }))
  return { model: withFaults(model, faults, fluid, values), inputsRead: inputs.length }
}

export function partsOf(
  { netlist, inputs, onBurst, burstable, control }: CircuitDefinition,
  fluid: Fluid,
  watch?: SignalWatch,
): Part[] {
  const byComponent = new Map<string, Input[]>()
  for (const input of inputs)
    byComponent.set(input.component, [...(byComponent.get(input.component) ?? []), input])
  const components = netlist.components.map((resolved): Part => {
    const { component, kind } = resolved
    const own = byComponent.get(component.id) ?? []
    return {
      id: component.id,
      resolved,
      portNames: kind.ports.map((p) => p.name),
      nodes: Int32Array.from(kind.ports, ({ name }) => netlist.nodeOf.get(portKey(component.id, name))!),
      imposes: kind.ports.map((p) => p.imposes ?? false),
      ...modelOf(
        resolved,
        fluid,
        own,
        own.some(({ fault, signal }) => fault && signal.times.length > 0),
      ),
      inputs: own,
    }
  })
  const pipes = netlist.pipes.map((pipe): Part => ({
    id: `pipe:${pipe.pipe.id}`,
    pipe: pipe.pipe.id,
    portNames: ['1', '2'],
    nodes: Int32Array.of(pipe.from, pipe.to),
    imposes: [false, false],
    model: pipe.model(fluid),
    inputs: [],
    inputsRead: 0,
  }))
  const holes = burstable ? holesOf(netlist, fluid) : []
  const devices = (control?.devices ?? []).map(({ id, outputs, conditions }): Part => {
    const own = byComponent.get(id) ?? []
    const commands = own.filter(({ fault }) => !fault).length
    const scheduledFault = own.some(({ fault, signal }) => fault && signal.times.length > 0)
    return {
      ...NO_PORTS,
      id,
      model: { outputs, conditions },
      inputs: own,
      inputsRead: scheduledFault ? own.length : commands,
    }
  })
  if (watch) devices.push({ ...NO_PORTS, id: WATCH, model: watch.model, inputs: [], inputsRead: 0 })
  if (onBurst !== 'open') return [...components, ...pipes, ...holes, ...devices]
  const bursts = [...burstPressures(netlist).entries()].flatMap(([node, limit]): Part[] =>
    limit < Infinity
      ? [
          {
            id: `burst:${netlist.nodes[node].name}`,
            portNames: ['P'],
            nodes: Int32Array.of(node),
            imposes: [false],
            model: burstingModel(limit, fluid),
            inputs: [],
            inputsRead: 0,
          },
        ]
      : [],
  )
  return [...components, ...pipes, ...bursts, ...holes, ...devices]
}

export const NO_PORTS = { portNames: [], nodes: new Int32Array(0), imposes: [] } as const
/** Id of the element whose event functions are those of the watched signals. */
export const WATCH = 'watch:signals'

/** One for each line of oil that has a pipe; its input belongs to the first of its pipes. */
const holesOf = ({ nodes }: Netlist, fluid: Fluid): Part[] =>
  [...nodes.entries()].flatMap(([node, { domain, name, pipes }]): Part[] =>
    domain === 'oil' && pipes.length
      ? [
          {
            id: `hole:${name}`,
            pipe: pipes[0],
            portNames: [],
            nodes: Int32Array.of(node),
            imposes: [false],
            model: burstableModel(fluid),
            inputs: [
              {
                component: pipes[0],
                spec: BURST_INPUT,
                signal: new InputSignal([], [], []),
                rest: 0,
                fault: false,
              },
            ],
            inputsRead: 0,
          },
        ]
      : [],
  )

/** Nodes without a state: an element imposes their potential, or only an idle port is there and they stay at 0. */
export function imposedNodes(parts: readonly Part[], netlist: Netlist): Set<number> {
  const imposed = new Set<number>()
  for (const { nodes, imposes, model } of parts)
    nodes.forEach((index, port) => {
      const node = netlist.nodes[index]
      const idle = model.idlePorts?.includes(port) && node.ports.length === 1 && !node.pipes.length
      if (imposes[port] || idle) imposed.add(index)
    })
  return imposed
}
