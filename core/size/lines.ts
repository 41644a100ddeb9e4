/** Lines of a sheet by what they serve, and the sheet with bores that were worked out for them. */
import { findKind } from '../catalogue'
import { changePipe } from '../sheet/edit'
import { buildNetlist, type NetNode } from '../sheet/netlist'
import { readParameter } from '../sheet/resolve'
import type { Pipe, Sheet } from '../sheet/schema'
import { quantity } from '../catalogue/kind'
import { textOf } from './text'

export type LineService = 'suction' | 'pressure' | 'return' | 'drain'
export const lineServices: Readonly<Record<LineService, string>> = {
  suction: 'suction lines',
  pressure: 'pressure and working lines',
  return: 'return lines',
  drain: 'case and drain lines',
}

const kindOf = (sheet: Sheet, component: string) =>
  findKind(sheet.components.find((c) => c.id === component)?.kind ?? '')

type PortTrait = 'suctionPorts' | 'tankPorts' | 'drainPorts'
const hasPort = (sheet: Sheet, { ports }: NetNode, trait: PortTrait): boolean =>
  ports.some(({ component, port }) => {
    const kind = kindOf(sheet, component)
    return kind?.traits?.[trait]?.includes(port) ?? false
  })

/** The service of a line by what it joins: a pump that draws, a port that is drained, a tank; any other is a pressure line. */
function serviceOf(sheet: Sheet, node: NetNode): LineService | undefined {
  if (hasPort(sheet, node, 'suctionPorts')) return isDriven(sheet, node) ? 'suction' : undefined
  if (hasPort(sheet, node, 'drainPorts')) return 'drain'
  return hasPort(sheet, node, 'tankPorts') ? 'return' : 'pressure'
}

/** What draws here is driven by a shaft; a hand pump is not sized by the flow of the machine. */
const isDriven = (sheet: Sheet, { ports }: NetNode): boolean =>
  ports.some(({ component, port }) => {
    const kind = kindOf(sheet, component)
    return kind?.traits?.suctionPorts?.includes(port) && kind.ports.some((p) => p.domain === 'shaft')
  })
/** No oil flows to an instrument. */
const endsAtInstrument = (sheet: Sheet, { from, to }: Pipe): boolean =>
  [from, to].some((end) => 'component' in end && kindOf(sheet, end.component)?.family === 'instruments')

/** The oil pipes of a sheet that serve for something; pilot lines and those of instruments are not sized by flow. */
export function pipesFor(sheet: Sheet, service: LineService): Pipe[] {
  const { netlist } = buildNetlist(sheet)
  const of = netlist.nodes.map((node) => (node.domain === 'oil' ? serviceOf(sheet, node) : undefined))
  return sheet.pipes.filter((pipe) => {
    if (!['working', 'drain', 'hose'].includes(pipe.lineType) || endsAtInstrument(sheet, pipe)) return false
    const node = netlist.nodeOfPipe.get(pipe.id)
    const own = node === undefined ? undefined : of[node]
    // what is drawn as a drain carries no more than leakage, whatever it joins
    return (pipe.lineType === 'drain' && own === 'return' ? 'drain' : own) === service
  })
}

const boreParameter = quantity('Bore', 'length', '12 mm', 1e-4, 10)
/** Bore of a pipe, m; nothing where it does not read. */
export const boreOf = (pipe: Pipe): number | undefined => {
  const read = readParameter(boreParameter, pipe.bore)
  return 'value' in read ? (read.value as number) : undefined
}
/** Whether the bores of all these pipes are at least a needed one. @param needed m */
export const wideEnough = (pipes: readonly Pipe[], needed: number): boolean =>
  pipes.every((pipe) => (boreOf(pipe) ?? 0) >= needed * (1 - 1e-9))

/** The sheet with a bore in all pipes of a service. @param bore m */
export const applyBore = (sheet: Sheet, service: LineService, bore: number): Sheet =>
  pipesFor(sheet, service).reduce(
    (changed, pipe) => changePipe(changed, pipe.id, { bore: textOf(bore, 'length') }),
    sheet,
  )
