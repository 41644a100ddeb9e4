/** The figures that describe a state of a machine, and the commands that a state may set. */
import { Power, type InputSpec } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { devicesOf } from '../control/run'
import { resolveComponent } from '../sheet/resolve'
import { nameOf, type Sheet } from '../sheet/schema'
import type { Network } from '../simulate/circuit/network'
import type { RunResult } from '../simulate/result'
import type { Quantity } from '../units/quantities'
import { measuringPlaces } from './measuring-places'
import { readerOf, type Moments } from './moment'
import type { Mover } from './movers'

export type ColumnGroup = 'commands' | 'control' | 'pressures' | 'flows' | 'motion' | 'supply' | 'power'
export interface StateColumn {
  readonly key: string
  readonly group: ColumnGroup
  readonly label: string
  readonly quantity: Quantity
  readonly part?: string
  /** What either direction of a motion is called. */
  readonly verbs?: { readonly forward: string; readonly back: string; readonly still: number }
}
export interface StateFigure extends StateColumn {
  read(network: Network): number
  text?(value: number): string
  /** Line whose pressure it is. */
  readonly line?: number
}

/** All that a state is described by. */
export function stateFigures(moments: Moments, result: RunResult, movers: readonly Mover[]): StateFigure[] {
  const { sheet, network } = moments
  const devices = new Map(devicesOf(sheet).map((device) => [device.id, device]))
  const commands = network.inputs.inputs.flatMap(
    ({ component, spec, fault, restParameter }, input): StateFigure[] => {
      // a setting is no command; what has current or not is one, whatever value it then takes
      const isSetting = restParameter !== undefined && !spec.electric
      if (fault || spec.ofLoad || isSetting || devices.has(component)) return []
      const owner = sheet.components.find((c) => c.id === component)
      if (!owner) return []
      return [
        {
          key: `${component}.${spec.name}`,
          group: 'commands',
          label: spec.label === 'command' ? nameOf(owner) : `${nameOf(owner)} ${spec.label.split(',')[0]}`,
          quantity: spec.quantity === 'ratio' && !spec.positions ? 'share' : spec.quantity,
          part: component,
          read: ({ arrays }) => arrays.u[input],
          ...(spec.positions
            ? {
                text: (value: number) =>
                  spec.positions!.find((p) => Math.abs(p.value - value) < 1e-3)?.label ?? value.toFixed(2),
              }
            : {}),
        },
      ]
    },
  )
  const control = [...devices.values()].flatMap((device): StateFigure[] => {
    const read = readerOf(network, device.id, 'current')
    if (!read) return []
    return [
      {
        key: `${device.id}.current`,
        group: 'control',
        label: nameOf(device),
        quantity: 'ratio',
        part: device.id,
        read,
        text: (value) => (value > 0.5 ? 'on' : 'off'),
      },
    ]
  })
  const seen = new Set<number>()
  const pressures = measuringPlaces(sheet, result).flatMap(({ component, line }): StateFigure[] => {
    if (seen.has(line)) return []
    seen.add(line)
    return [
      {
        key: `${component.id} pressure`,
        group: 'pressures',
        label: nameOf(component),
        quantity: 'pressure',
        part: component.id,
        line,
        read: ({ potential }) => potential[line],
      },
    ]
  })
  const flows = sheet.components.flatMap((component): StateFigure[] => {
    if (findKind(component.kind)?.family !== 'instruments') return []
    return (moments.element(component.id)?.model.outputs ?? []).flatMap((output) =>
      output.quantity === 'flow'
        ? [
            {
              key: `${component.id}.${output.name}`,
              group: 'flows' as const,
              label: nameOf(component),
              quantity: 'flow' as const,
              part: component.id,
              read: readerOf(network, component.id, output.name)!,
            },
          ]
        : [],
    )
  })
  const motion = movers.map((mover): StateFigure => {
    return {
      key: `${mover.component} speed`,
      group: 'motion',
      label: mover.name,
      quantity: result.signals[mover.speed].quantity,
      part: mover.component,
      read: readerOf(network, mover.component, mover.movement.speed)!,
      verbs: { forward: mover.movement.forward, back: mover.movement.back, still: mover.still },
    }
  })
  const supply = sheet.components.flatMap((component): StateFigure[] => {
    const measures = findKind(component.kind)?.traits?.measures
    if (!measures) return []
    return (['delivery', 'shaftPower'] as const).flatMap((measured) => {
      const name = measures[measured]
      const read = typeof name === 'string' ? readerOf(network, component.id, name) : undefined
      if (!read) return []
      return [
        {
          key: `${component.id}.${name}`,
          group: 'supply' as const,
          label: `${nameOf(component)} ${measured === 'delivery' ? 'delivery' : 'power'}`,
          quantity: measured === 'delivery' ? ('flow' as const) : ('power' as const),
          part: component.id,
          read,
        },
      ]
    })
  })
  const total = (label: string, index: number): StateFigure => ({
    key: label,
    group: 'power',
    label,
    quantity: 'power',
    read: ({ elements }) => elements.reduce((sum, { local }) => sum + local.power[index], 0),
  })
  return [
    ...commands,
    ...control,
    ...pressures,
    ...flows,
    ...motion,
    ...supply,
    total('put in', Power.input),
    total('heat', Power.heat),
  ]
}

/** An input that a state may set: a valve's command, a coil, a motor's supply. */
export interface StateCommand {
  readonly component: string
  readonly name: string
  readonly spec: InputSpec
}
/** The inputs of a sheet that states may set. */
export function commandsOf(sheet: Sheet): StateCommand[] {
  return sheet.components.flatMap((component) => {
    const { resolved } = resolveComponent(component)
    if (!resolved) return []
    const idle = new Set<string>(resolved.kind.idleInputs?.(resolved.values) ?? [])
    return (resolved.kind.inputs ?? []).flatMap((spec: InputSpec): StateCommand[] =>
      spec.ofLoad || typeof spec.rest === 'string' || idle.has(spec.name)
        ? []
        : [{ component: component.id, name: nameOf(component), spec }],
    )
  })
}
