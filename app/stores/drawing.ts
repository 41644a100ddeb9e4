/** The machine that is open: its sheet with undo, its selection, and what has been saved. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { useDebounceFn } from '@vueuse/core'
import type { Finding } from '@oar-bench/core/sheet/finding'
import { emptySheet, type Sheet } from '@oar-bench/core/sheet/schema'
import { compile } from '@oar-bench/core/simulate/compile'
import { briefSchema, resolveBrief, type Brief } from '@oar-bench/core/size/brief'
import type { MachineDetail, Saved, VariantRow } from '#shared/api'

export type SaveState = 'saved' | 'saving' | 'waiting' | 'failed' | 'conflict'
const SAVE_DELAY = 400
const RETRY_DELAY = 3000

export const useDrawing = defineStore('drawing', () => {
  const machine = ref<Pick<MachineDetail, 'id' | 'name' | 'summary'>>()
  const sheetId = ref('')
  const variants = shallowRef<readonly VariantRow[]>([])
  const sheet = shallowRef<Sheet>(emptySheet('Sheet'))
  const brief = shallowRef<Brief>(briefSchema.parse({}))
  const past = shallowRef<readonly Sheet[]>([])
  const future = shallowRef<readonly Sheet[]>([])
  const selection = shallowRef<ReadonlySet<string>>(new Set<string>())
  const scheduleId = ref<string>()

  // ---- saving -----------------------------------------------------------------------------
  const saveState = ref<SaveState>('saved')
  const saveProblem = ref('')
  const savedAt = ref(0)
  const revisions = { sheet: 1, brief: 1 }
  const dirty = { sheet: false, brief: false }
  let running: Promise<void> | undefined
  let retry: ReturnType<typeof setTimeout> | undefined

  async function saveNow(): Promise<void> {
    if (running) {
      await running
      if (!dirty.sheet && !dirty.brief) return
    }
    running = save()
    await running
    running = undefined
  }

  async function save(): Promise<void> {
    const id = machine.value?.id
    if (!id || saveState.value === 'conflict') return
    clearTimeout(retry)
    saveState.value = 'saving'
    try {
      if (dirty.sheet) {
        dirty.sheet = false
        try {
          const body = { revision: revisions.sheet, sheet: sheet.value }
          const saved = await $fetch<Saved>(`/api/sheets/${sheetId.value}`, { method: 'PUT', body })
          revisions.sheet = saved.revision
          savedAt.value = saved.updatedAt
        } catch (error) {
          dirty.sheet = true
          throw error
        }
      }
      if (dirty.brief) {
        dirty.brief = false
        try {
          const body = { revision: revisions.brief, brief: brief.value }
          const saved = await $fetch<Saved>(`/api/machines/${id}/brief`, { method: 'PUT', body })
          revisions.brief = saved.revision
          savedAt.value = saved.updatedAt
        } catch (error) {
          dirty.brief = true
          throw error
        }
      }
      saveProblem.value = ''
      saveState.value = dirty.sheet || dirty.brief ? 'waiting' : 'saved'
      if (saveState.value === 'waiting') saveSoon()
    } catch (error) {
      saveProblem.value = failureMessage(error)
      if (failureStatus(error) === 409) saveState.value = 'conflict'
      else {
        saveState.value = 'failed'
        retry = setTimeout(() => void saveNow(), RETRY_DELAY)
      }
    }
  }
  const saveSoon = useDebounceFn(() => void saveNow(), SAVE_DELAY)
  function touch(what: 'sheet' | 'brief') {
    dirty[what] = true
    if (saveState.value !== 'conflict') saveState.value = 'waiting'
    saveSoon()
  }
  const unsaved = computed(() => saveState.value !== 'saved')

  /** After a conflict: takes the other side's version, or puts this one over it. */
  async function settleConflict(keep: 'mine' | 'theirs'): Promise<void> {
    const id = machine.value!.id
    const detail = await $fetch<MachineDetail>(`/api/machines/${id}`, { query: { sheet: sheetId.value } })
    if (keep === 'theirs') return open(detail)
    revisions.sheet = detail.sheet.revision
    revisions.brief = detail.briefRevision
    saveState.value = 'waiting'
    await saveNow()
  }

  // ---- opening and editing ----------------------------------------------------------------
  function open(detail: MachineDetail) {
    clearTimeout(retry)
    machine.value = { id: detail.id, name: detail.name, summary: detail.summary }
    sheetId.value = detail.sheet.id
    variants.value = detail.variants
    sheet.value = detail.sheet.content
    brief.value = detail.brief
    revisions.sheet = detail.sheet.revision
    revisions.brief = detail.briefRevision
    dirty.sheet = dirty.brief = false
    past.value = []
    future.value = []
    selection.value = new Set<string>()
    scheduleId.value = detail.sheet.content.schedules[0]?.id
    saveState.value = 'saved'
    saveProblem.value = ''
  }

  function put(next: Sheet) {
    sheet.value = next
    const there = new Set([...next.components, ...next.joints, ...next.pipes].map((item) => item.id))
    const kept = [...selection.value].filter((id) => there.has(id))
    if (kept.length !== selection.value.size) selection.value = new Set(kept)
    if (!next.schedules.some((s) => s.id === scheduleId.value)) scheduleId.value = next.schedules[0]?.id
    touch('sheet')
  }
  /** One step of work on the sheet, which undo takes back. */
  function apply(next: Sheet) {
    if (next === sheet.value) return
    past.value = [...past.value, sheet.value]
    future.value = []
    put(next)
  }
  function undo() {
    const before = past.value.at(-1)
    if (!before) return
    past.value = past.value.slice(0, -1)
    future.value = [...future.value, sheet.value]
    put(before)
  }
  function redo() {
    const next = future.value.at(-1)
    if (!next) return
    future.value = future.value.slice(0, -1)
    past.value = [...past.value, sheet.value]
    put(next)
  }
  function setBrief(next: Brief) {
    brief.value = next
    touch('brief')
  }
  /** Renames the machine; the old name stands where the server refuses. */
  async function rename(name: string, summary: string) {
    const current = machine.value
    if (!current || (name === current.name && summary === current.summary)) return
    try {
      await $fetch(`/api/machines/${current.id}`, { method: 'PATCH', body: { name, summary } })
      machine.value = { ...current, name, summary }
    } catch (error) {
      machine.value = { ...current }
      saveProblem.value = failureMessage(error)
      saveState.value = 'failed'
    }
  }
  const select = (ids: Iterable<string>) => (selection.value = new Set(ids))

  // ---- what is wrong ----------------------------------------------------------------------
  const allFindings = computed<Finding[]>(() => compile(sheet.value, scheduleId.value).findings)
  const findings = computed(() => allFindings.value.filter((f) => !f.silenced))
  /** Those that somebody accepts, each with the reason. */
  const accepted = computed(() => allFindings.value.filter((f) => f.silenced))
  const errors = computed(() => findings.value.filter((f) => f.severity === 'error'))
  const schedule = computed(() => sheet.value.schedules.find((s) => s.id === scheduleId.value))
  const briefProblems = computed(() => resolveBrief(brief.value).problems)

  return {
    machine,
    sheetId,
    variants,
    sheet,
    brief,
    past,
    future,
    selection,
    scheduleId,
    schedule,
    saveState,
    saveProblem,
    savedAt,
    unsaved,
    saveNow,
    settleConflict,
    open,
    apply,
    undo,
    redo,
    setBrief,
    rename,
    select,
    findings,
    accepted,
    errors,
    briefProblems,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useDrawing, import.meta.hot))
