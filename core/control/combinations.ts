/** Which combinations of commands a control can give its machine. */
import type { ControlOutput } from '../simulate/control-interface'
import type { Sheet } from '../sheet/schema'
import { Explorer } from './explore'

export interface Combinations {
  /** Each once, in the order in which they are found. */
  readonly combinations: readonly (readonly ControlOutput[])[]
  /** Whether all that the control can do was seen. */
  readonly complete: boolean
}

/** States of the logic that are looked at: some tenths of a second to a second of work. */
const MOST_STATES = 4000
const AT_ONCE = 100

/**
 * Explores every order of presses and switches, in states where no relay is about to change.
 * @throws Error where the control cannot be read
 */
export function controlCombinations(sheet: Sheet): Combinations {
  const { devices, rungs, sequences } = sheet.control
  if (![devices, rungs, sequences].some((list) => list.length)) return { combinations: [], complete: true }
  const explorer = new Explorer(sheet)
  while (!explorer.done && explorer.states < MOST_STATES) explorer.explore(AT_ONCE)
  const found = new Map<string, ControlOutput[]>()
  for (const outputs of explorer.outputsAtRest()) {
    const key = outputs.map(({ value }) => value).join()
    if (!found.has(key)) found.set(key, outputs)
  }
  return { combinations: [...found.values()], complete: explorer.complete }
}
