/** Tasks beside the requests, and the summaries that follow from changes. */
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { tasks, type TaskDone, type TaskName, type TaskOrder } from '../background/tasks'

/** The built thread lies beside the built server. */
const file = join(dirname(process.argv[1] ?? '.'), 'thread.mjs')

interface Thread {
  readonly worker: Worker
  readonly waiting: Map<number, { resolve: () => void; reject: (error: Error) => void }>
}
let thread: Thread | undefined
let count = 0

function startThread(): Thread {
  const worker = new Worker(file, { workerData: { folder: useRuntimeConfig().dataFolder } })
  const own: Thread = { worker, waiting: new Map() }
  worker.unref()
  worker.on('message', ({ id, failure }: TaskDone) => {
    const task = own.waiting.get(id)
    own.waiting.delete(id)
    if (failure) task?.reject(Object.assign(new Error(failure.message), { code: failure.code }))
    else task?.resolve()
  })
  const ended = (error: Error) => {
    if (thread === own) thread = undefined
    for (const task of own.waiting.values()) task.reject(error)
    own.waiting.clear()
  }
  worker.on('error', ended)
  worker.on('exit', () => ended(new Error('the thread for long tasks has ended')))
  return own
}

/** Does a task without holding up other requests. @throws Error with the code of the system where it fails */
export function inBackground(task: TaskName, argument = ''): Promise<void> {
  // in development and in tests there is no built thread: it is done in turns between the requests
  if (!existsSync(file)) return tasks[task](useStore(), argument)
  const { worker, waiting } = (thread ??= startThread())
  const order: TaskOrder = { id: ++count, task, argument }
  return new Promise<void>((resolve, reject) => {
    waiting.set(order.id, { resolve, reject })
    worker.postMessage(order)
  })
}

let working: Promise<void> | undefined
let again = false
const changed = new Set<string>()
async function updateAll(): Promise<void> {
  do {
    again = false
    const [id = ''] = changed
    changed.delete(id)
    await inBackground('updateSummaries', id)
  } while (again || changed.size)
}
/** Asks for the summaries to be brought up to date; returns at once. @param sheetId sheet that was changed */
export function updateSummaries(sheetId?: string): void {
  if (sheetId) changed.add(sheetId)
  again = true
  working ??= updateAll()
    .catch((error: Error) => console.error(`No summaries: ${error.message}`))
    .finally(() => (working = undefined))
}
/** Resolves when all summaries are up to date. */
export const summariesUpdated = async () => working
