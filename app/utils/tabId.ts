/** A name for this tab, and which tabs are alive: each holds a lock of its name as long as it lives. */
import { uint8ArrayToHex } from 'uint8array-extras'

export const randomId = () => uint8ArrayToHex(crypto.getRandomValues(new Uint8Array(12)))
export const TAB_ID = randomId()

const PREFIX = 'oar-bench-tab-'
/** Locks are there on secure pages only; without them no other tab counts as alive. */
const locks = typeof navigator === 'undefined' ? undefined : navigator.locks

/** Marks this tab as alive until it is closed. */
export function holdTabLock(): void {
  void locks?.request(PREFIX + TAB_ID, () => new Promise<never>(() => {})).catch(() => undefined)
}
/** The other tabs of this browser that are open now. */
export async function otherLiveTabs(): Promise<ReadonlySet<string>> {
  const held = (await locks?.query().catch(() => undefined))?.held ?? []
  const tabs = held.flatMap(({ name }) => (name?.startsWith(PREFIX) ? [name.slice(PREFIX.length)] : []))
  return new Set(tabs.filter((tab) => tab !== TAB_ID))
}
