<script setup lang="ts">
/** What is wrong with the sheet, with its cure; choosing one goes to its place. */
import { CircleAlert, CircleCheck, TriangleAlert } from 'lucide-vue-next'
import { placeText, type Finding } from '@oar-bench/core/sheet/finding'

const emit = defineEmits<{ reveal: [id: string] }>()
const drawing = useDrawing()
const warnings = computed(() => drawing.findings.filter((f) => f.severity === 'warning'))
const words = computed(() => {
  const many = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`
  const parts = [
    drawing.errors.length && many(drawing.errors.length, 'error'),
    warnings.value.length && many(warnings.value.length, 'warning'),
  ].filter(Boolean)
  return parts.length ? parts.join(', ') : 'Checks pass'
})
const named = (f: Finding) => {
  const component = drawing.sheet.components.find((c) => c.id === f.place.component)
  return component?.designation ?? placeText(f.place)
}
function go(f: Finding) {
  const id = f.place.component ?? f.place.pipe ?? f.place.joint
  if (!id) return
  drawing.select([id])
  emit('reveal', id)
}
</script>

<template>
  <PopUp testid="findings" panel-class="w-96 p-1">
    <template #button>
      <CircleAlert v-if="drawing.errors.length" :size="16" class="text-error" aria-hidden="true" />
      <TriangleAlert v-else-if="warnings.length" :size="16" class="text-caution" aria-hidden="true" />
      <CircleCheck v-else :size="16" class="text-good" aria-hidden="true" />
      {{ words }}
    </template>
    <template #default="{ close }">
      <p v-if="!drawing.findings.length" class="px-3 py-2 text-soft">
        The sheet can be run. The checks find nothing; they do not replace a qualified person's judgement.
      </p>
      <button
        v-for="(f, i) in drawing.findings"
        :key="i"
        class="block w-full rounded px-3 py-2 text-left hover:bg-accent-paper"
        @click="(go(f), close())"
      >
        <span
          class="font-lettering font-medium"
          :class="f.severity === 'error' ? 'text-error' : 'text-caution'"
        >
          {{ f.severity === 'error' ? 'Error' : 'Warning' }} at {{ named(f) }}
        </span>
        <span class="block">{{ f.message }}</span>
        <span v-if="f.cure" class="block text-[13px] text-soft">{{ f.cure }}</span>
      </button>
    </template>
  </PopUp>
</template>
