import { insertMachine } from '../../database/machines'
import { emptySheet } from '@oar-bench/core/sheet/schema'
import { machineBody } from '#shared/api'

export default defineEventHandler(async (event) => {
  const { name, summary } = await readChecked(event, machineBody)
  const id = insertMachine(useStore(), { name, summary, sheet: emptySheet(name) })
  setResponseStatus(event, 201)
  return { id }
})
