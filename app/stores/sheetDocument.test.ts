import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { addComponent, move } from '@oar-bench/core/sheet/edit'
import { scheduleSchema } from '@oar-bench/core/sheet/schema'
import { fakeServer } from '../testing/fakeServer'
import { undoStepsWritten } from '../utils/undoStorage'
import { useSelection } from './selection'
import { UNDO_LIMIT, useSheetDocument } from './sheetDocument'

let count = 0
function opened(id = `document-${++count}`) {
  setActivePinia(createPinia())
  const sheetDocument = useSheetDocument()
  const server = fakeServer('machine', id)
  sheetDocument.open(server.detail())
  return { sheetDocument, server, id }
}
const add = (sheetDocument: ReturnType<typeof useSheetDocument>, kind: string) => {
  const { sheet, id } = addComponent(sheetDocument.sheet, kind)
  sheetDocument.apply(sheet)
  return id
}

describe('undo', () => {
  it('goes back and forth step by step, to the very sheets', () => {
    const { sheetDocument } = opened()
    const first = sheetDocument.sheet
    add(sheetDocument, 'fixed-pump')
    const second = sheetDocument.sheet
    add(sheetDocument, 'reservoir')
    sheetDocument.undo()
    expect(sheetDocument.sheet).toBe(second)
    sheetDocument.undo()
    expect(sheetDocument.sheet).toBe(first)
    expect([sheetDocument.canUndo, sheetDocument.canRedo]).toEqual([false, true])
    sheetDocument.undo()
    sheetDocument.redo()
    expect(sheetDocument.sheet).toBe(second)
  })
  it('forgets what was taken back when something else is done', () => {
    const { sheetDocument } = opened()
    add(sheetDocument, 'fixed-pump')
    sheetDocument.undo()
    add(sheetDocument, 'reservoir')
    expect(sheetDocument.canRedo).toBe(false)
  })
  it('counts no step where nothing changes, and none for opening', () => {
    const { sheetDocument } = opened()
    expect(sheetDocument.canUndo).toBe(false)
    sheetDocument.apply(sheetDocument.sheet)
    expect(sheetDocument.canUndo).toBe(false)
  })
  it('has a limit, beyond which the oldest steps go', () => {
    const { sheetDocument } = opened()
    const id = add(sheetDocument, 'reservoir')
    for (let i = 0; i < UNDO_LIMIT + 10; i++) sheetDocument.apply(move(sheetDocument.sheet, [id], 1, 0))
    let steps = 0
    for (; sheetDocument.canUndo; steps++) sheetDocument.undo()
    expect(steps).toBe(UNDO_LIMIT)
    expect(sheetDocument.sheet.components[0].x).toBe(10)
  })
  it('outlasts a reload where the sheet is as it was left, and only there', async () => {
    const { sheetDocument, server, id } = opened()
    add(sheetDocument, 'fixed-pump')
    add(sheetDocument, 'reservoir')
    sheetDocument.undo()
    await undoStepsWritten()
    server.sheet.content = sheetDocument.sheet
    const again = opened(id).sheetDocument
    again.open(server.detail())
    await again.restoreUndo()
    expect([again.canUndo, again.canRedo]).toEqual([true, true])
    again.redo()
    expect(again.sheet.components.map((c) => c.kind)).toEqual(['fixed-pump', 'reservoir'])
    await undoStepsWritten()
    const changed = opened(id).sheetDocument
    await changed.restoreUndo()
    expect(changed.canUndo).toBe(false)
  })
})

it('keeps a schedule that is there', () => {
  const { sheetDocument } = opened()
  const two = { ...sheetDocument.sheet, schedules: ['a', 'b'].map((id) => scheduleSchema.parse({ id })) }
  sheetDocument.apply(two)
  expect(sheetDocument.scheduleId).toBe('a')
  sheetDocument.scheduleId = 'b'
  sheetDocument.apply({ ...two, schedules: two.schedules.slice(0, 1) })
  expect(sheetDocument.schedule?.id).toBe('a')
})

describe('the selection', () => {
  beforeEach(() => opened())
  it('loses what an edit removes, and comes in three lists', () => {
    const sheetDocument = useSheetDocument()
    const selection = useSelection()
    const [pump, tank] = [add(sheetDocument, 'fixed-pump'), add(sheetDocument, 'reservoir')]
    selection.select([pump, tank])
    expect(selection.components).toHaveLength(2)
    expect(selection.onlyId).toBeUndefined()
    sheetDocument.undo()
    expect([...selection.ids]).toEqual([pump])
    expect(selection.onlyId).toBe(pump)
  })
  it('is empty on another sheet, even where that has parts of the same id', () => {
    const sheetDocument = useSheetDocument()
    const selection = useSelection()
    selection.select([add(sheetDocument, 'fixed-pump')])
    const other = fakeServer('machine', 'other')
    other.sheet.content = sheetDocument.sheet
    sheetDocument.open(other.detail())
    expect(selection.ids.size).toBe(0)
  })
})
