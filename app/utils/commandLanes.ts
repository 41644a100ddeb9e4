/** What was commanded during a run, as blocks over time or, where it was a ramp, as a line. */
import { findKind } from '@oar-bench/core/catalogue'
import { commandableOf, type Show } from '@oar-bench/core/catalogue/kind'
import { devicesOf } from '@oar-bench/core/control/run'
import type { Sheet, SheetComponent } from '@oar-bench/core/sheet/schema'
import type { ControlDevice } from '@oar-bench/core/simulate/control-interface'
import { valueAt, type RunResult } from '@oar-bench/core/simulate/result'
import { shownUnit } from '@oar-bench/core/units/quantities'
import { thinned } from './traces'

export interface CommandBlock {
  readonly from: number
  readonly to: number
  readonly value: number
  readonly text: string
  /** The rest position of a valve. */
  readonly idle: boolean
}
export interface CommandLane {
  readonly id: string
  readonly label: string
  readonly blocks: readonly CommandBlock[]
  /** Points of a polyline over time, 16 units high; empty where there are blocks. */
  readonly profile: string
  /** Least and greatest value. */
  readonly range: string
  /** Order of the lanes: 0 commands, 1 switches of the sheet, from 2 on devices of the control. */
  readonly place: number
}

/** More changes than this, or so many one after another from sample to sample, are a ramp. */
const MOST_BLOCKS = 60
const RAMP_SAMPLES = 3
const PROFILE_POINTS = 240

/** Intervals in which a column of samples keeps its value. */
export function intervals(times: ArrayLike<number>, column: ArrayLike<number>) {
  const list: { from: number; to: number; value: number }[] = []
  for (let k = 0; k < column.length; k++) {
    const last = list.at(-1)
    if (last) last.to = times[k]
    if (!last || last.value !== column[k]) list.push({ from: times[k], to: times[k], value: column[k] })
  }
  return list
}

/** Whether a value changes with each of several samples in a row. */
function changesEverySample(parts: ReturnType<typeof intervals>, times: ArrayLike<number>): boolean {
  const longest = 1.5 * (times[1] - times[0])
  let inRow = 0
  return parts.some(({ from, to }) => (inRow = to - from <= longest ? inRow + 1 : 0) >= RAMP_SAMPLES)
}

/**
 * A lane for each input that changes during the run, and for each switch, relay, coil and step of the control.
 * @param sheet that it came from
 */
export function commandLanes(result: RunResult, sheet: Sheet, show: Show): CommandLane[] {
  const devices = devicesOf(sheet)
  const order = new Map(devices.map(({ id }, i) => [id, i]))
  const lanes = result.signals.flatMap((signal, index) => {
    const { min, max } = result.extremes[index]
    if (max === min) return []
    const component = sheet.components.find((c) => c.id === signal.component)
    const device = devices.find((d) => d.id === signal.component)
    if (signal.role !== 'input' && !isContact(signal, component, device)) return []
    const owner = component ? (findKind(component.kind) ?? {}) : device
    const spec = owner && commandableOf(owner).find((i) => `${signal.component}.${i.name}` === signal.id)
    const parts = intervals(result.times, result.columns[index])
    const isRamp = parts.length > MOST_BLOCKS || changesEverySample(parts, result.times)
    const height = (value: number) => 15 - (14 * (value - min)) / (max - min)
    const profile = isRamp
      ? thinned(result, index, shownUnit(signal.quantity, 'metric'), PROFILE_POINTS)
          .map(([t]) => `${t},${height(valueAt(result, index, t))}`)
          .join(' ')
      : ''
    const positions = spec?.positions ?? (signal.role === 'input' ? undefined : ON_OFF)
    const text = (value: number) =>
      positions?.find((p) => Math.abs(p.value - value) < 1e-6)?.label ?? show(value, signal.quantity, 3)
    return [
      {
        id: signal.id,
        label: labelOf(signal, component, device),
        place: signal.role === 'input' ? 0 : component ? 1 : 2 + (order.get(signal.component ?? '') ?? 0),
        profile,
        range: `${show(min, signal.quantity, 3)} to ${show(max, signal.quantity, 3)}`,
        blocks: (isRamp ? [] : parts).map((part) => ({
          ...part,
          idle: !!positions && part.value === 0,
          text: text(part.value),
        })),
      },
    ]
  })
  // what people do first, then the switches of the sheet, then the control in its order
  return lanes.sort((a, b) => a.place - b.place)
}

const ON_OFF = [
  { value: 1, label: 'on' },
  { value: 0, label: 'off' },
]
/** Whether a signal is a contact: of a switch on the sheet, of a relay or a timer; or a step. Currents of paths follow from them. */
function isContact(
  { id, role, component: owner }: RunResult['signals'][number],
  component: SheetComponent | undefined,
  device: ControlDevice | undefined,
): boolean {
  if (role !== 'output') return false
  if (component) return id === `${owner}.on` && findKind(component.kind)?.traits?.isOn !== undefined
  // what an operator works is a lane already
  return !!device && !device.inputs.length && !/\.(current|count|output)/.test(id.slice(owner!.length))
}
function labelOf(
  { id, label, component: owner, role }: RunResult['signals'][number],
  component: SheetComponent | undefined,
  device: ControlDevice | undefined,
): string {
  if (device) return role === 'input' || id.endsWith('.on') ? device.name : `${device.name} ${label}`
  if (role === 'output') return component?.designation ?? owner ?? ''
  // "coil a, share of its rated voltage" is a coil here
  return `${component?.designation ?? owner ?? ''} ${label.split(',')[0]}`
}
