/**
 * Prints the bytes that a step takes from the heap once all of the loop is optimised: of some stretches of steps the least, since an event, or
 * code that is optimised just then, takes some too. To be run in a separate process, with --expose-gc and a young generation that holds a stretch.
 *   allocation-probe.ts SETS   SETS of six consumers
 */
import { build, type Consumer } from './random-circuits'
import { compile } from './compile'
import { Simulation } from './simulation'

const WARM_UP = 12
const STRETCHES = 12
const STEPS = 60

const sheet = build(
  Array.from({ length: Number(process.argv[2]) }, () =>
    ['cylinder', 'motor', 'lift', 'winch', 'section', 'cylinder'].map((kind): Consumer => ({
      kind,
      size: 2,
      commands: [
        [2, 1],
        [9, -1],
        [15, 1],
      ],
    })),
  ).flat(),
  1500,
)
const { compiled } = compile(sheet)
if (!compiled) throw new Error('The circuit does not compile.')
const { duration } = compiled.settings

let least = Infinity
for (let run = 0; run < WARM_UP + STRETCHES; run++) {
  const simulation = new Simulation(compiled)
  // away from what happens at the start
  while (simulation.time < 0.1 * duration) simulation.step(duration)
  globalThis.gc!()
  const before = process.memoryUsage().heapUsed
  let steps = 0
  while (!simulation.stopped && simulation.time < duration && steps < STEPS) {
    simulation.step(duration)
    steps++
  }
  const taken = (process.memoryUsage().heapUsed - before) / steps
  if (run >= WARM_UP && taken < least) least = taken
  // the rest warms up
  while (!simulation.stopped && simulation.time < duration) simulation.step(duration)
}
process.stdout.write(String(least))
