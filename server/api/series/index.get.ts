import type { OwnSeries } from '#shared/api'
import { listSeries } from '../../database/series'

/** The series of sizes of the workspace, by name. */
export default defineEventHandler((): OwnSeries[] => listSeries(useStore()))
