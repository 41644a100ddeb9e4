/** Where the sheet is looked at: panning, zooming, fitting, and from the screen to the sheet. */
import { useResizeObserver } from '@vueuse/core'
import { select } from 'd3-selection'
import { zoom, zoomIdentity, type D3ZoomEvent, type ZoomTransform } from 'd3-zoom'
import type { Rect, XY } from '@oar-bench/core/sheet/geometry'

/** Natural size, pixels to a module: a sheet of a few components is not fitted to more. */
const NATURAL_SCALE = 10

/** Least space above and below a fitted drawing; height and widths of the toolbars that lie over its upper corners, pixels. */
const EDGE = 14
const TOOLBARS = 56
const [LEFT_TOOLBAR, RIGHT_TOOLBAR] = [80, 300]

interface Places {
  readonly host: Readonly<Ref<HTMLElement | null>>
  /** The window onto the sheet: it stays where it is. */
  readonly pane: Readonly<Ref<HTMLElement | null>>
  readonly svg: Readonly<Ref<SVGSVGElement | null>>
  /** What is drawn in modules. */
  readonly layers: readonly Readonly<Ref<SVGGElement | null>>[]
  /** Lies over the drawing while it is pulled about: what is under the pointer is not looked for then. */
  readonly cover: Readonly<Ref<HTMLElement | null>>
  /** Around all that is drawn. */
  readonly content: () => Rect
  /** Room at the right edge that something else takes, pixels. */
  readonly taken: () => number
}

export function useSheetView({ host, pane, svg, layers, cover, content, taken }: Places) {
  let view: ZoomTransform = zoomIdentity
  const scale = ref(NATURAL_SCALE)
  /** What of the sheet is to be seen. */
  const visible = shallowRef<Rect>({ x: 0, y: 0, w: 1, h: 1 })
  const size = { width: 1, height: 1 }
  const look = () => {
    visible.value = {
      x: -view.x / view.k,
      y: -view.y / view.k,
      w: size.width / view.k,
      h: size.height / view.k,
    }
  }
  /** Until the user pans or zooms, the drawing stays fitted to the window. */
  let untouched = true
  /** The view when panning began: until it ends the drawing is moved as one picture and not redrawn. */
  let held: ZoomTransform | undefined
  const zoomer = zoom<HTMLElement, unknown>()
    .scaleExtent([2, 60])
    .filter((event: Event) => {
      const e = event as MouseEvent | TouchEvent
      if (e.type === 'wheel' || ('touches' in e && e.touches.length > 1)) return true
      const button = 'button' in e ? e.button : 0
      return button === 1 || (button === 0 && !e.shiftKey && !(e.target as Element).closest('[data-item]'))
    })
    .on('zoom', (event: D3ZoomEvent<HTMLElement, unknown>) => {
      if (event.sourceEvent) untouched = false
      const previous = view
      view = event.transform
      scale.value = view.k
      // by mouse or finger, and not nearer or farther
      if (event.sourceEvent?.type.endsWith('move') && view.k === previous.k) pull(previous)
      else draw()
      look()
    })
    .on('end', () => {
      if (held) draw()
    })
  function pull(from: ZoomTransform) {
    if (!held) {
      held = from
      cover.value!.hidden = false
      svg.value!.style.willChange = 'transform'
    }
    svg.value!.style.transform = `translate(${view.x - held.x}px, ${view.y - held.y}px)`
  }
  function draw() {
    held = undefined
    cover.value!.hidden = true
    svg.value!.style.willChange = ''
    svg.value!.style.transform = ''
    for (const layer of layers)
      layer.value!.style.transform = `translate(${view.x}px, ${view.y}px) scale(${view.k})`
  }

  function fit() {
    const element = pane.value
    if (!element) return
    untouched = true
    const { width, height } = element.getBoundingClientRect()
    if (!width || !height) return
    const { x, y, w, h } = content()
    const free = width - taken()
    const fitted = (room: number) => Math.min(NATURAL_SCALE, (free - 24) / w, room / h)
    const whole = fitted(height - 2 * EDGE)
    // in the middle, or below the toolbars where there is room for that, or where it would come under one
    const isUnder = (k: number) =>
      height - k * h < TOOLBARS + EDGE &&
      ((free - k * w) / 2 < LEFT_TOOLBAR || (free + k * w) / 2 > width - RIGHT_TOOLBAR)
    const k = isUnder(whole) ? fitted(height - TOOLBARS - EDGE) : whole
    const spare = height - k * h
    const top = Math.min(spare - EDGE, Math.max(spare / 2, TOOLBARS))
    const to = zoomIdentity
      .translate(free / 2, top)
      .scale(k)
      .translate(-(x + w / 2), -y)
    select(element).call(zoomer.transform, to)
  }
  const zoomBy = (factor: number) => select(pane.value!).call(zoomer.scaleBy, factor)
  function centre(at: XY) {
    const to = zoomIdentity
      .translate(size.width / 2, size.height / 2)
      .scale(view.k)
      .translate(-at[0], -at[1])
    select(pane.value!).call(zoomer.transform, to)
  }
  const middle = (): XY => [visible.value.x + visible.value.w / 2, visible.value.y + visible.value.h / 2]
  const toSheet = (event: { clientX: number; clientY: number }): XY => {
    const box = pane.value!.getBoundingClientRect()
    return [(event.clientX - box.left - view.x) / view.k, (event.clientY - box.top - view.y) / view.k]
  }
  /** Another sheet, or another part of the screen: it is fitted anew. */
  function refit() {
    untouched = true
    void nextTick(fit)
  }
  onMounted(() => {
    select(pane.value!).call(zoomer).on('dblclick.zoom', null)
  })
  useResizeObserver(host, ([{ contentRect }]) => {
    size.width = contentRect.width
    size.height = contentRect.height
    look()
    if (untouched) fit()
  })
  return { scale, visible, fit, refit, zoomBy, centre, middle, toSheet }
}
