/**
 * The solver against an earlier revision, in one process and by turns: user CPU of each schedule, medians, ratios and their geometric mean.
 * Both run the sheets of the earlier revision, each as it reads them: the demo, and generated circuits of 100 and 300 components.
 *   npm run bench:compare -- REVISION [--runs N] [--machine WORDS] [--loss-free]
 * --loss-free: without the loss of lines that the earlier revision left out, so that what is compared are the same equations.
 */
import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import type { Sheet } from '../core/sheet/schema'
import type * as Machines from '../demo/machines'
import type * as Read from '../core/sheet/read'
import type * as ControlRun from '../core/control/run'
import type * as Run from '../core/simulate/run'
import type * as Large from './large'
import { median } from './app'

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    runs: { type: 'string', default: '7' },
    machine: { type: 'string', default: '' },
    'loss-free': { type: 'boolean', default: false },
  },
})
const [revision] = positionals
if (!revision) {
  console.error('Usage: npm run bench:compare -- REVISION [--runs N] [--machine WORDS] [--loss-free]')
  process.exit(2)
}
const runs = Number(values.runs)
/** Numbers of components of the generated circuits. */
const GENERATED = [100, 300]

interface Version {
  readonly readSheetText: typeof Read.readSheetText
  readonly compileMachine: typeof ControlRun.compileMachine
  readonly run: typeof Run.run
}
async function versionAt(root: string): Promise<Version> {
  const load = async <T>(path: string) => (await import(join(root, path))) as T
  const { readSheetText } = await load<typeof Read>('core/sheet/read.ts')
  const { run } = await load<typeof Run>('core/simulate/run.ts')
  // before there was a control, a sheet was compiled by itself
  const hasControl = existsSync(join(root, 'core/control/run.ts'))
  const compileMachine = hasControl
    ? (await load<typeof ControlRun>('core/control/run.ts')).compileMachine
    : (await load<{ compile: typeof ControlRun.compileMachine }>('core/simulate/compile.ts')).compile
  return { readSheetText, compileMachine, run }
}
/** The sheets of a revision, as it writes them, by name. */
async function sheetsAt(root: string): Promise<Map<string, string>> {
  const { demoMachines } = (await import(join(root, 'demo/machines.ts'))) as typeof Machines
  const { largeSheet } = (await import(join(root, 'bench/large.ts'))) as typeof Large
  return new Map([
    ...demoMachines().flatMap((m) =>
      m.variants.map((v) => [`${m.name}, ${v.name}`, JSON.stringify(v.sheet)] as const),
    ),
    ...GENERATED.map(
      (count) => [`Generated, ${count} components`, JSON.stringify(largeSheet(count))] as const,
    ),
  ])
}
const withoutLoss = (sheet: Sheet): Sheet => ({
  ...sheet,
  pipes: sheet.pipes.map((pipe) =>
    pipe.lineModel === 'automatic' ? { ...pipe, lineModel: 'lossFree' } : pipe,
  ),
})
/** All schedules of some sheets, by sheet and schedule. @returns the steps that a run of it takes */
const circuits = (
  { readSheetText, compileMachine, run }: Version,
  sheets: Map<string, string>,
  prepare: (sheet: Sheet) => Sheet,
) =>
  new Map(
    [...sheets].flatMap(([name, text]) => {
      const read = readSheetText(text)
      if (!read.ok) throw new Error(`${name}: ${read.problems[0].message}`)
      const sheet = prepare(read.sheet)
      return sheet.schedules.map((s) => [
        `${name}, ${s.name || s.id}`,
        // compiled for each run: earlier revisions have a network for one run only
        () => run(compileMachine(sheet, s.id).compiled!).statistics.steps,
      ])
    }),
  ) as Map<string, () => number>
/** User CPU, ms. */
function cost(work: () => number): { ms: number; steps: number } {
  const before = process.cpuUsage()
  const steps = work()
  return { ms: process.cpuUsage(before).user / 1000, steps }
}

const root = resolve(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.compare-'))
try {
  const files = ['core', 'demo', 'bench/large.ts', 'package.json']
  const archive = execFileSync('git', ['archive', revision, ...files], { cwd: root, maxBuffer: 1e9 })
  execFileSync('tar', ['x', '-C', folder], { input: archive })
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'))
  const sheets = await sheetsAt(folder)
  const [before, now] = [
    circuits(await versionAt(folder), sheets, (sheet) => sheet),
    circuits(await versionAt(root), sheets, values['loss-free'] ? withoutLoss : (sheet) => sheet),
  ]
  console.log(`circuit, schedule; ms at ${revision}; ms now; ratio; steps; ratio a step`)
  const ratios: number[] = []
  const ratiosAStep: number[] = []
  for (const [name, old] of before) {
    const work = now.get(name)
    if (!work || !name.includes(values.machine)) continue
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
    const ratio = b / a
    ratios.push(ratio)
    ratiosAStep.push((ratio * steps[0]) / steps[1])
    const counted = steps[0] === steps[1] ? String(steps[0]) : `${steps[0]} -> ${steps[1]}`
    const perStep = ratiosAStep.at(-1)!.toFixed(2)
    console.log(`${name}; ${a.toFixed(1)}; ${b.toFixed(1)}; ${ratio.toFixed(2)}; ${counted}; ${perStep}`)
  }
  const mean = (list: number[]) =>
    Math.exp(list.reduce((sum, r) => sum + Math.log(r), 0) / list.length).toFixed(3)
  console.log(
    `${ratios.length} schedules, geometric mean of the ratios ${mean(ratios)}, a step ${mean(ratiosAStep)}`,
  )
} finally {
  rmSync(folder, { recursive: true, force: true })
}
