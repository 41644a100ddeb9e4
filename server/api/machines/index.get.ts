import { count, eq } from 'drizzle-orm'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { MachineRow } from '#shared/api'
import { machines, runs, sheets } from '../../database/schema'

export default defineEventHandler((): MachineRow[] => {
  const store = useStore()
  const rows = store
    .select({ machine: machines, sheet: sheets, runs: count(runs.id) })
    .from(machines)
    .innerJoin(sheets, eq(sheets.machineId, machines.id))
    .leftJoin(runs, eq(runs.sheetId, sheets.id))
    .groupBy(machines.id)
    .orderBy(machines.name)
    .all()
  return rows.map(({ machine, sheet, runs: kept }) => ({
    id: machine.id,
    name: machine.name,
    summary: machine.summary,
    components: (JSON.parse(sheet.content) as Sheet).components.length,
    runs: kept,
    updatedAt: Math.max(machine.updatedAt.getTime(), sheet.updatedAt.getTime()),
  }))
})
