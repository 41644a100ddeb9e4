/** Writes that take a while, one at a time; of those that wait only the latest is made. */
import { promiseTimeout } from '@vueuse/core'

/** @param delay before each write, ms @param write may fail: the next one is made all the same */
export function latestWrite<T>(delay: number, write: (value: T) => Promise<void>) {
  let waiting: { readonly value: T } | undefined
  let running: Promise<void> | undefined
  async function work(): Promise<void> {
    while (waiting) {
      await promiseTimeout(delay)
      const { value } = waiting
      waiting = undefined
      await write(value).catch(() => undefined)
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
