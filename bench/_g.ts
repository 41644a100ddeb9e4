import { runDemo } from '/work/main/demo/golden'
const g = runDemo('Gate pack','Motor started and stopped','close')
console.log(g.conditions.filter(c=>c.component==='V1'), g.lineLoads.slice(0,4))
const i=g.signals.findIndex(s=>s.id.includes('Z1.gas')); console.log(g.extremes[i])
