/** Figures of duty of a run: starts of motors, how long they are loaded, cycles of switches. */
import { resolveComponent } from '../sheet/resolve'
import type { Sheet } from '../sheet/schema'
import { signalIndex, type RunResult } from './result'

export interface MotorDuty {
  readonly component: string
  readonly starts: number
  readonly startsPerHour: number
  /** s */
  readonly running: number
  /** Share of the time it runs in which it gives more than a third of its rated power. */
  readonly loadedShare: number
}
export interface SwitchDuty {
  readonly component: string
  /** Times it went on. */
  readonly cycles: number
  readonly cyclesPerHour: number
}

/** Power above which a motor counts as loaded, in shares of its rated power. */
const LOADED = 1 / 3

const rises = (column: ArrayLike<number>, above: number): number => {
  let count = 0
  for (let k = 1; k < column.length; k++) if (column[k - 1] <= above && column[k] > above) count++
  return count
}

export function dutyOf(
  sheet: Sheet,
  result: Pick<RunResult, 'times' | 'columns' | 'signals' | 'duration'>,
): { readonly motors: readonly MotorDuty[]; readonly switches: readonly SwitchDuty[] } {
  const { times, columns, duration } = result
  const perHour = (count: number) => (duration > 0 ? (3600 * count) / duration : 0)
  const column = (id: string) => columns[signalIndex(result, id)]
  const motors: MotorDuty[] = []
  const switches: SwitchDuty[] = []
  for (const component of sheet.components) {
    const { resolved } = resolveComponent(component)
    const { id } = component
    const { traits, inputs } = resolved?.kind ?? {}
    const on = traits?.isOn ? column(`${id}.on`) : undefined
    if (on) {
      const cycles = rises(on, 0.5)
      switches.push({ component: id, cycles, cyclesPerHour: perHour(cycles) })
    }
    const coil = inputs?.find((i: { electric?: string }) => i.electric === 'coil')
    const rated = traits?.sizingTargets?.motorPower
    const supply = coil && rated ? column(`${id}.${coil.name}`) : undefined
    const power = column(`${id}.${String(traits?.measures?.shaftPower)}`)
    if (!supply || !power) continue
    let running = 0
    let loaded = 0
    for (let k = 1; k < times.length; k++) {
      const length = times[k] - times[k - 1]
      if (supply[k - 1] > 0) running += length
      if (supply[k - 1] > 0 && power[k] > LOADED * Number(resolved!.values[rated!])) loaded += length
    }
    const starts = rises(supply, 0)
    motors.push({
      component: id,
      starts,
      startsPerHour: perHour(starts),
      running,
      loadedShare: running > 0 ? loaded / running : 0,
    })
  }
  return { motors, switches }
}
