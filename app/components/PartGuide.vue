<script setup lang="ts">
/** A card of a kind: its detailed symbol, what it does, how it opens, what goes wrong, usual mistakes in plumbing it. */
import { findKind } from '@oar-bench/core/catalogue'
import { resolveComponent } from '@oar-bench/core/sheet/resolve'
import type { SheetComponent } from '@oar-bench/core/sheet/schema'

const props = defineProps<{ component: SheetComponent }>()
const kind = computed(() => findKind(props.component.kind))
const symbol = computed(() => {
  const { resolved } = resolveComponent(props.component)
  return resolved?.kind.symbol(resolved.values, 'detailed')
})
/** Around its body and its ports. */
const box = computed(() => {
  if (!symbol.value) return ''
  const { x, y, w, h } = symbol.value.box
  const ports = Object.values(symbol.value.ports)
  const [left, top] = [
    Math.min(x, ...ports.map((p) => p.x)) - 0.5,
    Math.min(y, ...ports.map((p) => p.y)) - 0.5,
  ]
  const right = Math.max(x + w, ...ports.map((p) => p.x)) + 0.5
  const bottom = Math.max(y + h, ...ports.map((p) => p.y)) + 0.5
  return `${left} ${top} ${right - left} ${bottom - top}`
})
const rows = computed(() => {
  const { guide, description } = kind.value ?? {}
  if (!guide) return []
  return [
    { title: 'What it does', text: description },
    { title: 'How it opens', text: guide.acts },
    { title: 'What goes wrong', text: guide.fails },
    { title: 'Usual mistakes', text: guide.mistakes },
  ]
})
</script>

<template>
  <section
    v-if="rows.length"
    class="mt-2 rounded border border-rule bg-paper p-2 text-[13px]"
    data-testid="guide"
  >
    <h3 class="font-lettering">{{ kind!.label }}</h3>
    <svg v-if="symbol" :viewBox="box" class="symbol mx-auto block h-24" aria-hidden="true">
      <SymbolShapes :drawing="symbol" />
    </svg>
    <dl>
      <template v-for="r in rows" :key="r.title">
        <dt class="mt-1 text-[12px] text-soft">{{ r.title }}</dt>
        <dd>{{ r.text }}</dd>
      </template>
    </dl>
    <p v-if="kind!.safetyNote" class="mt-1 text-caution">{{ kind!.safetyNote }}</p>
  </section>
</template>
