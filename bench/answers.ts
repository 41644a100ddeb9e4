/** Speed of the answers: what sets a pressure at every line of every demo machine, and what would change it on the crane. */
import { answerPressure } from '../core/explain/answer'
import { Trials } from '../core/explain/knobs'
import { Moments } from '../core/explain/moment'
import { compileMachine } from '../core/control/run'
import { run } from '../core/simulate/run'
import { demoMachines } from '../demo/machines'

const RUNS = Number(process.env.RUNS ?? 9)
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]
const timed = (work: () => void) => {
  const start = performance.now()
  work()
  return performance.now() - start
}

console.log('machine, answer at one line ms (median, slowest), knobs ms (median)')
for (const { name, variants } of demoMachines()) {
  const { sheet } = variants[0]
  const result = run(compileMachine(sheet).compiled!)
  const moments = new Moments(sheet, result)
  const lines = [...moments.network.nodes.keys()].filter(
    (i) => moments.network.nodes[i].domain === 'oil' && moments.network.nodeState[i] >= 0,
  )
  const answers: number[] = []
  for (let i = 0; i < RUNS; i++)
    for (const line of lines)
      answers.push(
        timed(() => {
          moments.showRecorded(result, (result.duration * (i + 0.5)) / RUNS)
          answerPressure(moments, result, line)
        }),
      )
  const knobs = Array.from({ length: RUNS }, () => {
    moments.showRecorded(result, result.duration / 2)
    const trials = new Trials(moments, { kind: 'pressure', line: lines[0] })
    return timed(() => void trials.knobs())
  })
  console.log(
    [
      name,
      `${median(answers).toFixed(2)}, ${Math.max(...answers).toFixed(1)}`,
      median(knobs).toFixed(0),
    ].join('\t'),
  )
}
