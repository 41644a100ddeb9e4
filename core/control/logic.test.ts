import { describe, expect, it } from 'vitest'
import { racesAt } from './races'
import { readControl } from './program'
import { Bench, controlSheet } from './testing'

const seal = () =>
  new Bench(
    controlSheet(
      { S0: ['push-button', { purpose: 'stop' }], S1: ['push-button'], K1: ['relay'], P1: ['lamp'] },
      ['/S0 · (S1 + K1) -> K1', 'K1 -> P1'],
    ),
  )

describe('relays', () => {
  it('hold themselves from a press that is long enough until the stop', () => {
    const bench = seal().press('S1').wait(0.02).release('S1').wait(1)
    expect(bench.is('K1')).toBe(true)
    expect(bench.is('P1')).toBe(true)
    expect(bench.press('S0').wait(0.005).is('K1')).toBe(true)
    expect(bench.wait(0.006).is('K1')).toBe(false)
    expect(bench.events).toEqual(['0.015 K1 pulls in', '1.03 K1 drops out'])
  })
  it('that lose their current before they have pulled in do not pull in', () => {
    expect(seal().press('S1').wait(0.014).release('S1').wait(1).is('K1')).toBe(false)
  })
  it('that get it back before they have dropped out stay', () => {
    const bench = seal().press('S1').wait(0.1)
    expect(bench.press('S0').wait(0.005).release('S0').wait(1).is('K1')).toBe(true)
    expect(bench.events).toHaveLength(1)
  })
  it('rest before the start each for itself, also beside one that never does', () => {
    const paths = ['/K2 · /K1 -> K2', 'S2 + /S2 -> K3', '/K3 -> K4', 'S1 -> K1']
    const devices = {
      S1: ['push-button'],
      S2: ['push-button'],
      K1: ['relay'],
      K2: ['relay'],
      // slower than the one that goes on and off
      K3: ['relay', { pullIn: '22 ms' }],
      K4: ['relay'],
    } as const
    const bench = new Bench(controlSheet(devices, paths))
    expect([bench.is('K3'), bench.is('K4')]).toEqual([true, false])
    const alone = new Bench(controlSheet(devices, paths.slice(1)))
    expect([alone.is('K3'), alone.is('K4')]).toEqual([true, false])
  })
  it('that break their own coil go on and off with their times', () => {
    const bench = new Bench(
      controlSheet({ S1: ['push-button', { latching: true }], K1: ['relay'] }, ['S1 · /K1 -> K1']),
    )
    bench.press('S1').wait(0.1)
    expect(bench.events).toEqual([
      '0.015 K1 pulls in',
      '0.025 K1 drops out',
      '0.04 K1 pulls in',
      '0.05 K1 drops out',
      '0.065 K1 pulls in',
      '0.075 K1 drops out',
      '0.09 K1 pulls in',
      '0.1 K1 drops out',
    ])
  })
  it('are where the switches want them before the start', () => {
    const bench = new Bench(
      controlSheet({ S1: ['push-button'], K1: ['relay'], K2: ['relay'] }, ['/S1 -> K1', 'K1 -> K2']),
    )
    expect([bench.is('K1'), bench.is('K2'), bench.events.length]).toEqual([true, true, 0])
  })
})

describe('timers and counters', () => {
  const timed = (kind: string) =>
    new Bench(
      controlSheet({ S1: ['push-button'], K1: ['timer', { function: kind, time: '2 s' }] }, ['S1 -> K1']),
    )
  it('delay on', () => {
    const bench = timed('onDelay').press('S1').wait(1.9)
    expect(bench.is('K1')).toBe(false)
    expect(bench.wait(0.2).is('K1')).toBe(true)
    expect(bench.release('S1').is('K1')).toBe(false)
    expect(bench.press('S1').wait(1).release('S1').press('S1').wait(1.5).is('K1')).toBe(false)
  })
  it('delay off', () => {
    const bench = timed('offDelay').press('S1')
    expect(bench.is('K1')).toBe(true)
    expect(bench.release('S1').wait(1.9).is('K1')).toBe(true)
    expect(bench.wait(0.2).is('K1')).toBe(false)
  })
  it('give one pulse for a press of any length', () => {
    const bench = timed('oneShot').press('S1').wait(0.1).release('S1')
    expect(bench.wait(1.8).is('K1')).toBe(true)
    expect(bench.wait(0.2).is('K1')).toBe(false)
  })
  it('count closures up to the preset, and are reset', () => {
    const bench = new Bench(
      controlSheet({ S1: ['push-button'], S2: ['push-button'], K1: ['counter', { preset: '3' }] }, [
        'S1 -> K1',
        'S2 -> K1.reset',
      ]),
    )
    for (let i = 0; i < 2; i++) bench.press('S1').release('S1')
    expect(bench.is('K1')).toBe(false)
    expect(bench.press('S1').is('K1')).toBe(true)
    expect(bench.press('S2').is('K1')).toBe(false)
  })
})

describe('operators and faults', () => {
  it('a selector closes the contact of its position', () => {
    const bench = new Bench(
      controlSheet({ S5: ['selector', { positions: 'three' }], P1: ['lamp'], P2: ['lamp'] }, [
        'S5.1 -> P1',
        'S5.2 -> P2',
      ]),
    )
    bench.set('S5', 'position', 2)
    expect([bench.is('P1'), bench.is('P2')]).toEqual([false, true])
  })
  it('a stuck contact, a burnt coil, a broken wire and a lost supply do what they are called', () => {
    expect(seal().press('S1').set('S1', 'stuck', 1).release('S1').wait(0.02).is('K1')).toBe(true)
    expect(seal().set('K1', 'burnt', 1).press('S1').wait(1).is('K1')).toBe(false)
    expect(seal().set('R1', 'broken', 1).press('S1').wait(1).is('K1')).toBe(false)
    const bench = new Bench(
      controlSheet({ T1: ['supply'], S1: ['push-button'], K1: ['relay'] }, ['S1 + K1 -> K1']),
    )
    bench.press('S1').wait(0.1).release('S1')
    expect(bench.set('T1', 'lost', 1).wait(0.1).is('K1')).toBe(false)
    expect(bench.set('T1', 'lost', 0).wait(0.1).is('K1')).toBe(false)
  })
})

describe('a step sequence', () => {
  const sheet = controlSheet(
    { S1: ['push-button'], S2: ['push-button'], P1: ['lamp'], P2: ['lamp'], P3: ['lamp'], P4: ['lamp'] },
    [],
    {
      sequences: [
        {
          id: 'G1',
          name: 'Cycle',
          steps: [
            { id: 'X0', name: '', initial: true, actions: [] },
            {
              id: 'X1',
              name: '',
              initial: false,
              actions: [
                { coil: 'P1', qualifier: 'while' },
                { coil: 'P2', qualifier: 'delayed', time: '1 s' },
                { coil: 'P3', qualifier: 'limited', time: '1 s' },
                { coil: 'P4', qualifier: 'set' },
              ],
            },
            { id: 'X2', name: '', initial: false, actions: [] },
            { id: 'X3', name: '', initial: false, actions: [{ coil: 'P4', qualifier: 'reset' }] },
          ],
          transitions: [
            { id: 't0', from: ['X0'], to: ['X1', 'X2'], condition: 'S1' },
            { id: 't1', from: ['X1', 'X2'], to: ['X3'], condition: 'G1.X1 for 3 s' },
            { id: 't2', from: ['X3'], to: ['X0'], condition: 'S2' },
          ],
        },
      ],
    },
  )
  it('goes on where its conditions hold, in simultaneous branches', () => {
    const bench = new Bench(sheet)
    expect(bench.is('G1.X0')).toBe(true)
    bench.press('S1').release('S1')
    expect(['G1.X0', 'G1.X1', 'G1.X2'].map((s) => bench.is(s))).toEqual([false, true, true])
    bench.wait(0.5)
    expect(['P1', 'P2', 'P3', 'P4'].map((c) => bench.is(c))).toEqual([true, false, true, true])
    bench.wait(1)
    expect(['P1', 'P2', 'P3', 'P4'].map((c) => bench.is(c))).toEqual([true, true, false, true])
    bench.wait(2)
    expect(bench.is('G1.X3')).toBe(true)
    expect(['P1', 'P2', 'P3', 'P4'].map((c) => bench.is(c))).toEqual([false, false, false, false])
    bench.press('S2')
    expect(bench.is('G1.X0')).toBe(true)
  })
})

describe('races', () => {
  const pressed = { isOn: () => false, input: (_: string, name: string) => Number(name === 'pressed') }
  it('are found where relays that change together are each in the other one’s path', () => {
    const bench = new Bench(
      controlSheet({ S1: ['push-button'], K1: ['relay'], K2: ['relay'] }, [
        'S1 · /K2 -> K1',
        'S1 · /K1 -> K2',
      ]),
    )
    bench.press('S1')
    const [race] = racesAt(bench.logic, bench.state, pressed, 0.015)
    expect(race.what).toBe('race of K1 and K2: together no rest; with K1 first K1 on, K2 off')
  })
  it('are none where the order does not matter', () => {
    const bench = new Bench(
      controlSheet({ S1: ['push-button'], K1: ['relay'], K2: ['relay'] }, ['S1 -> K1', 'S1 -> K2']),
    ).press('S1')
    expect(racesAt(bench.logic, bench.state, pressed, 0.015)).toEqual([])
  })
})

describe('what cannot be read', () => {
  const findings = (...args: Parameters<typeof controlSheet>) =>
    readControl(controlSheet(...args)).findings.map((f) => `${f.location.control}: ${f.message}`)
  it('is said at its place', () => {
    expect(findings({ K1: ['relay'] }, ['S9 -> K1'])).toEqual(['R1: Path 1: there is no contact "S9".'])
    expect(findings({ K1: ['relay'] }, ['K1 -> Q7'])).toEqual(['R1: Path 1: there is no coil "Q7".'])
    expect(findings({ K1: ['relay'], S1: ['push-button'] }, ['S1 -> K1', '/S1 -> K1'])).toEqual([
      'R2: K1 is driven by path 1 and by path 2.',
    ])
    expect(findings({ K1: ['relay'] }, ['(K1 -> K1'])).toEqual(['R1: Path 1: A bracket is not closed.'])
    expect(findings({ K1: ['wheel'] }, [])).toEqual(['K1: K1: nothing is known of a device "wheel".'])
    expect(findings({ K1: ['relay', { pullIn: '3 bar' }] }, [])[0]).toMatch(/^K1: K1: Pull-in time/)
    expect(findings({ T1: ['supply'], T2: ['supply'] }, [])).toEqual(['T2: A control has one supply.'])
  })
})
