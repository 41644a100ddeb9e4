/** What is too large is refused before it is read. Runs and whole workspaces may be larger than sheets. */
const LARGEST = 25e6
const LARGEST_STORE = 100e6

export default defineEventHandler((event) => {
  if (!['POST', 'PUT', 'PATCH'].includes(event.method)) return
  const limit = /\/(runs|workspace)$/.test(getRequestURL(event).pathname) ? LARGEST_STORE : LARGEST
  const length = getRequestHeader(event, 'content-length')
  if (length === undefined && getRequestHeader(event, 'transfer-encoding') !== undefined)
    refuse(411, 'Say how long it is before sending it.')
  if (Number(length ?? 0) > limit) refuse(413, `That is larger than ${limit / 1e6} MB; nothing was changed.`)
})
