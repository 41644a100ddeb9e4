import type { Parameter } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { memoized } from '../sheet/memoized'
import { pipeSchema, type Pipe, type SheetComponent } from '../sheet/schema'
import { quantities, type Quantity } from '../units/quantities'
import { parseQuantity } from '../units/text'
import { nameOfComponent, type Rule } from './rule'

/**
 * A value is told that is so many times the usual one, where another unit brings it within so many times; settings and flows lie
 * closer together than loads do.
 */
const SLIP = { odd: 100, usual: 4 }
const CLOSE_SLIP = { odd: 12, usual: 1.5 }
const CLOSE: ReadonlySet<Quantity> = new Set(['pressure', 'flow', 'displacement'])
/** Quantities whose units are not mistaken for each other. */
const PLAIN: ReadonlySet<Quantity> = new Set(['ratio', 'share'])

export const unitMistake: Rule = {
  id: 'unit-slip',
  reason: 'A number with the wrong unit behind it is the commonest slip, and looks like any other number.',
  check: ({ sheet }) => [...sheet.components.flatMap(inComponent), ...sheet.pipes.flatMap(inPipe)],
}

type Found = ReturnType<Rule['check']>

/** Pounds per square inch in a standard atmosphere, by which bar are often turned into psi, and in a bar. */
const [ATMOSPHERES, BARS] = [14.696, 14.5038]
/** A number of bar that somebody would set, and how near a value must be to a multiple of it. */
const ROUND = 5
const NEAR = 0.002

/** The bar that were meant where a pressure in psi is 14.7 times a round number of them; none else. */
function meantBar(written: string): number | undefined {
  const read = /^\s*([\d.]+)\s*psi\s*$/.exec(written)
  if (!read) return undefined
  const value = Number(read[1])
  const isRound = (factor: number) => {
    const bar = value / factor
    const nearest = Math.round(bar / ROUND) * ROUND
    return nearest >= 2 * ROUND && Math.abs(bar - nearest) < NEAR * nearest
  }
  // a round number of psi was meant as such
  if (value % 50 === 0 || isRound(BARS) || !(isRound(ATMOSPHERES) || isRound(14.7))) return undefined
  return Math.round(value / 14.7 / ROUND) * ROUND
}
function atmosphereSlip(component: SheetComponent, name: string, label: string, written: string): Found {
  const bar = meantBar(written)
  if (bar === undefined) return []
  const value = `${bar} bar`
  return [
    {
      severity: 'warning',
      message: `${label} of ${nameOfComponent({ component })} is ${written}, 14.7 times ${bar}: 14.7 psi are an atmosphere, a bar is 14.504 psi. Was ${value} meant?`,
      remedy: `Write ${value}, or accept it.`,
      location: { component: component.id, parameter: name },
      fix: {
        label: `Make it ${value}`,
        does: 'setParameter',
        component: component.id,
        parameter: name,
        value,
      },
    },
  ]
}
const inComponent = memoized((component: SheetComponent): Found => {
  const parameters = (findKind(component.kind)?.parameters ?? {}) as Record<string, Parameter>
  return Object.entries(component.parameters).flatMap(([name, written]): Found => {
    const parameter = parameters[name]
    if (parameter?.type !== 'quantity' || typeof written !== 'string') return []
    const slip =
      parameter.quantity === 'pressure' ? atmosphereSlip(component, name, parameter.label, written) : []
    const meant = likelier(written, parameter.default, parameter.quantity)
    if (!meant) return slip
    return [
      {
        severity: 'warning',
        message: `${parameter.label} of ${nameOfComponent({ component })} is ${written}: was ${meant} meant?`,
        remedy: `${parameter.default} would be usual. Correct the unit, or accept it.`,
        location: { component: component.id, parameter: name },
        fix: {
          label: `Make it ${meant}`,
          does: 'setParameter',
          component: component.id,
          parameter: name,
          value: meant,
        },
      },
    ]
  })
})

const usual = pipeSchema.parse({ id: 'usual', from: { junction: 'a' }, to: { junction: 'b' } })
const inPipe = memoized((pipe: Pipe): Found =>
  (['bore', 'length'] as const).flatMap((field): Found => {
    const meant = likelier(pipe[field], usual[field], 'length')
    if (!meant) return []
    return [
      {
        severity: 'warning',
        message: `The ${field} of the line ${pipe.name ?? pipe.id} is ${pipe[field]}: was ${meant} meant?`,
        remedy: 'Correct the unit, or accept it.',
        location: { pipe: pipe.id },
        fix: { label: `Make it ${meant}`, does: 'setPipe', pipe: pipe.id, field, value: meant },
      },
    ]
  }),
)

/** The same number with a unit that makes it usual, where with its own unit it is far from usual. */
function likelier(written: string, usual: string, quantity: Quantity): string | undefined {
  if (PLAIN.has(quantity)) return undefined
  const [given, expected] = [parseQuantity(written, quantity), parseQuantity(usual, quantity)]
  if (!given.ok || !expected.ok || !(given.si > 0) || !(expected.si > 0)) return undefined
  const far = (si: number) => Math.max(si / expected.si, expected.si / si)
  const slips = (CLOSE.has(quantity) ? [SLIP, CLOSE_SLIP] : [SLIP]).filter(({ odd }) => far(given.si) >= odd)
  if (!slips.length) return undefined
  const [best] = quantities[quantity].units
    .map((unit) => `${given.value} ${unit.symbol}`)
    .flatMap((text) => {
      const other = parseQuantity(text, quantity)
      return other.ok && slips.some((s) => far(other.si) <= s.usual) ? [{ text, far: far(other.si) }] : []
    })
    .sort((a, b) => a.far - b.far)
  return best?.text
}
