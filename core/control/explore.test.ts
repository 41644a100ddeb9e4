import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText } from '../sheet/read'
import { eventWords, playCounterexample } from './counterexample'
import type { Proof } from './explore'
import { prove } from './prove'
import { parseExpression } from './expression'
import { controlSheet, passes } from './testing'

const outcomes = (proofs: readonly Proof[]) => Object.fromEntries(proofs.map((p) => [p.id, p.outcome]))
const never = (text: string, name = 'that') => ({
  requirements: [{ id: 'N1', name, never: text, assumed: false }],
})

describe('proofs', () => {
  it('find two lamps that an interlock keeps apart, and that it needs both contacts', () => {
    const devices = { S1: ['push-button'], S2: ['push-button'], K1: ['relay'], K2: ['relay'] } as const
    const locked = controlSheet(devices, ['S1 · /K2 · /S2 -> K1', 'S2 · /K1 · /S1 -> K2'], never('K1 · K2'))
    const open = controlSheet(devices, ['S1 -> K1', 'S2 · /K1 -> K2'], never('K1 · K2'))
    expect(outcomes(prove(locked)).N1).toBe('proved')
    const refuted = prove(open).find((p) => p.id === 'N1')!
    expect(refuted.outcome).toBe('refuted')
    expect(refuted.events.map((e) => eventWords(open, e))).toContain('S2: pressed')
  })
  it('find what two relays do that change at one instant', () => {
    const sheet = controlSheet(
      { S1: ['push-button'], K1: ['relay'], K2: ['relay'] },
      ['S1 · /K2 -> K1', 'S1 · /K1 -> K2'],
      never('K1 · K2'),
    )
    expect(outcomes(prove(sheet))).toEqual({ N1: 'refuted', race: 'refuted' })
  })
  it('find a race where the times allow it, and only there', () => {
    const race = (pullIn: string) => {
      const sheet = controlSheet(
        { S1: ['push-button'], S2: ['push-button'], K1: ['relay'], K2: ['relay', { pullIn }] },
        ['S1 · /K2 -> K1', 'S1 · /K1 + S2 -> K2'],
        never('K1 · K2'),
      )
      const proof = prove(sheet).find((p) => p.id === 'race')!
      return [proof.outcome, proof.events.map((e) => eventWords(sheet, e))]
    }
    expect(race('15 ms')).toEqual(['refuted', ['S1: pressed']])
    expect(race('25 ms')[0]).toBe('chance')
  })
  it('find no race where relays follow each other or do not depend on each other', () => {
    const sheet = controlSheet(
      { S1: ['push-button'], K1: ['relay'], K2: ['relay'], K3: ['relay'] },
      ['S1 -> K1', 'S1 -> K2', 'K1 -> K3'],
      never('K2 · K3'),
    )
    expect(outcomes(prove(sheet)).race).toBe('proved')
  })
  it('claim nothing from a start that the facts exclude', () => {
    const fact = { id: 'N2', name: 'always pressed', never: '/S1', assumed: true }
    const goal = { id: 'N1', name: 'lit', never: 'P1', assumed: false }
    const sheet = controlSheet({ S1: ['push-button'], P1: ['lamp'] }, ['S1 -> P1'], {
      requirements: [goal, fact],
    })
    expect(outcomes(prove(sheet)).N1).toBe('unfinished')
  })
  it('find what a stop does not open', () => {
    const sheet = controlSheet(
      { S0: ['emergency-stop'], S1: ['push-button'], K1: ['relay'], P1: ['lamp'] },
      ['S1 + K1 -> K1', 'K1 -> P1'],
      never('S0 · P1'),
    )
    expect(outcomes(prove(sheet)).N1).toBe('refuted')
  })
  it('find what starts again by itself when the voltage comes back', () => {
    const sheet = (path: string) => {
      const read = readSheetText(
        readFileSync(new URL('../../demo/sheets/blade-press-switches.json', import.meta.url), 'utf8'),
      )
      if (!read.ok) throw new Error()
      const { control } = controlSheet(
        { T1: ['supply'], S1: ['selector'], S2: ['push-button'], K1: ['relay'] },
        [path, 'K1 -> V2.coilA'],
      )
      return { ...read.sheet, control }
    }
    expect(outcomes(prove(sheet('S1.1 -> K1'))).restart).toBe('refuted')
    expect(outcomes(prove(sheet('S1.1 · (S2 + K1) -> K1'))).restart).toBe('proved')
  })
  it('take facts for granted', () => {
    const devices = { S1: ['push-button'], S2: ['push-button'], P1: ['lamp'] } as const
    const rungs = ['S1 · S2 -> P1']
    const fact = { id: 'N2', name: 'one hand', never: 'S1 · S2', assumed: true }
    const goal = { id: 'N1', name: 'lit', never: 'P1', assumed: false }
    expect(outcomes(prove(controlSheet(devices, rungs, { requirements: [goal] }))).N1).toBe('refuted')
    expect(outcomes(prove(controlSheet(devices, rungs, { requirements: [goal, fact] }))).N1).toBe('proved')
  })
  it('say so where only times keep it from happening', () => {
    // K2 is slower than K1 for certain: its times say so, its drawing does not
    const sheet = controlSheet(
      {
        S1: ['push-button'],
        K1: ['relay', { pullIn: '5 ms' }],
        K2: ['relay', { pullIn: '50 ms' }],
        P1: ['lamp'],
      },
      ['S1 -> K1', 'S1 -> K2', 'K2 · /K1 -> P1'],
      never('P1 · S1'),
    )
    expect(outcomes(prove(sheet)).N1).toBe('orders')
  })
  it('never claim a proof that was not finished', () => {
    const devices = Object.fromEntries(
      Array.from({ length: 14 }, (_, i) => [`S${i}`, ['push-button'] as const]),
    )
    const contacts = Object.keys(devices).join(' · ')
    const sheet = controlSheet({ ...devices, P1: ['lamp'] }, [`${contacts} · /S0 -> P1`], never('P1'))
    let turns = 0
    expect(prove(sheet, () => ++turns < 2).find((p) => p.id === 'N1')!.outcome).toBe('unfinished')
  })

  // four relays in random paths, against all states by brute force
  const contact = fc.constantFrom('S1', '/S1', 'K1', '/K1', 'K2', '/K2')
  const path = fc
    .array(fc.array(contact, { minLength: 1, maxLength: 2 }), { minLength: 1, maxLength: 2 })
    .map((rows) => rows.map((row) => row.join(' · ')).join(' + '))
  it('agree with brute force on small random logics', () => {
    fc.assert(
      fc.property(path, path, (first, second) => {
        const sheet = controlSheet(
          { S1: ['push-button'], K1: ['relay'], K2: ['relay'] },
          [`${first} -> K1`, `${second} -> K2`],
          never('K1 · K2'),
        )
        const proof = prove(sheet).find((p) => p.id === 'N1')!
        // relays settle before the start, where they rest at all
        const reached = bruteForce(first, second, startOf(first, second))
        expect(proof.outcome === 'proved').toBe(!reached)
      }),
      { numRuns: 300 },
    )
  })
})

type Bits = readonly [s1: boolean, k1: boolean, k2: boolean]
const coil = (text: string, [s1, k1, k2]: Bits): boolean => {
  const parsed = parseExpression(text)
  if (!parsed.ok) throw new Error()
  return passes(parsed.expression, (name) => ({ S1: s1, K1: k1, K2: k2 })[name as 'S1'])
}
/** The state before 0 s: what is due first changes first, as long as something is due. */
function startOf(first: string, second: string): Bits {
  let state: Bits = [false, false, false]
  const due = [Infinity, Infinity]
  const solve = () => {
    ;[first, second].forEach((text, i) => {
      const wanted = coil(text, state)
      if (wanted === state[i + 1]) due[i] = Infinity
      else if (due[i] === Infinity) due[i] = wanted ? 15 : 10
    })
  }
  solve()
  for (let n = 0; n < 200 && Math.min(...due) < Infinity; n++) {
    const next = Math.min(...due)
    const changes = due.map((d) => d === next)
    state = [false, changes[0] ? !state[1] : state[1], changes[1] ? !state[2] : state[2]]
    due.forEach((d, i) => (due[i] = changes[i] ? Infinity : d))
    solve()
  }
  return state
}
/** Whether both relays are in at some time, whichever changes first. */
function bruteForce(first: string, second: string, start: Bits): boolean {
  const seen = new Set<string>()
  const open: Bits[] = [start]
  while (open.length) {
    const state = open.pop()!
    if (seen.has(state.join())) continue
    seen.add(state.join())
    const [s1, k1, k2] = state
    if (k1 && k2) return true
    open.push([!s1, k1, k2])
    if (coil(first, state) !== k1) open.push([s1, !k1, k2])
    if (coil(second, state) !== k2) open.push([s1, k1, !k2])
    if (coil(first, state) !== k1 && coil(second, state) !== k2) open.push([s1, !k1, !k2])
  }
  return false
}

describe('a counter-example', () => {
  it('is a run of the logic with the times of the relays', () => {
    const sheet = controlSheet(
      { S1: ['push-button'], K1: ['relay'], P1: ['lamp'] },
      ['S1 -> K1', 'K1 -> P1'],
      never('P1'),
    )
    const [proof] = prove(sheet)
    const run = playCounterexample(sheet, proof.events)
    const column = (id: string) => run.columns[run.signals.findIndex((s) => s.id === id)]
    const lit = run.times[column('P1.current').findIndex((v) => v > 0)]
    const pressed = run.times[column('S1.pressed').findIndex((v) => v > 0)]
    expect(lit - pressed).toBeCloseTo(0.015, 6)
    expect(run.warnings[0]).toMatch(/logic alone/)
  })
})
