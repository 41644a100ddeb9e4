/** A step sequence as a sequential function chart: steps, their action blocks, transitions, divergences and convergences. */
import { parseExpression, type Expression } from '../../control/expression'
import { actionTime } from '../../control/terminals'
import type { ControlSection } from '../../sheet/schema'
import { element, type XmlElement } from '../xml'
import { timeLiteral } from './names'
import { QUALIFIERS } from './schema'
import type { Variables } from './variables'
import { documentation, pointIn, pointOut } from './write-rungs'

type Sequence = ControlSection['sequences'][number]
const sfcObject = (type: string, attributes: Record<string, string>, children: XmlElement[]) =>
  element('SfcObject', { 'xsi:type': type, ...attributes }, children)

/**
 * Writes a chart in two turns: at once its conditions, which may ask for steps of other charts; then, when all conditions and paths are
 * written, the steps with the variables that they drive.
 */
export function chartElements(
  { id, name, steps, transitions }: Sequence,
  variables: Variables,
  nameOf: (key: string, ref: string) => string,
): () => XmlElement[] {
  const stepNames = new Map(steps.map((s) => [s.id, nameOf(`${id}.${s.id}`, s.id)]))
  const ownStep = (ref: string) => {
    const [owner, step] = [ref.slice(0, id.length), ref.slice(id.length + 1)]
    return owner === id ? stepNames.get(step) : undefined
  }
  const conditions = transitions.map((t) => conditionText(t.condition, variables, ownStep))
  const coils = steps.map((s) => s.actions.map((a) => ({ ...a, variable: variables.coil(a.coil) })))

  return () => {
    let next = 1
    const objects: XmlElement[] = []
    /** Where the steps and the transitions end, and what leads on from there. */
    const afterStep = new Map(steps.map((s) => [s.id, next++]))
    const afterTransition = new Map(transitions.map((t) => [t.id, next++]))
    /** Points that lead from a step to each of its transitions, from a transition to each of its steps. */
    const branch = (type: string, from: number, to: readonly string[]): Map<string, number> => {
      if (to.length < 2) return new Map(to.map((one) => [one, from]))
      const points = new Map(to.map((one) => [one, next++]))
      objects.push(sfcObject(type, {}, [pointIn([from]), ...[...points.values()].map((p) => pointOut(p))]))
      return points
    }
    /** The one point into which several lead. */
    const join = (type: string, from: readonly number[]): readonly number[] => {
      if (from.length < 2) return from
      const point = next++
      objects.push(sfcObject(type, {}, [...from.map((p) => pointIn([p])), pointOut(point)]))
      return [point]
    }
    const toTransition = new Map(
      steps.map((s) => [
        s.id,
        branch(
          'SelectionDivergence',
          afterStep.get(s.id)!,
          transitions.filter((t) => t.from.includes(s.id)).map((t) => t.id),
        ),
      ]),
    )
    const toStep = new Map(
      transitions.map((t) => [t.id, branch('SimultaneousDivergence', afterTransition.get(t.id)!, t.to)]),
    )
    steps.forEach((step, i) => {
      const stepName = stepNames.get(step.id)!
      const into = transitions
        .filter((t) => t.to.includes(step.id))
        .map((t) => toStep.get(t.id)!.get(step.id)!)
      const entry = pointIn(join('SelectionConvergence', into))
      const flags = variables.flags.filter((f) => f.step === `${id}.${step.id}`)
      const actions = [
        ...coils[i].map(({ qualifier, time, variable }) => ({
          qualifier: QUALIFIERS[qualifier],
          seconds: actionTime(time) ?? 0,
          variable,
        })),
        ...flags.map((f) => ({ qualifier: f.seconds ? 'D' : 'N', seconds: f.seconds, variable: f.name })),
      ]
      const point = next++
      objects.push(
        sfcObject('Step', { name: stepName, ...(step.initial ? { initialStep: 'true' } : {}) }, [
          ...(step.name ? [documentation(step.name)] : []),
          entry,
          pointOut(afterStep.get(step.id)!),
          ...(actions.length ? [pointOut(point, 'ConnectionPointOutAction')] : []),
        ]),
      )
      if (actions.length)
        objects.push(
          sfcObject('ActionBlock', {}, [
            pointIn([point]),
            ...actions.map(({ qualifier, seconds, variable }) =>
              element('Action', { qualifier, ...(seconds ? { duration: timeLiteral(seconds) } : {}) }, [
                element('Reference', { name: variable }),
              ]),
            ),
          ]),
        )
    })
    transitions.forEach((t, i) => {
      const from = t.from.flatMap((step) => toTransition.get(step)?.get(t.id) ?? [])
      objects.push(
        sfcObject('Transition', { name: nameOf(`${id}.${t.id}`, t.id) }, [
          pointIn(join('SimultaneousConvergence', from)),
          pointOut(afterTransition.get(t.id)!),
          element('Condition', {}, [element('Inline', {}, [], conditions[i])]),
        ]),
      )
    })
    return [...(name ? [documentation(name)] : []), ...objects]
  }
}

/**
 * A condition as structured text. Steps of the chart itself are asked for by their flag and their elapsed time, others by variables.
 * One that cannot be read is never true, and stands beside it as a comment.
 */
function conditionText(
  condition: string,
  variables: Variables,
  ownStep: (ref: string) => string | undefined,
): string {
  const parsed = parseExpression(condition)
  if (!parsed.ok) return `FALSE (* ${condition.replaceAll('*)', '* )')} *)`
  if (!parsed.expression) return 'TRUE'
  const text = (e: Expression): string => {
    switch (e.kind) {
      case 'contact': {
        const own = ownStep(e.name)
        if (own !== undefined) return `${e.closed ? 'NOT ' : ''}${own}.X`
        const { operand, inverted } = variables.contact(e.name)
        return `${e.closed !== inverted ? 'NOT ' : ''}${operand}`
      }
      case 'active': {
        const own = ownStep(e.name)
        if (own !== undefined) return `(${own}.X AND ${own}.T >= ${timeLiteral(e.seconds)})`
        return variables.stepFlag(e.name, e.seconds)
      }
      case 'series':
        return e.parts.map((p) => (p.kind === 'parallel' ? `(${text(p)})` : text(p))).join(' AND ')
      case 'parallel':
        return e.parts.map(text).join(' OR ')
    }
  }
  return text(parsed.expression)
}
