/** Demo machines with values, faults and parts changed at random are explained like the others. */
import { describe, expect, it } from 'vitest'
import { compileMachine } from '../core/control/run'
import { answerPressure } from '../core/explain/answer'
import { energyOf, totalOf } from '../core/explain/energy'
import { Moments } from '../core/explain/moment'
import { walkthroughOf } from '../core/explain/walkthrough'
import { mutated, randomNumbers } from '../core/simulate/mutations'
import { run } from '../core/simulate/run'
import { bar } from '../core/testing'
import { showIn } from '../core/units/text'
import { demoMachines } from './machines'

const show = showIn('metric')
const SECONDS = 6
const INSTANTS = 8

/** Mutated machines that can be run, each with its first schedule. */
const sheets = demoMachines().flatMap(({ name, variants }, machine) =>
  variants.flatMap(({ sheet }, variant) => {
    const [schedule] = sheet.schedules
    const changed = mutated(
      { ...sheet, schedules: [{ ...schedule, duration: `${SECONDS} s` }] },
      randomNumbers(100 * machine + variant),
    )
    return compileMachine(changed).compiled ? [[`${name} ${variant + 1}`, changed] as const] : []
  }),
)

describe('a mutated machine', () => {
  it('can be run in most cases', () => expect(sheets.length).toBeGreaterThan(12))

  it.each(sheets)('%s is explained in whole sentences, with sums that add up', (_, sheet) => {
    const result = run(compileMachine(sheet).compiled!)
    const moments = new Moments(sheet, result)
    for (const { summary, sentences } of walkthroughOf(moments, result, show))
      for (const text of [summary, ...sentences.map((s) => s.text)]) {
        expect(text).not.toMatch(/NaN|undefined|Infinity|\[object|; ;|: [:.]|\.\.| [,.]/)
        expect(text).toMatch(/^[A-Z0-9].*\.$/s)
      }
    for (let i = 0; i < INSTANTS; i++)
      for (let line = 0; line < result.lines.length; line++) {
        moments.showRecorded(result, ((i + 0.4) / INSTANTS) * result.duration)
        const { pressure, addends, error } = answerPressure(moments, result, line).stack
        const least = Math.max(1e-3 * Math.abs(pressure), 0.1 * bar)
        expect(Math.abs(error)).toBeLessThan(least)
        expect(Math.abs(pressure - addends.reduce((sum, { value }) => sum + value, 0))).toBeLessThan(least)
      }
    const { heat, input } = energyOf(moments, result, 0, result.duration)
    expect(Number.isFinite(totalOf(heat) + totalOf(input))).toBe(true)
  })
})
