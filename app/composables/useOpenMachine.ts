/** Opens a machine with one of its variants: the sheet, what is saved of it, its runs, and drafts of earlier visits. */
import type { MachineDetail } from '#shared/api'
import { useLiveRun } from '../stores/liveRun'
import { useOwnSeries } from '../stores/ownSeries'
import { useSaving } from '../stores/saving'
import { useSheetDocument } from '../stores/sheetDocument'
import { useSimulationRuns } from '../stores/simulationRuns'
import { useTabs } from '../stores/tabs'

export function useOpenMachine() {
  const sheetDocument = useSheetDocument()
  const saving = useSaving()
  const ownSeries = useOwnSeries()
  const live = useLiveRun()
  const tabs = useTabs()
  const runs = useSimulationRuns()

  /** @param variant id of its sheet; the first one where none is given @throws FetchError where it cannot be had */
  return async function openMachine(machineId: string, variant?: string): Promise<void> {
    const query = variant ? { sheet: variant } : {}
    const [detail] = await Promise.all([
      $fetch<MachineDetail>(`/api/machines/${machineId}`, { query }),
      // without them sizes come from the standard series
      ownSeries.load(),
    ])
    live.close()
    saving.open(detail)
    runs.open(detail)
    tabs.open(detail.sheet.id)
    await sheetDocument.restoreUndo()
    await saving.findDrafts()
  }
}
