<script setup lang="ts">
/** Revisions of the sheet: save one, compare one with the present state, restore one. */
import { ArrowLeft, Trash2 } from 'lucide-vue-next'
import type { Change } from '@oar-bench/core/sheet/compare'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { MachineDetail, RevisionRow } from '#shared/api'

const sheetDocument = useSheetDocument()
const selection = useSelection()
const editor = useEditorUi()
const open = useDialog('revisions')
const list = ref<RevisionRow[]>([])
const { problem, attempt } = useAttempt()
const name = ref('')
const note = ref('')
const deleting = ref<string>()
/** What can be compared: the sheet of now, its revisions, and the other variants of the machine. */
interface Choice {
  readonly key: string
  readonly title: string
  readonly sheet: () => Promise<Sheet>
}
const choices = computed<Choice[]>(() => [
  { key: 'now', title: 'Present state', sheet: async () => sheetDocument.sheet },
  ...list.value.map((row) => ({
    key: row.id,
    title: row.name,
    sheet: () => $fetch<Sheet>(`/api/revisions/${row.id}`),
  })),
  ...sheetDocument.variants
    .filter((v) => v.id !== sheetDocument.sheetId)
    .map((v) => ({
      key: v.id,
      title: `Variant: ${v.name}`,
      sheet: async () =>
        (
          await $fetch<MachineDetail>(`/api/machines/${sheetDocument.machine!.id}`, {
            query: { sheet: v.id },
          })
        ).sheet.content,
    })),
])
interface State {
  readonly key: string
  readonly title: string
  readonly sheet: Sheet
}
const seen = shallowRef<{ before: State; after: State }>()
const stateOf = async (key: string): Promise<State> => {
  const { title, sheet } = choices.value.find((c) => c.key === key)!
  return { key, title, sheet: await sheet() }
}

const load = () =>
  attempt(async () => {
    list.value = await $fetch<RevisionRow[]>(`/api/sheets/${sheetDocument.sheetId}/revisions`)
  })
watch(open, (isOpen) => {
  if (!isOpen) return
  seen.value = undefined
  deleting.value = undefined
  void load()
})
const keep = () =>
  attempt(async () => {
    const body = { name: name.value, note: note.value, sheet: sheetDocument.sheet }
    const row = await $fetch<RevisionRow>(`/api/sheets/${sheetDocument.sheetId}/revisions`, {
      method: 'POST',
      body,
    })
    list.value = [row, ...list.value]
    name.value = note.value = ''
  })
/** What was chosen last: it may still be on its way. */
let asked = { before: 'now', after: 'now' }
const compare = (choice: Partial<typeof asked>) =>
  attempt(async () => {
    const of = (asked = { ...asked, ...choice })
    try {
      const [before, after] = await Promise.all([stateOf(of.before), stateOf(of.after)])
      // meanwhile something else may have been chosen
      if (of === asked) seen.value = { before, after }
    } catch (error) {
      if (of === asked && seen.value) asked = { before: seen.value.before.key, after: seen.value.after.key }
      throw error
    }
  })
const remove = (row: RevisionRow) =>
  attempt(async () => {
    if (deleting.value !== row.id) {
      deleting.value = row.id
      return
    }
    await $fetch(`/api/revisions/${row.id}`, { method: 'DELETE' })
    list.value = list.value.filter((r) => r.id !== row.id)
  })
function restore() {
  sheetDocument.apply(seen.value!.before.sheet)
  open.value = false
  void nextTick(() => editor.view?.fit())
}
const clock = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
/** Shows a part on the sheet, where it is there. */
function go(change: Change) {
  const { components, pipes } = sheetDocument.sheet
  if (!change.id || ![...components, ...pipes].some(({ id }) => id === change.id)) return
  open.value = false
  selection.select([change.id])
  editor.view?.reveal(change.id)
}
</script>

<template>
  <DialogBox
    v-model:open="open"
    :title="seen ? 'Comparison' : 'Revisions of this sheet'"
    testid="revisions"
    :width="seen ? 'max-w-6xl' : 'max-w-xl'"
  >
    <template v-if="seen" #before>
      <ToolButton label="Back to the revisions" @click="seen = undefined">
        <ArrowLeft :size="18" />
      </ToolButton>
    </template>
    <template v-if="seen" #actions>
      <button
        v-if="list.some((row) => row.id === seen!.before.key)"
        class="button-main"
        data-testid="restore"
        @click="restore"
      >
        Restore {{ seen.before.title }}
      </button>
    </template>
    <p v-if="problem" class="mb-2 text-error" role="alert">{{ problem }}</p>
    <template v-if="!seen">
      <form class="flex flex-wrap items-end gap-2 border-b border-rule pb-3" @submit.prevent="keep">
        <label class="min-w-40 flex-1">
          <span class="mb-0.5 block text-[13px] text-soft">Save the present state as</span>
          <input
            v-model="name"
            class="field"
            maxlength="80"
            placeholder="for example B, for review"
            data-testid="revision-name"
          />
        </label>
        <label class="min-w-40 flex-[2]">
          <span class="mb-0.5 block text-[13px] text-soft">Note</span>
          <input v-model="note" class="field" maxlength="400" data-testid="revision-note" />
        </label>
        <button class="button-main" :disabled="!name.trim()" data-testid="keep-revision">Save</button>
      </form>
      <p v-if="sheetDocument.variants.length > 1" class="mt-3">
        <button
          class="button"
          data-testid="compare-variants"
          @click="
            compare({
              before: sheetDocument.variants.find((v) => v.id !== sheetDocument.sheetId)!.id,
              after: 'now',
            })
          "
        >
          Compare with another variant
        </button>
      </p>
      <p v-if="!list.length" class="mt-3 text-soft">
        None yet. Save one before a change that you may want to undo later, or when a drawing is issued.
      </p>
      <ul class="mt-1">
        <li
          v-for="row in list"
          :key="row.id"
          class="flex items-baseline gap-3 border-b border-rule py-2"
          data-testid="revision"
        >
          <span class="min-w-0 flex-1">
            <span class="font-lettering font-medium">{{ row.name }}</span>
            <span class="ml-2 text-[13px] text-soft">{{ clock.format(row.createdAt) }}</span>
            <span v-if="row.note" class="block text-[13px]">{{ row.note }}</span>
          </span>
          <button class="button" data-testid="compare" @click="compare({ before: row.id, after: 'now' })">
            Compare with present state
          </button>
          <button
            class="button"
            :class="deleting === row.id ? '!border-error !text-error' : ''"
            :aria-label="`Delete revision ${row.name}`"
            @click="remove(row)"
          >
            <Trash2 :size="15" aria-hidden="true" />{{ deleting === row.id ? 'Really delete' : '' }}
          </button>
        </li>
      </ul>
    </template>
    <template v-else>
      <div class="mb-3 flex flex-wrap items-center gap-2">
        <label v-for="side in ['before', 'after'] as const" :key="side" class="flex items-center gap-2">
          <span class="text-[13px] text-soft">{{ side === 'before' ? 'From' : 'to' }}</span>
          <select
            class="field !w-auto"
            :value="seen[side].key"
            :data-testid="`compare-${side}`"
            @change="compare({ [side]: ($event.target as HTMLSelectElement).value })"
          >
            <option v-for="c in choices" :key="c.key" :value="c.key">{{ c.title }}</option>
          </select>
        </label>
      </div>
      <SheetComparison :before="seen.before" :after="seen.after" @go="go" />
    </template>
  </DialogBox>
</template>
