/** Takes the pictures in docs/screenshots from the demo data: one of each main view. */
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'

const port = 4175
const address = `http://127.0.0.1:${port}`
const folder = mkdtempSync(join(tmpdir(), 'oar-bench-pictures-'))
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

const seeding = spawn(process.execPath, ['node_modules/.bin/tsx', 'demo/seed.ts', folder], {
  stdio: 'inherit',
})
await new Promise((resolve) => seeding.on('exit', resolve))
const server = spawn(process.execPath, ['.output/server/index.mjs'], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ...process.env, NUXT_DATA_FOLDER: folder, PORT: String(port), HOST: '127.0.0.1' },
})
for (let i = 0; i < 100; i++) {
  if (
    await fetch(`${address}/api/machines`).then(
      (r) => r.ok,
      () => false,
    )
  )
    break
  await wait(100)
}
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'],
})
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const step = (name: RegExp) =>
    page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name }).click()
  const picture = (name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` })
  await page.setViewportSize({ width: 1280, height: 2600 })
  await page.goto(`${address}/symbols`)
  await page.getByRole('heading', { name: 'Symbols' }).waitFor()
  await picture('symbols')
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(address)
  await page.getByRole('link', { name: 'Shavings press' }).waitFor()
  // the summaries of the sheets are made in the background
  await page.waitForFunction(() => !document.body.innerText.includes('being checked'))
  await wait(600)
  await picture('machines')
  await page.getByRole('link', { name: 'Shavings press' }).click()
  await step(/^Brief/)
  await page.getByRole('heading', { name: 'Brief' }).waitFor()
  await picture('brief')
  await step(/^Sheet/)
  await page.locator('[data-component="V1"]').click()
  await wait(200)
  await picture('sheet')
  await page.getByTestId('sheet').press('Control+p')
  await page.getByTestId('print').locator('img').waitFor()
  await wait(500)
  await picture('print')
  await page.keyboard.press('Escape')
  await page.getByTestId('sheet').press('?')
  await page.getByTestId('key-sheet').waitFor()
  await wait(300)
  await picture('keys')
  await page.keyboard.press('Escape')
  const revisions = async () => {
    await page.getByTestId('files').click()
    await page.getByTestId('open-revisions').click()
  }
  await revisions()
  await page.getByTestId('revision-name').fill('A')
  await page.getByTestId('revision-note').fill('For review')
  await page.getByTestId('keep-revision').click()
  await page.getByTestId('revision').waitFor()
  await page.keyboard.press('Escape')
  const setting = page.getByTestId('parameter-setting').locator('input')
  await setting.fill('150 bar')
  await setting.press('Enter')
  await revisions()
  await page.getByTestId('compare').click()
  await page.getByTestId('changes').waitFor()
  await wait(400)
  await picture('revisions')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Undo' }).click()
  await step(/^Sizes/)
  await page.getByTestId('nav-cylinder-bore@platen').click()
  await page.getByTestId('candidates-bore').waitFor()
  await page.locator('[data-testid="save-state"][data-state="saved"]').waitFor()
  await picture('sizes')
  await page.getByTestId('nav-high-low-pump').click()
  await page.getByText('Shaft power over pressure').scrollIntoViewIfNeeded()
  await page.getByLabel('Card', { exact: true }).evaluate((card) => card.scrollTo(0, card.scrollHeight))
  await wait(900)
  await picture('pump-chart')
  await step(/^Run/)
  await page.getByTestId('run').click()
  await page.getByTestId('time-slider').waitFor()
  await page.getByTestId('time-slider').fill('7')
  await wait(600)
  await picture('run')
  await page.goto(address)
  await page.getByRole('link', { name: 'Blade press' }).click()
  await step(/^Sizes/)
  await page.getByTestId('open-ruler').click()
  await page.getByTestId('settings-ruler').waitFor()
  await picture('ruler')
  await step(/^Sheet/)
  await page.getByTestId('variants').click()
  await wait(400)
  await picture('variants')
  await page.goto(address)
  await page.getByRole('link', { name: 'Boat lift' }).click()
  await step(/^Sheet/)
  await page.locator('[data-component="A1"] .component-reach').click()
  await page.getByTestId('people-under').check()
  await page.getByTestId('findings').click()
  await wait(400)
  await picture('findings')
  await page.keyboard.press('Escape')
  await page.goto(address)
  await page.getByRole('link', { name: 'Gate pack' }).click()
  await step(/^Sizes/)
  await page.getByTestId('nav-accumulator-volume').click()
  await wait(600)
  await picture('sizes-gate-pack')
  await page.goto(address)
  await page.getByRole('link', { name: 'Quay crane' }).click()
  await step(/^Sizes/)
  await page.getByTestId('nav-cylinder-buckling@luff').click()
  await page.getByText('Safety against buckling over').scrollIntoViewIfNeeded()
  await wait(900)
  await picture('sizes-crane')
  await step(/^Run/)
  await page.getByTestId('run').click()
  await page.getByTestId('time-slider').waitFor()
  await page.getByTestId('time-slider').fill('4.5')
  await wait(800)
  await picture('crane')
  await page.goto(address)
  await page.getByRole('link', { name: 'Slipway winch' }).click()
  await step(/^Run/)
  await page.getByTestId('run').click()
  await page.getByTestId('time-slider').waitFor()
  await page.getByTestId('time-slider').fill('6')
  await wait(800)
  await picture('winch')
} finally {
  await browser.close()
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}
