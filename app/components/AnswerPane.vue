<script setup lang="ts">
/** What sets the pressure at the selected place of a run: its sum as a waterfall, what fixes it, and where the oil goes. */
import { FileDown, PenLine, X } from 'lucide-vue-next'
import {
  addendName,
  cautions,
  fixedByText,
  listedAddends,
  partName,
  pathText,
  standingText,
} from '@oar-bench/core/explain/words'
import { pilotText } from '@oar-bench/core/explain/pilots'
import { addPen } from '@oar-bench/core/sheet/pens'

defineEmits<{ close: []; reveal: [id: string] }>()
const sheetDocument = useSheetDocument()
const answers = useAnswers()
const runs = useSimulationRuns()
const selection = useSelection()
const { show } = useUnits()

const sheet = computed(() => runs.shown?.sheet ?? sheetDocument.sheet)
const bars = computed(() => {
  const { stack } = answers.answer ?? {}
  if (!stack) return []
  const addends = listedAddends(stack)
  let sum = 0
  const steps = addends.map((addend) => {
    const from = sum
    sum += addend.value
    return { addend, from, to: sum }
  })
  const ends = steps.flatMap(({ from, to }) => [from, to])
  const [least, most] = [Math.min(0, ...ends), Math.max(1, ...ends)]
  const share = (value: number) => (100 * (value - least)) / (most - least)
  return steps.map(({ addend, from, to }) => ({
    key: `${addend.part} ${addend.label} ${addend.line}`,
    part: addend.part,
    name: addendName(sheet.value, addend),
    value: show(addend.value, 'pressure', 3),
    left: share(Math.min(from, to)),
    width: Math.max(0.6, share(Math.max(from, to)) - share(Math.min(from, to))),
    down: addend.value < 0,
  }))
})
const sentences = computed(() => {
  const { answer } = answers
  if (!answer) return []
  return [
    ...pathText(sheet.value, answer.path, show),
    ...standingText(sheet.value, answer.standing, show),
    ...pilotText(sheet.value, answer.piloted, show),
  ]
})
const { svgText, download } = useFiles()
/** The sheet with the path that is drawn, with its name in the legend. */
async function downloadPicture(): Promise<void> {
  const { answer, shares } = answers
  if (!answer) return
  const name = `${title.value} at ${show(answer.time, 'time', 3)}`
  const picture = addPen({ ...sheet.value, pens: [] }, name, shares)
  download(new Blob([await svgText(picture)], { type: 'image/svg+xml' }), '-path.svg')
}
/** A part without oil is selected: a load, a shaft. */
const isOilless = computed(() => !answers.asked && !!answers.part)
const title = computed(() => {
  const [component] = selection.components
  return component ? partName(sheet.value, component.id) : (answers.asked?.label ?? '')
})
</script>

<template>
  <aside
    class="flex h-full w-80 flex-col overflow-auto border-l border-rule bg-pane p-3"
    aria-label="What sets this pressure"
    data-testid="answers"
  >
    <div class="flex items-start justify-between gap-2">
      <h2 class="heading">{{ isOilless ? 'What it does now' : 'What sets this pressure' }}</h2>
      <ToolButton label="Close" @click="$emit('close')"><X :size="16" /></ToolButton>
    </div>
    <p v-if="!answers.open" class="text-[13px] text-soft">
      Run the machine first; then select a line, a gauge or a part.
    </p>
    <template v-else-if="isOilless">
      <p class="font-lettering">{{ title }}</p>
      <p class="text-[13px]">{{ answers.part!.words }}</p>
      <AnswerPart />
      <AnswerKnobs />
    </template>
    <p v-else-if="!answers.asked" class="text-[13px] text-soft">
      Select a line, a gauge or a part on the sheet, with the pointer or the arrow keys.
    </p>
    <template v-else>
      <div v-if="answers.lines.length > 1" class="mb-2 flex flex-wrap gap-1" role="group" aria-label="Port">
        <button
          v-for="l in answers.lines"
          :key="l.label"
          class="button !px-2 !py-0.5 font-lettering aria-pressed:border-accent aria-pressed:bg-accent-paper"
          :aria-pressed="l.label === answers.asked.label"
          :data-testid="`ask-${l.label}`"
          @click="answers.port = l.label"
        >
          {{ l.label }}
        </button>
      </div>
      <p v-if="answers.problem" class="text-error" role="alert">{{ answers.problem }}</p>
      <template v-if="answers.answer">
        <p class="flex items-baseline justify-between gap-2">
          <span class="min-w-0">
            <span class="font-lettering">{{ title }}</span>
            <span class="text-[13px] text-soft"> · {{ answers.answer.name }}</span>
          </span>
          <span class="font-lettering text-lg" data-testid="asked-pressure">
            {{ show(answers.answer.stack.pressure, 'pressure') }}
          </span>
        </p>
        <p class="my-2 rounded bg-accent-paper px-2 py-1.5" data-testid="fixed-by">
          {{
            [
              fixedByText(sheet, answers.answer.stack, show, answers.answer.shutIn),
              ...cautions(answers.answer.stack, answers.answer.hunting),
            ].join(' ')
          }}
        </p>
        <ol class="space-y-1" aria-label="Sum of the pressure" data-testid="stack">
          <li v-for="b in bars" :key="b.key">
            <button
              class="block w-full text-left text-[13px] hover:text-accent"
              :disabled="b.part === undefined"
              @click="b.part !== undefined && $emit('reveal', b.part)"
            >
              <span class="flex justify-between gap-2">
                <span class="min-w-0 truncate">{{ b.name }}</span>
                <span class="font-lettering">{{ b.value }}</span>
              </span>
              <span class="relative block h-2 rounded-sm bg-rule/40">
                <span
                  class="absolute inset-y-0 rounded-sm"
                  :class="b.down ? 'bg-caution' : 'bg-accent'"
                  :style="{ left: `${b.left}%`, width: `${b.width}%` }"
                />
              </span>
            </button>
          </li>
          <li class="flex justify-between gap-2 border-t border-rule pt-1 text-[13px] font-semibold">
            <span>together</span>
            <span class="font-lettering">{{ show(answers.answer.stack.pressure, 'pressure', 3) }}</span>
          </li>
        </ol>
        <AnswerPart />
        <AnswerKnobs />
        <div class="mt-4 flex items-center justify-between gap-2">
          <h3 class="heading">Where the oil goes</h3>
          <button
            v-if="answers.shares.size"
            class="button !py-0.5 text-[13px]"
            title="Keeps the path on the sheet and on paper as the stroke of a pen"
            data-testid="keep-path"
            @click="answers.keepPath(`${title} at ${show(answers.answer.time, 'time', 3)}`)"
          >
            <PenLine :size="14" aria-hidden="true" />Keep
          </button>
          <button
            v-if="answers.shares.size"
            class="button !py-0.5 text-[13px]"
            title="The sheet with this path, as SVG"
            data-testid="path-picture"
            @click="downloadPicture"
          >
            <FileDown :size="14" aria-hidden="true" />SVG
          </button>
        </div>
        <ul class="space-y-1 text-[13px]" data-testid="oil-path">
          <li v-for="s in sentences" :key="s">{{ s }}</li>
        </ul>
        <p class="mt-3 text-[12px] text-soft">
          At {{ show(answers.answer.time, 'time') }}; from the state that the run has found there.
        </p>
      </template>
    </template>
  </aside>
</template>
