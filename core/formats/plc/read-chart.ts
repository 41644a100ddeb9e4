/** Step sequences from sequential function charts. */
import type { z } from 'zod'
import { expressionText, parseExpression, type Expression } from '../../control/expression'
import { contactOf, type Meanings } from './meanings'
import { secondsOf } from './names'
import { idsIn, idsOut } from './read-rungs'
import { QUALIFIERS, type actionElement, type SfcObject } from './schema'

type Part = SfcObject | { readonly name: 'Documentation'; readonly text: string }
type Action = z.infer<typeof actionElement>
const objectsOf = (parts: readonly Part[]) => parts.filter((c): c is SfcObject => c.name === 'SfcObject')
const actionsOf = (o: SfcObject) => o.children.filter((c): c is Action => c.name === 'Action')
const textOf = (children: readonly { readonly name: string }[], name: string) =>
  (children.find((c) => c.name === name) as { text: string } | undefined)?.text ?? ''

/** Variables that tell how long a step has been active, s, by their names. @param isStepFlag whether a variable stands for a step */
export function delayFlags(
  charts: readonly (readonly Part[])[],
  isStepFlag: (name: string) => boolean,
): ReadonlyMap<string, number> {
  return new Map(
    charts.flatMap((parts) =>
      objectsOf(parts)
        .flatMap(actionsOf)
        .flatMap(({ attributes: { qualifier, duration }, children: [reference] }): [string, number][] => {
          const { name } = reference.attributes
          const seconds = duration === undefined ? undefined : secondsOf(duration)
          return qualifier === 'D' && seconds && isStepFlag(name) ? [[name, seconds]] : []
        }),
    ),
  )
}

/** @returns the sequence as a sheet has it, to be checked there */
export function sequenceOf(
  id: string,
  parts: readonly Part[],
  meanings: Meanings,
  isStep: (ref: string) => boolean,
): unknown {
  const objects = objectsOf(parts)
  const ofType = (type: SfcObject['attributes']['xsi:type']) =>
    objects.filter((o) => o.attributes['xsi:type'] === type)
  const steps = ofType('Step')
  const transitions = ofType('Transition')
  const nameOf = ({ attributes: { name } }: SfcObject) => name ?? ''
  /** Version 1 called steps and transitions by their ids. */
  const idOf = (o: SfcObject) => {
    try {
      return meanings.refOf(nameOf(o))
    } catch {
      return nameOf(o)
    }
  }
  const owners = new Map(objects.flatMap((o) => idsOut(o.children).map((point) => [point, o] as const)))
  /** Steps and transitions from which points lead on, through divergences and convergences. */
  const sourcesOf = (o: SfcObject, seen: ReadonlySet<SfcObject> = new Set()): SfcObject[] =>
    idsIn(o.children).flatMap((point) => {
      const owner = owners.get(point)
      if (!owner || seen.has(owner)) return []
      const type = owner.attributes['xsi:type']
      return type === 'Step' || type === 'Transition' ? [owner] : sourcesOf(owner, new Set([...seen, owner]))
    })
  const into = new Map(steps.map((s) => [s, sourcesOf(s)]))
  const blocks = ofType('ActionBlock')
  const ownStep = (name: string) => {
    const step = steps.find((s) => nameOf(s) === name)
    return step && `${id}.${idOf(step)}`
  }
  return {
    id,
    name: textOf(parts, 'Documentation'),
    steps: steps.map((s) => {
      const points = idsOut(s.children, 'ConnectionPointOutAction')
      const own = [s, ...blocks.filter((b) => idsIn(b.children).some((p) => points.includes(p)))]
      return {
        id: idOf(s),
        name: textOf(s.children, 'Documentation'),
        initial: s.attributes.initialStep === 'true',
        actions: own
          .flatMap(actionsOf)
          .map(({ attributes: { qualifier, duration }, children: [reference] }) => ({
            coil: meanings.refOf(reference.attributes.name),
            qualifier: (Object.keys(QUALIFIERS) as (keyof typeof QUALIFIERS)[]).find(
              (q) => QUALIFIERS[q] === qualifier,
            ),
            ...(duration ? { time: timeText(duration) } : {}),
          }))
          // variables that tell others of the step are no coils
          .filter(({ coil }) => !isStep(coil)),
      }
    }),
    transitions: transitions.map((t) => ({
      id: idOf(t),
      from: sourcesOf(t).map(idOf),
      to: steps.filter((s) => into.get(s)!.includes(t)).map(idOf),
      condition: conditionOf(
        (t.children.find((c) => c.name === 'Condition') as { children: { text: string }[] } | undefined)
          ?.children[0].text ?? '',
        meanings,
        ownStep,
      ),
    })),
  }
}
const timeText = (duration: string) => {
  const seconds = secondsOf(duration)
  return seconds === undefined ? duration : `${seconds} s`
}

/** A condition in structured text: variables, flags and elapsed times of steps, AND, OR, NOT. @throws Error where it has more */
function conditionOf(
  text: string,
  meanings: Meanings,
  ownStep: (name: string) => string | undefined,
): string {
  if (text === 'TRUE') return ''
  const kept = /^FALSE \(\*([\s\S]*)\*\)$/.exec(text)
  if (kept) return kept[1].trim()
  const parsed = parseExpression(
    text
      .replace(/\b\w+\.X AND (\w+)\.T >= (T#[\w.]+)/g, (_, step: string, time: string) => {
        return `${step} for ${secondsOf(time) ?? 0} s`
      })
      .replace(/\bFOR (T#[\w.]+)/g, (_, time: string) => `for ${secondsOf(time) ?? 0} s`)
      .replace(/\bAND\b/g, 'and')
      .replace(/\bOR\b/g, 'or')
      .replace(/\bNOT\b/g, 'not'),
  )
  if (!parsed.ok) return text
  const mapped = (e: Expression): Expression => {
    if ('parts' in e) return { kind: e.kind, parts: e.parts.map(mapped) }
    const own = ownStep(e.name.replace(/\.X$/, ''))
    if (own !== undefined) return { ...e, name: own }
    if (e.kind === 'active') return { ...e, name: meanings.refOf(e.name) }
    return contactOf(e.name, e.closed, meanings)
  }
  return parsed.expression ? expressionText(mapped(parsed.expression)) : ''
}
