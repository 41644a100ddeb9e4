/** Random legal circuits under random schedules: nothing is lost, nothing blows up, order does not matter. */
import fc from 'fast-check'
import { describe, expect, it, vi } from 'vitest'
import { findKind, kinds } from '../catalogue'
import { commandableOf } from '../catalogue/kind'
import type { Sheet } from '../sheet/schema'
import { shownUnit } from '../units/quantities'
import { quantityText } from '../units/text'
import { readFileSync } from 'node:fs'
import { readSheetText } from '../sheet/read'
import { compile } from './compile'
import { mutated, randomNumbers } from './mutations'
import { verdictOn, verdictOnRest } from './verdict'
import { build, consumerValues, fitting, type Consumer } from './random-circuits'
import { run, continueRun } from './run'
import { Simulation } from './simulation'

const solve = (sheet: Sheet) => {
  const { compiled, findings } = compile(sheet)
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return run(compiled)
}

const sound = (r: ReturnType<typeof solve>) => {
  expect(r.stopped).toBeUndefined()
  expect(r.oil.error).toBeLessThan(1e-3)
  expect(r.energy.error).toBeLessThan(1e-4)
  r.signals.forEach((s, i) => {
    expect(Number.isFinite(r.extremes[i].min) && Number.isFinite(r.extremes[i].max), s.id).toBe(true)
    if (s.role === 'pressure') expect(r.extremes[i].min, s.id).toBeGreaterThanOrEqual(-101325 - 1)
  })
}

describe('random circuits', () => {
  it('run to the end, keep their oil and energy, and never go below no pressure at all', () => {
    fc.assert(
      fc.property(
        fc.array(consumerValues, { minLength: 1, maxLength: 9 }),
        fc.constantFrom(300, 1000, 1500),
        (list, speed) => sound(solve(fitting(list as Consumer[], speed))),
      ),
      { numRuns: 30, seed: 20261 },
    )
  }, 120_000)
  it('survive whatever is broken in them, and levers pulled at random', () => {
    const breaks = fc.array(fc.tuple(fc.nat(200), fc.nat(50), fc.integer({ min: 1, max: 19 })), {
      minLength: 1,
      maxLength: 5,
    })
    fc.assert(
      fc.property(fc.array(consumerValues, { minLength: 1, maxLength: 5 }), breaks, (list, broken) => {
        const sheet = fitting(list as Consumer[], 1500)
        const tracks = [...sheet.schedules[0].tracks]
        for (const [which, what, when] of broken) {
          const component = sheet.components[which % sheet.components.length]
          const inputs = commandableOf(kinds.get(component.kind)!)
          const input = inputs[what % Math.max(inputs.length, 1)]
          if (!input || tracks.some((t) => t.component === component.id && t.input === input.name)) continue
          const value = input.form
            ? input.max / 2
            : input.positions
              ? input.positions[what % input.positions.length].value
              : undefined
          if (value === undefined || input.form === 'air') continue
          tracks.push({
            component: component.id,
            input: input.name,
            points: [
              {
                at: `${when / 10} s`,
                value: quantityText(value, input.quantity, shownUnit(input.quantity, 'metric').symbol),
                shape: 'step',
              },
            ],
          })
        }
        const r = solve({ ...sheet, schedules: [{ ...sheet.schedules[0], tracks }] })
        sound(r)
      }),
      { numRuns: 20, seed: 99 },
    )
  }, 120_000)
  it('do not depend on how their parts were turned or mirrored', () => {
    const sheet = build(
      [
        { kind: 'lift', size: 3, commands: [[3, 1]] },
        { kind: 'section', size: 2, commands: [] },
      ],
      1500,
    )
    const turned: Sheet = {
      ...sheet,
      components: sheet.components.map((c, i) => ({
        ...c,
        rotation: (i % 4) as 0 | 1 | 2 | 3,
        mirrored: i % 2 === 1,
      })),
    }
    const [a, b] = [solve(sheet), solve(turned)]
    expect(b.extremes).toEqual(a.extremes)
  })
  it('do not depend on the order in which their parts were drawn', () => {
    fc.assert(
      fc.property(fc.array(consumerValues, { minLength: 2, maxLength: 4 }), (list) => {
        const sheet = build(list as Consumer[], 1500)
        const [a, b] = [
          solve(sheet),
          solve({ ...sheet, components: [...sheet.components].reverse(), pipes: [...sheet.pipes].reverse() }),
        ]
        const pump = sheet.components.find((c) => c.kind === 'fixed-pump')!.id
        const lineOf = (r: typeof a) => r.lineOfPort[`${pump}.P`]
        const [p, q] = [a.extremes[lineOf(a)], b.extremes[lineOf(b)]]
        expect(Math.abs(p.max - q.max)).toBeLessThan(2e-3 * p.max + 1e4)
        expect(Math.abs(p.end - q.end)).toBeLessThan(2e-3 * p.max + 1e4)
      }),
      { numRuns: 12, seed: 7 },
    )
  }, 60_000)
  it('say which component is in the way when a run cannot go on', () => {
    const sheet = build([{ kind: 'throttle', size: 2, commands: [] }], 1500)
    // an element that fails half way: its equations give no number any more
    const orifice = findKind('orifice')!
    const sound = orifice.model
    let broken = () => false
    const spy = vi.spyOn(orifice, 'model').mockImplementation((values, fluid) => {
      const model = sound(values, fluid)
      const evaluate: typeof model.evaluate = (l) => {
        model.evaluate!(l)
        if (broken()) l.q[0] = Number.NaN
      }
      return { ...model, evaluate }
    })
    const simulation = new Simulation(compile(sheet).compiled!)
    spy.mockRestore()
    broken = () => simulation.network.time > 0.5
    const r = continueRun(simulation, 2)
    expect(r.finished).toBe(false)
    expect(r.stopped!.message).toMatch(/stopped at 0\.[45]\d* s: the step size fell to nothing/)
    expect(r.stopped!.component).toBeTruthy()
    expect(r.columns.every((c) => c.every(Number.isFinite))).toBe(true)
  })
})

describe('mutated circuits', () => {
  const sheets = [
    'quay-crane',
    'mud-dredge',
    'slipway-winch',
    'sluice-rotor',
    'gate-pack',
    'blade-press-switches',
  ].map((name) => {
    const read = readSheetText(
      readFileSync(new URL(`../../demo/sheets/${name}.json`, import.meta.url), 'utf8'),
    )
    if (!read.ok) throw new Error(read.problems[0].message)
    return read.sheet
  })
  it.each(sheets.map((sheet, i) => [sheet.title, sheet, i] as const))(
    '%s: whatever is changed in it, a run is sound, or says what is wrong',
    (_, sheet, i) => {
      for (let seed = 0; seed < 12; seed++) {
        const random = randomNumbers(1000 * i + seed)
        const changed = mutated({ ...sheet, schedules: [sheet.schedules[0]] }, random)
        const verdict = verdictOn(changed, undefined, 1.5)
        expect(verdict.outcome, `seed ${seed}: ${verdict.what}`).not.toBe('wrong')
      }
      const rest = verdictOnRest(sheet, undefined, 0)
      expect(rest.outcome, rest.what).not.toBe('wrong')
    },
    120_000,
  )
  it('are judged: a run that loses oil is wrong', () => {
    const [sheet] = sheets
    const pump = findKind('load-sensing-pump')!
    const sound = pump.model
    const spy = vi.spyOn(pump, 'model').mockImplementation((values, fluid) => {
      const model = sound(values, fluid)
      return {
        ...model,
        evaluate(l) {
          model.evaluate!(l)
          // a tenth of what it delivers comes from nowhere
          l.q[1] *= 1.1
        },
      }
    })
    const verdict = verdictOn({ ...sheet, schedules: [sheet.schedules[0]] }, undefined, 1.5)
    spy.mockRestore()
    expect(verdict.outcome).toBe('wrong')
    expect(verdict.what).toMatch(/oil off by/)
  })
})
