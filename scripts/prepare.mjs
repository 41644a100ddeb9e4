/** Steps that both commands share: install what is missing, build what has changed. */
import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))
process.chdir(root)

/** Runs a command with its output shown. @returns its exit code */
export const sh = (command, args, env = {}) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { stdio: 'inherit', env: { ...process.env, ...env } })
    child.on('error', (error) => {
      console.error(error.message)
      resolve(1)
    })
    child.on('close', (code) => resolve(code ?? 1))
  })
/** A tool of the project, run by this Node. */
export const tool = (name, args, env) =>
  sh(process.execPath, [join('node_modules', '.bin', name), ...args], env)

function digest(paths) {
  const hash = createHash('sha256')
  const add = (path) => {
    if (!existsSync(path)) return
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name))
    else hash.update(path).update(readFileSync(path))
  }
  paths.forEach(add)
  return hash.digest('hex')
}
const stampFile = (name) => join('node_modules', '.cache', 'oar-bench', name)
const isDone = (name, value) => existsSync(stampFile(name)) && readFileSync(stampFile(name), 'utf8') === value
function remember(name, value) {
  mkdirSync(dirname(stampFile(name)), { recursive: true })
  writeFileSync(stampFile(name), value)
}

export async function installPackages() {
  const wanted = digest(['package.json', 'core/package.json', 'package-lock.json'])
  if (isDone('packages', wanted)) return
  console.log('Installing packages (SQLite is compiled here, which takes some minutes) …')
  // Node's own headers, where the system has them; else node-gyp looks for them itself
  const env = existsSync('/usr/include/node/node.h') ? { npm_config_nodedir: '/usr' } : {}
  if (await sh('npm', ['ci', '--no-audit', '--no-fund'], env)) process.exit(1)
  remember('packages', wanted)
}

export async function build() {
  const sources = ['app', 'core', 'server', 'shared', 'public', 'nuxt.config.ts', 'package-lock.json']
  const wanted = digest(sources)
  if (existsSync('.output/server/index.mjs') && isDone('build', wanted)) return
  console.log('Building …')
  if (await tool('nuxt', ['build'])) process.exit(1)
  remember('build', wanted)
}

/** From Debian's packages: the browser of the tests, and readers of PDF that the exporter does not use. */
export async function installTools() {
  const wanted = { chromium: '/usr/bin/chromium', 'poppler-utils': '/usr/bin/pdftotext' }
  const missing = Object.keys(wanted).filter((name) => !existsSync(wanted[name]))
  if (!missing.length) return
  console.log(`Installing ${missing.join(' and ')} …`)
  const admin = process.getuid?.() === 0 ? [] : ['sudo']
  const apt = (...args) => {
    const [command, ...rest] = [...admin, 'apt-get', ...args]
    return sh(command, rest, { DEBIAN_FRONTEND: 'noninteractive' })
  }
  await apt('update')
  if (await apt('install', '-y', '--no-install-recommends', ...missing)) {
    console.error(`${missing.join(' and ')} could not be installed; install them by hand.`)
    process.exit(1)
  }
}
