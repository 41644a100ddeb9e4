/** Something that is worked as long as it is held: by pointer, by touch or by a key. It falls back when it is let go, unless it is kept. */
import { ref } from 'vue'
import type { Operable } from '@oar-bench/core/simulate/operable'
import { useLiveRun } from '../stores/liveRun'

export function useHold(operable: () => Operable) {
  const live = useLiveRun()
  /** Value that is held now; none while it is let go. */
  const held = ref<number>()
  /** It stays where it is put. */
  const kept = ref(false)

  async function press(value: number): Promise<void> {
    if (held.value === value) return
    held.value = value
    const { component, spec } = operable()
    await live.set(component, spec.name, value)
  }
  async function letGo(): Promise<void> {
    if (held.value === undefined || kept.value) return
    held.value = undefined
    const { component, spec, rest } = operable()
    await live.set(component, spec.name, rest)
  }
  /** Lets it go although it is kept. */
  async function release(): Promise<void> {
    kept.value = false
    await letGo()
  }
  /** Handlers of a thing that works it while it is held. */
  const holding = (value: number) => ({
    onPointerdown(event: PointerEvent) {
      if (event.button !== 0) return
      ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
      // shift keeps it there, a second press lets it go
      if (kept.value && held.value === value) return void release()
      kept.value = event.shiftKey
      void press(value)
    },
    onPointerup: () => void letGo(),
    onPointercancel: () => void letGo(),
    onKeydown(event: KeyboardEvent) {
      if (event.key !== ' ' && event.key !== 'Enter') return
      event.preventDefault()
      event.stopPropagation()
      if (event.repeat) return
      if (kept.value && held.value === value) return void release()
      kept.value = event.shiftKey
      void press(value)
    },
    onKeyup(event: KeyboardEvent) {
      if (event.key === ' ' || event.key === 'Enter') void letGo()
    },
    onBlur: () => void letGo(),
  })
  return { held, kept, press, letGo, release, holding }
}
