/** Plays a run: the time that is shown goes on by itself. */
import { useRafFn } from '@vueuse/core'
import { ref, watch, type Ref } from 'vue'

/** @param time shown, s @param duration of the run, s; none without a run */
export function usePlayback(time: Ref<number>, duration: Readonly<Ref<number | undefined>>) {
  const playing = ref(false)
  /** Seconds of the run for each second of the clock. */
  const speed = ref(1)
  const { pause, resume } = useRafFn(({ delta }) => advance(delta / 1000), { immediate: false })
  /** @param elapsed time of the clock, s */
  function advance(elapsed: number): void {
    const end = duration.value
    if (end === undefined) return
    time.value = Math.min(end, time.value + speed.value * elapsed)
    if (time.value >= end) playing.value = false
  }
  watch(playing, (on) => (on ? resume() : pause()))
  /** Plays or pauses; from the start where the end is shown. */
  function toggle(): void {
    if (!playing.value && duration.value !== undefined && time.value >= duration.value) time.value = 0
    playing.value = !playing.value
  }
  return { playing, speed, toggle, advance }
}
