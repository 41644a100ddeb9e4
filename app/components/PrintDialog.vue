<script setup lang="ts">
/** The page as it will be printed: paper, frame, title block, scale. */
import { Printer } from 'lucide-vue-next'
import type { PageSettings } from '@oar-bench/core/sheet/schema'

const sheetDocument = useSheetDocument()
const editor = useEditorUi()
const { pageText } = useFiles()
const { problem, attempt } = useAttempt()
const open = useDialog('print')
const picture = ref<string>()
const sizes = ['A4', 'A3', 'A2', 'A1'] as const

watch(
  [open, () => sheetDocument.sheet, () => editor.settings, () => editor.lineNames],
  ([isOpen]) => {
    if (!isOpen) return
    void attempt(async () => {
      picture.value = `data:image/svg+xml;utf8,${encodeURIComponent(await pageText())}`
    })
  },
  { immediate: true },
)
const change = (page: Partial<PageSettings>) =>
  sheetDocument.apply({ ...sheetDocument.sheet, page: { ...sheetDocument.sheet.page, ...page } })

/** Prints the page alone, on its own paper. */
const frame = useTemplateRef<HTMLIFrameElement>('frame')
function print() {
  const { size, upright } = sheetDocument.sheet.page
  const inside = frame.value?.contentWindow
  if (!inside || !picture.value) return
  inside.document.body.replaceChildren()
  inside.document.head.innerHTML = `<title>${encodeURIComponent(sheetDocument.sheet.title)}</title><style>@page{size:${size} ${upright ? 'portrait' : 'landscape'};margin:0}body{margin:0}img{display:block;width:100vw}</style>`
  const image = inside.document.createElement('img')
  image.src = picture.value
  inside.document.body.append(image)
  void image.decode().then(() => inside.print())
}
</script>

<template>
  <DialogBox v-model:open="open" title="Print preview" testid="print" width="max-w-5xl">
    <template #actions>
      <button class="button-main" data-testid="print-now" :disabled="!picture" @click="print">
        <Printer :size="15" aria-hidden="true" />Print
      </button>
    </template>
    <p v-if="problem" class="mb-2 text-error" role="alert">{{ problem }}</p>
    <div class="mb-3 flex flex-wrap items-end gap-3">
      <label>
        <span class="mb-0.5 block text-[13px] text-soft">Paper</span>
        <select
          class="field !w-auto"
          :value="sheetDocument.sheet.page.size"
          data-testid="paper"
          @change="change({ size: ($event.target as HTMLSelectElement).value as PageSettings['size'] })"
        >
          <option v-for="size in sizes" :key="size">{{ size }}</option>
        </select>
      </label>
      <label class="flex items-center gap-2 pb-1">
        <input
          type="checkbox"
          :checked="sheetDocument.sheet.page.upright"
          @change="change({ upright: ($event.target as HTMLInputElement).checked })"
        />
        Portrait
      </label>
      <label class="flex items-center gap-2 pb-1">
        <input v-model="editor.settings" type="checkbox" /> Settings beside the symbols
      </label>
      <label class="flex items-center gap-2 pb-1">
        <input v-model="editor.lineNames" type="checkbox" /> Names of lines
      </label>
      <p class="basis-full text-[13px] text-soft">
        Number, names and dates of the title block are among the properties of the sheet.
      </p>
    </div>
    <img
      v-if="picture"
      :src="picture"
      alt="The page with its drawing, frame and title block"
      class="mx-auto max-h-[62vh] border border-rule bg-white shadow"
    />
    <iframe ref="frame" class="absolute size-0" title="The page for the printer" aria-hidden="true" />
  </DialogBox>
</template>
