/** All machines of a workspace as one archive: what is in it stands in workspace.json, every sheet is a sheet file of its own. */
import { strFromU8 } from 'fflate'
import { z } from 'zod'
import { readSheetText, writeSheetText } from '../sheet/read'
import type { Sheet } from '../sheet/schema'
import { briefSchema } from '../size/brief'
import { decodeRun } from './run-file'
import { unzip, zip, type ArchiveLimits } from './zip'

export const WORKSPACE_FORMAT = 'oar-bench-workspace'
export const WORKSPACE_VERSION = 1

const name = z.string().trim().min(1).max(80)
const file = z.string().min(1).max(200)
const when = z.number().int().min(0).describe('Milliseconds since 1970.')
export const workspaceSchema = z.strictObject({
  format: z.literal(WORKSPACE_FORMAT),
  version: z.literal(WORKSPACE_VERSION),
  machines: z
    .array(
      z.strictObject({
        name,
        summary: z.string().max(400).default(''),
        brief: briefSchema,
        variants: z
          .array(
            z.strictObject({
              name,
              sheet: file.describe('Name of its sheet file in the archive.'),
              revisions: z
                .array(z.strictObject({ name, note: z.string().max(400), createdAt: when, sheet: file }))
                .max(1000)
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
                .max(1000)
                .default([]),
            }),
          )
          .min(1)
          .max(50),
      }),
    )
    .max(500),
})

type Contents = z.infer<typeof workspaceSchema>
type MachineOf = Contents['machines'][number]
type VariantOf = MachineOf['variants'][number]
type Filled<T, S> = Omit<T, keyof S> & S
export type WorkspaceRun = Filled<VariantOf['runs'][number], { sheet: Sheet; data: Uint8Array }>
export type WorkspaceRevision = Filled<VariantOf['revisions'][number], { sheet: Sheet }>
export type WorkspaceVariant = Filled<
  VariantOf,
  { sheet: Sheet; revisions: WorkspaceRevision[]; runs: WorkspaceRun[] }
>
export type WorkspaceMachine = Filled<MachineOf, { variants: WorkspaceVariant[] }>

export function writeWorkspace(machines: readonly WorkspaceMachine[]): Uint8Array {
  const files: Record<string, string | Uint8Array> = {}
  const kept = new Map<string, string>()
  /** The name of a file with this content; equal sheets are one file. */
  const put = (wanted: string, content: string | Uint8Array) => {
    const known = typeof content === 'string' ? kept.get(content) : undefined
    if (known) return known
    files[wanted] = content
    if (typeof content === 'string') kept.set(content, wanted)
    return wanted
  }
  const contents: Contents = {
    format: WORKSPACE_FORMAT,
    version: WORKSPACE_VERSION,
    machines: machines.map((machine, m) => ({
      ...machine,
      variants: machine.variants.map((variant, v) => {
        const at = `machine-${m + 1}/variant-${v + 1}`
        return {
          ...variant,
          sheet: put(`${at}.json`, writeSheetText(variant.sheet)),
          revisions: variant.revisions.map((revision, r) => ({
            ...revision,
            sheet: put(`${at}-revision-${r + 1}.json`, writeSheetText(revision.sheet)),
          })),
          runs: variant.runs.map((run, r) => ({
            ...run,
            sheet: put(`${at}-run-${r + 1}.json`, writeSheetText(run.sheet)),
            data: put(`${at}-run-${r + 1}.run`, run.data),
          })),
        }
      }),
    })),
  }
  return zip({ 'workspace.json': JSON.stringify(contents, null, 2) + '\n', ...files })
}

/** Reads an archive wholly before anything of it is used. @throws Error with words for people, naming the file concerned */
export function readWorkspace(bytes: Uint8Array, limits?: ArchiveLimits): WorkspaceMachine[] {
  const files = unzip(bytes, limits)
  const listed = files.get('workspace.json')
  if (!listed) throw new Error('The archive has no workspace.json: it is no workspace of Oar Bench.')
  let data: unknown
  try {
    data = JSON.parse(strFromU8(listed))
  } catch {
    throw new Error('workspace.json in the archive is not JSON.')
  }
  const version = (data as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > WORKSPACE_VERSION)
    throw new Error(
      `The workspace has version ${version}; this program reads up to version ${WORKSPACE_VERSION}.`,
    )
  const parsed = workspaceSchema.safeParse(data)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    throw new Error(`workspace.json: ${issue.path.join('.')}: ${issue.message}`)
  }
  const content = (path: string): Uint8Array => {
    const found = files.get(path)
    if (!found) throw new Error(`The archive has no file "${path}".`)
    return found
  }
  const read = new Map<string, Sheet>()
  const sheet = (path: string): Sheet => {
    const known = read.get(path)
    if (known) return known
    const result = readSheetText(strFromU8(content(path)))
    if (!result.ok) throw new Error(`${path}: ${result.problems[0].message}`)
    read.set(path, result.sheet)
    return result.sheet
  }
  const run = (path: string): Uint8Array => {
    try {
      decodeRun(content(path))
    } catch (error) {
      throw new Error(`${path}: ${(error as Error).message}`, { cause: error })
    }
    return content(path)
  }
  return parsed.data.machines.map((machine) => ({
    ...machine,
    variants: machine.variants.map((variant) => ({
      ...variant,
      sheet: sheet(variant.sheet),
      revisions: variant.revisions.map((r) => ({ ...r, sheet: sheet(r.sheet) })),
      runs: variant.runs.map((r) => ({ ...r, sheet: sheet(r.sheet), data: run(r.data) })),
    })),
  }))
}
