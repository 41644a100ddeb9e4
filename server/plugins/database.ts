/** Makes ready what the server needs before it listens; says in plain words what is missing. */
import { repair } from '../database/machines'
import { isLoopback, listenAddress, portProblem } from '../security/hosts'
import { startFailure } from '../utils/failures'

function end(message: string): never {
  console.error(message)
  process.exit(1)
}

export default defineNitroPlugin(() => {
  // read when the server begins to listen
  const address = (process.env.HOST = listenAddress())
  process.on('uncaughtException', (error: NodeJS.ErrnoException) => {
    if (error.syscall === 'listen') end(startFailure(error, useRuntimeConfig().dataFolder))
  })
  const problem = portProblem()
  if (problem) end(problem)
  try {
    for (const said of repair(useStore())) console.error(said)
    const made = prepareAccess(useRuntimeConfig().dataFolder)
    if (!isLoopback(address))
      console.error(
        made
          ? `The server can be reached from other machines. The password is shown this once: ${made}`
          : 'The server can be reached from other machines, and demands its password.',
      )
  } catch (error) {
    end(startFailure(error as Error, useRuntimeConfig().dataFolder))
  }
})
