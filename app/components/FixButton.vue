<script setup lang="ts">
/** Carries out what a finding offers, as one step that can be undone. */
import { Wrench } from 'lucide-vue-next'
import type { Fix } from '@oar-bench/core/sheet/finding'
import { applyFix } from '@oar-bench/core/sheet/fix'

const props = defineProps<{
  fix: Fix
  /** Shown as a link among text. */
  plain?: boolean
}>()
const sheetDocument = useSheetDocument()
</script>

<template>
  <button
    class="text-[13px]"
    :class="plain ? 'underline hover:text-accent' : 'button !inline-flex !py-0.5'"
    data-testid="fix"
    @click="sheetDocument.apply(applyFix(sheetDocument.sheet, props.fix))"
  >
    <Wrench v-if="!plain" :size="13" aria-hidden="true" />{{ fix.label }}
  </button>
</template>
