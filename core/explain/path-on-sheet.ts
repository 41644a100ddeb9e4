/** The path of an answer on the sheet: its pipes with the share of the oil that goes through each. */
import type { PipeFlow } from '../simulate/playback'
import type { RunResult } from '../simulate/result'
import type { PressureAnswer } from './answer'
import type { ReadSignal } from './moment'

const LEAST_SHARE = 0.01
const NO_FLOW = 1e-8

/**
 * Pipes of the lines along which the oil comes and goes, and of those that set the pressure. @param flows of the sheet's pipes
 * @param read values of the instant @returns by pipe, 0 to 1; 0 where oil stands
 */
export function pipeShares(
  { stack, path }: PressureAnswer,
  lineOfPipe: RunResult['lineOfPipe'],
  flows: readonly PipeFlow[],
  read: ReadSignal,
): ReadonlyMap<string, number> {
  const moving = path.flow > NO_FLOW
  const lines = new Set(stack.lines)
  if (moving)
    for (const { from, to } of [...path.up, ...path.down])
      for (const line of [from, to]) if (line !== undefined) lines.add(line)
  const flowOf = new Map(flows.map(({ pipe, signals }) => [pipe, signals]))
  const shares = new Map<string, number>()
  for (const [pipe, line] of Object.entries(lineOfPipe)) {
    if (!lines.has(line)) continue
    const signals = flowOf.get(pipe)
    const flow = Math.abs((signals ?? []).reduce((sum, s) => sum + read(s), 0))
    const share = moving ? Math.min(1, flow / path.flow) : 0
    // a branch in which nothing flows is no part of a path that flows
    if (moving && signals && share < LEAST_SHARE) continue
    shares.set(pipe, share)
  }
  return shares
}
