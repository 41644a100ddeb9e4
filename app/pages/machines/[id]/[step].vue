<script setup lang="ts">
/** One machine: brief, sheet, sizes and run, all around the same sheet. */
import { useConfirmDialog, useEventListener } from '@vueuse/core'

type Step = 'brief' | 'sheet' | 'control' | 'sizes' | 'run'
definePageMeta({
  key: (route) => `machine-${String(route.params.id)}`,
  validate: (route) =>
    (['brief', 'sheet', 'control', 'sizes', 'run'] as unknown[]).includes(route.params.step),
})
const route = useRoute()
const sheetDocument = useSheetDocument()
const saving = useSaving()
const openMachine = useOpenMachine()
const step = computed(() => route.params.step as Step)
const stepLabels: Record<Step, string> = {
  brief: 'Brief',
  sheet: 'Sheet',
  control: 'Control',
  sizes: 'Sizes',
  run: 'Run',
}
useHead({ title: () => `${sheetDocument.machine?.name ?? 'Machine'}, ${stepLabels[step.value]} · Oar Bench` })

const state = ref<'loading' | 'ready' | 'failed'>('loading')
const problem = ref('')
async function load() {
  state.value = 'loading'
  try {
    const variant = route.query.sheet
    await openMachine(String(route.params.id), typeof variant === 'string' ? variant : undefined)
    state.value = 'ready'
  } catch (error) {
    problem.value = failureMessage(error)
    state.value = 'failed'
  }
}
onMounted(load)
watch(
  () => route.query.sheet,
  (variant) => {
    if (variant !== sheetDocument.sheetId) void load()
  },
)

// ---- leaving with edits that are not saved -------------------------------------------------
const leaving = useConfirmDialog()
/** Saves first; where that fails the person is asked. */
async function mayLeave(): Promise<boolean> {
  if (!saving.unsaved) return true
  await saving.saveNow()
  if (!saving.unsaved) return true
  return !(await leaving.reveal()).isCanceled
}
onBeforeRouteLeave(mayLeave)
onBeforeRouteUpdate((to) =>
  to.query.sheet === undefined || to.query.sheet === sheetDocument.sheetId ? true : mayLeave(),
)
useEventListener('beforeunload', (event) => {
  if (!saving.unsaved) return
  void saving.saveNow()
  event.preventDefault()
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
    <main v-else class="flex min-h-0 flex-1 flex-col">
      <DraftOffer />
      <SheetStep
        v-show="step === 'sheet' || step === 'run'"
        :running="step === 'run'"
        :shown="step === 'sheet' || step === 'run'"
      />
      <ControlStep v-if="step === 'control'" />
      <BriefStep v-if="step === 'brief'" />
      <SizesStep v-if="step === 'sizes'" />
    </main>
    <ConfirmDialog
      :open="leaving.isRevealed.value"
      title="Leave with unsaved changes?"
      confirm="Leave"
      cancel="Stay here"
      testid="leave"
      @confirm="leaving.confirm()"
      @cancel="leaving.cancel()"
    >
      {{ saving.problem || 'The changes could not be saved.' }} Your changes stay in this browser and are
      offered when you open this sheet again.
    </ConfirmDialog>
  </div>
</template>
