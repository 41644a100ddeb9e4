import { demoMachines } from '/work/main/demo/machines'
import { runDemo } from '/work/main/demo/golden'
import { Moments } from '/work/main/core/explain/moment'
import { answerPressure, lineOfPlace } from '/work/main/core/explain/answer'
const m = demoMachines().find(({ name }) => name === 'Blade press')!
const { name, sheet } = m.variants[3]
const result = runDemo('Blade press', name, sheet.schedules[0].id)
const moments = new Moments(sheet, result)
for (const t of [3,3.5,4,4.5,5,5.5,6,6.5,7,7.5,8,8.5,9]) { moments.showRecorded(result, t); const a=answerPressure(moments, result, lineOfPlace(sheet, result, { port: 'A1.A' })); console.log(t, a.stack.fixedBy, a.stack.pressure/1e5, moments.network.potential[2]/1e5) }
