/** The thread for what takes long, with a connection to the database of its own. */
import { parentPort, workerData } from 'node:worker_threads'
import { connectDatabase } from '../database/open'
import { tasks, type TaskDone, type TaskOrder } from './tasks'

const { db } = connectDatabase((workerData as { folder: string }).folder)
const done = (message: TaskDone) => parentPort!.postMessage(message)
parentPort!.on('message', ({ id, task, argument }: TaskOrder) => {
  tasks[task](db, argument).then(
    () => done({ id }),
    (error: Error & { code?: string }) =>
      done({ id, failure: { message: error.message, ...(error.code ? { code: error.code } : {}) } }),
  )
})
