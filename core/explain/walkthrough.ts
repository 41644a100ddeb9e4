/** A recorded run as states, each with sentences: what begins it, what moves, by which oil, at what pressures, what holds still and why. */
import type { Show } from '../catalogue/kind'
import { deliveryPortsOf } from '../sheet/line-roles'
import { nameOf, type Sheet } from '../sheet/schema'
import { pipeFlows, type PipeFlow } from '../simulate/playback'
import { sampleAt, valueAt, type RunResult } from '../simulate/result'
import type { Element } from '../simulate/circuit/elements'
import { answerPressure, type PressureAnswer } from './answer'
import { happeningsOf, type Happening } from './happenings'
import type { Moments } from './moment'
import { measuringPlaces } from './measuring-places'
import { directionOf, moversOf, verbOf, type Direction, type Mover } from './movers'
import { goingRound, mainWay, oilPath, standingBy, type OilPath } from './oil-path'
import { answerPart } from './part'
import { pipeShares } from './path-on-sheet'
import { powerNow } from './power'
import { withoutRepetitions } from './repetitions'
import { LinePorts, VOID, type FixedBy } from './stack'
import { cutIntoStates, isMotion, withOutcomes, type RunState } from './states'
import { fixedByText, instantText, lowerFirst, partName, sentence, withoutNoise } from './words'

export type SentenceKind =
  'cause' | 'effect' | 'moving' | 'path' | 'still' | 'pressure' | 'loss' | 'warning' | 'end'
export interface Sentence {
  readonly kind: SentenceKind
  readonly text: string
  /** Instant that it is about, s. */
  readonly at: number
  /** Its place on the sheet. */
  readonly part?: string
  /** Line whose oil it follows. */
  readonly line?: number
}
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
const EARLY = 0.3
const LAST = 0.98
/** A value that changes by more than this share within a state is reported with both ends, and by at least so many Pa. */
const CHANGES = 0.12
const LEAST_CHANGE = 3e5
/** Part of a state over which a speed is looked at; range over its mean, and times that it crosses it, beyond which it swings. */
const SWINGS = [0.55, 0.85] as const
const SWINGING = 1
const CROSSINGS = 3
/** Oil going round and heat below these are not reported: share of what is put in, W. */
const WORTH = 0.1
const LEAST_POWER = 30
/** A difference of pressure that keeps something from moving, Pa. */
const WAITS = 10e5
/** m/s, rad/s: what is faster creeps. */
const LEAST_SPEED = 5e-4
/** m³/s: less is leakage. */
const LEAST_FLOW = 1e-7
/** Lower pressures are none worth a reason, Pa. */
const NO_PRESSURE = 0.5e5
/** Share of the oil of an actuator from which on another pump is named. */
const NAMED_SHARE = 0.1
/** Most causes that a line lists. */
const MOST_CAUSES = 5
/** s: a warning that is over sooner is a swing of the pressure and nothing to act upon. */
const SHORTEST_WARNING = 0.05

class Writer {
  private readonly sheet: Sheet
  private readonly show: Show
  private readonly movers: readonly Mover[]
  private readonly flows: readonly PipeFlow[]
  private readonly places: ReturnType<typeof measuringPlaces>

  constructor(
    private readonly moments: Moments,
    private readonly result: RunResult,
    show: Show,
  ) {
    this.show = withoutNoise(show)
    this.sheet = moments.sheet
    this.movers = moversOf(this.sheet, result)
    this.places = measuringPlaces(this.sheet, result)
    this.flows = pipeFlows(this.sheet, result)
  }

  state(state: RunState, next: RunState | undefined): WalkthroughState {
    const { moments, result } = this
    const { start, end } = state
    const late = start + LATE * (end - start)
    const shownAt = result.times[sampleAt(result.times, late).index]
    moments.showRecorded(result, shownAt)
    const ports = new LinePorts(moments.network)
    const moving = this.movers.map((mover) => this.movementOf(mover, state, shownAt))
    const active = moving.filter((m) => m.direction !== 0)
    const begunBy = causesOf(state, active.length > 0)
    const cause = causeText(begunBy, start)
    const at = shownAt
    const sentences = [
      ...this.causes(state, begunBy),
      ...this.warnings(state),
      ...active.flatMap((m) => this.movingSentences(m, ports, at)),
      ...moving.filter((m) => m.direction === 0).map(({ mover }) => this.stillSentence(mover, ports, at)),
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
      ? active.map((m) => this.moveText(m)).join(', ')
      : this.movers.length
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

  private movementOf(mover: Mover, { start, end }: RunState, at: number) {
    const { result } = this
    const read = (t: number) => valueAt(result, mover.speed, t)
    const { least, most, mean, crossings } = this.speedsWithin(
      mover,
      start + SWINGS[0] * (end - start),
      start + SWINGS[1] * (end - start),
    )
    // what swings is judged by its mean
    const swings =
      crossings >= CROSSINGS && most - least > SWINGING * Math.abs(mean) && Math.abs(mean) > mover.still
    const speed = swings ? mean : read(at)
    const early = swings ? mean : read(start + EARLY * (end - start))
    const direction = directionOf(speed, mover.still)
    const travel =
      mover.position < 0 ? 0 : valueAt(result, mover.position, end) - valueAt(result, mover.position, start)
    const toAndFro = direction !== 0 && travel !== 0 && Math.sign(travel) !== direction
    return {
      mover,
      direction,
      speed,
      early,
      start,
      end,
      toAndFro,
      ...(swings ? { swings: [least, most] } : {}),
    }
  }

  /** Least, greatest and mean speed between two instants, and how often it crosses its mean. */
  private speedsWithin({ speed }: Mover, from: number, to: number) {
    const { times, columns } = this.result
    const values = Array.from(columns[speed]).slice(
      sampleAt(times, from).index,
      sampleAt(times, to).index + 1,
    )
    const mean = values.reduce((sum, v) => sum + v, 0) / values.length
    const crossings = values.filter((v, i) => i > 0 && v > mean !== values[i - 1] > mean).length
    return { least: Math.min(...values), most: Math.max(...values), mean, crossings }
  }

  /** What a mover does in a few words: "1-1A1 extends at 77 mm/s". */
  private moveText(m: ReturnType<Writer['movementOf']>): string {
    return m.toAndFro
      ? `${m.mover.name} moves to and fro`
      : `${m.mover.name} ${verbOf(m.mover, m.direction)} at ${this.speedText(m)}`
  }

  private speedText({ mover, speed, early, swings }: ReturnType<Writer['movementOf']>): string {
    const quantity = this.result.signals[mover.speed].quantity
    const text = (value: number) => this.show(Math.abs(value), quantity, 3)
    if (swings) {
      const [slow, fast] = swings.map(Math.abs).sort((a, b) => a - b)
      return swings[0] < 0 === swings[1] < 0
        ? `${text(speed)} in the mean, swinging between ${text(slow)} and ${text(fast)}`
        : `${text(speed)} in the mean, swinging to ${text(fast)} and back to ${text(slow)} the other way`
    }
    const changes =
      directionOf(early, mover.still) === directionOf(speed, mover.still) &&
      Math.abs(early - speed) > CHANGES * Math.max(Math.abs(early), Math.abs(speed))
    return changes ? `${text(early)}, later ${text(speed)}` : text(speed)
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
    return result.conditions
      .filter(
        (c) =>
          c.start >= start &&
          c.start < end &&
          (c.severity === 'danger' || (c.severity === 'warning' && c.end - c.start >= SHORTEST_WARNING)),
      )
      .map(({ component, pipe, node, label, worst, start: at, end: until }) => {
        const part = component ?? pipe
        const place =
          part === undefined ? (node === undefined ? '' : result.lines[node]) : partName(this.sheet, part)
        const extent = worst ? ` (${worst.label} ${show(worst.value, worst.quantity, 3)})` : ''
        const lasts = until > at ? ` for ${show(until - at, 'time', 2)}` : ''
        return {
          kind: 'warning' as const,
          text: `Warning: ${place}: ${label}${extent}${lasts}.`,
          at,
          ...(part === undefined ? {} : { part }),
          ...(node === undefined ? {} : { line: node }),
        }
      })
  }

  private movingSentences(m: ReturnType<Writer['movementOf']>, ports: LinePorts, at: number): Sentence[] {
    const { result, show, moments } = this
    const { mover, direction, start, end } = m
    const { name, component, position, load } = mover
    const way =
      position < 0
        ? ''
        : ((quantity) =>
            ` from ${show(valueAt(result, position, start), quantity, 3)} to ${show(valueAt(result, position, end), quantity, 3)}`)(
            result.signals[position].quantity,
          )
    const force = load < 0 ? 0 : valueAt(result, load, at) * direction
    const against =
      load < 0 || Math.abs(force) < 1
        ? ''
        : force > 0
          ? `, against ${show(force, result.signals[load].quantity, 3)}`
          : `; its load helps with ${show(-force, result.signals[load].quantity, 3)}`
    const sentences: Sentence[] = [
      {
        kind: 'moving',
        text: m.toAndFro
          ? `${name} moves to and fro${way}.`
          : `${name} ${verbOf(mover, direction)}${way} at ${this.speedText(m)}${against}.`,
        at,
        part: component,
      },
    ]
    for (const id of mover.driven) {
      const element = moments.element(id)
      if (!element) continue
      if (id !== component) {
        const words = answerPart(moments, id, show)?.words
        if (words)
          sentences.push({
            kind: 'moving',
            text: `${partName(this.sheet, id)} ${lowerFirst(words)}`,
            at,
            part: id,
          })
      }
      sentences.push(...this.pathSentences(element, ports, at))
    }
    return sentences
  }

  /** Where the oil of an actuator comes from and where it goes. */
  private pathSentences(element: Element, ports: LinePorts, at: number): Sentence[] {
    const { sheet, show, moments } = this
    const name = partName(sheet, element.id)
    const oil = Array.from(element.nodes, (line, port) => ({ line, flow: element.local.q[port] })).filter(
      ({ line }) => ports.network.nodes[line].domain === 'oil',
    )
    const inlet = oil.reduce((best, one) => (one.flow > best.flow ? one : best))
    const outlet = oil.reduce((best, one) => (one.flow < best.flow ? one : best))
    const way = (path: OilPath, line: number, direction: 'up' | 'down') =>
      mainWay(path, line, direction)
        .filter((part) => part !== element.id && sheet.components.some((c) => c.id === part))
        .filter((part, i, parts) => part !== parts[i - 1])
        .map((part) => partName(sheet, part))
    const sentences: Sentence[] = []
    if (inlet.flow > LEAST_FLOW) {
      const path = oilPath(ports, inlet.line)
      const parts = way(path, inlet.line, 'up').reverse()
      const others = path.up
        .filter(
          ({ part, share }) =>
            share > NAMED_SHARE && isPump(moments.element(part)) && !parts.includes(partName(sheet, part)),
        )
        .map(({ part, share }) => `${show(share, 'share', 2)} of it from ${partName(sheet, part)}`)
      if (parts.length)
        sentences.push({
          kind: 'path',
          text: `Its oil, ${show(inlet.flow, 'flow', 3)}: ${[...parts, name].join(' > ')}${others.length ? `; ${others.join(', ')}` : ''}.`,
          at,
          part: element.id,
          line: inlet.line,
        })
    }
    if (outlet.flow < -LEAST_FLOW) {
      const parts = way(oilPath(ports, outlet.line), outlet.line, 'down')
      if (parts.length)
        sentences.push({
          kind: 'path',
          text: `What it pushes out, ${show(-outlet.flow, 'flow', 3)}: ${[name, ...parts].join(' > ')}.`,
          at,
          part: element.id,
          line: outlet.line,
        })
    }
    return sentences
  }

  /** Why something stands still. */
  private stillSentence(mover: Mover, ports: LinePorts, at: number): Sentence {
    const { moments, result, show, sheet } = this
    const words = answerPart(moments, mover.component, show)?.words ?? ''
    const state = lowerFirst(words.replace(/^Stands( still)? ?/, '').replace(/\.$/, ''))
    const reasons = new Set<string>()
    const waiting = new Set<string>()
    /** A valve of several ways is not shut while one of them is open. */
    const passes = (part: string) => {
      const element = moments.element(part)
      return !!element && ports.waysOf(element).some(({ flow }) => Math.abs(flow) > LEAST_FLOW)
    }
    for (const id of mover.driven) {
      const element = moments.element(id)
      const isAtStop = element?.resolved?.kind.traits?.movement?.isAtStop?.(element.local) ?? false
      element?.nodes.forEach((line, port) => {
        if (moments.network.nodes[line].domain !== 'oil' || element.model.idlePorts?.includes(port)) return
        const { stack, shutIn } = answerPressure(moments, result, line)
        const where = `the oil at its port ${element.portNames[port]}`
        if (stack.fixedBy.kind === 'void' && stack.pressure < VOID && !isAtStop)
          reasons.add(`there is a void at its port ${element.portNames[port]}, which oil must fill first`)
        if (stack.fixedBy.kind === 'trapped' && stack.pressure > WAITS)
          reasons.add(
            `${where} is shut in${shutIn?.by === undefined ? '' : ` by ${partName(sheet, shutIn.by)}`} at ${show(stack.pressure, 'pressure', 3)}`,
          )
        for (const { part, before, behind } of standingBy(ports, [line]))
          if (behind - before > WAITS && !passes(part))
            waiting.add(`${partName(sheet, part)} is shut, with ${show(behind, 'pressure', 3)} before it`)
      })
    }
    const speed = Math.abs(valueAt(result, mover.speed, at))
    const still = speed < LEAST_SPEED ? 'stands still' : 'creeps'
    const why = [...reasons, ...(reasons.size ? [] : waiting)].slice(0, 2)
    return {
      kind: 'still',
      text: `${mover.name} ${still}${state ? `: ${state}` : ''}${why.length ? `; ${why.join('; ')}` : ''}.`,
      at,
      part: mover.component,
    }
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
const isPump = (element: Element | undefined) =>
  !!element?.resolved && deliveryPortsOf(element.resolved).length > 0
const withoutStop = (text: string) => text.replace(/\.$/, '')

/**
 * Happenings that count as the cause of a state: commands, and what the control does to the machine with the switch that made it do so; else
 * what follows by itself. Relays and steps count where they do nothing to the machine.
 */
function causesOf({ happenings }: RunState, isMoving: boolean): Happening[] {
  const causes = happenings.filter((h) => h.kind !== 'effect')
  if (causes.length) {
    const acted = causes.find((h) => h.kind === 'control')
    const switched = happenings.filter((h) => h.role === 'switch' && acted && h.at <= acted.at)
    const outer = causes.filter((h) => h.role !== 'control')
    const isBegun = switched.length > 0 || outer.some((h) => h.kind !== 'control')
    // where neither a hand nor a switch began it, a timer or a step did
    const begun = isBegun || !outer.length ? [] : causes.filter((h) => h.role === 'control').slice(0, 1)
    return [...begun, ...switched, ...(outer.length ? outer : causes)].slice(0, MOST_CAUSES)
  }
  const effects = happenings.filter((h) => !isMotion(h))
  if (effects.length) return effects.slice(0, MOST_CAUSES)
  return isMoving ? [] : happenings.slice(0, MOST_CAUSES)
}
/** What begins a state, in a clause; empty where only what moves is new. */
function causeText(begunBy: readonly Happening[], start: number): string {
  const begins = start === 0 && !begunBy.some((h) => h.kind !== 'effect') ? ['the run begins'] : []
  return [...begins, ...begunBy.map((h) => h.text)].join(', ')
}

/** The walkthrough of a recorded run. @param moments of the same run @param result of a recording with samples */
export function walkthroughOf(moments: Moments, result: RunResult, show: Show): WalkthroughState[] {
  const states = withOutcomes(cutIntoStates(happeningsOf(moments, result, show), result.duration))
  const writer = new Writer(moments, result, show)
  return withoutRepetitions(states.map((state, i) => writer.state(state, states[i + 1])))
}
