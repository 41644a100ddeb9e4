/** Ports that lie elsewhere than in older versions of the file, since their symbols were redrawn; pipes follow them. */
import { endAt, placedPorts, polyline, stretchRoute, transformPoint, type XY } from './geometry'
import { route } from './route'
import type { PipeEnd, Sheet, SheetComponent } from './schema'

/** Where ports lay in version 5, from where they lie now, modules, on the unturned symbol. */
const offsets: Readonly<Record<string, Readonly<Record<string, XY>>>> = {
  filter: { A: [1, 0], B: [-1, 0] },
  cooler: { A: [1, 0], B: [-1, 0] },
  'flow-divider-gear': { P: [0, -1], A: [1, 0], B: [-1, 0] },
  'two-stage-pump': { S: [0, -2], P: [0, 4] },
}
/** The same for symbols drawn in detail. */
const offsetsInDetail: typeof offsets = {
  'load-sensing-pump': { X: [-5, 0] },
  'relief-valve-pilot-operated': { P: [0, 1], T: [0, -1] },
  'relief-valve-vented': { P: [0, 1], T: [0, -1] },
  'relief-valve-two-stage': { P: [0, 1], T: [0, -1] },
}

const offsetOf = (component: SheetComponent, port: string): XY | undefined =>
  (component.form === 'detailed' ? offsetsInDetail[component.kind]?.[port] : undefined) ??
  offsets[component.kind]?.[port]

/** Leads the pipes of a sheet of version 5 to the ports where they lie now: stretched where that can be, or rerouted. */
export function followMovedPorts(sheet: Sheet): Sheet {
  const components = new Map(sheet.components.map((c) => [c.id, c]))
  /** Where the end was in the older version; none where it has not moved. */
  const formerPlace = (end: PipeEnd): XY | undefined => {
    const component = 'component' in end ? components.get(end.component) : undefined
    const offset = component && 'port' in end ? offsetOf(component, end.port) : undefined
    if (!component || !offset || !('port' in end)) return undefined
    const now = placedPorts(component).find(({ port }) => port === end.port)
    if (!now) return undefined
    const [dx, dy] = transformPoint(offset, { ...component, x: 0, y: 0 })
    return [now.at[0] + dx, now.at[1] + dy]
  }
  let result = sheet
  for (const pipe of sheet.pipes) {
    const [from, to] = [formerPlace(pipe.from), formerPlace(pipe.to)]
    if (!from && !to) continue
    const points = polyline(sheet, pipe)
    const former = [from ?? points[0], ...points.slice(1, -1), to ?? points[points.length - 1]]
    const [start, goal] = [endAt(sheet, pipe.from), endAt(sheet, pipe.to)]
    if (!start || !goal) continue
    const corners = stretchRoute(former, start, goal) ?? route(result, pipe.from, pipe.to)
    result = {
      ...result,
      pipes: result.pipes.map((p) =>
        p.id === pipe.id ? { ...p, route: corners.map(([x, y]): [number, number] => [x, y]) } : p,
      ),
    }
  }
  return result
}
