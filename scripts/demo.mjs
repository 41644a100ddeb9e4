/** npm run demo: installs what is missing, builds, migrates, seeds the demo data and serves. */
import { spawn } from 'node:child_process'
import { build, installPackages, tool } from './prepare.mjs'

installPackages()
build()
const folder = process.env.NUXT_DATA_FOLDER ?? '.data'
if (tool('tsx', ['demo/seed.ts', folder])) process.exit(1)
const port = process.env.PORT ?? '3000'
const host = process.env.HOST ?? '127.0.0.1'
const server = spawn(process.execPath, ['.output/server/index.mjs'], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, NUXT_DATA_FOLDER: folder, PORT: port, HOST: host },
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', (code) => process.exit(code ?? 0))

const address = `http://${host}:${port}`
for (let i = 0; i < 100; i++) {
  try {
    if ((await fetch(`${address}/api/machines`)).ok) {
      console.log(`\nOar Bench is up: ${address}\nStop it with Ctrl C.`)
      break
    }
  } catch {
    // not listening yet
  }
  await new Promise((resolve) => setTimeout(resolve, 100))
}
