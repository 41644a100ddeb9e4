/** Series that a person adds to the standard ones: sizes that a supplier or a store has. They are kept with the workspace. */
import { z } from 'zod'
import { isPrintable, UNPRINTABLE_MESSAGE } from '../sheet/schema'
import { parseQuantity } from '../units/text'
import { standardSeries, type Series, type SeriesName, type SeriesSet } from './series'
import { inSentence } from './text'

export const seriesNames = Object.keys(standardSeries) as SeriesName[]

/** How a series of one's own counts. */
export const seriesUses = {
  added: 'beside the standard',
  instead: 'in place of the standard',
} as const
export type SeriesUse = keyof typeof seriesUses

export const LARGEST_SERIES = { series: 200, sizes: 500 } as const

const line = (most: number) =>
  z
    .string()
    .trim()
    .max(most)
    .refine(isPrintable, { error: `The text ${UNPRINTABLE_MESSAGE}.` })

export const ownSeriesSchema = z
  .strictObject({
    name: line(80).min(1, 'Give the series a name.').describe('By which it is known in the workspace.'),
    of: z.enum(seriesNames as [SeriesName, ...SeriesName[]]).describe('The standard series that it is for.'),
    use: z.enum(['added', 'instead']),
    source: line(120).describe('Where its sizes are from.'),
    sizes: z.array(z.string().trim().min(1).max(40)).min(1).max(LARGEST_SERIES.sizes),
  })
  .superRefine(({ of, sizes }, context) => {
    sizes.forEach((text, i) => {
      const message = sizeProblem(of, text)
      if (message) context.addIssue({ code: 'custom', path: ['sizes', i], message })
    })
  })
export type OwnSeries = z.infer<typeof ownSeriesSchema>

/** What is wrong with a size of a series, for people; nothing where it can be used. */
export function sizeProblem(of: SeriesName, text: string): string | undefined {
  const { quantity, label } = standardSeries[of]
  const read = parseQuantity(text, quantity)
  if (!read.ok) return read.message
  return read.si > 0 ? undefined : `Sizes of ${inSentence(label)} are above zero, not "${text}".`
}

/** @returns the sizes, SI */
const sizesOf = ({ of, sizes }: OwnSeries): number[] =>
  sizes.flatMap((text) => {
    const read = parseQuantity(text, standardSeries[of].quantity)
    return read.ok ? [read.si] : []
  })

/** The series that are in force: the standard ones with those of the workspace beside or in place of them. */
export function seriesInForce(own: readonly OwnSeries[]): SeriesSet {
  if (!own.length) return standardSeries
  const inForce = (name: SeriesName): Series => {
    const standard = standardSeries[name]
    const mine = own.filter(({ of }) => of === name)
    if (!mine.length) return standard
    const replaced = mine.some(({ use }) => use === 'instead')
    const sources = mine.map((s) => s.source || s.name)
    const values = [...(replaced ? [] : standard.values), ...mine.flatMap(sizesOf)].sort((a, b) => a - b)
    return {
      label: standard.label,
      quantity: standard.quantity,
      source: [...(replaced ? [] : [standard.source]), ...new Set(sources)].join(', '),
      // the same size in two series, or in two units, is one
      values: values.filter((v, i) => i === 0 || v > values[i - 1] * (1 + 1e-9)),
    }
  }
  return Object.fromEntries(seriesNames.map((name) => [name, inForce(name)])) as Record<SeriesName, Series>
}

/** Series with others added; one with the name of another takes its place. */
export function withSeries(own: readonly OwnSeries[], added: readonly OwnSeries[]): OwnSeries[] {
  const names = new Set(added.map(({ name }) => name))
  return [...own.filter(({ name }) => !names.has(name)), ...added]
}
