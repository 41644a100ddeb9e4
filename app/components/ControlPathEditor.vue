<script setup lang="ts">
/** A path as text: contacts and coils by their names; and what is done to the contact that is chosen on the drawing. */
import { ArrowDown, ArrowUp, Trash2, X } from 'lucide-vue-next'
import {
  changeRung,
  coilsFromText,
  coilsToText,
  contactsFromText,
  contactsToText,
  editContact,
  moveRung,
  removeRung,
} from '@oar-bench/core/control/edit'
import { parseExpression } from '@oar-bench/core/control/expression'
import { offeredCoils, offeredContacts } from '@oar-bench/core/control/terminals'

const props = defineProps<{ rungId: string }>()
const emit = defineEmits<{ next: [] }>()
const sheetDocument = useSheetDocument()
const checks = useSheetChecks()
const ui = useControlUi()
const rung = computed(() => sheetDocument.sheet.control.rungs.find((r) => r.id === props.rungId))
const number = computed(() => sheetDocument.sheet.control.rungs.findIndex((r) => r.id === props.rungId) + 1)
const shownContacts = computed(() => contactsToText(sheetDocument.sheet, rung.value?.contacts ?? ''))
const shownCoils = computed(() => coilsToText(sheetDocument.sheet, rung.value?.coils ?? []))
const contacts = ref(shownContacts.value)
const coils = ref(shownCoils.value)
watch(shownContacts, (text) => (contacts.value = text))
watch(shownCoils, (text) => (coils.value = text))
const field = useTemplateRef<HTMLInputElement>('field')
const coilField = useTemplateRef<HTMLInputElement>('coilField')

/** What is wrong with what is being typed. */
const typing = computed(() => {
  const parsed = parseExpression(contacts.value)
  return parsed.ok ? '' : parsed.error.message
})
const problems = computed(() => checks.findings.filter((f) => f.location.control === props.rungId))
function commitContacts() {
  const text = contactsFromText(sheetDocument.sheet, contacts.value)
  if (text !== rung.value?.contacts)
    sheetDocument.apply(changeRung(sheetDocument.sheet, props.rungId, { contacts: text.slice(0, 500) }))
}
function commitCoils() {
  const list = coilsFromText(sheetDocument.sheet, coils.value)
  if (list.join() !== rung.value?.coils.join())
    sheetDocument.apply(changeRung(sheetDocument.sheet, props.rungId, { coils: list.slice(0, 20) }))
}
function commitComment(event: Event) {
  const text = typedText(event, rung.value?.comment ?? '')
  if (text !== undefined)
    sheetDocument.apply(changeRung(sheetDocument.sheet, props.rungId, { comment: text.slice(0, 200) }))
}

// ---- names that begin with the word at the cursor ------------------------------------------------
const offers = computed(() => {
  const word = contacts.value.split(/[^\p{L}\p{N}_.-]/u).at(-1)!
  if (!word) return []
  const start = word.toLowerCase()
  return offeredContacts(sheetDocument.sheet)
    .filter(
      ({ name, label }) =>
        name !== word && (name.toLowerCase().startsWith(start) || label.toLowerCase().startsWith(start)),
    )
    .slice(0, 6)
    .map((o) => ({ ...o, text: contacts.value.slice(0, contacts.value.length - word.length) + o.name }))
})
const coilOffers = computed(() => {
  const word = coils.value.split(',').at(-1)!.trim().toLowerCase()
  return offeredCoils(sheetDocument.sheet).filter(
    ({ name, label, ref: own }) =>
      !rung.value?.coils.includes(own) &&
      (name.toLowerCase().startsWith(word) || label.toLowerCase().startsWith(word)),
  )
})
function takeCoil(name: string) {
  const before = coils.value
    .split(',')
    .slice(0, -1)
    .map((c) => c.trim())
  coils.value = [...before, name].join(', ')
  commitCoils()
}
const chosen = computed(() => (ui.contact?.rung === props.rungId ? ui.contact : undefined))
const edit = (does: 'invert' | 'remove') =>
  sheetDocument.apply(editContact(sheetDocument.sheet, props.rungId, chosen.value!.index, { does }))
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <section
    v-if="rung"
    class="border-t border-rule bg-pane px-3 py-2"
    data-testid="path-editor"
    aria-label="Path"
  >
    <div class="flex items-center gap-2">
      <h2 class="heading w-14 shrink-0">Path {{ number }}</h2>
      <label class="relative min-w-0 flex-[3]">
        <span class="sr-only">Contacts</span>
        <input
          ref="field"
          v-model="contacts"
          class="field font-lettering"
          placeholder="Contacts: · series, + parallel, / normally closed"
          :aria-invalid="!!typing"
          maxlength="500"
          data-testid="contacts"
          @change="commitContacts"
          @keydown.enter.prevent="(commitContacts(), coilField?.focus())"
        />
      </label>
      <span aria-hidden="true" class="text-soft">→</span>
      <label class="min-w-0 flex-1">
        <span class="sr-only">Coils</span>
        <input
          ref="coilField"
          v-model="coils"
          class="field font-lettering"
          placeholder="Coils"
          maxlength="200"
          data-testid="coils"
          @change="commitCoils"
          @keydown.enter.prevent="(commitCoils(), emit('next'))"
        />
      </label>
      <span class="flex">
        <ToolButton
          label="Move the path up"
          @click="sheetDocument.apply(moveRung(sheetDocument.sheet, rungId, -1))"
        >
          <ArrowUp :size="16" />
        </ToolButton>
        <ToolButton
          label="Move the path down"
          @click="sheetDocument.apply(moveRung(sheetDocument.sheet, rungId, 1))"
        >
          <ArrowDown :size="16" />
        </ToolButton>
        <ToolButton
          label="Delete the path"
          data-testid="delete-path"
          @click="sheetDocument.apply(removeRung(sheetDocument.sheet, rungId))"
        >
          <Trash2 :size="16" />
        </ToolButton>
        <ToolButton label="Close" @click="ui.selectRung(undefined)"><X :size="16" /></ToolButton>
      </span>
    </div>
    <div class="mt-1 flex flex-wrap items-center gap-1.5 text-[13px]">
      <input
        class="field !w-72 !py-0.5"
        :value="rung.comment"
        placeholder="What it is for"
        aria-label="What the path is for"
        maxlength="200"
        data-testid="comment"
        @change="commitComment"
      />
      <template v-if="chosen">
        <button class="button !py-0" data-testid="invert" @click="edit('invert')">Open / closed</button>
        <button class="button !py-0" data-testid="remove-contact" @click="edit('remove')">
          Take the contact out
        </button>
        <span class="text-soft">or put another beside it, from the list at the left</span>
      </template>
      <template v-else>
        <button
          v-for="o in offers"
          :key="o.ref"
          class="rounded border border-rule bg-paper px-1.5 hover:text-accent"
          :title="o.label"
          @click="((contacts = o.text), field?.focus())"
        >
          <span class="font-lettering">{{ o.name }}</span> {{ o.label }}
        </button>
        <template v-if="!rung.coils.length && !offers.length">
          <span class="text-soft">drives</span>
          <button
            v-for="o in coilOffers.slice(0, 8)"
            :key="o.ref"
            class="rounded border border-rule bg-paper px-1.5 hover:text-accent"
            :title="o.label"
            @click="takeCoil(o.name)"
          >
            {{ o.name }}
          </button>
        </template>
      </template>
    </div>
    <p v-if="typing" class="mt-1 text-[13px] text-error" role="alert" data-testid="path-problem">
      {{ typing }}
    </p>
    <p
      v-for="(f, i) in typing ? [] : problems"
      :key="i"
      class="mt-1 text-[13px]"
      :class="f.severity === 'error' ? 'text-error' : 'text-caution'"
      role="alert"
      data-testid="path-problem"
    >
      {{ f.message }} {{ f.remedy }}
    </p>
  </section>
</template>
