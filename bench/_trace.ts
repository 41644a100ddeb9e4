import { demoMachines } from '/work/main/demo/machines'
import { compileMachine } from '/work/main/core/control/run'
import { simulationOf } from '/work/main/core/simulate/run'
const m = demoMachines().find(m=>m.name==='Blade press')!
const v = m.variants.find(v=>v.name==='Two sequence valves')!
const sim = simulationOf(compileMachine(v.sheet, v.sheet.schedules[0].id).compiled!)
let n=0
while (sim.time<0.586129) sim.step(10)
const fr = sim.network.elements.find(e=>e.internal)!
for (let i=0;i<30;i++){ sim.step(10); console.log(sim.time, [...fr.local.mode].join(), sim.network.elements.filter(e=>e.model.dryFriction).map(e=>`${e.id} v=${e.local.x[1]?.toExponential(3)} held=${e.local.held[0].toFixed(6)} hold=${e.local.holdForward[0].toFixed(4)} a=${e.local.dx[1]?.toExponential(3)} x=${e.local.x[0]} mode=${[...e.local.mode]}`).join(' | '))}
