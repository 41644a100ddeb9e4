<script setup lang="ts">
/** Two states of a sheet: drawn side by side, and what changed from the first to the second as a list. */
import { compareSheets, type Change } from '@oar-bench/core/sheet/compare'
import type { Sheet } from '@oar-bench/core/sheet/schema'

interface State {
  readonly title: string
  readonly sheet: Sheet
}
const props = defineProps<{ before: State; after: State }>()
const emit = defineEmits<{ go: [change: Change] }>()
const { svgText } = useFiles()
const changes = computed(() => compareSheets(props.before.sheet, props.after.sheet))
/** Colours on the white of the pictures, and in the list. */
const looks = {
  added: { word: 'Added', ink: '#2c6a3f', text: 'text-good' },
  removed: { word: 'Removed', ink: '#a8201a', text: 'text-error' },
  changed: { word: 'Changed', ink: '#8a5200', text: 'text-caution' },
} as const
/** What is highlighted in a picture: what the other sheet does not have or has otherwise. */
const marks = (only: 'added' | 'removed') =>
  new Map(
    changes.value
      .filter((c) => c.id && (c.what === only || c.what === 'changed'))
      .map((c) => [c.id!, looks[c.what].ink]),
  )
const pictures = ref<(string | undefined)[]>([])
watch(
  () => [props.before.sheet, props.after.sheet],
  async (sheets) => {
    pictures.value = await Promise.all(
      sheets.map(async (sheet, i) =>
        sheet.components.length
          ? `data:image/svg+xml;utf8,${encodeURIComponent(await svgText(sheet, marks(i ? 'added' : 'removed')))}`
          : undefined,
      ),
    )
  },
  { immediate: true },
)
</script>

<template>
  <div class="grid gap-3 md:grid-cols-2">
    <figure
      v-for="({ title }, i) in [before, after]"
      :key="i"
      class="rounded border border-rule bg-white p-2"
    >
      <figcaption class="font-lettering text-black">{{ title }}</figcaption>
      <img
        v-if="pictures[i]"
        :src="pictures[i]"
        :alt="`The sheet: ${title}`"
        class="mx-auto h-72 object-contain"
      />
      <p v-else class="flex h-72 items-center justify-center text-neutral-600">An empty sheet</p>
    </figure>
  </div>
  <h3 class="heading mt-3">
    {{ changes.length ? `From ${before.title} to ${after.title}` : 'Nothing is different.' }}
  </h3>
  <ul data-testid="changes">
    <li v-for="(c, i) in changes" :key="i" class="border-b border-rule py-1">
      <button class="w-full text-left hover:text-accent" @click="emit('go', c)">
        <span class="inline-block w-20 text-[13px]" :class="looks[c.what].text">{{
          looks[c.what].word
        }}</span>
        <span class="font-lettering font-medium">{{ c.name }}</span>
        <span class="ml-2">{{ c.details.join('; ') }}</span>
      </button>
    </li>
  </ul>
</template>
