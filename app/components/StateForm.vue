<script setup lang="ts">
/** A combination of commands to be added to the table of states. */
import { commandsOf, type StateCommand } from '@oar-bench/core/explain/state-figures'
import type { SheetState } from '@oar-bench/core/sheet/schema'
import { parseQuantity } from '@oar-bench/core/units/text'
import { shownUnit } from '@oar-bench/core/units/quantities'

const emit = defineEmits<{ add: [state: SheetState]; cancel: [] }>()
const sheetDocument = useSheetDocument()
const { system } = useUnits()
const commands = computed(() => commandsOf(sheetDocument.sheet))
const name = ref('')
/** Values as written, by component and input; empty: as at rest. */
const written = reactive<Record<string, string>>({})
const keyOf = ({ component, spec }: StateCommand) => `${component}.${spec.name}`
const problems = ref<Record<string, string>>({})

function add(): void {
  problems.value = {}
  const title = name.value.trim()
  if (!title) problems.value.name = 'Give the state a name.'
  else if (sheetDocument.sheet.states.some((s) => s.name === title))
    problems.value.name = 'There is a state of this name.'
  const chosen = commands.value.filter((c) => (written[keyOf(c)] ?? '').trim() !== '')
  for (const command of chosen) {
    const { quantity, min, max } = command.spec
    const read = parseQuantity(written[keyOf(command)], quantity, shownUnit(quantity, system.value))
    if (!read.ok) problems.value[keyOf(command)] = read.message
    else if (read.si < min || read.si > max) problems.value[keyOf(command)] = 'That is out of its range.'
  }
  if (Object.keys(problems.value).length) return
  emit('add', {
    name: title,
    commands: chosen.map((command) => ({
      component: command.component,
      input: command.spec.name,
      value: written[keyOf(command)].trim(),
    })),
  })
}
</script>

<template>
  <form
    class="mb-2 border border-rule bg-paper p-2 text-[13px]"
    data-testid="state-form"
    @submit.prevent="add"
  >
    <label class="flex items-center gap-2">
      Name
      <input
        v-model="name"
        class="field !w-72"
        maxlength="200"
        :aria-invalid="!!problems.name"
        data-testid="state-name"
      />
      <span v-if="problems.name" class="text-error" role="alert">{{ problems.name }}</span>
    </label>
    <div class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
      <label v-for="c in commands" :key="keyOf(c)" class="flex items-center gap-1.5">
        <span class="font-lettering">{{ c.name }}</span> {{ c.spec.label.split(',')[0] }}
        <select
          v-if="c.spec.positions"
          v-model="written[keyOf(c)]"
          class="field !w-auto"
          :data-testid="`state-${keyOf(c)}`"
        >
          <option value="">at rest</option>
          <option v-for="p in c.spec.positions" :key="p.value" :value="String(p.value)">{{ p.label }}</option>
        </select>
        <input v-else v-model="written[keyOf(c)]" class="field !w-24" placeholder="at rest" />
        <span v-if="problems[keyOf(c)]" class="text-error" role="alert">{{ problems[keyOf(c)] }}</span>
      </label>
    </div>
    <p class="mt-1 text-soft">
      The machine is solved from where it is drawn until it comes to rest with these commands.
    </p>
    <div class="mt-1 flex gap-2">
      <button class="button-main" type="submit" data-testid="state-add">Add</button>
      <button class="button" type="button" @click="emit('cancel')">Cancel</button>
    </div>
  </form>
</template>
