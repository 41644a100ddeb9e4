/**
 * Paths and step sequences as IEC 61131-10 XML: ladder rungs with their connections, and a sequential function chart. What was written
 * is read again; the structure is that of the standard, its namespace included.
 */
import { parseExpression, type Expression } from '../control/expression'
import { resolveDevice } from '../control/terminals'
import type { ControlSection, Sheet } from '../sheet/schema'
import { DEVICES, NAMESPACE, QUALIFIERS } from './plc-xml-schema'
import { element, writeXml, type XmlElement } from './xml'

/** A name that IEC 61131-3 allows, for a reference: "V2.coilA" is V2_coilA. */
function unusedIdentifier(ref: string, taken: ReadonlySet<string>): string {
  const plain = ref.replace(/[^A-Za-z0-9_]/g, '_')
  let name = plain
  for (let i = 2; taken.has(name); i++) name = `${plain}_${i}`
  return name
}

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
  return `<?xml version="1.0" encoding="UTF-8"?>\n${writeXml(project)}`
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
