<script setup lang="ts">
/** The sheet: one SVG in modules, with drawing by pointer and keyboard, and a run shown on it. */
import { DOT_RADIUS } from '@oar-bench/core/catalogue/symbol-elements'
import { branches, branchingJunctions } from '@oar-bench/core/sheet/branches'
import { fluidText, rotationArrows, smallLetters } from '@oar-bench/core/sheet/annotations'
import type { Sheet } from '@oar-bench/core/sheet/schema'

const props = defineProps<{ running: boolean }>()
const sheetDocument = useSheetDocument()
const selection = useSelection()
const editor = useEditorUi()
const live = useLiveRun()
const answers = useAnswers()
const roles = useLineRoles()
// asked for once for each of hundreds of parts
const { ids: selectedIds } = storeToRefs(selection)
const { settings } = storeToRefs(editor)
const { show } = useUnits()

const host = useTemplateRef<HTMLDivElement>('host')
const pane = useTemplateRef<HTMLDivElement>('pane')
const svg = useTemplateRef<SVGSVGElement>('svg')
const cover = useTemplateRef<HTMLDivElement>('cover')
const layer = useTemplateRef<SVGGElement>('layer')
const draggedLayer = useTemplateRef<SVGGElement>('draggedLayer')
/** What a run draws for itself: the oil in the lines, and which way it flows. */
const oil = useTemplateRef<SVGGElement>('oil')
const arrows = useTemplateRef<SVGGElement>('arrows')

/** The sheet with the move that is under way. */
const preview = shallowRef<Sheet>()
const rotations = computed(() =>
  rotationArrows(sheetDocument.sheet).map(({ of, shapes }) => ({ of, d: shapes.map(pathOf).join('') })),
)
const { components, pipes, dragged, draggedIds, marks, signs, openPorts, bounds, lineTexts } = useDrawnSheet(
  preview,
  () => props.running,
)
const annotations = computed(() => {
  const { sheet } = sheetDocument
  return [...lineTexts.value, ...smallLetters(sheet), ...fluidText(sheet, show)]
})
// one function for all time: a step of the move redraws what is dragged only
const draggedParts = () => dragged.value
const partings = computed(() => branches(sheetDocument.sheet))
const dotted = computed(() => new Set(branchingJunctions(sheetDocument.sheet).map(({ id }) => id)))

/** The ground that is drawn on, in modules. */
const PAPER = { x: -500, y: -500, width: 1000, height: 1000 }
/** Pixels to a module below which the grid is not shown: its dots would be dust. */
const GRID_FROM = 6
/** And below which lettering is not: its letters would be less than five pixels high. */
const LETTERS_FROM = 4
/** Letters on the screen are no smaller, pixels; from this scale on those of the drawing, 1.2 modules high, are large enough. */
const LEAST_LETTER = 10
const SMALL_BELOW = LEAST_LETTER / 1.2
/** Width of the pressure scale at the right edge during a run. */
const SCALE_WIDTH = 72
const { scale, visible, fit, refit, zoomBy, centre, middle, toSheet } = useSheetView({
  host,
  pane,
  svg,
  layers: [layer, draggedLayer],
  cover,
  content: bounds,
  taken: () => (props.running ? SCALE_WIDTH : 0),
})
watch(() => [sheetDocument.machine?.id, props.running], refit)
const gestures = useSheetGestures({
  host,
  svg,
  preview,
  toSheet,
  middle,
  running: () => props.running,
  press: useCommands().press,
})
const { pointer, connecting, marquee, ghost, cursor, cursorText, pipeEnds } = gestures
const { onPointerDown, onPointerMove, onPointerUp, onKey } = gestures

function reveal(id: string) {
  const found = components.value.find((c) => c.component.id === id)
  if (found) return centre([found.component.x, found.component.y])
  const pipe = pipes.value.find((p) => p.pipe.id === id)
  if (pipe?.arrow) return centre([pipe.arrow.x, pipe.arrow.y])
  const junction = sheetDocument.sheet.junctions.find((j) => j.id === id)
  if (junction) centre([junction.x, junction.y])
}
defineExpose({ fit, placeByKeyboard: gestures.placeByKeyboard, reveal })
onMounted(() => {
  editor.view = { fit, zoomBy, reveal, focus: () => host.value?.focus(), pointer: () => pointer.value }
})
const menuAt = ref<{ x: number; y: number }>()
function openMenu(event: MouseEvent) {
  if (props.running) return
  pointer.value = toSheet(event)
  const id = (event.target as Element).closest('[data-item]')?.getAttribute('data-item')?.split(':')[1]
  if (id && !selectedIds.value.has(id)) selection.select([id])
  menuAt.value = { x: event.clientX, y: event.clientY }
}

const shownRun = useRunOnSheet({
  places: { svg, oil, arrows },
  components,
  pipes,
  // not while something is moved: the run is out of date with the move
  active: () => props.running && !preview.value,
})
</script>

<template>
  <div
    ref="host"
    class="sheet relative h-full w-full overflow-hidden bg-paper"
    :class="[{ running: !!shownRun }, editor.tool === 'connect' || editor.placing ? 'cursor-crosshair' : '']"
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
        <g
          ref="layer"
          class="layer"
          :class="{ far: scale < LETTERS_FROM, small: scale < SMALL_BELOW }"
          :style="{ '--least-letter': `${LEAST_LETTER / scale}px` }"
        >
          <!-- as large as the grid: on it all that is drawn is one picture for the browser -->
          <rect v-bind="PAPER" class="paper" pointer-events="none" />
          <rect
            v-if="!shownRun && scale >= GRID_FROM"
            v-bind="PAPER"
            fill="url(#module-grid)"
            pointer-events="none"
          />
          <g ref="oil" />
          <g v-if="editor.lineRoles" class="roles" pointer-events="none" data-testid="line-roles">
            <template v-for="d in pipes" :key="d.pipe.id">
              <path v-if="roles.inkOf(d.pipe.id)" :d="d.d" :stroke="roles.inkOf(d.pipe.id)" />
            </template>
          </g>
          <SheetPipe
            v-for="d in pipes"
            :key="d.pipe.id"
            v-memo="[d, selectedIds.has(d.pipe.id), marks.get(d.pipe.id)?.message, draggedIds.has(d.pipe.id)]"
            :drawn="d"
            :selected="selectedIds.has(d.pipe.id)"
            :severity="marks.get(d.pipe.id)?.severity"
            :finding="marks.get(d.pipe.id)?.message"
            :class="{ dragged: draggedIds.has(d.pipe.id) }"
          />
          <g
            v-for="junction in sheetDocument.sheet.junctions"
            :key="junction.id"
            :data-item="`junction:${junction.id}`"
            class="junction"
            :class="[
              marks.has(junction.id) && `marked-${marks.get(junction.id)?.severity}`,
              { 'without-dot': !dotted.has(junction.id) },
              { selected: selectedIds.has(junction.id), dragged: draggedIds.has(junction.id) },
            ]"
          >
            <circle :cx="junction.x" :cy="junction.y" r="0.9" class="junction-reach" />
            <circle :cx="junction.x" :cy="junction.y" :r="DOT_RADIUS" class="junction-dot" />
          </g>
          <circle
            v-for="{ at, pipes: parting } in partings"
            :key="at.join()"
            :cx="at[0]"
            :cy="at[1]"
            :r="DOT_RADIUS"
            class="junction-dot branch"
            :visibility="parting.some((id) => draggedIds.has(id)) ? 'hidden' : undefined"
            pointer-events="none"
          />
          <text
            v-for="a in annotations"
            :key="a.key"
            :x="a.x"
            :y="a.y"
            :font-size="a.size"
            :text-anchor="a.anchor"
            class="annotation"
            :visibility="a.of && draggedIds.has(a.of) ? 'hidden' : undefined"
            pointer-events="none"
            :data-annotation="a.key"
          >
            {{ a.text }}
          </text>
          <path
            v-for="r in rotations"
            :key="r.of"
            :d="r.d"
            class="rotation-arrow"
            :visibility="draggedIds.has(r.of) ? 'hidden' : undefined"
            pointer-events="none"
          />
          <SheetPens />
          <g
            v-if="shownRun && answers.shares.size"
            class="asked"
            pointer-events="none"
            data-testid="asked-path"
          >
            <template v-for="d in pipes" :key="d.pipe.id">
              <path
                v-if="answers.shares.has(d.pipe.id)"
                :d="d.d"
                :data-asked="d.pipe.id"
                :stroke-width="0.35 + 0.55 * answers.shares.get(d.pipe.id)!"
              />
            </template>
          </g>
          <g ref="arrows" />
          <SheetPart
            v-for="d in components"
            :key="d.component.id"
            v-memo="[
              d,
              selectedIds.has(d.component.id),
              marks.get(d.component.id)?.message,
              draggedIds.has(d.component.id),
              !!shownRun,
              settings,
            ]"
            :drawn="d"
            :selected="selectedIds.has(d.component.id)"
            :severity="marks.get(d.component.id)?.severity"
            :finding="marks.get(d.component.id)?.message"
            :ports="!shownRun"
            :settings="settings"
            :class="{ dragged: draggedIds.has(d.component.id) }"
          />
          <LiveHands v-if="running && live.open && shownRun" :components="components" />
          <g
            v-for="{ which, at, pipe } in pipeEnds"
            :key="which"
            :data-item="`end:${pipe}:${which}`"
            class="pipe-end"
          >
            <rect :x="at[0] - 0.5" :y="at[1] - 0.5" width="1" height="1" />
            <title>Drag to connect this end elsewhere</title>
          </g>
          <circle
            v-for="{ component, port, at } in openPorts"
            :key="`${component}.${port}`"
            :cx="at[0]"
            :cy="at[1]"
            r="0.55"
            class="open-port"
            :data-open-port="`${component}:${port}`"
            :class="{ dragged: draggedIds.has(component) }"
            pointer-events="none"
          />
          <g
            v-for="{ id, mark, at } in signs"
            :key="id"
            class="sign"
            :class="[mark.severity, { dragged: draggedIds.has(id) }]"
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
      <!-- what is being moved, in a picture of its own: the other one is not painted anew for it -->
      <svg
        class="pointer-events-none absolute inset-0 h-full w-full overflow-visible select-none"
        :class="{ 'will-change-transform': draggedIds.size }"
        aria-hidden="true"
        data-testid="moving"
      >
        <g ref="draggedLayer" class="layer" :class="{ far: scale < LETTERS_FROM }">
          <DraggedParts :dragged="draggedParts" />
        </g>
      </svg>
      <div ref="cover" class="absolute inset-0 cursor-grabbing" hidden />
    </div>
    <SheetMenu v-if="menuAt" :at="menuAt" @close="((menuAt = undefined), host?.focus())" />
    <SheetOverview
      v-if="editor.overview"
      :content="bounds"
      :components="components"
      :visible="visible"
      @centre="centre"
    />
    <p class="sr-only" role="status">{{ cursorText }}</p>
    <slot />
  </div>
</template>
