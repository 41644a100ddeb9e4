/** The routes of the API, each with its methods and what their bodies may be. */
export interface BodyRule {
  readonly types: readonly string[]
  /** Largest body, bytes. */
  readonly limit: number
}
export interface Route {
  readonly path: RegExp
  /** By method; none for one without a body. */
  readonly methods: Readonly<Partial<Record<'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', BodyRule | null>>>
}

const KB = 1e3
const MB = 1e6
const json = (limit: number): BodyRule => ({ types: ['application/json'], limit })
const NAMES = json(64 * KB)
const BRIEF = json(256 * KB)
/** Two hundred series with five hundred sizes each have about 2 MB. */
const SERIES = json(4 * MB)
/** A sheet of two thousand components with all their values has about 2 MB. */
const SHEET = json(4 * MB)
/** The sheet, and the run compressed and as base64. */
const RUN = json(280 * MB)
const ARCHIVE: BodyRule = { types: ['application/zip'], limit: 4000 * MB }
const id = '[^/]+'
const route = (path: string, methods: Route['methods']): Route => ({
  path: new RegExp(`^/api/${path.replaceAll(':id', id)}$`),
  methods,
})

export const routes: readonly Route[] = [
  route('machines', { GET: null, POST: NAMES }),
  route('machines/:id', { GET: null, PATCH: NAMES, DELETE: null }),
  route('machines/:id/brief', { PUT: BRIEF }),
  route('machines/:id/copy', { POST: NAMES }),
  route('machines/:id/sheets', { POST: NAMES }),
  route('sheets/:id', { PUT: SHEET, PATCH: NAMES, DELETE: null }),
  route('sheets/:id/thumbnail', { GET: null }),
  route('sheets/:id/revisions', { GET: null, POST: SHEET }),
  route('sheets/:id/runs', { POST: RUN }),
  route('revisions/:id', { GET: null, DELETE: null }),
  route('runs/:id', { GET: null, PATCH: NAMES, DELETE: null }),
  route('runs/:id/sheet', { GET: null }),
  route('series', { GET: null, PUT: SERIES }),
  route('series/:id', { DELETE: null }),
  route('session', { GET: null, POST: NAMES, DELETE: null }),
  route('workspace', { GET: null, POST: ARCHIVE }),
]

export interface Refusal {
  readonly status: number
  readonly message: string
  /** Methods that the route has, for 405. */
  readonly allow?: readonly string[]
}
export interface RequestHead {
  readonly path: string
  readonly method: string
  readonly type?: string
  readonly length?: string
  readonly transferEncoding?: string
}

/** Why a request to the API is refused by its head alone; none where it may go on. */
export function refusalOf({
  path,
  method,
  type,
  length,
  transferEncoding,
}: RequestHead): Refusal | undefined {
  const found = routes.find((r) => r.path.test(path))
  if (!found) return { status: 404, message: 'There is nothing under this address.' }
  const rule = found.methods[(method === 'HEAD' ? 'GET' : method) as keyof Route['methods']]
  if (rule === undefined)
    return {
      status: 405,
      message: `${method} is not possible under this address.`,
      allow: Object.keys(found.methods),
    }
  if (rule === null) return undefined
  if (length === undefined && transferEncoding !== undefined)
    return { status: 411, message: 'The length of the request must be given before it is sent.' }
  if (Number(length ?? 0) > rule.limit)
    return {
      status: 413,
      message: `That is larger than ${sizeText(rule.limit)}; nothing was changed.`,
    }
  if (!rule.types.includes((type ?? '').split(';')[0].trim().toLowerCase()))
    return { status: 415, message: `The request must be of type ${rule.types.join(' or ')}.` }
  return undefined
}
const sizeText = (bytes: number) => (bytes >= MB ? `${bytes / MB} MB` : `${bytes / KB} kB`)
