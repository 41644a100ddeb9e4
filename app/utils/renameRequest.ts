/** Sends a new name to the server; the request is completed even when the page is closed or reloaded. @throws FetchError where the server refuses */
export async function renameRequest(
  url: string,
  body: { readonly name: string; readonly summary?: string },
): Promise<void> {
  await $fetch(url, { method: 'PATCH', body, keepalive: true })
}
