/**
 * Shows an instant of a run on the drawn sheet. The oil in the lines and the way it flows are drawn here, one path for all that
 * has one pressure; attributes are written straight to the elements, and only where they change by a visible step; nothing goes
 * through reactive state.
 */
import { findKind } from '@oar-bench/core/catalogue'
import type { Show } from '@oar-bench/core/catalogue/kind'
import type { MovingPart, OilArea } from '@oar-bench/core/catalogue/symbol'
import { CAVITATION_PRESSURE } from '@oar-bench/core/fluid/fluid'
import { transformPoint, valuesOrDefaults, type XY } from '@oar-bench/core/sheet/geometry'
import { portKey } from '@oar-bench/core/sheet/netlist'
import type { Sheet, SheetComponent } from '@oar-bench/core/sheet/schema'
import { pipeFlows, signalMap } from '@oar-bench/core/simulate/playback'
import type { RunResult } from '@oar-bench/core/simulate/result'
import { commandedParameters, valuesInForce } from '@oar-bench/core/simulate/values-in-force'
import { ATMOSPHERE } from '@oar-bench/core/units/quantities'
import type { DrawnComponent, DrawnPipe } from '../composables/useDrawnSheet'

/** A flow below this is drawn as standing still, m³/s (0.1 L/min). */
const STANDING = 0.1 / 60000

export interface PlaybackOptions {
  readonly colours: readonly string[]
  /** Pressure at the end of the ramp, Pa. */
  readonly full: number
  readonly show: (si: number, signal: number) => string
  /** Writes the values beside the symbols. */
  readonly value: Show
}
/** The sheet on the page, and two groups on it that are this painter's own. */
export interface PlaybackTargets {
  readonly svg: SVGElement
  readonly oil: SVGElement
  readonly arrows: SVGElement
}
export interface DrawnSheet {
  readonly sheet: Sheet
  readonly components: readonly DrawnComponent[]
  readonly pipes: readonly DrawnPipe[]
}
export interface PlaybackPainter {
  /** Shows the values of all signals, in their order. */
  paintValues(values: Float64Array): void
  /** Takes everything off the sheet that was painted. */
  clear(): void
}
type Write = (frame: Float64Array) => void

const draw = (parent: SVGElement, name: string, attributes: Record<string, string>) => {
  const element = document.createElementNS('http://www.w3.org/2000/svg', name)
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value)
  parent.append(element)
  return element
}

/** Lead lines from a port to the body of a symbol, which carry that port's oil. */
function leadsOf({ component, symbol, ports }: DrawnComponent) {
  return symbol.shapes.flatMap((shape) => {
    if (shape.shape !== 'line' || shape.part || shape.dash) return []
    const points = shape.points.map((p) => transformPoint(p, component))
    const at = (p: XY) => ports.find((port) => port.at[0] === p[0] && port.at[1] === p[1])
    const ends = [at(points[0]), at(points[points.length - 1])].filter((port) => port !== undefined)
    // a line from port to port carries two pressures
    return ends.length === 1 ? [{ port: ends[0].port, d: `M${points.map((p) => p.join()).join(' ')}` }] : []
  })
}

/** Everything that shows the oil of one line: pipes, and leads of symbols. */
function oilPaths({ components, pipes }: DrawnSheet, result: RunResult) {
  const lines = new Map<number, { path: string; pipes: string[] }>()
  const add = (line: number | undefined, d: string, pipe?: string) => {
    if (line === undefined || result.signals[line]?.role !== 'pressure') return
    const entry = lines.get(line) ?? { path: '', pipes: [] }
    lines.set(line, entry)
    entry.path += d
    if (pipe) entry.pipes.push(pipe)
  }
  for (const { pipe, d } of pipes) add(result.lineOfPipe[pipe.id], d, pipe.id)
  for (const drawn of components)
    for (const lead of leadsOf(drawn)) add(result.lineOfPort[portKey(drawn.component.id, lead.port)], lead.d)
  return lines
}

/** The head of an arrow at a place, pointing along an angle in degrees. */
function arrowHead({ x, y, angle }: { x: number; y: number; angle: number }): string {
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)]
  const corners = [
    [-0.45, -0.5],
    [0.6, 0],
    [-0.45, 0.5],
  ]
  const at = corners.map(([a, b]) => `${x + a * cos - b * sin} ${y + a * sin + b * cos}`)
  return `M${at.join('L')}Z`
}

/** Draws what a run needs on the sheet and finds the elements to write to. */
export function playbackPainter(
  { svg, oil, arrows }: PlaybackTargets,
  drawn: DrawnSheet,
  result: RunResult,
  options: PlaybackOptions,
): PlaybackPainter {
  const writes: Write[] = []
  const undo: (() => void)[] = [() => oil.replaceChildren(), () => arrows.replaceChildren()]
  const map = signalMap(result)
  const { colours, full } = options

  const paint = (element: Element, line: number) => {
    const { style } = element as SVGElement
    // written outright: a variable would have every rule that uses it looked at again
    const property = element.hasAttribute('data-oil-port') ? 'fill' : 'stroke'
    let shown = -1
    let void_ = false
    writes.push((frame) => {
      const step = rampStep(frame[line], full)
      if (step !== shown) {
        shown = step
        style[property] = colours[step]
      }
      const starved = frame[line] + ATMOSPHERE < CAVITATION_PRESSURE
      if (starved !== void_) {
        void_ = starved
        element.classList.toggle('starved', starved)
      }
    })
  }
  /** Values that are commanded while it runs, beside the symbol: those in force. */
  const paintSettings = (group: Element, component: SheetComponent) => {
    const kind = findKind(component.kind)
    const signals = (kind?.inputs ?? []).map(({ name }) => map.get(`${component.id}.${name}`))
    if (!kind?.caption || !commandedParameters(kind).length || signals.includes(undefined)) return
    const lines = [...group.querySelectorAll<SVGElement>('tspan.value')]
    const drawnText = lines.map((line) => line.textContent ?? '')
    const values = valuesOrDefaults(component)
    const now = new Float64Array(signals.length)
    let shown = ''
    undo.push(() => lines.forEach((line, i) => (line.textContent = drawnText[i])))
    writes.push((frame) => {
      let changed = ''
      for (let i = 0; i < now.length; i++) {
        now[i] = frame[signals[i]!]
        changed += `${now[i]},`
      }
      if (changed === shown) return
      shown = changed
      const words = kind.caption!(valuesInForce(kind, values, now), options.value)
      // an empty value has no line
      if (words.length === lines.length) lines.forEach((line, i) => (line.textContent = words[i]))
    })
  }
  for (const [line, { path, pipes }] of oilPaths(drawn, result))
    paint(draw(oil, 'path', { class: 'oil-pipe', d: path, 'data-oil-pipes': pipes.join(' ') }), line)

  for (const { component, symbol } of drawn.components) {
    const group = svg.querySelector(`[data-component="${component.id}"]`)
    if (!group) continue
    const areas = symbol.shapes.filter((s): s is OilArea => s.shape === 'oil')
    const oils = [...group.querySelectorAll<SVGElement>('[data-oil-port]')]
    for (const [name, part] of Object.entries(symbol.parts ?? {})) {
      const signal = map.get(`${component.id}.${part.signal}`)
      if (signal === undefined) continue
      const elements = group.querySelectorAll<SVGElement>(`[data-part="${name}"]`)
      const stretched = oils.flatMap((element, i) =>
        areas[i]?.stretch?.part === name ? [{ element, area: areas[i] }] : [],
      )
      undo.push(() => {
        for (const element of elements) element.style.removeProperty('transform')
        for (const { element, area } of stretched) {
          element.setAttribute('x', String(area.at[0]))
          element.setAttribute('width', String(area.size[0]))
        }
      })
      let shown = Number.NaN
      writes.push((frame) => {
        const moved = Math.round((part.zero + (part.travel * frame[signal]) / part.full) * 50) / 50
        if (moved === shown) return
        shown = moved
        for (const element of elements) element.style.transform = partTransform(part, moved)
        for (const { element, area } of stretched) {
          const left = area.stretch!.edge === 'left'
          const width = Math.max(0, area.size[0] + (left ? -moved : moved))
          element.setAttribute('width', String(width))
          if (left) element.setAttribute('x', String(area.at[0] + moved))
        }
      })
    }
    oils.forEach((element, i) => {
      const line = result.lineOfPort[portKey(component.id, areas[i].port)]
      if (line === undefined) return
      paint(element, line)
      undo.push(() => {
        element.style.removeProperty('fill')
        element.classList.remove('starved')
      })
    })
    paintSettings(group, component)
    const reading = group.querySelector('[data-reading]')
    const signal = symbol.reading ? map.get(`${component.id}.${symbol.reading}`) : undefined
    if (reading && signal !== undefined) {
      let shown = ''
      undo.push(() => (reading.textContent = ''))
      writes.push((frame) => {
        const text = options.show(frame[signal], signal)
        if (text !== shown) reading.textContent = shown = text
      })
    }
  }

  const placeOf = new Map(drawn.pipes.map((d) => [d.pipe.id, d.arrow]))
  for (const { pipe, signals } of pipeFlows(drawn.sheet, result)) {
    const place = placeOf.get(pipe)
    if (!place || !signals.length) continue
    const heads = {
      '1': arrowHead(place),
      '-1': arrowHead({ ...place, angle: place.angle + 180 }),
      '0': '',
    }
    const element = draw(arrows, 'path', { class: 'flow-arrow', 'data-flow': pipe })
    let shown = 2
    writes.push((frame) => {
      let flow = 0
      for (let i = 0; i < signals.length; i++) flow += frame[signals[i]]
      const way = flow > STANDING ? 1 : flow < -STANDING ? -1 : 0
      if (way === shown) return
      shown = way
      element.setAttribute('data-way', String(way))
      element.setAttribute('d', heads[`${way}`])
    })
  }

  return {
    paintValues(values) {
      for (let i = 0; i < writes.length; i++) writes[i](values)
    },
    clear() {
      for (const back of undo) back()
    },
  }
}

/** How a part lies after it, or the end of it that moves, has moved so far, as a CSS transform in modules. */
function partTransform(part: MovingPart, moved: number): string {
  if (!part.between) return `translateX(${moved}px)`
  const { moving, fixed } = part.between
  const share = (fixed - moving - moved) / (fixed - moving)
  return `translateX(${fixed * (1 - share)}px) scaleX(${share})`
}
