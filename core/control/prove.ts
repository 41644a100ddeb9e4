/**
 * Proofs of a whole control. Each claim is decided for each thing that it speaks of, in the part of the control on which that depends
 * (its cone of influence): two packs that do not ask each other are explored one after the other, and not in all combinations.
 */
import type { Sheet } from '../sheet/schema'
import { Explorer, propertiesOf, type Proof, type ProofEvent } from './explore'
import { Logic } from './logic'
import { readControl, type Program } from './program'
import { coneOf, isWithin, ownersIn, partsOf, union } from './relevant'

/** A claim about a part of the control, which is explored for it and perhaps for others. */
interface Part {
  readonly sheet: Sheet
  readonly parts: ReadonlySet<string>
  readonly claims: ReadonlySet<string>
}

/** Ids of what a claim speaks of, each to be decided by itself. */
function rootsOf(id: string, sheet: Sheet, program: Program): string[][] {
  const stops = program.devices.flatMap(({ device, type }) => (type.stopsMotion ? [device.id] : []))
  const moving = [
    ...program.targets.flatMap((t) => ('component' in t ? [t.component] : [])),
    ...program.driving.map(({ device }) => program.devices[device].device.id),
  ]
  if (id.startsWith('both-coils ')) return [[id.slice('both-coils '.length)]]
  if (id === 'motion-with-emergency-stop') return moving.map((owner) => [owner, ...stops])
  if (id === 'restart') return moving.map((owner) => [owner])
  // whether a relay rests elsewhere depends on its own cone alone; lamps hang on relays
  if (id === 'race')
    return program.devices.flatMap(({ device, type }) => (type.settlesAtStart ? [[device.id]] : []))
  const requirement = sheet.control.requirements.find((r) => r.id === id)
  return [requirement ? ownersIn(requirement.never) : []]
}

/** Worst first: one part in which a claim is refuted decides it. */
const ORDER: readonly Proof['outcome'][] = ['refuted', 'orders', 'unfinished', 'chance', 'watched', 'proved']

/** A part with so few things less than another has no fewer states worth speaking of. */
const NEARLY = 2
/** Parts of which one lies in the other, or nearly so, are explored together. */
function merged(sheet: Sheet, parts: readonly Part[]): Part[] {
  const kept: Part[] = []
  for (const part of [...parts].sort((a, b) => b.parts.size - a.parts.size)) {
    const at = kept.findIndex(
      (k) => isWithin(part.parts, k.parts) && k.parts.size - part.parts.size <= NEARLY,
    )
    if (at < 0) kept.push(part)
    else
      kept[at] = {
        ...kept[at],
        sheet: union(sheet, kept[at].sheet, part.sheet),
        claims: new Set([...kept[at].claims, ...part.claims]),
      }
  }
  return kept
}

export class Prover {
  private readonly names: readonly Pick<Proof, 'id' | 'name'>[]
  private readonly explorers: { readonly explorer: Explorer; readonly claims: ReadonlySet<string> }[]

  /** @throws Error where the control does not read */
  constructor(sheet: Sheet) {
    const { program, findings } = readControl(sheet)
    if (findings.length) throw new Error(findings[0].message)
    const properties = propertiesOf(sheet, program, new Logic(program))
    this.names = properties.map(({ id, name }) => ({ id, name }))
    const parts: Part[] = []
    for (const { id } of properties) {
      const cones = rootsOf(id, sheet, program).map((roots) => coneOf(sheet, roots))
      const all = cones.map((cone) => ({ sheet: cone, parts: partsOf(cone) }))
      // what holds in a larger cone holds in those within it
      const largest = all.filter(
        (one, i) =>
          !all.some(
            (other, j) =>
              i !== j && isWithin(one.parts, other.parts) && (one.parts.size < other.parts.size || j < i),
          ),
      )
      parts.push(...largest.map((cone) => ({ ...cone, claims: new Set([id]) })))
    }
    this.explorers = merged(sheet, parts)
      .sort((a, b) => a.parts.size - b.parts.size)
      .map((part) => ({ explorer: new Explorer(sheet, part.sheet, part.claims), claims: part.claims }))
  }

  /** States that were seen, of all parts. */
  get states(): number {
    return this.explorers.reduce((sum, { explorer }) => sum + explorer.states, 0)
  }
  get done(): boolean {
    return this.explorers.every(({ explorer }) => explorer.done)
  }
  /** Goes on with some states of the part that is explored. */
  explore(states: number): void {
    this.explorers.find(({ explorer }) => !explorer.done)?.explorer.explore(states)
  }
  /** How each claim stands; what is not explored to its end is unfinished. */
  proofs(): Proof[] {
    const found = this.explorers.map(({ explorer }) => new Map(explorer.proofs().map((p) => [p.id, p])))
    return this.names.map(({ id, name }): Proof => {
      const own = found.flatMap((proofs) => proofs.get(id) ?? [])
      const outcome = ORDER.find((each) => own.some((p) => p.outcome === each)) ?? 'proved'
      const events: readonly ProofEvent[] = own.find((p) => p.outcome === outcome)?.events ?? []
      return { id, name, outcome, states: own.reduce((sum, p) => sum + p.states, 0), events }
    })
  }
}

/** Explores all, or as much as is allowed. @param progress called with the number of states; false ends it */
export function prove(sheet: Sheet, progress?: (states: number, prover: Prover) => boolean | void): Proof[] {
  const prover = new Prover(sheet)
  while (!prover.done) {
    prover.explore(1000)
    if (progress?.(prover.states, prover) === false) break
  }
  return prover.proofs()
}
