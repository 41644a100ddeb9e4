import { describe, expect, it } from 'vitest'
import { decodeRun, encodeRun } from '../formats/run-file'
import { circuit, idOf, powerUnit, powerUnitPipes, timed, track } from '../testing'
import { showIn } from '../units/text'
import { compile } from './compile'
import { eventText } from './event-text'
import type { Action } from './actions'
import { run } from './run'

/** A pump whose motor is ramped up, held, and then set to another speed at once. */
const plain = circuit(powerUnit, powerUnitPipes)
const motor = idOf(plain, 'electric-motor')
const sheet = timed(plain, 4, [
  track(motor, 'speed', [0, '0 rpm'], [1, '0 rpm'], [2, '1500 rpm', 'ramp'], [3, '1000 rpm']),
])
function eventsOf(actions: readonly Action[] = []) {
  const { compiled, findings } = compile(sheet)
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return run(compiled, { actions })
}
const texts = (r: ReturnType<typeof eventsOf>, source: string, system: 'metric' | 'us' = 'metric') =>
  r.events
    .filter((e) => e.source === source)
    .map((e) => `${Number(e.at.toFixed(6))} ${e.component} ${eventText(e, showIn(system))}`)

describe('events of inputs', () => {
  it('a ramp is none, a jump is one, in words and units', () => {
    const r = eventsOf()
    expect(texts(r, 'schedule')).toEqual([`3 ${motor} speed 1000 rpm`])
    expect(r.events.find((e) => e.source === 'schedule')).toMatchObject({
      what: 'speed = 1000 rpm',
      change: { input: 'speed', quantity: 'rotationalSpeed' },
    })
  })
  it('what is done by hand is the hand’s, also what follows from letting go', () => {
    const relief = idOf(plain, 'relief-valve-direct')
    const r = eventsOf([
      { at: 0.5, kind: 'set', component: motor, target: 'speed', value: 100 },
      { at: 0.7, kind: 'release', component: motor, target: 'speed' },
      { at: 0.8, kind: 'longestStep', value: 0.05 },
      { at: 0.9, kind: 'parameter', component: relief, target: 'setting', value: '95 bar' },
    ])
    expect(texts(r, 'schedule')).toEqual([`3 ${motor} speed 1000 rpm`])
    expect(texts(r, 'user')).toEqual([
      `0.5 ${motor} speed 954.9 rpm`,
      `0.7 ${motor} ${motor}.speed released`,
      `0.9 ${relief} ${relief}.setting = 95 bar`,
    ])
  })
  it('of a run that was kept before are understood', () => {
    const r = eventsOf()
    const old = {
      ...r,
      events: [{ at: 3, source: 'schedule' as const, component: motor, what: 'speed = 104.71975511965977' }],
    }
    expect(decodeRun(encodeRun(old)).events[0].change).toMatchObject({
      input: 'speed',
      value: 104.71975511965977,
    })
    expect(decodeRun(encodeRun(r)).events).toEqual(r.events)
  })
})
