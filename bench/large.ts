/** A generated large circuit: groups of pump, relief and cylinders with their valves, gauges and throttles. */
import { SHEET_VERSION, sheetSchema, type Sheet } from '../core/sheet/schema'

/** About `count` components; each group of a power unit feeds four cylinders. */
export function largeSheet(count: number): Sheet {
  const components: {
    id: string
    kind: string
    x: number
    y: number
    parameters?: Record<string, string>
  }[] = []
  const pipes: { id: string; from: object; to: object; lineType?: string }[] = []
  const tracks: object[] = []
  /** Groups lie beside each other, four to a row; within one its parts in rows of four. */
  let group = 0
  let inGroup = 0
  const add = (id: string, kind: string, parameters = {}) => {
    const x = 110 * (group % 4) + 24 * (inGroup % 4)
    const y = 110 * Math.floor(group / 4) + 20 * Math.floor(inGroup / 4)
    components.push({ id, kind, x, y, parameters })
    inGroup++
  }
  const end = (text: string) => {
    const [component, port] = text.split('.')
    return { component, port }
  }
  const join = (from: string, to: string, lineType?: string) =>
    pipes.push({ id: `L${pipes.length}`, from: end(from), to: end(to), ...(lineType ? { lineType } : {}) })
  for (let g = 0; components.length < count; g++) {
    const n = (name: string) => `${name}${g}`
    group = g
    inGroup = 0
    add(n('tank'), 'reservoir')
    add(n('motor'), 'electric-motor', { ratedPower: '90 kW' })
    add(n('pump'), 'fixed-pump', { displacement: '50 cm³/rev' })
    add(n('relief'), 'relief-valve-direct', { ratedFlow: '120 L/min' })
    join(`${n('tank')}.T`, `${n('pump')}.S`)
    join(`${n('motor')}.W`, `${n('pump')}.W`, 'shaft')
    join(`${n('pump')}.P`, `${n('relief')}.P`)
    join(`${n('relief')}.T`, `${n('tank')}.T`)
    for (let k = 0; k < 4 && components.length < count; k++) {
      const m = (name: string) => `${name}${g}-${k}`
      add(m('valve'), 'directional-valve-4-3')
      add(m('meter'), 'throttle-check', { throttle: '1.5 mm' })
      add(m('ram'), 'cylinder-double-acting', { mass: '200 kg', loadForce: `${2 + k} kN` })
      add(m('gauge'), 'pressure-gauge')
      join(`${n('pump')}.P`, `${m('valve')}.P`)
      join(`${m('valve')}.T`, `${n('tank')}.T`)
      join(`${m('valve')}.A`, `${m('ram')}.A`)
      join(`${m('gauge')}.P`, `${m('ram')}.A`)
      join(`${m('valve')}.B`, `${m('meter')}.A`)
      join(`${m('meter')}.B`, `${m('ram')}.B`)
      tracks.push({
        component: m('valve'),
        input: 'command',
        points: [
          { at: `${0.2 + 0.1 * k} s`, value: '1' },
          { at: `${2.5 + 0.1 * k} s`, value: '-1' },
        ],
      })
    }
  }
  return sheetSchema.parse({
    format: 'oar-bench-sheet',
    version: SHEET_VERSION,
    title: `Generated, ${components.length} components`,
    components,
    pipes,
    schedules: [{ id: 'main', duration: '4 s', every: '20 ms', tolerance: 3e-4, tracks }],
  })
}
