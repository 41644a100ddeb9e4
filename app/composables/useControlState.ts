/** The control at the instant that is shown, of a recorded or a live run: contacts, currents, steps. */
import { computed } from 'vue'
import { carryingNodes } from '@oar-bench/core/control/drawing'
import { contactSignal } from '@oar-bench/core/control/terminals'
import { parseExpression } from '@oar-bench/core/control/expression'
import { sampleAt } from '@oar-bench/core/simulate/result'
import { signalMap } from '@oar-bench/core/simulate/playback'
import { useLiveRun } from '../stores/liveRun'
import { useSimulationRuns } from '../stores/simulationRuns'

export function useControlState() {
  const live = useLiveRun()
  const runs = useSimulationRuns()
  /** Where nothing has been run, nothing is known. */
  const known = computed(() => runs.shown !== undefined)
  const sample = computed(() => {
    const result = runs.shown?.result
    return result ? sampleAt(result.times, runs.time).index : 0
  })
  /** Value of a signal now, SI. */
  function value(signal: string): number | undefined {
    if (live.open && live.playing) return live.valueOf(signal)
    const result = runs.shown?.result
    const index = result && signalMap(result).get(signal)
    return index === undefined ? undefined : result!.columns[index]?.[sample.value]
  }
  const isClosed = (ref: string): boolean => (value(contactSignal(ref)) ?? 0) > 0.5
  const hasCurrent = (rung: string): boolean => (value(`${rung}.current`) ?? 0) > 0.5

  const carrying = computed(() => {
    const byRung = new Map<string, ReadonlySet<number>>()
    if (!known.value) return byRung
    for (const { id, contacts } of runs.shown!.sheet.control.rungs) {
      const parsed = parseExpression(contacts)
      if (!parsed.ok || !hasCurrent(id)) continue
      byRung.set(
        id,
        carryingNodes(parsed.expression, (c) => isClosed(c.name) !== (c.kind === 'contact' && c.closed)),
      )
    }
    return byRung
  })
  return { known, value, isClosed, hasCurrent, carrying }
}
