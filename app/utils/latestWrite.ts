/** Writes that take a while, one at a time; of those that wait only the latest is made. */
import { promiseTimeout } from '@vueuse/core'

/** @param delayOf before a value is written, ms @param write may fail: the next one is made all the same */
export function latestWrite<T>(delayOf: (value: T) => number, write: (value: T) => Promise<void>) {
  let waiting: { readonly value: T } | undefined
  let running: Promise<void> | undefined
  async function work(): Promise<void> {
    while (waiting) {
      const delay = delayOf(waiting.value)
      if (delay) await promiseTimeout(delay)
      const { value } = waiting
      waiting = undefined
      try {
        await write(value)
      } catch {
        // storage that is full or denied: what is kept is of an earlier state
      }
    }
    running = undefined
  }
  return {
    put(value: T): void {
      waiting = { value }
      running ??= work()
    },
    /** Resolves when nothing waits any more. */
    done: async () => running,
  }
}
