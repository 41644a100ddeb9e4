/** What a failed request says to the person: the server's own words where it gave some. */
export function failureMessage(error: unknown): string {
  const e = error as { data?: { message?: string }; statusCode?: number; message?: string }
  if (e?.data?.message) return e.data.message
  if (e?.statusCode === undefined) return 'The server does not answer.'
  return e.message ?? 'Something went wrong.'
}
export const failureStatus = (error: unknown) => (error as { statusCode?: number })?.statusCode
