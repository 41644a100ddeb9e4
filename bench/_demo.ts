import { demoMachines } from '/work/main/demo/machines'
import { compileMachine } from '/work/main/core/control/run'
import { simulationOf, continueRun } from '/work/main/core/simulate/run'
const only = process.argv[2] ?? ''
for (const m of demoMachines()) for (const v of m.variants) for (const s of v.sheet.schedules) {
  const name = `${m.name}, ${v.name}, ${s.id}`
  if (!name.includes(only)) continue
  const { compiled, findings } = compileMachine(v.sheet, s.id)
  if (!compiled) { console.log(name, 'NOT', findings.filter(f=>f.severity==='error').map(f=>f.message)); continue }
  const t0 = process.cpuUsage().user
  const sim = simulationOf(compiled)
  const start = (process.cpuUsage().user-t0)/1000
  const r = continueRun(sim, compiled.settings.duration)
  const st = r.statistics
  console.log(name.padEnd(60), 'start', start.toFixed(0), 'ms', ((process.cpuUsage().user-t0)/1000).toFixed(0), 'steps', st.steps, 'rej', st.rejected, 'ev', st.events, 'E', (100*r.energy.error).toExponential(1), r.energy.missing.slice(0,3).map(m=>m.id+' '+m.energy.toFixed(1)).join(' '), 'O', (100*r.oil.error).toFixed(4), r.stopped?.message ?? '', r.warnings.join('|'))
}
