import { nameOf } from '../../sheet/schema'
import { offeredContacts } from '../terminals'
import { contactUses, ownerOf, type ControlRule } from './rule'

export const deviceWithoutUse: ControlRule = {
  id: 'device-without-use',
  reason:
    'A button that does nothing, or a switch that nobody asks, is a mistake in the drawing or in the machine.',
  check({ sheet }) {
    const used = new Set(contactUses(sheet).map(({ ref }) => ownerOf(ref)))
    const drawn = new Map(sheet.control.devices.map((d) => [d.id, d]))
    const unused = new Map<string, string>()
    const drives = (id: string) => drawn.get(id)?.parameters.motor !== undefined
    for (const { owner, label } of offeredContacts(sheet))
      if (!used.has(owner) && !sheet.control.sequences.some((s) => s.id === owner) && !drives(owner))
        unused.set(owner, label)
    return [...unused].map(([owner, label]) => {
      const device = drawn.get(owner)
      const name = nameOf(device ?? sheet.components.find((c) => c.id === owner)!)
      return {
        severity: 'warning' as const,
        message: `No path has a contact of ${name} (${label}).`,
        remedy: 'Put it into a path, or delete it.',
        location: device ? { control: owner } : { component: owner },
      }
    })
  },
}
