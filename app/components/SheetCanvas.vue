<script setup lang="ts">
/** The sheet: one SVG in modules, with drawing by pointer and keyboard, and a run shown on it. */
import { placeText } from '@oar-bench/core/sheet/finding'
import { extent, type Rect, type XY } from '@oar-bench/core/sheet/geometry'
import { LETTERING_LINE, lineNames } from '@oar-bench/core/sheet/lettering'
import type { Pipe, PipeEnd, Sheet } from '@oar-bench/core/sheet/schema'

const props = defineProps<{ running: boolean }>()
const drawing = useDrawing()
const run = useRun()
const desk = useDesk()
const { show } = useUnits()
const { dark } = useTheme()

const host = useTemplateRef<HTMLDivElement>('host')
const pane = useTemplateRef<HTMLDivElement>('pane')
const svg = useTemplateRef<SVGSVGElement>('svg')
const cover = useTemplateRef<HTMLDivElement>('cover')
const layer = useTemplateRef<SVGGElement>('layer')
/** What a run draws for itself: the oil in the lines, and which way it flows. */
const oil = useTemplateRef<SVGGElement>('oil')
const arrows = useTemplateRef<SVGGElement>('arrows')

/** The sheet with the move that is under way. */
const preview = shallowRef<Sheet>()
const shownSheet = computed(() => preview.value ?? drawing.sheet)
const names = computed(() => (desk.lineNames ? lineNames(shownSheet.value) : []))
const { components, pipes, marks, markClass, signs, shownLines } = useDrawnSheet(shownSheet)

/** The ground that is drawn on, in modules. */
const PAPER = { x: -500, y: -500, width: 1000, height: 1000 }
/** Pixels to a module below which the grid is not shown: its dots would be dust. */
const GRID_FROM = 6
/** And below which lettering is not: its letters would be less than five pixels high. */
const LETTERS_FROM = 4
/** Width of the pressure scale, which stands at the right edge during a run. */
const SCALE_WIDTH = 72
/** All that is drawn, with the lettering. */
function content(): Rect {
  const drawn = extent(drawing.sheet)
  let [left, top, right, bottom] = [drawn.x, drawn.y, drawn.x + drawn.w, drawn.y + drawn.h]
  for (const { caption } of components.value) {
    if (!caption) continue
    const { lines } = caption
    const longest = Math.max(caption.designation.length + 8, ...lines.map((l) => l.length)) * 0.56
    const start = caption.anchor === 'middle' ? caption.x - longest / 2 : caption.x
    left = Math.min(left, start)
    right = Math.max(right, start + longest)
    top = Math.min(top, caption.y - LETTERING_LINE)
    bottom = Math.max(bottom, caption.y + LETTERING_LINE * lines.length)
  }
  return { x: left, y: top, w: right - left, h: bottom - top }
}
const { scale, visible, fit, refit, zoomBy, centre, middle, toSheet } = useSheetView({
  host,
  pane,
  svg,
  layer,
  cover,
  content,
  taken: () => (props.running ? SCALE_WIDTH : 0),
})
watch(() => [drawing.machine?.id, props.running], refit)
const gestures = useSheetGestures({
  host,
  svg,
  components,
  preview,
  toSheet,
  middle,
  running: () => props.running,
})
const { pointer, connecting, marquee, ghost, cursor, cursorWords, pipeEnds } = gestures
const { onPointerDown, onPointerMove, onPointerUp, onKey } = gestures

function reveal(id: string) {
  const found = components.value.find((c) => c.component.id === id)
  if (found) return centre([found.component.x, found.component.y])
  const pipe = pipes.value.find((p) => p.pipe.id === id)
  if (pipe?.arrow) return centre([pipe.arrow.x, pipe.arrow.y])
  const joint = drawing.sheet.joints.find((j) => j.id === id)
  if (joint) centre([joint.x, joint.y])
}
defineExpose({ fit, placeInMiddle: () => (pointer.value = middle()), reveal })
onMounted(() => {
  desk.view = { fit, zoomBy, reveal, focus: () => host.value?.focus(), pointer: () => pointer.value }
})
/** Corners of a rectangle, for a line round it. */
const around = ({ x, y, w, h }: Rect) =>
  (
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ] as XY[]
  )
    .map((p) => p.join())
    .join(' ')

const menuAt = ref<{ x: number; y: number }>()
function openMenu(event: MouseEvent) {
  if (props.running) return
  pointer.value = toSheet(event)
  const id = (event.target as Element).closest('[data-item]')?.getAttribute('data-item')?.split(':')[1]
  if (id && !drawing.selection.has(id)) drawing.select([id])
  menuAt.value = { x: event.clientX, y: event.clientY }
}

// ---- the run on the sheet -----------------------------------------------------------------
let painter: FramePainter | undefined
const shownRun = computed(() => (props.running && !run.outdated ? run.shown : undefined))
function repaint() {
  if (!svg.value || !oil.value || !arrows.value) return
  painter?.clear()
  const shown = shownRun.value
  painter =
    shown &&
    framePainter(
      { svg: svg.value, oil: oil.value, arrows: arrows.value },
      { sheet: drawing.sheet, components: components.value, pipes: pipes.value },
      shown.result,
      {
        colours: rampColours(dark.value),
        full: desk.fullPressure,
        show: (si, signal) => show(si, shown.result.signals[signal].quantity, 3),
      },
    )
  painter?.paint(run.time)
}
onMounted(repaint)
watch([shownRun, () => drawing.sheet, dark, () => desk.fullPressure, useUnits().system, preview], repaint, {
  flush: 'post',
})
watch(
  () => run.time,
  (t) => painter?.paint(t),
)

const line = (pipe: Pipe) => `line-${pipe.line}`
const describe = (pipe: Pipe) => {
  const end = (e: PipeEnd) =>
    'joint' in e ? `joint ${e.joint}` : placeText({ component: e.component, port: e.port })
  return `${pipe.name ?? 'Pipe'}, ${pipe.line} line from ${end(pipe.from)} to ${end(pipe.to)}`
}
</script>

<template>
  <div
    ref="host"
    class="sheet relative h-full w-full overflow-hidden bg-paper"
    :class="[{ running: !!shownRun }, desk.tool === 'connect' || desk.placing ? 'cursor-crosshair' : '']"
    tabindex="0"
    role="application"
    aria-label="Sheet"
    data-testid="sheet"
    @keydown="onKey"
  >
    <div ref="pane" class="absolute inset-0 touch-none">
      <svg
        ref="svg"
        class="absolute inset-0 h-full w-full touch-none overflow-visible select-none"
        @pointerdown="onPointerDown"
        @pointermove="onPointerMove"
        @pointerup="onPointerUp"
        @pointercancel="onPointerUp"
        @contextmenu.prevent="openMenu"
      >
        <defs>
          <!-- a port is hit within the whole circle, and seen as a ring in its middle -->
          <radialGradient v-for="look in ['port-mark', 'port-mark-hit']" :id="look" :key="look" :class="look">
            <stop offset="0.36" class="port-core" />
            <stop offset="0.37" class="port-ring" />
            <stop offset="0.52" class="port-ring" />
            <stop offset="0.53" class="port-rest" />
          </radialGradient>
          <pattern id="module-grid" width="2" height="2" patternUnits="userSpaceOnUse">
            <circle cx="0" cy="0" r="0.07" class="grid-dot" />
          </pattern>
        </defs>
        <g ref="layer" class="layer" :class="{ far: scale < LETTERS_FROM }">
          <!-- as large as the grid: on it all that is drawn is one picture for the browser -->
          <rect v-bind="PAPER" class="paper" pointer-events="none" />
          <rect
            v-if="!shownRun && scale >= GRID_FROM"
            v-bind="PAPER"
            fill="url(#module-grid)"
            pointer-events="none"
          />
          <g ref="oil" />
          <g
            v-for="d in pipes"
            :key="d.pipe.id"
            v-memo="[d, marks.get(d.pipe.id)?.message, drawing.selection.has(d.pipe.id)]"
            :data-item="`pipe:${d.pipe.id}`"
            :data-pipe="d.pipe.id"
            class="pipe"
            :class="[line(d.pipe), markClass(d.pipe.id), { selected: drawing.selection.has(d.pipe.id) }]"
            role="button"
            tabindex="0"
            :aria-label="describe(d.pipe)"
          >
            <polyline :points="d.path" class="pipe-reach" />
            <polyline :points="d.path" class="pipe-line" />
            <polyline v-if="d.pipe.line === 'shaft'" :points="d.path" class="shaft-core" />
            <polyline v-if="d.pipe.line === 'hose'" :points="d.path" class="hose-mark" />
            <title>{{ marks.get(d.pipe.id)?.message ?? describe(d.pipe) }}</title>
          </g>
          <g
            v-for="joint in shownSheet.joints"
            :key="joint.id"
            :data-item="`joint:${joint.id}`"
            class="joint"
            :class="[markClass(joint.id), { selected: drawing.selection.has(joint.id) }]"
          >
            <circle :cx="joint.x" :cy="joint.y" r="0.9" class="joint-reach" />
            <circle :cx="joint.x" :cy="joint.y" r="0.375" class="joint-dot" />
          </g>
          <text
            v-for="n in names"
            :key="n.pipe"
            :x="n.x"
            :y="n.y"
            :text-anchor="n.anchor"
            class="caption"
            pointer-events="none"
            :data-line-name="n.pipe"
          >
            {{ n.text }}
          </text>
          <g ref="arrows" />
          <g
            v-for="d in components"
            :key="d.component.id"
            v-memo="[
              d,
              marks.get(d.component.id)?.message,
              drawing.selection.has(d.component.id),
              !!shownRun,
              desk.settings,
              desk.portLetters,
            ]"
            :data-item="`component:${d.component.id}`"
            :data-component="d.component.id"
            :data-kind="d.component.kind"
            class="component"
            :class="[markClass(d.component.id), { selected: drawing.selection.has(d.component.id) }]"
            role="button"
            tabindex="0"
            :aria-label="d.label"
          >
            <title>{{ marks.get(d.component.id)?.message ?? d.label }}</title>
            <polygon v-if="d.frame" :points="around(d.frame)" class="component-reach frame-reach" />
            <rect
              v-else
              :x="d.rect.x - 0.5"
              :y="d.rect.y - 0.5"
              :width="d.rect.w + 1"
              :height="d.rect.h + 1"
              rx="0.3"
              class="component-reach"
            />
            <SymbolShapes
              :drawing="d.symbol"
              :at="[d.component.x, d.component.y]"
              :rotation="d.component.rotation"
              :mirrored="d.component.mirrored"
            />
            <text
              v-if="d.caption"
              :x="d.caption.x"
              :y="d.caption.y"
              :text-anchor="d.caption.anchor"
              class="caption"
            >
              <tspan class="designation">{{ d.caption.designation }}</tspan>
              <tspan v-if="d.symbol.reading" dx="0.8" class="reading" data-reading="" />
              <tspan v-for="text in shownLines(d)" :key="text" :x="d.caption?.x" :dy="LETTERING_LINE">
                {{ text }}
              </tspan>
            </text>
            <template v-if="!shownRun">
              <circle
                v-for="port in d.ports"
                :key="port.port"
                :cx="port.at[0]"
                :cy="port.at[1]"
                r="0.8"
                class="port"
                :data-item="`port:${d.component.id}:${port.port}`"
              >
                <title>{{ d.component.designation ?? d.component.id }} port {{ port.port }}</title>
              </circle>
            </template>
            <template v-if="!shownRun && desk.portLetters">
              <text
                v-for="port in d.ports"
                :key="port.port"
                class="port-letter"
                :x="port.at[0] + (port.side === 'left' ? -0.5 : 0.5)"
                :y="port.at[1] + (port.side === 'down' ? 1.1 : -0.4)"
                :text-anchor="port.side === 'left' ? 'end' : 'start'"
              >
                {{ port.port }}
              </text>
            </template>
          </g>
          <g
            v-for="{ which, at, pipe } in pipeEnds"
            :key="which"
            :data-item="`end:${pipe}:${which}`"
            class="pipe-end"
          >
            <rect :x="at[0] - 0.5" :y="at[1] - 0.5" width="1" height="1" />
            <title>Drag to lead this end elsewhere</title>
          </g>
          <g
            v-for="{ id, mark, at } in signs"
            :key="id"
            class="sign"
            :class="mark.severity"
            pointer-events="none"
          >
            <circle :cx="at[0]" :cy="at[1]" r="0.85" />
            <text :x="at[0]" :y="at[1] + 0.05">!</text>
          </g>
          <g v-if="ghost" class="ghost">
            <SymbolShapes
              :drawing="ghost.symbol"
              :at="[ghost.component.x, ghost.component.y]"
              :rotation="ghost.component.rotation"
              :mirrored="ghost.component.mirrored"
            />
          </g>
          <circle v-if="cursor" class="port-cursor" :cx="cursor.at[0]" :cy="cursor.at[1]" r="0.9" />
          <line
            v-if="connecting"
            class="rubber"
            :x1="connecting.at[0]"
            :y1="connecting.at[1]"
            :x2="pointer[0]"
            :y2="pointer[1]"
          />
          <rect
            v-if="marquee"
            class="marquee"
            :x="Math.min(marquee.from[0], marquee.to[0])"
            :y="Math.min(marquee.from[1], marquee.to[1])"
            :width="Math.abs(marquee.to[0] - marquee.from[0])"
            :height="Math.abs(marquee.to[1] - marquee.from[1])"
          />
        </g>
      </svg>
      <div ref="cover" class="absolute inset-0 cursor-grabbing" hidden />
    </div>
    <SheetMenu v-if="menuAt" :at="menuAt" @close="((menuAt = undefined), host?.focus())" />
    <SheetOverview
      v-if="desk.overview"
      :content="content"
      :components="components"
      :visible="visible"
      @look="centre"
    />
    <p class="sr-only" role="status">{{ cursorWords }}</p>
    <slot />
  </div>
</template>
