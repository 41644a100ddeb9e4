/** The command line of the answers, as a process. */
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { runBundled } from './testing'

const press = 'demo/sheets/blade-press-switches.json'
const explain = (...args: string[]) => runBundled('explain', ...args)

describe('answers without a browser', { timeout: 60_000 }, () => {
  it('tells the sum of a pressure at a gauge, what fixes it and what would change it', async () => {
    const { code, out } = await explain(press, '--at', '1.5', '--gauge', '1-0S1', '--knobs', '--json')
    expect(code).toBe(0)
    const { pressure, stack, fixedBy, error, knobs } = JSON.parse(out)
    const sum = stack.reduce((all: number, { value }: { value: number }) => all + value, 0)
    expect(Math.abs(sum - pressure)).toBeLessThan(1)
    expect(Math.abs(error)).toBeLessThan(1)
    expect(fixedBy).toEqual({ kind: 'load', part: 'A1' })
    expect(knobs[0]).toMatchObject({ part: 'A1', parameter: 'bore' })
    const words = await explain(press, '--at', '7', '--net', 'line A')
    expect(words.out).toContain('Oil is shut in here since 6.52 s by 1-1V1.')
  })
  it('ends with 2 and a plain message on a place, an instant or a file that is not there', async () => {
    const wrong = await Promise.all([
      explain(press, '--at', '1', '--gauge', 'S99'),
      explain(press, '--at', '99', '--gauge', '1-0S1'),
      explain(press, '--gauge', '1-0S1'),
      explain('none.json', '--at', '1', '--net', 'x'),
    ])
    expect(wrong.map(({ code }) => code)).toEqual([2, 2, 2, 2])
    expect(wrong[0].err).toContain('There is no gauge "S99".')
    expect(wrong[1].err).toContain('The run ends at 14 s')
  })
  it('writes a walkthrough, the states and the energy', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'explain-'))
    const [md, csv] = [join(folder, 'w.md'), join(folder, 's.csv')]
    const [json, written, states, energy] = await Promise.all([
      explain(press, '--walkthrough', '--json'),
      explain(press, '--walkthrough', '--md', md),
      explain(press, '--states', '--csv', csv),
      explain(press, '--energy', '--json'),
    ])
    expect([json, written, states, energy].map(({ code }) => code)).toEqual([0, 0, 0, 0])
    const walked = JSON.parse(json.out)
    expect(Object.keys(walked[0])).toEqual(expect.arrayContaining(['t', 'cause', 'moving', 'sentences']))
    expect(walked[0].t).toBe(0)
    expect(readFileSync(md, 'utf8').match(/^## /gm)).toHaveLength(walked.length)
    expect(readFileSync(csv, 'utf8')).toMatch(/^State,Met in,/)
    const account = JSON.parse(energy.out)
    expect(account.input[0].part).toBe('M1')
    expect(account.steady.runs).toBeGreaterThan(0)
  })
  it('takes one question at a time', async () => {
    const wrong = await Promise.all([
      explain(press, '--walkthrough', '--states'),
      explain(press, '--states', '--md', 'x.md'),
      explain(press, '--walkthrough', '--csv', 'x.csv'),
    ])
    expect(wrong.map(({ code }) => code)).toEqual([2, 2, 2])
    expect(wrong[0].err).toContain('Give one of --walkthrough and --states.')
  })
})
