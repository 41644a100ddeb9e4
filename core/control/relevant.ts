/** The part of a control on which what is to be proved depends: lamps and alarms that nothing asks make no states. */
import type { Sheet } from '../sheet/schema'
import { contactsOf, parseExpression } from './expression'
import { ownerOf } from './rules/rule'
import { resolveDevice } from './terminals'

function contactsIn(text: string): string[] {
  const parsed = parseExpression(text)
  return parsed.ok ? contactsOf(parsed.expression).map(({ name }) => name) : []
}

/** The sheet with the devices and paths that can change what moves the machine, or what a requirement asks for. */
export function relevantControl(sheet: Sheet): Sheet {
  const { control } = sheet
  const devices = new Map(control.devices.map((d) => [d.id, resolveDevice(d).resolved]))
  const relevant = new Set([
    ...sheet.components.map((c) => c.id),
    ...control.sequences.map((s) => s.id),
    ...control.requirements.flatMap((r) => contactsIn(r.never)).map(ownerOf),
    ...control.sequences.flatMap((s) => s.transitions.flatMap((t) => contactsIn(t.condition))).map(ownerOf),
    ...[...devices].flatMap(([id, d]) =>
      d && (d.type.stopsMotion || d.type.suppliesControl || d.type.drives?.(d.values)) ? [id] : [],
    ),
  ])
  for (let size = -1; size !== relevant.size;) {
    size = relevant.size
    for (const { contacts, coils } of control.rungs)
      if (coils.some((c) => relevant.has(ownerOf(c))))
        for (const ref of contactsIn(contacts)) relevant.add(ownerOf(ref))
  }
  return {
    ...sheet,
    control: {
      ...control,
      devices: control.devices.filter((d) => relevant.has(d.id)),
      rungs: control.rungs
        .map((r) => ({ ...r, coils: r.coils.filter((c) => relevant.has(ownerOf(c))) }))
        .filter((r) => r.coils.length),
      sequences: control.sequences.map((s) => ({
        ...s,
        steps: s.steps.map((step) => ({
          ...step,
          actions: step.actions.filter((a) => relevant.has(ownerOf(a.coil))),
        })),
      })),
    },
  }
}
