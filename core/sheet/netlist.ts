/** From the drawing to nodes: everything connected without loss is one node. */
import type { Domain, Model } from '../catalogue/kind'
import { distributedModel } from '../catalogue/lines/distributed-pipe'
import { frictionModel, pipeFriction, pipeModel, wallCompliance } from '../catalogue/lines/pipe'
import { densityAt, viscosityAt, type Fluid, type FluidData } from '../fluid/fluid'
import { resolveComponent, resolveFluid, resolvePipe, type ResolvedComponent } from './resolve'
import type { Finding } from './finding'
import { placedPorts } from './geometry'
import { greatestFlows, highestSetting } from './line-flows'
import { endKey, portKey } from './netlist-keys'
import { nameOf, type Pipe, type Sheet } from './schema'

export interface NetNode {
  /** Name of the line: that of a named pipe, else the first port on it. */
  readonly name: string
  readonly domain: Domain
  readonly ports: readonly { component: string; port: string }[]
  readonly pipes: readonly string[]
  readonly junctions: readonly string[]
  /** Oil in its pipes, m³. */
  readonly volume: number
  /** By how much the walls of its pipes give, m³/Pa. */
  readonly wallCompliance: number
  /** The lowest rating of its pipes, Pa; Infinity where none has one. */
  readonly rating: number
}
export interface NetPipe {
  readonly pipe: Pipe
  readonly length: number
  readonly bore: number
  readonly from: number
  readonly to: number
  model(fluid: Fluid): Model
}
/** How the oil of a pipe is computed: what is asked for, or what its flow asks for. */
export type LineModel = Exclude<Pipe['lineModel'], 'automatic'>

/** A pipe of oil as it is drawn: from its first end to its second. */
export interface OilPipe {
  readonly pipe: Pipe
  /** m */
  readonly length: number
  readonly bore: number
  readonly model: LineModel
  /** Ports and junctions at its ends, as keys. */
  readonly ends: readonly [string, string]
}
export interface Netlist {
  readonly components: readonly ResolvedComponent[]
  readonly nodes: readonly NetNode[]
  /** Node of each "component.port". */
  readonly nodeOf: ReadonlyMap<string, number>
  /** Node a pipe (or its first half) belongs to. */
  readonly nodeOfPipe: ReadonlyMap<string, number>
  readonly nodeOfJunction: ReadonlyMap<string, number>
  /** Pipes whose loss counts, between two nodes. */
  readonly pipes: readonly NetPipe[]
  /** All pipes of oil that are whole. */
  readonly oilPipes: readonly OilPipe[]
}

export const lineDomain = (line: Pipe['lineType']): Domain =>
  line === 'shaft' || line === 'rod' ? line : 'oil'
export const MIXED_DOMAINS =
  'A shaft joins only a shaft, a rod only what follows a rod, and an oil line only an oil line.'

export { endKey, portKey }

/** A pressure drop that is left out, Pa, and its share of the highest setting. */
const LEFT_OUT = 0.2e5
const SHARE_LEFT_OUT = 0.01

/** A shorter pipe, m, is one mass: a wave passes it within a millisecond, and would be followed all through a run. */
const SHORTEST_DISTRIBUTED = 1

/** What of its lines a sheet says by its pumps and settings. */
function automaticModels(
  components: readonly ResolvedComponent[],
  pipes: readonly Pipe[],
  oil: FluidData,
): (pipe: Pipe) => LineModel {
  const flows = greatestFlows(components, pipes)
  const most = Math.min(LEFT_OUT, SHARE_LEFT_OUT * highestSetting(components))
  const fluid = {
    density: densityAt(oil.temperature, oil.density15),
    viscosity: viscosityAt(oil.temperature, oil.viscosity40, oil.viscosity100),
  }
  return (pipe) => {
    const { length, bore } = resolvePipe(pipe)
    if (pipe.lineModel === 'distributed' && length < SHORTEST_DISTRIBUTED) return 'friction'
    if (pipe.lineModel !== 'automatic') return pipe.lineModel
    const flow = flows.get(pipe.id) ?? 0
    // a line whose volume is given stands for that volume; what is drawn as a pilot or a drain passes no more than steers or leaks
    const passesLittle = pipe.lineType === 'pilot' || pipe.lineType === 'drain'
    if (flow === 0 || length === 0 || pipe.volume !== undefined || passesLittle) return 'lossFree'
    return flow === Infinity || pipeFriction({ length, bore }, fluid).loss(flow) > most
      ? 'friction'
      : 'lossFree'
  }
}

/** Builds the nodes. The netlist is complete only where no problem is an error. */
export function buildNetlist(sheet: Sheet): { netlist: Netlist; problems: Finding[] } {
  const problems: Finding[] = []
  const components: ResolvedComponent[] = []
  const domains = new Map<string, Domain>()
  for (const component of sheet.components) {
    const { resolved, problems: found } = resolveComponent(component)
    problems.push(...found)
    if (!resolved) continue
    components.push(resolved)
    for (const port of resolved.kind.ports) domains.set(portKey(component.id, port.name), port.domain)
  }

  // union-find over ports and junctions
  const parent = new Map<string, string>()
  const find = (key: string): string => {
    let root = key
    while (parent.get(root) !== root) root = parent.get(root)!
    for (let k = key; k !== root;) [k] = [parent.get(k)!, parent.set(k, root)]
    return root
  }
  for (const key of domains.keys()) parent.set(key, key)
  for (const junction of sheet.junctions) parent.set(`junction:${junction.id}`, `junction:${junction.id}`)

  const known = new Map(components.map((r) => [r.component.id, r]))
  /** Ports that a component does not have as it is set: its symbol shows none. */
  const isNotDrawn = (end: { component: string; port: string }) =>
    !placedPorts(known.get(end.component)!.component).some((p) => p.port === end.port)
  const lossy: { pipe: Pipe; length: number; bore: number; compliance: number; model: LineModel }[] = []
  const volumes: { key: string; volume: number; rating?: number; compliance: number }[] = []
  const oilPipes: OilPipe[] = []
  const modelOf = automaticModels(
    components,
    sheet.pipes.filter((pipe) => lineDomain(pipe.lineType) === 'oil'),
    resolveFluid(sheet.fluid).data,
  )
  const laid: Pipe[] = []
  for (const pipe of sheet.pipes) {
    let complete = true
    for (const end of [pipe.from, pipe.to])
      if ('component' in end && known.has(end.component) && !domains.has(endKey(end))) {
        complete = false
        problems.push({
          rule: 'port',
          severity: 'error',
          message: `${known.get(end.component)!.kind.label} ${end.component} has no port "${end.port}".`,
          location: { pipe: pipe.id },
        })
      } else if ('component' in end && known.has(end.component) && isNotDrawn(end)) {
        const { kind, component } = known.get(end.component)!
        problems.push({
          rule: 'port',
          severity: 'error',
          message: `${kind.label} ${nameOf(component)} has no port ${end.port} with its present values.`,
          remedy: 'Set the part so that it has this port again, or remove the pipe.',
          location: { pipe: pipe.id },
          fix: { label: 'Remove the pipe', does: 'remove', ids: [pipe.id] },
        })
      } else if (!parent.has(endKey(end))) complete = false
    const values = resolvePipe(pipe)
    problems.push(...values.problems)
    if (!complete || values.problems.length) continue
    const [a, b] = [endKey(pipe.from), endKey(pipe.to)]
    const domain = lineDomain(pipe.lineType)
    if ([a, b].some((k) => (domains.get(k) ?? domain) !== domain)) {
      problems.push({
        rule: 'domain',
        severity: 'error',
        message: MIXED_DOMAINS,
        location: { pipe: pipe.id },
      })
      continue
    }
    laid.push(pipe)
    const model = domain === 'oil' ? modelOf(pipe) : 'lossFree'
    const { length, bore, wall } = values
    const compliance = wallCompliance(pipe.lineType, { bore, wall, material: pipe.material })
    if (domain === 'oil') oilPipes.push({ pipe, length, bore, model, ends: [a, b] })
    if (model !== 'lossFree') {
      lossy.push({ pipe, length, bore, compliance, model })
      // in segments, its oil is in these
      const half = {
        volume: model === 'distributed' ? 0 : values.volume / 2,
        rating: values.rating,
        compliance,
      }
      volumes.push({ key: a, ...half }, { key: b, ...half })
    } else {
      parent.set(find(a), find(b))
      if (domain === 'oil') volumes.push({ key: a, volume: values.volume, rating: values.rating, compliance })
    }
  }

  const index = new Map<string, number>()
  const drafts: {
    domain: Domain
    name?: string
    ports: { component: string; port: string }[]
    pipes: string[]
    junctions: string[]
    volume: number
    wallCompliance: number
    rating: number
  }[] = []
  const nodeFor = (key: string) => {
    const root = find(key)
    let i = index.get(root)
    if (i === undefined) {
      i = drafts.length
      index.set(root, i)
      drafts.push({
        domain: 'oil',
        ports: [],
        pipes: [],
        junctions: [],
        volume: 0,
        wallCompliance: 0,
        rating: Infinity,
      })
    }
    return i
  }
  const nodeOf = new Map<string, number>()
  for (const { component, kind } of components)
    for (const port of kind.ports) {
      const key = portKey(component.id, port.name)
      const i = nodeFor(key)
      nodeOf.set(key, i)
      drafts[i].ports.push({ component: component.id, port: port.name })
      drafts[i].domain = port.domain
    }
  const nodeOfJunction = new Map<string, number>()
  for (const junction of sheet.junctions) {
    const i = nodeFor(`junction:${junction.id}`)
    nodeOfJunction.set(junction.id, i)
    drafts[i].junctions.push(junction.id)
  }
  for (const { key, volume, rating = Infinity, compliance } of volumes) {
    const draft = drafts[nodeFor(key)]
    draft.volume += volume
    draft.wallCompliance += compliance * volume
    draft.rating = Math.min(draft.rating, rating)
  }
  const nodeOfPipe = new Map<string, number>()
  for (const pipe of laid) {
    const i = nodeFor(endKey(pipe.from))
    nodeOfPipe.set(pipe.id, i)
    drafts[i].pipes.push(pipe.id)
    const far = nodeFor(endKey(pipe.to))
    if (far !== i) drafts[far].pipes.push(pipe.id)
    if (pipe.name && !drafts[i].name) drafts[i].name = pipe.name
  }
  const taken = new Set<string>()
  const nodes = drafts.map((d, i): NetNode => {
    const base = d.name ?? (d.ports[0] ? portKey(d.ports[0].component, d.ports[0].port) : `line ${i + 1}`)
    let name = base
    for (let n = 2; taken.has(name); n++) name = `${base} (${n})`
    taken.add(name)
    return { ...d, name }
  })
  return {
    problems,
    netlist: {
      components,
      nodes,
      nodeOf,
      nodeOfPipe,
      nodeOfJunction: nodeOfJunction,
      oilPipes,
      pipes: lossy.map(({ pipe, length, bore, compliance, model }) => ({
        pipe,
        length,
        bore,
        from: nodeFor(endKey(pipe.from)),
        to: nodeFor(endKey(pipe.to)),
        model: (fluid: Fluid) =>
          model === 'distributed'
            ? distributedModel({ length, bore }, compliance, fluid)
            : // by its flow: its loss alone, since its inertia was not asked for
              (pipe.lineModel === 'automatic' ? frictionModel : pipeModel)({ length, bore }, fluid),
      })),
    },
  }
}
