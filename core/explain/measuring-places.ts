/** Gauges, test points and other places whose pressure a run reports. */
import { findKind } from '../catalogue'
import { portKey } from '../sheet/netlist'
import type { Sheet } from '../sheet/schema'
import type { RunResult } from '../simulate/result'

/** Components at which a pressure is read: gauges, transducers, switches, test points. */
export function measuringPlaces(
  sheet: Sheet,
  { lineOfPort }: Pick<RunResult, 'lineOfPort'>,
): { readonly component: Sheet['components'][number]; readonly line: number }[] {
  return sheet.components.flatMap((component) => {
    const port = findKind(component.kind)?.traits?.measuringPort
    const line = port === undefined ? undefined : lineOfPort[portKey(component.id, port)]
    return line === undefined ? [] : [{ component, line }]
  })
}
