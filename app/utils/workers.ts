import { wrap, type Remote } from 'comlink'

/** A worker with what it offers, and a promise that fails with it; it is to be ended by `worker.terminate`. */
export interface Helper<T> {
  readonly worker: Worker
  readonly remote: Remote<T>
  readonly failed: Promise<never>
}

/** @param failure what is said where the browser says nothing */
export function helperOf<T>(worker: Worker, failure: string): Helper<T> {
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || failure))
  })
  // it may fail while nobody waits for it; whoever asks next is told
  failed.catch(() => {})
  return { worker, failed, remote: wrap<T>(worker) }
}
