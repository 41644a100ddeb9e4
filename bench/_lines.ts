import { demoMachines } from '/work/main/demo/machines'
import { buildNetlist } from '/work/main/core/sheet/netlist'
for (const m of demoMachines()) for (const v of m.variants) { const {netlist}=buildNetlist(v.sheet); console.log(m.name, v.name, netlist.oilPipes.length, netlist.oilPipes.filter(p=>p.model!=='lossFree').length, netlist.oilPipes.filter(p=>p.model!=='lossFree').map(p=>`${p.pipe.id}:${p.pipe.length}x${p.pipe.bore}`).join(' ').slice(0,200)) }
