import { wrap, type Remote } from 'comlink'

/** A worker with its remote interface, and a promise that rejects when the worker fails. End it with `worker.terminate()`. */
export interface WorkerClient<T> {
  readonly worker: Worker
  readonly remote: Remote<T>
  readonly failed: Promise<never>
}

/** @param failure message where the browser gives none */
export function workerClient<T>(worker: Worker, failure: string): WorkerClient<T> {
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || failure))
  })
  // it may fail while nothing waits for it; the next caller sees the rejection
  failed.catch(() => {})
  return { worker, failed, remote: wrap<T>(worker) }
}
