import { defineConfig } from '@playwright/test'

/** Each worker has a separate server and database. */
const WORKERS = Number(process.env.BROWSER_WORKERS ?? 2)
const portOf = (worker: number) => 4173 + worker
/** Set by Playwright in the process of a worker, which reads this file again. */
const worker = Number(process.env.TEST_PARALLEL_INDEX ?? 0)

const chromium = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1',
]

export default defineConfig({
  testDir: 'e2e',
  timeout: 90_000,
  expect: { timeout: 15_000 },
  workers: WORKERS,
  forbidOnly: true,
  outputDir: 'test-results/browser',
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : 'list',
  use: {
    baseURL: `http://127.0.0.1:${portOf(worker)}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: chromium },
    trace: 'off',
  },
  // the real built application
  webServer: Array.from({ length: WORKERS }, (_, index) => {
    const folder = `test-results/data-${index}`
    return {
      command: `rm -rf ${folder} && node node_modules/.bin/tsx demo/seed.ts ${folder} && node .output/server/index.mjs`,
      url: `http://127.0.0.1:${portOf(index)}/api/machines`,
      env: { NUXT_DATA_FOLDER: folder, PORT: String(portOf(index)), HOST: '127.0.0.1' },
      reuseExistingServer: false,
      timeout: 120_000,
    }
  }),
})
