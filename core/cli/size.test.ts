import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { cards } from '../size/cards'
import { sizeCommand } from './size-command'
import { runBundled } from './testing'

const run = (...args: string[]) => sizeCommand(args)

describe('the sizing command', () => {
  it('lists its cards', () => {
    const listed = JSON.parse(run('--list', '--json').out) as { id: string; inputs: { name: string }[] }[]
    expect(listed.map((c) => c.id)).toEqual(cards.map((c) => c.id))
    expect(listed.find((c) => c.id === 'cylinder-bore')!.inputs.map((i) => i.name)).toContain('force')
    expect(run('--list').out).toContain('cylinder-bore: Bore.')
  })
  it('shows steps with the numbers put in, and solves', () => {
    expect(run('cylinder-bore', 'force=60 kN').out).toContain('60 kN / 134.5 bar = 44.61 cm²')
    const solved = JSON.parse(
      run('pump-displacement', 'displacement=16 cc', 'delivered=30 L/min', '--solve', 'speed', '--json').out,
    ) as { solved: { value: number }; values: Record<string, { value: number; given: boolean }> }
    expect((solved.solved.value * 60) / (2 * Math.PI)).toBeCloseTo(30000 / (16 * 0.92), 3)
    expect(solved.values.displacement.given).toBe(true)
    expect(run('line-pressure', '--units', 'us').out).toContain('gpm')
  })
  it('takes sizes from a table of own series', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'oar-bench-series-')), 'series.csv')
    writeFileSync(file, 'series,sizes of,use,source,size\nOurs,bores,instead,stock list,77 mm\n')
    expect(run('cylinder-bore', 'force=60 kN', '--series', file).out).toContain(
      'next of stock list to D₀ = … 75.36 mm = 77 mm',
    )
    writeFileSync(file, 'series,sizes of,size\nOurs,bores,77\n')
    expect(run('cylinder-bore', '--series', file).error).toContain('Row 2')
  })
  it.each([
    [['nothing'], 'no card "nothing"'],
    [['cylinder-bore', 'width=3 mm'], 'has no "width"'],
    [['cylinder-bore', 'force=3 bar'], 'unit of pressure'],
    [['cylinder-bore', 'efficiency=300 %'], 'between'],
    [['cylinder-bore', 'force'], 'NAME=VALUE'],
    [['cylinder-bore', '--solve', 'force'], 'Give a result'],
    [['cylinder-frequency', 'ramp=1e-9 s', '--solve', 'mass'], 'No moved mass gives this'],
    [['cylinder-bore', 'force=50 MN'], 'large enough'],
    [['cylinder-bore', '--units', 'imperial'], 'metric or us'],
    [['cylinder-bore', '--series', 'none.csv'], 'cannot be read'],
    [[], 'Usage'],
  ])('refuses %j', (args, words) => {
    const { code, error } = run(...args)
    expect(code).toBe(2)
    expect(error).toContain(words)
  })
  it('ends as it says when it is run', async () => {
    expect((await runBundled('size', '--list', '--json')).out).toBe(run('--list', '--json').out)
    expect(await runBundled('size', 'nothing')).toEqual({
      code: 2,
      out: '',
      err: expect.stringContaining('nothing'),
    })
  })
})
