/** Key figures of a run of the demo: what its golden test holds, and how they are written anew (`npm run golden`). */
import { writeFileSync } from 'node:fs'
import { runMachine } from '../core/control/run'
import type { RunResult } from '../core/simulate/result'
import { demoMachines } from './machines'

export interface Golden {
  readonly machine: string
  readonly variant: string
  readonly schedule: string
  /** kJ put in at shafts and turned into heat. */
  readonly energy: readonly [number, number]
  /** Line: highest pressure and pressure at the end, bar. */
  readonly lines: Readonly<Record<string, readonly [number, number]>>
  /** Component and condition: start s, and its worst value where it has one (SI). */
  readonly conditions: readonly (readonly [component: string, name: string, start: number, worst?: number])[]
}

const MOST_LINES = 5
const MOST_CONDITIONS = 8
/** Below this a line is only a return, bar. */
const LEAST_PRESSURE = 10
const round = (v: number) => Number(v.toPrecision(5))

export function runDemo(machine: string, variant: string, schedule: string): RunResult {
  const sheet = demoMachines()
    .find((m) => m.name === machine)
    ?.variants.find((v) => v.name === variant)?.sheet
  if (!sheet) throw new Error(`There is no ${machine}, ${variant}.`)
  return runMachine(sheet, schedule)
}

function keyFigures(machine: string, variant: string, schedule: string): Golden {
  const r = runDemo(machine, variant, schedule)
  const lines = r.signals
    .flatMap((s, i) => (s.role === 'pressure' && !/\.\w+\)$/.test(s.id) ? [{ s, e: r.extremes[i] }] : []))
    .filter(({ e }) => e.max > LEAST_PRESSURE * 1e5)
    .slice(0, MOST_LINES)
    .map(
      ({ s, e }) =>
        [s.id.slice(s.id.indexOf('(') + 1, -1), [round(e.max / 1e5), round(e.end / 1e5)]] as const,
    )
  // the first of each kind: what comes and goes later hangs on the last digit
  const seen = new Set<string>()
  const conditions = r.conditions
    .filter((c) => {
      const key = `${c.component}.${c.name}`
      const first = c.component !== undefined && c.name !== 'cavitation' && !seen.has(key)
      seen.add(key)
      return first
    })
    .slice(0, MOST_CONDITIONS)
    .map((c): Golden['conditions'][number] =>
      c.worst
        ? [c.component!, c.name, round(c.start), round(c.worst.value)]
        : [c.component!, c.name, round(c.start)],
    )
  return {
    machine,
    variant,
    schedule,
    energy: [round(r.energy.input / 1000), round(r.energy.heat / 1000)],
    lines: Object.fromEntries(lines),
    conditions,
  }
}

if (process.argv[1]?.endsWith('golden.ts')) {
  const list = demoMachines().flatMap((m) =>
    m.variants.flatMap((v) => v.sheet.schedules.map((s) => keyFigures(m.name, v.name, s.id))),
  )
  writeFileSync(new URL('./golden.json', import.meta.url), `${JSON.stringify(list, null, 2)}\n`)
  console.log(`${list.length} runs written to demo/golden.json.`)
}
