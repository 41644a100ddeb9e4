/** Paths and step sequences from an IEC 61131-10 file. */
import type { z } from 'zod'
import { expressionText, parseExpression, type Expression } from '../control/expression'
import { controlSchema, type ControlSection } from '../sheet/schema'
import {
  NAMESPACE,
  projectSchema,
  QUALIFIERS,
  type actionElement,
  type Project,
  type inPoint,
  type ldObject,
  type outPoint,
  type rungSchema,
  type sfcObject,
} from './plc-xml-schema'
import { parseXml, type XmlElement } from './xml'

/** Reads the control of a file. Never throws; what is not understood is said in words. */
export function controlFromXml(
  text: string,
):
  { readonly ok: true; readonly control: ControlSection } | { readonly ok: false; readonly message: string } {
  try {
    const root = parseXml(text)
    if (root.name !== 'Project' || root.attributes.xmlns !== NAMESPACE)
      return {
        ok: false,
        message: 'This is no IEC 61131-10 file: its root is not a Project of that namespace.',
      }
    const read = projectSchema.safeParse(root)
    if (!read.success) {
      const [issue] = read.error.issues
      return {
        ok: false,
        message: `The file has parts that are not understood here, at ${placeOf(root, issue.path)}. Paths of contacts and coils and step charts are.`,
      }
    }
    return { ok: true, control: controlOfProject(read.data) }
  } catch (error) {
    return { ok: false, message: (error as Error).message }
  }
}
/** The names of the elements on the way to an issue. */
function placeOf(root: XmlElement, path: readonly PropertyKey[]): string {
  const names = [root.name]
  let at: XmlElement | undefined = root
  for (let i = 0; i + 1 < path.length && at; i++)
    if (path[i] === 'children' && typeof path[i + 1] === 'number') {
      at = at.children[path[i + 1] as number]
      if (at) names.push(at.attributes.name ? `${at.name} ${at.attributes.name}` : at.name)
    }
  return names.join(' > ')
}

function controlOfProject(project: Project): ControlSection {
  const [
    ,
    ,
    {
      children: [{ children: programs }],
    },
    {
      children: [{ children: devices }],
    },
  ] = project.children
  const refs = new Map(
    programs.flatMap(({ children: [vars] }) =>
      vars.children.map((v): [string, string] => [v.attributes.name, v.children[1].text]),
    ),
  )
  const refOf = (name: string | undefined): string => {
    const ref = name === undefined ? undefined : refs.get(name)
    if (ref === undefined) throw new Error(`The file uses "${name ?? ''}", which it does not declare.`)
    return ref
  }
  const bodies = programs.map(({ attributes, children }) => ({
    id: attributes.name,
    body: children[1].children[0],
  }))
  return controlSchema.parse({
    devices: devices.map(({ attributes: { id, type, designation, label }, children }) => ({
      id,
      type,
      ...(designation ? { designation } : {}),
      label,
      parameters: Object.fromEntries(
        children.map((p) => [p.attributes.name, p.attributes.boolean ? p.text === 'true' : p.text]),
      ),
    })),
    rungs: bodies
      .flatMap(({ body }) => body.children.filter((c) => c.name === 'Rung'))
      .map((rung, i) => rungOf(rung as z.infer<typeof rungSchema>, i, refOf)),
    sequences: bodies
      .filter(({ body }) => body.attributes['xsi:type'] === 'SFC')
      .map(({ id, body }) => sequenceOf(id, body.children as SfcChild[], refOf)),
  })
}

type LdObject = z.infer<typeof ldObject>
type Points = readonly { readonly name: string }[]
const idsIn = (children: Points): number[] =>
  children.flatMap((c) =>
    c.name === 'ConnectionPointIn'
      ? (c as z.infer<typeof inPoint>).children.map((x) => Number(x.attributes.refConnectionPointOutId))
      : [],
  )
const idOut = (children: Points): number =>
  Number(
    (children.find((c) => c.name === 'ConnectionPointOut') as z.infer<typeof outPoint> | undefined)
      ?.attributes.connectionPointOutId ?? -1,
  )

/** A rung from its connections: contacts are the edges of a graph, which is reduced in series and parallel. */
function rungOf(
  { attributes, children }: z.infer<typeof rungSchema>,
  index: number,
  refOf: (name: string | undefined) => string,
): ControlSection['rungs'][number] {
  const objects = children.filter((c): c is LdObject => c.name === 'LdObject')
  const note = (name: string) => (children.find((c) => c.name === name) as { text: string } | undefined)?.text
  const netOf = (ids: readonly number[]) => [...ids].sort((a, b) => a - b).join()
  const nets = new Map<number, string>()
  for (const o of objects) for (const id of idsIn(o.children)) nets.set(id, netOf(idsIn(o.children)))
  const rail = objects.find((o) => o.attributes['xsi:type'] === 'LeftPowerRail')
  const coils = objects.filter((o) => o.attributes['xsi:type'] === 'Coil')
  const contacts = objects.filter((o) => o.attributes['xsi:type'] === 'Contact')
  interface Edge {
    readonly from: string
    readonly to: string
    readonly expression: Expression
  }
  const end = coils.length ? netOf(idsIn(coils[0].children)) : 'end'
  let edges = contacts.map((c): Edge => {
    const { operand, negated, duration } = c.attributes
    const name = refOf(operand)
    const seconds = duration && /^T#([\d.]+)s$/.exec(duration)
    return {
      from: netOf(idsIn(c.children)),
      to: nets.get(idOut(c.children)) ?? 'end',
      expression: seconds
        ? { kind: 'active', name, seconds: Number(seconds[1]), at: 0 }
        : { kind: 'contact', name, closed: negated === 'true', at: 0 },
    }
  })
  const start = String(rail ? idOut(rail.children) : 1)
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
  if (edges.length > 1 || (edges.length === 1 && edges[0].from !== start))
    throw new Error(`Rung ${index + 1} has connections that are neither in series nor parallel.`)
  return {
    id: attributes.label ?? `R${index + 1}`,
    comment: note('Documentation') ?? '',
    contacts: note('Unread') ?? expressionText(edges[0]?.expression),
    coils: coils.map((c) => refOf(c.attributes.operand)),
  }
}
const joined =
  (kind: 'series' | 'parallel') =>
  (a: Expression, b: Expression): Expression => ({
    kind,
    parts: [a, b].flatMap((e) => (e.kind === kind ? e.parts : [e])),
  })
const series = joined('series')
const parallel = joined('parallel')

type SfcChild = z.infer<typeof sfcObject> | { name: 'Documentation'; text: string }
const textOf = (children: readonly { readonly name: string }[], name: string) =>
  (children.find((c) => c.name === name) as { text: string } | undefined)?.text ?? ''

function sequenceOf(id: string, children: readonly SfcChild[], refOf: (name: string) => string): unknown {
  const objects = children.filter((c): c is z.infer<typeof sfcObject> => c.name === 'SfcObject')
  const steps = objects.filter((o) => o.attributes['xsi:type'] === 'Step')
  const transitions = objects.filter((o) => o.attributes['xsi:type'] === 'Transition')
  const stepOf = new Map(steps.map((s) => [idOut(s.children), s.attributes.name]))
  const condition = (text: string) => {
    if (text === 'TRUE') return ''
    const parsed = parseExpression(
      text
        .replace(/\bAND\b/g, 'and')
        .replace(/\bOR\b/g, 'or')
        .replace(/\bNOT\b/g, 'not')
        .replace(/\bFOR T#([\d.]+)s/g, 'for $1 s'),
    )
    return parsed.ok ? expressionText(parsed.expression, refOf) : text
  }
  return {
    id,
    name: textOf(children, 'Documentation'),
    steps: steps.map((s) => ({
      id: s.attributes.name,
      name: textOf(s.children, 'Documentation'),
      initial: s.attributes.initialStep === 'true',
      actions: s.children
        .filter((c): c is z.infer<typeof actionElement> => c.name === 'Action')
        .map(({ attributes: { qualifier, duration }, children: [reference] }) => ({
          coil: refOf(reference.attributes.name),
          qualifier: (Object.keys(QUALIFIERS) as (keyof typeof QUALIFIERS)[]).find(
            (q) => QUALIFIERS[q] === qualifier,
          ),
          ...(duration ? { time: duration } : {}),
        })),
    })),
    transitions: transitions.map((t) => ({
      id: t.attributes.name,
      from: idsIn(t.children).flatMap((from) => stepOf.get(from) ?? []),
      to: steps.filter((s) => idsIn(s.children).includes(idOut(t.children))).map((s) => s.attributes.name),
      condition: condition(
        (t.children.find((c) => c.name === 'Condition') as { children: { text: string }[] } | undefined)
          ?.children[0].text ?? '',
      ),
    })),
  }
}
