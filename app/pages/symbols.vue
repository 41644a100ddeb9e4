<script setup lang="ts">
/** Every symbol of the catalogue at one scale, with its ports. */
import { kinds, type AnyKind } from '@oar-bench/core/catalogue'
import { families, type Family, type SymbolForm } from '@oar-bench/core/catalogue/kind'
import { symbolBounds, symbolOf } from '@oar-bench/core/sheet/geometry'
import { componentSchema } from '@oar-bench/core/sheet/schema'

useHead({ title: 'Symbols · Oar Bench' })
const SCALE = 8
const form = ref<SymbolForm>('simplified')
/** A value that shows the difference between the two forms best: a solenoid with its pilot stage. */
const parameters = (kind: AnyKind): Record<string, string> =>
  form.value === 'detailed' && 'actuation' in kind.parameters ? { actuation: 'solenoidPilot' } : {}
const shown = (kind: AnyKind) => {
  const drawing = symbolOf(
    componentSchema.parse({ id: 'x', kind: kind.name, form: form.value, parameters: parameters(kind) }),
  )!
  const ports = Object.entries(drawing.ports).map(([name, p]) => ({ name, ...p }))
  const box = symbolBounds(drawing)
  const xs = [box.x, box.x + box.w, ...ports.map((p) => p.x)]
  const ys = [box.y, box.y + box.h, ...ports.map((p) => p.y)]
  const [x, y] = [Math.min(...xs) - 1.5, Math.min(...ys) - 1.5]
  const [w, h] = [Math.max(...xs) + 1.5 - x, Math.max(...ys) + 1.5 - y]
  return { kind, drawing, ports, viewBox: `${x} ${y} ${w} ${h}`, w: w * SCALE, h: h * SCALE }
}
const groups = computed(() => {
  const list = [...kinds.values()]
    .filter((kind) => form.value === 'simplified' || kind.forms)
    .map((kind) => shown(kind))
  return (Object.keys(families) as Family[])
    .map((family) => ({
      family,
      label: families[family],
      items: list.filter((i) => i.kind.family === family),
    }))
    .filter((g) => g.items.length)
})
</script>

<template>
  <div class="flex h-full flex-col">
    <AppHeader />
    <main class="min-h-0 flex-1 overflow-auto bg-paper" tabindex="0" aria-label="Symbols">
      <div class="mx-auto max-w-6xl px-6 py-4">
        <div class="flex items-baseline gap-4 pb-1">
          <h1 class="font-lettering text-2xl font-medium">Symbols</h1>
          <label class="ml-auto text-[13px] text-soft">
            Drawn
            <select v-model="form" class="field !inline-block !w-auto" data-testid="form">
              <option value="simplified">simplified</option>
              <option value="detailed">in detail, where that differs</option>
            </select>
          </label>
        </div>
        <section v-for="group in groups" :key="group.family" class="border-t border-rule py-2">
          <h2 class="heading text-soft">{{ group.label }}</h2>
          <ul class="flex flex-wrap items-end gap-x-6 gap-y-3">
            <li
              v-for="item in group.items"
              :key="item.kind.name"
              class="text-center"
              :title="item.kind.description"
            >
              <svg
                :width="item.w"
                :height="item.h"
                :viewBox="item.viewBox"
                class="mx-auto"
                role="img"
                :aria-label="item.kind.label"
              >
                <SymbolShapes :drawing="item.drawing" />
                <g v-for="p in item.ports" :key="p.name">
                  <circle :cx="p.x" :cy="p.y" r="0.22" fill="var(--accent)" />
                  <text
                    :x="p.x + (p.side === 'left' ? -0.6 : p.side === 'right' ? 0.6 : 0.7)"
                    :y="p.y + (p.side === 'up' ? -0.4 : p.side === 'down' ? 1.1 : -0.4)"
                    font-size="1.1"
                    text-anchor="middle"
                    fill="var(--accent)"
                  >
                    {{ p.name }}
                  </text>
                </g>
              </svg>
              <span class="block max-w-36 text-xs leading-tight text-soft">{{ item.kind.label }}</span>
            </li>
          </ul>
        </section>
      </div>
    </main>
  </div>
</template>
