<script setup lang="ts">
/** Named states of the sheet: keep one, compare one with what is drawn now, come back to one. */
import { ArrowLeft, Trash2 } from 'lucide-vue-next'
import { compareSheets, type Change } from '@oar-bench/core/sheet/compare'
import { sheetToSvg } from '@oar-bench/core/formats/svg'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { RevisionRow } from '#shared/api'

const drawing = useDrawing()
const desk = useDesk()
const { show } = useUnits()
const list = ref<RevisionRow[]>([])
const { problem, attempt } = useAttempt()
const name = ref('')
const note = ref('')
const doomed = ref<string>()
const seen = shallowRef<{ row: RevisionRow; sheet: Sheet; changes: Change[] }>()

const load = () =>
  attempt(async () => {
    list.value = await $fetch<RevisionRow[]>(`/api/sheets/${drawing.sheetId}/revisions`)
  })
watch(
  () => desk.revisions,
  (open) => {
    if (!open) return
    seen.value = undefined
    doomed.value = undefined
    void load()
  },
)
const keep = () =>
  attempt(async () => {
    const body = { name: name.value, note: note.value, sheet: drawing.sheet }
    const row = await $fetch<RevisionRow>(`/api/sheets/${drawing.sheetId}/revisions`, {
      method: 'POST',
      body,
    })
    list.value = [row, ...list.value]
    name.value = note.value = ''
  })
const look = (row: RevisionRow) =>
  attempt(async () => {
    const sheet = await $fetch<Sheet>(`/api/revisions/${row.id}`)
    seen.value = { row, sheet, changes: compareSheets(sheet, drawing.sheet) }
  })
const remove = (row: RevisionRow) =>
  attempt(async () => {
    if (doomed.value !== row.id) {
      doomed.value = row.id
      return
    }
    await $fetch(`/api/revisions/${row.id}`, { method: 'DELETE' })
    list.value = list.value.filter((r) => r.id !== row.id)
  })
function restore() {
  drawing.apply(seen.value!.sheet)
  desk.revisions = false
  void nextTick(() => desk.view?.fit())
}
const picture = (sheet: Sheet) =>
  sheet.components.length
    ? `data:image/svg+xml;utf8,${encodeURIComponent(sheetToSvg(sheet, show))}`
    : undefined
const clock = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const go = (change: Change) => {
  if (!change.id || change.what === 'removed') return
  desk.revisions = false
  drawing.select([change.id])
  desk.view?.reveal(change.id)
}
const words = { added: 'Added', removed: 'Removed', changed: 'Changed' } as const
</script>

<template>
  <DialogBox
    v-model:open="desk.revisions"
    :title="seen ? `${seen.row.name}, and what is drawn now` : 'Revisions of this sheet'"
    testid="revisions"
    :width="seen ? 'max-w-6xl' : 'max-w-xl'"
  >
    <template v-if="seen" #before>
      <button class="icon-button" aria-label="Back to the revisions" @click="seen = undefined">
        <ArrowLeft :size="18" />
      </button>
    </template>
    <template v-if="seen" #actions>
      <button class="button-main" data-testid="restore" @click="restore">Put {{ seen.row.name }} back</button>
    </template>
    <p v-if="problem" class="mb-2 text-error" role="alert">{{ problem }}</p>
    <template v-if="!seen">
      <form class="flex flex-wrap items-end gap-2 border-b border-rule pb-3" @submit.prevent="keep">
        <label class="min-w-40 flex-1">
          <span class="mb-0.5 block text-[13px] text-soft">Keep what is drawn now as</span>
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
        <button class="button-main" :disabled="!name.trim()" data-testid="keep-revision">Keep</button>
      </form>
      <p v-if="!list.length" class="mt-3 text-soft">
        None yet. Keep one before a change that you may want to take back later, or when a drawing goes out.
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
          <button class="button" data-testid="compare" @click="look(row)">Compare with now</button>
          <button
            class="button"
            :class="doomed === row.id ? '!border-error !text-error' : ''"
            :aria-label="`Delete revision ${row.name}`"
            @click="remove(row)"
          >
            <Trash2 :size="15" aria-hidden="true" />{{ doomed === row.id ? 'Really delete' : '' }}
          </button>
        </li>
      </ul>
    </template>
    <template v-else>
      <div class="grid gap-3 md:grid-cols-2">
        <figure
          v-for="[title, sheet] in [
            [seen.row.name, seen.sheet],
            ['Now', drawing.sheet],
          ] as [string, Sheet][]"
          :key="title"
          class="rounded border border-rule bg-white p-2"
        >
          <figcaption class="font-lettering text-black">{{ title }}</figcaption>
          <img
            v-if="picture(sheet)"
            :src="picture(sheet)"
            :alt="`The sheet: ${title}`"
            class="mx-auto h-72 object-contain"
          />
          <p v-else class="flex h-72 items-center justify-center text-neutral-600">An empty sheet</p>
        </figure>
      </div>
      <h3 class="heading mt-3">
        {{ seen.changes.length ? 'Since then' : 'Nothing has changed since then.' }}
      </h3>
      <ul data-testid="changes">
        <li v-for="(c, i) in seen.changes" :key="i" class="border-b border-rule py-1">
          <button
            class="w-full text-left"
            :class="c.what === 'removed' ? '' : 'hover:text-accent'"
            @click="go(c)"
          >
            <span class="inline-block w-20 text-[13px] text-soft">{{ words[c.what] }}</span>
            <span class="font-lettering font-medium">{{ c.name }}</span>
            <span class="ml-2">{{ c.details.join('; ') }}</span>
          </button>
        </li>
      </ul>
    </template>
  </DialogBox>
</template>
