import { count, eq } from 'drizzle-orm'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { MachineRow } from '#shared/api'
import { variantsOf } from '../../database/machines'
import { machines, runs, sheets } from '../../database/schema'

export default defineEventHandler((): MachineRow[] => {
  const store = useStore()
  const rows = store
    .select({ machine: machines, runs: count(runs.id) })
    .from(machines)
    .innerJoin(sheets, eq(sheets.machineId, machines.id))
    .leftJoin(runs, eq(runs.sheetId, sheets.id))
    .groupBy(machines.id)
    .orderBy(machines.name)
    .all()
  return rows.map(({ machine, runs: kept }) => {
    const variants = variantsOf(store, machine.id)
    return {
      id: machine.id,
      name: machine.name,
      summary: machine.summary,
      components: Math.max(
        ...variants.map((v) => (JSON.parse(v.content) as Pick<Sheet, 'components'>).components.length),
      ),
      variants: variants.length,
      runs: kept,
      updatedAt: Math.max(machine.updatedAt.getTime(), ...variants.map((v) => v.updatedAt.getTime())),
    }
  })
})
