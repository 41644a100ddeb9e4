/** Time to work out all sizes of a machine of ten motions after one value has changed: medians after a warm-up. Aim: 16 ms. */
import { shavingsPress } from '../demo/briefs'
import { setMotionValue } from '../core/size/brief/edit'
import type { Brief } from '../core/size/brief/brief'
import { noDecisions, sizeMachine } from '../core/size/graph'

const RUNS = Number(process.env.RUNS ?? 60)
const [motion] = shavingsPress.motions
const ids = Array.from({ length: 10 }, (_, i) => `m${i + 1}`)
const ten: Brief = {
  ...shavingsPress,
  motions: ids.map((id) => ({ ...motion, id, name: id })),
  cycle: ids.flatMap((id) => [
    { id: `${id} out`, motion: id, way: 'out' as const, start: 'after' as const, condition: '' },
    { id: `${id} back`, motion: id, way: 'back' as const, start: 'after' as const, condition: '' },
  ]),
}
const decisions = noDecisions()
const times: number[] = []
for (let i = 0; i < RUNS * 2; i++) {
  const brief = setMotionValue(ten, 'm3', 'workForce', `${40 + (i % 20)} kN`)
  const started = performance.now()
  const { nodes } = sizeMachine(brief, decisions)
  const time = performance.now() - started
  if (nodes.some((n) => n.problems.length)) throw new Error('the machine is not sized')
  if (i >= RUNS) times.push(time)
}
times.sort((a, b) => a - b)
const at = (share: number) => times[Math.floor(times.length * share)].toFixed(1)
console.log(`sizes of ten motions: median ${at(0.5)} ms, 95 % within ${at(0.95)} ms (aim: 16 ms)`)
