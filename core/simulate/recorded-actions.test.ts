import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readSheet } from '../sheet/read'
import { sheetSchema, type Sheet } from '../sheet/schema'
import { bar, circuit, idOf, messages, powerUnit, powerUnitPipes, timed } from '../testing'
import { compile } from './compile'
import { compileLive, LiveRun } from './live-run'
import { parseAction, readAction, recordAction, scheduleOf } from './recorded-actions'
import { run } from './run'

const sheet = timed(circuit(powerUnit, powerUnitPipes), 2, [])
const relief = idOf(sheet, 'relief-valve-direct')
const [pipe] = sheet.pipes

describe('actions in words', () => {
  const read = (text: string) => {
    const parsed = parseAction(sheet, text)
    return 'message' in parsed ? parsed : readAction(sheet, parsed.value)
  }
  it.each([
    [
      `0.5 ${relief}.setting=95 bar`,
      { at: 0.5, kind: 'set', component: relief, target: 'setting', value: 95e5 },
    ],
    [
      `20 ms ${relief}.setting = release`,
      { at: 0.02, kind: 'release', component: relief, target: 'setting' },
    ],
    [`3 ${pipe.id}.burst=4 mm`, { at: 3, kind: 'set', component: pipe.id, target: 'burst', value: 4e-3 }],
    [
      `1 ${relief}.ratedFlow=30 L/min`,
      { at: 1, kind: 'parameter', component: relief, target: 'ratedFlow', value: '30 L/min' },
    ],
  ])('%s', (text, action) => {
    expect(read(text)).toEqual({ value: action })
  })
  it.each([
    ['at once', 'TIME ID.NAME=VALUE'],
    [`1 ${relief}.setting=4 mm`, 'unit of length'],
    [`1 ${relief}.setting=900 bar`, 'outside'],
    [`1 ${relief}.colour=3`, 'it has setting'],
    ['1 Q9.setting=3 bar', 'no component or pipe "Q9"'],
    [`1 ${pipe.id}.setting=3 bar`, 'it has burst'],
    [`1 kg ${relief}.setting=3 bar`, 'unit of mass'],
  ])('say what is wrong with %s', (text, message) => {
    expect((read(text) as { message: string }).message).toContain(message)
  })
  it('are designated components too', () => {
    const named: Sheet = {
      ...sheet,
      components: sheet.components.map((c) => (c.id === relief ? { ...c, designation: '1-0V1' } : c)),
    }
    expect(parseAction(named, '1 1-0V1.setting=3 bar')).toMatchObject({ value: { component: relief } })
  })
})

describe('actions in a schedule', () => {
  it('keep every bit of their numbers', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 6e7, noNaN: true }),
        (at, value) => {
          const action = { at, kind: 'set', component: relief, target: 'setting', value } as const
          expect(readAction(sheet, recordAction(sheet, action))).toEqual({ value: action })
        },
      ),
    )
  })
  it('of a live run give its numbers to the last bit when it is run', () => {
    const { compiled } = compileLive(sheet, undefined, true)
    const live = new LiveRun(compiled!)
    live.goOn(0.5)
    live.do({ kind: 'set', component: relief, target: 'setting', value: 90 * bar })
    live.do({ kind: 'longestStep', value: 0.004 })
    live.goOn(1)
    live.do({ kind: 'set', component: pipe.id, target: 'burst', value: 3e-3 })
    live.do({ kind: 'parameter', component: relief, target: 'ratedFlow', value: '30 L/min' })
    live.goOn(1.5)
    const result = live.result()
    const named = { id: 'live', name: 'By hand', note: 'loses its oil' }
    const { longestStep } = result.live!
    const { duration, actions } = result
    const schedule = scheduleOf(sheet, compiled!.schedule, { actions, longestStep, duration }, named)
    const read = readSheet(
      JSON.parse(JSON.stringify({ ...sheet, schedules: [...sheet.schedules, schedule] })),
    )
    if (!read.ok) throw new Error(read.problems[0].message)
    const again = run(compile(read.sheet, 'live').compiled!)
    expect(again.extremes).toEqual(result.extremes)
    expect(again.columns).toEqual(result.columns)
    expect(again.actions).toEqual(result.actions)
  })
  it('that cannot be done are findings', () => {
    const wrong = sheetSchema.parse({
      ...sheet,
      schedules: [
        {
          ...sheet.schedules[0],
          longestStep: '-1 s',
          actions: [
            { at: '-1 s', component: relief, target: 'setting', value: '3 bar' },
            { at: '1 s', component: relief, target: 'setting' },
            { at: '1 s', kind: 'longestStep', value: '0 s' },
          ],
        },
      ],
    })
    const said = messages(wrong).join('\n')
    for (const words of ['longest step: -1 s', 'before the start', 'a value is missing', 'above 0 s'])
      expect(said).toContain(words)
  })
})
