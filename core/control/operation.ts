/** A control against what the brief says of its operation: how the machine is started and stopped. */
import type { Brief } from '../size/brief/brief'
import { nameOf, type Sheet } from '../sheet/schema'
import type { Proof } from './explore'
import { passes, refsIn } from './expression'
import { devicesOfTargets, readControl } from './program'
import { areReleased, restStatesOf } from './rest-states'

/**
 * What the brief asks for and the control does not do, in words.
 * @param proofs claims that are decided already @returns nothing where the control does not read
 */
export function operationFindings(
  sheet: Sheet,
  { start, stop, cycle, restart }: Brief['operation'],
  proofs: readonly Proof[] = [],
): string[] {
  const { program, findings } = readControl(sheet)
  if (findings.length || !program.paths.length) return []
  const said: string[] = []
  const rest = restStatesOf(sheet, program)
  const moving = program.targets.flatMap((t, i) => ('component' in t ? [i] : []))
  const released = areReleased(program)
  const keepsMoving = moving.some((target) => rest.find([{ target, is: true }], released) instanceof Map)
  const starts = program.devices.filter(({ values }) => values.purpose === 'start')
  const startIds = new Set(starts.map(({ device }) => device.id))
  if (start !== 'open' && !starts.length && start !== 'holdToRun')
    said.push('The brief asks for a start by hand, and no button of the control has the purpose "starts".')
  if (start === 'twoHand' && starts.length) {
    // a path may carry current with this button alone, before a relay of it holds it
    const alone = starts.filter(({ device }) =>
      program.paths.some(({ expression, coils }) => {
        if (!refsIn(expression).includes(device.id)) return false
        const own = new Set(devicesOfTargets(program, coils))
        const closed = (ref: string) => {
          if (ref === device.id) return true
          return startIds.has(ref) || own.has(ref) ? false : undefined
        }
        return passes(expression, closed) !== false
      }),
    )
    if (starts.length < 2)
      said.push(
        `The brief asks for a start with both hands, and the control has one start button, ${nameOf(starts[0].device)}.`,
      )
    else if (alone.length)
      said.push(
        `The brief asks for a start with both hands, and ${alone.map(({ device }) => nameOf(device)).join(' and ')} can start it alone.`,
      )
  }
  if (start === 'holdToRun' && keepsMoving)
    said.push(
      'The brief asks for motion only while a button is held, and something can keep moving when all are released.',
    )
  if (start === 'press' && moving.length && !keepsMoving)
    said.push(
      'The brief asks for a start by one press, and nothing keeps moving when the button is released.',
    )
  if (
    stop !== 'open' &&
    !program.devices.some(({ values }) => values.purpose === 'stop') &&
    start !== 'holdToRun'
  )
    said.push('The brief asks for a stop button, and no button of the control has the purpose "stops".')
  if (stop === 'emergencyStop' && !program.devices.some(({ type }) => type.stopsMotion))
    said.push('The brief asks for an emergency stop, and the control has none.')
  if (cycle === 'selector' && !program.devices.some(({ type }) => type.selects))
    said.push('The brief asks for a selector of the mode, and the control has none.')
  const again = proofs.find((p) => p.id === 'restart')?.outcome
  if (restart === 'byPress' && again === 'refuted')
    said.push(
      'The brief asks for a start only by a press after the supply was lost, and the control starts by itself.',
    )
  if (restart === 'automatic' && again === 'proved')
    said.push('The brief asks that it goes on by itself when the supply returns, and the control never does.')
  return said
}
