/** Something that is worked as long as it is held: by pointer, by touch or by a key. It falls back when it is released, unless it is kept. */
import { computed } from 'vue'
import type { Operable } from '@oar-bench/core/simulate/operable'
import { useLiveRun } from '../stores/liveRun'

export function useHold(operable: () => Operable) {
  const live = useLiveRun()
  /** It is held here, now. */
  let pressed = false
  const value = computed(() => live.orderOf(operable().key) ?? operable().rest)
  /** It stays where it was put, wherever that was done. */
  const kept = computed(() => live.kept.has(operable().key))
  const set = (to: number) => live.set(operable().component, operable().spec.name, to)

  async function press(to: number, keep = false): Promise<void> {
    pressed = true
    live.keepAt(operable().key, keep)
    if (value.value !== to) await set(to)
  }
  async function letGo(): Promise<void> {
    const held = pressed
    pressed = false
    if (held && !kept.value) await set(operable().rest)
  }
  /** Lets it go although it is kept. */
  async function release(): Promise<void> {
    pressed = false
    live.keepAt(operable().key, false)
    await set(operable().rest)
  }
  /** With the keep key it stays, and a second press lets it go. */
  const begin = (to: number, keep: boolean) =>
    kept.value && value.value === to ? release() : press(to, keep)
  const isKey = (event: KeyboardEvent) => event.key === ' ' || event.key === 'Enter'
  /** Handlers of a thing that works it while it is held. */
  const holding = (to: number) => ({
    onPointerdown(event: PointerEvent) {
      if (event.button !== 0) return
      ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
      void begin(to, event.shiftKey)
    },
    onPointerup: () => void letGo(),
    onPointercancel: () => void letGo(),
    onKeydown(event: KeyboardEvent) {
      if (!isKey(event)) return
      event.preventDefault()
      event.stopPropagation()
      if (!event.repeat) void begin(to, event.shiftKey)
    },
    onKeyup(event: KeyboardEvent) {
      if (isKey(event)) void letGo()
    },
    onBlur: () => void letGo(),
  })
  return { value, kept, press, letGo, release, holding }
}
