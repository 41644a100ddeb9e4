<script setup lang="ts">
/** What the selected part does now: its card, what opposes each other in it, the ways through it, its inside and its heat. */
import { findKind } from '@oar-bench/core/catalogue'
import { balanceText, elementText } from '@oar-bench/core/explain/part'

const answers = useAnswers()
const selection = useSelection()
const { show } = useUnits()
/** The card of the part is open. */
const guide = ref(false)
const guided = computed(() => {
  const [component] = selection.components
  return component && findKind(component.kind)?.guide ? component : undefined
})
</script>

<template>
  <button
    v-if="guided"
    class="mt-2 self-start text-[13px] underline hover:text-accent"
    :aria-expanded="guide"
    data-testid="show-guide"
    @click="guide = !guide"
  >
    {{ guide ? 'Hide what it does' : 'What it does, and what goes wrong' }}
  </button>
  <PartGuide v-if="guided && guide" :component="guided" />
  <template v-if="answers.part">
    <template v-for="b in answers.part.balances" :key="b.name">
      <h3 class="heading mt-4">Its balance</h3>
      <p class="text-[13px]" data-testid="balance">{{ balanceText(b, show) }}</p>
      <dl class="mt-1 grid grid-cols-[1fr_auto] gap-x-2 text-[13px]">
        <template v-for="p in b.pushing" :key="`+ ${p.label}`">
          <dt>{{ p.label }}</dt>
          <dd class="text-right font-lettering">{{ show(p.value, b.quantity, 3) }}</dd>
        </template>
        <template v-for="p in b.opposing" :key="`− ${p.label}`">
          <dt class="text-soft">against it: {{ p.label }}</dt>
          <dd class="text-right font-lettering text-soft">{{ show(p.value, b.quantity, 3) }}</dd>
        </template>
      </dl>
    </template>
    <template v-if="answers.part.ways.length">
      <h3 class="heading mt-4">Through it</h3>
      <table class="w-full text-[13px]" data-testid="part-ways">
        <tbody>
          <tr v-for="w in answers.part.ways" :key="`${w.from} ${w.to} ${w.element}`">
            <th class="text-left font-lettering font-normal">{{ w.from }} → {{ w.to }}</th>
            <td class="text-soft">{{ elementText[w.element] }}</td>
            <td class="text-right font-lettering">{{ show(w.flow, 'flow', 3) }}</td>
            <td class="text-right font-lettering">{{ show(w.drop, 'pressure', 3) }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <PartInside v-if="answers.part.inside" :drawn="answers.part.inside" />
    <p v-if="Math.abs(answers.part.heat) > 1" class="mt-2 text-[13px]">
      It turns {{ show(answers.part.heat, 'power', 3) }} into heat.
    </p>
  </template>
</template>
