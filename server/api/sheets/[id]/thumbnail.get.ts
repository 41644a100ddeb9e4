import { findSummary } from '../../../database/summaries'

/** A small picture of the sheet; its address names the revision, so that it never changes. */
export default defineEventHandler((event) => {
  const summary = findSummary(useStore(), getRouterParam(event, 'id')!)
  if (!summary?.thumbnail) refuse(404, 'There is no picture of this sheet yet.')
  setHeader(event, 'content-type', 'image/svg+xml')
  if (Number(getQuery(event).revision) === summary.revision)
    setHeader(event, 'cache-control', 'private, max-age=31536000, immutable')
  return summary.thumbnail
})
