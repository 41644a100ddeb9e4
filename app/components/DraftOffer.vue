<script setup lang="ts">
/** Offers edits of an earlier visit that the server never got. */
import type { Draft } from '../utils/drafts'

const saving = useSaving()
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
/** A second press discards. */
const discarding = shallowRef<Draft>()
function discard(draft: Draft) {
  if (discarding.value === draft) saving.discardDraft(draft)
  else discarding.value = draft
}
</script>

<template>
  <section
    v-for="draft in saving.offered"
    :key="draft.tab"
    class="flex flex-wrap items-center gap-3 border-b border-rule bg-accent-paper px-3 py-1.5"
    role="status"
    data-testid="draft-offer"
  >
    <span>
      Changes of {{ when.format(draft.at) }} were not saved. They are kept in this browser{{
        draft.sheet ? '' : ' and concern the brief'
      }}.
    </span>
    <button class="button-main" @click="saving.useDraft(draft)">Restore them</button>
    <button class="button" @click="discard(draft)" @blur="discarding = undefined">
      {{ discarding === draft ? 'Really discard them' : 'Discard them' }}
    </button>
  </section>
</template>
