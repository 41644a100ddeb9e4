import type { MachineRow } from '#shared/api'
import { listMachines } from '../../database/machines'

export default defineEventHandler((): MachineRow[] => {
  updateSummaries()
  return listMachines(useStore())
})
