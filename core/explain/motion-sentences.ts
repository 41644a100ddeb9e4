/** What moves in a state of a run, how fast, against what and by which oil, and what stands still and why, as sentences. */
import type { Show } from '../catalogue/kind'
import { deliveryPortsOf } from '../sheet/line-roles'
import type { Sheet } from '../sheet/schema'
import { sampleAt, valueAt, type RunResult } from '../simulate/result'
import type { Element } from '../simulate/circuit/elements'
import { answerPressure } from './answer'
import type { Moments } from './moment'
import { directionOf, moversOf, verbOf, type Direction, type Mover } from './movers'
import { mainWay, oilPath, standingBy, type OilPath } from './oil-path'
import { answerPart } from './part'
import type { Sentence } from './sentence'
import { VOID, type LinePorts } from './stack'
import { CHANGES, EARLY, type RunState } from './states'
import { LEAST_FLOW } from './ways'
import { lowerFirst, partName } from './words'

/** Part of a state over which a speed is looked at; range over its mean, and times that it crosses it, beyond which it swings. */
const SWINGS = [0.55, 0.85] as const
const SWINGING = 1
const CROSSINGS = 3
/** A difference of pressure that keeps something from moving, Pa. */
const WAITS = 10e5
/** m/s, rad/s: what is faster creeps. */
const LEAST_SPEED = 5e-4
/** Share of the oil of an actuator from which on another pump is named. */
const NAMED_SHARE = 0.1

export interface Motion {
  readonly mover: Mover
  readonly direction: Direction
  /** m/s or rad/s, at the instant that shows it and early in the state. */
  readonly speed: number
  readonly early: number
  /** s */
  readonly start: number
  readonly end: number
  readonly toAndFro: boolean
  /** Least and greatest speed where it swings. */
  readonly swings?: readonly [number, number]
}

export class MotionSentences {
  readonly movers: readonly Mover[]
  private readonly sheet: Sheet

  /** @param show without noise */
  constructor(
    private readonly moments: Moments,
    private readonly result: RunResult,
    private readonly show: Show,
  ) {
    this.sheet = moments.sheet
    this.movers = moversOf(this.sheet, result)
  }

  /** How a mover moves within a state. @param at instant that shows it, s */
  of(mover: Mover, { start, end }: RunState, at: number): Motion {
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
  summary(m: Motion): string {
    return m.toAndFro
      ? `${m.mover.name} moves to and fro`
      : `${m.mover.name} ${verbOf(m.mover, m.direction)} at ${this.speedText(m)}`
  }

  private speedText({ mover, speed, early, swings }: Motion): string {
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

  moving(m: Motion, ports: LinePorts, at: number): Sentence[] {
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
  still(mover: Mover, ports: LinePorts, at: number): Sentence {
    const { moments, result, show, sheet } = this
    const words = answerPart(moments, mover.component, show)?.words ?? ''
    const state = lowerFirst(words.replace(/^Stands( still)? ?/, '').replace(/\.$/, ''))
    const reasons = new Set<string>()
    const waiting = new Set<string>()
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
        for (const { part, before, behind, passes } of standingBy(ports, [line]))
          if (behind - before > WAITS && !passes)
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
}

const isPump = (element: Element | undefined) =>
  !!element?.resolved && deliveryPortsOf(element.resolved).length > 0
