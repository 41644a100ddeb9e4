/** Sizes that were computed beside what a run shows, with the difference and what it comes from. */
import { findKind } from '../catalogue'
import type { Measured } from '../catalogue/kind'
import { nameOf, type Sheet, type SheetComponent } from '../sheet/schema'
import { resultsOf, targetsOf } from '../size/apply'
import type { Brief } from '../size/brief/brief'
import type { Measure } from '../size/card'
import type { SizedNode, Sizing } from '../size/graph'
import type { RunResult } from '../simulate/result'
import type { Quantity } from '../units/quantities'

export interface SizeComparison {
  readonly node: string
  readonly variable: string
  readonly label: string
  readonly quantity: Quantity
  /** Designation of the component that was measured. */
  readonly component: string
  /** SI. */
  readonly calculated: number
  readonly simulated: number
  /** (simulated − calculated) / calculated. */
  readonly difference: number
  /** Where the difference is large: causes that the run shows, the largest first. */
  readonly reasons: readonly Reason[]
}
/** A cause with the values that show it, to be written in the units in force. */
export interface Reason {
  readonly cause:
    | 'load'
    | 'efficiency'
    | 'delivery'
    | 'relieved'
    | 'partFlow'
    | 'pressure'
    | 'surge'
    | 'backPressure'
    | 'losses'
  /** What it is in the run and what was assumed, SI; nothing where there is no figure. */
  readonly simulated?: number
  readonly assumed?: number
  readonly quantity?: Quantity
  readonly component?: string
}

/** Differences up to this share need no reason. */
export const CLOSE = 0.05
/** A part of the greatest speed above which something counts as moving. */
const MOVING = 0.02
/** A part of the computed speed that is reached at least, where the motion is in the run at all. */
const IN_THE_RUN = 0.05

type Column = Float32Array | undefined
interface Taken {
  readonly while: Measure['while']
  readonly take: Measure['take'] | 'mean'
}

/** All sizes of a machine that a run shows. @param sheet the one that was run */
export function compareSizes(sheet: Sheet, brief: Brief, sizing: Sizing, run: RunResult): SizeComparison[] {
  const columnOf = (component: SheetComponent, what: Measured): Column => {
    const measured = findKind(component.kind)?.traits?.measures?.[what]
    if (measured === undefined) return undefined
    const id =
      typeof measured === 'string'
        ? `${component.id}.${measured}`
        : lineSignal(run, `${component.id}.${measured.port}`)
    const at = run.signals.findIndex((s) => s.id === id)
    return at < 0 ? undefined : run.columns[at]
  }
  const actuatorOf = (node: SizedNode): SheetComponent | undefined => {
    const actuators = sheet.components.filter(
      (c) => findKind(c.kind)?.family === 'actuators' && findKind(c.kind)?.traits?.measures?.speed,
    )
    const named = actuators.find((c) => nameOf(c) === node.motion?.designation)
    return named ?? (actuators.length === 1 ? actuators[0] : undefined)
  }
  const measuredOn = (node: SizedNode, of: string | undefined): SheetComponent[] => {
    if (of === undefined) {
      const actuator = actuatorOf(node)
      return actuator ? [actuator] : []
    }
    const result = resultsOf(node).find((r) => r.variable === of)
    return result
      ? targetsOf(sheet, brief, result)
          .filter((t) => t.assigned)
          .map((t) => t.component)
      : []
  }

  return sizing.nodes.flatMap((node) =>
    Object.entries(node.card.variables).flatMap(([variable, v]) => {
      const calculated = node.values[variable]
      if (v.role !== 'step' || !v.measure || !calculated) return []
      const { measure } = v
      return measuredOn(node, measure.of).flatMap((component): SizeComparison[] => {
        const column = columnOf(component, measure.what)
        const speed = columnOf(component, 'speed')
        const wanted = node.card.variables.speedOut ? node.values.speedOut : node.values.speed
        const moves =
          measure.of !== undefined || !wanted || (speed && fastestOf(speed, measure) > IN_THE_RUN * wanted)
        const simulated = column && moves ? take(column, measure, speed) : undefined
        if (simulated === undefined) return []
        const difference = (simulated - calculated) / calculated
        const { label, quantity } = v
        return [
          {
            node: node.id,
            variable,
            label,
            quantity,
            component: nameOf(component),
            calculated,
            simulated,
            difference,
            reasons: Math.abs(difference) > CLOSE ? reasonsFor(node, measure, component) : [],
          },
        ]
      })
    }),
  )

  /** What the run shows of the causes that this measure can have. */
  function reasonsFor(node: SizedNode, measure: Measure, component: SheetComponent): Reason[] {
    const reasons: Reason[] = []
    const { values } = node
    const speed = columnOf(component, 'speed')
    const during = (column: Column, how: Taken['take']) =>
      column && take(column, { while: measure.while, take: how }, speed)
    if (measure.what === 'delivery' && values.displacement > 0) {
      const ideal = (values.displacement * values.speed) / (2 * Math.PI)
      const simulated = (during(columnOf(component, 'delivery'), 'usual') ?? 0) / ideal
      reasons.push({ cause: 'efficiency', simulated, assumed: values.volumetric, quantity: 'share' })
    }
    if (measure.what === 'pressure' && measure.of === undefined) {
      const [met, assumed] = [during(columnOf(component, 'load'), 'most'), values.force ?? values.torque]
      const quantity = values.force === undefined ? 'torque' : 'force'
      if (met !== undefined && assumed > 0 && Math.abs(met / assumed - 1) > CLOSE)
        reasons.push({ cause: 'load', simulated: met, assumed, quantity })
      const pressure = columnOf(component, 'pressure')
      const [usual, most] = [during(pressure, 'usual'), during(pressure, 'most')]
      if (usual !== undefined && most !== undefined && most - usual > CLOSE * most)
        reasons.push({ cause: 'surge', simulated: usual, quantity: 'pressure' })
    }
    if (measure.what === 'speed') reasons.push(...flowReasons(during, values.delivered))
    if (measure.of === undefined) {
      const back = during(columnOf(component, 'returnPressure'), 'usual')
      if (
        back !== undefined &&
        values.backPressure !== undefined &&
        Math.abs(back - values.backPressure) > 5e5
      )
        reasons.push({
          cause: 'backPressure',
          simulated: back,
          assumed: values.backPressure,
          quantity: 'pressure',
        })
    }
    const relieved = during(columnOf(component, 'relieved'), 'most')
    if (measure.what === 'pressure' && relieved !== undefined)
      reasons.push({ cause: 'partFlow', simulated: relieved, quantity: 'flow' })
    if (measure.what === 'shaftPower') {
      const highest = pumpPressure()
      if (values.pressure > 0 && Math.abs(highest / values.pressure - 1) > CLOSE)
        reasons.push({
          cause: 'pressure',
          simulated: highest,
          assumed: values.pressure,
          quantity: 'pressure',
        })
    }
    return reasons.length ? reasons : [{ cause: 'losses' }]
  }

  /** Where the flow of the pumps goes while something moves. */
  function flowReasons(
    during: (column: Column, how: Taken['take']) => number | undefined,
    assumed: number | undefined,
  ): Reason[] {
    const deliveries = sheet.components.map((c) => during(columnOf(c, 'delivery'), 'usual') ?? 0)
    const delivery = deliveries.reduce((sum, q) => sum + q, 0)
    const reasons: Reason[] = []
    if (assumed && Math.abs(delivery / assumed - 1) > CLOSE)
      reasons.push({ cause: 'delivery', simulated: delivery, assumed, quantity: 'flow' })
    for (const c of sheet.components) {
      const relieved = during(columnOf(c, 'relieved'), 'mean')
      if (relieved !== undefined && delivery > 0 && relieved > CLOSE * delivery)
        reasons.push({ cause: 'relieved', simulated: relieved, quantity: 'flow', component: nameOf(c) })
    }
    return reasons
  }

  /** The highest pressure at a port where a pump delivers. */
  function pumpPressure(): number {
    const ports = sheet.components.flatMap((c) =>
      (findKind(c.kind)?.traits?.deliveryPorts ?? []).map((port) => `${c.id}.${port}`),
    )
    const lines = new Set(ports.map((port) => run.lineOfPort[port]))
    return run.signals.reduce(
      (most, s, i) =>
        s.role === 'pressure' && lines.has(s.node!) ? Math.max(most, run.extremes[i].max) : most,
      0,
    )
  }
}

/** A reason in words. @param show writes a value in the units in force */
export function reasonText(reason: Reason, show: (si: number, quantity: Quantity) => string): string {
  const { simulated = 0, assumed = 0, quantity = 'ratio', component } = reason
  const [is, was] = [show(simulated, quantity), show(assumed, quantity)]
  switch (reason.cause) {
    case 'load':
      return `The load is at most ${is} in the run; ${was} was assumed.`
    case 'efficiency':
      return `The pump delivers ${is} of its displacement; ${was} was assumed. It leaks less below its rated pressure.`
    case 'delivery':
      return `The pumps deliver ${is} during this motion; ${was} was assumed.`
    case 'relieved':
      return `${is} goes over ${component}.`
    case 'partFlow':
      return `At most ${is} goes through it; the value holds for its rated flow.`
    case 'pressure':
      return `The pump line reaches ${is}; ${was} was assumed.`
    case 'surge':
      return `During the motion it is usually ${is}; the peak comes from starting, stopping or the end of the stroke.`
    case 'backPressure':
      return `The back pressure is ${is}; ${was} was assumed.`
    case 'losses':
      return 'Losses of the lines and valves on the sheet, and their leakage, differ from those assumed.'
  }
}

/** Signal of the pressure of the line at a port. */
function lineSignal(run: RunResult, port: string): string | undefined {
  const line = run.lineOfPort[port]
  return run.signals.find((s) => s.role === 'pressure' && s.node === line)?.id
}
/** The greatest speed one way. */
function fastestOf(speed: Float32Array, measure: Pick<Measure, 'while'>): number {
  const sign = measure.while === 'back' ? -1 : 1
  return speed.reduce((fastest, v) => Math.max(fastest, sign * v), 0)
}

/** The usual value or the most of a column, while something moves one way; nothing where it never does. */
function take(column: Float32Array, measure: Taken, speed: Column): number | undefined {
  const sign = measure.while === 'back' ? -1 : 1
  let fastest = 0
  if (measure.while !== 'run') {
    if (!speed) return undefined
    fastest = fastestOf(speed, measure)
    if (!(fastest > 0)) return undefined
  }
  const values: number[] = []
  for (let i = 0; i < column.length; i++) {
    if (measure.while !== 'run' && sign * speed![i] < MOVING * fastest) continue
    values.push(Math.abs(column[i]))
  }
  if (!values.length) return undefined
  if (measure.take === 'mean') return values.reduce((sum, v) => sum + v, 0) / values.length
  values.sort((a, b) => a - b)
  if (measure.take === 'usual') {
    // standing still is not what is usual
    const busy = values.filter((v) => v > MOVING * values[values.length - 1])
    return busy[Math.floor(busy.length / 2)]
  }
  // a peak of a few samples is a surge and not the working value
  return values[Math.min(values.length - 1, Math.floor(values.length * 0.99))]
}
