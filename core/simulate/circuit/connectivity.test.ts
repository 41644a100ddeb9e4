import { describe, expect, it } from 'vitest'
import type { Model } from '../../catalogue/kind'
import type { Part } from './elements'
import { connectivityOf, type PortLists } from './connectivity'

const part = (nodes: number[], model: Model, holds: number[] = []): Part => ({
  id: 'part',
  portNames: nodes.map(String),
  nodes: Int32Array.from(nodes),
  imposes: nodes.map((_, port) => holds.includes(port)),
  model,
  inputs: [],
  inputsRead: 0,
})
const evaluate = () => {}
/** The ports at each node of a list. */
const lists = ({ nodes, ports, starts }: PortLists) =>
  Object.fromEntries([...nodes].map((node, k) => [node, [...ports.slice(starts[k], starts[k + 1])]]))

describe('the connectivity of a circuit', () => {
  // node 0 is a tank's, nodes 1 and 2 have the states 0 and 1, node 3 is an idle port's
  const connectivity = connectivityOf(
    [
      part([0], {}, [0]),
      part([0, 1], { evaluate }),
      part([1], {}),
      part([1, 2, 3], { evaluate, hasVariableVolume: true }),
      part([0], {}, [0]),
    ],
    Int32Array.of(1, 2),
    Int32Array.of(-1, 0, 1, -1),
  )

  it('knows the node of every port', () =>
    expect([...connectivity.portNode]).toEqual([0, 0, 1, 1, 1, 2, 3, 0]))
  it('leads each state to all ports at its node, gauges included', () => {
    expect([...connectivity.freePorts]).toEqual([2, 3, 4, 5])
    expect([...connectivity.freeStates]).toEqual([0, 0, 0, 1])
  })
  it('has a node held by the first who would, and the others follow', () => {
    expect([...connectivity.imposingPorts]).toEqual([0])
    expect([...connectivity.imposedNodes]).toEqual([0])
    expect([...connectivity.followingPorts]).toEqual([1, 7])
    expect([...connectivity.followedNodes]).toEqual([0, 0])
    expect([...connectivity.otherImposing]).toEqual([7])
  })
  it('sums what is taken where there is a state, then where a node is held; what evaluates nothing takes nothing', () => {
    expect([...connectivity.flowPorts.nodes]).toEqual([1, 2, 0])
    expect(lists(connectivity.flowPorts)).toEqual({ 1: [2, 4], 2: [5], 0: [1] })
  })
  it('tells what swells from what adds the same at all times', () => {
    expect(lists(connectivity.variableVolume)).toEqual({ 1: [4], 2: [5], 3: [6] })
    expect([...connectivity.constant]).toEqual([1, 2])
  })
})
