<script setup lang="ts">
/** The variants of the machine: open one, add one, rename, delete. All share the brief. */
import { GitFork, Trash2 } from 'lucide-vue-next'
import type { VariantRow } from '#shared/api'

const sheetDocument = useSheetDocument()
const saving = useSaving()
const route = useRoute()
const router = useRouter()
const { problem, attempt } = useAttempt()
const deleting = ref<string>()

const open = (id: string) => router.push({ query: { ...route.query, sheet: id } })
const add = () =>
  attempt(async () => {
    // the copy is made from what the server has
    if (saving.unsaved) await saving.saveNow()
    if (saving.unsaved) throw new Error(`Save this sheet first. ${saving.problem}`)
    const names = new Set(sheetDocument.variants.map((v) => v.name))
    let n = sheetDocument.variants.length + 1
    while (names.has(`Variant ${n}`)) n++
    const body = { name: `Variant ${n}`, from: sheetDocument.sheetId }
    const added = await $fetch<VariantRow>(`/api/machines/${sheetDocument.machine!.id}/sheets`, {
      method: 'POST',
      body,
    })
    sheetDocument.variants = [...sheetDocument.variants, added]
    await open(added.id)
  })
const rename = (variant: VariantRow, text: string) =>
  attempt(async () => {
    const name = text.trim()
    if (!name || name === variant.name) return
    await renameRequest(`/api/sheets/${variant.id}`, { name })
    sheetDocument.variants = sheetDocument.variants.map((v) => (v.id === variant.id ? { ...v, name } : v))
  })
const remove = (variant: VariantRow) =>
  attempt(async () => {
    if (deleting.value !== variant.id) {
      deleting.value = variant.id
      return
    }
    await $fetch(`/api/sheets/${variant.id}`, { method: 'DELETE' })
    sheetDocument.variants = sheetDocument.variants.filter((v) => v.id !== variant.id)
    deleting.value = undefined
    if (variant.id === sheetDocument.sheetId) await open(sheetDocument.variants[0].id)
  })
const current = computed(() => sheetDocument.variants.find((v) => v.id === sheetDocument.sheetId)?.name ?? '')
</script>

<template>
  <PopUp testid="variants" panel-class="w-80 p-2" placement="bottom-start">
    <template #button>
      <GitFork :size="15" aria-hidden="true" /><span class="max-w-44 truncate max-lg:sr-only">{{
        current
      }}</span>
      <span v-if="sheetDocument.variants.length > 1" class="text-soft"
        >{{ sheetDocument.variants.findIndex((v) => v.id === sheetDocument.sheetId) + 1 }}/{{
          sheetDocument.variants.length
        }}</span
      >
    </template>
    <template #default="{ close }">
      <p class="mb-1 px-1 text-[13px] text-soft">Variants of this machine share its brief.</p>
      <ul>
        <li
          v-for="variant in sheetDocument.variants"
          :key="variant.id"
          class="flex items-center gap-1 py-0.5"
          data-testid="variant"
        >
          <input
            class="field min-w-0 flex-1 !border-transparent hover:!border-rule"
            :class="variant.id === sheetDocument.sheetId ? 'font-semibold' : ''"
            :value="variant.name"
            maxlength="80"
            :aria-label="`Name of ${variant.name}`"
            @change="rename(variant, ($event.target as HTMLInputElement).value)"
          />
          <button
            class="button"
            :disabled="variant.id === sheetDocument.sheetId"
            :aria-label="`Open ${variant.name}`"
            @click="
              () => {
                void open(variant.id)
                close()
              }
            "
          >
            {{ variant.id === sheetDocument.sheetId ? 'Current' : 'Open' }}
          </button>
          <ToolButton
            v-if="sheetDocument.variants.length > 1"
            :class="deleting === variant.id ? '!text-error' : ''"
            :label="deleting === variant.id ? `Really delete ${variant.name}` : `Delete ${variant.name}`"
            :hint="
              deleting === variant.id ? 'Press again: its sheet and its saved runs are deleted' : 'Delete'
            "
            @click="remove(variant)"
            @blur="deleting = undefined"
          >
            <Trash2 :size="15" />
          </ToolButton>
        </li>
      </ul>
      <p v-if="problem" class="px-1 text-[13px] text-error" role="alert">{{ problem }}</p>
      <button class="button mt-1" data-testid="add-variant" @click="add">
        New variant, copied from this
      </button>
    </template>
  </PopUp>
</template>
