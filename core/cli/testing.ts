/** The command-line programs as processes, for tests. */
import { execFile, spawn } from 'node:child_process'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const programs = ['simulate', 'explain', 'export', 'control', 'size'] as const
export type Program = (typeof programs)[number]

export const root = fileURLToPath(new URL('../..', import.meta.url))
const folder = join(root, 'node_modules/.cache/oar-bench/cli')
/** The bundle of a program; it starts in a quarter of the time that its sources take. */
const bundled = (name: Program) => join(folder, `${name}.js`)

/** Global setup of Vitest: bundles the programs as they are now. */
export async function setup(): Promise<void> {
  const { build } = await import('esbuild')
  await build({
    entryPoints: programs.map((name) => join(root, 'core/cli', `${name}.ts`)),
    outdir: folder,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'error',
  })
}

export interface Ended {
  readonly code: number
  readonly out: string
  readonly err: string
}
const ended = (command: string, args: readonly string[]) =>
  new Promise<Ended>((resolve) =>
    execFile(command, args, { cwd: root }, (error, out, err) =>
      resolve({ code: error ? Number(error.code) : 0, out, err }),
    ),
  )
/** Runs a program in the root of the project until it ends. */
export const runBundled = (name: Program, ...args: string[]) =>
  ended(process.execPath, [bundled(name), ...args])
/** Runs a program whose output is closed after its first bytes, as `| head` does. */
export const runIntoClosedPipe = (name: Program, ...args: string[]) =>
  new Promise<Pick<Ended, 'code' | 'err'>>((resolve) => {
    const child = spawn(process.execPath, [bundled(name), ...args], { cwd: root })
    let err = ''
    child.stderr.on('data', (chunk: Buffer) => (err += chunk.toString()))
    child.stdout.once('data', () => child.stdout.destroy())
    child.on('close', (code) => resolve({ code: code ?? -1, err }))
  })
/** The same as the README has it, through npm. */
export const runByNpm = (name: Program, ...args: string[]) =>
  ended('npm', ['run', '--silent', name, '--', ...args])
