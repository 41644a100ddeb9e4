import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { readSheetText, writeSheetText } from '../core/sheet/read'

for (const folder of ['demo/sheets','app/assets/examples']) for (const n of readdirSync(folder)) { const r = readSheetText(readFileSync(`${folder}/${n}`,'utf8')); if (r.ok) writeFileSync(`${folder}/${n}`, writeSheetText(r.sheet)); else console.log(n, r.problems) }
