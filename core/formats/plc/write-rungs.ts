/** Ladder rungs: contacts and coils of a path, and the calls of timers and counters. */
import { parseExpression, type Expression } from '../../control/expression'
import type { ControlSection } from '../../sheet/schema'
import { element, type XmlElement } from '../xml'
import { timeLiteral } from './names'
import { UNREAD } from './schema'
import type { BlockUse, Variables } from './variables'

export const documentation = (text: string): XmlElement =>
  element('Documentation', { 'xsi:type': 'SimpleText' }, [], text)
export const pointIn = (ids: readonly number[]): XmlElement =>
  element(
    'ConnectionPointIn',
    {},
    ids.map((id) => element('Connection', { refConnectionPointOutId: String(id) })),
  )
export const pointOut = (id: number, name = 'ConnectionPointOut'): XmlElement =>
  element(name, { connectionPointOutId: String(id) })
const ldObject = (type: string, attributes: Record<string, string>, points: XmlElement[]) =>
  element('LdObject', { 'xsi:type': type, ...attributes }, points)
const rail = () => ldObject('LeftPowerRail', {}, [pointOut(1)])

export function rungElement(
  rung: ControlSection['rungs'][number],
  index: number,
  variables: Variables,
): XmlElement {
  const parsed = parseExpression(rung.contacts)
  const objects: XmlElement[] = [rail()]
  let next = 2
  const place = (e: Expression, from: readonly number[]): number[] => {
    if ('parts' in e)
      return e.kind === 'series'
        ? e.parts.reduce<number[]>((ids, part) => place(part, ids), [...from])
        : e.parts.flatMap((part) => place(part, from))
    const { operand, inverted } =
      e.kind === 'active'
        ? { operand: variables.stepFlag(e.name, e.seconds), inverted: false }
        : variables.contact(e.name)
    const negated = (e.kind === 'contact' && e.closed) !== inverted
    const id = next++
    objects.push(
      ldObject('Contact', { operand, ...(negated ? { negated: 'true' } : {}) }, [
        pointIn(from),
        pointOut(id),
      ]),
    )
    return [id]
  }
  // a path that cannot be read leads nowhere: its coils never have current
  const end = !parsed.ok ? [] : parsed.expression ? place(parsed.expression, [1]) : [1]
  for (const coil of rung.coils)
    objects.push(ldObject('Coil', { operand: variables.coil(coil) }, [pointIn(end), pointOut(next++)]))
  return element('Rung', { evaluationOrder: String(index + 1), label: rung.id }, [
    ...(rung.comment ? [documentation(rung.comment)] : []),
    ...objects,
    ...(parsed.ok
      ? []
      : [
          element('AddData', {}, [
            element('Data', { name: UNREAD }, [element('Text', {}, [], rung.contacts)]),
          ]),
        ]),
  ])
}

/** The call of a timer or a counter: a contact for each of its inputs, and its constant. */
export function blockRung(block: BlockUse, index: number): XmlElement {
  const { name, typeName, inputs, constant, comment } = block
  let next = 2
  const contacts: XmlElement[] = []
  const fed = [...inputs].map(([input, operand]) => {
    const id = next++
    contacts.push(ldObject('Contact', { operand }, [pointIn([1]), pointOut(id)]))
    return inputVariable(input, id)
  })
  const source = next++
  const { type, value } = constant
  return element('Rung', { evaluationOrder: String(index + 1) }, [
    ...(comment ? [documentation(comment)] : []),
    rail(),
    ...contacts,
    element(
      'FbdObject',
      {
        'xsi:type': 'DataSource',
        identifier: type === 'TIME' ? timeLiteral(value) : String(Math.ceil(value)),
      },
      [pointOut(source)],
    ),
    element('FbdObject', { 'xsi:type': 'Block', typeName, instanceName: name }, [
      element('InputVariables', {}, [...fed, inputVariable(constant.input, source)]),
      element('OutputVariables', {}, [element('OutputVariable', { parameterName: 'Q' }, [pointOut(next++)])]),
    ]),
  ])
}
const inputVariable = (parameterName: string, from: number) =>
  element('InputVariable', { parameterName }, [pointIn([from])])
