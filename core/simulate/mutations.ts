/** Random changes of a sheet for tests that look for what the simulation cannot take: values at the ends of their ranges, other pipes, faults. */
import { findKind } from '../catalogue'
import { commandableOf, type Parameter } from '../catalogue/kind'
import { endKey, lineDomain } from '../sheet/netlist'
import { fluidParameters, pipeLimits } from '../sheet/resolve'
import type { Pipe, PipeEnd, Sheet, SheetComponent, Track } from '../sheet/schema'
import { shownUnit, type Quantity } from '../units/quantities'
import { quantityText } from '../units/text'

/** Numbers from 0 to 1, the same for the same seed: mulberry32 (T. Ettinger, public domain). */
export function randomNumbers(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

type Random = () => number
const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)]
const written = (si: number, quantity: Quantity) =>
  quantityText(si, quantity, shownUnit(quantity, 'metric').symbol)

/** A value between two limits: often an end, else spread evenly over the powers of ten where both have one sign. */
function between(min: number, max: number, random: Random): number {
  const how = random()
  if (how < 0.2) return min
  if (how < 0.4) return max
  if (min > 0) return min * (max / min) ** random()
  return min + (max - min) * random()
}

function otherValue(parameter: Parameter, random: Random): string | boolean | undefined {
  switch (parameter.type) {
    case 'quantity':
      return written(between(parameter.min, parameter.max, random), parameter.quantity)
    case 'choice':
      return pick(Object.keys(parameter.choices), random)
    case 'switch':
      return random() < 0.5
    default:
      return undefined
  }
}

function changeComponent(sheet: Sheet, random: Random): Sheet {
  const component = pick(sheet.components, random)
  const kind = findKind(component.kind)
  const names = Object.keys(kind?.parameters ?? {})
  if (!kind || !names.length) return sheet
  const name = pick(names, random)
  const value = otherValue(kind.parameters[name] as Parameter, random)
  if (value === undefined) return sheet
  const changed: SheetComponent = { ...component, parameters: { ...component.parameters, [name]: value } }
  return { ...sheet, components: sheet.components.map((c) => (c.id === component.id ? changed : c)) }
}

const portsOf = (sheet: Sheet, domain: string): PipeEnd[] =>
  sheet.components.flatMap((c) =>
    (findKind(c.kind)?.ports ?? []).flatMap((p) =>
      p.domain === domain ? [{ component: c.id, port: p.name }] : [],
    ),
  )

function changePipes(sheet: Sheet, random: Random): Sheet {
  if (!sheet.pipes.length) return sheet
  const pipe = pick(sheet.pipes, random)
  const replace = (changed: Pipe) => ({
    ...sheet,
    pipes: sheet.pipes.map((p) => (p.id === pipe.id ? changed : p)),
  })
  const how = random()
  const oil = lineDomain(pipe.lineType) === 'oil'
  if (how < 0.4 && oil)
    return replace({
      ...pipe,
      bore: written(between(...pipeLimits.bore, random), 'length'),
      length: written(between(0.05, 50, random), 'length'),
      lineModel: pick(['automatic', 'lossFree', 'friction', 'distributed'] as const, random)!,
      lineType: random() < 0.2 ? 'hose' : pipe.lineType,
    })
  if (how < 0.55) return { ...sheet, pipes: sheet.pipes.filter((p) => p.id !== pipe.id) }
  const to = pick(portsOf(sheet, lineDomain(pipe.lineType)), random)
  if (!to || endKey(to) === endKey(pipe.from)) return sheet
  return replace({ ...pipe, to, route: [] })
}

function addTrack(sheet: Sheet, random: Random): Sheet {
  const component = pick(sheet.components, random)
  const inputs = commandableOf(findKind(component.kind) ?? {})
  if (!inputs.length) return sheet
  const input = pick(inputs, random)
  const points = Array.from({ length: 1 + Math.floor(random() * 3) }, () => 2 * random())
    .sort((a, b) => a - b)
    .map((at): Track['points'][number] => {
      const value = input.positions
        ? pick(input.positions, random).value
        : between(input.min, input.max, random)
      return {
        at: `${at.toFixed(4)} s`,
        value: written(value, input.quantity),
        shape: random() < 0.3 ? 'ramp' : 'step',
      }
    })
  const track: Track = { component: component.id, input: input.name, points }
  const without = (t: Track) => t.component !== track.component || t.input !== track.input
  return {
    ...sheet,
    schedules: sheet.schedules.map((s) => ({ ...s, tracks: [...s.tracks.filter(without), track] })),
  }
}

function changeOil(sheet: Sheet, random: Random): Sheet {
  const how = random()
  if (how < 0.5) {
    const tank = {
      ...sheet.tank,
      oil: written(between(1e-3, 1, random), 'volume'),
      warming: random() < 0.7,
    }
    return { ...sheet, tank }
  }
  const name = pick(['density15', 'temperature', 'bulkModulus', 'freeAir', 'airExponent'] as const, random)
  const { quantity, min, max } = fluidParameters[name]
  return { ...sheet, fluid: { ...sheet.fluid, [name]: written(between(min, max, random), quantity) } }
}

/** The sheet with some random changes; it may no longer be one that can be run. */
export function mutated(sheet: Sheet, random: Random): Sheet {
  let result = sheet
  const changes = 1 + Math.floor(random() ** 2 * 8)
  for (let i = 0; i < changes; i++) {
    const how = random()
    if (how < 0.45) result = changeComponent(result, random)
    else if (how < 0.65) result = changePipes(result, random)
    else if (how < 0.93) result = addTrack(result, random)
    else result = changeOil(result, random)
  }
  const start = random() < 0.3 ? 'steadyState' : 'initialValues'
  return { ...result, schedules: result.schedules.map((s) => ({ ...s, start })) }
}
