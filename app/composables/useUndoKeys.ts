import { tinykeys } from 'tinykeys'
import { onMounted, onUnmounted } from 'vue'

/** Undo and redo by keys outside of fields, which undo what is typed in them. */
export function useUndoKeys(undo: () => void, redo: () => void): void {
  const outsideFields = (run: () => void) => (event: KeyboardEvent) => {
    if ((event.target as Element | null)?.matches?.('input, textarea, select')) return
    event.preventDefault()
    run()
  }
  let stop: (() => void) | undefined
  onMounted(() => {
    const [back, forth] = [outsideFields(undo), outsideFields(redo)]
    stop = tinykeys(window, { '$mod+z': back, '$mod+Shift+z': forth, '$mod+y': forth })
  })
  onUnmounted(() => stop?.())
}
