/** The sheet and the brief of the machine that is open, with undo. */
import { useManualRefHistory } from '@vueuse/core'
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, markRaw, ref, shallowRef } from 'vue'
import { emptySheet, type Sheet } from '@oar-bench/core/sheet/schema'
import {
  briefProblems as problemsOf,
  emptyBrief,
  missingOf,
  type Brief,
} from '@oar-bench/core/size/brief/brief'
import type { MachineDetail, VariantRow } from '#shared/api'
import { renameRequest } from '../utils/renameRequest'
import { storedUndoSteps, storeUndoSteps } from '../utils/undoStorage'

/** Steps that undo takes back at most. */
export const UNDO_LIMIT = 200

export const useSheetDocument = defineStore('sheetDocument', () => {
  const machine = ref<Pick<MachineDetail, 'id' | 'name' | 'summary'>>()
  const sheetId = ref('')
  const variants = shallowRef<readonly VariantRow[]>([])
  const sheet = shallowRef<Sheet>(emptySheet('Sheet'))
  const brief = shallowRef<Brief>(emptyBrief())
  const scheduleId = ref<string>()
  const history = useManualRefHistory(sheet, { capacity: UNDO_LIMIT })
  const briefHistory = useManualRefHistory(brief, { capacity: UNDO_LIMIT })
  const { undoStack, redoStack, canUndo, canRedo } = history
  const snapshots = (stack: typeof undoStack) => stack.value.map((record) => record.snapshot)

  /** Takes a machine as the server has it. */
  function open(detail: MachineDetail): void {
    machine.value = { id: detail.id, name: detail.name, summary: detail.summary }
    sheetId.value = detail.sheet.id
    variants.value = detail.variants
    sheet.value = detail.sheet.content
    brief.value = detail.brief
    scheduleId.value = detail.sheet.content.schedules[0]?.id
    // a record of the sheet as it is opened, and none before it
    for (const kept of [history, briefHistory]) {
      kept.commit()
      kept.clear()
    }
  }
  /** Undo of an earlier visit, where nothing has been done yet and the sheet is as it was left. */
  async function restoreUndo(): Promise<void> {
    const [id, opened] = [sheetId.value, sheet.value]
    const steps = await storedUndoSteps(id, opened)
    if (!steps || sheetId.value !== id || sheet.value !== opened || canUndo.value) return
    const timestamp = Date.now()
    const records = (list: readonly Sheet[]) => list.map((snapshot) => markRaw({ snapshot, timestamp }))
    undoStack.value = records(steps.undo)
    redoStack.value = records(steps.redo)
  }

  function afterChange(): void {
    const { schedules } = sheet.value
    if (!schedules.some((s) => s.id === scheduleId.value)) scheduleId.value = schedules[0]?.id
    storeUndoSteps(sheetId.value, sheet.value, { undo: snapshots(undoStack), redo: snapshots(redoStack) })
  }
  /** One step of work on the sheet, which undo takes back. */
  function apply(next: Sheet): void {
    if (next === sheet.value) return
    sheet.value = next
    history.commit()
    afterChange()
  }
  function undo(): void {
    if (!canUndo.value) return
    history.undo()
    afterChange()
  }
  function redo(): void {
    if (!canRedo.value) return
    history.redo()
    afterChange()
  }
  /** One step of work on the brief; it is undone separately from the sheet. */
  function setBrief(next: Brief): void {
    if (next === brief.value) return
    brief.value = next
    briefHistory.commit()
  }
  /** Shows a brief while something is dragged; it becomes a step with `commitBrief`. */
  function previewBrief(next: Brief): void {
    brief.value = next
  }
  const commitBrief = () => briefHistory.commit()
  const undoBrief = () => briefHistory.canUndo.value && briefHistory.undo()
  const redoBrief = () => briefHistory.canRedo.value && briefHistory.redo()
  /** Renames the machine. @throws FetchError where the server refuses; the old name is kept then */
  async function rename(name: string, summary: string): Promise<void> {
    const current = machine.value
    if (!current || (name === current.name && summary === current.summary)) return
    try {
      await renameRequest(`/api/machines/${current.id}`, { name, summary })
      machine.value = { ...current, name, summary }
    } catch (error) {
      // a new object, so that the fields show the old name again
      machine.value = { ...current }
      throw error
    }
  }

  const schedule = computed(() => sheet.value.schedules.find((s) => s.id === scheduleId.value))
  /** What does not read or contradicts itself in the brief, and what is not given yet. */
  const briefProblems = computed(() => problemsOf(brief.value))
  const briefMissing = computed(() => missingOf(brief.value))
  return {
    machine,
    sheetId,
    variants,
    sheet,
    brief,
    scheduleId,
    schedule,
    canUndo,
    canRedo,
    open,
    restoreUndo,
    apply,
    undo,
    redo,
    setBrief,
    canUndoBrief: briefHistory.canUndo,
    canRedoBrief: briefHistory.canRedo,
    previewBrief,
    commitBrief,
    undoBrief,
    redoBrief,
    rename,
    briefProblems,
    briefMissing,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useSheetDocument, import.meta.hot))
