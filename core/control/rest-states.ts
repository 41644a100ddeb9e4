/**
 * States in which a control can rest, by its paths alone: each relay follows its coil, contacts of one device go together, and nothing
 * is about to change. Whether there is such a state with something asked of it is decided by trying, with what is known so far.
 */
import type { Sheet } from '../sheet/schema'
import { passes, refsIn, type Expression, type Known } from './expression'
import { switchFacts, type Exclusion } from './facts'
import { targetsOf, type Program } from './program'

/** What is asked of an expression, a coil, or a device. */
export interface Wish {
  /** It passes current, or it does not. */
  readonly expression?: Expression
  /** Index of a target that has current, or has none. */
  readonly target?: number
  readonly is: boolean
}
/** How one device stands: whether it has acted, and its inputs. */
export interface Stand {
  readonly on: boolean
  readonly inputs: Readonly<Record<string, number>>
}
interface Choice extends Stand {
  /** Whether its contacts are closed, by their references. */
  readonly closed: ReadonlyMap<string, boolean>
}
interface Variable {
  /** Index of a device, −1 for a switch or a step. */
  readonly device: number
  readonly choices: readonly Choice[]
}
/** More that is tried says nothing. */
const MOST_TRIED = 60_000

export class RestStates {
  private readonly variables: readonly Variable[]
  private readonly variableOf = new Map<string, number>()
  private readonly relays: readonly { readonly variable: number; readonly coil: number }[]

  constructor(
    private readonly program: Program,
    private readonly exclusions: readonly Exclusion[],
  ) {
    const variables: Variable[] = []
    const refsOf = new Map<number, string[]>()
    for (const [ref, source] of program.sources) {
      if (source.from === 'device') refsOf.set(source.device, [...(refsOf.get(source.device) ?? []), ref])
      else if (source.from !== 'coil') {
        this.variableOf.set(ref, variables.length)
        variables.push({
          device: -1,
          choices: [false, true].map((on) => ({ on, inputs: {}, closed: new Map([[ref, on]]) })),
        })
      }
    }
    for (const [device, refs] of refsOf) {
      for (const ref of refs) this.variableOf.set(ref, variables.length)
      variables.push({ device, choices: this.choicesOf(device, refs) })
    }
    this.variables = variables
    this.relays = variables.flatMap(({ device }, variable) => {
      if (device < 0 || !program.devices[device].type.settlesAtStart) return []
      return targetsOf(program, device)
        .slice(0, 1)
        .map((coil) => ({ variable, coil }))
    })
  }

  private choicesOf(index: number, refs: readonly string[]): Choice[] {
    const { type, values } = this.program.devices[index]
    const inputs: { name: string; positions: readonly number[] }[] = (type.inputs?.(values) ?? []).map(
      (input: { name: string; rest: number | string; positions?: readonly { value: number }[] }) => ({
        name: input.name,
        positions: input.positions?.map((p) => p.value) ?? [Number(input.rest) || 0],
      }),
    )
    const stands = inputs.reduce<Record<string, number>[]>(
      (all, { name, positions }) =>
        all.flatMap((one) => positions.map((value) => ({ ...one, [name]: value }))),
      [{}],
    )
    const states = type.coils?.length || type.observe ? [false, true] : [false]
    return stands.flatMap((own) =>
      states.map((on): Choice => {
        const state = { coils: [on], on, due: Infinity, count: on ? 1 : 0, reference: NaN, since: NaN }
        const view = { values, state, input: (name: string) => own[name] ?? 0 }
        const closed = new Map(
          refs.map((ref) => {
            const source = this.program.sources.get(ref)
            const terminal = source?.from === 'device' ? source.terminal : ''
            return [ref, type.closed?.(view, terminal) ?? false] as const
          }),
        )
        return { on, inputs: own, closed }
      }),
    )
  }

  /**
   * A state of rest that meets all wishes.
   * @param allowed how a device may stand @returns contacts by their references; "none" where there is no such state, "unknown" where
   * too much would have to be tried
   */
  find(
    wishes: readonly Wish[],
    allowed: (device: number, stand: Stand) => boolean = () => true,
  ): ReadonlyMap<string, boolean> | 'none' | 'unknown' {
    const { variables } = this
    const chosen = new Array<Choice | undefined>(variables.length).fill(undefined)
    const closed = (ref: string): Known => {
      const variable = this.variableOf.get(ref)
      return variable === undefined ? undefined : chosen[variable]?.closed.get(ref)
    }
    let tried = 0
    const isExcluded = () =>
      this.exclusions.some(({ all }) => all.every((component) => closed(component) === true))
    const isPossible = () => {
      for (const { expression, target, is } of wishes) {
        const now = target === undefined ? passes(expression, closed) : this.current(target, closed)
        if (now !== undefined && now !== is) return false
      }
      for (const { variable, coil } of this.relays) {
        const own = chosen[variable]
        if (!own) continue
        const current = this.current(coil, closed)
        if (current !== undefined && current !== own.on) return false
      }
      return !isExcluded()
    }
    const order = this.orderFor(wishes)
    const search = (depth: number): boolean | undefined => {
      if (depth === order.length) return true
      const { device, choices } = variables[order[depth]]
      let unknown = false
      for (const choice of choices) {
        if (device >= 0 && !allowed(device, choice)) continue
        if (++tried > MOST_TRIED) return undefined
        chosen[order[depth]] = choice
        const found = isPossible() ? search(depth + 1) : false
        if (found) return true
        if (found === undefined) unknown = true
        if (tried > MOST_TRIED) break
      }
      chosen[order[depth]] = undefined
      return unknown ? undefined : false
    }
    const found = isPossible() ? search(0) : false
    if (found === undefined) return 'unknown'
    if (!found) return 'none'
    return new Map(chosen.flatMap((choice) => [...(choice?.closed ?? [])]))
  }

  /** Whether a target has current: by its paths; what a step gives it is not known. */
  private current(target: number, closed: (ref: string) => Known): Known {
    const { paths, sequences } = this.program
    let result: Known = false
    for (const { expression, coils } of paths) {
      if (!coils.includes(target)) continue
      const now = passes(expression, closed)
      if (now) return true
      if (now === undefined) result = undefined
    }
    const bySteps = sequences.some(({ steps }) =>
      steps.some((s) => s.actions.some((a) => a.target === target)),
    )
    return bySteps ? undefined : result
  }

  /** What the wishes read comes first, then what that depends on. */
  private orderFor(wishes: readonly Wish[]): number[] {
    const order: number[] = []
    const seen = new Set<number>()
    const visit = (expression: Expression | undefined) => {
      for (const ref of refsIn(expression)) {
        const variable = this.variableOf.get(ref)
        if (variable === undefined || seen.has(variable)) continue
        seen.add(variable)
        order.push(variable)
        const relay = this.relays.find((r) => r.variable === variable)
        if (relay) ofTarget(relay.coil)
      }
    }
    const ofTarget = (target: number) => {
      for (const { expression, coils } of this.program.paths) if (coils.includes(target)) visit(expression)
    }
    for (const { expression, target } of wishes)
      if (target === undefined) visit(expression)
      else ofTarget(target)
    // what nothing of it depends on rests by itself
    return order
  }
}

const known = new WeakMap<Program, RestStates>()
/** States of rest of a control, shared by all who ask. */
export function restStatesOf(sheet: Sheet, program: Program): RestStates {
  let states = known.get(program)
  if (!states) known.set(program, (states = new RestStates(program, switchFacts(sheet))))
  return states
}
/** Inputs of a device that return to rest when they are released. */
export const momentaryInputs = ({ devices }: Program, device: number): string[] => {
  const { type, values } = devices[device]
  return (type.inputs?.(values) ?? []).flatMap((input: { name: string; momentary?: true }) =>
    input.momentary ? [input.name] : [],
  )
}
/** For `RestStates.find`: nobody presses anything. */
export const areReleased =
  (program: Program) =>
  (device: number, { inputs }: Stand): boolean =>
    momentaryInputs(program, device).every((name) => (inputs[name] ?? 0) < 0.5)
