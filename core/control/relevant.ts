/** Parts of a control on which a claim depends: what nothing in a claim asks for makes no states. */
import type { Sheet } from '../sheet/schema'
import { contactsOf, parseExpression } from './expression'
import { ownerOf } from './rules/rule'
import { resolveDevice } from './terminals'

/** Devices and components whose contacts a text asks for. */
export const ownersIn = (text: string): string[] => {
  const parsed = parseExpression(text)
  return parsed.ok ? contactsOf(parsed.expression).map(({ name }) => ownerOf(name)) : []
}

/**
 * The cone of influence of some devices, components and sequences: the sheet with all that can change what they do, and nothing else.
 * @param roots ids
 */
export function coneOf(sheet: Sheet, roots: Iterable<string>): Sheet {
  const { control } = sheet
  const relevant = new Set([
    ...roots,
    // a fact about the machine excludes states of everything that it names
    ...control.requirements.filter((r) => r.assumed).flatMap((r) => ownersIn(r.never)),
    ...control.devices.flatMap((d) => (resolveDevice(d).resolved?.type.suppliesControl ? [d.id] : [])),
  ])
  const drives = (coils: readonly string[]) => coils.some((c) => relevant.has(ownerOf(c)))
  for (let size = -1; size !== relevant.size;) {
    size = relevant.size
    for (const { contacts, coils } of control.rungs)
      if (drives(coils)) for (const owner of ownersIn(contacts)) relevant.add(owner)
    for (const { id, steps, transitions } of control.sequences) {
      if (!relevant.has(id) && !steps.some((s) => drives(s.actions.map((a) => a.coil)))) continue
      relevant.add(id)
      for (const { condition } of transitions) for (const owner of ownersIn(condition)) relevant.add(owner)
    }
  }
  return {
    ...sheet,
    control: {
      ...control,
      devices: control.devices.filter((d) => relevant.has(d.id)),
      rungs: control.rungs
        .map((r) => ({ ...r, coils: r.coils.filter((c) => relevant.has(ownerOf(c))) }))
        .filter((r) => r.coils.length),
      sequences: control.sequences
        .filter((s) => relevant.has(s.id))
        .map((s) => ({
          ...s,
          steps: s.steps.map((step) => ({
            ...step,
            actions: step.actions.filter((a) => relevant.has(ownerOf(a.coil))),
          })),
        })),
      requirements: control.requirements.filter(
        (r) => r.assumed || ownersIn(r.never).every((owner) => relevant.has(owner)),
      ),
    },
  }
}

/** The part that can change what moves the machine, or what a requirement asks for: without lamps and alarms that nothing asks. */
export function relevantControl(sheet: Sheet): Sheet {
  const { control } = sheet
  return coneOf(sheet, [
    ...sheet.components.map((c) => c.id),
    ...control.sequences.map((s) => s.id),
    ...control.requirements.flatMap((r) => ownersIn(r.never)),
    ...control.devices.flatMap((d) => {
      const { resolved } = resolveDevice(d)
      return resolved && (resolved.type.stopsMotion || resolved.type.drives?.(resolved.values)) ? [d.id] : []
    }),
  ])
}

/** What makes the states of a cone: its devices, sequences and switches. Solenoids and lamps that hang on them make none. */
export const partsOf = ({ control }: Sheet): ReadonlySet<string> =>
  new Set([
    ...control.devices.map((d) => d.id),
    ...control.sequences.map((s) => s.id),
    ...control.rungs.flatMap((r) => ownersIn(r.contacts)),
    ...control.sequences.flatMap((s) => s.transitions.flatMap((t) => ownersIn(t.condition))),
    ...control.requirements.flatMap((r) => ownersIn(r.never)),
  ])
/** The sheet with the parts of two cones. */
export const union = (whole: Sheet, a: Sheet, b: Sheet): Sheet => {
  const has = <T extends { id: string }>(of: (s: Sheet) => readonly T[]) => {
    const ids = new Set([...of(a), ...of(b)].map(({ id }) => id))
    return of(whole).filter(({ id }) => ids.has(id))
  }
  const coils = new Set(
    [a, b].flatMap(({ control }) => control.rungs.flatMap((r) => r.coils.map((c) => `${r.id} ${c}`))),
  )
  const { control } = whole
  const steps = (id: string, s: Sheet) => s.control.sequences.find((q) => q.id === id)
  return {
    ...whole,
    control: {
      ...control,
      devices: has((s) => s.control.devices),
      rungs: has((s) => s.control.rungs).map((r) => ({
        ...r,
        coils: r.coils.filter((c) => coils.has(`${r.id} ${c}`)),
      })),
      sequences: has((s) => s.control.sequences).map((q) => ({
        ...q,
        steps: q.steps.map((step, i) => {
          const kept = [steps(q.id, a), steps(q.id, b)].flatMap((other) => other?.steps[i]?.actions ?? [])
          return {
            ...step,
            actions: step.actions.filter((action) => kept.some((k) => k.coil === action.coil)),
          }
        }),
      })),
      requirements: has((s) => s.control.requirements),
    },
  }
}
export const isWithin = (part: ReadonlySet<string>, whole: ReadonlySet<string>): boolean =>
  part.size <= whole.size && [...part].every((id) => whole.has(id))
