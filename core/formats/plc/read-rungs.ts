/** Paths from ladder rungs, and the constants of timers and counters from their calls. */
import { expressionText, type Expression } from '../../control/expression'
import type { ControlSection } from '../../sheet/schema'
import { contactOf, type Meanings } from './meanings'
import { secondsOf } from './names'
import type { FbdObject, inPoint, LdObject, outPoint, Rung } from './schema'
import type { z } from 'zod'

type Points = readonly { readonly name: string }[]
export const idsIn = (children: Points): number[] =>
  children.flatMap((c) =>
    c.name === 'ConnectionPointIn'
      ? (c as z.infer<typeof inPoint>).children.map((x) => Number(x.attributes.refConnectionPointOutId))
      : [],
  )
export const idsOut = (children: Points, name = 'ConnectionPointOut'): number[] =>
  children.flatMap((c) =>
    c.name === name ? [Number((c as z.infer<typeof outPoint>).attributes.connectionPointOutId)] : [],
  )

/** Whether a rung calls a function block. */
export const isCall = ({ children }: Rung): boolean => children.some((c) => c.name === 'FbdObject')

/** Function blocks with their constants, by the devices that they are. */
export function constantsOf(
  calls: readonly Rung[],
  refOf: (name: string) => string,
): ReadonlyMap<string, { readonly typeName: string; readonly constant: string }> {
  return new Map(
    calls.flatMap(({ children }) => {
      const objects = children.filter((c): c is FbdObject => c.name === 'FbdObject')
      const sources = new Map(
        objects.flatMap((o) =>
          o.attributes['xsi:type'] === 'DataSource'
            ? [
                [
                  idsOut(o.children as Points)[0],
                  (o.attributes as { identifier: string }).identifier,
                ] as const,
              ]
            : [],
        ),
      )
      return objects.flatMap((o) => {
        if (!('typeName' in o.attributes)) return []
        const { typeName, instanceName } = o.attributes
        const constant = (o.children[0] as { children: { children: Points }[] }).children
          .flatMap((v) => idsIn(v.children))
          .flatMap((id) => sources.get(id) ?? [])[0]
        return constant === undefined ? [] : [[refOf(instanceName), { typeName, constant }] as const]
      })
    }),
  )
}

/** Contacts as an edge of a graph, which is reduced in series and parallel. */
interface Edge {
  readonly from: string
  readonly to: string
  readonly expression: Expression
}

/** A path from the connections of a rung. @throws Error where they are neither in series nor parallel */
export function rungOf(
  { attributes, children }: Rung,
  index: number,
  meanings: Meanings,
): ControlSection['rungs'][number] {
  const objects = children.filter((c): c is LdObject => c.name === 'LdObject')
  const note = (name: string) => (children.find((c) => c.name === name) as { text: string } | undefined)?.text
  const unread = note('Unread') ?? unreadText(children)
  const netOf = (ids: readonly number[]) => [...ids].sort((a, b) => a - b).join()
  const nets = new Map<number, string>()
  for (const o of objects) for (const id of idsIn(o.children)) nets.set(id, netOf(idsIn(o.children)))
  const rail = objects.find((o) => o.attributes['xsi:type'] === 'LeftPowerRail')
  const coils = objects.filter((o) => o.attributes['xsi:type'] === 'Coil')
  const contacts = objects.filter((o) => o.attributes['xsi:type'] === 'Contact')
  const end = coils.length ? netOf(idsIn(coils[0].children)) : 'end'
  if (coils.some((c) => netOf(idsIn(c.children)) !== end))
    throw new Error(`Rung ${index + 1} has coils behind different contacts.`)
  let edges = contacts.map((c): Edge => {
    const { operand, negated, duration } = c.attributes
    const contact = contactOf(operand, negated === 'true', meanings)
    const seconds = duration === undefined ? undefined : secondsOf(duration)
    return {
      from: netOf(idsIn(c.children)),
      to: nets.get(idsOut(c.children)[0]) ?? 'end',
      expression:
        seconds && contact.kind === 'contact'
          ? { kind: 'active', name: contact.name, seconds, at: 0 }
          : contact,
    }
  })
  const start = String(rail ? idsOut(rail.children)[0] : 1)
  if (!edges.length && !unread && coils.length && end !== start)
    throw new Error(`Rung ${index + 1} has coils that nothing leads to.`)
  for (let reduced = true; reduced && edges.length > 1;) {
    reduced = false
    for (const a of edges) {
      const beside = edges.find((b) => b !== a && b.from === a.from && b.to === a.to)
      const behind = edges.filter((b) => b.from === a.to)
      const into = edges.filter((b) => b.to === a.to)
      if (beside) {
        const both: Edge = { ...a, expression: parallel(a.expression, beside.expression) }
        edges = edges.flatMap((e) => (e === a ? [both] : e === beside ? [] : [e]))
      } else if (behind.length === 1 && into.length === 1 && a.to !== end) {
        const both: Edge = {
          from: a.from,
          to: behind[0].to,
          expression: series(a.expression, behind[0].expression),
        }
        edges = edges.flatMap((e) => (e === a ? [both] : e === behind[0] ? [] : [e]))
      } else continue
      reduced = true
      break
    }
  }
  const [whole] = edges
  if (edges.length > 1 || (whole && (whole.from !== start || whole.to !== end)))
    throw new Error(`Rung ${index + 1} has connections that are neither in series nor parallel.`)
  return {
    id: attributes.label ?? `R${index + 1}`,
    comment: note('Documentation') ?? '',
    contacts: unread ?? expressionText(whole?.expression),
    coils: coils.map((c) => meanings.refOf(c.attributes.operand)),
  }
}
function unreadText(children: Rung['children']): string | undefined {
  for (const c of children)
    if (c.name === 'AddData' && 'children' in c) {
      const [data] = c.children as readonly { children: readonly { text: string }[] }[]
      return data.children[0].text
    }
  return undefined
}
const joined =
  (kind: 'series' | 'parallel') =>
  (a: Expression, b: Expression): Expression => ({
    kind,
    parts: [a, b].flatMap((e) => (e.kind === kind ? e.parts : [e])),
  })
const series = joined('series')
const parallel = joined('parallel')
