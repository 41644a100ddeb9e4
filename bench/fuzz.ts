/**
 * Random circuits against the simulation: mutated demo sheets and generated ones, and every single fault of every demo machine.
 *   npm run fuzz -- [--cases N] [--seed S] [--out FOLDER] [--faults]
 * Prints a table and writes the sheets that failed; exit code 1 where one did.
 */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { shownUnit } from '../core/units/quantities'
import { quantityText } from '../core/units/text'
import { writeSheetText } from '../core/sheet/read'
import { resolveComponent } from '../core/sheet/resolve'
import type { Sheet, SheetComponent } from '../core/sheet/schema'
import { faultsOf } from '../core/simulate/operable'
import { mutated, randomNumbers } from '../core/simulate/mutations'
import { build, consumerKinds } from '../core/simulate/random-circuits'
import { verdictOn, verdictOnRest, type Verdict } from '../core/simulate/verdict'
import { demoMachines } from '../demo/machines'

const UNTIL = 3
const { values } = parseArgs({
  options: {
    cases: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    out: { type: 'string', default: 'test-results/fuzz' },
    faults: { type: 'boolean', default: false },
  },
})
const cases = Number(values.cases)
const seed = Number(values.seed)
if (!(cases >= 0) || !Number.isInteger(seed)) {
  console.error('--cases takes a number of circuits, --seed a whole number.')
  process.exit(2)
}

const outcomes: Record<string, number> = { sound: 0, stopped: 0, refused: 0, wrong: 0 }
const reasons = new Map<string, number>()
let slowest: { name: string; wall: number } = { name: '', wall: 0 }
function take(name: string, sheet: Sheet, verdict: Verdict): void {
  outcomes[verdict.outcome]++
  if (verdict.wall > slowest.wall) slowest = { name, wall: verdict.wall }
  if (verdict.outcome !== 'wrong') return
  const reason = verdict.what!.replace(/\d[\d.e+-]*/g, '#').slice(0, 60)
  reasons.set(reason, (reasons.get(reason) ?? 0) + 1)
  mkdirSync(values.out, { recursive: true })
  const file = join(values.out, `${name.replace(/[^\w.-]+/g, '-')}.json`)
  writeFileSync(file, writeSheetText(sheet))
  console.log(`${name}: ${verdict.what} (${file})`)
}

const demo = demoMachines().flatMap((m) =>
  m.variants.map((v) => ({ name: `${m.name} ${v.name}`, sheet: v.sheet })),
)

/** The circuit of a seed: three of four are mutated machines, the rest generated and mutated. */
function circuitOf(number: number): { name: string; sheet: Sheet } {
  const random = randomNumbers(number)
  const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]
  if (random() < 0.75) {
    const { name, sheet } = pick(demo)
    const schedule = pick(sheet.schedules)
    return { name, sheet: mutated({ ...sheet, schedules: [schedule] }, random) }
  }
  const list = Array.from({ length: 1 + Math.floor(random() * 6) }, () => ({
    kind: pick(consumerKinds),
    size: 1 + Math.floor(random() * 6),
    commands: Array.from({ length: Math.floor(random() * 4) }, (): [number, number] => [
      1 + Math.floor(random() * 19),
      Math.floor(random() * 3) - 1,
    ]),
  }))
  const sheet = build(list, pick([300, 1000, 1500]))
  const schedules = sheet.schedules.map((s) => ({ ...s, tolerance: pick([3e-4, 1e-4, 1e-5]) }))
  return { name: 'generated', sheet: mutated({ ...sheet, schedules }, random) }
}

for (let i = 0; i < cases; i++) {
  const { name, sheet } = circuitOf(seed * 1_000_003 + i)
  take(`${seed}-${i} ${name}`, sheet, verdictOn(sheet, undefined, UNTIL))
  if (i % 10 === 0) take(`${seed}-${i} rest of ${name}`, sheet, verdictOnRest(sheet, undefined, 0))
}
const faultsOfComponent = (component: SheetComponent) => {
  const { resolved } = resolveComponent(component)
  return resolved ? faultsOf(resolved) : []
}
if (values.faults)
  for (const { name, sheet } of demo)
    for (const component of sheet.components)
      for (const { spec: fault } of faultsOfComponent(component))
        for (const start of ['initialValues', 'steadyState'] as const) {
          const value = quantityText(
            fault.form === 'air' ? 1e-4 : fault.max > 1 ? Math.min(fault.max, 100) : fault.max,
            fault.quantity,
            shownUnit(fault.quantity, 'metric').symbol,
          )
          const track = {
            component: component.id,
            input: fault.name,
            points: [{ at: '0.5 s', value, shape: 'step' as const }],
          }
          const [schedule] = sheet.schedules
          const broken = {
            ...sheet,
            schedules: [{ ...schedule, start, tracks: [...schedule.tracks, track] }],
          }
          take(`${name} ${component.id}.${fault.name} ${start}`, broken, verdictOn(broken, undefined, UNTIL))
        }

console.log(
  Object.entries(outcomes)
    .map(([name, count]) => `${name.padEnd(10)}${String(count).padStart(7)}`)
    .join('\n'),
)
console.log(`slowest ${slowest.wall.toFixed(1)} s: ${slowest.name}`)
for (const [reason, count] of [...reasons].sort((a, b) => b[1] - a[1]))
  console.log(`${String(count).padStart(5)}  ${reason}`)
process.exit(outcomes.wrong ? 1 : 0)
