import { defineConfig } from '@playwright/test'

const port = 4173
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
  workers: 1,
  forbidOnly: true,
  outputDir: 'test-results/browser',
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : 'list',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: chromium },
    trace: 'off',
  },
  webServer: {
    // the real built application on a database of its own
    command: `rm -rf test-results/data && node node_modules/.bin/tsx demo/seed.ts test-results/data && node .output/server/index.mjs`,
    url: `http://127.0.0.1:${port}/api/machines`,
    env: { NUXT_DATA_FOLDER: 'test-results/data', PORT: String(port), HOST: '127.0.0.1' },
    reuseExistingServer: false,
    timeout: 60_000,
  },
})
