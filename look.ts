import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
const folder = mkdtempSync(join(tmpdir(), 'look-'))
await new Promise((r) => spawn(process.execPath, ['node_modules/.bin/tsx', 'demo/seed.ts', folder], { stdio: 'inherit' }).on('exit', r))
const server = spawn(process.execPath, ['.output/server/index.mjs'], { stdio: 'inherit', env: { ...process.env, NUXT_DATA_FOLDER: folder, PORT: '4190', HOST: '127.0.0.1' } })
for (let i = 0; i < 100; i++) { if (await fetch('http://127.0.0.1:4190/api/machines').then((r) => r.ok, () => false)) break; await new Promise((r) => setTimeout(r, 100)) }
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
const shot = (n: string) => page.screenshot({ path: `/tmp/look-${n}.png` })
try { await (await import(process.argv[2])).default({ page, shot, url: 'http://127.0.0.1:4190', wait: (ms: number) => new Promise((r) => setTimeout(r, ms)) }) } finally { await browser.close(); server.kill() }
