import { insertMachine } from '../../database/machines'
import { emptySheet } from '@oar-bench/core/sheet/schema'
import { FIRST_VARIANT, machineBody } from '#shared/api'

export default defineEventHandler(async (event) => {
  const { name, summary } = await readChecked(event, machineBody)
  const id = insertMachine(useStore(), {
    name,
    summary,
    variants: [{ name: FIRST_VARIANT, sheet: emptySheet(name) }],
  })
  setResponseStatus(event, 201)
  return { id }
})
