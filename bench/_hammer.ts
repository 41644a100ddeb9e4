import { readSheet } from '/work/main/core/sheet/read'
import { readFileSync } from 'node:fs'
import { compile } from '/work/main/core/simulate/compile'
import { run } from '/work/main/core/simulate/run'
const text = JSON.parse(readFileSync('/work/shared/repro/friction-and-lines/fast-closure.json','utf8'))
text.pipes[0] = {...text.pipes[0]}
const r0 = (await import('/work/main/core/sheet/read')).readSheet(text) as any
const sheet = structuredClone(r0.value ?? r0.sheet ?? r0)
if (process.argv[2]) sheet.pipes[0].lineModel = process.argv[2]
sheet.schedules[0].tolerance = Number(process.argv[3] ?? 1e-5)
const { compiled, findings } = compile(sheet)
if (!compiled) { console.log(findings); process.exit() }
const t0=process.cpuUsage().user
const r = run(compiled)
console.log('ms', (process.cpuUsage().user-t0)/1000, r.statistics, 'E', r.energy, 'O', r.oil.error, r.warnings, r.stopped)
const i = r.signals.findIndex(s=>s.id==='pressure(v)')
const q = r.signals.findIndex(s=>s.id==='flow(V.P)')
const col = r.columns[i]
const at = (t:number)=>col[Math.round(t/0.002)]/1e5
console.log('before', at(1.99), 'flow', r.columns[q][Math.round(1.99/0.002)]*60000, 'first', at(2.01), at(2.05), at(2.1),at(2.14), 'max', r.extremes[i].max/1e5, r.extremes[i].maxAt)
// crossings of mean level
const xs:number[]=[]; const mean=100e5
for (let k=Math.round(2.05/0.002);k<col.length;k++) if ((col[k-1]-mean)*(col[k]-mean)<0) xs.push(r.times[k-1]+(mean-col[k-1])/(col[k]-col[k-1])*0.002)
console.log('crossings', xs.map(x=>x.toFixed(4)).join(' '))
const peaks:number[]=[]; 
for (let k=0;k<12;k++){ let m=-1e9; for(let t=2+k*0.304;t<2+(k+1)*0.304&&t<4;t+=0.002) m=Math.max(m,at(t)); peaks.push(m)}
console.log('peaks', peaks.map(p=>p.toFixed(2)).join(' '))
