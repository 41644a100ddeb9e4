/** Saves what is edited, keeps it in the browser until it is saved, and settles conflicts with others. */
import { useTimeoutFn } from '@vueuse/core'
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { writeSheetText } from '@oar-bench/core/sheet/read'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { Brief } from '@oar-bench/core/size/brief/brief'
import type { MachineDetail, Saved } from '#shared/api'
import { abandonedDrafts, draftsWritten, dropDraft, keepDraft, type Draft } from '../utils/drafts'
import { conflictData, failureMessage, failureStatus } from '../utils/messages'
import { randomId, TAB_ID } from '../utils/tabId'
import { useSheetDocument } from './sheetDocument'
import { useTabs } from './tabs'

export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict'
/** After the last edit, ms. */
const SAVE_DELAY = 400
/** After a server that did not answer, ms. */
const RETRY_DELAY = 3000

/** What the server is known to have of one document. */
interface Base<T> {
  content: T | undefined
  revision: number
}

export const useSaving = defineStore('saving', () => {
  const sheetDocument = useSheetDocument()
  const tabs = useTabs()
  const state = ref<SaveState>('saved')
  const problem = ref('')
  /** Time of the last save, ms since 1970; 0 before the first. */
  const savedAt = ref(0)
  const unsaved = computed(() => state.value !== 'saved')
  /** Drafts of earlier visits to this sheet that differ from what the server has. */
  const offered = shallowRef<readonly Draft[]>([])

  let sheetBase: Base<Sheet> = { content: sheetDocument.sheet, revision: 1 }
  let briefBase: Base<Brief> = { content: sheetDocument.brief, revision: 1 }
  /** Sheet and brief are being replaced by those of the server: that is no edit. */
  let opening = false
  let running: Promise<void> | undefined
  /** Saves that may have reached the server though no answer came. */
  const unanswered = new Set<string>()
  const sheetIsDirty = () => sheetDocument.sheet !== sheetBase.content
  const briefIsDirty = () => sheetDocument.brief !== briefBase.content
  const isDirty = () => sheetIsDirty() || briefIsDirty()

  const { start: saveSoon, stop: cancelSave } = useTimeoutFn(() => void saveNow(), SAVE_DELAY, {
    immediate: false,
  })
  const { start: retrySoon, stop: cancelRetry } = useTimeoutFn(() => void saveNow(), RETRY_DELAY, {
    immediate: false,
  })

  /** Nothing here differs from what the server has. */
  function settleSaved(): void {
    cancelSave()
    cancelRetry()
    if (state.value !== 'saved') void dropDraft(own())
    state.value = 'saved'
    problem.value = ''
  }
  const own = () => ({ sheetId: sheetDocument.sheetId, tab: TAB_ID })
  function keepInBrowser(): void {
    const machineId = sheetDocument.machine?.id
    if (!machineId || !isDirty()) return
    void keepDraft({
      ...own(),
      machineId,
      at: Date.now(),
      ...(sheetIsDirty() ? { sheet: sheetDocument.sheet } : {}),
      ...(briefIsDirty() ? { brief: sheetDocument.brief } : {}),
    })
  }
  // synchronous: right after an edit the state says that it is not saved yet
  watch(
    [() => sheetDocument.sheet, () => sheetDocument.brief],
    () => {
      if (opening) return
      if (!sheetDocument.machine || state.value === 'conflict') return keepInBrowser()
      if (isDirty()) {
        keepInBrowser()
        state.value = 'waiting'
        saveSoon()
      } else if (!running) settleSaved()
    },
    { flush: 'sync' },
  )

  /** Opens a machine as the server has it. */
  function open(detail: MachineDetail): void {
    cancelSave()
    cancelRetry()
    unanswered.clear()
    sheetBase = { content: detail.sheet.content, revision: detail.sheet.revision }
    briefBase = { content: detail.brief, revision: detail.briefRevision }
    state.value = 'saved'
    problem.value = ''
    offered.value = []
    opening = true
    sheetDocument.open(detail)
    opening = false
  }

  async function saveNow(): Promise<void> {
    if (running) {
      await running
      if (!isDirty()) return
    }
    running = save().finally(() => (running = undefined))
    await running
  }

  /** Writes one document; where the answer to an earlier write was lost, goes on from what that write made. */
  async function write<T>(url: string, field: 'sheet' | 'brief', content: T, base: Base<T>): Promise<void> {
    const saveId = randomId()
    const body = { revision: base.revision, saveId, [field]: content }
    try {
      const saved = await $fetch<Saved>(url, { method: 'PUT', body })
      base.content = content
      base.revision = saved.revision
      savedAt.value = saved.updatedAt
    } catch (error) {
      const status = failureStatus(error)
      if (status === undefined || status >= 500) {
        // what the server has now is not known until it answers again
        unanswered.add(saveId)
        base.content = undefined
      }
      const current = conflictData(error)
      if (!current?.saveId || !unanswered.delete(current.saveId)) throw error
      base.revision = current.revision
      await write(url, field, content, base)
    }
  }

  async function save(): Promise<void> {
    const id = sheetDocument.machine?.id
    if (!id || state.value === 'conflict') return
    if (!isDirty()) return settleSaved()
    cancelSave()
    cancelRetry()
    state.value = 'saving'
    const { sheetId } = sheetDocument
    const [sheetBefore, briefBefore] = [sheetBase, briefBase]
    try {
      if (sheetIsDirty()) await write(`/api/sheets/${sheetId}`, 'sheet', sheetDocument.sheet, sheetBefore)
      if (briefIsDirty() && briefBase === briefBefore)
        await write(`/api/machines/${id}/brief`, 'brief', sheetDocument.brief, briefBefore)
      // meanwhile another sheet may have been opened
      if (sheetBase !== sheetBefore) return
      tabs.announceSaved()
      if (!isDirty()) return settleSaved()
      problem.value = ''
      state.value = 'waiting'
      saveSoon()
    } catch (error) {
      if (sheetBase !== sheetBefore) return
      problem.value = failureMessage(error)
      const status = failureStatus(error)
      state.value = status === 409 ? 'conflict' : 'failed'
      // what the server refuses once it refuses again
      if (status === undefined || status >= 500 || status === 429) retrySoon()
    }
  }

  /** What the server has now, under the same address as the sheet that is open. */
  async function fetchOpened(): Promise<MachineDetail | undefined> {
    const { machine, sheetId } = sheetDocument
    if (!machine) return undefined
    const query = { sheet: sheetId }
    const detail = await $fetch<MachineDetail>(`/api/machines/${machine.id}`, { query })
    return sheetDocument.sheetId === sheetId ? detail : undefined
  }
  /** Takes what the server has as a step that undo takes back. */
  function acceptServerVersion(detail: MachineDetail): void {
    const changed = writeSheetText(detail.sheet.content) !== writeSheetText(sheetDocument.sheet)
    sheetBase = {
      content: changed ? detail.sheet.content : sheetDocument.sheet,
      revision: detail.sheet.revision,
    }
    briefBase = { content: detail.brief, revision: detail.briefRevision }
    if (changed) sheetDocument.apply(detail.sheet.content)
    sheetDocument.setBrief(detail.brief)
  }
  /** After a conflict: takes the other version, which undo takes back, or writes this one over it. */
  async function resolveConflict(keep: 'mine' | 'theirs'): Promise<void> {
    try {
      const detail = await fetchOpened()
      if (!detail) return
      problem.value = ''
      if (keep === 'theirs') {
        acceptServerVersion(detail)
        settleSaved()
      } else {
        sheetBase = { content: undefined, revision: detail.sheet.revision }
        briefBase = { content: undefined, revision: detail.briefRevision }
        state.value = 'waiting'
        await saveNow()
      }
    } catch (error) {
      problem.value = failureMessage(error)
    }
  }
  // what another tab has saved is taken over where nothing here would be lost by it
  tabs.onSavedElsewhere(() => {
    if (unsaved.value) return
    void fetchOpened()
      .then((detail) => {
        if (detail && !unsaved.value && detail.sheet.revision >= sheetBase.revision)
          acceptServerVersion(detail)
      })
      .catch(() => undefined)
  })

  /** Looks for drafts of earlier visits; those that the server has meanwhile are dropped. */
  async function findDrafts(): Promise<void> {
    const { sheetId } = sheetDocument
    const [sheet, brief] = [sheetBase.content, briefBase.content]
    const same = (draft: Draft) =>
      (!draft.sheet || (!!sheet && writeSheetText(draft.sheet) === writeSheetText(sheet))) &&
      (!draft.brief || JSON.stringify(draft.brief) === JSON.stringify(brief))
    const drafts = (await abandonedDrafts()).filter((draft) => draft.sheetId === sheetId)
    if (sheetDocument.sheetId !== sheetId) return
    for (const draft of drafts) if (same(draft)) void dropDraft(draft)
    // what is being edited here meanwhile is no draft of an earlier visit
    offered.value = drafts.filter((draft) => !same(draft) && !(draft.tab === TAB_ID && unsaved.value))
  }
  const withdrawOffer = (draft: Draft) => {
    offered.value = offered.value.filter((other) => other !== draft)
  }
  /** An own draft goes when its edits are saved. */
  const isStillOwn = (draft: Draft) => draft.tab === TAB_ID && unsaved.value
  /** Takes a draft as a step on the sheet, which is then saved. */
  async function useDraft(draft: Draft): Promise<void> {
    if (draft.sheet) sheetDocument.apply(draft.sheet)
    if (draft.brief) sheetDocument.setBrief(draft.brief)
    withdrawOffer(draft)
    // the browser has the edits as a draft of this tab before it loses the other one
    await draftsWritten()
    if (!isStillOwn(draft)) await dropDraft(draft)
  }
  /** The offer stays until the browser has forgotten the draft: a reload does not bring it back. */
  async function discardDraft(draft: Draft): Promise<void> {
    if (!isStillOwn(draft)) await dropDraft(draft)
    withdrawOffer(draft)
  }

  return {
    state,
    problem,
    savedAt,
    unsaved,
    offered,
    open,
    saveNow,
    resolveConflict,
    findDrafts,
    useDraft,
    discardDraft,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useSaving, import.meta.hot))
