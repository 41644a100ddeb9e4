<script setup lang="ts">
/** The line at the top: where one is, the steps of the work, what is saved, units, light. */
import { Check, CloudOff, LoaderCircle, Moon, Redo2, Sun, Undo2 } from 'lucide-vue-next'
import { unitSystems } from '@oar-bench/core/units/quantities'

defineProps<{ step?: string }>()
const sheetDocument = useSheetDocument()
const saving = useSaving()
const tabs = useTabs()
const checks = useSheetChecks()
const runs = useSimulationRuns()
const { system } = useUnits()
const { dark, toggle } = useTheme()
const systemWords = { metric: 'metric', us: 'US customary' }

/** What is wrong on the sheet; else what is not drawn yet. */
const sheetState = computed(() => {
  const errors = checks.faults.filter((f) => !f.location.control && f.severity === 'error').length
  if (errors) return `${errors} ${errors === 1 ? 'error' : 'errors'}`
  return checks.incomplete.length ? 'not complete' : ''
})
/** What is wrong in the control, where there is one. */
const controlState = computed(() => {
  const errors = checks.faults.filter((f) => f.location.control && f.severity === 'error').length
  return errors ? `${errors} ${errors === 1 ? 'error' : 'errors'}` : ''
})
const steps = computed(() => [
  {
    name: 'brief',
    label: 'Brief',
    missing: sheetDocument.briefProblems.length
      ? `${sheetDocument.briefProblems.length} to correct`
      : sheetDocument.brief.motions.length === 0
        ? 'not filled in'
        : sheetDocument.briefMissing.length
          ? `${sheetDocument.briefMissing.length} missing`
          : '',
  },
  {
    name: 'sheet',
    label: 'Sheet',
    missing: sheetState.value,
  },
  {
    name: 'control',
    label: 'Control',
    missing: controlState.value,
  },
  {
    name: 'sizes',
    label: 'Sizes',
    missing: sheetDocument.briefProblems.length || sheetDocument.briefMissing.length ? 'brief first' : '',
  },
  {
    name: 'run',
    label: 'Run',
    missing: checks.errors.length
      ? 'sheet first'
      : !runs.shown
        ? 'not run'
        : runs.outdated
          ? 'out of date'
          : '',
  },
])
const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <header class="flex h-11 shrink-0 items-center gap-3 border-b border-rule bg-pane px-3">
    <NuxtLink to="/" class="flex items-center gap-2 font-lettering text-lg font-medium hover:text-accent">
      <img src="/icon.svg" alt="" class="size-6" /><span class="whitespace-nowrap max-lg:sr-only"
        >Oar Bench</span
      >
    </NuxtLink>
    <template v-if="step && sheetDocument.machine">
      <span
        class="max-w-44 min-w-20 truncate border-l border-rule pl-3 font-semibold"
        data-testid="machine-name"
        >{{ sheetDocument.machine.name }}</span
      >
      <VariantMenu v-if="step !== 'brief'" />
      <nav aria-label="Steps" class="ml-2 flex h-full">
        <NuxtLink
          v-for="s in steps"
          :key="s.name"
          :to="{ path: `/machines/${sheetDocument.machine.id}/${s.name}`, query: $route.query }"
          class="flex h-full flex-col justify-center border-b-2 px-3 leading-tight hover:text-accent max-lg:px-2"
          :class="s.name === step ? 'border-accent text-accent' : 'border-transparent'"
          :aria-current="s.name === step ? 'step' : undefined"
        >
          {{ s.label }}
          <span
            v-if="s.missing"
            class="text-[11px] whitespace-nowrap text-caution max-lg:max-w-14 max-lg:truncate"
            >{{ s.missing }}</span
          >
        </NuxtLink>
      </nav>
      <span
        class="ml-auto flex items-center gap-1.5 text-[13px] whitespace-nowrap"
        data-testid="save-state"
        :data-state="saving.state"
        role="status"
      >
        <span
          v-if="tabs.elsewhere"
          class="rounded bg-accent-paper px-2 py-0.5"
          title="What is saved there is taken over here; where both have changes, you are asked."
          data-testid="elsewhere"
          >Open in another tab</span
        >
        <template v-if="saving.state === 'saved'">
          <Check :size="16" class="text-good" aria-hidden="true" />
          <span class="text-soft max-lg:sr-only"
            >Saved{{ saving.savedAt ? ` ${clock.format(saving.savedAt)}` : '' }}</span
          >
        </template>
        <template v-else-if="saving.state === 'failed'">
          <CloudOff :size="16" class="text-error" aria-hidden="true" />
          <span class="text-error">Not saved: {{ saving.problem }}</span>
          <button class="button" @click="saving.saveNow()">Try again</button>
        </template>
        <template v-else-if="saving.state === 'conflict'">
          <span class="text-error">{{ saving.problem }}</span>
          <button class="button" @click="saving.resolveConflict('theirs')">Use the other version</button>
          <button class="button" @click="saving.resolveConflict('mine')">Keep this version</button>
        </template>
        <template v-else>
          <LoaderCircle :size="16" class="animate-spin text-soft" aria-hidden="true" /><span class="text-soft"
            >Saving …</span
          >
        </template>
      </span>
      <span class="flex">
        <ToolButton
          hint="Undo (Ctrl Z)"
          label="Undo"
          :disabled="!(step === 'brief' ? sheetDocument.canUndoBrief : sheetDocument.canUndo)"
          @click="step === 'brief' ? sheetDocument.undoBrief() : sheetDocument.undo()"
        >
          <Undo2 :size="18" />
        </ToolButton>
        <ToolButton
          hint="Redo (Ctrl Shift Z)"
          label="Redo"
          :disabled="!(step === 'brief' ? sheetDocument.canRedoBrief : sheetDocument.canRedo)"
          @click="step === 'brief' ? sheetDocument.redoBrief() : sheetDocument.redo()"
        >
          <Redo2 :size="18" />
        </ToolButton>
      </span>
    </template>
    <span v-else class="ml-auto" />
    <select v-model="system" class="field !w-auto max-lg:!w-24" aria-label="Units">
      <option v-for="s in unitSystems" :key="s" :value="s">{{ systemWords[s] }}</option>
    </select>
    <ToolButton :hint="dark ? 'Light' : 'Dark'" :label="dark ? 'Light' : 'Dark'" @click="toggle">
      <Sun v-if="dark" :size="18" /><Moon v-else :size="18" />
    </ToolButton>
  </header>
</template>
