<script setup lang="ts">
/** What can be worked on the sheet itself: levers are held, switches thrown and settings turned where they are drawn. */
import { transformRect, type Rect } from '@oar-bench/core/sheet/geometry'
import type { Operable } from '@oar-bench/core/simulate/operable'
import type { DrawnComponent } from '../composables/useDrawnSheet'

const props = defineProps<{ components: readonly DrawnComponent[] }>()
const live = useLiveRun()
const selection = useSelection()
const { show } = useUnits()

interface Hand {
  readonly key: string
  readonly operable: Operable
  readonly rect: Rect
  /** What it is held at, or thrown to; none for what is turned. */
  readonly value?: number
  readonly words: string
}
/** A part of the symbol, in the way it is drawn: its left or right half, or all. */
function partOf({ component, symbol }: DrawnComponent, part: 'left' | 'right' | 'all'): Rect {
  const { x, y, w, h } = symbol.box
  const half = part === 'all' ? w : w / 2
  return transformRect({ x: part === 'right' ? x + w / 2 : x, y, w: half, h }, component)
}
/** The inputs that are worked on the sheet: one of a kind for each part; the others are on the console. */
const hands = computed(() =>
  props.components.flatMap((drawn): Hand[] => {
    const own = live.machine.operables.filter((o) => o.component === drawn.component.id && !o.spec.ofLoad)
    const lever = own.find((o) => o.type === 'lever')
    if (lever) return leverHands(drawn, lever)
    const found = own.find((o) => o.type === 'switch') ?? own.find((o) => o.type === 'setting')
    if (!found) return []
    const words =
      found.type === 'switch'
        ? `${found.name}: ${found.spec.label}, ${found.spec.positions!.map((p) => p.label).join(' or ')}`
        : `${found.name}: press to loosen or tighten it, loose turn ${found.spec.label} by wheel or arrow keys`
    return [{ key: found.key, operable: found, rect: partOf(drawn, 'all'), words }]
  }),
)
/** The first lever of a part: an end of the symbol for each way. Its other ones, as the override of a valve, are on the console. */
function leverHands(drawn: DrawnComponent, operable: Operable): Hand[] {
  const { spec, rest, name, key } = operable
  const ends = [spec.max, spec.min].filter((v) => v !== rest)
  return ends.map((value, i) => {
    const words = spec.positions?.find((p) => p.value === value)?.label ?? (value > 0 ? 'ahead' : 'back')
    const part = ends.length < 2 ? 'all' : i === 0 ? 'left' : 'right'
    return {
      key: `${key} ${value}`,
      operable,
      rect: partOf(drawn, part),
      value,
      words: `${name}: hold for ${words}`,
    }
  })
}

// ---- working them ---------------------------------------------------------------------------
const holds = new Map<string, ReturnType<typeof useHold>>()
function handlers(hand: Hand) {
  if (hand.value === undefined) return {}
  let hold = holds.get(hand.key)
  if (!hold) holds.set(hand.key, (hold = useHold(() => hand.operable)))
  const { onPointerdown, onBlur, ...rest } = hold.holding(hand.value)
  return {
    ...rest,
    onBlur,
    onPointerdown(event: PointerEvent) {
      selection.select([hand.operable.component])
      onPointerdown(event)
    },
  }
}
function press(hand: Hand) {
  const { operable } = hand
  selection.select([operable.component])
  if (operable.type === 'setting') return void turnOf(hand).setLoose(!turnOf(hand).loose.value)
  const now = live.orderOf(operable.key) ?? operable.rest
  const positions = operable.spec.positions!
  const next = positions[(positions.findIndex((p) => p.value === now) + 1) % positions.length]
  void live.set(operable.component, operable.spec.name, next.value)
}
// ---- turning them ---------------------------------------------------------------------------
const turns = new Map<string, ReturnType<typeof useTurn>>()
function turnOf({ operable }: Hand) {
  let found = turns.get(operable.key)
  if (!found) turns.set(operable.key, (found = useTurn(() => operable)))
  return found
}
/** A wheel that only passes over a valve zooms, and turns nothing: the lock nut is loosened first. */
function onWheel(hand: Hand, event: WheelEvent) {
  if (hand.operable.type !== 'setting' || !turnOf(hand).loose.value) return
  event.preventDefault()
  event.stopPropagation()
  void turnOf(hand).turnByWheel(event)
}
function onKey(hand: Hand, event: KeyboardEvent) {
  if (hand.operable.type === 'setting' && turnOf(hand).loose.value && turnOf(hand).turnByKey(event)) return
  if (hand.value !== undefined || (event.key !== ' ' && event.key !== 'Enter')) return
  press(hand)
  event.preventDefault()
  event.stopPropagation()
}
function valueText({ operable }: Hand): string | undefined {
  if (operable.type !== 'setting') return undefined
  return show(live.orderOf(operable.key) ?? operable.rest, operable.spec.quantity, 4)
}
</script>

<template>
  <g class="hands">
    <rect
      v-for="hand in hands"
      :key="hand.key"
      class="hand"
      :class="[
        hand.operable.type,
        { loose: hand.operable.type === 'setting' && live.loose.has(hand.operable.key) },
      ]"
      :x="hand.rect.x"
      :y="hand.rect.y"
      :width="hand.rect.w"
      :height="hand.rect.h"
      rx="0.4"
      :role="hand.operable.type === 'setting' ? 'slider' : 'button'"
      tabindex="0"
      :aria-label="hand.words"
      :aria-valuetext="valueText(hand)"
      :aria-valuenow="hand.operable.type === 'setting' ? hand.operable.rest : undefined"
      :data-testid="`hand-${hand.key}`"
      v-bind="handlers(hand)"
      @mousedown.stop
      @touchstart.stop
      @pointerdown.stop
      @click.stop="hand.value === undefined && press(hand)"
      @wheel="onWheel(hand, $event)"
      @keydown="onKey(hand, $event)"
    >
      <title>{{ hand.words }}</title>
    </rect>
  </g>
</template>

<style>
.hand {
  fill: transparent;
  stroke: none;
  cursor: pointer;
  outline: none;
}
.hand.setting {
  cursor: ns-resize;
}
.hand.loose {
  stroke: var(--accent);
  stroke-width: 0.14;
  stroke-dasharray: 0.5 0.4;
}
.hand:hover,
.hand:focus-visible {
  fill: var(--accent);
  fill-opacity: 0.14;
  stroke: var(--accent);
  stroke-width: 0.14;
}
.hand:active {
  fill-opacity: 0.3;
}
</style>
