/** Where the sheet is looked at: panning, zooming, fitting, and from the screen to the sheet. */
import { useResizeObserver } from '@vueuse/core'
import { select } from 'd3-selection'
import { zoom, zoomIdentity, type D3ZoomEvent, type ZoomTransform } from 'd3-zoom'
import type { Rect, XY } from '@oar-bench/core/sheet/geometry'

/** Beyond this a sheet of a few parts would fill the window. */
const NEAREST_FIT = 16

interface Places {
  readonly host: Readonly<Ref<HTMLElement | null>>
  readonly svg: Readonly<Ref<SVGSVGElement | null>>
  readonly layer: Readonly<Ref<SVGGElement | null>>
  /** Around all that is drawn. */
  readonly content: () => Rect
  /** Room at the right edge that something else takes, pixels. */
  readonly taken: () => number
}

export function useSheetView({ host, svg, layer, content, taken }: Places) {
  let view: ZoomTransform = zoomIdentity
  const scale = ref(10)
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
  const zoomer = zoom<SVGSVGElement, unknown>()
    .scaleExtent([2, 60])
    .filter((event: Event) => {
      const e = event as MouseEvent
      if (e.type === 'wheel') return true
      return (
        e.button === 1 || (e.button === 0 && !e.shiftKey && !(e.target as Element).closest('[data-item]'))
      )
    })
    .on('zoom', (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
      if (event.sourceEvent) untouched = false
      view = event.transform
      scale.value = view.k
      layer.value!.style.transform = `translate(${view.x}px, ${view.y}px) scale(${view.k})`
      look()
    })

  function fit() {
    const element = svg.value
    if (!element) return
    untouched = true
    const { width, height } = element.getBoundingClientRect()
    if (!width || !height) return
    const { x, y, w, h } = content()
    const free = width - taken()
    const k = Math.min(NEAREST_FIT, (free - 24) / w, (height - 28) / h)
    const to = zoomIdentity
      .translate(free / 2, height / 2)
      .scale(k)
      .translate(-(x + w / 2), -(y + h / 2))
    select(element).call(zoomer.transform, to)
  }
  const zoomBy = (factor: number) => select(svg.value!).call(zoomer.scaleBy, factor)
  function centre(at: XY) {
    const to = zoomIdentity
      .translate(size.width / 2, size.height / 2)
      .scale(view.k)
      .translate(-at[0], -at[1])
    select(svg.value!).call(zoomer.transform, to)
  }
  const middle = (): XY => [visible.value.x + visible.value.w / 2, visible.value.y + visible.value.h / 2]
  const toSheet = (event: { clientX: number; clientY: number }): XY => {
    const box = svg.value!.getBoundingClientRect()
    return [(event.clientX - box.left - view.x) / view.k, (event.clientY - box.top - view.y) / view.k]
  }
  /** Another sheet, or another part of the screen: it is fitted anew. */
  function refit() {
    untouched = true
    void nextTick(fit)
  }
  onMounted(() => {
    select(svg.value!).call(zoomer).on('dblclick.zoom', null)
  })
  useResizeObserver(host, ([{ contentRect }]) => {
    size.width = contentRect.width
    size.height = contentRect.height
    look()
    if (untouched) fit()
  })
  return { scale, visible, fit, refit, zoomBy, centre, middle, toSheet }
}
