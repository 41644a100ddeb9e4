<script setup lang="ts">
/** The commands of a run over time, and its conditions below them. */
import { actionText, type Action } from '@oar-bench/core/simulate/actions'
import type { Condition, RunResult } from '@oar-bench/core/simulate/result'
import type { CommandLane } from '../utils/commandLanes'

defineProps<{
  result: RunResult
  lanes: readonly CommandLane[]
  /** Where a time lies on the tape, and how wide an interval is, as CSS lengths. */
  at: (t: number) => string
  wide: (from: number, to: number) => string
  /** Width of the labels, pixels. */
  labelWidth: number
  conditionText: (condition: Condition) => string
  /** What some of the conditions are, as many as there is room for. */
  conditionLabels: readonly { readonly left: string; readonly text: string }[]
  /** What was done by hand. */
  done: readonly Action[]
}>()
const emit = defineEmits<{ choose: [condition: Condition]; instant: [t: number] }>()
</script>

<template>
  <div v-for="lane in lanes" :key="lane.id" class="relative h-4.5">
    <span class="absolute left-0 truncate pl-3 text-[13px]" :style="{ width: `${labelWidth - 4}px` }">{{
      lane.label
    }}</span>
    <svg
      v-if="lane.profile"
      class="absolute top-px h-4"
      :style="{ left: at(0), width: wide(0, result.duration) }"
      :viewBox="`0 0 ${result.duration} 16`"
      preserveAspectRatio="none"
      role="img"
      :aria-label="`${lane.label}, ${lane.range}`"
    >
      <title>{{ lane.range }}</title>
      <polyline
        :points="lane.profile"
        fill="none"
        stroke="var(--accent)"
        stroke-width="1.5"
        vector-effect="non-scaling-stroke"
      />
    </svg>
    <span
      v-for="b in lane.blocks"
      :key="b.from"
      class="absolute top-px h-4 overflow-hidden border-l border-ink/40 px-1 font-lettering text-xs leading-4 whitespace-nowrap"
      :class="b.idle ? 'text-soft' : 'bg-accent-paper text-accent'"
      :style="{ left: at(b.from), width: wide(b.from, b.to) }"
      :title="`${b.text}, ${b.from.toFixed(2)} to ${b.to.toFixed(2)} s`"
      >{{ b.text }}</span
    >
  </div>
  <div v-if="done.length" class="relative h-4.5" data-testid="done">
    <span class="absolute left-0 pl-3 text-[13px]">By hand</span>
    <button
      v-for="(action, i) in done"
      :key="i"
      class="absolute top-1 h-3 w-1.5 -translate-x-1/2 rounded-sm bg-accent hover:bg-ink"
      :style="{ left: at(action.at) }"
      :title="`${action.at.toFixed(3)} s: ${actionText(action)}`"
      :aria-label="`${action.at.toFixed(3)} s: ${actionText(action)}`"
      @click="emit('instant', action.at)"
    />
  </div>
  <div class="relative h-8.5" data-testid="conditions">
    <span class="absolute left-0 pl-3 text-[13px]">Conditions</span>
    <button
      v-for="(c, i) in result.conditions"
      :key="i"
      class="condition absolute"
      :class="[c.severity, c.end > c.start ? 'span' : 'mark']"
      :style="{
        left: at(c.start),
        width: c.end > c.start ? `max(3px, ${wide(c.start, c.end)})` : undefined,
      }"
      :title="conditionText(c)"
      :aria-label="conditionText(c)"
      @click="emit('choose', c)"
    />
    <span
      v-for="(label, i) in conditionLabels"
      :key="`label ${i}`"
      class="pointer-events-none absolute top-5 font-lettering text-xs leading-3 whitespace-nowrap text-soft"
      :style="{ left: label.left }"
      aria-hidden="true"
      >{{ label.text }}</span
    >
  </div>
</template>

<style>
.condition {
  top: 4px;
  height: 16px;
}
.condition.span {
  border-radius: 2px;
  opacity: 0.75;
}
.condition.span.info {
  background: color-mix(in srgb, var(--soft) 55%, transparent);
  height: 8px;
  top: 14px;
}
.condition.span.warning {
  background: var(--caution);
  height: 8px;
  top: 3px;
  background-image: repeating-linear-gradient(135deg, transparent 0 3px, var(--pane) 3px 4.5px);
}
.condition.span.danger {
  background: var(--error);
  height: 8px;
  top: 3px;
}
.condition.mark {
  width: 12px;
  margin-left: -6px;
  background: var(--ink);
  clip-path: polygon(50% 100%, 15% 40%, 15% 0, 85% 0, 85% 40%);
  z-index: 1;
}
.condition:hover,
.condition:focus-visible {
  opacity: 1;
  filter: brightness(1.2);
}
</style>
