/** Carries out the change that a finding offers. */
import { kindInRole } from '../catalogue'
import { addComponent, changePipe, connect, swapPorts, remove, setParameter } from './edit'
import type { Fix } from './finding'
import { placedPorts, sideVector } from './geometry'
import type { Sheet } from './schema'

/** How far from its port a plug is set, modules. */
const PLUG_AT = 3

export function applyFix(sheet: Sheet, fix: Fix): Sheet {
  switch (fix.does) {
    case 'swapPorts':
      return swapPorts(sheet, fix.component)
    case 'setParameter':
      return setParameter(sheet, fix.component, fix.parameter, fix.value)
    case 'setPipe':
      return changePipe(sheet, fix.pipe, { [fix.field]: fix.value })
    case 'remove':
      return remove(sheet, fix.ids)
    case 'plug': {
      const component = sheet.components.find((c) => c.id === fix.component)
      const port = component && placedPorts(component).find((p) => p.port === fix.port)
      if (!port) return sheet
      const [dx, dy] = sideVector[port.side]
      const plugKind = kindInRole('plug')
      const plug = addComponent(sheet, plugKind.name, {
        x: port.at[0] + PLUG_AT * dx,
        y: port.at[1] + PLUG_AT * dy,
      })
      const laid = connect(
        plug.sheet,
        { component: fix.component, port: fix.port },
        { component: plug.id, port: plugKind.ports[0].name },
      )
      return 'problem' in laid ? sheet : laid.sheet
    }
  }
}
