/** All machines of a workspace as one archive: workspace.json lists its contents, every sheet is a sheet file. */
import { z } from 'zod'
import { issueText } from '../sheet/issue-text'
import { ILL_FORMED_MESSAGE, isWellFormed } from '../sheet/schema'
import { LARGEST_SERIES, ownSeriesSchema } from '../size/own-series'
import { briefSchema } from '../size/brief/brief'
import { migrateBrief } from '../size/brief/read'

export const WORKSPACE_FORMAT = 'oar-bench-workspace'
export const WORKSPACE_VERSION = 3

const name = z.string().trim().min(1).max(80).refine(isWellFormed, { error: ILL_FORMED_MESSAGE })
const file = z.string().min(1).max(200)
const when = z.number().int().min(0).describe('Milliseconds since 1970.')
export const workspaceSchema = z.strictObject({
  format: z.literal(WORKSPACE_FORMAT),
  version: z.literal([1, 2, WORKSPACE_VERSION]),
  series: ownSeriesSchema
    .array()
    .max(LARGEST_SERIES.series)
    .default([])
    .describe('Series of sizes that were added to the standard ones; since version 3.'),
  machines: z.array(
    z.strictObject({
      name,
      summary: z.string().max(400).default(''),
      brief: z.preprocess(migrateBrief, briefSchema),
      variants: z
        .array(
          z.strictObject({
            name,
            sheet: file.describe('Name of its sheet file in the archive.'),
            revisions: z
              .array(z.strictObject({ name, note: z.string().max(400), createdAt: when, sheet: file }))
              .default([]),
            runs: z
              .array(
                z.strictObject({
                  name,
                  createdAt: when,
                  sheet: file.describe('The sheet that was run.'),
                  data: file.describe('The run, as core/formats/run-file.ts writes it.'),
                }),
              )
              .default([]),
          }),
        )
        .min(1),
    }),
  ),
})

export type WorkspaceContents = z.infer<typeof workspaceSchema>
/** The entry of the archive that lists what is in it. */
export const WORKSPACE_LIST = 'workspace.json'

/** The list of an archive out of its text. @throws Error with words for people */
export function readWorkspaceList(text: string): WorkspaceContents {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    throw new Error(`${WORKSPACE_LIST} in the archive is not JSON.`)
  }
  const version = (data as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > WORKSPACE_VERSION)
    throw new Error(
      `The workspace has version ${version}; this program reads up to version ${WORKSPACE_VERSION}.`,
    )
  const parsed = workspaceSchema.safeParse(data)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new Error(`${WORKSPACE_LIST}: ${issueText(issue, 'the list')}`)
}
