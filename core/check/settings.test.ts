/** Rules about settings, ratings, drains, pilots, stores: each finds its fault, and nothing in a sound circuit. */
import { describe, expect, it } from 'vitest'
import { acceptWarning, setParameter, changePipe } from '../sheet/edit'
import type { Sheet } from '../sheet/schema'
import { check, compile } from '../simulate/compile'
import { circuit, idOf, messages, powerUnit, powerUnitPipes } from '../testing'
import { kinds } from '../catalogue'
import { showIn } from '../units/text'
import { reasonOf, rules } from '.'

const by = (sheet: Sheet, rule: string) => messages(sheet).filter((m) => m.includes(` ${rule}: `))
const clamp = (sequence: string) =>
  circuit(
    {
      ...powerUnit,
      first: ['cylinder-double-acting'],
      next: ['sequence-valve', { setting: sequence }],
      second: ['cylinder-double-acting'],
      back2: ['reservoir'],
    },
    [
      ...powerUnitPipes,
      'pump.P first.A',
      'pump.P next.A',
      'next.B second.A',
      'first.B back2.T',
      'second.B back2.T',
    ],
  )

describe('settings', () => {
  it('finds a sequence valve that its relief never lets open', () => {
    expect(by(clamp('100 bar'), 'opens-too-high')).toEqual([])
    expect(by(clamp('160 bar'), 'opens-too-high')[0]).toMatch(
      /opens at 160 bar, but its line is limited to 160 bar/,
    )
  })
  it('writes what it finds in the units that are asked for', () => {
    const said = check(clamp('160 bar'), undefined, showIn('us')).find((f) => f.rule === 'opens-too-high')!
    expect(said.message).toMatch(/opens at 2321 psi, but its line is limited to 2321 psi/)
  })
  it('finds what measures less than the relief allows, and nothing at the line that a gauge is made for', () => {
    const read = (range: string) =>
      (['pressure-gauge', 'gauge-with-shut-off', 'pressure-transducer'] as const).flatMap((kind) =>
        by(
          circuit({ ...powerUnit, meter: [kind, { range }] }, [...powerUnitPipes, 'pump.P meter.P']),
          'gauge-range',
        ),
      )
    const low = read('100 bar')
    expect(low).toHaveLength(3)
    for (const message of low) expect(message).toMatch(/reads to 100 bar; its line can be set to 160 bar/)
    expect(read('250 bar')).toEqual([])
    const atTank = circuit({ ...powerUnit, meter: ['pressure-gauge', { range: '10 bar' }] }, [
      ...powerUnitPipes,
      'relief.T meter.P',
    ])
    expect(by(atTank, 'gauge-range')).toEqual([])
  })
  it('finds a part rated for less than the relief allows, and none behind a reducing valve', () => {
    const rig = (reducing: boolean) =>
      circuit(
        {
          ...powerUnit,
          ...(reducing ? { reducing: ['reducing-valve', { setting: '60 bar' }] as [string, object] } : {}),
          ram: ['cylinder-double-acting', { ratedPressure: '100 bar' }],
          back2: ['reservoir'],
          ...(reducing ? { drain: ['reservoir'] as [string] } : {}),
        } as Parameters<typeof circuit>[0],
        [
          ...powerUnitPipes,
          ...(reducing ? ['pump.P reducing.P', 'reducing.A ram.A', 'reducing.Y drain.T'] : ['pump.P ram.A']),
          'ram.B back2.T',
        ],
      )
    expect(by(rig(false), 'rating-below-setting')[0]).toMatch(
      /rated for 100 bar; the relief valve lets its line go to 160 bar/,
    )
    expect(by(rig(true), 'rating-below-setting')).toEqual([])
  })
  it('finds an accumulator without block, and one that never fills', () => {
    const plain = (precharge: string, block: boolean) =>
      circuit(
        {
          ...powerUnit,
          store: ['accumulator-gas', { precharge }],
          ...(block
            ? { block: ['accumulator-safety-block'] as [string], back3: ['reservoir'] as [string] }
            : {}),
        } as Parameters<typeof circuit>[0],
        [
          ...powerUnitPipes,
          ...(block ? ['pump.P block.P', 'block.A store.P', 'block.T back3.T'] : ['pump.P store.P']),
        ],
      )
    expect(by(plain('90 bar', false), 'store-without-block')[0]).toMatch(/neither shut off nor discharged/)
    expect(by(plain('90 bar', true), 'store-without-block')).toEqual([])
    expect(by(plain('90 bar', false), 'charge-too-high')).toEqual([])
    expect(by(plain('200 bar', false), 'charge-too-high')[0]).toMatch(
      /begins to fill at 200 bar, but its line is limited to 160 bar/,
    )
  })
})

describe('drains and pilots', () => {
  const motor = (drain: string, ...more: string[]) =>
    circuit(
      {
        ...powerUnit,
        filter: ['filter'],
        motor2: ['hydraulic-motor'],
        back2: ['reservoir'],
      },
      [
        ...powerUnitPipes,
        'pump.P motor2.A',
        'motor2.B filter.A',
        'filter.B back2.T',
        `motor2.L ${drain}`,
        ...more,
      ],
    )
  it('finds a case drain led into a return before its filter', () => {
    expect(by(motor('filter.A'), 'drain-under-pressure')[0]).toMatch(/does not lead straight to tank/)
    expect(by(motor('back.T'), 'drain-under-pressure')).toEqual([])
    // a long line of its own with friction is still one
    const drawn = motor('back.T')
    const id = drawn.components.find((c) => c.kind === 'hydraulic-motor')!.id
    const long = drawn.pipes.find(
      (p) => 'component' in p.from && p.from.component === id && p.from.port === 'L',
    )!
    expect(by(changePipe(drawn, long.id, { lineModel: 'friction' }), 'drain-under-pressure')).toEqual([])
  })
  it('finds a pilot line that nothing feeds', () => {
    const lift = (pilot: string[]) =>
      circuit(
        {
          ...powerUnit,
          hold: ['pilot-operated-check'],
          ram: ['cylinder-single-acting'],
          gauge: ['pressure-gauge'],
        },
        [...powerUnitPipes, 'pump.P hold.A', 'hold.B ram.A', ...pilot],
      )
    expect(by(lift(['hold.X gauge.P']), 'pilot-without-source')[0]).toMatch(/pilot line to port X/)
    expect(by(lift(['hold.X pump.P', 'gauge.P pump.P']), 'pilot-without-source')).toEqual([])
  })
  it('finds a suction line narrower than the pressure line', () => {
    const sheet = circuit(powerUnit, powerUnitPipes)
    const suction = sheet.pipes.find((p) => 'port' in p.to && p.to.port === 'S')!
    expect(by(sheet, 'narrow-suction')).toEqual([])
    expect(by(changePipe(sheet, suction.id, { bore: '8 mm' }), 'narrow-suction')[0]).toMatch(
      /bore of 8 mm, less than the 12 mm/,
    )
  })
})

describe('idling', () => {
  const press = (centre: string, more: Parameters<typeof circuit>[0] = {}, pipes: string[] = []) =>
    circuit(
      {
        ...powerUnit,
        valve: ['directional-valve-4-3', { centre }],
        ram: ['cylinder-double-acting'],
        back2: ['reservoir'],
        ...more,
      },
      [...powerUnitPipes, 'pump.P valve.P', 'valve.T back2.T', 'valve.A ram.A', 'valve.B ram.B', ...pipes],
    )
  it('tells the heat of a fixed pump on a closed centre', () => {
    // 16 cm³/rev at 1500 rpm is 24 L/min, at 160 bar 6.4 kW
    expect(by(press('closed'), 'no-way-to-unload')[0]).toMatch(/goes over 1-1V1: 6.4 kW of heat at 160 bar/)
    expect(by(press('tandem'), 'no-way-to-unload')).toEqual([])
    expect(by(press('open'), 'no-way-to-unload')).toEqual([])
  })
  it('does not judge where a valve may unload by pressure', () => {
    const unloaded = press('closed', { unload: ['unloading-valve'], back4: ['reservoir'] }, [
      'unload.P pump.P',
      'unload.X pump.P',
      'unload.T back4.T',
    ])
    expect(by(unloaded, 'no-way-to-unload')).toEqual([])
  })
})

describe('accepting', () => {
  const sheet = circuit(powerUnit, powerUnitPipes)
  const suction = sheet.pipes.find((p) => 'port' in p.to && p.to.port === 'S')!
  const narrow = changePipe(sheet, suction.id, { bore: '8 mm' })
  const pump = idOf(sheet, 'fixed-pump')
  it('keeps a warning with its reason, until it is asked to count again', () => {
    const accepted = acceptWarning(narrow, 'narrow-suction', pump, 'Short line, flooded.')
    const found = compile(accepted).findings
    expect(found.map((f) => [f.rule, f.accepted])).toEqual([['narrow-suction', 'Short line, flooded.']])
    expect(
      compile(acceptWarning(accepted, 'narrow-suction', pump, undefined)).findings[0].accepted,
    ).toBeUndefined()
  })
  it('does not keep an error quiet', () => {
    const bad = setParameter(
      acceptWarning(sheet, 'value', pump, 'never mind'),
      pump,
      'displacement',
      '-3 cm³/rev',
    )
    const [first] = compile(bad).findings
    expect([first.severity, first.accepted]).toEqual(['error', undefined])
    const open = circuit({ gauge: ['pressure-gauge'] }, [])
    const told = acceptWarning(open, 'open-port', idOf(open, 'pressure-gauge'), 'later')
    expect(compile(told).findings.find((f) => f.rule === 'open-port')!.accepted).toBeUndefined()
  })
  it('has a reason for every rule, each with its own name', () => {
    expect(new Set(rules.map((r) => r.id)).size).toBe(rules.length)
    for (const { id } of rules) expect(reasonOf(id)!.length).toBeGreaterThan(20)
  })
})

it('traits name ports and parameters that are there', () => {
  for (const kind of kinds.values()) {
    const {
      pilotPorts = [],
      drainPorts = [],
      ratedPressure,
      pressureSettings: settings = [],
      energyStorage,
      safetyBlockPort,
      constantDelivery,
    } = kind.traits ?? {}
    const ports = kind.ports.map((p) => p.name)
    // a design with fewer ports lists those it has not
    for (const port of [...drainPorts, ...settings.map((s) => s.port), energyStorage?.port, safetyBlockPort])
      if (port) expect(ports, kind.name).toContain(port)
    const parameters = settings.map((s) => s.parameter)
    for (const name of [
      ratedPressure,
      ...parameters,
      energyStorage?.minimumPressure,
      constantDelivery?.displacement,
      constantDelivery?.speed,
    ])
      if (name) expect(Object.keys(kind.parameters), kind.name).toContain(name)
    if (pilotPorts.length)
      expect(
        ports.some((p) => pilotPorts.includes(p)),
        kind.name,
      ).toBe(true)
  }
})
