/** Goes to instants of the run that is shown and to parts of its sheet, from views beside it. */
import { useLiveRun } from '../stores/liveRun'
import { useSheetDocument } from '../stores/sheetDocument'
import { useSelection } from '../stores/selection'
import { useSimulationRuns } from '../stores/simulationRuns'

/** @param reveal brings a part of the sheet into view */
export function useRunPlaces(reveal: (id: string) => void = () => {}) {
  const runs = useSimulationRuns()
  const live = useLiveRun()
  const selection = useSelection()
  const sheetDocument = useSheetDocument()
  return {
    /** @param t s; a live run that goes on pauses */
    goTo(t: number): void {
      if (live.playing) void live.play(false)
      runs.time = Math.min(t, runs.shown?.result.duration ?? 0)
    },
    /** Selects a part and brings it into view. @returns whether it is drawn */
    look(part: string | undefined): boolean {
      if (part === undefined || !sheetDocument.sheet.components.some((c) => c.id === part)) return false
      selection.select([part])
      reveal(part)
      return true
    },
  }
}
