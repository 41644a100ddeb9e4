<script setup lang="ts">
/** What the checks find, each with its remedy; choosing one goes to its location. */
import { CircleAlert, CircleCheck, CircleDashed, Hourglass, TriangleAlert } from 'lucide-vue-next'
import { reasonOf } from '@oar-bench/core/check'
import { reasonOfControlRule } from '@oar-bench/core/control/check'
import { isPrintable } from '@oar-bench/core/sheet/schema'
import { acceptWarning } from '@oar-bench/core/sheet/edit'
import { locationText, subjectOf, type Finding } from '@oar-bench/core/sheet/finding'

/** @prop drawing what is only not drawn yet is listed apart, and is no error */
const props = defineProps<{ drawing?: boolean }>()
const emit = defineEmits<{ reveal: [id: string] }>()
const sheetDocument = useSheetDocument()
const selection = useSelection()
const checks = useSheetChecks()
const listed = computed(() => (props.drawing ? checks.faults : checks.findings))
const errors = computed(() => listed.value.filter((f) => f.severity === 'error'))
const warnings = computed(() => listed.value.filter((f) => f.severity === 'warning'))
const incomplete = computed(() => (props.drawing ? checks.incomplete : []))
const words = computed(() => {
  if (checks.problem) return 'Checks failed'
  const many = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`
  const parts = [
    errors.value.length && many(errors.value.length, 'error'),
    warnings.value.length && many(warnings.value.length, 'warning'),
    incomplete.value.length && many(incomplete.value.length, 'open port'),
  ].filter(Boolean)
  if (parts.length) return parts.join(', ')
  return checks.pending ? 'Checking …' : 'Checks pass'
})
const named = (f: Finding) => {
  const component = sheetDocument.sheet.components.find((c) => c.id === f.location.component)
  const device = sheetDocument.sheet.control.devices.find((d) => d.id === f.location.control)
  const path = sheetDocument.sheet.control.rungs.findIndex((r) => r.id === f.location.control)
  if (device) return device.designation ?? device.id
  return path >= 0 ? `path ${path + 1}` : (component?.designation ?? locationText(f.location))
}
const route = useRoute()
const ui = useControlUi()
function go(f: Finding) {
  const { control } = f.location
  if (control) {
    if (sheetDocument.sheet.control.rungs.some((r) => r.id === control)) ui.selectRung(control)
    else selection.select([control])
    void navigateTo({ path: `/machines/${sheetDocument.machine!.id}/control`, query: route.query })
    return
  }
  const id = f.location.component ?? f.location.pipe ?? f.location.junction
  if (!id) return
  selection.select([id])
  emit('reveal', id)
}
/** The warning for whose acceptance a reason is being written, by its place in the list. */
const accepting = ref<number>()
const reason = ref('')
function accept(f: Finding) {
  const text = reason.value.trim()
  if (!text || !isPrintable(text)) return
  sheetDocument.apply(acceptWarning(sheetDocument.sheet, f.rule, subjectOf(f.location), text.slice(0, 200)))
  accepting.value = undefined
  reason.value = ''
}
const restore = (f: Finding) =>
  sheetDocument.apply(acceptWarning(sheetDocument.sheet, f.rule, subjectOf(f.location), undefined))
</script>

<template>
  <PopUp testid="findings" panel-class="w-96 p-1">
    <template #button>
      <CircleAlert v-if="errors.length || checks.problem" :size="16" class="text-error" aria-hidden="true" />
      <TriangleAlert v-else-if="warnings.length" :size="16" class="text-caution" aria-hidden="true" />
      <CircleDashed v-else-if="incomplete.length" :size="16" class="text-soft" aria-hidden="true" />
      <Hourglass v-else-if="checks.pending" :size="16" class="text-soft" aria-hidden="true" />
      <CircleCheck v-else :size="16" class="text-good" aria-hidden="true" />
      <span :data-checked="checks.upToDate">{{ words }}</span>
    </template>
    <template #default="{ close }">
      <p v-if="checks.problem" class="px-3 py-2 text-error" role="alert">{{ checks.problem }}</p>
      <p v-else-if="!listed.length && !incomplete.length && !checks.pending" class="px-3 py-2 text-soft">
        The sheet can be run. The checks find nothing; they do not replace a qualified person's judgement.
      </p>
      <div v-for="(f, i) in listed" :key="i" class="rounded hover:bg-accent-paper" data-testid="finding">
        <button class="block w-full px-3 pt-2 text-left" @click="(go(f), close())">
          <span
            class="font-lettering font-medium"
            :class="f.severity === 'error' ? 'text-error' : 'text-caution'"
          >
            {{ f.severity === 'error' ? 'Error' : 'Warning' }} at {{ named(f) }}
          </span>
          <span class="block">{{ f.message }}</span>
          <span v-if="f.remedy" class="block text-[13px] text-soft">{{ f.remedy }}</span>
        </button>
        <div v-if="f.fix" class="px-3 py-1"><FixButton :fix="f.fix" /></div>
        <details class="px-3 pb-2 text-[13px]">
          <summary class="cursor-pointer text-soft hover:text-accent">
            Why{{ f.severity === 'warning' ? ', or accept it' : '' }}
          </summary>
          <p>{{ reasonOf(f.rule) ?? reasonOfControlRule(f.rule) }}</p>
          <form v-if="f.severity === 'warning'" class="mt-1 flex gap-1" @submit.prevent="accept(f)">
            <input
              v-model="reason"
              class="field !py-0.5"
              maxlength="200"
              placeholder="Accepted, because …"
              aria-label="Why this is accepted"
              data-testid="accept-reason"
              @focus="accepting = i"
            />
            <button
              class="button !py-0.5"
              :disabled="accepting !== i || !reason.trim() || !isPrintable(reason)"
              data-testid="accept"
            >
              Accept
            </button>
          </form>
        </details>
      </div>
      <section v-if="incomplete.length" class="mt-1 border-t border-rule pt-1 first:border-0">
        <h3 class="px-3 py-1 text-[13px] text-soft">Not connected yet; errors when it is run</h3>
        <div v-for="(f, i) in incomplete" :key="i" class="px-3 py-1 text-[13px]" data-testid="incomplete">
          <button class="text-left hover:text-accent" @click="(go(f), close())">{{ f.message }}</button>
          <FixButton v-if="f.fix" :fix="f.fix" plain class="ml-2 text-soft" />
        </div>
      </section>
      <section v-if="checks.accepted.length" class="mt-1 border-t border-rule pt-1">
        <h3 class="px-3 py-1 text-[13px] text-soft">Accepted</h3>
        <div v-for="(f, i) in checks.accepted" :key="i" class="px-3 py-1 text-[13px]" data-testid="accepted">
          <button class="text-left hover:text-accent" @click="(go(f), close())">
            {{ named(f) }}: {{ f.message }}
          </button>
          <p class="text-soft">
            Because: {{ f.accepted }}
            <button class="ml-1 underline hover:text-accent" @click="restore(f)">Reinstate</button>
          </p>
        </div>
      </section>
    </template>
  </PopUp>
</template>
