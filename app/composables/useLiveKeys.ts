/** Keys and game controllers that work levers and switches of a live run; what is bound is kept for each sheet in this browser. */
import { createSharedComposable, useEventListener, useGamepad, useRafFn } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { Operable } from '@oar-bench/core/simulate/operable'
import { useLiveRun } from '../stores/liveRun'
import { useSheetDocument } from '../stores/sheetDocument'
import { useSetting } from './useSetting'
import { useTurn } from './useTurn'

/** What works an operable: a key each way, or an axis of a game controller. */
export interface Binding {
  readonly plus?: string
  readonly minus?: string
  /** Index of the axis of the first controller. */
  readonly axis?: number
}
type Bindings = Readonly<Record<string, Binding>>

/** An axis moves by less than this without meaning to. */
const DEAD_BAND = 0.08
/** A change of an axis that is passed on. */
const AXIS_STEP = 0.02

/** Value of an operable for a share of its way from rest, −1 to 1. */
export function valueFor({ spec, rest }: Operable, share: number): number {
  const wanted = share >= 0 ? rest + share * (spec.max - rest) : rest + share * (rest - spec.min)
  if (!spec.positions) return wanted
  // the named position that is nearest
  const end = share > 0.5 ? Math.max : Math.min
  const values = spec.positions.map((p) => p.value)
  return Math.abs(share) > 0.5 ? end(...values) : rest
}

function liveKeys() {
  const live = useLiveRun()
  const sheetDocument = useSheetDocument()
  const all = useSetting<Record<string, Bindings>>('live-keys', {})
  const bindings = computed<Bindings>(() => all.value[sheetDocument.sheetId] ?? {})
  function bind(key: string, change: Binding): void {
    const own = { ...bindings.value[key], ...change }
    const next = { ...bindings.value, [key]: own }
    all.value = { ...all.value, [sheetDocument.sheetId]: next }
  }
  const held = new Set<string>()
  const operableOf = (key: string) => live.machine.operables.find((o) => o.key === key)

  function work(event: KeyboardEvent, down: boolean): void {
    if (!live.open || event.ctrlKey || event.metaKey || event.altKey) return
    const target = event.target as HTMLElement
    if (down && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) return
    const pressed = event.key.toLowerCase()
    for (const [key, { plus, minus }] of Object.entries(bindings.value)) {
      if (pressed !== plus && pressed !== minus) continue
      const operable = operableOf(key)
      if (!operable) continue
      if (down) event.preventDefault()
      if (down === held.has(`${key} ${pressed}`)) continue
      if (down) held.add(`${key} ${pressed}`)
      else held.delete(`${key} ${pressed}`)
      const way = pressed === plus ? 1 : -1
      if (operable.type === 'setting' || operable.type === 'load') {
        if (down) void useTurn(() => operable).turn(way)
      } else if (operable.type === 'lever')
        void live.set(operable.component, operable.spec.name, down ? valueFor(operable, way) : operable.rest)
      else if (down) void live.set(operable.component, operable.spec.name, valueFor(operable, way))
    }
  }
  useEventListener('keydown', (event) => work(event, true))
  useEventListener('keyup', (event) => work(event, false))

  const { gamepads, isSupported } = useGamepad()
  const sent = new Map<string, number>()
  const { pause, resume } = useRafFn(
    () => {
      const [pad] = gamepads.value
      if (!pad) return
      for (const [key, { axis }] of Object.entries(bindings.value)) {
        if (axis === undefined) continue
        const operable = operableOf(key)
        if (!operable) continue
        const raw = pad.axes[axis] ?? 0
        const share = Math.abs(raw) < DEAD_BAND ? 0 : raw
        const before = sent.get(key) ?? 0
        if (share === before || (share !== 0 && Math.abs(share - before) < AXIS_STEP)) continue
        sent.set(key, share)
        void live.set(operable.component, operable.spec.name, valueFor(operable, share))
      }
    },
    { immediate: false },
  )
  watch(
    () => live.open && gamepads.value.length > 0,
    (on) => (on ? resume() : pause()),
    { immediate: true },
  )
  const axes = computed(() => (isSupported.value ? (gamepads.value[0]?.axes.length ?? 0) : 0))
  return { bindings, bind, axes }
}
export const useLiveKeys = createSharedComposable(liveKeys)
