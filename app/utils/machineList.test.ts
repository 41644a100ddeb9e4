import { describe, expect, it } from 'vitest'
import type { MachineRow } from '#shared/api'
import { shownMachines, stepStates } from './machineList'

const sheet = { components: 5, errors: 0, warnings: 0, incomplete: 0, sized: 4, agreeing: 4, waiting: 0 }
const row = (change: Partial<MachineRow> = {}): MachineRow => ({
  id: 'a',
  name: 'Press 2',
  summary: 'presses bales',
  sheetId: 's',
  sheetRevision: 1,
  variants: 1,
  updatedAt: 1,
  briefFilled: true,
  sheet,
  runs: 1,
  lastRun: { finished: true, conditions: 2, createdAt: 1, current: true },
  ...change,
})
const states = (change: Partial<MachineRow>) =>
  Object.fromEntries(stepStates(row(change)).map(({ step, state, text }) => [step, `${state}: ${text}`]))

describe('where each step stands', () => {
  it('is done where nothing is left to do', () =>
    expect(states({})).toEqual({
      brief: 'done: filled',
      sheet: 'done: checks pass',
      sizes: 'done: 4 of 4 agree',
      run: 'done: 2 conditions',
    }))
  it.each([
    [{ briefFilled: false }, 'brief', 'open: not filled in'],
    [{ sheet: null }, 'sheet', 'open: being checked'],
    [{ sheet: { ...sheet, components: 0 } }, 'sheet', 'open: not drawn yet'],
    [{ sheet: { ...sheet, errors: 1, warnings: 2 } }, 'sheet', 'problem: 1 error, 2 warnings'],
    [{ sheet: { ...sheet, incomplete: 3 } }, 'sheet', 'open: 3 open ports'],
    [{ sheet: { ...sheet, warnings: 1 } }, 'sheet', 'open: 1 warning'],
    [{ sheet: { ...sheet, agreeing: 1 } }, 'sizes', 'open: 1 of 4 agree'],
    [{ sheet: { ...sheet, agreeing: 2, waiting: 1 } }, 'sizes', 'open: 2 of 4 agree, 1 to be assigned'],
    [{ sheet: { ...sheet, sized: 0 } }, 'sizes', 'open: nothing sized'],
    [{ lastRun: null }, 'run', 'open: none saved'],
    [
      { lastRun: { finished: false, conditions: 0, createdAt: 1, current: true } },
      'run',
      'problem: ended early',
    ],
    [
      { lastRun: { finished: true, conditions: 1, createdAt: 1, current: false } },
      'run',
      'open: of an earlier sheet',
    ],
  ] as const)('with %j the %s is %s', (change, step, state) => expect(states(change)[step]).toBe(state))
})

describe('the machines that are shown', () => {
  const list = [
    row({ id: '1', name: 'Press 10', updatedAt: 3 }),
    row({ id: '2', name: 'press 9', updatedAt: 2, sheet: { ...sheet, errors: 2 } }),
    row({ id: '3', name: 'Crane', summary: 'lifts', updatedAt: 1, sheet: { ...sheet, warnings: 7 } }),
    row({ id: '4', name: 'Winch', summary: 'pulls', updatedAt: 4, sheet: null }),
  ]
  const ids = (...args: [string, 'name' | 'updated' | 'findings']) =>
    shownMachines(list, ...args).map((m) => m.id)
  it('are sorted by name with numbers as numbers, by change, by findings', () => {
    expect(ids('', 'name')).toEqual(['3', '2', '1', '4'])
    expect(ids('', 'updated')).toEqual(['4', '1', '2', '3'])
    expect(ids('', 'findings')).toEqual(['2', '3', '1', '4'])
  })
  it('have all words of the search in name or description', () => {
    expect(ids('PRESS bales', 'name')).toEqual(['2', '1'])
    expect(ids('lifts', 'name')).toEqual(['3'])
    expect(ids('press lifts', 'name')).toEqual([])
  })
})
