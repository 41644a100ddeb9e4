/** Speed of the solver on the demo circuits: medians of several runs after a warm-up. */
import { Session } from 'node:inspector/promises'
import { serialize } from 'node:v8'
import { demoMachines } from '../demo/machines'
import type { Sheet } from '../core/sheet/schema'
import { compileMachine } from '../core/control/run'
import { run } from '../core/simulate/run'
import { Simulation } from '../core/simulate/simulation'
import { largeSheet } from './large'

/** Methods of a run that are called in every step. */
const LOOP = ['step', 'sampleWithin', 'passed']
const RUNS = Number(process.env.RUNS ?? 9)
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]

/** Bytes a step that the methods called in every step take from the heap, collected again or not: by sampling. */
async function allocation() {
  const sheet = largeSheet(300)
  const session = new Session()
  session.connect()
  await session.post('HeapProfiler.startSampling', {
    samplingInterval: 4096,
    includeObjectsCollectedByMajorGC: true,
    includeObjectsCollectedByMinorGC: true,
  })
  const taken = async () => {
    const { profile } = await session.post('HeapProfiler.getSamplingProfile')
    const sum = (node: typeof profile.head, counts: boolean): number => {
      const inside = counts || LOOP.includes(node.callFrame.functionName)
      return node.children.reduce((bytes, child) => bytes + sum(child, inside), inside ? node.selfSize : 0)
    }
    return sum(profile.head, false)
  }
  const go = (times: number) => {
    let steps = 0
    for (let i = 0; i < times; i++) steps += run(compileMachine(sheet).compiled!).statistics.steps
    return steps
  }
  // until all of the loop is optimised: before, every number that is worked out is put on the heap
  go(10)
  const before = await taken()
  const steps = go(20)
  const bytes = (await taken()) - before
  await session.post('HeapProfiler.stopSampling')
  session.disconnect()
  return bytes / steps
}
// first of all: sampling throws optimised code away, and code that is not optimised boxes its numbers
const perStep = await allocation()

console.log(
  [
    'circuit, schedule',
    'states',
    'simulated s',
    'wall ms',
    'x real time',
    'steps',
    'us/step',
    'evals',
    'events',
  ]
    .map((t, i) => (i ? t.padStart(10) : t.padEnd(48)))
    .join(''),
)
function measure(name: string, sheet: Sheet, schedule: string | undefined, repeats: number) {
  const times: number[] = []
  let result: ReturnType<typeof run> | undefined
  let states = 0
  for (let i = 0; i <= repeats; i++) {
    const { compiled, findings } = compileMachine(sheet, schedule)
    if (!compiled) throw new Error(`${name} cannot be run: ${findings[0].message}`)
    states = new Simulation(compiled).network.n
    const start = performance.now()
    result = run(compiled)
    if (i) times.push(performance.now() - start)
  }
  const wall = median(times)
  const { steps, evaluations, factorisations, events } = result!.statistics
  const factor = (result!.duration * 1000) / wall
  const cells = [
    states,
    result!.duration,
    wall.toFixed(1),
    factor.toFixed(factor < 10 ? 1 : 0),
    steps,
    ((wall * 1000) / steps).toFixed(1),
    evaluations,
    factorisations,
    events,
  ]
  console.log(name.padEnd(48) + cells.map((c) => String(c).padStart(10)).join(''))
  return wall / steps
}

for (const { name, variants } of demoMachines())
  for (const { name: variant, sheet } of variants)
    for (const schedule of sheet.schedules)
      measure(`${name}, ${variant}: ${schedule.id}`, sheet, schedule.id, RUNS)

const sizes = [50, 100, 200, 300, 400, 800]
const costs = sizes.map((size) => measure(`generated, ${size} components`, largeSheet(size), undefined, 5))
const slope = Math.log(costs[costs.length - 1] / costs[0]) / Math.log(sizes[sizes.length - 1] / sizes[0])
console.log(
  `Cost of a step grows with the number of components to the power ${slope.toFixed(2)}, from ${sizes[0]} to ${sizes[sizes.length - 1]}.`,
)

/** Size of a snapshot as it is sent between threads, kB, and the times to take it and to go back to it, ms. */
function snapshotOf(name: string, sheet: Sheet, at: number): void {
  const simulation = new Simulation(compileMachine(sheet).compiled!)
  simulation.advanceBeyond(at)
  const [taking, restoring]: [number[], number[]] = [[], []]
  for (let i = 0; i < 50; i++) {
    const start = performance.now()
    const snapshot = simulation.snapshot()
    const taken = performance.now()
    simulation.restore(snapshot)
    taking.push(taken - start)
    restoring.push(performance.now() - taken)
  }
  const size = serialize(simulation.snapshot()).length / 1000
  console.log(
    `Snapshot of ${name}: ${size.toFixed(1)} kB, taken in ${median(taking).toFixed(3)} ms, restored in ${median(restoring).toFixed(3)} ms.`,
  )
}
const crane = demoMachines().find((m) => m.name === 'Quay crane')!
snapshotOf('the crane', crane.variants[0].sheet, 6)
snapshotOf('300 components', largeSheet(300), 2)

console.log(
  `300 components: ${perStep.toFixed(0)} bytes allocated a step, peak resident memory ${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB.`,
)
console.log(`Medians of ${RUNS} runs (generated: 5) in one process after a warm-up.`)
