import type { H3Event } from 'h3'
import type { z } from 'zod'
import type { Finding } from '@oar-bench/core/sheet/finding'
import { issueText } from '@oar-bench/core/sheet/issue-text'
import { readSheet, readSheetText } from '@oar-bench/core/sheet/read'
import type { Sheet } from '@oar-bench/core/sheet/schema'

/** What comes with a refusal, beside the words for the person. */
export interface RefusalData {
  readonly problems?: readonly Finding[]
  /** What the server has, where a save started from something else. */
  readonly conflict?: { readonly revision: number; readonly saveId: string | null }
}
/** Ends a request with a plain message that the interface shows as it is. */
export function refuse(statusCode: number, message: string, data: RefusalData = {}): never {
  throw createError({ statusCode, statusMessage: 'Refused', message, data })
}

/** The body of a request, checked. */
export async function readChecked<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  const parsed = schema.safeParse(await readBody(event).catch(() => undefined))
  if (!parsed.success)
    refuse(400, parsed.error.issues.map((issue) => issueText(issue, 'the request')).join('; '))
  return parsed.data as z.infer<S>
}

/** A sheet out of a body, checked by the core. */
export function checkedSheet(data: unknown): Sheet {
  const read = readSheet(data)
  if (!read.ok) refuse(400, read.problems[0].message, { problems: read.problems })
  return read.sheet
}

/** A sheet as the database keeps it; of an older format too. */
export function storedSheet(content: string): Sheet {
  const read = readSheetText(content)
  if (!read.ok)
    refuse(500, `The kept sheet does not read: ${read.problems[0].message}`, { problems: read.problems })
  return read.sheet
}
