/** A recorded run as states, each with sentences: what begins it, what moves, by which oil, at what pressures, what holds still and why. */
import type { Show } from '../catalogue/kind'
import { deliveryPortsOf } from '../sheet/line-roles'
import { nameOf, type Sheet } from '../sheet/schema'
import { pipeFlows, type PipeFlow } from '../simulate/playback'
import { sampleAt, type RunResult } from '../simulate/result'
import { answerPressure, type PressureAnswer } from './answer'
import { causesOf, causeText } from './causes'
import { happeningsOf, type Happening } from './happenings'
import type { Moments } from './moment'
import { measuringPlaces } from './measuring-places'
import { MotionSentences } from './motion-sentences'
import type { Direction } from './movers'
import { goingRound } from './oil-path'
import { pipeShares } from './path-on-sheet'
import { powerNow } from './power'
import { LEAST_FLOW } from './ways'
import { withoutRepetitions } from './repetitions'
import type { Sentence } from './sentence'
import { LinePorts, NO_PRESSURE, type FixedBy } from './stack'
import { CHANGES, cutIntoStates, EARLY, isMotion, withOutcomes, type RunState } from './states'
import { fixedByText, instantText, lowerFirst, partName, sentence, withoutNoise } from './words'

export interface Moving {
  readonly part: string
  readonly direction: Direction
  /** m/s or rad/s */
  readonly speed: number
}
export interface WalkthroughState {
  /** s */
  readonly t: number
  readonly end: number
  /** Instant that shows it best, s. */
  readonly shownAt: number
  readonly cause: string
  /** The state in a line. */
  readonly summary: string
  readonly moving: readonly Moving[]
  readonly sentences: readonly Sentence[]
  /** The way of the oil that works, or that goes round where nothing does: share by pipe, 0 to 1. */
  readonly path: readonly (readonly [pipe: string, share: number])[]
  /** Whether a command ends it, what happens by itself, or the end of the run. */
  readonly endsBy: 'command' | 'effect' | 'end'
  /** It and the states before it, so many, come again so often until this instant. */
  readonly repeats?: { readonly states: number; readonly times: number; readonly until: number }
}

/** Where in a state its facts are taken. */
const LATE = 0.7
const LAST = 0.98
/** A pressure that changes within a state is reported with both ends where it changes by at least so many Pa. */
const LEAST_CHANGE = 3e5
/** Oil going round and heat below these are not reported: share of what is put in, W. */
const WORTH = 0.1
const LEAST_POWER = 30
/** s: a warning that is over sooner is a swing of the pressure and nothing to act upon. */
const SHORTEST_WARNING = 0.05

class Writer {
  private readonly sheet: Sheet
  private readonly show: Show
  private readonly motions: MotionSentences
  private readonly flows: readonly PipeFlow[]
  private readonly places: ReturnType<typeof measuringPlaces>

  constructor(
    private readonly moments: Moments,
    private readonly result: RunResult,
    show: Show,
  ) {
    this.show = withoutNoise(show)
    this.sheet = moments.sheet
    this.motions = new MotionSentences(moments, result, this.show)
    this.places = measuringPlaces(this.sheet, result)
    this.flows = pipeFlows(this.sheet, result)
  }

  state(state: RunState, next: RunState | undefined): WalkthroughState {
    const { moments, result, motions } = this
    const { start, end } = state
    const late = start + LATE * (end - start)
    const shownAt = result.times[sampleAt(result.times, late).index]
    moments.showRecorded(result, shownAt)
    const ports = new LinePorts(moments.network)
    const moving = motions.movers.map((mover) => motions.of(mover, state, shownAt))
    const active = moving.filter((m) => m.direction !== 0)
    const begunBy = causesOf(state, active.length > 0)
    const cause = causeText(begunBy, start)
    const at = shownAt
    const sentences = [
      ...this.causes(state, begunBy),
      ...this.warnings(state),
      ...active.flatMap((m) => motions.moving(m, ports, at)),
      ...moving.filter((m) => m.direction === 0).map(({ mover }) => motions.still(mover, ports, at)),
      ...this.pressures(state, at),
      ...this.losses(ports, at),
      ...(next
        ? [
            {
              kind: 'end' as const,
              text: `It lasts until ${instantText(end, this.show)}: ${lowerFirst(causeText(causesOf(next, false), next.start))}.`,
              at: end,
            },
          ]
        : []),
    ]
    const moves = active.length
      ? active.map((m) => motions.summary(m)).join(', ')
      : motions.movers.length
        ? 'nothing moves'
        : ''
    return {
      t: start,
      end,
      shownAt,
      cause,
      summary: sentence([cause, moves].filter(Boolean).join('; ')),
      moving: active.map(({ mover, direction, speed }) => ({ part: mover.component, direction, speed })),
      sentences,
      path: this.pathOf(sentences, at),
      endsBy: !next ? 'end' : next.happenings.some((h) => h.kind !== 'effect') ? 'command' : 'effect',
    }
  }

  /** Pipes along the lines that sentences follow. */
  private pathOf(sentences: readonly Sentence[], at: number): WalkthroughState['path'] {
    const { moments, result } = this
    const moving = sentences.filter((s) => s.kind === 'path')
    const followed = moving.length ? moving : sentences.filter((s) => s.kind === 'loss')
    const { index } = sampleAt(result.times, at)
    const shares = new Map<string, number>()
    for (const { line } of followed) {
      if (line === undefined) continue
      const answer = answerPressure(moments, result, line)
      const own = pipeShares(answer, result.lineOfPipe, this.flows, (s) => result.columns[s][index])
      for (const [pipe, share] of own) shares.set(pipe, Math.max(share, shares.get(pipe) ?? 0))
    }
    return [...shares]
  }

  /** What happens in the state and is not in its cause; motions are reported with what moves. */
  private causes({ happenings, start }: RunState, begunBy: readonly Happening[]): Sentence[] {
    return happenings
      .filter((h) => !begunBy.includes(h) && !isMotion(h))
      .map(({ text, at, part, kind }) => ({
        kind: kind === 'effect' ? 'effect' : 'cause',
        text: sentence(
          at - start > 0.1 && kind === 'effect' ? `At ${instantText(at, this.show)} ${text}` : text,
        ),
        at,
        ...(part === undefined ? {} : { part }),
      }))
  }

  private warnings({ start, end }: RunState): Sentence[] {
    const { result, show } = this
    const byKind = new Map<string, (typeof result.conditions)[number][]>()
    for (const condition of result.conditions) {
      const { severity, start: at, end: until, component, pipe, node, name } = condition
      const isWorthIt = severity === 'danger' || (severity === 'warning' && until - at >= SHORTEST_WARNING)
      if (!isWorthIt || at < start || at >= end) continue
      const key = `${component ?? pipe ?? node} ${name}`
      byKind.set(key, [...(byKind.get(key) ?? []), condition])
    }
    return [...byKind.values()].map((all) => {
      const [{ component, pipe, node, label, worst, start: at, end: until }] = all
      const part = component ?? pipe
      const place =
        part === undefined ? (node === undefined ? '' : result.lines[node]) : partName(this.sheet, part)
      const extent = worst ? ` (${worst.label} ${show(worst.value, worst.quantity, 3)})` : ''
      const lasts = until > at ? ` for ${show(until - at, 'time', 2)}` : ''
      const again = all.length > 1 ? `, ${all.length} times in this state` : ''
      return {
        kind: 'warning' as const,
        text: `Warning: ${place}: ${label}${extent}${lasts}${again}.`,
        at,
        ...(part === undefined ? {} : { part }),
        ...(node === undefined ? {} : { line: node }),
      }
    })
  }

  /** The pressures at gauges and test points, and what sets each. */
  private pressures({ start, end }: RunState, at: number): Sentence[] {
    const { moments, result, show, sheet } = this
    const byLine = new Map<number, string[]>()
    for (const { component, line } of this.places)
      byLine.set(line, [...(byLine.get(line) ?? []), nameOf(component)])
    const lateIn = (share: number) => start + share * (end - start)
    const found = [...byLine].map(([line, names]) => {
      const now = answerPressure(moments, result, line)
      const sampled = (t: number) => result.columns[line][sampleAt(result.times, t).index]
      const from = sampled(lateIn(EARLY))
      const to = sampled(lateIn(LAST))
      const changes = Math.abs(to - from) > Math.max(LEAST_CHANGE, CHANGES * Math.abs(now.stack.pressure))
      return { line, names, now, from, to, changes }
    })
    const fixed = ({ stack, shutIn }: PressureAnswer) => lowerFirst(fixedByText(sheet, stack, show, shutIn))
    // what sets a pressure that changes may change with it
    const changing = found.filter((f) => f.changes)
    const ends = [EARLY, LAST].map((share) => {
      if (changing.length) moments.showRecorded(result, lateIn(share))
      return new Map(changing.map(({ line }) => [line, answerPressure(moments, result, line)]))
    })
    moments.showRecorded(result, at)
    return found.map(({ line, names, now, from, to, changes }) => {
      const name = names.join(', ')
      const { component } = this.places.find((p) => p.line === line)!
      const [first, last] = ends.map((answers) => answers.get(line))
      const isFilling = changes && to > from && last!.stack.fixedBy.kind === 'trapped'
      const text = isFilling
        ? `${name}: from ${show(from, 'pressure', 3)} to ${show(to, 'pressure', 3)}; what flows in has no way out yet.`
        : changes
          ? `${name}: from ${show(from, 'pressure', 3)} to ${show(to, 'pressure', 3)}; ${this.fixedInTurn(first!, last!)}`
          : Math.abs(now.stack.pressure) < NO_PRESSURE
            ? `${name}: no pressure.`
            : `${name}: ${show(now.stack.pressure, 'pressure', 3)}; ${fixed(now)}`
      return { kind: 'pressure' as const, text, at, part: component.id, line }
    })
  }

  /** What sets a pressure early and late in a state; what only passes, such as a line that runs empty, is left out. */
  private fixedInTurn(first: PressureAnswer, last: PressureAnswer): string {
    const [early, late] = [first, last].map(({ stack, shutIn }) =>
      lowerFirst(fixedByText(this.sheet, stack, this.show, shutIn)),
    )
    const same =
      first.stack.fixedBy.kind === last.stack.fixedBy.kind &&
      first.stack.fixedBy.part === last.stack.fixedBy.part
    return same || PASSING_KINDS.has(first.stack.fixedBy.kind)
      ? late
      : `at first ${withoutStop(early)}, at the end ${late}`
  }

  /** Oil that goes round without work, and where the power goes. */
  private losses(ports: LinePorts, at: number): Sentence[] {
    const { moments, show, sheet } = this
    const power = powerNow(moments.network)
    const sentences: Sentence[] = []
    for (const element of moments.network.elements) {
      const delivery = element.resolved ? deliveryPortsOf(element.resolved) : []
      for (const name of delivery) {
        const port = element.portNames.indexOf(name)
        if (port < 0 || element.local.q[port] > -LEAST_FLOW) continue
        const line = element.nodes[port]
        for (const { part, flow, heat } of goingRound(ports, line)) {
          if (heat < Math.max(LEAST_POWER, WORTH * power.input)) continue
          sentences.push({
            kind: 'loss',
            text: `${show(flow, 'flow', 3)} of ${partName(sheet, element.id)} go to the tank through ${partName(sheet, part)} without doing work: ${show(heat, 'power', 3)} of heat.`,
            at,
            part,
            line,
          })
        }
      }
    }
    if (power.input > LEAST_POWER) {
      const parts = power.heatBy
        .filter(({ value }) => value > WORTH * power.input)
        .slice(0, 4)
        .map(({ part, value }) => `${partName(sheet, part)} ${show(value, 'power', 3)}`)
      sentences.push({
        kind: 'loss',
        text: `${show(power.input, 'power', 3)} are put in; ${Math.abs(power.heat / power.input - 1) < 0.02 ? 'all of it becomes' : `${show(power.heat, 'power', 3)} become`} heat${parts.length ? ` (${parts.join(', ')})` : ''}.`,
        at,
      })
    }
    return sentences
  }
}

/** What a pressure is only in passing, on its way to another. */
const PASSING_KINDS: ReadonlySet<FixedBy> = new Set(['restriction', 'returnLine', 'void'])
const withoutStop = (text: string) => text.replace(/\.$/, '')

/** The walkthrough of a recorded run. @param moments of the same run @param result of a recording with samples */
export function walkthroughOf(moments: Moments, result: RunResult, show: Show): WalkthroughState[] {
  const states = withOutcomes(cutIntoStates(happeningsOf(moments, result, show), result.duration))
  const writer = new Writer(moments, result, show)
  return withoutRepetitions(states.map((state, i) => writer.state(state, states[i + 1])))
}
