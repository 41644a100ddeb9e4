/**
 * The solver against an earlier revision, each in a separate thread and by turns of 100 steps, since the speed of a machine changes within a
 * second: wall time of each schedule, medians, medians of the ratios of runs, and their geometric mean.
 * Both run the sheets of the earlier revision, each as it reads them: the demo, and generated circuits of 100 and 300 components.
 *   npm run bench:compare -- REVISION [--runs N] [--machine WORDS] [--loss-free]
 * --loss-free: without the loss of lines that the earlier revision left out, so that what is compared are the same equations.
 */
import { execFileSync } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync, symlinkSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { Worker } from 'node:worker_threads'
import type { Sheet } from '../core/sheet/schema'
import type * as Machines from '../demo/machines'
import type * as Large from './large'
import { median } from './app'
import type { CompareCost, CompareTask, CompareWorker } from './compare-worker'

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
/** All schedules of some sheets: their names, sheets and ids. */
const schedulesOf = (sheets: Map<string, string>) =>
  [...sheets].flatMap(([name, sheet]) =>
    (JSON.parse(sheet) as Sheet).schedules.map(({ id, name: words }) => ({
      name: `${name}, ${words || id}`,
      sheet,
      schedule: id,
    })),
  )

/** Whose turn it is, and whether one has finished. */
const turn = new Int32Array(new SharedArrayBuffer(8))
async function workerAt(root: string, number: 0 | 1) {
  const [tsx, file] = ['tsx/esm/api', './compare-worker.ts'].map((name) =>
    JSON.stringify(import.meta.resolve(name)),
  )
  const worker = new Worker(`import(${tsx}).then(({ register }) => { register(); return import(${file}) })`, {
    eval: true,
    workerData: { root, number, turn } satisfies CompareWorker,
  })
  await once(worker, 'message')
  return {
    run: async (task: CompareTask): Promise<CompareCost> => {
      worker.postMessage(task)
      const [cost] = (await once(worker, 'message')) as [CompareCost]
      return cost
    },
    end: () => worker.terminate(),
  }
}

const root = resolve(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.compare-'))
try {
  const files = ['core', 'demo', 'bench/large.ts', 'package.json']
  const archive = execFileSync('git', ['archive', revision, ...files], { cwd: root, maxBuffer: 1e9 })
  execFileSync('tar', ['x', '-C', folder], { input: archive })
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'))
  const sheets = await sheetsAt(folder)
  const workers = await Promise.all([workerAt(folder, 0), workerAt(root, 1)])
  console.log(`circuit, schedule; ms at ${revision}; ms now; ratio; steps; ratio a step`)
  const ratios: number[] = []
  const ratiosAStep: number[] = []
  for (const { name, ...task } of schedulesOf(sheets)) {
    if (!name.includes(values.machine)) continue
    const times: [number[], number[]] = [[], []]
    let steps = [0, 0]
    // the first of each is to warm up
    for (let i = 0; i <= runs; i++) {
      turn.set([i % 2, 0])
      const costs = await Promise.all(
        workers.map(({ run }) => run({ ...task, lossFree: values['loss-free'] })),
      )
      if (i) costs.forEach(({ ms }, k) => times[k].push(ms))
      steps = costs.map((cost) => cost.steps)
    }
    const ratio = median(times[1].map((ms, i) => ms / times[0][i]))
    ratios.push(ratio)
    ratiosAStep.push((ratio * steps[0]) / steps[1])
    const counted = steps[0] === steps[1] ? String(steps[0]) : `${steps[0]} -> ${steps[1]}`
    const [a, b] = times.map((list) => median(list).toFixed(1))
    console.log(`${name}; ${a}; ${b}; ${ratio.toFixed(2)}; ${counted}; ${ratiosAStep.at(-1)!.toFixed(2)}`)
  }
  await Promise.all(workers.map(({ end }) => end()))
  const mean = (list: number[]) =>
    Math.exp(list.reduce((sum, r) => sum + Math.log(r), 0) / list.length).toFixed(3)
  console.log(
    `${ratios.length} schedules, geometric mean of the ratios ${mean(ratios)}, a step ${mean(ratiosAStep)}`,
  )
} finally {
  rmSync(folder, { recursive: true, force: true })
}
