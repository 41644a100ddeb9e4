<script setup lang="ts">
/** What the machine must do. */
import { briefParameters, type Brief } from '@oar-bench/core/size/brief'
import { ShieldAlert } from 'lucide-vue-next'

const sheetDocument = useSheetDocument()
const statements = [
  {
    name: 'purpose',
    label: 'What it must do, and in which order',
    hint: 'for example: press shavings into a bale, hold, return',
  },
  {
    name: 'never',
    label: 'What must never happen',
    hint: 'a load that drops, a tool that moves before the part is held',
  },
  {
    name: 'onLoss',
    label: 'What happens when power or oil is lost',
    hint: 'what stops, what stays held, who is warned',
  },
] as const
const groups = parametersByGroup(briefParameters)
const problemOf = (name: string) =>
  sheetDocument.briefProblems.find((p) => p.location.parameter === name)?.message
const rename = (name: string, summary: string) =>
  sheetDocument.rename(name.trim() || sheetDocument.machine!.name, summary)
const change = (next: Partial<Brief>) => sheetDocument.setBrief({ ...sheetDocument.brief, ...next })
</script>

<template>
  <section class="min-h-0 flex-1 overflow-auto bg-paper" tabindex="0" aria-label="Brief">
    <div class="mx-auto grid max-w-5xl gap-x-10 gap-y-6 px-6 py-6 md:grid-cols-[1fr_1.2fr]">
      <section>
        <h1 class="mb-3 font-lettering text-2xl font-medium">Brief</h1>
        <label class="mb-3 block">
          <span class="mb-0.5 block text-soft">Machine</span>
          <input
            class="field"
            :value="sheetDocument.machine?.name"
            maxlength="80"
            @change="rename(($event.target as HTMLInputElement).value, sheetDocument.machine!.summary)"
          />
        </label>
        <label class="mb-4 block">
          <span class="mb-0.5 block text-soft">Short description</span>
          <input
            class="field"
            :value="sheetDocument.machine?.summary"
            maxlength="400"
            @change="rename(sheetDocument.machine!.name, ($event.target as HTMLInputElement).value)"
          />
        </label>
        <label v-for="s in statements" :key="s.name" class="mb-4 block">
          <span class="mb-0.5 block text-soft">{{ s.label }}</span>
          <textarea
            class="field min-h-24"
            :value="sheetDocument.brief[s.name]"
            :placeholder="s.hint"
            maxlength="4000"
            rows="4"
            @change="change({ [s.name]: ($event.target as HTMLTextAreaElement).value })"
          />
        </label>
        <p class="flex gap-2 border-t border-rule pt-3 text-[13px]">
          <ShieldAlert :size="18" class="mt-0.5 shrink-0 text-caution" aria-hidden="true" />
          Oil under pressure injures and suspended loads kill. Machinery safety rules, pressure-vessel and
          local codes and ISO 4413 govern the machine; what is worked out here supports a qualified person's
          judgement and never replaces it.
        </p>
      </section>
      <section>
        <div v-for="[group, list] in groups" :key="group" class="mb-4">
          <h2 class="heading mb-2 border-b border-rule pb-1">{{ group }}</h2>
          <div class="grid gap-x-4 gap-y-2.5 sm:grid-cols-2">
            <ParameterField
              v-for="[name, parameter] in list"
              :key="name"
              :parameter="parameter"
              :model-value="sheetDocument.brief.values[name]"
              :problem="problemOf(name)"
              :data-testid="`brief-${name}`"
              @update:model-value="
                change({ values: { ...sheetDocument.brief.values, [name]: String($event) } })
              "
            />
          </div>
        </div>
      </section>
    </div>
  </section>
</template>
