import { createStore, entries } from 'idb-keyval'
import { createPinia, disposePinia, getActivePinia, setActivePinia, type Pinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { addComponent } from '@oar-bench/core/sheet/edit'
import { emptySheet } from '@oar-bench/core/sheet/schema'
import { fakeServer, fetchError } from '../testing/fakeServer'
import { abandonedDrafts, draftsWritten, keepDraft, type Draft } from '../utils/drafts'
import { TAB_ID } from '../utils/tabId'
import { useOpenMachine } from '../composables/useOpenMachine'
import { useSaving } from './saving'
import { useSheetDocument } from './sheetDocument'

let server: ReturnType<typeof fakeServer>
let count = 0
beforeEach(() => {
  setActivePinia(createPinia())
  // a sheet of its own for each test: drafts stay in the browser
  server = fakeServer(`machine-${++count}`, `sheet-${count}`)
  server.stub()
})
afterEach(() => vi.unstubAllGlobals())

/** The page is loaded anew: nothing of before goes on. */
function reload() {
  disposePinia(getActivePinia() as Pinia)
  setActivePinia(createPinia())
}
afterEach(() => disposePinia(getActivePinia() as Pinia))

async function opened() {
  await useOpenMachine()(`machine-${count}`)
  return { sheetDocument: useSheetDocument(), saving: useSaving() }
}
const withPump = (kind = 'fixed-pump') => {
  const sheetDocument = useSheetDocument()
  sheetDocument.apply(addComponent(sheetDocument.sheet, kind).sheet)
}
const kinds = (sheet: { components: { kind: string }[] }) => sheet.components.map((c) => c.kind)
const ownDrafts = async () => (await abandonedDrafts()).filter((d) => d.sheetId === `sheet-${count}`)

describe('saving', () => {
  it('is unsaved at once after an edit, and saved when the server has answered', async () => {
    const { saving } = await opened()
    expect(saving.state).toBe('saved')
    withPump()
    expect(saving.unsaved).toBe(true)
    await saving.saveNow()
    expect(saving.state).toBe('saved')
    expect(kinds(server.sheet.content)).toEqual(['fixed-pump'])
    await saving.saveNow()
    expect(server.puts()).toBe(1)
  })
  it('saves by itself a moment after an edit, once for several', async () => {
    const { saving } = await opened()
    withPump()
    withPump()
    await vi.waitFor(() => expect(saving.state).toBe('saved'), 3000)
    expect(server.puts()).toBe(1)
    expect(server.sheet.content.components).toHaveLength(2)
  })
  it('has nothing to save where undo leads back to what the server has', async () => {
    const { saving, sheetDocument } = await opened()
    withPump()
    sheetDocument.undo()
    expect(saving.unsaved).toBe(false)
    await saving.saveNow()
    expect(server.puts()).toBe(0)
  })
  it('saves what was edited while a save was on its way', async () => {
    const { saving } = await opened()
    withPump()
    const first = saving.saveNow()
    withPump('reservoir')
    await first
    expect(saving.unsaved).toBe(true)
    await saving.saveNow()
    expect(kinds(server.sheet.content)).toEqual(['fixed-pump', 'reservoir'])
  })
  it('saves the brief on its own', async () => {
    const { saving, sheetDocument } = await opened()
    sheetDocument.setBrief({ ...sheetDocument.brief, purpose: 'press' })
    await saving.saveNow()
    expect(server.brief.content.purpose).toBe('press')
    expect(server.sheet.revision).toBe(1)
  })
})

describe('a server that does not answer', () => {
  it('is tried again, and nothing is lost', async () => {
    const { saving } = await opened()
    server.troubles.push('unreachable')
    withPump()
    await saving.saveNow()
    expect([saving.state, saving.problem]).toEqual(['failed', 'The server does not answer.'])
    await vi.waitFor(() => expect(saving.state).toBe('saved'), 6000)
    expect(saving.problem).toBe('')
  })
  it('and did its work all the same is no conflict', async () => {
    const { saving } = await opened()
    server.troubles.push('answer lost')
    withPump()
    await saving.saveNow()
    expect(saving.state).toBe('failed')
    await saving.saveNow()
    expect(saving.state).toBe('saved')
    expect(server.sheet.revision).toBe(2)
  })
  it('and did its work is no conflict where more was edited meanwhile', async () => {
    const { saving } = await opened()
    server.troubles.push('answer lost')
    withPump()
    await saving.saveNow()
    withPump('reservoir')
    await saving.saveNow()
    expect(saving.state).toBe('saved')
    expect(kinds(server.sheet.content)).toEqual(['fixed-pump', 'reservoir'])
  })
  it('and did its work is asked again, though undo led back to what it had before', async () => {
    const { saving, sheetDocument } = await opened()
    server.troubles.push('answer lost')
    withPump()
    await saving.saveNow()
    sheetDocument.undo()
    expect(saving.unsaved).toBe(true)
    await saving.saveNow()
    expect(saving.state).toBe('saved')
    expect(kinds(server.sheet.content)).toEqual([])
  })
  it('that refuses is not asked again and again', async () => {
    const { saving } = await opened()
    server.troubles.push('refuse')
    withPump()
    await saving.saveNow()
    expect([saving.state, saving.problem]).toEqual(['failed', 'The sheet is wrong.'])
    await new Promise((resolve) => setTimeout(resolve, 3500))
    expect(server.puts()).toBe(1)
  })
})

describe('a conflict', () => {
  async function inConflict() {
    const all = await opened()
    server.sheet.content = addComponent(server.sheet.content, 'reservoir').sheet
    server.sheet.revision++
    withPump()
    await all.saving.saveNow()
    expect(all.saving.state).toBe('conflict')
    return all
  }
  it('is asked about, and writes over the other version where this one is kept', async () => {
    const { saving } = await inConflict()
    await saving.resolveConflict('mine')
    expect(saving.state).toBe('saved')
    expect(kinds(server.sheet.content)).toEqual(['fixed-pump'])
  })
  it('takes the other version as a step that undo takes back', async () => {
    const { saving, sheetDocument } = await inConflict()
    await saving.resolveConflict('theirs')
    expect(saving.state).toBe('saved')
    expect(kinds(sheetDocument.sheet)).toEqual(['reservoir'])
    sheetDocument.undo()
    expect(kinds(sheetDocument.sheet)).toEqual(['fixed-pump'])
    expect(saving.unsaved).toBe(true)
  })
  it('keeps later edits too, and stays one where the server does not answer', async () => {
    const { saving } = await inConflict()
    withPump('relief-valve-direct')
    expect(saving.state).toBe('conflict')
    server.troubles.push('unreachable')
    await saving.resolveConflict('mine')
    expect([saving.state, saving.problem]).toEqual(['conflict', 'The server does not answer.'])
    expect((await ownDrafts())[0].sheet!.components).toHaveLength(2)
  })
})

describe('edits that were never saved', () => {
  it('stay in the browser, are offered again, and are saved where they are restored', async () => {
    const { saving } = await opened()
    server.troubles.push('unreachable')
    withPump()
    await saving.saveNow()
    await draftsWritten()
    reload()
    const again = await opened()
    expect(kinds(again.sheetDocument.sheet)).toEqual([])
    expect(again.saving.offered).toHaveLength(1)
    again.saving.useDraft(again.saving.offered[0])
    expect(again.saving.offered).toHaveLength(0)
    expect(kinds(again.sheetDocument.sheet)).toEqual(['fixed-pump'])
    await again.saving.saveNow()
    expect(kinds(server.sheet.content)).toEqual(['fixed-pump'])
    expect(await ownDrafts()).toEqual([])
  })
  it('are gone when they are saved, and not offered where the server has them', async () => {
    const { saving } = await opened()
    withPump()
    await draftsWritten()
    expect(await ownDrafts()).toHaveLength(1)
    server.troubles.push('answer lost')
    await saving.saveNow()
    reload()
    const again = await opened()
    expect(again.saving.offered).toEqual([])
    expect(await ownDrafts()).toEqual([])
  })
  it('are offered until the browser has forgotten what is discarded', async () => {
    const { saving } = await opened()
    server.troubles.push('unreachable')
    withPump()
    await saving.saveNow()
    await draftsWritten()
    reload()
    const again = await opened()
    const discarded = again.saving.discardDraft(again.saving.offered[0])
    expect(again.saving.offered).toHaveLength(1)
    await discarded
    expect(again.saving.offered).toEqual([])
    expect(await ownDrafts()).toEqual([])
  })
  it('are never out of the browser while they are restored', async () => {
    const draft = { machineId: `machine-${count}`, sheetId: `sheet-${count}`, tab: 'earlier', at: 1 }
    await keepDraft({ ...draft, sheet: addComponent(emptySheet('Earlier'), 'fixed-pump').sheet })
    const { saving } = await opened()
    // the browser alone has them, however long its storage takes
    server.troubles.push('unreachable', 'unreachable', 'unreachable')
    const restored = saving.useDraft(saving.offered[0])
    const stored = async () => {
      const all = await entries<string, Draft>(createStore('oar-bench-drafts', 'drafts'))
      return all.map(([, { sheetId, tab }]) => (sheetId === draft.sheetId ? tab : '')).filter(Boolean)
    }
    const seen: string[][] = []
    await vi.waitFor(async () => expect(seen[seen.push(await stored()) - 1]).not.toContain('earlier'), {
      interval: 5,
      timeout: 10000,
    })
    expect(seen.at(-1)).toEqual([TAB_ID])
    expect(seen.filter((tabs) => !tabs.length)).toEqual([])
    await restored
  })
})

it('renaming a machine that the server refuses leaves the old name', async () => {
  const { sheetDocument } = await opened()
  await sheetDocument.rename('Baler', '')
  expect(sheetDocument.machine!.name).toBe('Baler')
  vi.stubGlobal('$fetch', async () => {
    throw fetchError(400, 'No such name.')
  })
  await expect(sheetDocument.rename('', '')).rejects.toThrow('No such name.')
  expect(sheetDocument.machine!.name).toBe('Baler')
})
