import { useEventListener } from '@vueuse/core'

/** Undo and redo by keys outside of fields, which have an undo of their own. */
export function useUndoKeys(undo: () => void, redo: () => void): void {
  useEventListener('keydown', (event: KeyboardEvent) => {
    const inField = (event.target as Element | null)?.matches?.('input, textarea, select')
    if (inField || !(event.ctrlKey || event.metaKey) || event.altKey) return
    const key = event.key.toLowerCase()
    if (key !== 'z' && key !== 'y') return
    event.preventDefault()
    if (key === 'y' || event.shiftKey) redo()
    else undo()
  })
}
