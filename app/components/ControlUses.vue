<script setup lang="ts">
/** Where a switch, a relay or a solenoid stands in the control. */
import { usesOf } from '@oar-bench/core/control/uses'

const props = defineProps<{ owner: string }>()
const sheetDocument = useSheetDocument()
const ui = useControlUi()
const goToControl = useGoToControl()
const go = (rung: string | undefined) =>
  goToControl(rung ? 'paths' : 'steps', () => {
    if (rung) ui.selectRung(rung)
  })
const uses = computed(() => usesOf(sheetDocument.sheet, props.owner))
</script>

<template>
  <section v-if="uses.length" class="mt-3 border-t border-rule pt-2 text-[13px]" data-testid="control-uses">
    <h3 class="heading">In the control</h3>
    <ul>
      <li v-for="(u, i) in uses" :key="i">
        <button class="text-left hover:text-accent" @click="go(u.rung)">
          {{ u.what }}
        </button>
      </li>
    </ul>
  </section>
</template>
