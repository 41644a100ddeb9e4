/** The port that the keyboard is at while pipes are drawn. */
import { placedPorts, type XY } from '@oar-bench/core/sheet/geometry'
import type { Sheet } from '@oar-bench/core/sheet/schema'

export interface PortAt {
  readonly component: string
  readonly port: string
  readonly at: XY
}

export const allPorts = (sheet: Sheet): PortAt[] =>
  sheet.components.flatMap((component) =>
    placedPorts(component).map(({ port, at }) => ({ component: component.id, port, at })),
  )

/** Where the keyboard begins: at the selected component, else at the port nearest to a place. */
export function firstPort(sheet: Sheet, selected: string | undefined, near: XY): PortAt | undefined {
  const ports = allPorts(sheet)
  const distance = ({ at }: PortAt) => Math.hypot(at[0] - near[0], at[1] - near[1])
  return (
    ports.find((p) => p.component === selected) ?? [...ports].sort((a, b) => distance(a) - distance(b))[0]
  )
}

/** The nearest port that lies rather in a direction than beside it; none where there is none. */
export function portInDirection(
  sheet: Sheet,
  from: PortAt,
  [dx, dy]: readonly [number, number],
): PortAt | undefined {
  let best: { readonly distance: number; readonly port: PortAt } | undefined
  for (const port of allPorts(sheet)) {
    const [x, y] = [port.at[0] - from.at[0], port.at[1] - from.at[1]]
    const ahead = x * dx + y * dy
    const aside = Math.abs(x * dy) + Math.abs(y * dx)
    if (ahead <= 0 || aside > 2 * ahead) continue
    const distance = ahead + 2 * aside
    if (!best || distance < best.distance) best = { distance, port }
  }
  return best?.port
}
