/**
 * Speed of the answers on every demo machine. Goals: an answer within 10 ms, knobs of the crane within 2 s, a walkthrough within 1 s, the state
 * table of the blade press, with its runs, within 2 s.
 */
import { answerPressure } from '../core/explain/answer'
import { Trials } from '../core/explain/knobs'
import { Moments } from '../core/explain/moment'
import { stateTable } from '../core/explain/state-table'
import { walkthroughOf } from '../core/explain/walkthrough'
import { compileMachine } from '../core/control/run'
import { run } from '../core/simulate/run'
import { showIn } from '../core/units/text'
import { demoMachines } from '../demo/machines'

const RUNS = Number(process.env.RUNS ?? 9)
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]
const timed = (work: () => void) => {
  const start = performance.now()
  work()
  return performance.now() - start
}

console.log('machine, answer at one line ms (median, slowest), knobs, walkthrough, state table ms (medians)')
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
  const show = showIn('metric')
  const walked = Array.from({ length: RUNS }, () =>
    timed(() => void walkthroughOf(new Moments(sheet, result), result, show)),
  )
  // runs of the schedules are part of it
  const tables = Array.from({ length: Math.ceil(RUNS / 3) }, () =>
    timed(() => void stateTable(sheet, (id) => run(compileMachine(sheet, id).compiled!), show)),
  )
  console.log(
    [
      name,
      `${median(answers).toFixed(2)}, ${Math.max(...answers).toFixed(1)}`,
      median(knobs).toFixed(0),
      median(walked).toFixed(0),
      median(tables).toFixed(0),
    ].join('\t'),
  )
}
