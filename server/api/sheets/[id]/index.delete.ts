import { eq } from 'drizzle-orm'
import { variantsOf } from '../../../database/machines'
import { sheets } from '../../../database/schema'

export default defineEventHandler((event) => {
  const id = getRouterParam(event, 'id')!
  const store = useStore()
  const sheet = store.select({ machineId: sheets.machineId }).from(sheets).where(eq(sheets.id, id)).get()
  if (!sheet) refuse(404, 'There is no such variant; it may have been deleted.')
  if (variantsOf(store, sheet.machineId).length < 2)
    refuse(409, 'This is the only variant of its machine; delete the machine instead.')
  store.delete(sheets).where(eq(sheets.id, id)).run()
  return sendNoContent(event)
})
