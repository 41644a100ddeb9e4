import { LARGEST_SERIES, withSeries } from '../../../core/size/own-series'
import { seriesBody, type OwnSeries } from '#shared/api'
import { listSeries, putSeries } from '../../database/series'

/** Adds series; one with the name of another takes its place. @returns all of them */
export default defineEventHandler(async (event): Promise<OwnSeries[]> => {
  const { series } = await readChecked(event, seriesBody)
  const store = useStore()
  if (withSeries(listSeries(store), series).length > LARGEST_SERIES.series)
    refuse(400, `A workspace has ${LARGEST_SERIES.series} series of sizes at most.`)
  putSeries(store, series)
  updateSummaries()
  return listSeries(store)
})
