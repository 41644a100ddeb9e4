import { readFileSync } from 'node:fs'
import { readSheetText } from '../core/sheet/read'
import { mutated } from '../core/simulate/mutations'
import { randomNumbers } from '../core/simulate/mutations'
import { compile } from '../core/simulate/compile'
import { run } from '../core/simulate/run'
const read = readSheetText(readFileSync('demo/sheets/gate-pack.json','utf8')) as any
const sheet = read.sheet
const changed = mutated({ ...sheet, schedules: [sheet.schedules[0]] }, randomNumbers(1000*4+10))
const { compiled, findings } = compile(changed)
if (compiled) for (const tol of [undefined, 1e-5, 1e-6]) { const r = run(tol ? {...compiled, settings: {...compiled.settings, tolerance: tol}} : compiled, { until: 60 }); console.log(compiled.settings.tolerance, r.energy.error, r.energy.missing, r.stopped, r.statistics.steps, r.energy) }
