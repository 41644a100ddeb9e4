/**
 * Paths and step sequences as IEC 61131-10 XML: ladder rungs with their connections, and a sequential function chart. What was written
 * is read again; the structure is that of the standard, its namespace included.
 */
import { SaxesParser } from 'saxes'
import { z } from 'zod'
import { parseExpression, expressionText, type Expression } from '../control/expression'
import { resolveDevice } from '../control/terminals'
import { controlSchema, type ControlSection, type Sheet } from '../sheet/schema'

const NAMESPACE = 'www.iec.ch/public/TC65SC65BWG7TF10'
const DEVICES = 'urn:oar-bench:devices'

// ---- elements --------------------------------------------------------------------------------

export interface XmlElement {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly XmlElement[]
  readonly text: string
}
const element = (
  name: string,
  attributes: Readonly<Record<string, string>> = {},
  children: readonly XmlElement[] = [],
  text = '',
): XmlElement => ({ name, attributes, children, text })

const escape = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
function write({ name, attributes, children, text }: XmlElement, indent = ''): string {
  const own = Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escape(value)}"`)
    .join('')
  if (!children.length && !text) return `${indent}<${name}${own}/>\n`
  if (!children.length) return `${indent}<${name}${own}>${escape(text)}</${name}>\n`
  return `${indent}<${name}${own}>\n${children.map((c) => write(c, `${indent}  `)).join('')}${indent}</${name}>\n`
}

/** Most elements that a file may have. */
const MOST_ELEMENTS = 200_000
/** @throws Error in plain words where it is no well-formed XML */
export function parseXml(text: string): XmlElement {
  const parser = new SaxesParser()
  interface Open {
    name: string
    attributes: Record<string, string>
    children: XmlElement[]
    text: string
  }
  const open: Open[] = []
  let root: XmlElement | undefined
  let count = 0
  parser.on('error', (error) => {
    throw new Error(`This is not XML: ${error.message}`)
  })
  parser.on('opentag', ({ name, attributes }) => {
    if (++count > MOST_ELEMENTS) throw new Error('The file has far more elements than any control needs.')
    open.push({ name, attributes: { ...(attributes as Record<string, string>) }, children: [], text: '' })
  })
  parser.on('text', (content) => {
    if (open.length) open[open.length - 1].text += content
  })
  parser.on('closetag', () => {
    const closed = open.pop()!
    const done = element(closed.name, closed.attributes, closed.children, closed.text.trim())
    if (open.length) open[open.length - 1].children.push(done)
    else root = done
  })
  parser.write(text).close()
  if (!root) throw new Error('This is not XML: there is no element in it.')
  return root
}

/** A name that IEC 61131-3 allows, for a reference: "V2.coilA" is V2_coilA. */
function unusedIdentifier(ref: string, taken: ReadonlySet<string>): string {
  const plain = ref.replace(/[^A-Za-z0-9_]/g, '_')
  let name = plain
  for (let i = 2; taken.has(name); i++) name = `${plain}_${i}`
  return name
}

// ---- writing ---------------------------------------------------------------------------------

/** @param date of the file, ISO 8601 */
export function controlToXml(sheet: Sheet, date = '2026-01-01T00:00:00'): string {
  const { control } = sheet
  /** Names by reference: two references never have one name. */
  const names = new Map<string, string>()
  const name = (ref: string) => {
    const known = names.get(ref)
    if (known) return known
    const own = unusedIdentifier(ref, new Set(names.values()))
    names.set(ref, own)
    return own
  }
  const rungs = control.rungs.map((rung, i) => rungElement(rung, i, name))
  const charts = control.sequences.map((s) => chartElement(s, name))
  const body = (type: string, children: readonly XmlElement[]) =>
    element('BodyContent', { 'xsi:type': type }, children)
  const programs = [
    ...(rungs.length ? [{ name: 'Paths', content: body('LD', rungs) }] : []),
    ...charts.map((chart, i) => ({ name: control.sequences[i].id, content: body('SFC', chart) })),
  ]
  const variables = [...names].map(([ref, own]) =>
    element('Variable', { name: own }, [
      element('Type', {}, [element('TypeName', {}, [], typeOf(sheet, ref))]),
      element('Documentation', {}, [], ref),
    ]),
  )
  const devices = control.devices.map((device) =>
    element(
      'Device',
      {
        id: device.id,
        type: device.type,
        ...(device.designation ? { designation: device.designation } : {}),
        label: device.label,
      },
      Object.entries(device.parameters).map(([key, value]) =>
        element(
          'Parameter',
          { name: key, ...(typeof value === 'boolean' ? { boolean: 'true' } : {}) },
          [],
          String(value),
        ),
      ),
    ),
  )
  const project = element(
    'Project',
    {
      xmlns: NAMESPACE,
      'xmlns:xsi': 'http://www.w3.org/2001/XMLSchema-instance',
      schemaVersion: '1.0',
    },
    [
      element('FileHeader', { companyName: '', productName: 'Oar Bench', productVersion: '1' }),
      element('ContentHeader', { name: sheet.title, creationDateTime: date }),
      element('Types', {}, [
        element(
          'GlobalNamespace',
          {},
          programs.map((p) =>
            element('Program', { name: p.name }, [
              element('ExternalVars', {}, variables),
              element('MainBody', {}, [p.content]),
            ]),
          ),
        ),
      ]),
      element('AddData', {}, [element('Data', { name: DEVICES, handleUnknown: 'preserve' }, devices)]),
    ],
  )
  return `<?xml version="1.0" encoding="UTF-8"?>\n${write(project)}`
}

/** Timers and counters are function blocks, all else is on or off. */
function typeOf(sheet: Sheet, ref: string): string {
  const device = sheet.control.devices.find((d) => d.id === ref)
  const { resolved } = device ? resolveDevice(device) : {}
  if (resolved?.type.name === 'timer')
    return { onDelay: 'TON', offDelay: 'TOF', oneShot: 'TP' }[String(resolved.values.function)] ?? 'TON'
  return resolved?.type.name === 'counter' ? 'CTU' : 'BOOL'
}

type NameOf = (ref: string) => string
const connections = (ids: readonly number[]) =>
  element(
    'ConnectionPointIn',
    {},
    ids.map((id) => element('Connection', { refConnectionPointOutId: String(id) })),
  )
const out = (id: number) => element('ConnectionPointOut', { connectionPointOutId: String(id) })

function rungElement(rung: ControlSection['rungs'][number], index: number, name: NameOf): XmlElement {
  const parsed = parseExpression(rung.contacts)
  const objects: XmlElement[] = [element('LdObject', { 'xsi:type': 'LeftPowerRail' }, [out(1)])]
  let next = 2
  const place = (e: Expression, from: readonly number[]): number[] => {
    if (e.kind !== 'contact' && e.kind !== 'active')
      return e.kind === 'series'
        ? e.parts.reduce<number[]>((ids, part) => place(part, ids), [...from])
        : e.parts.flatMap((part) => place(part, from))
    const id = next++
    objects.push(
      element(
        'LdObject',
        {
          'xsi:type': 'Contact',
          operand: name(e.name),
          ...(e.kind === 'contact' && e.closed ? { negated: 'true' } : {}),
          ...(e.kind === 'active' ? { duration: `T#${e.seconds}s` } : {}),
        },
        [connections(from), out(id)],
      ),
    )
    return [id]
  }
  // what does not read is kept as a comment, and nothing is lost
  const end = parsed.ok && parsed.expression ? place(parsed.expression, [1]) : [1]
  for (const coil of rung.coils)
    objects.push(
      element('LdObject', { 'xsi:type': 'Coil', operand: name(coil) }, [connections(end), out(next++)]),
    )
  return element('Rung', { evaluationOrder: String(index + 1), label: rung.id }, [
    ...(rung.comment ? [element('Documentation', {}, [], rung.comment)] : []),
    ...(parsed.ok ? [] : [element('Unread', {}, [], rung.contacts)]),
    ...objects,
  ])
}

const QUALIFIERS = { while: 'N', set: 'S', reset: 'R', delayed: 'D', limited: 'L' } as const

function chartElement(sequence: ControlSection['sequences'][number], name: NameOf): XmlElement[] {
  const ids = new Map([...sequence.steps, ...sequence.transitions].map(({ id }, i) => [id, i + 1]))
  const before = (step: string) =>
    sequence.transitions.filter((t) => t.to.includes(step)).map((t) => ids.get(t.id)!)
  return [
    ...(sequence.name ? [element('Documentation', {}, [], sequence.name)] : []),
    ...sequence.steps.map((step) =>
      element(
        'SfcObject',
        { 'xsi:type': 'Step', name: step.id, ...(step.initial ? { initialStep: 'true' } : {}) },
        [
          ...(step.name ? [element('Documentation', {}, [], step.name)] : []),
          connections(before(step.id)),
          out(ids.get(step.id)!),
          ...step.actions.map(({ coil, qualifier, time }) =>
            element('Action', { qualifier: QUALIFIERS[qualifier], ...(time ? { duration: time } : {}) }, [
              element('Reference', { name: name(coil) }),
            ]),
          ),
        ],
      ),
    ),
    ...sequence.transitions.map((t) =>
      element('SfcObject', { 'xsi:type': 'Transition', name: t.id }, [
        element('Condition', {}, [element('Inline', {}, [], conditionText(t.condition, name))]),
        connections(t.from.map((step) => ids.get(step)!)),
        out(ids.get(t.id)!),
      ]),
    ),
  ]
}
/** A condition as structured text; its references are declared as variables on the way. */
function conditionText(condition: string, name: NameOf): string {
  const parsed = parseExpression(condition)
  if (!parsed.ok) return condition
  if (!parsed.expression) return 'TRUE'
  const text = (e: Expression): string => {
    switch (e.kind) {
      case 'contact':
        return `${e.closed ? 'NOT ' : ''}${name(e.name)}`
      case 'active':
        return `(${name(e.name)} FOR T#${e.seconds}s)`
      case 'series':
        return e.parts.map((p) => (p.kind === 'parallel' ? `(${text(p)})` : text(p))).join(' AND ')
      case 'parallel':
        return e.parts.map(text).join(' OR ')
    }
  }
  return text(parsed.expression)
}

// ---- the structure that is understood ---------------------------------------------------------

const textElement = (name: string) => z.object({ name: z.literal(name), text: z.string() })
const number = z.string().regex(/^\d{1,6}$/)
const inPoint = z.object({
  name: z.literal('ConnectionPointIn'),
  children: z.array(
    z.object({ name: z.literal('Connection'), attributes: z.object({ refConnectionPointOutId: number }) }),
  ),
})
const outPoint = z.object({
  name: z.literal('ConnectionPointOut'),
  attributes: z.object({ connectionPointOutId: number }),
})
const points = z.union([inPoint, outPoint])
const ldObject = z.object({
  name: z.literal('LdObject'),
  attributes: z.object({
    'xsi:type': z.enum(['LeftPowerRail', 'Contact', 'Coil']),
    operand: z.string().optional(),
    negated: z.enum(['true', 'false']).optional(),
    duration: z.string().optional(),
  }),
  children: z.array(points),
})
const rungSchema = z.object({
  name: z.literal('Rung'),
  attributes: z.object({ evaluationOrder: number, label: z.string().optional() }),
  children: z.array(z.union([ldObject, textElement('Documentation'), textElement('Unread')])),
})
const actionElement = z.object({
  name: z.literal('Action'),
  attributes: z.object({ qualifier: z.enum(['N', 'S', 'R', 'D', 'L']), duration: z.string().optional() }),
  children: z
    .array(z.object({ name: z.literal('Reference'), attributes: z.object({ name: z.string() }) }))
    .length(1),
})
const sfcObject = z.object({
  name: z.literal('SfcObject'),
  attributes: z.object({
    'xsi:type': z.enum(['Step', 'Transition']),
    name: z.string(),
    initialStep: z.enum(['true', 'false']).optional(),
  }),
  children: z.array(
    z.union([
      points,
      actionElement,
      textElement('Documentation'),
      z.object({ name: z.literal('Condition'), children: z.array(textElement('Inline')).length(1) }),
    ]),
  ),
})
const bodySchema = z.object({
  name: z.literal('BodyContent'),
  attributes: z.object({ 'xsi:type': z.enum(['LD', 'SFC']) }),
  children: z.array(z.union([rungSchema, sfcObject, textElement('Documentation')])),
})
const programSchema = z.object({
  name: z.literal('Program'),
  attributes: z.object({ name: z.string() }),
  children: z.tuple([
    z.object({
      name: z.literal('ExternalVars'),
      children: z.array(
        z.object({
          name: z.literal('Variable'),
          attributes: z.object({ name: z.string().regex(/^[A-Za-z0-9_]+$/) }),
          children: z.tuple([
            z.object({ name: z.literal('Type'), children: z.tuple([textElement('TypeName')]) }),
            textElement('Documentation'),
          ]),
        }),
      ),
    }),
    z.object({ name: z.literal('MainBody'), children: z.tuple([bodySchema]) }),
  ]),
})
const deviceSchema = z.object({
  name: z.literal('Device'),
  attributes: z.object({
    id: z.string(),
    type: z.string(),
    designation: z.string().optional(),
    label: z.string(),
  }),
  children: z.array(
    z.object({
      name: z.literal('Parameter'),
      attributes: z.object({ name: z.string(), boolean: z.literal('true').optional() }),
      text: z.string(),
    }),
  ),
})
/** The structure of IEC 61131-10 as far as paths and step sequences need it. */
export const projectSchema = z.object({
  name: z.literal('Project'),
  attributes: z.object({ xmlns: z.literal(NAMESPACE), schemaVersion: z.string() }),
  children: z.tuple([
    z.object({ name: z.literal('FileHeader') }),
    z.object({ name: z.literal('ContentHeader') }),
    z.object({
      name: z.literal('Types'),
      children: z.tuple([z.object({ name: z.literal('GlobalNamespace'), children: z.array(programSchema) })]),
    }),
    z.object({
      name: z.literal('AddData'),
      children: z.tuple([
        z.object({
          name: z.literal('Data'),
          attributes: z.object({ name: z.literal(DEVICES) }),
          children: z.array(deviceSchema),
        }),
      ]),
    }),
  ]),
})
type Project = z.infer<typeof projectSchema>

// ---- reading ---------------------------------------------------------------------------------

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
