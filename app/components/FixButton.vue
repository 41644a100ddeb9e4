<script setup lang="ts">
/** Carries out what a finding offers, as one step that can be undone. */
import { Wrench } from 'lucide-vue-next'
import type { Fix } from '@oar-bench/core/sheet/finding'
import { applyFix } from '@oar-bench/core/sheet/fix'

const props = defineProps<{ fix: Fix }>()
const sheetDocument = useSheetDocument()
</script>

<template>
  <button
    class="button !inline-flex !py-0.5 text-[13px]"
    data-testid="fix"
    @click="sheetDocument.apply(applyFix(sheetDocument.sheet, props.fix))"
  >
    <Wrench :size="13" aria-hidden="true" />{{ fix.label }}
  </button>
</template>
