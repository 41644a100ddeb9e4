import { randomUUID } from 'node:crypto'
import { emptySheet } from '@oar-bench/core/sheet/schema'
import { writeSheetText } from '@oar-bench/core/sheet/read'
import { variantBody, type VariantRow } from '#shared/api'
import { findMachine, variantsOf } from '../../../database/machines'
import { sheets } from '../../../database/schema'

export default defineEventHandler(async (event): Promise<VariantRow> => {
  const { name, from } = await readChecked(event, variantBody)
  const store = useStore()
  const machine = findMachine(store, getRouterParam(event, 'id')!)
  if (!machine) refuse(404, 'There is no such machine; it may have been deleted.')
  const variants = variantsOf(store, machine.id)
  const source = variants.find((v) => v.id === from)
  if (from && !source) refuse(404, 'The variant to copy is no longer there.')
  const id = randomUUID()
  store
    .insert(sheets)
    .values({
      id,
      machineId: machine.id,
      name,
      position: Math.max(-1, ...variants.map((v) => v.position)) + 1,
      content: source?.content ?? writeSheetText(emptySheet(machine.name)),
      updatedAt: new Date(),
    })
    .run()
  setResponseStatus(event, 201)
  return { id, name }
})
