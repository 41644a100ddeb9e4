/** Speed of the solver on the demo circuits: medians of several runs after a warm-up. */
import { demoMachines } from '../demo/machines'
import { compile } from '../core/simulate/compile'
import { run } from '../core/simulate/run'

const RUNS = 9
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]

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
    .map((t, i) => (i ? t.padStart(12) : t.padEnd(44)))
    .join(''),
)
for (const { name, sheet } of demoMachines()) {
  if (!sheet.components.length) continue
  for (const schedule of sheet.schedules) {
    const times: number[] = []
    let result: ReturnType<typeof run> | undefined
    let states = 0
    for (let i = 0; i <= RUNS; i++) {
      const { compiled } = compile(sheet, schedule.id)
      if (!compiled) throw new Error(`${name} cannot be run`)
      states = compiled.network.n
      const start = performance.now()
      result = run(compiled)
      if (i) times.push(performance.now() - start)
    }
    const wall = median(times)
    const { steps, evaluations, events } = result!.statistics
    const cells = [
      states,
      result!.duration,
      wall.toFixed(1),
      ((result!.duration * 1000) / wall).toFixed(0),
      steps,
      ((wall * 1000) / steps).toFixed(1),
      evaluations,
      events,
    ]
    console.log(`${name}, ${schedule.name}`.padEnd(44) + cells.map((c) => String(c).padStart(12)).join(''))
  }
}
console.log(`Medians of ${RUNS} runs in one process after a warm-up.`)
