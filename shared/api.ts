/** Bodies of the API, described once: the server checks them, the interface takes its types from them. */
import { z } from 'zod'
import { LARGEST_SERIES, ownSeriesSchema, type OwnSeries } from '@oar-bench/core/size/own-series'
import { briefSchema, type Brief } from '@oar-bench/core/size/brief/brief'
import { migrateBrief } from '@oar-bench/core/size/brief/read'
import { isPrintable, UNPRINTABLE_MESSAGE, type Sheet } from '@oar-bench/core/sheet/schema'

/** A name as it is written in a line, with what is said where there is none. */
const named = (message: string) =>
  z
    .string()
    .trim()
    .min(1, message)
    .max(80)
    .refine(isPrintable, { error: `The name ${UNPRINTABLE_MESSAGE}.` })

export const machineBody = z.strictObject({
  name: named('Give the machine a name.'),
  summary: z.string().max(400).default(''),
})
/** The first variant of a machine that has no other. */
export const FIRST_VARIANT = 'First variant'
const variantName = named('Give the variant a name.')
export const variantNameBody = z.strictObject({ name: variantName })
/** A new variant, copied from another or empty. */
export const variantBody = z.strictObject({ name: variantName, from: z.string().max(64).optional() })
/** A save: the revision that it started from, and a name of its own by which its sender knows it again. */
const save = { revision: z.number().int().positive(), saveId: z.string().min(1).max(64).optional() }
export const briefBody = z.strictObject({ ...save, brief: z.preprocess(migrateBrief, briefSchema) })
/** The sheet itself is checked by the core, which says what is wrong where. */
export const sheetBody = z.strictObject({ ...save, sheet: z.unknown() })
export const runNameBody = z.strictObject({ name: named('Give the run a name.') })
/** A state of the sheet to keep under a name. */
export const revisionBody = z.strictObject({
  name: named('Give the revision a name.'),
  note: z.string().trim().max(400).default(''),
  sheet: z.unknown(),
})
/** A run to keep: its bytes (base64, compressed by gzip or not) and the sheet it came from. */
export const runBody = z.strictObject({
  name: named('Give the run a name.'),
  sheet: z.unknown(),
  data: z.base64(),
})

/** Series to add; one with the name of another takes its place. */
export const seriesBody = z.strictObject({
  series: ownSeriesSchema.array().min(1).max(LARGEST_SERIES.series),
})
export type { OwnSeries }

export const sessionBody = z.strictObject({ password: z.string().min(1).max(200) })
export interface SessionState {
  /** The server can be reached from other machines. */
  passwordDemanded: boolean
  signedIn: boolean
}
/** A copy of a machine under another name. */
export const copyBody = z.strictObject({ name: machineBody.shape.name })
export type { Brief }
export interface MachineRow {
  id: string
  name: string
  summary: string
  /** Of its first variant, whose state is given here. */
  sheetId: string
  sheetRevision: number
  variants: number
  updatedAt: number
  briefFilled: boolean
  /** What is known of the sheet; nothing where it was not looked at since it was changed. */
  sheet: {
    components: number
    errors: number
    warnings: number
    /** Findings that only say what is not drawn yet. */
    incomplete: number
    /** Values on the sheet that sizing has a result for, and those that agree with it. */
    sized: number
    agreeing: number
    /** Of those, how many wait for a person who says what they are for. */
    waiting: number
  } | null
  runs: number
  /** The last run that was saved; `current` where it is of the sheet as it is. */
  lastRun: { finished: boolean; conditions: number; createdAt: number; current: boolean } | null
}
export interface VariantRow {
  id: string
  name: string
}
export interface RunRow {
  id: string
  name: string
  schedule: string
  duration: number
  finished: boolean
  conditions: number
  createdAt: number
  versionHash: string
}
export interface RevisionRow {
  id: string
  name: string
  note: string
  createdAt: number
}
export interface MachineDetail {
  id: string
  name: string
  summary: string
  brief: Brief
  briefRevision: number
  /** The variant that is open. */
  sheet: { id: string; name: string; revision: number; content: Sheet }
  variants: VariantRow[]
  runs: RunRow[]
}
export interface Saved {
  revision: number
  updatedAt: number
}
