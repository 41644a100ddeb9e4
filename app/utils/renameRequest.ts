/** A new name goes to the server at once, and gets there although the page is left or loaded anew. */
export async function renameRequest(
  url: string,
  body: { readonly name: string; readonly summary?: string },
): Promise<void> {
  await $fetch(url, { method: 'PATCH', body, keepalive: true })
}
