/** Where the energy of a run, or of a part of it, goes: put in by motors and loads, done as work, turned into heat, kept. */
import { families, POWERS, Power, type Family, type Show } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { runMachine } from '../control/run'
import type { Sheet } from '../sheet/schema'
import type { RunResult } from '../simulate/result'
import { resolveTank } from '../sheet/resolve'
import { Moments } from './moment'
import { partOf } from './stack'

export interface EnergyShare {
  readonly part: string
  /** J, above 0. */
  readonly energy: number
}
/** Energies of an interval, J. What a load or a store gives back counts as put in. */
export interface EnergyAccount {
  /** s */
  readonly from: number
  readonly to: number
  readonly input: readonly EnergyShare[]
  readonly given: readonly EnergyShare[]
  readonly work: readonly EnergyShare[]
  readonly heat: readonly EnergyShare[]
  readonly kept: readonly EnergyShare[]
  /** Taken out of the oil by coolers. */
  readonly cooled: number
  /** Put in and given, less work, heat and what is kept: oil under pressure, and what lies between the samples. */
  readonly rest: number
}

/** Sum of shares, J. */
export const totalOf = (shares: readonly EnergyShare[]) => shares.reduce((sum, { energy }) => sum + energy, 0)

/** Adds up the powers at the samples of an interval by the trapezoidal rule. @param moments of the same run */
export function energyOf(
  moments: Moments,
  result: Pick<RunResult, 'times' | 'columns'>,
  from: number,
  to: number,
): EnergyAccount {
  const { times } = result
  const { elements } = moments.network
  const sums = elements.map(() => new Float64Array(POWERS))
  let before: Float64Array[] | undefined
  let then = 0
  for (let i = 0; i < times.length; i++) {
    if (times[i] < from || times[i] > to) continue
    moments.showRecorded(result, times[i])
    const now = elements.map(({ local }) => local.power.slice())
    if (before)
      for (let e = 0; e < elements.length; e++)
        for (let k = 0; k < POWERS; k++) sums[e][k] += 0.5 * (times[i] - then) * (before[e][k] + now[e][k])
    before = now
    then = times[i]
  }
  const by = (kind: number, sign: 1 | -1): EnergyShare[] =>
    elements
      .map((element, e) => ({ part: partOf(element), energy: sign * sums[e][kind] }))
      .filter(({ energy }) => energy > 0)
      .sort((a, b) => b.energy - a.energy)
  const input = by(Power.input, 1)
  const given = [...by(Power.useful, -1), ...by(Power.stored, -1)].sort((a, b) => b.energy - a.energy)
  const work = by(Power.useful, 1)
  const heat = by(Power.heat, 1)
  const kept = [...by(Power.stored, 1), ...by(Power.input, -1)].sort((a, b) => b.energy - a.energy)
  return {
    from,
    to,
    input,
    given,
    work,
    heat,
    kept,
    cooled: sums.reduce((sum, s) => sum + s[Power.cooled], 0),
    rest: totalOf(input) + totalOf(given) - totalOf(work) - totalOf(heat) - totalOf(kept),
  }
}

/** A place in the flow picture: an origin, all of it, a group, or a part. */
export interface EnergyNode {
  readonly id: string
  readonly label: string
  readonly kind: 'input' | 'given' | 'all' | 'work' | 'heat' | 'kept' | 'rest'
  readonly part?: string
}
export interface EnergyLink {
  readonly source: string
  readonly target: string
  /** J */
  readonly value: number
}

/** Parts below this share of the whole are added up. */
const LEAST_SHARE = 0.01
/** Most parts of a group that are shown one by one. */
const MOST_PARTS = 8

/** The account as a graph from what is put in to where it ends: parts in groups, heat by family of components. */
export function energyGraph(
  sheet: Sheet,
  account: EnergyAccount,
  nameOfPart: (part: string) => string,
): { readonly nodes: EnergyNode[]; readonly links: EnergyLink[] } {
  const nodes: EnergyNode[] = [{ id: 'all', label: 'all power', kind: 'all' }]
  const links: EnergyLink[] = []
  const whole = totalOf(account.input) + totalOf(account.given)
  const least = LEAST_SHARE * whole
  const listed = (shares: readonly EnergyShare[]) => {
    const shown = shares.filter((s, i) => s.energy >= least && i < MOST_PARTS)
    return { shown, others: totalOf(shares) - totalOf(shown) }
  }
  const sources = (shares: readonly EnergyShare[], kind: 'input' | 'given', others: string) => {
    const { shown, others: left } = listed(shares)
    for (const { part, energy } of shown) {
      const name = nameOfPart(part)
      nodes.push({ id: `${kind} ${part}`, label: kind === 'given' ? `${name} gives back` : name, kind, part })
      links.push({ source: `${kind} ${part}`, target: 'all', value: energy })
    }
    if (left > least) {
      nodes.push({ id: `${kind} others`, label: others, kind })
      links.push({ source: `${kind} others`, target: 'all', value: left })
    }
  }
  const group = (
    id: string,
    label: string,
    kind: 'work' | 'heat' | 'kept',
    shares: readonly EnergyShare[],
  ) => {
    const total = totalOf(shares)
    if (total < least) return total
    nodes.push({ id, label, kind })
    links.push({ source: 'all', target: id, value: total })
    const { shown, others } = listed(shares)
    for (const { part, energy } of shown) {
      nodes.push({ id: `${id} ${part}`, label: nameOfPart(part), kind, part })
      links.push({ source: id, target: `${id} ${part}`, value: energy })
    }
    if (others > least && shown.length) {
      nodes.push({ id: `${id} others`, label: 'others', kind })
      links.push({ source: id, target: `${id} others`, value: others })
    }
    return 0
  }
  sources(account.input, 'input', 'others put in')
  sources(account.given, 'given', 'others give back')
  let left = group('work', 'work on loads', 'work', account.work)
  const families = heatByFamily(sheet, account.heat)
  for (const { label, shares } of families) left += group(`heat ${label}`, label, 'heat', shares)
  left += group('kept', 'kept in masses, heights and stores', 'kept', account.kept)
  left += Math.max(0, account.rest)
  if (left > least) {
    nodes.push({ id: 'rest', label: 'small parts and the oil under pressure', kind: 'rest' })
    links.push({ source: 'all', target: 'rest', value: left })
  }
  return { nodes, links }
}

/** Heat by what makes it: pumps and motors, valves, lines, actuators. */
function heatByFamily(
  sheet: Sheet,
  heat: readonly EnergyShare[],
): { readonly label: string; readonly shares: readonly EnergyShare[] }[] {
  const kindOf = new Map(sheet.components.map(({ id, kind }) => [id, kind]))
  const groups = new Map<string, EnergyShare[]>()
  for (const share of heat) {
    const kind = kindOf.get(share.part)
    const family: Family = (kind === undefined ? undefined : findKind(kind)?.family) ?? 'lines'
    const label = `heat: ${families[family].toLowerCase()}`
    groups.set(label, [...(groups.get(label) ?? []), share])
  }
  return [...groups]
    .map(([label, shares]) => ({ label, shares }))
    .sort((a, b) => totalOf(b.shares) - totalOf(a.shares))
}

export interface SteadyTemperature {
  /** K; none where the oil would go on warming beyond what the equations hold for. */
  readonly temperature?: number
  /** Mean over the run at that temperature, W: heat, what coolers take, what tank and lines give off. */
  readonly heat: number
  readonly cooled: number
  readonly lost: number
  /** Runs that were solved for it. */
  readonly runs: number
}

/** K: the hottest that is looked for, and how near the answer is found. */
const HOTTEST = 393.15
const PRECISION = 0.5
const MOST_RUNS = 8

/**
 * The oil temperature at which a machine that repeats a schedule takes up as much heat as it gives off, with its coolers as drawn: heat(T) −
 * cooled(T) = C·(T − T_ambient), found by solving the run again at other temperatures.
 * @throws Error where the sheet cannot be simulated
 */
export function steadyTemperature(sheet: Sheet, schedule: string): SteadyTemperature {
  const { data: tank } = resolveTank(sheet.tank)
  let runs = 0
  const balanceAt = (temperature: number) => {
    runs++
    const at: Sheet = {
      ...sheet,
      fluid: { ...sheet.fluid, temperature: `${temperature - 273.15} °C` },
      tank: { ...sheet.tank, warming: false },
    }
    const result = runMachine(at, schedule)
    const account = energyOf(new Moments(at, result), result, 0, result.duration)
    const heat = totalOf(account.heat) / result.duration
    const cooled = account.cooled / result.duration
    const lost = tank.heatLoss * (temperature - tank.ambient)
    return { temperature, heat, cooled, lost, gain: heat - cooled - lost }
  }
  let low = balanceAt(tank.ambient)
  if (low.gain <= 0) return { ...low, runs }
  let high = balanceAt(Math.min(HOTTEST, tank.ambient + 40))
  if (high.gain > 0) {
    low = high
    high = balanceAt(HOTTEST)
    if (high.gain > 0) return { heat: high.heat, cooled: high.cooled, lost: high.lost, runs }
  }
  // the gain falls with temperature, nearly straight: regula falsi with the Illinois weighting
  let [gainLow, gainHigh] = [low.gain, high.gain]
  let best = high
  let side = 0
  while (runs < MOST_RUNS && high.temperature - low.temperature > PRECISION) {
    const t = low.temperature + ((high.temperature - low.temperature) * gainLow) / (gainLow - gainHigh)
    const now = balanceAt(t)
    const step = Math.abs(now.temperature - best.temperature)
    best = now
    if (now.gain > 0) {
      low = now
      gainLow = now.gain
      if (side === 1) gainHigh /= 2
      side = 1
    } else {
      high = now
      gainHigh = now.gain
      if (side === -1) gainLow /= 2
      side = -1
    }
    if (step < PRECISION) break
  }
  return { temperature: best.temperature, heat: best.heat, cooled: best.cooled, lost: best.lost, runs }
}

/** A steady temperature in a sentence. */
export function steadyText({ temperature, heat, cooled, lost }: SteadyTemperature, show: Show): string {
  const given = [
    ...(cooled > 1 ? [`${show(cooled, 'power', 3)} to its coolers`] : []),
    `${show(lost, 'power', 3)} to the surroundings`,
  ].join(' and ')
  return temperature === undefined
    ? `Repeated without a pause, the oil would become hotter than ${show(HOTTEST, 'temperature', 3)}: there it would still take up ${show(heat, 'power', 3)} and give off ${given}.`
    : `Repeated without a pause, the oil would stay at ${show(temperature, 'temperature', 3)}: it takes up ${show(heat, 'power', 3)}, and gives ${given}.`
}
