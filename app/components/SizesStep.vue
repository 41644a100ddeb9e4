<script setup lang="ts">
/** The sizes that follow from the brief, each with its calculation, and the values of the sheet that take them. */
import { ArrowRight, Check, TriangleAlert } from 'lucide-vue-next'
import { nameOf } from '@oar-bench/core/sheet/schema'
import {
  agreement,
  agrees,
  applyAll,
  applyResult,
  targetsOf,
  type Result,
  type Target,
} from '@oar-bench/core/size/agreement'
import { resolveBrief } from '@oar-bench/core/size/brief'
import { formulaWithNumbers } from '@oar-bench/core/size/card'
import { sizingCards } from '@oar-bench/core/size/cards'

const sheetDocument = useSheetDocument()
const { show } = useUnits()
const brief = computed(() => resolveBrief(sheetDocument.brief))
const cards = computed(() => (brief.value.values ? sizingCards(brief.value.values) : []))

const targets = (result: Result) => targetsOf(sheetDocument.sheet, result)
function apply(target: Target, result: Result) {
  sheetDocument.apply(applyResult(sheetDocument.sheet, target, result))
}
const agreeing = computed(() => agreement(sheetDocument.sheet, sheetDocument.brief))
function applyEverything() {
  sheetDocument.apply(applyAll(sheetDocument.sheet, cards.value))
}
</script>

<template>
  <section class="min-h-0 flex-1 overflow-auto bg-paper" tabindex="0" aria-label="Sizes">
    <div class="mx-auto max-w-5xl px-6 py-6">
      <div class="mb-4 flex flex-wrap items-baseline gap-x-4">
        <h1 class="font-lettering text-2xl font-medium">Sizes</h1>
        <p v-if="cards.length && agreeing.sized" class="text-soft">
          {{ agreeing.agreeing }} of {{ agreeing.sized }} values on the sheet agree with these results.
        </p>
        <button v-if="agreeing.agreeing < agreeing.sized" class="button ml-auto" @click="applyEverything">
          Apply all to the sheet
        </button>
      </div>
      <template v-if="brief.problems.length">
        <p class="text-error" role="alert">The brief has invalid values:</p>
        <ul class="mt-1 list-disc pl-5">
          <li v-for="p in brief.problems" :key="p.message">{{ p.message }}</li>
        </ul>
        <NuxtLink :to="`/machines/${sheetDocument.machine!.id}/brief`" class="button mt-3"
          >Correct the brief</NuxtLink
        >
      </template>
      <article
        v-for="card in cards"
        :key="card.id"
        class="grid gap-x-8 border-t border-rule py-4 md:grid-cols-[1fr_17rem]"
        :data-testid="`card-${card.id}`"
      >
        <div>
          <h2 class="mb-2 font-lettering text-lg font-medium">{{ card.title }}</h2>
          <ol class="space-y-2">
            <li v-for="(s, i) in card.steps" :key="i">
              <span class="text-soft">{{ s.meaning }}</span>
              <span class="block">
                <i>{{ s.symbol }}</i> = {{ s.formula }} =
                <span class="text-soft">{{ formulaWithNumbers(s, show) }}</span>
                = <b class="font-semibold">{{ show(s.value, s.quantity) }}</b>
              </span>
            </li>
          </ol>
          <p
            v-for="r in card.remarks"
            :key="r.text"
            class="mt-2 flex gap-1.5 text-[13px]"
            :class="r.severity === 'warning' ? 'text-error' : 'text-soft'"
          >
            <TriangleAlert
              v-if="r.severity === 'warning'"
              :size="16"
              class="mt-0.5 shrink-0"
              aria-hidden="true"
            />{{ r.text }}
          </p>
        </div>
        <div class="pt-1">
          <template v-if="card.answer">
            <p class="text-soft">{{ card.answer.label }}</p>
            <p class="font-lettering text-2xl font-medium" data-testid="answer">
              {{ show(card.answer.value, card.answer.quantity) }}
            </p>
          </template>
          <p class="mb-2 text-[13px] text-soft">{{ card.source }}</p>
          <ul class="space-y-1.5">
            <template v-for="give in card.gives" :key="give.sized">
              <li v-for="t in targets(give)" :key="t.component.id" class="text-[13px]">
                <span v-if="agrees(t, give)" class="flex items-center gap-1.5 text-good">
                  <Check :size="15" aria-hidden="true" />{{ nameOf(t.component) }}:
                  {{ t.definition.label.toLowerCase() }} {{ show(give.value, give.quantity) }}
                </span>
                <button
                  v-else
                  class="button !text-[13px]"
                  :data-testid="`apply-${give.sized}`"
                  @click="apply(t, give)"
                >
                  <ArrowRight :size="15" aria-hidden="true" />
                  {{ nameOf(t.component) }}: {{ t.definition.label.toLowerCase() }}
                  {{ t.value === undefined ? '' : show(t.value, give.quantity) }} →
                  {{ show(give.value, give.quantity) }}
                </button>
              </li>
              <li v-if="!targets(give).length" class="text-[13px] text-soft">
                No component on the sheet uses the {{ give.label.toLowerCase() }} yet.
              </li>
            </template>
          </ul>
        </div>
      </article>
    </div>
  </section>
</template>
