import { createPinia, disposePinia, setActivePinia } from 'pinia'
import { afterEach, expect, it, vi } from 'vitest'
import { useTabs } from './tabs'

/** What another tab says and hears. */
function otherTab() {
  const channel = new BroadcastChannel('oar-bench-sheets')
  const heard: string[] = []
  channel.addEventListener('message', ({ data }) => heard.push(`${data.event} ${data.sheet}`))
  const say = (event: string, sheet: string) => channel.postMessage({ tab: 'other', sheet, event })
  return { heard, say, close: () => channel.close() }
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
  other.say('opened', 'B')
  other.say('opened', 'A')
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(true))
  await vi.waitFor(() => expect(other.heard).toContain('present A'))
  // two at once are two
  other.say('saved', 'A')
  other.say('saved', 'A')
  other.say('saved', 'B')
  await vi.waitFor(() => expect(saved).toHaveBeenCalledTimes(2))
  tabs.announceSaved()
  await vi.waitFor(() => expect(other.heard).toContain('saved A'))
  other.say('closed', 'A')
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(false))
  tabs.open('B')
  await vi.waitFor(() => expect(other.heard).toContain('closed A'))
  // one that no longer answers is gone after a while
  other.say('present', 'B')
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(true))
  await vi.waitFor(() => expect(tabs.elsewhere).toBe(false), 6000)
})
