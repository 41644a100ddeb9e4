/** What a failed request says to the person: the server's own words where it gave some. */
interface Failure {
  readonly name?: string
  readonly data?: { readonly message?: string; readonly data?: { readonly conflict?: Conflict } }
  readonly statusCode?: number
  readonly message?: string
}
/** What the server has, where it refused a save that started from something else. */
export interface Conflict {
  readonly revision: number
  /** The save that made it. */
  readonly saveId: string | null
}

export function failureMessage(error: unknown): string {
  const e = (error ?? {}) as Failure
  if (e.data?.message) return e.data.message
  if (e.statusCode !== undefined || e.name !== 'FetchError') return e.message || 'Something went wrong.'
  return 'The server does not answer.'
}
export const failureStatus = (error: unknown) => (error as Failure | undefined)?.statusCode
export const conflictData = (error: unknown) => (error as Failure | undefined)?.data?.data?.conflict
