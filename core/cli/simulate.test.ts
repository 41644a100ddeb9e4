import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'

const root = fileURLToPath(new URL('../..', import.meta.url))
const press = join(root, 'demo/sheets/shavings-press.json')
let place: string
beforeAll(() => (place = mkdtempSync(join(tmpdir(), 'oar-bench-'))))
afterAll(() => rmSync(place, { recursive: true }))

function simulate(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  return new Promise((resolve) =>
    execFile('npm', ['run', '--silent', 'simulate', '--', ...args], { cwd: root }, (error, out, err) =>
      resolve({ code: error ? Number(error.code) : 0, out, err }),
    ),
  )
}
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
    ['a fault beyond its range', [press, '--break', 'V1.leak=900 L/min@1'], 'is outside'],
    ['a bad end', [press, '--until=-1'], 'seconds above 0'],
  ])('refuses %s with code 2', async (_what, args, words) => {
    const { code, err } = await simulate(...args)
    expect(code).toBe(2)
    expect(err).toContain(words)
    expect(err).not.toContain('    at ')
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
