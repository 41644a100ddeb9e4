/** npm run demo: installs what is missing, builds, migrates, seeds the demo data and serves. */
import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { accessSync, constants, mkdirSync } from 'node:fs'
import { build, installPackages, tool } from './prepare.mjs'

/** Ends with a plain message. */
function refuse(message) {
  console.error(message)
  process.exit(1)
}
const port = Number(process.env.PORT || '3000')
if (!Number.isInteger(port) || port < 1 || port > 65535)
  refuse(`PORT=${process.env.PORT} is no port: take a whole number from 1 to 65535.`)
const host = process.env.HOST ?? '127.0.0.1'
const folder = process.env.NUXT_DATA_FOLDER ?? '.data'
try {
  mkdirSync(folder, { recursive: true })
  accessSync(folder, constants.W_OK)
} catch (error) {
  refuse(
    `The data folder "${folder}" cannot be written (${error.code}). Choose another one with NUXT_DATA_FOLDER.`,
  )
}

/** Why the server could not listen there; nothing where it can. */
const listenProblem = () =>
  new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', (error) => resolve(error.code))
    probe.listen(port, host, () => probe.close(() => resolve(undefined)))
  })
const problem = await listenProblem()
if (problem)
  refuse(
    problem === 'EADDRINUSE'
      ? `Port ${port} is taken by another program. End it, or choose another port: PORT=${port === 65535 ? 3000 : port + 1} npm run demo`
      : `The server cannot listen on ${host}, port ${port} (${problem}). Choose another HOST or PORT.`,
  )

await installPackages()
await build()
if (await tool('tsx', ['demo/seed.ts', folder])) process.exit(1)
const server = spawn(process.execPath, ['.output/server/index.mjs'], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, NUXT_DATA_FOLDER: folder, PORT: String(port), HOST: host },
})
let ended = false
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', (code) => {
  ended = true
  process.exit(code ?? 0)
})

const shown = host.includes(':') ? `[${host}]` : host
const address = `http://${shown}:${port}`
for (let i = 0; i < 100 && !ended; i++) {
  try {
    if ((await fetch(`${address}/api/session`)).ok) {
      console.log(`\nOar Bench is up: ${address}\nStop it with Ctrl C.`)
      break
    }
  } catch {
    // not listening yet
  }
  await new Promise((resolve) => setTimeout(resolve, 100))
}
