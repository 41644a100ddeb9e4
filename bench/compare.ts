/**
 * The solver against an earlier revision, in one process and by turns: user CPU of each demo schedule, medians, ratios and their
 * geometric mean.
 *   npm run bench:compare -- REVISION [--runs N] [--machine WORDS]
 */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, symlinkSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import type * as Machines from '../demo/machines'
import type * as ControlRun from '../core/control/run'
import type * as Run from '../core/simulate/run'
import { median } from './app'

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { runs: { type: 'string', default: '7' }, machine: { type: 'string', default: '' } },
})
const [revision] = positionals
if (!revision) {
  console.error('Usage: npm run bench:compare -- REVISION [--runs N] [--machine WORDS]')
  process.exit(2)
}
const runs = Number(values.runs)

interface Version {
  readonly demoMachines: typeof Machines.demoMachines
  readonly compileMachine: typeof ControlRun.compileMachine
  readonly run: typeof Run.run
}
async function versionAt(root: string): Promise<Version> {
  const [{ demoMachines }, { compileMachine }, { run }] = await Promise.all([
    import(join(root, 'demo/machines.ts')) as Promise<typeof Machines>,
    import(join(root, 'core/control/run.ts')) as Promise<typeof ControlRun>,
    import(join(root, 'core/simulate/run.ts')) as Promise<typeof Run>,
  ])
  return { demoMachines, compileMachine, run }
}
/** All schedules of the demo, by machine, variant and schedule. */
const circuits = ({ demoMachines, compileMachine, run }: Version) =>
  new Map(
    demoMachines().flatMap((m) =>
      m.variants.flatMap((v) =>
        v.sheet.schedules.map((s) => {
          const { compiled } = compileMachine(v.sheet, s.id)
          return [`${m.name}, ${v.name}, ${s.name || s.id}`, () => run(compiled!).statistics.steps] as const
        }),
      ),
    ),
  )
/** User CPU, ms. */
function cost(work: () => number): { ms: number; steps: number } {
  const before = process.cpuUsage()
  const steps = work()
  return { ms: process.cpuUsage(before).user / 1000, steps }
}

const root = resolve(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.compare-'))
try {
  const files = ['core', 'demo', 'package.json']
  const archive = execFileSync('git', ['archive', revision, ...files], { cwd: root, maxBuffer: 1e9 })
  execFileSync('tar', ['x', '-C', folder], { input: archive })
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'))
  const [before, now] = [circuits(await versionAt(folder)), circuits(await versionAt(root))]
  console.log(`circuit, schedule; ms at ${revision}; ms now; ratio; steps`)
  const ratios: number[] = []
  for (const [name, work] of now) {
    const old = before.get(name)
    if (!old || !name.includes(values.machine)) continue
    const times: [number[], number[]] = [[], []]
    let steps = [0, 0]
    // the first of each is to warm up
    for (let i = 0; i <= runs; i++) {
      const [a, b] = i % 2 ? [cost(work), cost(old)].reverse() : [cost(old), cost(work)]
      if (!i) continue
      times[0].push(a.ms)
      times[1].push(b.ms)
      steps = [a.steps, b.steps]
    }
    const [a, b] = times.map(median)
    ratios.push(b / a)
    const counted = steps[0] === steps[1] ? String(steps[0]) : `${steps[0]} -> ${steps[1]}`
    console.log(`${name}; ${a.toFixed(1)}; ${b.toFixed(1)}; ${(b / a).toFixed(2)}; ${counted}`)
  }
  const mean = Math.exp(ratios.reduce((sum, r) => sum + Math.log(r), 0) / ratios.length)
  console.log(`${ratios.length} schedules, geometric mean of the ratios ${mean.toFixed(3)}`)
} finally {
  rmSync(folder, { recursive: true, force: true })
}
