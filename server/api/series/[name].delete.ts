import type { OwnSeries } from '#shared/api'
import { deleteSeries, listSeries } from '../../database/series'

/** Takes a series away by its name. @returns those that are left */
export default defineEventHandler((event): OwnSeries[] => {
  const name = getRouterParam(event, 'name', { decode: true })!
  const store = useStore()
  if (!deleteSeries(store, name)) refuse(404, 'There is no such series; it may have been taken away already.')
  updateSummaries()
  return listSeries(store)
})
