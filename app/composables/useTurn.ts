/** A setting that is turned step by step while the machine runs. Its lock nut is one, on the console and on the sheet. */
import { computed } from 'vue'
import type { Operable } from '@oar-bench/core/simulate/operable'
import { useLiveRun } from '../stores/liveRun'

const KEY_STEPS: Readonly<Record<string, number>> = {
  ArrowUp: 1,
  ArrowRight: 1,
  ArrowDown: -1,
  ArrowLeft: -1,
  PageUp: 10,
  PageDown: -10,
}

export function useTurn(operable: () => Operable) {
  const live = useLiveRun()
  const least = computed(() => operable().knob?.least ?? operable().spec.min)
  const greatest = computed(() => operable().knob?.greatest ?? operable().spec.max)
  /** As it was asked for last, SI. */
  const present = computed(() => live.orderOf(operable().key) ?? operable().rest)
  const loose = computed(() => live.loose.has(operable().key))
  const setLoose = (to: boolean) => live.loosen(operable().key, to)

  async function turn(steps: number): Promise<void> {
    const { component, spec, step } = operable()
    const within = Math.min(greatest.value, Math.max(least.value, present.value + steps * step))
    if (within !== present.value) await live.set(component, spec.name, within)
  }
  /** @returns whether the key turned it */
  function turnByKey(event: KeyboardEvent): boolean {
    if (!(event.key in KEY_STEPS)) return false
    event.preventDefault()
    event.stopPropagation()
    void turn(KEY_STEPS[event.key])
    return true
  }
  const turnByWheel = (event: WheelEvent) => turn(event.deltaY < 0 ? 1 : -1)
  return { least, greatest, present, loose, setLoose, turn, turnByKey, turnByWheel }
}
