<script setup lang="ts">
/** One machine: brief, sheet, sizes and run, all around the same sheet. */
import { useEventListener } from '@vueuse/core'
import type { MachineDetail } from '#shared/api'

type Step = 'brief' | 'sheet' | 'sizes' | 'run'
definePageMeta({
  key: (route) => `machine-${String(route.params.id)}`,
  validate: (route) => (['brief', 'sheet', 'sizes', 'run'] as unknown[]).includes(route.params.step),
})
const route = useRoute()
const drawing = useDrawing()
const run = useRun()
const step = computed(() => route.params.step as Step)
const words: Record<Step, string> = { brief: 'Brief', sheet: 'Sheet', sizes: 'Sizes', run: 'Run' }
useHead({ title: () => `${drawing.machine?.name ?? 'Machine'}, ${words[step.value]} · Oar Bench` })

const state = ref<'loading' | 'ready' | 'failed'>('loading')
const problem = ref('')
async function load() {
  state.value = 'loading'
  try {
    const detail = await $fetch<MachineDetail>(`/api/machines/${String(route.params.id)}`, {
      query: route.query.sheet ? { sheet: route.query.sheet } : {},
    })
    drawing.open(detail)
    run.open(detail)
    state.value = 'ready'
  } catch (error) {
    problem.value = failureMessage(error)
    state.value = 'failed'
  }
}
onMounted(load)
// another variant is another sheet: what is open is saved first
watch(
  () => route.query.sheet,
  async (asked) => {
    if (asked === drawing.sheetId) return
    if (drawing.unsaved) await drawing.saveNow()
    await load()
  },
)
useEventListener('beforeunload', (event) => {
  if (!drawing.unsaved) return
  void drawing.saveNow()
  event.preventDefault()
})
onBeforeRouteLeave(async () => {
  if (drawing.unsaved) await drawing.saveNow()
})
</script>

<template>
  <div class="flex h-full flex-col">
    <AppHeader :step="step" />
    <p v-if="state === 'loading'" class="p-6 text-soft">Opening …</p>
    <main v-else-if="state === 'failed'" class="p-6">
      <p class="text-error" role="alert">{{ problem }}</p>
      <p class="mt-3 flex gap-2">
        <button class="button" @click="load">Try again</button>
        <NuxtLink to="/" class="button">All machines</NuxtLink>
      </p>
    </main>
    <template v-else>
      <SheetStep
        v-show="step === 'sheet' || step === 'run'"
        :running="step === 'run'"
        :shown="step === 'sheet' || step === 'run'"
      />
      <BriefStep v-if="step === 'brief'" />
      <SizesStep v-if="step === 'sizes'" />
    </template>
  </div>
</template>
