import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { components, newMachine, openMachine, place, run, saved } from './helpers'

const port = 4183
const own = `http://127.0.0.1:${port}`
async function serve(folder: string): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: 'ignore',
    env: { ...process.env, NUXT_DATA_FOLDER: folder, PORT: String(port), HOST: '127.0.0.1' },
  })
  await expect
    .poll(
      () =>
        fetch(`${own}/api/machines`).then(
          (r) => r.ok,
          () => false,
        ),
      { timeout: 15_000 },
    )
    .toBe(true)
  return server
}
const killed = (server: ChildProcess) =>
  new Promise((resolve) => {
    server.on('exit', resolve)
    server.kill('SIGKILL')
  })

test('loses nothing that was shown as saved when the server is killed, and says so while it is away', async ({
  browser,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'oar-bench-'))
  const context = await browser.newContext({ baseURL: own, viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  let server = await serve(folder)
  try {
    await newMachine(page, 'Survivor')
    await place(page, 'pump', 300, 400)
    await saved(page)
    await killed(server)
    await place(page, 'tank', 500, 400)
    await expect(page.getByTestId('save-state')).toHaveAttribute('data-state', 'failed')
    await expect(page.getByTestId('save-state')).toContainText('Not saved: The server does not answer.')
    server = await serve(folder)
    // it tries again by itself as well, and may be first
    await page
      .getByRole('button', { name: 'Try again' })
      .click({ timeout: 3000 })
      .catch(() => {})
    await saved(page)
    await killed(server)
    server = await serve(folder)
    await page.reload()
    await expect(components(page)).toHaveCount(2)
  } finally {
    await killed(server)
    await context.close()
    rmSync(folder, { recursive: true, force: true })
  }
})

test('does not write over what was changed elsewhere', async ({ page, browser }) => {
  await newMachine(page, 'Two desks')
  await place(page, 'pump', 300, 400)
  await saved(page)
  // another browser: tabs of one tell each other
  const elsewhere = await browser.newContext()
  const other = await elsewhere.newPage()
  await other.goto(page.url())
  await expect(components(other)).toHaveCount(1)
  await place(other, 'tank', 500, 300)
  await saved(other)
  await place(page, 'motor', 200, 300)
  await expect(page.getByTestId('save-state')).toContainText('changed elsewhere')
  await page.getByRole('button', { name: 'Use the other version' }).click()
  await saved(page)
  await expect(page.locator('[data-kind="reservoir"]')).toHaveCount(1)
  await expect(page.locator('[data-kind="electric-motor"]')).toHaveCount(0)
  await elsewhere.close()
})

test('refuses bad bodies plainly and changes nothing', async ({ request }) => {
  const [machine] = await (await request.get('/api/machines')).json()
  const detail = await (await request.get(`/api/machines/${machine.id}`)).json()
  const url = `/api/sheets/${detail.sheet.id}`
  for (const [data, words] of [
    [{}, 'revision'],
    [{ revision: 1, sheet: { format: 'else' } }, 'not an Oar Bench sheet'],
    [{ revision: 1, sheet: { ...detail.sheet.content, extra: 1 } }, 'extra'],
  ] as const) {
    const answer = await request.put(url, { data })
    expect(answer.status()).toBe(400)
    expect((await answer.json()).message).toContain(words)
  }
  const other = { ...detail.sheet.content, title: 'Other' }
  const stale = await request.put(url, { data: { revision: 999, sheet: other } })
  expect(stale.status()).toBe(409)
  // what the server has already is saved, whatever it was made from
  const same = await request.put(url, { data: { revision: 999, sheet: detail.sheet.content } })
  expect(same.status()).toBe(200)
  expect(
    (await request.put('/api/sheets/none', { data: { revision: 1, sheet: detail.sheet.content } })).status(),
  ).toBe(404)
  const bytes = Buffer.from('nonsense').toString('base64')
  const run = await request.post(`${url}/runs`, {
    data: { name: 'x', sheet: detail.sheet.content, data: bytes },
  })
  expect((await run.json()).message).toContain('not a kept run')
  expect((await request.get('/api/runs/none')).status()).toBe(404)
  expect((await request.post('/api/machines', { data: { name: '  ' } })).status()).toBe(400)
  const after = await (await request.get(`/api/machines/${machine.id}`)).json()
  expect(after.sheet).toEqual(detail.sheet)
})

test('makes and deletes a machine, and keeps one from being deleted by mistake', async ({ page }) => {
  await newMachine(page, 'Short-lived')
  await page.getByRole('link', { name: 'Oar Bench' }).click()
  await page.getByRole('button', { name: 'Delete Short-lived' }).click()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByRole('link', { name: 'Short-lived' })).toBeVisible()
  await page.getByRole('button', { name: 'Delete Short-lived' }).click()
  await page.getByRole('button', { name: 'Delete', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Short-lived' })).toHaveCount(0)
  await page.goto('/machines/none/sheet')
  await expect(page.getByRole('alert')).toContainText('no such machine')
})

test('ships its fonts and reaches for nothing outside', async ({ page }) => {
  const outside: string[] = []
  page.on('request', (r) => {
    if (!r.url().startsWith('http://127.0.0.1') && !/^(data|blob):/.test(r.url())) outside.push(r.url())
  })
  await openMachine(page, 'Shavings press', 'Run')
  await run(page)
  expect(outside).toEqual([])
  expect(
    await page.evaluate(
      () =>
        document.fonts.check('14px "Source Sans 3"') && document.fonts.check('14px "Barlow Semi Condensed"'),
    ),
  ).toBe(true)
  expect(readFileSync('package.json', 'utf8')).toContain('@fontsource/source-sans-3')
})
