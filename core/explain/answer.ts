/** The answer to "what sets this pressure" at an instant of a run, with all that belongs to it. */
import { portKey } from '../sheet/netlist'
import { nameOf, type Sheet } from '../sheet/schema'
import { sampleAt, type RunResult } from '../simulate/result'
import type { Moments } from './moment'
import { oilPath, partsShutAt, standingBy, type OilPath, type StandingBy } from './oil-path'
import { pilotedBy, type Piloted } from './pilots'
import { LinePorts, pressureStack, type Stack } from './stack'

/** When a line was shut in, and by which part. */
export interface ShutIn {
  /** s */
  readonly since: number
  readonly by?: string
}
export interface PressureAnswer {
  readonly line: number
  readonly name: string
  /** Instant that the answer is about, s. */
  readonly time: number
  readonly stack: Stack
  readonly path: OilPath
  readonly standing: readonly StandingBy[]
  /** What the line pilots. */
  readonly piloted: readonly Piloted[]
  readonly shutIn?: ShutIn
  /** The circuit hunts at this instant. */
  readonly hunting: boolean
}

/** What of a recording is needed for answers. */
export type Recording = Pick<
  RunResult,
  'times' | 'columns' | 'signals' | 'lineOfPort' | 'conditions' | 'lines'
>

/** @param moments shows the instant */
export function answerPressure(moments: Moments, recording: Recording, line: number): PressureAnswer {
  const ports = new LinePorts(moments.network)
  const stack = pressureStack(ports, line)
  const t = moments.time
  return {
    line,
    name: recording.lines[line],
    time: t,
    stack,
    path: oilPath(ports, line),
    standing: standingBy(ports, [line]).filter(({ passes }) => !passes),
    piloted: pilotedBy(ports, line),
    ...(stack.fixedBy.kind === 'trapped' ? { shutIn: shutInSince(moments, recording, line) } : {}),
    hunting: recording.conditions.some((c) => c.name === 'hunting' && c.start <= t && c.end >= t),
  }
}

/** Since when a line is shut in, as far as the recording goes back, and the part by which it was joined before. */
function shutInSince(moments: Moments, recording: Recording, line: number): ShutIn {
  const { times } = recording
  const now = moments.time
  const stackAt = (sample: number) => {
    moments.showRecorded(recording, times[sample])
    return pressureStack(new LinePorts(moments.network), line)
  }
  let shut = sampleAt(times, now).index
  let open = shut
  for (let back = 1; open > 0 && open === shut; back *= 2) {
    open = Math.max(0, shut - back)
    if (stackAt(open).fixedBy.kind === 'trapped') shut = open
  }
  while (shut - open > 1) {
    const middle = (shut + open) >> 1
    if (stackAt(middle).fixedBy.kind === 'trapped') shut = middle
    else open = middle
  }
  const before = stackAt(open)
  const { up, down } = oilPath(new LinePorts(moments.network), line)
  const joined = [...up, ...down]
    .filter((step) => step.from === line || step.to === line)
    .sort((a, b) => b.share - a.share)
    .map(({ part }) => part)
  moments.showRecorded(recording, now)
  // of what joined it before, the part that keeps it apart now
  const ports = new LinePorts(moments.network)
  const apart = pressureStack(ports, line).lines.flatMap((each) => partsShutAt(ports, each))
  const by =
    [...before.parts, ...joined].find((part) => apart.includes(part)) ??
    (apart.length === 1 ? apart[0] : undefined)
  return before.fixedBy.kind === 'trapped'
    ? { since: times[open] }
    : { since: times[shut], ...(by === undefined ? {} : { by }) }
}

/** What is asked about: a gauge by its designation, a port, or a line by its name. */
export interface Place {
  readonly gauge?: string
  readonly port?: string
  readonly net?: string
}
/** @returns the index of its line @throws Error in plain words where there is none */
export function lineOfPlace(
  sheet: Sheet,
  { lines, lineOfPort }: Pick<RunResult, 'lines' | 'lineOfPort'>,
  { gauge, port, net }: Place,
): number {
  if (port !== undefined) {
    const line = lineOfPort[port]
    if (line === undefined) throw new Error(`There is no port "${port}".`)
    return line
  }
  if (net !== undefined) {
    const line = lines.indexOf(net)
    if (line < 0) throw new Error(`There is no line "${net}"; there are ${lines.join(', ')}.`)
    return line
  }
  const component = sheet.components.find((c) => nameOf(c) === gauge || c.id === gauge)
  if (!component) throw new Error(`There is no gauge "${gauge}".`)
  const found = Object.entries(lineOfPort).find(([key]) => key.startsWith(portKey(component.id, '')))
  if (!found) throw new Error(`${gauge} is on no line.`)
  return found[1]
}
