/**
 * Shows an instant of a run on the drawn sheet. Attributes are written straight to the elements,
 * and only where they change by a visible step; nothing goes through reactive state.
 */
import type { OilArea } from '@oar-bench/core/catalogue/symbol'
import { CAVITATION_PRESSURE } from '@oar-bench/core/fluid/fluid'
import { symbolOf } from '@oar-bench/core/sheet/geometry'
import { portKey } from '@oar-bench/core/sheet/netlist'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { frameAt, pipeFlows, signalMap } from '@oar-bench/core/simulate/frame'
import type { RunResult } from '@oar-bench/core/simulate/result'
import { ATMOSPHERE } from '@oar-bench/core/units/quantities'

/** A flow below this is drawn as standing still, m³/s (0.1 L/min). */
const STANDING = 0.1 / 60000

export interface FrameOptions {
  readonly colours: readonly string[]
  /** Pressure at the end of the ramp, Pa. */
  readonly full: number
  readonly show: (si: number, signal: number) => string
}
type Write = (frame: Float64Array) => void

/** Finds the elements to write to. @returns the writer for any instant */
export function framePainter(svg: SVGElement, sheet: Sheet, result: RunResult, options: FrameOptions) {
  const writes: Write[] = []
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
  for (const element of svg.querySelectorAll('[data-oil-pipe]')) {
    const line = result.lineOfPipe[element.getAttribute('data-oil-pipe')!]
    if (line !== undefined && result.signals[line]?.role === 'pressure') paint(element, line)
  }
  for (const element of svg.querySelectorAll('[data-oil-lead]')) {
    const line = result.lineOfPort[element.getAttribute('data-oil-lead')!]
    if (line !== undefined && result.signals[line]?.role === 'pressure') paint(element, line)
  }

  for (const component of sheet.components) {
    const group = svg.querySelector(`[data-component="${component.id}"]`)
    const symbol = symbolOf(component)
    if (!group || !symbol) continue
    const areas = symbol.shapes.filter((s): s is OilArea => s.shape === 'oil')
    for (const [name, part] of Object.entries(symbol.parts ?? {})) {
      const signal = map.get(`${component.id}.${part.signal}`)
      if (signal === undefined) continue
      const elements = group.querySelectorAll<SVGElement>(`[data-part="${name}"]`)
      const stretched = [...group.querySelectorAll<SVGElement>('[data-oil-port]')].flatMap((element, i) =>
        areas[i]?.stretch?.part === name ? [{ element, area: areas[i] }] : [],
      )
      let shown = Number.NaN
      writes.push((frame) => {
        const moved = Math.round((part.zero + (part.travel * frame[signal]) / part.full) * 50) / 50
        if (moved === shown) return
        shown = moved
        for (const element of elements) element.style.transform = `translateX(${moved}px)`
        for (const { element, area } of stretched) {
          const left = area.stretch!.edge === 'left'
          const width = Math.max(0, area.size[0] + (left ? -moved : moved))
          element.setAttribute('width', String(width))
          if (left) element.setAttribute('x', String(area.at[0] + moved))
        }
      })
    }
    group.querySelectorAll('[data-oil-port]').forEach((element, i) => {
      const line = result.lineOfPort[portKey(component.id, areas[i].port)]
      if (line !== undefined) paint(element, line)
    })
    const reading = group.querySelector('[data-reading]')
    const signal = symbol.reading ? map.get(`${component.id}.${symbol.reading}`) : undefined
    if (reading && signal !== undefined) {
      let shown = ''
      writes.push((frame) => {
        const text = options.show(frame[signal], signal)
        if (text !== shown) reading.textContent = shown = text
      })
    }
  }

  for (const { pipe, signals } of pipeFlows(sheet, result)) {
    const element = svg.querySelector<SVGElement>(`[data-flow="${pipe}"]`)
    if (!element || !signals.length) continue
    let shown = 2
    writes.push((frame) => {
      let flow = 0
      for (let i = 0; i < signals.length; i++) flow += frame[signals[i]]
      const way = flow > STANDING ? 1 : flow < -STANDING ? -1 : 0
      if (way === shown) return
      shown = way
      element.setAttribute('data-way', String(way))
    })
  }

  const frame = new Float64Array(result.columns.length)
  return (t: number) => {
    frameAt(result, t, frame)
    for (let i = 0; i < writes.length; i++) writes[i](frame)
  }
}

/** Takes everything off the sheet that a painter wrote. */
export function clearFrame(svg: SVGElement, sheet: Sheet) {
  for (const element of svg.querySelectorAll<SVGElement>(
    '[data-oil-pipe], [data-oil-lead], [data-oil-port]',
  )) {
    element.style.removeProperty('fill')
    element.style.removeProperty('stroke')
    element.classList.remove('starved')
  }
  for (const element of svg.querySelectorAll<SVGElement>('[data-part]'))
    element.style.removeProperty('transform')
  for (const element of svg.querySelectorAll('[data-way]')) element.removeAttribute('data-way')
  for (const element of svg.querySelectorAll('[data-reading]')) element.textContent = ''
  for (const component of sheet.components) {
    const areas = symbolOf(component)?.shapes.filter((s): s is OilArea => s.shape === 'oil') ?? []
    svg.querySelectorAll(`[data-component="${component.id}"] [data-oil-port]`).forEach((element, i) => {
      element.setAttribute('x', String(areas[i].at[0]))
      element.setAttribute('width', String(areas[i].size[0]))
    })
  }
}
