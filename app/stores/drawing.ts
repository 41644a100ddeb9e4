/** The machine that is open: its sheet with undo, its selection, and what has been saved. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { useDebounceFn } from '@vueuse/core'
import { emptySheet, type Sheet } from '@oar-bench/core/sheet/schema'
import { briefSchema, resolveBrief, type Brief } from '@oar-bench/core/size/brief'
import type { MachineDetail, Saved, VariantRow } from '#shared/api'

export type SaveState = 'saved' | 'saving' | 'waiting' | 'failed' | 'conflict'
const SAVE_DELAY = 400
const RETRY_DELAY = 3000
/** Another tab that says nothing for so long, though it is asked, is gone, ms. */
const SILENCE = 3000

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
      tell('saved')
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

  // ---- other tabs ---------------------------------------------------------------------------
  /** Another tab has this sheet open as well. */
  const elsewhere = ref(false)
  /** When another tab was last heard of, ms. */
  let heard = 0
  const tab = Math.random().toString(36).slice(2)
  interface Word {
    readonly from: string
    readonly sheet: string
    readonly what: 'opened' | 'here' | 'saved' | 'left'
  }
  const channel = import.meta.client ? new BroadcastChannel('oar-bench-sheets') : undefined
  const tell = (what: Word['what']) =>
    channel?.postMessage({ from: tab, sheet: sheetId.value, what } satisfies Word)
  channel?.addEventListener('message', ({ data: word }: MessageEvent<Word>) => {
    if (word.from === tab || word.sheet !== sheetId.value) return
    if (word.what === 'opened') tell('here')
    elsewhere.value = word.what !== 'left'
    heard = Date.now()
    // where a third has it open too, it answers
    if (word.what === 'left') tell('opened')
    // what the other tab has saved is taken over where nothing here would be lost by it
    if (word.what === 'saved' && !unsaved.value) void takeOver()
  })
  async function takeOver(): Promise<void> {
    const id = machine.value?.id
    const asked = sheetId.value
    if (!id) return
    const detail = await $fetch<MachineDetail>(`/api/machines/${id}`, { query: { sheet: asked } }).catch(
      () => undefined,
    )
    if (!detail || unsaved.value || sheetId.value !== asked) return
    if (detail.sheet.revision > revisions.sheet) apply(detail.sheet.content, false)
    revisions.sheet = detail.sheet.revision
    revisions.brief = detail.briefRevision
    brief.value = detail.brief
  }
  if (import.meta.client) {
    window.addEventListener('pagehide', () => tell('left'))
    // a tab that was ended without a word no longer answers
    setInterval(() => {
      if (elsewhere.value && Date.now() - heard > SILENCE) elsewhere.value = false
      else if (elsewhere.value) tell('opened')
    }, SILENCE / 3)
  }

  // ---- opening and editing ----------------------------------------------------------------
  function open(detail: MachineDetail) {
    clearTimeout(retry)
    if (sheetId.value && sheetId.value !== detail.sheet.id) tell('left')
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
    elsewhere.value = false
    tell('opened')
    void recallSteps()
  }
  const history = useHistory()
  /** Undo of an earlier visit, where nothing has been done yet and the sheet is as it was left. */
  async function recallSteps(): Promise<void> {
    const [id, opened] = [sheetId.value, sheet.value]
    const steps = await history.recall(id, opened)
    if (!steps || sheetId.value !== id || sheet.value !== opened || past.value.length) return
    past.value = steps.past
    future.value = steps.future
  }

  function put(next: Sheet, save = true) {
    sheet.value = next
    const there = new Set([...next.components, ...next.junctions, ...next.pipes].map((item) => item.id))
    const kept = [...selection.value].filter((id) => there.has(id))
    if (kept.length !== selection.value.size) selection.value = new Set(kept)
    if (!next.schedules.some((s) => s.id === scheduleId.value)) scheduleId.value = next.schedules[0]?.id
    history.keep(sheetId.value, next, { past: past.value, future: future.value })
    if (save) touch('sheet')
  }
  /** One step of work on the sheet, which undo takes back. @param save false where it is saved already */
  function apply(next: Sheet, save = true) {
    if (next === sheet.value) return
    past.value = [...past.value, sheet.value]
    future.value = []
    put(next, save)
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
  const checks = useChecks(sheetId, sheet, scheduleId)
  const findings = computed(() => checks.findings.value.filter((f) => !f.accepted))
  /** Those that somebody accepts, each with the reason. */
  const accepted = computed(() => checks.findings.value.filter((f) => f.accepted))
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
    elsewhere,
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
    /** Whether they are those of the sheet as it is, whether none were made yet, and why; `settleChecks` resolves when they are. */
    checked: checks.checked,
    unchecked: checks.waiting,
    checkProblem: checks.problem,
    settleChecks: checks.settle,
    accepted,
    errors,
    briefProblems,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useDrawing, import.meta.hot))
