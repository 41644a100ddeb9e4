<script setup lang="ts">
/** The page as it will be printed: paper, frame, title block, scale. */
import { Printer } from 'lucide-vue-next'
import { smallLetters, type Page } from '@oar-bench/core/formats/page'
import { pageSchema, type PageSettings } from '@oar-bench/core/sheet/schema'

const sheetDocument = useSheetDocument()
const editor = useEditorUi()
const { pageText } = useFiles()
const { problem, attempt } = useAttempt()
const open = useDialog('print')
const picture = ref<string>()
const page = shallowRef<Page>()
const tooSmall = computed(() => page.value && smallLetters(page.value))
const sizes = pageSchema.shape.size.unwrap().options

watch(
  [open, () => sheetDocument.sheet, () => editor.settings, () => editor.lineNames],
  ([isOpen]) => {
    if (!isOpen) return
    void attempt(async () => {
      const drawn = await pageText()
      page.value = drawn.page
      picture.value = `data:image/svg+xml;utf8,${encodeURIComponent(drawn.svg)}`
    })
  },
  { immediate: true },
)
const change = (settings: Partial<PageSettings>) =>
  sheetDocument.apply({ ...sheetDocument.sheet, page: { ...sheetDocument.sheet.page, ...settings } })

/** Prints the page alone, on its own paper. */
const frame = useTemplateRef<HTMLIFrameElement>('frame')
function print() {
  const inside = frame.value?.contentWindow
  if (!inside || !picture.value || !page.value) return
  const { width, height } = page.value
  inside.document.body.replaceChildren()
  inside.document.head.innerHTML = `<title>${encodeURIComponent(sheetDocument.sheet.title)}</title><style>@page{size:${width}mm ${height}mm;margin:0}body{margin:0}img{display:block;width:100vw}</style>`
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
    <p v-if="tooSmall" class="mb-2 text-caution" data-testid="small-letters">
      {{ tooSmall }}
      <button
        v-if="page?.proposal"
        class="underline hover:text-accent"
        data-testid="larger-paper"
        @click="change({ size: page.proposal })"
      >
        Take {{ page.proposal }}
      </button>
    </p>
    <p v-if="page?.cut.length" class="mb-2 text-caution" data-testid="cut-fields">
      There is no room for all of these fields: {{ page.cut.join(', ') }}.
    </p>
    <img
      v-if="picture"
      :src="picture"
      alt="The page with its drawing, frame and title block"
      class="mx-auto max-h-[62vh] border border-rule bg-white shadow"
    />
    <iframe ref="frame" class="absolute size-0" title="The page for the printer" aria-hidden="true" />
  </DialogBox>
</template>
