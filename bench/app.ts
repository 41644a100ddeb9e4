/** The built application on a data folder of its own, and a browser on it, for the benchmarks. */
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { route } from '../core/sheet/route'
import type { Sheet } from '../core/sheet/schema'
import { largeSheet } from './large'

/** With its pipes laid as a designer would have them: at right angles, round what is in their way. */
const laid = (bare: Sheet): Sheet =>
  bare.pipes.reduce<Sheet>(
    (sheet, { id, from, to }) => ({
      ...sheet,
      pipes: sheet.pipes.map((p) =>
        p.id === id
          ? { ...p, route: route(sheet, from, to, new Set([id])).map(([x, y]): [number, number] => [x, y]) }
          : p,
      ),
    }),
    bare,
  )
/** A generated sheet of about so many components, drawn as a designer would. */
export const laidSheet = (components: number): Sheet => laid(largeSheet(components))

export const median = (list: readonly number[]) => share(list, 0.5)
/** The value below which a share of a list lies. */
export const share = (list: readonly number[], s: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * s))]

/** @param port of its own, so that benchmarks do not meet */
export async function startApp(port: number) {
  const address = `http://127.0.0.1:${port}`
  const folder = mkdtempSync(join(tmpdir(), 'oar-bench-app-'))
  const server = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NUXT_DATA_FOLDER: folder, PORT: String(port), HOST: '127.0.0.1' },
  })
  const json = async (path: string, method = 'GET', body?: unknown) =>
    (
      await fetch(address + path, {
        method,
        headers: { 'content-type': 'application/json' },
        body: body ? JSON.stringify(body) : undefined,
      })
    ).json()
  for (let i = 0; i < 100; i++) {
    const up = await fetch(`${address}/api/machines`).then(
      (r) => r.ok,
      () => false,
    )
    if (up) break
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  })

  /** Puts a sheet in a machine of its own. @returns the machine's id */
  async function machineWith(name: string, content: unknown): Promise<string> {
    const { id } = await json('/api/machines', 'POST', { name })
    const detail = await json(`/api/machines/${id}`)
    await json(`/api/sheets/${detail.sheet.id}`, 'PUT', { revision: 1, sheet: content })
    return id
  }
  async function close(): Promise<void> {
    await browser.close()
    server.kill()
    rmSync(folder, { recursive: true, force: true })
  }
  return { address, browser, machineWith, close }
}
