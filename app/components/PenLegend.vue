<script setup lang="ts">
/** Legends of the sheet: pens with what the oil does there, and what coloured lines are for. */
import { ChevronDown, ChevronRight, Eye, EyeOff, Trash2 } from 'lucide-vue-next'
import { changePen, legendText, PEN_INKS, penStrokes, removePen } from '@oar-bench/core/sheet/pens'
import type { Pen } from '@oar-bench/core/sheet/schema'

const sheetDocument = useSheetDocument()
const editor = useEditorUi()
const roles = useLineRoles()
const open = useSetting('legend', true)
const pens = computed(() => sheetDocument.sheet.pens)
/** What is written of a pen that is shown. */
const texts = computed(() => new Map(penStrokes(sheetDocument.sheet).map((p) => [p.pen.id, legendText(p)])))
const change = (id: string, changes: Partial<Omit<Pen, 'id'>>) =>
  sheetDocument.apply(changePen(sheetDocument.sheet, id, changes))
</script>

<template>
  <div
    v-if="pens.length || editor.lineRoles"
    class="max-w-80 rounded border border-rule bg-paper/90 p-2 text-[13px]"
    data-testid="legend"
  >
    <button
      class="flex w-full items-center gap-1 text-left text-soft hover:text-accent"
      :aria-expanded="open"
      data-testid="fold-legend"
      @click="open = !open"
    >
      <ChevronDown v-if="open" :size="14" aria-hidden="true" /><ChevronRight
        v-else
        :size="14"
        aria-hidden="true"
      />Legend
    </button>
    <ul v-if="open && editor.lineRoles" aria-label="What lines are for" data-testid="role-legend">
      <li v-for="r in roles.legend.value" :key="r.text" class="flex items-center gap-2">
        <span class="h-1 w-5 shrink-0 rounded" :style="{ background: r.colour }" />{{ r.text }}
      </li>
    </ul>
    <ul v-if="open && pens.length" aria-label="Pens" data-testid="pen-legend">
      <li v-for="(p, i) in pens" :key="p.id" class="flex items-center gap-1.5">
        <span class="h-1 w-5 shrink-0 rounded" :style="{ background: PEN_INKS[p.colour] }" />
        <span class="w-4 font-lettering">{{ i + 1 }}</span>
        <input
          class="min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 hover:border-rule"
          :value="p.name"
          :title="texts.get(p.id) ?? p.name"
          maxlength="200"
          :aria-label="`Name of pen ${i + 1}`"
          @change="
            change(p.id, { name: ($event.target as HTMLInputElement).value.trim().slice(0, 200) || p.name })
          "
        />
        <ToolButton
          :label="p.shown ? `Hide pen ${i + 1}` : `Show pen ${i + 1}`"
          @click="change(p.id, { shown: !p.shown })"
        >
          <Eye v-if="p.shown" :size="14" /><EyeOff v-else :size="14" />
        </ToolButton>
        <ToolButton
          :label="`Remove pen ${i + 1}`"
          @click="sheetDocument.apply(removePen(sheetDocument.sheet, p.id))"
        >
          <Trash2 :size="14" />
        </ToolButton>
      </li>
    </ul>
  </div>
</template>
