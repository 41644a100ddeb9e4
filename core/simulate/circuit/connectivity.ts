/** Which ports are connected to which nodes, as flat lists: gathering and summing are plain loops over them. */
import type { Part } from './elements'

/** Lists of ports one behind another, one list a node: that of `nodes[k]` lies between starts k and k + 1. */
export class PortLists {
  readonly nodes: Int32Array
  readonly ports: Int32Array
  readonly starts: Int32Array

  constructor(lists: readonly { readonly node: number; readonly ports: readonly number[] }[]) {
    this.nodes = Int32Array.from(lists, (list) => list.node)
    this.ports = Int32Array.from(lists.flatMap((list) => list.ports))
    this.starts = new Int32Array(lists.length + 1)
    lists.forEach((list, k) => (this.starts[k + 1] = this.starts[k] + list.ports.length))
  }
}

export interface Connectivity {
  /** Node of every port. */
  readonly portNode: Int32Array
  /** Ports at nodes with a state, and these states. */
  readonly freePorts: Int32Array
  readonly freeStates: Int32Array
  /** Ports that hold a node, of several the first, and their nodes; the others of several. */
  readonly imposingPorts: Int32Array
  readonly imposedNodes: Int32Array
  readonly otherImposing: Int32Array
  /** Ports that follow what is held, and where. */
  readonly followingPorts: Int32Array
  readonly followedNodes: Int32Array
  /** Ports that take from the nodes with a state, in their order, and from those that are held. */
  readonly flowPorts: PortLists
  /** Ports of what hasVariableVolume. */
  readonly variableVolume: PortLists
  /** Ports at which an element adds the same capacity at all times. */
  readonly constant: Int32Array
}

/** @param nodeState state of each node, −1 where it has none */
export function connectivityOf(
  parts: readonly Part[],
  stateNodes: Int32Array,
  nodeState: Int32Array,
): Connectivity {
  const ports = parts.flatMap(({ nodes, imposes, model }) =>
    Array.from(nodes, (node, i) => ({
      node,
      imposes: imposes[i],
      takes: !imposes[i] && model.evaluate !== undefined,
      hasVariableVolume: model.hasVariableVolume ?? false,
    })),
  )
  const those = (which: (port: (typeof ports)[number], index: number) => boolean) =>
    Int32Array.from(ports.keys()).filter((index) => which(ports[index], index))
  const nodesOf = (list: Int32Array) => list.map((port) => ports[port].node)
  const atNodes = (nodes: Iterable<number>, which: (port: (typeof ports)[number]) => boolean) => {
    const lists = new Map(Array.from(nodes, (node) => [node, [] as number[]]))
    ports.forEach((port, index) => {
      if (which(port)) lists.get(port.node)?.push(index)
    })
    return new PortLists([...lists].map(([node, list]) => ({ node, ports: list })))
  }
  const firstImposing = new Map<number, number>()
  ports.forEach(({ imposes, node }, index) => {
    if (imposes && !firstImposing.has(node)) firstImposing.set(node, index)
  })
  const imposingPorts = those((port, index) => firstImposing.get(port.node) === index)
  const followingPorts = those(
    (port, index) => firstImposing.has(port.node) && firstImposing.get(port.node) !== index,
  )
  const freePorts = those((port) => nodeState[port.node] >= 0)
  return {
    portNode: nodesOf(those(() => true)),
    freePorts,
    freeStates: freePorts.map((port) => nodeState[ports[port].node]),
    imposingPorts,
    imposedNodes: nodesOf(imposingPorts),
    otherImposing: followingPorts.filter((port) => ports[port].imposes),
    followingPorts,
    followedNodes: nodesOf(followingPorts),
    flowPorts: atNodes([...stateNodes, ...nodesOf(imposingPorts)], (port) => port.takes),
    variableVolume: atNodes(
      nodesOf(those((port) => port.takes && port.hasVariableVolume)),
      (port) => port.takes && port.hasVariableVolume,
    ),
    constant: those((port) => port.takes && !port.hasVariableVolume),
  }
}
