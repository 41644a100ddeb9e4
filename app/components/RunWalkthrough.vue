<script setup lang="ts">
/** The run as a list of states beside the sheet: press a sentence, and the tape goes there and its path is drawn. */
import { FileDown, PenLine, X } from 'lucide-vue-next'
import { repeatsText, sectionsOf } from '@oar-bench/core/formats/walkthrough-text'
import type { Sentence } from '@oar-bench/core/explain/sentence'
import type { WalkthroughState } from '@oar-bench/core/explain/walkthrough'
import { instantText } from '@oar-bench/core/explain/words'

const emit = defineEmits<{ close: []; reveal: [id: string] }>()
const runs = useSimulationRuns()
const live = useLiveRun()
const answers = useAnswers()
const selection = useSelection()
const { goTo, look } = useRunPlaces((id) => emit('reveal', id))
const { show } = useUnits()
const { exportFormat } = useFormatExport()
const { walkthrough } = useRunQuestions()
const { answer: states, busy, problem } = useRunAnswer(walkthrough)
/** One line a state, or all of each. */
const all = useSetting('walkthrough-all', false)
const opened = ref<number>()
const list = useTemplateRef<HTMLElement>('list')

const current = computed(() => states.value?.findLastIndex((s) => s.t <= runs.time + 1e-6) ?? -1)
const isOpen = (i: number) => all.value || opened.value === i
watch(current, (i) => {
  list.value?.querySelector(`[data-state="${i}"]`)?.scrollIntoView({ block: 'nearest' })
})

function openState(state: WalkthroughState, i: number): void {
  opened.value = opened.value === i ? undefined : i
  goTo(state.shownAt)
}
async function follow(sentence: Sentence): Promise<void> {
  goTo(sentence.at)
  const { part, line } = sentence
  if (!look(part)) selection.select([])
  await nextTick()
  answers.follow(line)
}
/** What a pen of a state is called. */
const penName = (state: WalkthroughState) => state.summary.replace(/\.$/, '').slice(0, 200)
onBeforeUnmount(() => answers.follow(undefined))
</script>

<template>
  <aside
    class="flex h-full w-96 flex-col border-l border-rule bg-pane"
    aria-label="Walkthrough"
    data-testid="walkthrough"
  >
    <div class="flex items-center gap-2 px-3 pt-3 pb-1">
      <h2 class="heading mr-auto">Walkthrough</h2>
      <label class="flex items-center gap-1 text-[13px]">
        <input v-model="all" type="checkbox" data-testid="walkthrough-all" />all details
      </label>
      <PopUp panel-class="p-1" testid="walkthrough-export">
        <template #button><FileDown :size="16" aria-hidden="true" />Export</template>
        <button
          class="button !border-0"
          data-testid="walkthrough-pdf"
          @click="exportFormat('walkthroughPdf')"
        >
          PDF
        </button>
        <button class="button !border-0" data-testid="walkthrough-md" @click="exportFormat('walkthroughMd')">
          Markdown
        </button>
      </PopUp>
      <ToolButton label="Close" @click="$emit('close')"><X :size="16" /></ToolButton>
    </div>
    <p v-if="problem" class="px-3 text-error" role="alert">{{ problem }}</p>
    <p v-else-if="live.playing" class="px-3 text-[13px] text-soft">
      Pause the run: what has happened so far is then listed.
    </p>
    <p v-else-if="!runs.shown" class="px-3 text-[13px] text-soft">Run the machine first.</p>
    <p v-else-if="busy && !states" class="px-3 text-[13px] text-soft" role="status">Working it out …</p>
    <p v-if="runs.outdated && states" class="px-3 pb-1 text-[13px] text-caution" role="status">
      The sheet has changed since this run.
    </p>
    <ol ref="list" class="min-h-0 flex-1 overflow-auto px-3 pb-3">
      <li
        v-for="(state, i) in states ?? []"
        :key="state.t"
        :data-state="i"
        class="border-b border-rule py-1.5"
      >
        <button
          class="flex w-full gap-2 rounded px-1 text-left hover:text-accent"
          :class="i === current ? 'bg-accent-paper' : ''"
          :aria-expanded="isOpen(i)"
          :aria-current="i === current ? 'step' : undefined"
          data-testid="walkthrough-state"
          @click="openState(state, i)"
        >
          <span class="w-14 shrink-0 text-right font-lettering">{{ instantText(state.t, show) }}</span>
          <span class="min-w-0 flex-1"><FactText :text="state.summary" /></span>
        </button>
        <button
          v-if="i === current && answers.shares.size"
          class="button mt-1 ml-16 !py-0.5 text-[13px]"
          title="Keeps the path on the sheet and on paper as the stroke of a pen"
          data-testid="walkthrough-keep"
          @click="answers.keepPath(penName(state))"
        >
          <PenLine :size="14" aria-hidden="true" />Keep this path
        </button>
        <div v-if="isOpen(i)" class="mt-1 ml-16 space-y-1.5 text-[13px]">
          <div v-for="section in sectionsOf(state)" :key="section.title">
            <h3 class="text-[12px] text-soft">{{ section.title }}</h3>
            <ul>
              <li v-for="s in section.sentences" :key="s.text">
                <button
                  class="w-full text-left hover:text-accent"
                  :class="s.kind === 'warning' ? 'text-caution' : ''"
                  data-testid="walkthrough-sentence"
                  @click="follow(s)"
                >
                  <FactText :text="s.text" />
                </button>
              </li>
            </ul>
          </div>
        </div>
        <p v-if="state.repeats" class="mt-1 ml-16 text-[13px] text-soft">{{ repeatsText(state, show) }}</p>
      </li>
    </ol>
  </aside>
</template>
