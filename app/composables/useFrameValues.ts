/** Values of the frame of a live run, by signal; at a rate at which they can be read. */
import { refThrottled } from '@vueuse/core'
import { computed } from 'vue'
import { signalMap } from '@oar-bench/core/simulate/playback'
import { useLiveRun } from '../stores/liveRun'

/** ms between two changes of a number. */
const READABLE = 120

export function useFrameValues() {
  const live = useLiveRun()
  const frame = refThrottled(
    computed(() => live.frame),
    READABLE,
  )
  const index = computed(() => (live.base ? signalMap(live.base) : new Map<string, number>()))
  function valueOf(signal: string): number | undefined {
    const i = index.value.get(signal)
    return i === undefined ? undefined : frame.value?.values[i]
  }
  return { valueOf }
}
