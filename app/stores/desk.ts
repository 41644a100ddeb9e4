/** What is in hand at the drawing desk: the tool, what is being placed, the panes. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { useLocalStorage } from '@vueuse/core'
import type { ClipboardContent } from '@oar-bench/core/sheet/arrange'
import type { XY } from '@oar-bench/core/sheet/geometry'
import type { Pipe, SheetComponent } from '@oar-bench/core/sheet/schema'

interface Placing {
  readonly kind: string
  readonly rotation: SheetComponent['rotation']
  readonly mirrored: boolean
}

/** What the sheet on the screen can be asked for. */
interface View {
  fit(): void
  zoomBy(factor: number): void
  reveal(id: string): void
  /** Gives the sheet the keyboard. */
  focus(): void
  /** Where the pointer was last seen on the sheet. */
  pointer(): XY
}

export const useDesk = defineStore('desk', () => {
  const tool = ref<'select' | 'connect'>('select')
  const lineKind = ref<Exclude<Pipe['lineType'], 'shaft' | 'rod'>>('working')
  const placing = shallowRef<Placing>()
  /** A short word to the person: why something could not be done. */
  const message = ref('')
  const palette = useLocalStorage('oar-bench-palette', true)
  const inspector = useLocalStorage('oar-bench-inspector', true)
  const runInspector = useLocalStorage('oar-bench-run-inspector', false)
  /** Settings and sizes stand beside the symbols. */
  const settings = useLocalStorage('oar-bench-settings', true)
  /** Names stand at the lines. */
  const lineNames = useLocalStorage('oar-bench-line-names', false)
  const overview = useLocalStorage('oar-bench-overview', false)
  const portLetters = useLocalStorage('oar-bench-port-letters', false)
  /** What was copied, for this sheet and others; other tabs see it too. */
  // plain parts, not watched ones: what is pasted goes into a sheet, and with it to the workers
  const clip = useLocalStorage<ClipboardContent>(
    'oar-bench-clip',
    { components: [], junctions: [], pipes: [] },
    { shallow: true },
  )
  const searching = ref(false)
  const showingKeys = ref(false)
  const revisions = ref(false)
  const contents = ref(false)
  const printing = ref(false)
  const view = shallowRef<View>()
  const tapeHeight = useLocalStorage('oar-bench-tape', 272)
  const run = useRun()

  function startPlacing(kind: string) {
    tool.value = 'select'
    placing.value = { kind, rotation: 0, mirrored: false }
  }
  function turnPlacing() {
    const p = placing.value
    if (p) placing.value = { ...p, rotation: ((p.rotation + 1) % 4) as SheetComponent['rotation'] }
  }
  function mirrorPlacing() {
    const p = placing.value
    if (p) placing.value = { ...p, mirrored: !p.mirrored }
  }
  /** End of the pressure ramp, Pa: a round number above the highest pressure of the shown run. */
  const fullPressure = computed(() => {
    const result = run.shown?.result
    if (!result) return 100e5
    let top = 10e5
    result.signals.forEach((s, i) => {
      if (s.role === 'pressure') top = Math.max(top, result.extremes[i].max)
    })
    return roundUp(top)
  })
  return {
    tool,
    lineKind,
    placing,
    message,
    palette,
    inspector,
    runInspector,
    settings,
    portLetters,
    overview,
    lineNames,
    clip,
    searching,
    showingKeys,
    revisions,
    contents,
    printing,
    view,
    tapeHeight,
    fullPressure,
    say: (text: string) => (message.value = text),
    startPlacing,
    turnPlacing,
    mirrorPlacing,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useDesk, import.meta.hot))
