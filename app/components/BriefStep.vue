<script setup lang="ts">
/** What the machine must do: in words, by its motions, and over its cycle. */
import { ShieldAlert } from 'lucide-vue-next'

const sheetDocument = useSheetDocument()
useUndoKeys(
  () => sheetDocument.undoBrief(),
  () => sheetDocument.redoBrief(),
)
const selected = ref('')
const motion = computed(
  () => sheetDocument.brief.motions.find((m) => m.id === selected.value) ?? sheetDocument.brief.motions.at(0),
)
</script>

<template>
  <section class="min-h-0 flex-1 overflow-auto bg-paper" tabindex="0" aria-label="Brief">
    <div class="mx-auto grid max-w-[1500px] gap-x-8 gap-y-6 px-6 py-5 lg:grid-cols-[19rem_1fr]">
      <aside>
        <h1 class="mb-3 font-lettering text-2xl font-medium">Brief</h1>
        <BriefTexts />
        <BriefConditions />
        <p class="mt-4 flex gap-2 border-t border-rule pt-3 text-[13px]">
          <ShieldAlert :size="18" class="mt-0.5 shrink-0 text-caution" aria-hidden="true" />
          Oil under pressure injures and suspended loads kill. Machinery safety rules, pressure-vessel and
          local codes and ISO 4413 govern the machine; what is worked out here supports a qualified person's
          judgement and never replaces it.
        </p>
      </aside>
      <div class="min-w-0">
        <BriefMissing @motion="selected = $event" />
        <CycleDiagram v-if="sheetDocument.brief.motions.length" @motion="selected = $event" />
        <MotionTabs :selected="motion?.id" @select="selected = $event" />
        <MotionFields v-if="motion" :key="motion.id" :motion="motion" />
        <CycleTable v-if="motion" />
      </div>
    </div>
  </section>
</template>
