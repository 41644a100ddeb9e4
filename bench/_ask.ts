import { demoMachines } from '/work/main/demo/machines'
import { runDemo } from '/work/main/demo/golden'
import { Moments } from '/work/main/core/explain/moment'
import { answerPressure, lineOfPlace } from '/work/main/core/explain/answer'
const m = demoMachines().find(({ name }) => name === 'Blade press')!
const { name, sheet } = m.variants[3]
const result = runDemo('Blade press', name, sheet.schedules[0].id)
const moments = new Moments(sheet, result)
moments.showRecorded(result, 5.5)
console.log(JSON.stringify(answerPressure(moments, result, lineOfPlace(sheet, result, { port: 'A1.A' })), null, 1).slice(0,3000))
const g = runDemo('Gate pack','Motor started and stopped','close')
console.log(g.conditions.filter(c=>c.name==='overload'))
const net = moments.network
for (const line of [15,21]) for (const e of net.elements) e.nodes.forEach((n,i)=>{ if(n===line) console.log(line, e.id, e.portNames[i], 'q', e.local.q[i], 'p', e.local.p[i], [...e.local.x].slice(0,3).join()) })
