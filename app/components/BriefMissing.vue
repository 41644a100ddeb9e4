<script setup lang="ts">
/** What the brief does not say yet, and what contradicts itself. */
import { CircleAlert } from 'lucide-vue-next'

const emit = defineEmits<{ motion: [id: string] }>()
const sheetDocument = useSheetDocument()
const nameOf = (id?: string) => sheetDocument.brief.motions.find((m) => m.id === id)?.name
</script>

<template>
  <div v-if="sheetDocument.briefProblems.length" class="mb-3 text-error" role="alert">
    <p class="font-semibold">To correct:</p>
    <ul class="list-disc pl-5">
      <li v-for="p in sheetDocument.briefProblems" :key="`${p.motion}${p.step}${p.field}`">
        <button v-if="p.motion" class="underline" @click="emit('motion', p.motion)">
          {{ nameOf(p.motion) }}</button><template v-if="p.motion">: </template>{{ p.message }}
      </li>
    </ul>
  </div>
  <div
    v-if="sheetDocument.briefMissing.length"
    class="mb-3 flex gap-2 text-[13px]"
    data-testid="brief-missing"
  >
    <CircleAlert :size="17" class="mt-0.5 shrink-0 text-caution" aria-hidden="true" />
    <p>
      <b class="font-semibold">Not filled in yet.</b> Nothing can be sized without it:
      <template v-for="(m, i) in sheetDocument.briefMissing" :key="m.message">
        <template v-if="i">, </template>
        <button v-if="m.motion" class="underline" @click="emit('motion', m.motion)">
          {{ m.message.replace(/\.$/, '') }}</button><template v-else>{{
          m.message.replace(/\.$/, '')
        }}</template> </template
      >.
    </p>
  </div>
</template>
