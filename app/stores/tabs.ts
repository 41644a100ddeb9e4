/** Which other tabs of this browser have the same sheet open. */
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { acceptHMRUpdate, defineStore } from 'pinia'
import { onScopeDispose, ref } from 'vue'
import { TAB_ID } from '../utils/tabId'

/** A tab that does not answer for so long is gone, ms. */
const TIMEOUT = 3000

interface Message {
  readonly tab: string
  readonly sheet: string
  readonly event: 'opened' | 'present' | 'saved' | 'closed'
}

export const useTabs = defineStore('tabs', () => {
  /** Another tab has this sheet open as well. */
  const elsewhere = ref(false)
  let sheetId = ''
  let lastHeard = 0
  const savedListeners = new Set<() => void>()
  // of the store, not of the component that happens to use it first
  const channel =
    typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('oar-bench-sheets')
  onScopeDispose(() => channel?.close())
  const send = (event: Message['event']) =>
    channel?.postMessage({ tab: TAB_ID, sheet: sheetId, event } satisfies Message)

  function receive(message: Message): void {
    if (message.tab === TAB_ID || message.sheet !== sheetId) return
    elsewhere.value = message.event !== 'closed'
    lastHeard = Date.now()
    if (message.event === 'opened') send('present')
    // where a third tab has it open too, it answers
    if (message.event === 'closed') send('opened')
    if (message.event === 'saved') for (const listener of savedListeners) listener()
  }
  channel?.addEventListener('message', ({ data }: MessageEvent<Message>) => receive(data))

  /** This tab now has a sheet open, and no longer the one before. */
  function open(id: string): void {
    if (sheetId && sheetId !== id) send('closed')
    sheetId = id
    elsewhere.value = false
    send('opened')
  }
  const announceSaved = () => send('saved')
  /** @param listener called when another tab has saved the sheet that is open here */
  const onSavedElsewhere = (listener: () => void) => savedListeners.add(listener)

  if (typeof window !== 'undefined') useEventListener(window, 'pagehide', () => send('closed'))
  useIntervalFn(() => {
    if (!elsewhere.value) return
    if (Date.now() - lastHeard > TIMEOUT) elsewhere.value = false
    else send('opened')
  }, TIMEOUT / 3)
  return { elsewhere, open, announceSaved, onSavedElsewhere }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useTabs, import.meta.hot))
