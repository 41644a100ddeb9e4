import { readFileSync, writeFileSync, readdirSync } from 'node:fs'
import { readSheetText, writeSheetText } from './core/sheet/read'
for (const dir of ['demo/sheets','core/reference','app/assets/examples']) for (const f of readdirSync(dir).filter(f=>f.endsWith('.json'))) {
  const t = readFileSync(`${dir}/${f}`,'utf8'); const r = readSheetText(t)
  if (!r.ok) { console.log(f, r.problems[0].message); continue }
  const w = writeSheetText(r.sheet); if (w!==t) { writeFileSync(`${dir}/${f}`, w); console.log('rewrote', f) }
}
