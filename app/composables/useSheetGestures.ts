/** What the pointer and the keyboard do on the sheet: select, move, place, connect. The gestures themselves are in app/gestures. */
import { computed, shallowRef, watch, type Ref } from 'vue'
import type { Target } from '@oar-bench/core/sheet/edit'
import { alongPolyline, polyline, polylineLength, type XY } from '@oar-bench/core/sheet/geometry'
import { nameOf, type Sheet } from '@oar-bench/core/sheet/schema'
import {
  finishConnection,
  releaseConnection,
  startConnection,
  startMovingEnd,
  targetOf,
  type Connection,
  type PipeEndName,
} from '../gestures/connection'
import { arrowSteps } from '../gestures/grid'
import { finishMoving, movedSheet, moveTo, nudge, startMoving, type Moving } from '../gestures/moving'
import { freePlace, ghostSymbol, placeComponent } from '../gestures/placement'
import { firstPort, portInDirection, type PortAt } from '../gestures/portCursor'
import { afterPress, itemsIn, type Marquee } from '../gestures/selecting'
import { useEditorUi } from '../stores/editorUi'
import { useSelection } from '../stores/selection'
import { useSheetDocument } from '../stores/sheetDocument'

interface Surface {
  readonly host: Readonly<Ref<HTMLElement | null>>
  readonly svg: Readonly<Ref<SVGSVGElement | null>>
  /** Takes the sheet with a move that is under way. */
  readonly preview: Ref<Sheet | undefined>
  readonly toSheet: (event: { clientX: number; clientY: number }) => XY
  /** The middle of what is to be seen. */
  readonly middle: () => XY
  readonly running: () => boolean
  /** Carries out the command of a key. @returns whether there was one */
  readonly press: (event: KeyboardEvent) => boolean
}

/** How far from its end a selected pipe has the handle of that end, modules. */
const HANDLE_AT = 1.2
/** Nearer than this it would lie on the port. */
const HANDLE_FROM = 0.6

const itemOf = (element: Element | null | undefined) =>
  element?.closest('[data-item]')?.getAttribute('data-item') ?? undefined

export function useSheetGestures(surface: Surface) {
  const { host, svg, preview, toSheet, middle, running, press } = surface
  const sheetDocument = useSheetDocument()
  const selection = useSelection()
  const editor = useEditorUi()
  const pointer = shallowRef<XY>([0, 0])
  const connecting = shallowRef<Connection>()
  const marquee = shallowRef<Marquee>()
  let moving: Moving | undefined
  /** The port that the keyboard is at while pipes are drawn. */
  const cursor = shallowRef<PortAt>()

  const ghost = computed(() => editor.placing && ghostSymbol(editor.placing, pointer.value))

  // ---- what gestures end with -----------------------------------------------------------------
  function place(at: XY): void {
    if (!editor.placing) return
    const placed = placeComponent(sheetDocument.sheet, editor.placing, at)
    if ('problem' in placed) {
      editor.showMessage(placed.problem)
      return
    }
    sheetDocument.apply(placed.sheet)
    selection.select([placed.id])
    editor.placing = undefined
    editor.showMessage('')
    host.value?.focus()
  }
  function connectTo(to: Target | undefined): void {
    const connection = connecting.value
    connecting.value = undefined
    if (!connection || !to) return
    const drawn = finishConnection(connection, to, sheetDocument.sheet, editor.lineType)
    if ('problem' in drawn) {
      editor.showMessage(drawn.problem)
      return
    }
    editor.showMessage('')
    sheetDocument.apply(drawn.sheet)
    selection.select([drawn.id])
  }
  /** Ends what goes on, with the sheet as it was. */
  function cancel(): void {
    preview.value = moving = marquee.value = connecting.value = undefined
  }

  // ---- pointer --------------------------------------------------------------------------------
  const targetAt = (event: PointerEvent) =>
    targetOf(
      itemOf(document.elementFromPoint(event.clientX, event.clientY)),
      toSheet(event),
      sheetDocument.sheet,
    )
  const capture = (event: PointerEvent) => svg.value!.setPointerCapture(event.pointerId)

  function onPointerDown(event: PointerEvent): void {
    if (event.button !== 0) return
    // a second finger zooms, and nothing on the sheet is moved
    if (!event.isPrimary) return cancel()
    host.value?.focus({ preventScroll: true })
    pointer.value = toSheet(event)
    if (editor.placing) return place(pointer.value)
    const target = targetAt(event)
    // the second click of click and click
    if (connecting.value) return connectTo(target)
    const item = itemOf(event.target as Element) ?? ''
    const [type, id, end] = item.split(':')
    if (type === 'end') {
      connecting.value = startMovingEnd(id, end as PipeEndName, sheetDocument.sheet, pointer.value)
      capture(event)
    } else if (target && (editor.tool === 'connect' || type === 'port')) {
      connecting.value = startConnection(target, sheetDocument.sheet, pointer.value)
      capture(event)
    } else if (id) {
      const ids = afterPress(selection.ids, id, event.shiftKey)
      selection.select(ids)
      moving = startMoving(sheetDocument.sheet, ids, pointer.value)
      capture(event)
    } else if (event.shiftKey) {
      marquee.value = { from: pointer.value, to: pointer.value }
      capture(event)
    } else selection.select([])
  }
  function onPointerMove(event: PointerEvent): void {
    if (!event.isPrimary) return
    pointer.value = toSheet(event)
    if (marquee.value) marquee.value = { ...marquee.value, to: pointer.value }
    if (!moving) return
    const next = moveTo(moving, pointer.value)
    if (next === moving) return
    moving = next
    preview.value = movedSheet(sheetDocument.sheet, moving, 'rough')
  }
  function onPointerUp(event: PointerEvent): void {
    if (event.type === 'pointercancel') return cancel()
    if (moving) {
      const moved = finishMoving(sheetDocument.sheet, moving)
      preview.value = moving = undefined
      if ('problem' in moved) editor.showMessage(moved.problem)
      else if (moved.sheet !== sheetDocument.sheet) {
        editor.showMessage('')
        sheetDocument.apply(moved.sheet)
      }
    }
    if (marquee.value) {
      selection.select(itemsIn(sheetDocument.sheet, marquee.value))
      marquee.value = undefined
    }
    if (connecting.value) {
      const target = targetAt(event)
      const next = releaseConnection(connecting.value, pointer.value, target, sheetDocument.sheet)
      if (next === 'finish') connectTo(target)
      else if (next === 'cancel') connecting.value = undefined
    }
  }

  // ---- keyboard -------------------------------------------------------------------------------
  function onKey(event: KeyboardEvent): void {
    const target = event.target as HTMLElement
    if (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) return
    if (handleKey(event, target)) event.preventDefault()
  }
  /** @returns whether the key stood for something */
  function handleKey(event: KeyboardEvent, target: HTMLElement): boolean {
    if (event.key === 'Escape') return (escape(), true)
    const step = event.ctrlKey || event.metaKey || event.altKey ? undefined : arrowSteps[event.key]
    if (editor.placing) return handlePlacingKey(event.key, step)
    if (editor.tool === 'connect' && cursor.value) {
      if (step) return (moveCursor(cursor.value, step), true)
      if (event.key === 'Enter') return (useCursor(cursor.value), true)
    }
    if (event.key === 'Enter' || event.key === ' ') {
      // an item that only has the keyboard's focus is selected with Enter or Space
      const focused = itemOf(target)?.split(':')[1]
      if (focused && !selection.ids.has(focused)) return (selection.select([focused]), true)
    }
    const ids = [...selection.ids]
    if (step && ids.length) return (sheetDocument.apply(nudge(sheetDocument.sheet, ids, step)), true)
    return press(event)
  }
  function escape(): void {
    const idle = !editor.placing && !connecting.value
    editor.placing = connecting.value = undefined
    if (!idle) return
    if (editor.tool === 'connect') editor.tool = 'select'
    else selection.select([])
  }
  function handlePlacingKey(key: string, step: readonly [number, number] | undefined): boolean {
    if (key === 'r') editor.rotatePlacing()
    else if (key === 'm') editor.mirrorPlacing()
    else if (key === 'Enter') place(pointer.value)
    else if (step) pointer.value = [pointer.value[0] + step[0], pointer.value[1] + step[1]]
    else return false
    return true
  }
  /** Puts what is being placed by keyboard at the nearest free place beside the last component. */
  function placeByKeyboard(): void {
    if (!editor.placing) return
    const last = selection.components[0] ?? sheetDocument.sheet.components.at(-1)
    const near: XY = last ? [last.x, last.y] : middle()
    pointer.value = freePlace(sheetDocument.sheet, editor.placing, near)
  }

  watch(
    () => editor.tool,
    (tool) => {
      const [selected] = selection.ids
      cursor.value = tool === 'connect' ? firstPort(sheetDocument.sheet, selected, middle()) : undefined
    },
  )
  function moveCursor(from: PortAt, step: readonly [number, number]): void {
    const port = portInDirection(sheetDocument.sheet, from, step)
    if (!port) return
    cursor.value = port
    pointer.value = port.at
  }
  function useCursor({ component, port, at }: PortAt): void {
    if (connecting.value) connectTo({ component, port })
    else connecting.value = startConnection({ component, port }, sheetDocument.sheet, at)
  }
  const cursorText = computed(() => {
    const at = cursor.value
    if (!at) return ''
    const component = sheetDocument.sheet.components.find((c) => c.id === at.component)
    const where = `${component ? nameOf(component) : at.component}, port ${at.port}`
    return connecting.value
      ? `Pipe to ${where}: Enter connects it`
      : `${where}: Enter starts a pipe, arrows go to other ports`
  })

  /** Handles at the ends of the pipe that is selected. */
  const pipeEnds = computed(() => {
    const pipe = selection.onlyId ? selection.pipes[0] : undefined
    if (!pipe || running()) return []
    const points = polyline(sheetDocument.sheet, pipe)
    // a step along the pipe: another pipe can still begin at the port itself
    const step = Math.min(HANDLE_AT, polylineLength(points) / 3)
    if (step < HANDLE_FROM) return []
    return (['from', 'to'] as const).map((which) => ({
      which,
      at: alongPolyline(which === 'from' ? points : [...points].reverse(), step),
      pipe: pipe.id,
    }))
  })
  return {
    pointer,
    connecting,
    marquee,
    ghost,
    cursor,
    cursorText,
    pipeEnds,
    placeByKeyboard,
    onPointerDown,
    onPointerMove,
    onPointerUp,
    onKey,
  }
}
