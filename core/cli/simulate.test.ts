import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { root, runBundled } from './testing'

const press = join(root, 'demo/sheets/shavings-press.json')
let place: string
beforeAll(() => (place = mkdtempSync(join(tmpdir(), 'oar-bench-'))))
afterAll(() => rmSync(place, { recursive: true }))
const simulate = (...args: string[]) => runBundled('simulate', ...args)
const file = (name: string, text: string) => {
  const path = join(place, name)
  writeFileSync(path, text)
  return path
}

describe('headless runner', { timeout: 30_000 }, () => {
  it('prints key figures, conditions, balances and statistics, and writes CSV and JSON', async () => {
    const [csv, json] = [join(place, 'a.csv'), join(place, 'a.json')]
    const { code, out } = await simulate(press, '--until', '6', '--csv', csv, '--json', json)
    expect(code).toBe(0)
    for (const words of [
      'pressure(pump line)',
      'A1: reaches its extended stop',
      'energy: shafts in',
      'oil: from tanks',
      'solver: ',
    ])
      expect(out).toContain(words)
    expect(readFileSync(csv, 'utf8').split('\r\n')).toHaveLength(1 + 301 + 1)
    expect(JSON.parse(readFileSync(json, 'utf8')).duration).toBe(6)
  })
  it('sets parameters and chooses schedules', async () => {
    const { code, out } = await simulate(
      press,
      '--schedule',
      'half',
      '--set',
      'V1.setting=100 bar',
      '--set',
      'Z1.bypass=false',
    )
    expect(code).toBe(0)
    const max = /pressure\(pump line\) +\S+ +\S+ +\S+ +(\S+)/.exec(out)!
    expect(Number(max[1])).toBeLessThan(115)
  })
  it.each([
    ['no file', ['nowhere.json'], 'Cannot read nowhere.json'],
    ['no arguments', [], 'Usage: simulate FILE'],
    ['an unknown option', [press, '--fast'], 'Usage: simulate FILE'],
    ['an unknown schedule', [press, '--schedule', 'x'], 'no schedule "x"'],
    ['a value that is none', [press, '--set', 'V1.setting=red'], 'Not a pressure'],
    ['an unknown component', [press, '--set', 'V99.setting=1 bar'], 'no component "V99"'],
    ['an unknown parameter', [press, '--set', 'V1.colour=1'], 'no parameter "colour"'],
    ['an unknown fault', [press, '--break', 'V1.melted=1'], 'it has drift, springBroken, stuck, leak'],
    ['a fault out of range', [press, '--break', 'V1.leak=900 L/min@1'], 'is outside'],
    ['a bad end', [press, '--until=-1'], 'seconds above 0'],
    ['an end beyond a day', [press, '--until', '1e6'], 'at most 86400 s'],
    [
      'a signal that is none',
      [press, '--until', '0.1', '--signals', 'A1.positon,pump'],
      'no signal "A1.positon"',
    ],
    ['a tolerance out of range', [press, '--tolerance', '1'], 'from 1e-10 to 1e-2'],
    ['an interval that is no time', [press, '--every', 'often'], '--every takes a time'],
  ])('refuses %s with code 2', async (_what, args, words) => {
    const { code, err } = await simulate(...args)
    expect(code).toBe(2)
    expect(err).toContain(words)
    expect(err).not.toContain('    at ')
  })
  it('writes the signals, the interval and the accuracy that were asked for', async () => {
    const [csv, json] = [join(place, 'b.csv'), join(place, 'b.json')]
    const chosen = ['A1.position', 'pressure(pump line)']
    const { code } = await simulate(
      press,
      ...['--until', '2', '--every', '100 ms', '--tolerance', '1e-5', '--signals', chosen.join(',')],
      ...['--csv', csv, '--json', json],
    )
    expect(code).toBe(0)
    const rows = readFileSync(csv, 'utf8').trim().split('\r\n')
    expect(rows).toHaveLength(1 + 21)
    expect(rows[0].split(',')).toHaveLength(3)
    const result = JSON.parse(readFileSync(json, 'utf8'))
    expect(result.signals.map((s: { id: string }) => s.id).sort()).toEqual([...chosen].sort())
    expect(result.times).toHaveLength(21)
  })
  it('goes on beyond the schedule with its last commands', async () => {
    const { code, out } = await simulate(press, '--until', '15', '--every', '1 s')
    expect(code).toBe(0)
    expect(out).toMatch(/schedule \w+, 15 s/)
  })
  it('prints its figures even where a file cannot be written, and says so', async () => {
    const { code, out, err } = await simulate(
      press,
      '--until',
      '0.2',
      '--json',
      join(place, 'no', 'such', 'folder.json'),
    )
    expect(code).toBe(2)
    expect(out).toContain('energy: shafts in')
    expect(err).toContain('Cannot write')
    expect(err).not.toContain('    at ')
  })
  it('stops quietly where nobody reads its output', async () => {
    const errors = join(place, 'errors.txt')
    await new Promise<void>((resolve) =>
      execFile(
        'bash',
        ['-c', `npm run --silent simulate -- "$0" --until 0.2 2>"$1" | head -n 1`, press, errors],
        { cwd: root },
        () => resolve(),
      ),
    )
    expect(readFileSync(errors, 'utf8')).not.toMatch(/EPIPE| {4}at /)
  })
  it('reads a file that begins with a byte order mark', async () => {
    const { code } = await simulate(
      file('bom.json', `\uFEFF${readFileSync(press, 'utf8')}`),
      '--until',
      '0.1',
    )
    expect(code).toBe(0)
  })
  it('says in words what is wrong with a file', async () => {
    const wrong = await simulate(
      file(
        'wrong.json',
        '{"format":"oar-bench-sheet","version":4,"title":7,"junctions":{},"colour":1,"components":[{"id":"a"}]}',
      ),
    )
    expect(wrong.code).toBe(2)
    for (const words of [
      'title: takes a text',
      'junctions: takes a list',
      'the sheet: has "colour", which is not known here',
      'components.0.kind: is missing; it takes a text',
    ])
      expect(wrong.err).toContain(words)
    expect(wrong.err).not.toMatch(/Invalid|expected|received/)
  })
  it('breaks a component from a time on, and solves the rest of an instant', async () => {
    const broken = await simulate(press, '--until', '7.4', '--break', 'V1.springBroken=1@6.5')
    expect(broken.code).toBe(0)
    const [, end] = /V1\.setting .*|pressure\(pump line\)\s+(\S+)/.exec(broken.out) ?? []
    expect(Number(end)).toBeLessThan(20)
    const idle = await simulate(press, '--steady', '0')
    expect(idle.code).toBe(0)
    expect(idle.out).toMatch(/pressure\(pump line\)\s+18\d\.\d+\s+bar/)
    expect(idle.out).not.toContain('warning')
  }, 60_000)
  it('refuses a bad file and a circuit that cannot be simulated', async () => {
    const bad = await simulate(
      file(
        'bad.json',
        '{"format":"oar-bench-sheet","version":1,"components":[{"id":"P","kind":"warp-drive"}]}',
      ),
    )
    expect([bad.code, bad.err]).toEqual([
      2,
      expect.stringContaining('Nothing is known of a component "warp-drive"'),
    ])
    const sheet = JSON.parse(readFileSync(press, 'utf8'))
    sheet.pipes = sheet.pipes.filter((p: { id: string }) => p.id !== 'L4')
    const open = await simulate(file('open.json', JSON.stringify(sheet)))
    expect(open.code).toBe(2)
    expect(open.err).toContain('V1.P: Port P of 1-0V1 (protected line) is open')
  })
})

describe('actions on the command line', { timeout: 60_000 }, () => {
  const simulatePress = (...args: string[]) => simulate(press, ...args)
  const folder = mkdtempSync(join(tmpdir(), 'actions-'))
  const at = (name: string) => join(folder, name)
  const ends = (name: string) =>
    (
      JSON.parse(readFileSync(at(name), 'utf8')) as { signals: { id: string; end: number; max: number }[] }
    ).signals.map(({ id, end, max }) => [id, end, max])
  it('are done, listed as events, and continued in another process to the same last bit', async () => {
    const doing = ['--until', '2', '--do', '1.5 L4.burst=3 mm', '--do', '0.5 1-0V1.setting=95 bar']
    const first = await simulatePress(...doing, '--save-at', '0.8', at('s'), '--json', at('a.json'))
    expect(first.code).toBe(0)
    const { events } = JSON.parse(readFileSync(at('a.json'), 'utf8')) as {
      events: { at: number; source: string; what: string }[]
    }
    const byHand = { source: 'user' }
    expect(events.filter((e) => e.source === 'user')).toEqual([
      {
        ...byHand,
        at: 0.5,
        component: 'V1',
        what: 'V1.setting = 95 bar',
        input: 'setting',
        value: 95,
        unit: 'bar',
      },
      { ...byHand, at: 1.5, component: 'L4', what: 'L4.burst = 3 mm', input: 'burst', value: 3, unit: 'mm' },
    ])
    expect(events.map((e) => e.at)).toEqual([...events.map((e) => e.at)].sort((a, b) => a - b))
    expect((await simulatePress('--until', '2', '--from', at('s'), '--json', at('b.json'))).code).toBe(0)
    expect(ends('b.json')).toEqual(ends('a.json'))
    // the same from a file
    const list = [
      { at: '0.5 s', component: 'V1', target: 'setting', value: '95 bar' },
      { at: '1.5 s', component: 'L4', target: 'burst', value: '3 mm' },
    ]
    writeFileSync(at('list.json'), JSON.stringify(list))
    expect(
      (await simulatePress('--until', '2', '--actions', at('list.json'), '--json', at('c.json'))).code,
    ).toBe(0)
    expect(ends('c.json')).toEqual(ends('a.json'))
  })
  it('are refused in plain words', async () => {
    writeFileSync(at('bad.json'), '[{"at": 3}]')
    writeFileSync(at('none'), 'x')
    // cut off at half, and with one digit of a number changed
    const kept = readFileSync(at('s'))
    writeFileSync(at('cut'), kept.subarray(0, kept.length / 2))
    writeFileSync(
      at('altered'),
      Buffer.concat([kept.subarray(0, -40), Buffer.from([kept.at(-40)! ^ 1]), kept.subarray(-39)]),
    )
    for (const [args, words] of [
      [['--do', '1 V1.setting=95 mm'], 'unit of length'],
      [['--do', 'now'], 'TIME ID.NAME=VALUE'],
      [['--actions', at('bad.json')], '0.at'],
      [['--actions', at('gone.json')], 'gone.json'],
      [['--save-at', '1'], 'file of the snapshot'],
      [['--from', at('none')], 'no snapshot'],
      [['--from', at('cut')], 'damaged'],
      [['--from', at('altered')], 'damaged'],
      [['--until', '3', '--set', 'V1.setting=99 bar', '--from', at('s')], 'belongs to another sheet'],
    ] as const) {
      const { code, err } = await simulatePress(...args)
      expect([code, err]).toEqual([2, expect.stringContaining(words)])
    }
  })
})
