/**
 * Circuits whose key figures were computed independently, from the same equations, by a stiff
 * solver at a relative tolerance of 1e-8. Figures within 1 %, times within 5 ms.
 */
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readSheetText } from '../sheet/read'
import { compile } from '../simulate/compile'
import { signalIndex, valueAt, type RunResult } from '../simulate/result'
import { run } from '../simulate/run'

function runFile(name: string): RunResult {
  const read = readSheetText(readFileSync(new URL(name, import.meta.url), 'utf8'))
  if (!read.ok) throw new Error(read.problems.map((p) => p.message).join('\n'))
  const { compiled, findings } = compile(read.sheet)
  if (!compiled) throw new Error(findings.map((f) => f.message).join('\n'))
  return run(compiled)
}
const bar = 1e5
const lpm = 1 / 60000
const near = (value: number, expected: number, absolute = 0) =>
  expect(Math.abs(value - expected)).toBeLessThanOrEqual(Math.max(0.01 * Math.abs(expected), absolute))
const at = (value: number, expected: number) => expect(Math.abs(value - expected)).toBeLessThanOrEqual(0.005)
const extremes = (r: RunResult, id: string) => {
  const index = signalIndex(r, id)
  expect(index, id).toBeGreaterThanOrEqual(0)
  return r.extremes[index]
}
const reads = (r: RunResult, id: string, t: number) => valueAt(r, signalIndex(r, id), t)

/** The first time after `from` at which a signal passes a level, rising or falling. */
function passes(r: RunResult, id: string, level: number, from = 0): number {
  const column = r.columns[signalIndex(r, id)]
  for (let k = 1; k < column.length; k++) {
    if (r.times[k] <= from) continue
    const [a, b] = [column[k - 1] - level, column[k] - level]
    if (a === 0 || a * b < 0) return r.times[k - 1] + (a / (a - b)) * (r.times[k] - r.times[k - 1])
  }
  return Number.NaN
}

describe('relief valve on a blocked line', () => {
  const cases = [
    {
      file: './r1-direct.json',
      steady: 146.13115,
      flow: 22.663944,
      heat: 5519.8471,
      leak: 325.39908,
      shaft: 6353.5285,
      peak: 148.34733,
      peakAt: 0.041386487,
      crack: 128,
      crackAt: 0.033970764,
    },
    {
      file: './r1-piloted.json',
      steady: 155.81809,
      flow: 22.575377,
      heat: 5862.7537,
      leak: 369.96994,
      shaft: 6774.6996,
      peak: 172.86368,
      peakAt: 0.044462239,
      crack: 150.4,
      crackAt: 0.037957323,
    },
    {
      file: './r1-direct-cracking.json',
      steady: 182.33296,
      flow: 22.332956,
      heat: 6786.7231,
      leak: 506.59515,
      shaft: 7927.5198,
      peak: 183.79963,
      peakAt: 0.049125066,
      crack: 160,
      crackAt: 0.039673608,
    },
  ]
  it.each(cases)('$file', (c) => {
    const r = runFile(c.file)
    expect(r.finished).toBe(true)
    const pressure = extremes(r, 'pressure(P)')
    near(pressure.end, c.steady * bar)
    near(pressure.max, c.peak * bar)
    at(pressure.maxAt, c.peakAt)
    at(passes(r, 'pressure(P)', c.crack * bar), c.crackAt)
    near(extremes(r, 'V1.flow').end, c.flow * lpm)
    near(extremes(r, 'V1.flow').end * pressure.end, c.heat)
    near(extremes(r, 'P.leakage').end * pressure.end, c.leak)
    near(extremes(r, 'M.shaftPower').end, c.shaft)
    expect(r.energy.error).toBeLessThan(1e-4)
    expect(r.oil.error).toBeLessThan(1e-4)
  })
})

describe('cylinder on a closed-centre valve', () => {
  const r = runFile('./r2.json')
  it('moves out and back as computed', () => {
    near(reads(r, 'pressure(P)', 0.19), 146.13115 * bar)
    const out = passes(r, 'A.position', 0.2)
    at(out, 1.8020689)
    near(reads(r, 'A.velocity', out), 0.12609395)
    near(reads(r, 'pressure(P)', out), 45.505934 * bar)
    near(reads(r, 'pressure(A)', out), 31.600512 * bar)
    near(reads(r, 'pressure(B)', out), 6.3075868 * bar)
    const back = passes(r, 'A.position', 0.2, 5)
    at(back, 6.0774598)
    near(reads(r, 'A.velocity', back), -0.1887137)
    near(reads(r, 'pressure(P)', back), 25.070407 * bar)
    near(reads(r, 'pressure(A)', back), 31.145375 * bar)
    near(reads(r, 'pressure(B)', back), 10.943797 * bar)
  })
  it('meets its stops at the right instant and speed', () => {
    const end = r.conditions.find((c) => c.name === 'extended')!
    at(end.start, 3.3881879)
    near(end.worst!.value, 0.12609395)
    const start = r.conditions.find((c) => c.name === 'retracted')!
    at(start.start, 7.1372663)
    near(start.worst!.value, -0.1887137)
  })
  it('peaks and holds as computed', () => {
    near(extremes(r, 'pressure(P)').max, 153.3322 * bar)
    at(extremes(r, 'pressure(P)').maxAt, 0.021069382)
    near(extremes(r, 'pressure(A)').max, 146.13115 * bar)
    near(extremes(r, 'pressure(B)').max, 146.16729 * bar)
    at(extremes(r, 'pressure(B)').maxAt, 7.1914414)
    near(extremes(r, 'A.velocity').max, 0.29138751)
    for (const t of [4.45, 4.95]) {
      near(reads(r, 'pressure(P)', t), 146.13115 * bar)
      near(reads(r, 'pressure(A)', t), 146.13115 * bar)
      near(reads(r, 'pressure(B)', t), 0, 0.01 * bar)
    }
  })
  it('keeps its oil and its energy', () => {
    expect(r.finished).toBe(true)
    expect(r.oil.error).toBeLessThan(1e-3)
    expect(r.energy.error).toBeLessThan(1e-4)
  })
})
