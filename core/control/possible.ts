/** What can have current at all: an upper bound by the structure of the paths, with some devices held. */
import { passes, type Known } from './expression'
import { targetsOf, type Program } from './program'

/**
 * Targets that can have current while some devices are pressed, however switches, relays and other operators stand; what hangs on a relay
 * that cannot pull in is out as well. An upper bound: contacts of one device count as independent.
 * @param held devices that are pressed @returns by target
 */
export function possibleTargets(program: Program, held: ReadonlySet<string>): boolean[] {
  const { targets, paths, sequences, devices, sources } = program
  let possible = targets.map(() => true)
  const closed = (ref: string): Known => {
    const source = sources.get(ref)
    if (source?.from !== 'device') return undefined
    const { device, type } = devices[source.device]
    if (held.has(device.id)) return true
    // without any current its contacts stay as they are drawn
    const coils = targetsOf(program, source.device)
    return type.coils?.length && !coils.some((i) => possible[i]) ? false : undefined
  }
  for (;;) {
    const next = targets.map(() => false)
    for (const { expression, coils } of paths)
      if (passes(expression, closed) !== false) for (const coil of coils) next[coil] = true
    for (const { steps } of sequences)
      for (const { actions } of steps)
        for (const { target, qualifier } of actions) if (qualifier !== 'reset') next[target] = true
    if (next.every((is, i) => is === possible[i])) return possible
    possible = next.map((is, i) => is && possible[i])
  }
}

/** Names of what moves the machine and can have current while these devices are pressed. */
export function possibleMotion(program: Program, held: ReadonlySet<string>): string[] {
  const possible = possibleTargets(program, held)
  const direct = program.targets.flatMap((t, i) => ('component' in t && possible[i] ? [t.ref] : []))
  // what a device drives, such as a contactor its motor
  const driven = program.driving.flatMap(({ device, component, input }) => {
    const coils = targetsOf(program, device)
    return !coils.length || coils.some((i) => possible[i]) ? [`${component}.${input}`] : []
  })
  return [...direct, ...driven]
}
