import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { Bench, controlSheet } from '../../control/testing'
import { contactsOf, parseExpression } from '../../control/expression'
import { wiredInputs } from '../../control/wiring'
import type { Sheet } from '../../sheet/schema'
import { parseXml } from '../xml'
import { secondsOf, timeLiteral, VariableNames } from './names'
import { controlFromXml } from './read'
import { PlcScan } from './testing/scan'
import { demo, demoFolder, sequence } from './testing/sheets'
import { ORIGIN, projectSchema } from './schema'
import { controlToXml } from './write'

const press = demo('blade-press-switches')
const controlled = readdirSync(demoFolder)
  .map((file) => file.replace(/\.json$/, ''))
  .filter((name) => demo(name).control.rungs.length + demo(name).control.sequences.length > 0)
describe('names in a program', () => {
  it('are those that the language allows, and all different', () => {
    const names = new VariableNames()
    expect(
      ['V2.coilA', '1-1S3', 'K1', 'k1', 'R', 'TON', 'K--1', 'Ü', 'K.1.', 'V2.coilA'].map((r) => names.of(r)),
    ).toEqual(['V2_coilA', '_1_1S3', 'K1', 'k1_2', 'R_2', 'TON_2', 'K_1', 'x', 'K_1_2', 'V2_coilA'])
  })
  it('durations are read as they are written', () => {
    for (const seconds of [0.001, 0.015, 1, 2.5, 90, 100_000])
      expect(secondsOf(timeLiteral(seconds))).toBeCloseTo(seconds, 9)
    expect(timeLiteral(100)).toBe('T#100s')
    expect(secondsOf('TIME#1h_2m3s4ms')).toBeCloseTo(3723.004, 6)
    for (const wrong of ['2 s', 'T#', 'T#5', 'T#5x', 'T#1s!']) expect(secondsOf(wrong)).toBeUndefined()
  })
})

describe('IEC 61131-10 XML', () => {
  it.each([...controlled.map((name) => [name, demo(name)] as const), ['a step sequence', sequence] as const])(
    'of %s has the structure of the standard and is read again',
    (_, sheet) => {
      const xml = controlToXml(sheet)
      expect(projectSchema.safeParse(parseXml(xml)).error?.issues).toBeUndefined()
      const read = controlFromXml(xml)
      if (!read.ok) throw new Error(read.message)
      const { devices, rungs, sequences } = sheet.control
      expect(read.control).toEqual({ ...read.control, devices, rungs, sequences })
    },
  )
  it('has two names for two references that look alike', () => {
    const names = [...controlToXml(sequence).matchAll(/<Variable name="([^"]+)"/g)].map((m) => m[1])
    expect(new Set(names).size).toBeGreaterThan(4)
    expect(names).toContain('K_1')
    expect(names).toContain('K_1_2')
  })
  it('tells the normal state of each input, in words and as a value', () => {
    const xml = controlToXml(press)
    const s10 = xml.slice(xml.lastIndexOf('<Variable name="S10">')).split('</Variable>')[0]
    expect(s10).toContain('<SimpleValue value="TRUE"/>')
    expect(s10).toContain('TRUE: not pressed; FALSE: pressed, or its wire is broken')
    const s12 = xml.slice(xml.lastIndexOf('<Variable name="S12">')).split('</Variable>')[0]
    expect(s12).toContain('TRUE: pressed; FALSE: not pressed')
    expect(s12).not.toContain('InitialValue')
    // the contact of a stop is a plain one: its wire is normally closed
    expect(xml).toMatch(/<LdObject xsi:type="Contact" operand="S10">/)
    expect(xml).not.toMatch(/operand="S10" negated/)
  })
  it('calls timers and counters as blocks of the standard, with time and count', () => {
    const xml = controlToXml(timed)
    expect(xml).toMatch(/xsi:type="DataSource" identifier="T#2s"/)
    for (const [type, name] of [
      ['TON', 'K1'],
      ['TOF', 'K2'],
      ['TP', 'K3'],
      ['CTU', 'K4'],
    ])
      expect(xml).toContain(`xsi:type="Block" typeName="${type}" instanceName="${name}"`)
    expect(xml).toMatch(/identifier="3"/)
  })
  it('is read with the times and functions that stand in its blocks', () => {
    const xml = controlToXml(timed)
      .replace('identifier="T#2s"', 'identifier="T#4500ms"')
      .replace('typeName="TOF" instanceName="K2"', 'typeName="TP" instanceName="K2"')
      .replace('identifier="3"', 'identifier="7"')
    const read = controlFromXml(xml)
    if (!read.ok) throw new Error(read.message)
    const parameters = Object.fromEntries(read.control.devices.map((d) => [d.id, d.parameters]))
    expect(parameters.K1).toMatchObject({ time: '4.5 s' })
    expect(parameters.K2).toMatchObject({ function: 'oneShot' })
    expect(parameters.K4).toMatchObject({ preset: '7' })
  })
  it('gives no current to a path that cannot be read, and keeps its text', () => {
    const sheet = { ...timed, control: { ...timed.control, rungs: [] } }
    const broken: Sheet = {
      ...sheet,
      control: {
        ...sheet.control,
        rungs: [{ id: 'R1', comment: '', contacts: 'S1 S2', coils: ['P1'] }],
      },
    }
    const xml = controlToXml(broken)
    const plc = new PlcScan(xml)
    plc.run(20)
    expect(plc.variables.get('P1')).toBe(false)
    const read = controlFromXml(xml)
    expect(read.ok && read.control.rungs[0].contacts).toBe('S1 S2')
  })
  it('of version 1 is still read', () => {
    const text = readFileSync(new URL('fixtures/version-1.xml', import.meta.url), 'utf8')
    const read = controlFromXml(text)
    if (!read.ok) throw new Error(read.message)
    const { devices, rungs, sequences } = sequence.control
    expect(read.control).toMatchObject({ devices, rungs, sequences })
  })
  it('from elsewhere that is not understood is refused in words', () => {
    const message = (text: string) => {
      const read = controlFromXml(text)
      return read.ok ? '' : read.message
    }
    expect(message('no xml')).toMatch(/^This is not XML/)
    expect(message('<Project xmlns="x"/>')).toMatch(/root is not a Project of that namespace/)
    expect(message(controlToXml(press).replaceAll('Contact"', 'JumpLabel"'))).toMatch(
      /parts that are not understood here, at Project > Types > GlobalNamespace > Program Paths/,
    )
    expect(message(controlToXml(press).replace('operand="K3"', 'operand="K9"'))).toBe(
      'The file uses "K9", which it does not declare.',
    )
    expect(message(controlToXml(press).replace(/(refConnectionPointOutId)="2"/, '$1="4"'))).toMatch(
      /neither in series nor parallel/,
    )
    expect(message(controlToXml(timed).replace('typeName="TON"', 'typeName="CTU"'))).toMatch(
      /K1 is a function block CTU, which is no Timer/,
    )
  })
})

const timed = controlSheet(
  {
    S1: ['push-button'],
    S2: ['push-button'],
    S3: ['selector', { positions: 'three' }],
    S9: ['emergency-stop'],
    K1: ['timer', { time: '2 s' }],
    K2: ['timer', { function: 'offDelay', time: '1.5 s' }],
    K3: ['timer', { function: 'oneShot', time: '700 ms' }],
    K4: ['counter', { preset: '3' }],
    K5: ['relay'],
    P1: ['lamp'],
    P2: ['lamp'],
    P3: ['lamp'],
    P4: ['lamp'],
    P5: ['lamp'],
  },
  [
    '/S9 · (S1 + K5) · /S2 -> K5, K1',
    'K5 -> K2',
    'S1 -> K3, K4',
    'S2 · S1 -> K4.reset',
    'K1 -> P1',
    'K2 · /S3.0 -> P2',
    'K3 -> P3',
    'K4 -> P4',
    '/K1 · K5 + S3.2 -> P5',
  ],
)
const charts = controlSheet(
  {
    S1: ['push-button'],
    S2: ['push-button'],
    K1: ['timer', { time: '1 s' }],
    P1: ['lamp'],
    P2: ['lamp'],
    P3: ['lamp'],
    P4: ['lamp'],
    P5: ['lamp'],
    P6: ['lamp'],
  },
  ['G1.A for 1.2 s + G1.R · S2 -> P5', '/G1.R -> P6'],
  {
    sequences: [
      {
        id: 'G1',
        name: '',
        steps: [
          { id: 'R', name: 'Ready', initial: true, actions: [{ coil: 'P4', qualifier: 'reset' }] },
          { id: 'A', name: '', initial: false, actions: [{ coil: 'P1', qualifier: 'while' }] },
          {
            id: 'B',
            name: '',
            initial: false,
            actions: [{ coil: 'P2', qualifier: 'delayed', time: '0.8 s' }],
          },
          {
            id: 'C',
            name: '',
            initial: false,
            actions: [
              { coil: 'P3', qualifier: 'limited', time: '0.6 s' },
              { coil: 'P4', qualifier: 'set' },
              { coil: 'K1', qualifier: 'while' },
            ],
          },
        ],
        transitions: [
          { id: 'a', from: ['R'], to: ['A', 'B'], condition: 'S1 · /S2' },
          { id: 'b', from: ['R'], to: ['C'], condition: 'S2' },
          { id: 'c', from: ['A', 'B'], to: ['C'], condition: 'G1.B for 1.9 s · /S1' },
          { id: 'd', from: ['C'], to: ['C'], condition: 'G1.C for 3.1 s · S2' },
          { id: 'e', from: ['C'], to: ['R'], condition: 'K1 · /S2' },
        ],
      },
    ],
  },
)

/** What a program and the control do side by side: the same hands, the same times. @returns the moments at which they differ */
function differences(sheet: Sheet, moves: readonly (readonly [input: number, ms: number])[]): string[] {
  const xml = controlToXml(sheet)
  const plc = new PlcScan(xml)
  const bench = new Bench(sheet)
  const names = new Map([...xml.matchAll(/<Name name="([^"]+)" ref="([^"]+)"\/>/g)].map((m) => [m[2], m[1]]))
  const inputs = wiredInputs(sheet)
  const standing = new Map(inputs.map(({ ref }) => [ref, bench.logic.contacts.indexOf(ref)]))
  const rest = new Map(plc.variables)
  const found: string[] = []
  const operators = new Map(
    bench.logic.program.devices.flatMap(({ device, type, values }) => {
      const [spec] = type.inputs?.(values) ?? []
      return spec && inputs.some(({ owner }) => owner === device.id)
        ? [[device.id, spec.positions?.map((p) => p.value) ?? [0, 1]] as const]
        : []
    }),
  )
  const switches = inputs
    .filter(({ owner }) => sheet.components.some((c) => c.id === owner))
    .map(({ owner }) => owner)
  const hands = [...operators.keys(), ...switches]
  const turned = new Map<string, number>()
  const wire = () => {
    // a contact that is closed, as a normally open one, has its other value
    for (const { ref } of inputs) {
      const name = names.get(ref)!
      const acted = bench.state.contacts[standing.get(ref)!]
      plc.variables.set(name, rest.get(name)! !== acted)
    }
  }
  wire()
  bench.wait(0.095)
  plc.run(95)
  for (const [which, ms] of moves) {
    if (!hands.length) return []
    const id = hands[which % hands.length]
    const positions = operators.get(id)
    const turn = (turned.get(id) ?? 0) + 1
    turned.set(id, turn)
    if (positions) bench.set(id, inputName(bench, id), [...positions].sort()[turn % positions.length])
    else bench.switch(id, turn % 2 === 1)
    wire()
    bench.wait(ms / 1000)
    plc.run(ms)
    for (const { ref } of bench.logic.program.targets) {
      const own = bench.logic.program.targets.findIndex((t) => t.ref === ref)
      const name = names.get(ref)!
      if (!plc.variables.has(name)) continue
      if (plc.variables.get(name) !== bench.state.currents[own])
        found.push(
          `${bench.time} s: ${ref} has ${bench.state.currents[own] ? '' : 'no '}current in the control`,
        )
    }
  }
  return found
}
const inputName = (bench: Bench, id: string) => {
  const { type, values } = bench.logic.program.devices.find(({ device }) => device.id === id)!
  return type.inputs!(values)[0].name
}
const moves = fc.array(fc.tuple(fc.nat(40), fc.constantFrom(315, 975, 2355)), { minLength: 4, maxLength: 14 })

describe('the program in a reader of its own', () => {
  it.each([
    ['timers, a counter, a selector', timed] as const,
    ['charts with all qualifiers', charts] as const,
    ...controlled.filter((n) => !n.includes('rotor')).map((name) => [name, demo(name)] as const),
  ])('does what the control does: %s', (_, sheet) => {
    fc.assert(
      fc.property(moves, (list) => {
        expect(differences(sheet, list)).toEqual([])
      }),
      { numRuns: 10, seed: 7 },
    )
  })
  it('needs nothing of the data of our own', () => {
    const xml = controlToXml(timed)
    const bare = xml.replace(new RegExp(`<Data name="${ORIGIN}"[^]*</Data>`), '')
    expect(bare).not.toBe(xml)
    const plc = new PlcScan(bare)
    plc.variables.set('S1', true)
    plc.run(1900)
    expect(plc.variables.get('P1')).toBe(false)
    plc.run(200)
    expect(plc.variables.get('P1')).toBe(true)
  })

  const tree: fc.Arbitrary<string> = fc.letrec<{ any: string }>((tie) => ({
    any: fc.oneof(
      { maxDepth: 4 },
      fc.constantFrom('S1', '/S1', 'S2', '/S2', 'S3', '/S3'),
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => `(${a} + ${b})`),
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => `(${a} · ${b})`),
    ),
  })).any
  it('keeps any path of contacts in series and parallel', () => {
    fc.assert(
      fc.property(tree, (contacts) => {
        const sheet = controlSheet(
          { S1: ['push-button'], S2: ['push-button'], S3: ['push-button'], P1: ['lamp'] },
          [`${contacts} -> P1`],
        )
        const xml = controlToXml(sheet)
        const read = controlFromXml(xml)
        if (!read.ok) throw new Error(read.message)
        expect(truthTable(read.control.rungs[0].contacts)).toEqual(truthTable(contacts))
        const used = new Set(contactsOf(expressionOf(contacts)).map(({ name }) => name))
        const table = truthTable(contacts)
        const byProgram = table.map((_, n) => {
          const plc = new PlcScan(xml)
          buttons.forEach((name, bit) => {
            const acted = (n & (1 << bit)) > 0
            if (used.has(name)) plc.variables.set(name, plc.variables.get(name)! !== acted)
          })
          plc.run(1)
          return plc.variables.get('P1')
        })
        expect(byProgram).toEqual(table)
      }),
      { numRuns: 200 },
    )
  })
})
const buttons = ['S1', 'S2', 'S3']
const expressionOf = (text: string) => {
  const parsed = parseExpression(text)
  if (!parsed.ok) throw new Error(parsed.error.message)
  return parsed.expression
}
function truthTable(contacts: string): boolean[] {
  const meaning = new Function(
    'c',
    `return ${contacts
      .replace(/S\d/g, (n) => `c("${n}")`)
      .replaceAll('·', '&&')
      .replaceAll('+', '||')
      .replaceAll('/', '!')}`,
  ) as (c: (name: string) => boolean) => boolean
  return [0, 1, 2, 3, 4, 5, 6, 7].map((n) => meaning((name) => (n & (1 << buttons.indexOf(name))) > 0))
}
