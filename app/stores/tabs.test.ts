import { createPinia, disposePinia, setActivePinia } from 'pinia'
import { afterEach, expect, it, vi } from 'vitest'
import { useTabs } from './tabs'

/** Another tab: what it sends and receives. */
function otherTab() {
  const channel = new BroadcastChannel('oar-bench-sheets')
  const heard: string[] = []
  channel.addEventListener('message', ({ data }) => heard.push(`${data.event} ${data.sheet}`))
  const send = (event: string, sheet: string) => channel.postMessage({ tab: 'other', sheet, event })
  return { heard, send, close: () => channel.close() }
}
const pinia = createPinia()
setActivePinia(pinia)
const other = otherTab()
afterEach(() => {
  other.close()
  disposePinia(pinia)
})

it('knows of another tab on the same sheet, of its saves, and of its end', async () => {
  const tabs = useTabs()
  const saved = vi.fn()
  tabs.onSavedElsewhere(saved)
  await vi.waitFor(() => {
    tabs.open('A')
    expect(other.heard).toContain('opened A')
  })
  other.send('opened', 'B')
  other.send('opened', 'A')
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(true))
  await vi.waitFor(() => expect(other.heard).toContain('present A'))
  // two at once are two
  other.send('saved', 'A')
  other.send('saved', 'A')
  other.send('saved', 'B')
  await vi.waitFor(() => expect(saved).toHaveBeenCalledTimes(2))
  tabs.announceSaved()
  await vi.waitFor(() => expect(other.heard).toContain('saved A'))
  other.send('closed', 'A')
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(false))
  tabs.open('B')
  await vi.waitFor(() => expect(other.heard).toContain('closed A'))
  // one that no longer answers is gone after a while
  other.send('present', 'B')
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(true))
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(false), 6000)
})
