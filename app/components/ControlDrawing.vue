<script setup lang="ts">
/** The paths of the control as a drawing: selected while drawing, with current and pressed while a run is shown. */
import type { DrawnCoil, DrawnContact, Wire } from '@oar-bench/core/control/drawing'
import type { Operable } from '@oar-bench/core/simulate/operable'

const props = defineProps<{ running?: boolean }>()
const ui = useControlUi()
const selection = useSelection()
const sheetDocument = useSheetDocument()
const live = useLiveRun()
const { carrying, known, isClosed } = useControlState()
const drawing = computed(() => ui.drawing)
const bounds = computed(() => drawing.value.bounds)
/** Pixels to a module. */
const SCALE = 11
const points = (list: Wire['points']) => list.map(([x, y]) => `${x},${y}`).join(' ')
const flows = ({ rung, node }: { rung: string; node: number }) =>
  props.running && carrying.value.get(rung)?.has(node)
const carries = ({ rung, nodes }: Wire) => nodes.some((node) => flows({ rung, node }))
const ownerOf = (ref: string) => ref.split('.')[0]

/** Our own eight colours, apart also for the colour-blind; never the only sign. */
const COLOURS = ['#0e5f6c', '#9a4d00', '#5b3b8c', '#2c6a3f', '#a8201a', '#3f5f9e', '#7a6a00', '#8a2f6b']
const colourOf = (relay: number) =>
  sheetDocument.sheet.control.colours && relay >= 0 ? COLOURS[relay % COLOURS.length] : undefined

const isSelected = (ref: string) => selection.ids.has(ownerOf(ref))
/** What can be pressed in a live run: the operator whose contact it is. */
const operableOf = (ref: string): Operable | undefined =>
  props.running && live.open
    ? live.machine.operables.find((o) => o.component === ownerOf(ref) && o.type !== 'order')
    : undefined
const isPressable = (ref: string) => operableOf(ref) !== undefined
const holds = new Map<string, ReturnType<typeof useHold>>()
function handlers(contact: DrawnContact) {
  const operable = operableOf(contact.ref)
  if (operable?.type !== 'button') return {}
  let hold = holds.get(operable.key)
  if (!hold) holds.set(operable.key, (hold = useHold(() => operable)))
  return hold.holding(1)
}
function choose(contact: DrawnContact) {
  ui.selectContact({ rung: contact.rung, index: contact.index })
  selection.select([ownerOf(contact.ref)])
  const operable = operableOf(contact.ref)
  if (!operable || operable.type === 'button') return
  const positions = operable.spec.positions!
  const now = live.orderOf(operable.key) ?? operable.rest
  const next = positions[(positions.findIndex((p) => p.value === now) + 1) % positions.length]
  void live.set(operable.component, operable.spec.name, next.value)
}
function chooseCoil(coil: DrawnCoil) {
  ui.selectRung(coil.rung)
  selection.select([ownerOf(coil.ref)])
}
const labelOf = ({ name, closed, ref }: DrawnContact) => {
  const state = props.running && known.value ? (isClosed(ref) ? ', acted on' : ', at rest') : ''
  const press = isPressable(ref) ? ': press' : ''
  return `${name}, normally ${closed ? 'closed' : 'open'}${state}${press}`
}
</script>

<template>
  <svg
    class="control-drawing"
    :viewBox="`${bounds.x} ${bounds.y} ${bounds.w} ${bounds.h}`"
    :width="bounds.w * SCALE"
    :height="bounds.h * SCALE"
    role="group"
    aria-label="Drawing of the control"
    data-testid="control-drawing"
  >
    <rect
      v-for="r in drawing.rungs"
      :key="r.id"
      class="rung"
      :class="{ selected: !running && ui.rung === r.id, wrong: r.problem }"
      :x="r.box.x"
      :y="r.box.y"
      :width="r.box.w"
      :height="r.box.h"
      :data-testid="`rung-${r.id}`"
      :data-current="running ? carrying.has(r.id) : undefined"
      @click="ui.selectRung(r.id)"
    />
    <g class="symbol">
      <polyline v-for="(w, i) in drawing.rails" :key="`rail-${i}`" class="rail" :points="points(w.points)" />
      <polyline
        v-for="(w, i) in drawing.wires"
        :key="i"
        :class="{ current: carries(w) }"
        :points="points(w.points)"
      />
      <circle v-for="([x, y], i) in drawing.dots" :key="`dot-${i}`" class="dot" :cx="x" :cy="y" r="0.28" />
    </g>
    <g
      v-for="c in drawing.contacts"
      :key="`${c.rung}-${c.index}`"
      class="device"
      :class="{
        current: flows(c),
        selected: isSelected(c.ref),
        chosen: !running && ui.contact?.rung === c.rung && ui.contact?.index === c.index,
        pressable: isPressable(c.ref),
      }"
      :style="{ '--relay': colourOf(c.relay) }"
      role="button"
      tabindex="0"
      :aria-label="labelOf(c)"
      :data-testid="`contact-${c.rung}-${c.index}`"
      v-bind="handlers(c)"
      @click.stop="choose(c)"
      @keydown.enter.prevent="choose(c)"
    >
      <rect class="hit" :x="c.box.x" :y="c.box.y" :width="c.box.w" :height="c.box.h" rx="0.4" />
      <SymbolShapes :drawing="{ shapes: c.shapes, ports: {}, box: c.box }" />
      <text :x="c.labelAt[0]" :y="c.labelAt[1]" :text-anchor="c.anchor" font-size="1.5">{{ c.name }}</text>
    </g>
    <g
      v-for="c in drawing.coils"
      :key="`${c.rung}-${c.ref}`"
      class="device"
      :class="{ current: flows({ rung: c.rung, node: 0 }), selected: isSelected(c.ref) }"
      :style="{ '--relay': colourOf(c.relay) }"
      role="button"
      tabindex="0"
      :aria-label="`Coil ${c.name}`"
      :data-testid="`coil-${c.ref}`"
      @click.stop="chooseCoil(c)"
      @keydown.enter.prevent="chooseCoil(c)"
    >
      <rect class="hit" :x="c.box.x" :y="c.box.y" :width="c.box.w" :height="c.box.h" rx="0.4" />
      <SymbolShapes :drawing="{ shapes: c.shapes, ports: {}, box: c.box }" />
      <text :x="c.labelAt[0]" :y="c.labelAt[1]" :text-anchor="c.anchor" font-size="1.5">{{ c.name }}</text>
    </g>
    <g v-for="t in drawing.tables" :key="`table-${t.ref}`" class="table">
      <text v-for="(place, i) in t.open" :key="`o${i}`" :x="t.at[0] - 1.6" :y="t.at[1] + 1.6 * i">
        {{ place }}
      </text>
      <text v-for="(place, i) in t.closed" :key="`c${i}`" :x="t.at[0] + 1.6" :y="t.at[1] + 1.6 * i">
        /{{ place }}
      </text>
    </g>
    <text
      v-for="(t, i) in drawing.texts"
      :key="`text-${i}`"
      class="note"
      :x="t.at[0]"
      :y="t.at[1]"
      :font-size="t.size"
      :text-anchor="t.anchor"
    >
      {{ t.text }}
    </text>
    <text
      v-for="r in drawing.rungs.filter((r) => r.problem)"
      :key="`problem-${r.id}`"
      class="problem"
      :x="r.box.x + 2"
      :y="r.box.y + 3"
      font-size="1.3"
    >
      {{ r.problem }}
    </text>
  </svg>
</template>

<style>
.control-drawing {
  font-family: var(--font-lettering);
}
.control-drawing text {
  fill: var(--ink);
}
.control-drawing .rail {
  stroke-width: 0.24;
}
.control-drawing .dot {
  fill: var(--ink);
  stroke: none;
}
.control-drawing .rung {
  fill: transparent;
}
.control-drawing .rung.selected {
  fill: var(--accent-paper);
  fill-opacity: 0.55;
}
.control-drawing .rung.wrong {
  fill: var(--error);
  fill-opacity: 0.08;
}
.control-drawing .hit {
  fill: transparent;
}
.control-drawing .device {
  cursor: pointer;
  outline: none;
}
.control-drawing .device .symbol {
  stroke: var(--relay, var(--ink));
  stroke-width: 0.16;
}
.control-drawing .device text:not(.symbol-text) {
  fill: var(--relay, var(--ink));
}
.control-drawing .device:hover .hit,
.control-drawing .device:focus-visible .hit {
  fill: var(--accent);
  fill-opacity: 0.1;
}
.control-drawing .device.selected .hit {
  fill: var(--accent-paper);
}
.control-drawing .device.chosen .hit {
  stroke: var(--accent);
  stroke-width: 0.16;
}
.control-drawing .device.pressable .hit {
  stroke: var(--accent);
  stroke-width: 0.12;
  stroke-dasharray: 0.6 0.4;
}
.control-drawing .current.device .symbol,
.control-drawing polyline.current {
  stroke: var(--accent);
  stroke-width: 0.34;
}
.control-drawing .table text {
  font-size: 1.2px;
  text-anchor: middle;
  fill: var(--soft);
}
.control-drawing .note {
  fill: var(--soft);
}
.control-drawing .problem {
  fill: var(--error);
}
</style>
