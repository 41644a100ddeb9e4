/**
 * A small interpreter of IEC 61131-10 projects for tests, after the standard alone: ladder rungs, TON, TOF, TP and CTU, sequential
 * function charts with action control, called cyclically. It shares nothing with what writes or reads such files here.
 */
import { parseXml, type XmlElement } from '../../xml'

const child = (e: XmlElement, name: string) => e.children.find((c) => c.name === name)
const children = (e: XmlElement, name: string) => e.children.filter((c) => c.name === name)
function milliseconds(literal: string): number {
  const match = /^T#([\d.]+)(ms|[smh])$/.exec(literal)
  if (!match) throw new Error(`no duration: ${literal}`)
  return Math.round(Number(match[1]) * { ms: 1, s: 1000, m: 60_000, h: 3_600_000 }[match[2]]!)
}

/** Standard function blocks, by the clauses of IEC 61131-3; times in ms. */
class FunctionBlock {
  Q = false
  private last = false
  private since = -1
  private count = 0
  constructor(private readonly type: string) {}
  call(input: Readonly<Record<string, boolean | string>>, now: number): void {
    const on = Boolean(input.IN ?? input.CU ?? false)
    const rises = on && !this.last
    const falls = !on && this.last
    this.last = on
    const preset = typeof input.PT === 'string' ? milliseconds(input.PT) : Number(input.PV)
    switch (this.type) {
      case 'TON':
        if (rises) this.since = now
        this.Q = on && now - this.since >= preset
        break
      case 'TOF':
        if (falls) this.since = now
        this.Q = on || (this.since >= 0 && now - this.since < preset)
        break
      case 'TP':
        if (rises && !this.Q) this.since = now
        this.Q = this.since >= 0 && now - this.since < preset
        break
      case 'CTU':
        if (input.R) this.count = 0
        else if (rises) this.count++
        this.Q = this.count >= preset
        break
      default:
        throw new Error(`no function block: ${this.type}`)
    }
  }
}
interface Step {
  active: boolean
  since: number
}

export class PlcScan {
  now = 0
  readonly variables = new Map<string, boolean>()
  private readonly blocks = new Map<string, FunctionBlock>()
  private readonly programs: XmlElement[]
  private readonly steps = new Map<string, Step>()
  /** What leads into each object of a chart. */
  private readonly leading = new Map<XmlElement, readonly XmlElement[]>()
  /** Actions that a step has set. */
  private readonly stored = new Map<string, boolean>()
  /** Between two calls, ms. */
  private readonly interval = 5

  constructor(text: string) {
    const root = parseXml(text)
    const resource = child(child(child(root, 'Instances')!, 'Configuration')!, 'Resource')!
    for (const list of children(resource, 'GlobalVars'))
      for (const v of children(list, 'Variable')) {
        const type = child(child(v, 'Type')!, 'TypeName')!.text
        const { name } = v.attributes
        const initial = child(v, 'InitialValue')
        if (type === 'BOOL')
          this.variables.set(name, !!initial && child(initial, 'SimpleValue')!.attributes.value === 'TRUE')
        else this.blocks.set(name, new FunctionBlock(type))
      }
    const declared = child(child(root, 'Types')!, 'GlobalNamespace')!.children
    this.programs = children(resource, 'ProgramInstance').map((instance) => {
      const program = declared.find((p) => p.attributes.name === instance.attributes.typeName)!
      const external = children(child(program, 'ExternalVars')!, 'Variable').map((v) => v.attributes.name)
      for (const name of external)
        if (!this.variables.has(name) && !this.blocks.has(name)) throw new Error(`not declared: ${name}`)
      return child(child(program, 'MainBody')!, 'BodyContent')!
    })
    for (const body of this.programs)
      for (const o of body.children)
        if (o.attributes['xsi:type'] === 'Step')
          this.steps.set(o.attributes.name, { active: o.attributes.initialStep === 'true', since: 0 })
  }

  /** Lets time pass, scan by scan. @param ms */
  run(ms: number): void {
    for (const end = this.now + ms; this.now < end; this.now += this.interval) this.scan()
  }
  private scan(): void {
    for (const body of this.programs)
      if (body.attributes['xsi:type'] === 'LD')
        for (const rung of children(body, 'Rung')
          .slice()
          .sort((a, b) => Number(a.attributes.evaluationOrder) - Number(b.attributes.evaluationOrder)))
          this.rung(rung)
      else this.chart(body)
  }

  private value(operand: string): boolean {
    const [name, output] = operand.split('.')
    if (output === 'Q') return this.blocks.get(name)!.Q
    const value = this.variables.get(name)
    if (value === undefined) throw new Error(`no variable: ${operand}`)
    return value
  }
  private rung(rung: XmlElement): void {
    const power = new Map<string, boolean>()
    const sources = new Map<string, string>()
    const flow = (o: XmlElement) =>
      children(o, 'ConnectionPointIn')
        .flatMap((c) => c.children)
        .some((c) => power.get(c.attributes.refConnectionPointOutId) === true)
    for (const o of rung.children) {
      const out = child(o, 'ConnectionPointOut')?.attributes.connectionPointOutId ?? ''
      const { operand, negated } = o.attributes
      switch (o.attributes['xsi:type']) {
        case 'LeftPowerRail':
          power.set(out, true)
          break
        case 'Contact':
          power.set(out, flow(o) && this.value(operand) !== (negated === 'true'))
          break
        case 'Coil':
          if (!this.variables.has(operand)) throw new Error(`no variable: ${operand}`)
          this.variables.set(operand, flow(o) !== (negated === 'true'))
          break
        case 'DataSource':
          sources.set(out, o.attributes.identifier)
          break
        case 'Block': {
          const input = children(child(o, 'InputVariables')!, 'InputVariable').map((v) => {
            const [from] = child(v, 'ConnectionPointIn')!.children
            const id = from.attributes.refConnectionPointOutId
            return [v.attributes.parameterName, sources.get(id) ?? power.get(id) ?? false] as const
          })
          this.blocks.get(o.attributes.instanceName)!.call(Object.fromEntries(input), this.now)
        }
      }
    }
  }

  private chart(body: XmlElement): void {
    const objects = children(body, 'SfcObject')
    const typed = (type: string) => objects.filter((o) => o.attributes['xsi:type'] === type)
    const outs = (o: XmlElement) =>
      children(o, 'ConnectionPointOut').map((c) => c.attributes.connectionPointOutId)
    const ins = (o: XmlElement) =>
      children(o, 'ConnectionPointIn')
        .flatMap((c) => c.children)
        .map((c) => c.attributes.refConnectionPointOutId)
    /** What leads into an object: steps or transitions, through divergences and convergences. */
    const before = (o: XmlElement): readonly XmlElement[] => {
      const known = this.leading.get(o)
      if (known) return known
      const found = ins(o).flatMap((id) => {
        const owner = objects.find((x) => outs(x).includes(id))!
        return /^(Step|Transition)$/.test(owner.attributes['xsi:type']) ? [owner] : before(owner)
      })
      this.leading.set(o, found)
      return found
    }
    const left = new Set<string>()
    const entered = new Set<string>()
    // transitions of a divergence have the priority of its points, which is their order here
    for (const t of typed('Transition')) {
      const from = before(t).map((s) => s.attributes.name)
      const enabled = from.every((s) => this.steps.get(s)!.active && !left.has(s))
      if (!enabled || !this.condition(child(child(t, 'Condition')!, 'Inline')!.text)) continue
      for (const s of from) left.add(s)
      for (const s of typed('Step')) if (before(s).includes(t)) entered.add(s.attributes.name)
    }
    for (const s of left) this.steps.get(s)!.active = false
    for (const s of entered) Object.assign(this.steps.get(s)!, { active: true, since: this.now })

    const wanted = new Map<string, boolean>()
    for (const step of typed('Step')) {
      const { active, since } = this.steps.get(step.attributes.name)!
      const point = child(step, 'ConnectionPointOutAction')?.attributes.connectionPointOutId
      for (const block of typed('ActionBlock').filter((b) => point !== undefined && ins(b).includes(point)))
        for (const action of children(block, 'Action')) {
          const { qualifier, duration } = action.attributes
          const { name } = child(action, 'Reference')!.attributes
          const time = duration ? milliseconds(duration) : 0
          if (qualifier === 'S' && active) this.stored.set(name, true)
          if (qualifier === 'R' && active) this.stored.set(name, false)
          const on =
            active &&
            (qualifier === 'N' ||
              (qualifier === 'D' && this.now - since >= time) ||
              (qualifier === 'L' && this.now - since < time))
          wanted.set(name, (wanted.get(name) ?? false) || on)
        }
    }
    for (const [name, on] of wanted) {
      if (!this.variables.has(name)) throw new Error(`no variable: ${name}`)
      this.variables.set(name, on || this.stored.get(name) === true)
    }
  }
  /** Structured text: OR, AND, NOT, brackets, variables, step flags and elapsed times. */
  private condition(text: string): boolean {
    const tokens = text.replace(/\(\*[\s\S]*?\*\)/g, '').match(/[()]|>=|[\w.#]+/g) ?? []
    let i = 0
    const any = (): boolean => {
      let value = all()
      while (tokens[i] === 'OR') {
        i++
        const next = all()
        value = value || next
      }
      return value
    }
    const all = (): boolean => {
      let value = one()
      while (tokens[i] === 'AND') {
        i++
        const next = one()
        value = value && next
      }
      return value
    }
    const one = (): boolean => {
      const token = tokens[i++]
      if (token === 'NOT') return !one()
      if (token === 'TRUE' || token === 'FALSE') return token === 'TRUE'
      if (token === '(') {
        const value = any()
        if (tokens[i++] !== ')') throw new Error(`no bracket closes in: ${text}`)
        return value
      }
      const [name, part] = token.split('.')
      if (part === 'X') return this.steps.get(name)!.active
      if (part === 'T') {
        if (tokens[i] !== '>=') throw new Error(`a time is compared in: ${text}`)
        i += 2
        return this.now - this.steps.get(name)!.since >= milliseconds(tokens[i - 1])
      }
      return this.value(token)
    }
    const value = any()
    if (i !== tokens.length) throw new Error(`not read to its end: ${text}`)
    return value
  }
}
